//! Structures: what objects are by the user's word, which comes before anything has a name.

/// What the objects, or the texts, at a position are, whatever the evidence says.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Structure {
    /// `map`: their keys are data
    Map,
    /// `record`: their keys are names, and they are of one kind
    Record,
    /// `by kind`: of several kinds, which this key tells apart
    By(String),
    /// `union`: of several kinds, each with keys of its own
    Union,
    /// `json-in-text`: what the texts there say, which are JSON themselves
    JsonInText,
}
