//! Why a text cannot be read.

/// Why a text is neither JSON nor YAML.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Fault {
    /// What is wrong.
    pub message: String,
    /// Line and column, from 1, where they are known.
    pub place: Option<(u64, u64)>,
    /// The way out.
    pub help: Option<String>,
}
