//! What can be wrong with JSON text, in the user's words.

use thiserror::Error;

/// A fault in the text, with what helps against it.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub(crate) enum Fault {
    #[error("there is no JSON value in here")]
    Empty,
    #[error("expected {expected}, found {found}")]
    Unexpected { expected: &'static str, found: Found, after_comma: bool },
    #[error("this is not `{expected}`")]
    Literal { expected: &'static str },
    #[error("the text ends in the middle of {inside}")]
    Truncated { inside: &'static str },
    #[error("nested deeper than {limit} levels")]
    TooDeep { limit: usize },
    #[error("not valid UTF-8")]
    Utf8,
    #[error("a control character inside a string must be escaped")]
    ControlCharacter,
    #[error("the line ends in the middle of a string")]
    LineInString,
    #[error("not an escape that JSON knows")]
    Escape,
    #[error("a surrogate escape without its other half")]
    LoneSurrogate,
    #[error("not a number that JSON knows")]
    Number,
    #[error("a {what} of more than {limit} bytes")]
    TooLong { what: &'static str, limit: usize },
    #[error("more text follows the value on its line")]
    Trailing,
    #[error("cannot read on: {0}")]
    Io(String),
}

/// A byte of the input as a message shows it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct Found(pub(crate) Option<u8>);

impl std::fmt::Display for Found {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        match self.0 {
            None => f.write_str("the end of the text"),
            Some(byte @ 0x21..=0x7E) => write!(f, "`{}`", char::from(byte)),
            Some(b' ' | b'\t' | b'\r' | b'\n') => f.write_str("white space"),
            Some(byte @ 0x80..) => write!(f, "a character outside ASCII (byte {byte:#04x})"),
            Some(byte) => write!(f, "the control character {byte:#04x}"),
        }
    }
}

impl Fault {
    /// The way out, where there is one.
    pub(crate) fn help(&self) -> Option<&'static str> {
        match self {
            Self::Empty => Some("save a response into it, or leave it out"),
            Self::Unexpected { found: Found(Some(b'\'')), .. } => {
                Some("JSON wants double quotes around keys and texts")
            }
            Self::Unexpected { found: Found(Some(b'/' | b'#')), .. } => {
                Some("JSON has no comments: remove it")
            }
            Self::Unexpected { found: Found(Some(b'}' | b']')), after_comma: true, .. } => {
                Some("remove the comma before it")
            }
            Self::Unexpected { found: Found(Some(b'N' | b'I' | b'u')), .. } => {
                Some("JSON has no `NaN`, `Infinity` or `undefined`: use `null`")
            }
            Self::Unexpected { found: Found(Some(b'<')), .. } => {
                Some("this looks like HTML or XML: check that the response is JSON")
            }
            Self::Unexpected { .. } => None,
            Self::Literal { .. } => Some("JSON knows `true`, `false` and `null`; a text wants double quotes"),
            Self::Truncated { .. } => {
                Some("it may have been cut short: save it again, or remove the unfinished part")
            }
            Self::TooDeep { .. } => Some("take an inner part of the data as a sample of its own"),
            Self::Utf8 => Some("save it as UTF-8"),
            Self::ControlCharacter => Some("write it as an escape, such as `\\n`"),
            Self::LineInString => {
                Some("a quote is missing, or the text was cut short; a line break is written `\\n`")
            }
            Self::Escape => Some("escape a backslash itself as `\\\\`"),
            Self::LoneSurrogate => Some("write the character itself, or both halves"),
            Self::Number => Some("no leading zero, no plus sign, and digits on both sides of the point"),
            Self::TooLong { .. } | Self::Io(_) => None,
            Self::Trailing => Some("one value a line, or one value in all"),
        }
    }
}
