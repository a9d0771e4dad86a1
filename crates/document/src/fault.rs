//! Why something cannot be read or found.

/// Why a text, or what a text refers to, cannot be read.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Fault {
    /// What is wrong.
    pub message: String,
    /// Line and column, from 1, where they are known.
    pub place: Option<(u64, u64)>,
    /// The way out.
    pub help: Option<String>,
}

impl Fault {
    /// A fault of the whole.
    pub fn new(message: impl Into<String>) -> Self {
        Self { message: message.into(), place: None, help: None }
    }

    /// The same, with a way out if there is one.
    #[must_use]
    pub fn with_way_out(self, help: Option<String>) -> Self {
        Self { help, ..self }
    }
}
