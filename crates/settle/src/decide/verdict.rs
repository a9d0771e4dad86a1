//! Verdicts: what a user can decide on a type and on a field, and the words for it.

use jar_sprout_model::{Coding, DefaultValue, NothingWords, Scalar, TimeForms, Width, WireName};

use crate::structure::Structure;
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
    /// On a type: `Hive`.
    Type(TypeVerdict),
    /// On a field: `Hive.img`.
    Field(FieldVerdict),
}

/// What a type is from now on.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum TypeVerdict {
    /// What its objects are, before anything has a name.
    Structure(Structure),
    /// One with that other type.
    SameAs(String),
    /// An enum of just these values.
    EnumOf(Vec<String>),
    /// These fields and no others.
    Keep(Vec<String>),
    /// No part of the model: nor is any field that holds it.
    LeaveOut,
    /// The names of an enum's values, or of a union's cases.
    Cases(Vec<(String, String)>),
    /// Of an enum: whether there can be no values but those known.
    Closed(bool),
    /// What is said of it.
    Describe(String),
    /// Whether it should not be used any more.
    Deprecated(bool),
    /// Another name.
    Rename(String),
    /// Another type of its own, for what a client sends.
    Derive(Derivation),
}

/// What a field is from now on.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum FieldVerdict {
    /// What the objects there are, before anything has a name.
    Structure(Structure),
    /// What stands there: `float`, `[text]`, `Address`.
    Is(FieldType),
    /// `required`: always there, never null
    Required,
    /// `optional`: may be missing
    Optional,
    /// `nullable`: may be null
    Nullable,
    /// `never-null`: is not null where it is there
    NeverNull,
    /// What holds where its key is absent.
    Default(DefaultValue),
    /// A type of its own, under this name, for what stands there.
    Split(String),
    /// Not a part of the model.
    LeaveOut,
    /// Where it is an enum: whether there can be no values but those known.
    Closed(bool),
    /// What is said of it.
    Describe(String),
    /// Whether it should not be used any more.
    Deprecated(bool),
    /// Another name; the key on the wire stays.
    Rename(String),
}

/// What stands in a field.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum FieldType {
    /// `float`, `date-time`
    Scalar(Scalar),
    /// `any`
    Any,
    /// `[text]`
    List(Box<FieldType>),
    /// `{text}`
    Map(Box<FieldType>),
    /// `enum`: of the values that were seen
    Enum,
    /// An enum of just these values.
    EnumOf(Vec<String>),
    /// `Address`
    Named(String),
    /// `float or "N/A"`: that, or a word that stands for nothing.
    OrNothing(Box<FieldType>, NothingWords),
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

/// When a verdict has its turn, whatever the order it was written in: every decision finds its subject under the name
/// that people know.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub(crate) enum Phase {
    /// What objects are.
    Structure,
    /// Two types become one.
    Join,
    /// One becomes two.
    Split,
    /// What fields are.
    Type,
    /// When they are there.
    Presence,
    /// What is said of things, and what their values are called.
    Documentation,
    /// What is no part of the model.
    LeaveOut,
    /// What things are called.
    Rename,
    /// What is made of types that are done.
    Derive,
}

