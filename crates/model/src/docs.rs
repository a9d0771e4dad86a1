//! What a document says beside types: for people, and of what fits.

use std::sync::Arc;

/// What a document says of a type, a field or a value that no type can hold. Cheap to clone.
#[derive(Debug, Clone, Default, PartialEq, Eq, Hash)]
pub struct Docs {
    text: Option<Arc<str>>,
    /// Whether it should not be used any more.
    pub is_deprecated: bool,
    /// Whether it is read, and not sent. The text says so as well, in its last sentence: [`READ_ONLY`].
    pub is_read_only: bool,
    limits: Option<Arc<Limits>>,
}

/// What the text says of what is read, and not sent.
pub const READ_ONLY: &str = "Read-only.";

/// What fits of a value that has the type (JSON Schema Validation, sections 6.2 to 6.4).
#[derive(Debug, Clone, Default, PartialEq, Eq, Hash)]
pub struct Limits {
    /// The least number, where it is one.
    pub least: Option<Limit>,
    /// The greatest number.
    pub most: Option<Limit>,
    /// What a number is a multiple of, in digits.
    pub step: Option<String>,
    /// How many characters a text has.
    pub lengths: Counts,
    /// How many items a list has.
    pub items: Counts,
}

/// A number that bounds others.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub struct Limit {
    /// The number as JSON has it: digits, and perhaps a sign, a point and an exponent.
    pub number: String,
    /// Whether it fits itself.
    pub is_within: bool,
}

/// The least and the greatest count.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Hash)]
pub struct Counts {
    /// The least; none where it is nought.
    pub least: Option<u64>,
    /// The greatest.
    pub most: Option<u64>,
}

impl Docs {
    /// What is said of something that may be used.
    pub fn new(text: &str) -> Self {
        Self { text: (!text.is_empty()).then(|| text.into()), ..Self::default() }
    }

    /// The same of something that should not be used any more, if it should not.
    #[must_use]
    pub fn deprecated(self, is_deprecated: bool) -> Self {
        Self { is_deprecated, ..self }
    }

    /// The same of something that is read, and not sent, if it is.
    #[must_use]
    pub fn read_only(self, is_read_only: bool) -> Self {
        Self { is_read_only, ..self }
    }

    /// The same for code that says itself what is read, and not sent.
    #[must_use]
    pub fn without_read_only(&self) -> Self {
        match self.text().strip_suffix(READ_ONLY) {
            Some(text) if self.is_read_only => self.with_text(text.trim_end()),
            Some(_) | None => self.clone(),
        }
    }

    /// The same with what is said of what fits.
    #[must_use]
    pub fn limited(self, limits: Limits) -> Self {
        let limits = (limits != Limits::default()).then(|| Arc::new(limits));
        Self { limits, ..self }
    }

    /// The same with another text.
    #[must_use]
    pub fn with_text(&self, text: &str) -> Self {
        Self { text: (!text.is_empty()).then(|| text.into()), ..self.clone() }
    }

    /// Free text, in lines and paragraphs; empty where nothing is said.
    pub fn text(&self) -> &str {
        self.text.as_deref().unwrap_or_default()
    }

    /// What is said of what fits, if anything is.
    pub fn limits(&self) -> Option<&Limits> {
        self.limits.as_deref()
    }
}

impl Counts {
    /// Those that 32 bits hold.
    #[must_use]
    pub fn narrow(self) -> Self {
        let narrow = |count: Option<u64>| count.filter(|count| i32::try_from(*count).is_ok());
        Self { least: narrow(self.least), most: narrow(self.most) }
    }
}

impl Limit {
    /// The least or greatest whole number that fits; none where that is none of 64 bits.
    pub fn whole(&self, is_least: bool) -> Option<i64> {
        let whole: i64 = self.number.parse().ok()?;
        match (self.is_within, is_least) {
            (true, _) => Some(whole),
            (false, true) => whole.checked_add(1),
            (false, false) => whole.checked_sub(1),
        }
    }
}
