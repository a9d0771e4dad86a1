//! Through a sample, beside the model that says what each part of it is.

use std::collections::{BTreeSet, HashSet};
use std::hash::BuildHasher;

use indexmap::IndexMap;
use jar_sprout_model::{Definition, Encoding, Field, Model, Slot, Type, TypeId};
use jar_sprout_settle::{Lack, Miss, Subject, case_of, locate};
use serde_json::value::RawValue;

use crate::times::Move;
use crate::written::{Written, quoted};
use crate::{numbers, texts};

/// Scrubs samples of one model. What it makes of a value is the same wherever the value stands.
pub struct Scrubber<'m, S> {
    model: &'m Model,
    /// Words of enums and tags, which stay wherever they stand.
    words: HashSet<&'m str>,
    /// Keys of records, which stay even where keys are data: what is called the same there may be told by that.
    names: HashSet<&'m str>,
    /// Fields whose values stay.
    kept: BTreeSet<(TypeId, usize)>,
    random: S,
    moved: Move,
}

/// What is known of a place for a value.
#[derive(Clone, Copy)]
enum Place<'s> {
    Known(&'s Slot),
    /// Nothing; keys may be data.
    Unknown,
    /// Nothing but that keys are names.
    Named,
}

impl<'m, S: BuildHasher> Scrubber<'m, S> {
    /// For samples that this model was made of. `random` is the keyed hash; whoever has it can tell which value became
    /// which.
    pub fn new(model: &'m Model, random: S) -> Self {
        let (mut words, mut names) = (HashSet::new(), HashSet::new());
        for (_, ty) in model.types() {
            if let Definition::Enumeration(known) = &ty.definition {
                words.extend(known.cases.iter().map(|case| case.wire.as_str()));
            }
            if let Definition::Record(record) = &ty.definition {
                names.extend(record.fields.iter().map(|field| field.wire.as_str()));
            }
            for ty in ty.definition.types() {
                constants(ty, &mut words);
            }
        }
        let moved = Move::new(&random);
        Self { model, words, names, kept: BTreeSet::new(), random, moved }
    }

    /// Lets the values of a field stay.
    ///
    /// # Errors
    /// There is no such field.
    pub fn keep(&mut self, subject: &Subject) -> Result<(), Miss> {
        if let (id, Some(field)) = locate(self.model, subject)? {
            self.kept.insert((id, field));
        }
        Ok(())
    }

    /// Scrubs the words of a field that are an enum as well: the model stays the same but for these.
    ///
    /// # Errors
    /// There is no such field, or it is no enum.
    pub fn scrub_words(&mut self, subject: &Subject) -> Result<(), Miss> {
        let (id, field) = locate(self.model, subject)?;
        let of_field = |field: usize| match &self.model.get(id).definition {
            Definition::Record(record) => record.fields.get(field)?.slot.ty.named().next(),
            Definition::Enumeration(_) | Definition::Union(_) => None,
        };
        let known = field.map_or(Some(id), of_field).map(|id| &self.model.get(id).definition);
        let Some(Definition::Enumeration(known)) = known else {
            return Err(Miss { subject: subject.clone(), lack: Lack::Enum });
        };
        for case in &known.cases {
            self.words.remove(case.wire.as_str());
        }
        Ok(())
    }