/// The words for what a field can be.
pub const FIELD_WORDS: &[(&str, FieldVerdict)] = &[
    ("text", FieldVerdict::Is(FieldType::Scalar(Scalar::Text))),
    ("boolean", FieldVerdict::Is(FieldType::Scalar(Scalar::Boolean))),
    ("integer", FieldVerdict::Is(FieldType::Scalar(Scalar::Integer(Width::Narrow)))),
    ("wide", FieldVerdict::Is(FieldType::Scalar(Scalar::Integer(Width::Wide)))),
    ("exact", FieldVerdict::Is(FieldType::Scalar(Scalar::Integer(Width::Exact)))),
    ("big", FieldVerdict::Is(FieldType::Scalar(Scalar::Integer(Width::Big)))),
    ("float", FieldVerdict::Is(FieldType::Scalar(Scalar::Float))),
    ("decimal", FieldVerdict::Is(FieldType::Scalar(Scalar::Decimal))),
    ("date-time", FieldVerdict::Is(FieldType::Scalar(Scalar::DateTime(TimeForms::ALL)))),
    ("local-date-time", FieldVerdict::Is(FieldType::Scalar(Scalar::LocalDateTime(TimeForms::ALL)))),
    ("epoch-seconds", FieldVerdict::Is(FieldType::Scalar(Scalar::Coded(Coding::EpochSeconds)))),
    ("epoch-milliseconds", FieldVerdict::Is(FieldType::Scalar(Scalar::Coded(Coding::EpochMilliseconds)))),
    ("date", FieldVerdict::Is(FieldType::Scalar(Scalar::Date))),
    ("time", FieldVerdict::Is(FieldType::Scalar(Scalar::Time(TimeForms::ALL)))),
    ("uuid", FieldVerdict::Is(FieldType::Scalar(Scalar::Uuid))),
    ("uri", FieldVerdict::Is(FieldType::Scalar(Scalar::Uri))),
    ("any", FieldVerdict::Is(FieldType::Any)),
    ("enum", FieldVerdict::Is(FieldType::Enum)),
    ("map", FieldVerdict::Structure(Structure::Map)),
    ("record", FieldVerdict::Structure(Structure::Record)),
    ("union", FieldVerdict::Structure(Structure::Union)),
    ("json-in-text", FieldVerdict::Structure(Structure::JsonInText)),
    ("required", FieldVerdict::Required),
    ("optional", FieldVerdict::Optional),
    ("nullable", FieldVerdict::Nullable),
    ("never-null", FieldVerdict::NeverNull),
    ("leave-out", FieldVerdict::LeaveOut),
];

/// What the key stands behind that tells kinds of object apart: `by kind`.
const BY: &str = "by ";

/// What stands before each word that stands for nothing, and the start of the first.
const OR: &str = " or ";
const OR_WORD: &str = " or \"";

/// Reads `"N/A" or "-"`: texts as JSON writes them.
fn nothing_words(text: &str) -> Option<NothingWords> {
    let mut words = Vec::new();
    let mut rest = text;
    loop {
        let mut texts = serde_json::Deserializer::from_str(rest).into_iter::<String>();
        words.push(WireName::new(texts.next()?.ok()?));
        rest = &rest[texts.byte_offset()..];
        if rest.is_empty() {
            return NothingWords::new(words);
        }
        rest = rest.strip_prefix(OR)?;
    }
}

impl FieldVerdict {
    /// Reads `float`, `[text]`, `required` or the name of a type.
    pub fn parse(text: &str) -> Option<Self> {
        let inside = |open, close| text.strip_prefix(open).and_then(|text| text.strip_suffix(close));
        let part = |inner: &str, may_be_enum: bool| match Self::parse(inner)? {
            Self::Is(FieldType::OrNothing(..)) => None,
            Self::Is(FieldType::Enum) if !may_be_enum => None,
            Self::Is(inner) => Some(Box::new(inner)),
            _ => None,
        };
        if let Some(at) = text.find(OR_WORD) {
            let words = nothing_words(&text[at + OR.len()..])?;
            return part(&text[..at], true).map(|ty| Self::Is(FieldType::OrNothing(ty, words)));
        }
        if let Some(inner) = inside('[', ']') {
            return part(inner, false).map(|inner| Self::Is(FieldType::List(inner)));
        }
        if let Some(inner) = inside('{', '}') {
            return part(inner, false).map(|inner| Self::Is(FieldType::Map(inner)));
        }
        if let Some(key) = text.strip_prefix(BY).filter(|key| !key.is_empty()) {
            return Some(Self::Structure(Structure::By(key.to_owned())));
        }
        let is_type_name = text.starts_with(char::is_uppercase) && text.chars().all(char::is_alphanumeric);
        let known = FIELD_WORDS.iter().find(|(word, _)| *word == text).map(|(_, verdict)| verdict.clone());
        known.or_else(|| is_type_name.then(|| Self::Is(FieldType::Named(text.to_owned()))))
    }

