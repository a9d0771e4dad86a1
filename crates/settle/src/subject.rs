//! Subjects: the types and fields of a model by the names people use for them, `Hive` and `Hive.queen_status`.

use std::fmt;

use jar_sprout_model::{Definition, Field, Model, NamedType, TypeId, WireName, Words};

/// A type, or a field of one.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct Subject {
    /// The type's name, its words in capitals: `HivePage`.
    pub type_name: String,
    /// The field's key on the wire.
    pub key: Option<WireName>,
}

/// A subject that a model does not have.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Unmatched {
    /// What was asked for.
    pub asked: String,
    /// What there is at that level: types, or the fields of the type.
    pub known: Vec<String>,
}

impl Subject {
    pub(crate) fn of_field(ty: &NamedType, field: &Field) -> Self {
        Self::of(&ty.name, &field.wire)
    }

    pub(crate) fn of(type_name: &Words, key: &WireName) -> Self {
        Self { type_name: type_name.in_capitals(), key: Some(key.clone()) }
    }

    /// Reads `Hive` or `Hive.queen_status`; a key may have dots of its own.
    pub fn parse(text: &str) -> Self {
        match text.split_once('.') {
            Some((ty, key)) => Self { type_name: ty.to_owned(), key: Some(WireName::new(key)) },
            None => Self { type_name: text.to_owned(), key: None },
        }
    }
}

impl Unmatched {
    /// Whether it was this subject that was asked for: as a whole, its type alone, or a part of it.
    pub fn is_of(&self, subject: &Subject) -> bool {
        let whole = subject.to_string();
        self.asked == whole
            // Something of it that it does not have: `enum Hive.queen`.
            || self.asked.strip_suffix(&whole).is_some_and(|what| what.ends_with(' '))
            || self.asked == subject.type_name
            || (subject.key.is_none() && self.asked.starts_with(&format!("{}.", subject.type_name)))
    }
}

impl fmt::Display for Subject {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(&self.type_name)?;
        self.key.as_ref().map_or(Ok(()), |key| write!(f, ".{key}"))
    }
}

/// The type of a subject, and the index of its field if it names one.
pub(crate) fn locate(model: &Model, subject: &Subject) -> Result<(TypeId, Option<usize>), Unmatched> {
    let names: Vec<(TypeId, String)> = model.types().map(|(id, ty)| (id, ty.name.in_capitals())).collect();
    let Some((id, name)) = names.iter().find(|(_, name)| *name == subject.type_name) else {
        let known = names.into_iter().map(|(_, name)| name).collect();
        return Err(Unmatched { asked: subject.type_name.clone(), known });
    };
    let Some(key) = &subject.key else { return Ok((*id, None)) };
    let fields: &[Field] = match &model.get(*id).definition {
        Definition::Record(record) => &record.fields,
        Definition::Enumeration(_) | Definition::Union(_) => &[],
    };
    match fields.iter().position(|field| field.wire == *key) {
        Some(index) => Ok((*id, Some(index))),
        None => Err(Unmatched {
            asked: subject.to_string(),
            known: fields.iter().map(|field| format!("{name}.{}", field.wire)).collect(),
        }),
    }
}