    /// The words that stay, in order.
    pub fn words(&self) -> BTreeSet<&'m str> {
        self.words.iter().copied().collect()
    }

    /// The sample with other values.
    ///
    /// # Errors
    /// It is no JSON.
    pub fn scrub(&self, sample: &str) -> serde_json::Result<String> {
        let value: &RawValue = serde_json::from_str(sample)?;
        let written = self.value(Place::Known(&self.model.root.slot), value.get())?;
        Ok(written.text(sample.trim().contains('\n')))
    }

    fn value(&self, place: Place<'_>, value: &str) -> serde_json::Result<Written> {
        // Only unions need to look into the whole value to tell what it is.
        if let Place::Known(Slot { ty: Type::Named(id), .. }) = place
            && let Definition::Union(union) = &self.model.get(*id).definition
        {
            let parsed = serde_json::from_str(value).ok();
            let case = parsed.and_then(|parsed| case_of(self.model, union, &parsed));
            let place = case.map_or(Place::Unknown, |case| Place::Known(&case.slot));
            return self.value(place, value);
        }
        match value.bytes().next() {
            Some(b'{') => self.object(place, value),
            Some(b'[') => self.list(place, value),
            Some(b'"') => {
                let text: String = serde_json::from_str(value)?;
                Ok(Written::Literal(quoted(&self.text(&text))))
            }
            Some(b'-' | b'0'..=b'9') => {
                Ok(Written::Literal(numbers::scrubbed(value, &self.random, &self.moved)))
            }
            // A truth, or nothing.
            _ => Ok(Written::Literal(value.to_owned())),
        }
    }

    fn object(&self, place: Place<'_>, value: &str) -> serde_json::Result<Written> {
        let entries: IndexMap<String, &RawValue> = serde_json::from_str(value)?;
        let mut written = Vec::with_capacity(entries.len());
        for (key, value) in entries {
            written.push(match place {
                Place::Known(Slot { ty: Type::Map(values), .. }) => {
                    (self.key(key), self.value(Place::Known(values), value.get())?)
                }
                Place::Known(Slot { ty: Type::Named(id), .. }) => self.entry(*id, key, value.get())?,
                Place::Known(_) | Place::Unknown => (self.key(key), self.value(Place::Unknown, value.get())?),
                Place::Named => {
                    let value = self.value(Place::Named, value.get())?;
                    (key, value)
                }
            });
        }
        Ok(Written::Object(written))
    }

    /// A key of a record with its value.
    fn entry(&self, id: TypeId, key: String, value: &str) -> serde_json::Result<(String, Written)> {
        let Definition::Record(record) = &self.model.get(id).definition else {
            return Ok((self.key(key), self.value(Place::Unknown, value)?));
        };
        let field = record.fields.iter().position(|field| field.wire.as_str() == key);
        let written = match (field, &record.extras) {
            (Some(at), _) if self.kept.contains(&(id, at)) => Written::Literal(value.to_owned()),
            (Some(at), _) => self.field(&record.fields[at], value)?,
            (None, Some(extras)) => {
                return Ok((self.key(key), self.value(Place::Known(extras), value)?));
            }
            // What is left out of the model.
            (None, None) => self.value(Place::Named, value)?,
        };
        Ok((key, written))
    }

    fn field(&self, field: &Field, value: &str) -> serde_json::Result<Written> {
        match (&field.encoding, serde_json::from_str::<String>(value)) {
            (Encoding::JsonInText, Ok(text)) => {
                let inside = self.value(Place::Known(&field.slot), text.trim())?;
                Ok(Written::Literal(quoted(&inside.text(false))))
            }
            (Encoding::NothingWords(words), Ok(text)) if words.iter().any(|word| word.as_str() == text) => {
                Ok(Written::Literal(value.to_owned()))
            }
            (Encoding::Plain | Encoding::JsonInText | Encoding::NothingWords(_), _) => {
                self.value(Place::Known(&field.slot), value)
            }
        }
    }

    fn list(&self, place: Place<'_>, value: &str) -> serde_json::Result<Written> {
        let items: Vec<&RawValue> = serde_json::from_str(value)?;
        let item = |(at, item): (usize, &&RawValue)| {
            let place = match place {
                Place::Known(Slot { ty: Type::List(items), .. }) => Place::Known(items),
                Place::Known(Slot { ty: Type::Tuple(items), .. }) => {
                    items.get(at).map_or(Place::Unknown, Place::Known)
                }
                Place::Known(_) | Place::Unknown => Place::Unknown,
                Place::Named => Place::Named,
            };
            self.value(place, item.get())
        };
        Ok(Written::List(items.iter().enumerate().map(item).collect::<serde_json::Result<_>>()?))
    }

    /// A key that is data.
    fn key(&self, key: String) -> String {
        if self.names.contains(key.as_str()) { key } else { self.text(&key) }
    }

    fn text(&self, text: &str) -> String {
        if self.words.contains(text) {
            return text.to_owned();
        }
        // JSON in a text stays JSON with the same keys.
        if text.trim_start().starts_with(['{', '['])
            && let Ok(inside) = serde_json::from_str::<&RawValue>(text.trim())
            && let Ok(written) = self.value(Place::Named, inside.get())
        {
            return written.text(false);
        }
        texts::scrubbed(text, &self.random, &self.moved, |new| self.words.contains(new))
    }
}

/// The tags in a type.
fn constants<'m>(ty: &'m Type, words: &mut HashSet<&'m str>) {
    match ty {
        Type::Constant(word) => drop(words.insert(word.as_str())),
        Type::List(slot) | Type::Map(slot) => constants(&slot.ty, words),
        Type::Tuple(slots) => slots.iter().for_each(|slot| constants(&slot.ty, words)),
        Type::Any | Type::Scalar(_) | Type::Named(_) => {}
    }
}
