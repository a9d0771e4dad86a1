//! What a toolchain is: found on this machine, set up in a scratch folder, its commands ready to run.

use std::path::{Path, PathBuf};
use std::process::Command;

use jar_sprout_grow::{Abilities, Language, Nulls};

use crate::tools::Tools;

/// A toolchain that is not there.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Missing {
    /// What is missing: `the Kotlin compiler`.
    pub what: String,
    /// The line that installs it.
    pub install: String,
}

/// What a toolchain is asked for.
pub(crate) struct Task<'w> {
    pub(crate) tools: &'w Tools,
    /// An empty folder, which the commands run in.
    pub(crate) folder: &'w Path,
    pub(crate) language: &'w dyn Language,
    /// What the grown code can and cannot do, and what it stands on.
    pub(crate) abilities: &'w Abilities,
    /// What is run in place of the driver of trials: a file, or a class with its package.
    pub(crate) program: Option<&'w str>,
}

/// A toolchain, ready to compile and run what lies in the scratch folder.
pub(crate) struct Ready {
    /// What was found, with its version: `kotlinc 2.4.20`.
    pub(crate) title: String,
    /// The folder for the code inside the scratch folder.
    pub(crate) code: &'static str,
    /// Files of the project, beside the code.
    pub(crate) files: Vec<(&'static str, String)>,
    /// Compiles everything; each must succeed and say nothing.
    pub(crate) compile: Vec<Command>,
    /// What is built in a place that others build in as well.
    pub(crate) shared: Option<Shared>,
    /// Passes the samples through the code, their list on standard input; none where compiling proves it all.
    pub(crate) run: Option<Command>,
    /// Which nulls come back.
    pub(crate) nulls: Nulls,
    /// Linters and formatters; each must succeed and say nothing.
    pub(crate) judges: Vec<(&'static str, Command)>,
}

/// A program that is built in a place that others build in as well: at the same time it would be theirs that is run.
pub(crate) struct Shared {
    /// The file that is locked from before it is built until it was taken away.
    pub(crate) lock: PathBuf,
    /// The source that is made the newest of all before it is built: what others built since then is not taken for it.
    pub(crate) source: PathBuf,
    pub(crate) built: PathBuf,
    /// Where it is taken.
    pub(crate) own: PathBuf,
}

/// Finds a toolchain.
pub(crate) type Find = fn(&Task<'_>) -> Result<Ready, Missing>;

impl Missing {
    pub(crate) fn new(what: &str, install: impl Into<String>) -> Self {
        Self { what: what.to_owned(), install: install.into() }
    }
}

impl Task<'_> {
    /// What is run: a program of its own, or the driver of trials.
    pub(crate) fn main(&self, driver: &'static str) -> &str {
        self.program.unwrap_or(driver)
    }

    /// A command in the scratch folder.
    pub(crate) fn command(&self, program: impl AsRef<std::ffi::OsStr>) -> Command {
        let mut command = Command::new(program);
        command.current_dir(self.folder);
        command
    }
}
