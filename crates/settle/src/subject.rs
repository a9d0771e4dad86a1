//! Subjects: the types and fields of a model by the names people use for them, `Hive` and `Hive.queen_status`.

use std::fmt;

use jar_sprout_model::{DefaultValue, Field, Model, NamedType, TypeId, WireName, Words};

/// A type, or a field of one.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct Subject {
    /// The type's name, its words in capitals: `HivePage`.
    pub type_name: String,
    /// The field's key on the wire.
    pub key: Option<WireName>,
}

/// A decision, or a question, that finds nothing in a model.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Miss {
    /// What it is about.
    pub subject: Subject,
    /// What is not there.
    pub lack: Lack,
}

/// What is not there.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Lack {
    /// A type of this name.
    Type {
        /// The name.
        name: String,
        /// The names of all types.
        known: Vec<String>,
    },
    /// A field of this key; its type is there.
    Field {
        /// Those of the type: `Hive.id`.
        known: Vec<String>,
    },
    /// A field, a value or a case that is named beside the subject.
    Part {
        /// What was asked for: `Hive.idd`.
        asked: String,
        /// What there is: `Hive.id`.
        known: Vec<String>,
    },
    /// An enum: it is something else.
    Enum,
    /// Fields: it is no record.
    Fields,
    /// Another record of this name: one of the two is something else.
    Record {
        /// The name.
        name: String,
    },
    /// One that it is not told apart from: the two are cases of one union.
    OneCase {
        /// The name of the union.
        union: String,
    },
    /// A type with a name, in a field.
    NamedType,
    /// Room for a value where there is none.
    Room {
        /// The value.
        value: DefaultValue,
    },
    /// A model without it: it is what the model is of, or all that a union can be.
    Rest,
    /// Anything that was seen of it: no sample gave it to the model.
    Evidence,
    /// Samples: what a document says of its objects stands.
    Samples,
    /// Objects: there are none.
    Objects,
    /// Texts that are JSON, and nothing but such: there are none.
    JsonTexts,
    /// Fewer keys: there are more than names could be.
    FewerKeys,
    /// Objects of several kinds, each with keys that it alone has.
    Kinds,
    /// This key in every object, with one of a few words.
    Tag {
        /// The key.
        key: String,
    },
}

impl Subject {
    pub(crate) fn of_field(ty: &NamedType, field: &Field) -> Self {
        Self::of(&ty.name, &field.wire)
    }

    pub(crate) fn of(type_name: &Words, key: &WireName) -> Self {
        Self { type_name: type_name.in_capitals(), key: Some(key.clone()) }
    }

    /// Whether it stands for several, in which a `*` is any part of a name.
    pub fn is_pattern(&self) -> bool {
        self.type_name.contains('*') || self.key.as_ref().is_some_and(|key| key.as_str().contains('*'))
    }

    /// Reads `Hive` or `Hive.queen_status`; a key may have dots of its own.
    pub fn parse(text: &str) -> Self {
        match text.split_once('.') {
            Some((ty, key)) => Self { type_name: ty.to_owned(), key: Some(WireName::new(key)) },
            None => Self { type_name: text.to_owned(), key: None },
        }
    }
}

impl fmt::Display for Subject {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(&self.type_name)?;
        self.key.as_ref().map_or(Ok(()), |key| write!(f, ".{key}"))
    }
}

/// The type of a subject, and the index of its field if it names one.
///
/// # Errors
/// A subject that the model does not have, with what it has.
pub fn locate(model: &Model, subject: &Subject) -> Result<(TypeId, Option<usize>), Miss> {
    let names: Vec<(TypeId, String)> = model.types().map(|(id, ty)| (id, ty.name.in_capitals())).collect();
    let Some((id, name)) = names.iter().find(|(_, name)| *name == subject.type_name) else {
        let known = names.into_iter().map(|(_, name)| name).collect();
        return Err(Miss {
            subject: subject.clone(),
            lack: Lack::Type { name: subject.type_name.clone(), known },
        });
    };
    let Some(key) = &subject.key else { return Ok((*id, None)) };
    let fields = model.get(*id).definition.fields();
    match fields.iter().position(|field| field.wire == *key) {
        Some(index) => Ok((*id, Some(index))),
        None => {
            let known = fields.iter().map(|field| format!("{name}.{}", field.wire)).collect();
            Err(Miss { subject: subject.clone(), lack: Lack::Field { known } })
        }
    }
}
