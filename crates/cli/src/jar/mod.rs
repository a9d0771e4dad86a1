//! The jar: `jar.toml`, which keeps sources, decisions and the languages to grow.

mod edit;
mod open;
mod read;

use std::path::{Component, Path, PathBuf};

use jar_sprout_grow::{Dialect, Language, Settings, SharedPlace, find_language};
use jar_sprout_model::{Problem, Words};
use jar_sprout_settle::Decision;

use crate::failure::Failure;
use crate::modelling::Home;
use crate::recipe::Recipe;
use crate::request::Request;

pub(crate) use edit::{
    NewLanguage, NewModel, add_languages, add_sources, decided_in, new_jar, set_policies, set_recipe,
    write_decision, write_jar,
};
use edit::{add_model, say_folder};
pub(crate) use open::{
    Models, Opened, enter_jar, enter_jar_alone, from_anywhere, from_jar, go_to_jar_there_is, no_such_model,
    open_models,
};
pub(crate) use read::{parse_jar, read_jar, read_text};

/// The folder of the samples that are recorded for a model, or taken out of a recording.
pub(crate) fn samples_of(model: &str) -> PathBuf {
    Path::new(SAMPLES).join(model)
}

/// The source of those whose files end so.
pub(crate) fn source_of(model: &str, ending: &str) -> String {
    format!("{SAMPLES}/{model}/*.{ending}")
}

/// The name of the file.
pub(crate) const FILE: &str = "jar.toml";

/// The folder of samples.
pub(crate) const SAMPLES: &str = "samples";

/// The folder that is that of the language itself.
pub(crate) const HERE: &str = ".";

/// What the code is called that all models share; the first that is no model's.
const SHARED: &[&str] = &["shared", "common", "helpers"];

/// What a jar calls a model of this name: `top-bar-hives`.
pub(crate) fn model_name(words: &Words) -> String {
    let plain =
        |word: &str| -> String { word.to_lowercase().chars().filter(char::is_ascii_alphanumeric).collect() };
    let name: Vec<String> = words.iter().map(plain).filter(|word| !word.is_empty()).collect();
    let name = name.join("-");
    if name.starts_with(|c: char| c.is_ascii_lowercase()) { name } else { format!("model-{name}") }
}

/// What stands for such code where there is none.
pub(crate) const BRINGS_OWN: &str = "none";

/// What a `jar.toml` says.
#[derive(Debug, Default)]
pub(crate) struct Jar {
    pub(crate) models: Vec<JarModel>,
    pub(crate) languages: Vec<JarLanguage>,
}

/// One model of a jar.
#[derive(Debug, Clone)]
pub(crate) struct JarModel {
    /// What the jar calls it: `hives`.
    pub(crate) name: String,
    /// The folder of its code in that of each language, where the jar says it: `.` for that itself.
    pub(crate) folder: Option<String>,
    /// What it is made of; its decisions stand beside.
    pub(crate) request: Request,
    /// Those of all models first, then its own.
    pub(crate) decisions: Vec<JarDecision>,
    /// How its samples are asked for.
    pub(crate) recipe: Option<Recipe>,
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
    /// Whether its files say that they are grown.
    pub(crate) is_marked: bool,
    /// What the jar calls the code that all models share, where it says so.
    pub(crate) shared: Option<String>,
}

/// Where the code goes that all models share, and as what.
pub(crate) struct SharedCode {
    /// What it is called: the name of its folder, or the path to it.
    name: String,
    pub(crate) dir: PathBuf,
    settings: Settings,
}

/// Where the code of a model goes, and as what.
pub(crate) struct Place {
    pub(crate) dir: PathBuf,
    pub(crate) dialect: Box<dyn Dialect>,
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
    /// The models of these names; all where there is none.
    pub(crate) fn named(&self, only: &[String]) -> Result<Vec<&JarModel>, Problem> {
        if let Some(unknown) = only.iter().find(|name| self.models.iter().all(|model| model.name != **name)) {
            return Err(no_such_model(self, unknown));
        }
        Ok(self.models.iter().filter(|model| only.is_empty() || only.contains(&model.name)).collect())
    }

    /// The text of the jar with one more model; where there was one, its code stays where it may have been grown.
    pub(crate) fn with_model(&self, text: &str, new: &NewModel<'_>) -> String {
        match &self.models[..] {
            [JarModel { name, folder: None, .. }] if !self.languages.is_empty() => {
                add_model(&say_folder(text, name, HERE), new)
            }
            _ => add_model(text, new),
        }
    }

    /// Its languages, or the one that was named.
    pub(crate) fn languages(&self, into: Option<&str>) -> Result<Vec<&JarLanguage>, Problem> {
        let is_meant = |one: &&JarLanguage| {
            into.is_none_or(|into| {
                one.name == into || find_language(into).is_some_and(|l| l.key() == one.language.key())
            })
        };
        let languages: Vec<&JarLanguage> = self.languages.iter().filter(is_meant).collect();
        if !languages.is_empty() {
            return Ok(languages);
        }
        Err(match into {
            Some(into) => Failure::argument("the jar does not grow this language", format!("--into {into}"))
                .with_help(format!("`jar-sprout grow --into {into} --dir FOLDER` adds it to the jar")),
            None => Failure::argument("the jar says no language to grow", FILE).with_help(
                "`jar-sprout grow --into kotlin` prints one; with `--dir FOLDER` it is added to the jar",
            ),
        })
    }

