//! The strictest judges that a language's community has, beside those that are heard in every proof: what they read is
//! neither compiled by the proof's compiler nor run, so that code grown with many settings lies before them at once.

mod go;
mod java;
mod kotlin;
mod python;
mod typescript;

use std::io;
use std::path::{Path, PathBuf};
use std::process::Command;

use jar_sprout_grow::{Arrangement, Grown, Language, Settings, grow_prepared, prepare};
use jar_sprout_model::Model;

use crate::pardons::pardoned;
use crate::prove::{hear, write};
use crate::report::ToolOutput;
use crate::toolchain::Missing;
use crate::tools::Tools;

/// Code that is shown to the judges.
#[derive(Debug, Clone)]
pub struct Exhibit {
    /// What it is called when they speak of it.
    pub name: String,
    /// What it is grown from.
    pub model: Model,
    /// How it is grown.
    pub settings: Settings,
}

/// The judges of a language, ready to read what lies in the scratch folder.
struct Bench {
    /// The folder for the code inside the scratch folder.
    code: &'static str,
    /// Files beside it: how the judges are set up.
    files: Vec<(&'static str, String)>,
    /// Each must succeed and say nothing.
    judges: Vec<(&'static str, Command)>,
}

/// Finds the judges of a language.
type Find = fn(&Tools) -> Result<Bench, Missing>;

/// How each language's judges are found; the others have all of theirs in every proof.
const BENCHES: &[(&str, Find)] = &[
    ("go", go::find),
    ("java", java::find),
    ("kotlin", kotlin::find),
    ("python", python::find),
    ("typescript", typescript::find),
];

/// What the strictest judges of a language say of code; none where all they have is heard in every proof.
///
/// # Errors
/// The outer one: files that cannot be written, programs that cannot be run. The inner one: a judge is not there.
pub fn judge(
    language: &dyn Language,
    exhibits: &[Exhibit],
    tools: &Tools,
) -> io::Result<Result<Option<Vec<ToolOutput>>, Missing>> {
    let Some((_, find)) = BENCHES.iter().find(|(key, _)| *key == language.key()) else { return Ok(Ok(None)) };
    let Bench { code, files, mut judges } = match find(tools) {
        Ok(bench) => bench,
        Err(missing) => return Ok(Err(missing)),
    };
    let scratch = tempfile::Builder::new().prefix("jar-sprout-").tempdir()?;
    let folder = scratch.path().canonicalize()?;
    for (name, text) in &files {
        write(&folder.join(name), text)?;
    }
    for (index, exhibit) in exhibits.iter().enumerate() {
        lay_out(language, exhibit, &format!("t{index:04}"), &folder.join(code))?;
    }
    let commands = judges.iter_mut().map(|(name, command)| (*name, command.current_dir(&folder)));
    let names: Vec<&str> = exhibits.iter().map(|exhibit| exhibit.name.as_str()).collect();
    Ok(Ok(Some(hear(commands, &names)?)))
}

fn lay_out(language: &dyn Language, exhibit: &Exhibit, place: &str, code: &Path) -> io::Result<()> {
    let dialect = &*language.dialect(&language.for_trial(&exhibit.settings, place));
    let Grown { files, .. } = grow_prepared(dialect, &prepare(dialect, &exhibit.model), Arrangement::AsUsual);
    files.iter().try_for_each(|file| write(&code.join(place).join(&file.name), &file.text))
}

/// A tool that somebody installs with ours.
fn installed(tools: &Tools, what: &str, path: &str) -> Result<PathBuf, Missing> {
    tools.installed(path).ok_or_else(|| Missing::new(what, "toolchains/install"))
}

/// A program of the Java development kit.
fn java(tools: &Tools, name: &str) -> Result<PathBuf, Missing> {
    let line = "apt-get install openjdk-17-jdk-headless";
    tools.program(name).ok_or_else(|| Missing::new("Java 17 or later", line))
}
