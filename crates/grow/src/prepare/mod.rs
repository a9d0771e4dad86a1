//! Preparing: the model brought down to what a language can do with its settings, before anything is named.

mod abilities;
mod extras;
mod json_texts;
mod literals;
mod nothing;
mod plain_copies;
mod times;
mod untold;
mod wide;

use std::borrow::Cow;

use jar_sprout_model::{Field, Model, NamedType, Presence, Scalar, ScalarKind, TypeId, Width};

pub use abilities::{
    Abilities, Dependency, Extras, Foundation, Judge, Level, Nothing, Nulls, Order, PlainCopies, Tags,
    TimeKeeping,
};
pub(crate) use extras::types_without_extras;
pub(crate) use json_texts::fields_left_as_text;
pub(crate) use nothing::fields_with_words_left;
use plain_copies::{WithCopies, with_copies};
pub(crate) use times::{FORMS, Times, suffix, without_suffix};

pub(crate) use wide::types_too_wide;

use crate::settings::Absence;

/// A model that a language can hold as it is, and what its plan must know beside it.
pub struct Prepared<'m> {
    model: Cow<'m, Model>,
    /// How times are written.
    pub(crate) times: Times,
    /// Whether null is told from nothing.
    pub(crate) absence: Absence,
    /// Types of the wire, each with its plain copy.
    pub(crate) pairs: Vec<(TypeId, TypeId)>,
}

impl Prepared<'_> {
    /// The model.
    pub fn model(&self) -> &Model {
        &self.model
    }
}

/// Brings a model down to what a language can do.
pub(crate) fn prepare<'m>(model: &'m Model, abilities: &Abilities) -> Prepared<'m> {
    let times = Times::of(model, abilities.times);
    let model = times.writable(model);
    let model = literals::with_literals(abilities, model);
    let model = holdable(abilities, model);
    let model = json_texts::with_texts_read(abilities, model);
    let model = nothing::with_nothing(abilities, model);
    let model = untold::with_told_unions(model);
    let model = wide::with_narrow_records(abilities, model);
    let model = extras::with_kept_extras(abilities, model);
    let Some(copies) = &abilities.plain_copies else {
        return Prepared { model, times, absence: abilities.absence, pairs: Vec::new() };
    };
    let WithCopies { model, pairs } = with_copies(&model, &copies.ending, copies.tags, abilities.fills_in);
    // A copy is made of what is there.
    Prepared { model: Cow::Owned(model), times, absence: Absence::Untold, pairs }
}

/// All fields of a model, with their types.
fn fields(model: &Model) -> impl Iterator<Item = (&NamedType, &Field)> {
    model.types().flat_map(|(_, ty)| ty.definition.fields().iter().map(move |field| (ty, field)))
}

/// Whether something stands around a field's value that tells null from nothing.
fn is_apart(abilities: &Abilities, ty: &NamedType, field: &Field) -> bool {
    let tells_null = match abilities.absence {
        Absence::Told => true,
        Absence::ToldInPatches => ty.is_patch,
        Absence::Untold => false,
    };
    field.presence == Presence::Sometimes && tells_null
}

/// The model with what a language holds in place of what it does not.
fn holdable<'m>(abilities: &Abilities, model: Cow<'m, Model>) -> Cow<'m, Model> {
    if model.scalars().all(abilities.holds) {
        return model;
    }
    let mut model = model.into_owned();
    model.change_scalars(&|scalar| match ((abilities.holds)(scalar), scalar.kind()) {
        (true, _) => scalar,
        (false, ScalarKind::Integer) if matches!(scalar, Scalar::Coded(_)) => Scalar::Integer(Width::Wide),
        (false, ScalarKind::Text) => Scalar::Text,
        (false, ScalarKind::Boolean | ScalarKind::Integer | ScalarKind::Number) => Scalar::Float,
    });
    Cow::Owned(model)
}
