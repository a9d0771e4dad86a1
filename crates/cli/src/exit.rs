//! Exit statuses.

use std::process::ExitCode;

/// What the program says to its caller.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Exit {
    /// All well; also when the reader of our output went away.
    Well = 0,
    /// Something was found that should not be: a sample that a model does not carry.
    Findings = 1,
    /// Unusable arguments or input.
    Unusable = 2,
}

impl From<Exit> for ExitCode {
    fn from(exit: Exit) -> Self {
        Self::from(exit as u8)
    }
}
