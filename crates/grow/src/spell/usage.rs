//! How grown code is used: what a project needs for it, and a program that reads a response with it.

use jar_sprout_layout::Doc;

use super::grown_file::GrownFile;

/// How grown code is used.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Usage {
    /// What the files of a project need for it, each by the file's name: `build.gradle.kts`.
    pub project: Vec<GrownFile>,
    /// A program that reads a response from a file and writes it again; none where nothing reads it.
    pub program: Option<UsingProgram>,
}

/// A program that reads a response from a file and writes it again.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct UsingProgram {
    /// Its file.
    pub file: GrownFile,
    /// The folder beside it in which it looks for the grown code; none where the two stand in one folder.
    pub folder: Option<String>,
    /// What it is called when it is run: a file, or a class with its package.
    pub run: String,
    /// The line that reads a response.
    pub reading: String,
}

/// What a program reads, and with which code.
#[derive(Debug, Clone, Copy)]
pub struct Place<'p> {
    /// The file.
    pub sample: &'p str,
    /// The folder of the code, from that of the project; none where nobody knows.
    pub code: Option<&'p str>,
}

/// A program as a language spells it.
pub struct Program {
    pub(crate) body: Body,
    /// The folder beside it in which it looks for the grown code; none where the two stand in one folder.
    pub(crate) folder: Option<String>,
    /// What it is called when it is run.
    pub(crate) run: String,
    /// The line that reads a response.
    pub(crate) reading: String,
}

/// What stands in the file of a program.
pub(crate) enum Body {
    /// Declarations as of any grown file, which is named after the program.
    Declarations(Vec<Doc>),
    /// All of it, in a file of this name.
    Whole(String, Doc),
}
