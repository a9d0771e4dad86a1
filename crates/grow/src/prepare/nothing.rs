//! Words that stand for nothing, which not every language's code reads as that.

use std::borrow::Cow;

use jar_sprout_model::{
    Coding, Definition, Encoding, Field, Model, NamedType, Scalar, ScalarKind, Type, Width,
};

use super::abilities::{Abilities, Nothing};
use super::{fields, is_apart};

/// The fields of a model whose words for nothing stay values in a language.
pub(crate) fn fields_with_words_left<'m>(
    abilities: &Abilities,
    model: &'m Model,
) -> Vec<(&'m NamedType, &'m Field)> {
    let is_left = |(ty, field): &(&NamedType, &Field)| {
        field.encoding.nothing_words().is_some() && as_what(abilities, ty, field) == Nothing::Value
    };
    fields(model).filter(is_left).collect()
}

/// The model with fields that may hold nothing, or with values that the words are among, by what a language does.
pub(super) fn with_nothing<'m>(abilities: &Abilities, model: Cow<'m, Model>) -> Cow<'m, Model> {
    let is_said = |(_, ty): (_, &NamedType)| {
        ty.definition.fields().iter().any(|field| field.encoding.nothing_words().is_some())
    };
    if !model.types().any(is_said) {
        return model;
    }
    let mut model = model.into_owned();
    let texts = texts_of(&model);
    model.change_fields(&|ty, field| {
        if field.encoding.nothing_words().is_none() {
            return;
        }
        match as_what(abilities, ty, field) {
            Nothing::Absent => field.slot.nullable = true,
            Nothing::Word => {}
            Nothing::Value => {
                field.slot.ty = if texts(&field.slot.ty) { Type::Scalar(Scalar::Text) } else { Type::Any };
                field.encoding = Encoding::Plain;
            }
        }
        // What is read as a number is one already.
        if let Type::Scalar(Scalar::Coded(Coding::EpochSeconds | Coding::EpochMilliseconds)) = field.slot.ty
            && field.encoding != Encoding::Plain
        {
            field.slot.ty = Type::Scalar(Scalar::Integer(Width::Wide));
        }
    });
    Cow::Owned(model)
}

/// What tells null from nothing stands around a value, and has no room for what reads a word.
fn as_what(abilities: &Abilities, ty: &NamedType, field: &Field) -> Nothing {
    if abilities.nothing == Nothing::Absent && is_apart(abilities, ty, field) {
        Nothing::Value
    } else {
        abilities.nothing
    }
}

/// Whether the wire has texts in the place of a type.
fn texts_of(model: &Model) -> impl Fn(&Type) -> bool + use<> {
    let enums: Vec<_> = model
        .types()
        .filter(|(_, ty)| matches!(ty.definition, Definition::Enumeration(_)))
        .map(|(id, _)| id)
        .collect();
    move |ty| match ty {
        Type::Scalar(scalar) => scalar.kind() == ScalarKind::Text,
        Type::Constant(_) => true,
        Type::Named(id) => enums.contains(id),
        Type::Any | Type::List(_) | Type::Map(_) | Type::Tuple(_) => false,
    }
}
