//! Extras: what stands under the keys of a record beyond its fields, which not every library keeps.

use std::borrow::Cow;

use jar_sprout_model::{Model, NamedType, Record, Slot, Type};

use crate::language::Language;
use crate::settings::{Settings, TWINS};

/// What becomes of the keys of a record beyond its fields, where a document says what stands there.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Extras {
    /// They are left out.
    LeftOut,
    /// They are kept, with any values.
    OfAny,
    /// They are kept, with the values that the document says.
    Typed,
}

/// The types of a model of which a language does not keep the keys beyond their fields.
pub fn types_without_extras<'m>(
    language: &'m dyn Language,
    model: &'m Model,
    settings: &'m Settings,
) -> impl Iterator<Item = &'m NamedType> {
    let is_left_out = |record: &Record| extras_of(language, record, settings) == Extras::LeftOut;
    model.with_extras().filter(move |(_, record)| is_left_out(record)).map(|(ty, _)| ty)
}

/// The model with what a language keeps under keys beyond the fields of records.
pub fn with_kept_extras<'m>(
    language: &dyn Language,
    model: Cow<'m, Model>,
    settings: &Settings,
) -> Cow<'m, Model> {
    if model.with_extras().all(|(_, record)| extras_of(language, record, settings) == Extras::Typed) {
        return model;
    }
    let mut model = model.into_owned();
    model.change_extras(|record| match extras_of(language, record, settings) {
        Extras::LeftOut => None,
        Extras::OfAny => Some(Slot::of(Type::Any)),
        Extras::Typed => record.extras.clone(),
    });
    Cow::Owned(model)
}

/// In a record that may be a union's case, the tag would be among them in some languages; a twin has what people work
/// with.
fn extras_of(language: &dyn Language, record: &Record, settings: &Settings) -> Extras {
    if record.has_tag() || settings.given(TWINS.key).is_some() {
        Extras::LeftOut
    } else {
        language.extras(record, settings)
    }
}
