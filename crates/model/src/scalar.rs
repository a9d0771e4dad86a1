//! Scalars: values with no parts.

use crate::time_form::TimeForms;

/// A value with no parts.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum Scalar {
    /// `true`
    Boolean,
    /// Always `true`, or always `false`: what tells one kind of object from another.
    Always(bool),
    /// `17`
    Integer(Width),
    /// `8.4`; also `8.0`, and `8` where another sample says `8.4`.
    Float,
    /// `"Alder Bank"`
    Text,
    /// `"2026-05-01T12:30:00Z"`: RFC 3339, with its offset.
    DateTime(TimeForms),
    /// `"2026-05-01T12:30:00"`: no offset.
    LocalDateTime(TimeForms),
    /// `"2026-05-01"`
    Date,
    /// `"12:30:00"`
    Time(TimeForms),
    /// `"6f1c0a52-8d0e-4c0f-9d5e-0c7f3a1b2d4e"`
    Uuid,
    /// `"https://honey.example/hives"`
    Uri,
    /// `12.50`: each digit counts.
    Decimal,
    /// What the wire writes as something else: `"12.50"`, `1777638600`
    Coded(Coding),
}

/// What the wire writes as something else.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum Coding {
    /// `"17"`: a whole number in letters, of 64 bits with a sign.
    IntegerText,
    /// `"51.25"`: a number in letters, written back in as few digits as say the same.
    FloatText,
    /// `"12.50"`: a number in letters of which each digit counts.
    DecimalText,
    /// `"true"`: a truth in letters.
    BooleanText,
    /// `1777638600`: a point in time, as the seconds since 1970 began in UTC.
    EpochSeconds,
    /// `1777638600000`: the same in milliseconds.
    EpochMilliseconds,
}

impl Coding {
    /// What it is on the wire.
    pub fn kind(self) -> ScalarKind {
        match self {
            Self::IntegerText | Self::FloatText | Self::DecimalText | Self::BooleanText => ScalarKind::Text,
            Self::EpochSeconds | Self::EpochMilliseconds => ScalarKind::Integer,
        }
    }
}

/// How wide an integer must be.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum Width {
    /// Fits 32 bits with a sign, and nothing asks for more.
    Narrow,
    /// Fits 64 bits with a sign.
    Wide,
    /// The same, and was seen beyond the 53 bits that a double keeps.
    Exact,
    /// Leaves 64 bits with a sign.
    Big,
}

/// The kinds of JSON value that a scalar may be.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum ScalarKind {
    /// `true`
    Boolean,
    /// `17`
    Integer,
    /// `8.4`
    Number,
    /// `"text"`
    Text,
}

impl Scalar {
    /// Whether it is an integer that a double does not keep.
    pub fn leaves_doubles(self) -> bool {
        matches!(self, Self::Integer(Width::Exact | Width::Big))
    }

    /// The ways that write its texts back; none where there is but one.
    pub fn time_forms(self) -> Option<TimeForms> {
        match self {
            Self::DateTime(forms) | Self::LocalDateTime(forms) | Self::Time(forms) => Some(forms),
            Self::Boolean
            | Self::Always(_)
            | Self::Integer(_)
            | Self::Float
            | Self::Text
            | Self::Date
            | Self::Uuid
            | Self::Uri
            | Self::Decimal
            | Self::Coded(_) => None,
        }
    }

    /// The same, written in these ways where it is a time.
    #[must_use]
    pub fn with_time_forms(self, forms: TimeForms) -> Self {
        match self {
            Self::DateTime(_) => Self::DateTime(forms),
            Self::LocalDateTime(_) => Self::LocalDateTime(forms),
            Self::Time(_) => Self::Time(forms),
            Self::Boolean
            | Self::Always(_)
            | Self::Integer(_)
            | Self::Float
            | Self::Text
            | Self::Date
            | Self::Uuid
            | Self::Uri
            | Self::Decimal
            | Self::Coded(_) => self,
        }
    }

    /// What the scalar is in JSON.
    pub fn kind(self) -> ScalarKind {
        match self {
            Self::Boolean | Self::Always(_) => ScalarKind::Boolean,
            Self::Integer(_) => ScalarKind::Integer,
            Self::Coded(coding) => coding.kind(),
            Self::Float | Self::Decimal => ScalarKind::Number,
            Self::Text
            | Self::DateTime(_)
            | Self::LocalDateTime(_)
            | Self::Date
            | Self::Time(_)
            | Self::Uuid
            | Self::Uri => ScalarKind::Text,
        }
    }
}