    /// Where the decisions of a model are kept.
    pub(crate) fn home<'m>(&self, model: &'m JarModel) -> Home<'m> {
        Home::Jar((self.models.len() > 1).then_some(model.name.as_str()))
    }

    /// The place of what all models share, where there are several and the language can find it.
    pub(crate) fn shared_code(&self, one: &JarLanguage) -> Option<SharedCode> {
        let JarLanguage { name: _, language, dir, settings, is_marked: _, shared } = one;
        let is_free =
            |name: &&str| self.models.iter().all(|model| self.folder(model).as_deref() != Some(*name));
        let name = match shared {
            Some(name) => name.as_str(),
            None => SHARED.iter().copied().find(is_free)?,
        };
        if self.models.len() < 2 || name == BRINGS_OWN {
            return None;
        }
        let folder = language.shared_path().and_then(|between| name.rsplit(between).next()).unwrap_or(name);
        let settings = language.shared(settings, folder);
        let dir = folder_apart(*language, &settings, dir, &folder_name(folder));
        let code = SharedCode { name: name.to_owned(), dir, settings };
        language.sharing(&code.settings, &code.place("")).map(|_| code)
    }

    /// The folder of a model's code, as the jar says it or has it where there are several.
    fn folder(&self, model: &JarModel) -> Option<String> {
        let own = || (self.models.len() > 1).then(|| model.name.clone());
        let folder = model.folder.clone().or_else(own).filter(|folder| folder != HERE);
        folder.map(|folder| folder_name(&folder))
    }

    /// The place for a model's code: apart from the others where there are several, if the jar does not say
    /// otherwise.
    pub(crate) fn place(&self, language: &JarLanguage, model: &JarModel) -> Place {
        let shared = self.shared_code(language);
        let JarLanguage { name: _, language, dir, settings, .. } = language;
        let (dir, settings) = match self.folder(model) {
            None => (folder_of(*language, settings, dir), settings.clone()),
            Some(part) => {
                let settings = language.apart(settings, &part);
                (folder_apart(*language, &settings, dir, &part), settings)
            }
        };
        let sharing =
            |shared: SharedCode| language.sharing(&settings, &shared.place(&way(&dir, &shared.dir)));
        let settings = shared.and_then(sharing).unwrap_or(settings);
        Place { dir, dialect: language.dialect(&settings) }
    }
}

impl SharedCode {
    fn place<'s>(&'s self, way: &'s str) -> SharedPlace<'s> {
        SharedPlace { name: &self.name, settings: &self.settings, way }
    }

    pub(crate) fn dialect(&self, language: &JarLanguage) -> Box<dyn Dialect> {
        language.language.dialect(&self.settings)
    }
}

/// The folder of code that stands apart; where packages are folders, its own is one of them.
fn folder_apart(language: &dyn Language, settings: &Settings, dir: &Path, part: &str) -> PathBuf {
    match language.folders(settings).is_empty() {
        true => dir.join(part),
        false => folder_of(language, settings, dir),
    }
}

/// The way from a folder to another: `../shared`.
pub(crate) fn way(from: &Path, to: &Path) -> String {
    let (from, to) = (names(from), names(to));
    let shared = from.iter().zip(&to).take_while(|(a, b)| a == b).count();
    let up = from[shared..].iter().map(|_| "..");
    up.chain(to[shared..].iter().map(String::as_str)).collect::<Vec<_>>().join("/")
}

/// The names of the folders on the way to one, without those that lead back.
fn names(path: &Path) -> Vec<String> {
    let here = std::env::current_dir().unwrap_or_default();
    let mut names = Vec::new();
    for part in here.join(path).components() {
        match part {
            Component::CurDir => {}
            Component::ParentDir => drop(names.pop()),
            part => names.push(part.as_os_str().to_string_lossy().into_owned()),
        }
    }
    names
}

/// The folder in which a language's people keep code with these settings: that of its package, as far as the folder
/// is not in it already.
pub(crate) fn folder_of(language: &dyn Language, settings: &Settings, dir: &Path) -> PathBuf {
    let package = language.folders(settings);
    let is_there = |count: &usize| dir.ends_with(package[..*count].iter().collect::<PathBuf>());
    let there = (1..=package.len()).rev().find(is_there).unwrap_or(0);
    dir.join(package[there..].iter().collect::<PathBuf>())
}

/// What a folder is called that is a package as well.
pub(crate) fn folder_name(name: &str) -> String {
    name.replace('-', "_")
}

/// The folder of the nearest jar: this one, or one above.
pub(crate) fn nearest_jar() -> Option<PathBuf> {
    let here = std::env::current_dir().ok()?;
    // What is called so and is no file cannot be read, which is told.
    here.ancestors().find(|folder| folder.join(FILE).symlink_metadata().is_ok()).map(Path::to_path_buf)
}
