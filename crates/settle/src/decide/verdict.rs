//! Verdicts: what a user can decide, and the words for it.

use jar_sprout_model::{DefaultValue, Scalar, TimeForms, Width};

use crate::subject::Subject;

/// One decision on a type or a field, or on all that a pattern matches.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Decision {
    /// The type or field; `*` stands for any part of a name.
    pub subject: Subject,
    /// What it is from now on.
    pub verdict: Verdict,
}

/// What a type or a field is from now on.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Verdict {
    /// `float`, `date-time`
    Scalar(Scalar),
    /// `any`
    Any,
    /// `[text]`
    List(Box<Verdict>),
    /// `enum`: of the values that were seen
    Enum,
    /// An enum of just these values.
    EnumOf(Vec<String>),
    /// `required`: always there, never null
    Required,
    /// `optional`: may be missing
    Optional,
    /// `nullable`: may be null
    Nullable,
    /// `never-null`: is not null where it is there
    NeverNull,
    /// `Address`: the type is that other type
    SameAs(String),
    /// A type of its own, under this name, for what stands in the field.
    Split(String),
    /// What holds where the key of a field is absent.
    Default(DefaultValue),
    /// Another name; the key on the wire stays.
    Rename(String),
    /// Not a part of the model.
    LeaveOut,
    /// Of a type: these fields and no others.
    Keep(Vec<String>),
    /// What is said of it.
    Describe(String),
    /// Whether it should not be used any more.
    Deprecated(bool),
    /// Of an enum: whether there can be no values but those known.
    Closed(bool),
    /// The names of an enum's values, or of a union's cases.
    Cases(Vec<(String, String)>),
    /// A type of its own for what a client sends.
    Derive(Derivation),
}

/// A type for what a client sends, made from the type of what it reads.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Derivation {
    /// What it is called.
    pub name: String,
    /// What it is sent for.
    pub purpose: Purpose,
    /// The keys that the server makes, which are not sent.
    pub server_made: Vec<String>,
}

/// What a client sends something for.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Purpose {
    /// To make a new one: all that is left is required.
    Create,
    /// To change one: every field may be left out.
    Update,
}

/// The words for verdicts that are one word.
pub const VERDICTS: &[(&str, Verdict)] = &[
    ("text", Verdict::Scalar(Scalar::Text)),
    ("boolean", Verdict::Scalar(Scalar::Boolean)),
    ("integer", Verdict::Scalar(Scalar::Integer(Width::Narrow))),
    ("wide", Verdict::Scalar(Scalar::Integer(Width::Wide))),
    ("exact", Verdict::Scalar(Scalar::Integer(Width::Exact))),
    ("big", Verdict::Scalar(Scalar::Integer(Width::Big))),
    ("float", Verdict::Scalar(Scalar::Float)),
    ("decimal", Verdict::Scalar(Scalar::Decimal)),
    ("date-time", Verdict::Scalar(Scalar::DateTime(TimeForms::ALL))),
    ("local-date-time", Verdict::Scalar(Scalar::LocalDateTime(TimeForms::ALL))),
    ("date", Verdict::Scalar(Scalar::Date)),
    ("time", Verdict::Scalar(Scalar::Time(TimeForms::ALL))),
    ("uuid", Verdict::Scalar(Scalar::Uuid)),
    ("uri", Verdict::Scalar(Scalar::Uri)),
    ("any", Verdict::Any),
    ("enum", Verdict::Enum),
    ("required", Verdict::Required),
    ("optional", Verdict::Optional),
    ("nullable", Verdict::Nullable),
    ("never-null", Verdict::NeverNull),
];

impl Verdict {
    /// Reads `float` or `[text]`.
    pub fn parse(text: &str) -> Option<Self> {
        if let Some(inner) = text.strip_prefix('[').and_then(|text| text.strip_suffix(']')) {
            return Self::parse(inner).filter(Self::is_type).map(|inner| Self::List(Box::new(inner)));
        }
        let is_type_name = text.starts_with(char::is_uppercase) && text.chars().all(char::is_alphanumeric);
        let known = VERDICTS.iter().find(|(word, _)| *word == text).map(|(_, verdict)| verdict.clone());
        known.or_else(|| is_type_name.then(|| Self::SameAs(text.to_owned())))
    }

    fn is_type(&self) -> bool {
        matches!(self, Self::Scalar(_) | Self::Any | Self::List(_) | Self::SameAs(_))
    }

    /// Whether it says what a field is or when it is there, which is then no question any more.
    pub(crate) fn settles(&self) -> bool {
        matches!(self.turn(false), 1..=3)
    }

    /// When it has its turn, whatever the order it was written in: types are joined and split before their fields
    /// are decided on, and renamed when all else is done.
    pub(crate) fn turn(&self, is_of_type: bool) -> u8 {
        match self {
            Self::SameAs(_) if is_of_type => 0,
            Self::Split(_) => 1,
            Self::Scalar(_) | Self::Any | Self::List(_) | Self::Enum | Self::EnumOf(_) | Self::SameAs(_) => 2,
            Self::Required | Self::Optional | Self::Nullable | Self::NeverNull | Self::Default(_) => 3,
            Self::Describe(_) | Self::Deprecated(_) | Self::Closed(_) | Self::Cases(_) => 4,
            Self::LeaveOut | Self::Keep(_) => 5,
            Self::Rename(_) => 6,
            Self::Derive(_) => 7,
        }
    }
}