    /// The word that it is read from, if it is one.
    pub fn word(&self) -> Option<String> {
        match self {
            Self::Is(ty) => return Some(ty.word()),
            Self::Structure(Structure::By(key)) => return Some(format!("{BY}{key}")),
            _ => {}
        }
        FIELD_WORDS.iter().find(|(_, verdict)| verdict == self).map(|(word, _)| (*word).to_owned())
    }

    /// Whether what is said of what is read holds for what is sent of the same thing as well; when a key is there does not.
    pub(crate) fn reaches_sent(&self) -> bool {
        match self {
            Self::Is(_) | Self::LeaveOut | Self::Describe(_) | Self::Deprecated(_) | Self::Rename(_) => true,
            Self::Structure(_)
            | Self::Required
            | Self::Optional
            | Self::Nullable
            | Self::NeverNull
            | Self::Default(_)
            | Self::Split(_)
            | Self::Closed(_) => false,
        }
    }

    pub(crate) fn phase(&self) -> Phase {
        match self {
            Self::Structure(_) => Phase::Structure,
            Self::Split(_) => Phase::Split,
            Self::Is(_) => Phase::Type,
            Self::Required | Self::Optional | Self::Nullable | Self::NeverNull | Self::Default(_) => {
                Phase::Presence
            }
            Self::Describe(_) | Self::Deprecated(_) | Self::Closed(_) => Phase::Documentation,
            Self::LeaveOut => Phase::LeaveOut,
            Self::Rename(_) => Phase::Rename,
        }
    }
}

impl FieldType {
    fn word(&self) -> String {
        match self {
            Self::List(inner) => format!("[{}]", inner.word()),
            Self::Map(inner) => format!("{{{}}}", inner.word()),
            Self::EnumOf(values) => values.join(","),
            Self::Named(name) => name.clone(),
            Self::OrNothing(ty, words) => {
                let words =
                    words.iter().map(|word| format!("{OR}{}", serde_json::Value::from(word.as_str())));
                words.fold(ty.word(), |all, word| all + &word)
            }
            Self::Scalar(_) | Self::Any | Self::Enum => {
                let known = FIELD_WORDS
                    .iter()
                    .find(|(_, verdict)| matches!(verdict, FieldVerdict::Is(ty) if ty == self));
                known.map_or_else(String::new, |(word, _)| (*word).to_owned())
            }
        }
    }
}

impl TypeVerdict {
    pub(crate) fn phase(&self) -> Phase {
        match self {
            Self::Structure(_) => Phase::Structure,
            Self::SameAs(_) => Phase::Join,
            Self::EnumOf(_) => Phase::Type,
            Self::Describe(_) | Self::Deprecated(_) | Self::Closed(_) | Self::Cases(_) => {
                Phase::Documentation
            }
            Self::Keep(_) | Self::LeaveOut => Phase::LeaveOut,
            Self::Rename(_) => Phase::Rename,
            Self::Derive(_) => Phase::Derive,
        }
    }
}

impl Verdict {
    /// Reads the word for what a subject is: of a field any, of a type the name of another one.
    pub fn parse(subject: &Subject, text: &str) -> Option<Self> {
        match (&subject.key, FieldVerdict::parse(text)?) {
            (Some(_), verdict) => Some(Self::Field(verdict)),
            (None, FieldVerdict::Is(FieldType::Named(other))) => Some(Self::Type(TypeVerdict::SameAs(other))),
            // A type does not stand in texts everywhere; its fields do.
            (None, FieldVerdict::Structure(Structure::JsonInText)) => None,
            (None, FieldVerdict::Structure(structure)) => Some(Self::Type(TypeVerdict::Structure(structure))),
            (None, FieldVerdict::LeaveOut) => Some(Self::Type(TypeVerdict::LeaveOut)),
            (None, _) => None,
        }
    }

    pub(crate) fn phase(&self) -> Phase {
        match self {
            Self::Type(verdict) => verdict.phase(),
            Self::Field(verdict) => verdict.phase(),
        }
    }
}

impl From<TypeVerdict> for Verdict {
    fn from(verdict: TypeVerdict) -> Self {
        Self::Type(verdict)
    }
}

impl From<FieldVerdict> for Verdict {
    fn from(verdict: FieldVerdict) -> Self {
        Self::Field(verdict)
    }
}
