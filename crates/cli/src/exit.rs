//! Exit statuses.

use std::process::ExitCode;

/// What the program says to its caller.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Exit {
    /// All well; also when the reader of our output went away.
    Well = 0,
    /// Unusable arguments or input. Status 1 is for findings, of which these commands have none.
    Unusable = 2,
}

impl From<Exit> for ExitCode {
    fn from(exit: Exit) -> Self {
        Self::from(exit as u8)
    }
}
