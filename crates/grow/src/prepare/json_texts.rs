//! Texts that are JSON themselves, which not every language's code reads.

use std::borrow::Cow;

use jar_sprout_model::{Encoding, Field, Model, NamedType, Scalar, Type};

use super::abilities::Abilities;
use super::{fields, is_apart};

/// The fields of a model that stay text in a language, though the model says what the text is.
pub(crate) fn fields_left_as_text<'m>(
    abilities: &Abilities,
    model: &'m Model,
) -> Vec<(&'m NamedType, &'m Field)> {
    fields(model).filter(|(ty, field)| stays_text(abilities, ty, field)).collect()
}

/// The model with texts in place of what a language does not read out of them.
pub(super) fn with_texts_read<'m>(abilities: &Abilities, model: Cow<'m, Model>) -> Cow<'m, Model> {
    if fields_left_as_text(abilities, &model).is_empty() {
        return model;
    }
    let mut model = model.into_owned();
    model.change_fields(&|ty, field| {
        if stays_text(abilities, ty, field) {
            field.slot.ty = Type::Scalar(Scalar::Text);
            field.encoding = Encoding::Plain;
        }
    });
    Cow::Owned(model)
}

/// What tells null from nothing stands around a value, and has no room for what reads a text.
fn stays_text(abilities: &Abilities, ty: &NamedType, field: &Field) -> bool {
    let is_apart = is_apart(abilities, ty, field);
    field.encoding == Encoding::JsonInText && (is_apart || !abilities.reads_json_in_text)
}
