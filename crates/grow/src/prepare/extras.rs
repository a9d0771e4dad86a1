//! Extras: what stands under the keys of a record beyond its fields, which not every library keeps.

use std::borrow::Cow;
use std::collections::HashSet;

use jar_sprout_model::{Model, NamedType, Record, Slot, Type, TypeId};

use super::abilities::{Abilities, Extras};

/// The types of a model of which a language does not keep the keys beyond their fields.
pub(crate) fn types_without_extras<'m>(abilities: &Abilities, model: &'m Model) -> Vec<&'m NamedType> {
    let extras_of = extras_of(abilities, model);
    let left_out = model.with_extras().filter(|(id, _, record)| extras_of(*id, record) == Extras::LeftOut);
    left_out.map(|(_, ty, _)| ty).collect()
}

/// The model with what a language keeps under keys beyond the fields of records.
pub(super) fn with_kept_extras<'m>(abilities: &Abilities, model: Cow<'m, Model>) -> Cow<'m, Model> {
    if model.with_extras().next().is_none() {
        return model;
    }
    let extras_of = extras_of(abilities, &model);
    if model.with_extras().all(|(id, _, record)| extras_of(id, record) == Extras::Typed) {
        return model;
    }
    let mut model = model.into_owned();
    model.change_extras(|id, record| match extras_of(id, record) {
        Extras::LeftOut => None,
        Extras::OfAny => Some(Slot::of(Type::Any)),
        Extras::Typed => record.extras.clone(),
    });
    Cow::Owned(model)
}

/// In a record that is a union's case, the tag would be among them in some languages; a plain copy has what people work
/// with.
fn extras_of(abilities: &Abilities, model: &Model) -> impl Fn(TypeId, &Record) -> Extras + use<> {
    let cases: HashSet<TypeId> = model.tags().into_iter().map(|(id, _)| id).collect();
    let (extras, is_copied) = (abilities.extras, abilities.plain_copies.is_some());
    move |id, record| if is_copied || cases.contains(&id) { Extras::LeftOut } else { extras(record) }
}
