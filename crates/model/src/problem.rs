//! Problems with a place and, where there is one, a way out.

/// Index of a source in the order the program reads them.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord, Default)]
pub struct SourceId(pub u32);

/// Where something was first seen: ordered by source, then by byte.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub struct Place {
    /// The source it stands in.
    pub source: SourceId,
    /// Bytes from the source's start.
    pub offset: u64,
    /// Line, from 1; stays at `u32::MAX` beyond that many.
    pub line: u32,
}

/// How much a problem matters.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum Severity {
    /// The run cannot go on.
    Error,
    /// The run goes on; the user should know.
    Warning,
}

/// What a problem points at. There is no problem without one.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Spot {
    /// A position in a source's text; line and column count from 1, the column in characters.
    Text {
        /// The source.
        source: SourceId,
        /// Line, from 1.
        line: u64,
        /// Column in characters, from 1.
        column: u64,
    },
    /// A source as a whole.
    Source(SourceId),
    /// An argument, as it was typed.
    Argument(String),
    /// A file or folder of the file system.
    Path(String),
}

/// One line of the offending text, and where in it the trouble is.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Excerpt {
    /// The line, or a window of it when it is long; never a newline inside.
    pub text: String,
    /// Characters of `text` before the caret.
    pub caret: usize,
}

/// Something wrong, where it is, and what to do about it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Problem {
    /// How much it matters.
    pub severity: Severity,
    /// What is wrong: lower case, no full stop, the user's words in backticks.
    pub message: String,
    /// What it points at.
    pub spot: Spot,
    /// The text around the spot.
    pub excerpt: Option<Excerpt>,
    /// The way out.
    pub help: Option<String>,
}

impl Problem {
    /// An error at a place.
    pub fn error(message: impl Into<String>, spot: Spot) -> Self {
        Self { severity: Severity::Error, message: message.into(), spot, excerpt: None, help: None }
    }

    /// A warning at a place.
    pub fn warning(message: impl Into<String>, spot: Spot) -> Self {
        Self { severity: Severity::Warning, ..Self::error(message, spot) }
    }

    /// Adds the way out.
    #[must_use]
    pub fn with_help(mut self, help: impl Into<String>) -> Self {
        self.help = Some(help.into());
        self
    }

    /// Adds the text around the spot.
    #[must_use]
    pub fn with_excerpt(mut self, excerpt: Excerpt) -> Self {
        self.excerpt = Some(excerpt);
        self
    }
}
