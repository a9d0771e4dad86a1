//! Extras: what stands under the keys of a record beyond its fields, which not every library keeps.

use std::borrow::Cow;

use jar_sprout_model::{Model, NamedType, Record, Slot, Type};

use super::abilities::{Abilities, Extras};

/// The types of a model of which a language does not keep the keys beyond their fields.
pub(crate) fn types_without_extras<'m>(abilities: &Abilities, model: &'m Model) -> Vec<&'m NamedType> {
    let is_left_out = |record: &Record| extras_of(abilities, record) == Extras::LeftOut;
    model.with_extras().filter(|(_, record)| is_left_out(record)).map(|(ty, _)| ty).collect()
}

/// The model with what a language keeps under keys beyond the fields of records.
pub(super) fn with_kept_extras<'m>(abilities: &Abilities, model: Cow<'m, Model>) -> Cow<'m, Model> {
    if model.with_extras().all(|(_, record)| extras_of(abilities, record) == Extras::Typed) {
        return model;
    }
    let mut model = model.into_owned();
    model.change_extras(|record| match extras_of(abilities, record) {
        Extras::LeftOut => None,
        Extras::OfAny => Some(Slot::of(Type::Any)),
        Extras::Typed => record.extras.clone(),
    });
    Cow::Owned(model)
}

/// In a record that may be a union's case, the tag would be among them in some languages; a plain copy has what people
/// work with.
fn extras_of(abilities: &Abilities, record: &Record) -> Extras {
    if record.has_tag() || abilities.plain_copies.is_some() {
        Extras::LeftOut
    } else {
        (abilities.extras)(record)
    }
}
