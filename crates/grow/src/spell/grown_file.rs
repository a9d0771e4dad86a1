//! A grown file.

/// One file of code.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct GrownFile {
    /// Its name, without a folder.
    pub name: String,
    /// Its whole text, with a newline at the end.
    pub text: String,
}

impl GrownFile {
    /// A file of this name and text.
    pub(crate) fn new(name: impl Into<String>, text: impl Into<String>) -> Self {
        Self { name: name.into(), text: text.into() }
    }
}
