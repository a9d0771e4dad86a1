//! Why a command cannot go on.

use std::io;

use jar_sprout_model::{Problem, Spot};

use crate::source_names::SourceNames;

/// Why a command cannot go on.
#[derive(Debug)]
pub(crate) enum Failure {
    /// Something is wrong with what the user gave.
    Problem(Box<Problem>, SourceNames),
    /// Standard output cannot be written.
    Output(io::Error),
}

/// The result of a command or a part of it.
pub(crate) type Outcome<T> = Result<T, Failure>;

impl Failure {
    /// A problem with an argument.
    pub(crate) fn argument(message: impl Into<String>, argument: impl Into<String>) -> Problem {
        Problem::error(message, Spot::Argument(argument.into()))
    }

    /// A problem with a file or folder.
    pub(crate) fn path(message: impl Into<String>, path: &std::path::Path) -> Problem {
        Problem::error(message, Spot::Path(path.display().to_string()))
    }
}

impl From<Problem> for Failure {
    fn from(problem: Problem) -> Self {
        Self::Problem(Box::new(problem), SourceNames::default())
    }
}

impl From<io::Error> for Failure {
    fn from(error: io::Error) -> Self {
        Self::Output(error)
    }
}

/// What the system says of an error, in our lower case.
pub(crate) fn reason(error: &io::Error) -> String {
    match error.kind() {
        io::ErrorKind::NotFound => "there is no such file or folder".to_owned(),
        io::ErrorKind::PermissionDenied => "permission denied".to_owned(),
        io::ErrorKind::StorageFull => "the disk is full".to_owned(),
        io::ErrorKind::ReadOnlyFilesystem => "the file system is read-only".to_owned(),
        _ => {
            let text = error.to_string();
            let text = text.split(" (os error").next().unwrap_or(&text);
            let mut chars = text.chars();
            chars.next().map(|first| first.to_lowercase().chain(chars).collect()).unwrap_or_default()
        }
    }
}
