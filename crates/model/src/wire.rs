//! What the wire shows of a field: its key, and whether it is always there.

use std::borrow::Borrow;
use std::fmt;
use std::sync::Arc;

/// A key or a text exactly as the input wrote it, after JSON's escapes are undone. Cheap to clone.
#[derive(Debug, Clone, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub struct WireName(Arc<str>);

impl WireName {
    /// Takes any text, the empty one too: the wire forbids nothing.
    pub fn new(text: impl AsRef<str>) -> Self {
        Self(text.as_ref().into())
    }

    /// The text itself.
    pub fn as_str(&self) -> &str {
        &self.0
    }
}

impl Borrow<str> for WireName {
    fn borrow(&self) -> &str {
        &self.0
    }
}

impl fmt::Display for WireName {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(&self.0)
    }
}

/// Whether a field's key is there. Kept apart from nullability to the end: `{}` and `{"a":null}` differ.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum Presence {
    /// Every object seen had the key.
    Always,
    /// At least one object was seen without the key.
    Sometimes,
}
