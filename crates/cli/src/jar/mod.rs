//! The jar: `jar.toml`, which keeps sources, decisions and the languages to grow.

mod edit;
mod open;
mod read;

use std::path::{Path, PathBuf};

use jar_sprout_grow::{Dialect, Language, Settings};
use jar_sprout_settle::Decision;

use crate::modelling::Home;
use crate::request::Request;

pub(crate) use edit::{NewModel, add_languages, add_model, new_jar, write_decision, write_jar};
pub(crate) use open::{Models, Opened, enter_jar, no_such_model, open_models};
pub(crate) use read::{parse_jar, read_jar, read_text};

/// The name of the file.
pub(crate) const FILE: &str = "jar.toml";

/// What a `jar.toml` says.
#[derive(Debug)]
pub(crate) struct Jar {
    pub(crate) models: Vec<JarModel>,
    pub(crate) languages: Vec<JarLanguage>,
}

/// One model of a jar.
#[derive(Debug)]
pub(crate) struct JarModel {
    /// What the jar calls it: `hives`.
    pub(crate) name: String,
    /// What it is made of; its decisions stand beside.
    pub(crate) request: Request,
    /// Those of all models first, then its own.
    pub(crate) decisions: Vec<JarDecision>,
}

/// A decision, and whose it is.
#[derive(Debug, Clone)]
pub(crate) struct JarDecision {
    pub(crate) decision: Decision,
    /// Whether it stands for all models, of which it need not match each.
    pub(crate) is_shared: bool,
}

/// A language to grow.
pub(crate) struct JarLanguage {
    /// What the jar calls it; the language's own key, most often.
    pub(crate) name: String,
    pub(crate) language: &'static dyn Language,
    pub(crate) dir: PathBuf,
    pub(crate) settings: Settings,
}

impl std::fmt::Debug for JarLanguage {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.debug_struct("JarLanguage")
            .field("name", &self.name)
            .field("dir", &self.dir)
            .finish_non_exhaustive()
    }
}

impl Jar {
    /// Where the decisions of a model are kept.
    pub(crate) fn home<'m>(&self, model: &'m JarModel) -> Home<'m> {
        Home::Jar((self.models.len() > 1).then_some(model.name.as_str()))
    }

    /// The folder and the dialect for a model's code: apart from the others where there are several.
    pub(crate) fn place(&self, language: &JarLanguage, model: &JarModel) -> (PathBuf, Box<dyn Dialect>) {
        let JarLanguage { name: _, language, dir, settings } = language;
        if self.models.len() == 1 {
            return (dir.clone(), language.dialect(settings));
        }
        let part = model.name.replace('-', "_");
        (dir.join(&part), language.dialect(&language.apart(settings, &part)))
    }
}

/// The folder of the nearest jar: this one, or one above.
pub(crate) fn nearest_jar() -> Option<PathBuf> {
    let here = std::env::current_dir().ok()?;
    here.ancestors().find(|folder| folder.join(FILE).is_file()).map(Path::to_path_buf)
}
