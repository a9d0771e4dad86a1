//! Values that are always the same, in languages whose types do not say so: what they are is said in words.

use std::borrow::Cow;
use std::collections::HashSet;

use jar_sprout_model::{
    DefaultValue, Definition, Field, Model, NamedType, Scalar, Slot, Type, TypeId, WireName,
};

use super::Abilities;

/// The model with any text and any truth in place of those that are always the same, but for the tags of cases.
pub(super) fn with_literals<'m>(abilities: &Abilities, model: Cow<'m, Model>) -> Cow<'m, Model> {
    if abilities.has_literals || !has_literals(&model) {
        return model;
    }
    let tags: HashSet<(TypeId, WireName)> =
        model.tags().into_iter().map(|(id, key)| (id, key.clone())).collect();
    let ids: Vec<TypeId> = model.types().map(|(id, _)| id).collect();
    let mut model = model.into_owned();
    for id in ids {
        match &mut model.get_mut(id).definition {
            Definition::Record(record) => {
                let said = record.fields.iter_mut().filter(|field| !tags.contains(&(id, field.wire.clone())));
                said.for_each(widen_field);
                record.extras.iter_mut().for_each(widen);
            }
            Definition::Union(union) => union.cases.iter_mut().for_each(|case| widen(&mut case.slot)),
            Definition::Enumeration(_) => {}
        }
    }
    let Model { root, more_roots, .. } = &mut model;
    [root].into_iter().chain(more_roots).for_each(|root| widen(&mut root.slot));
    Cow::Owned(model)
}

/// Whether something but the tags of cases is always the same.
fn has_literals(model: &Model) -> bool {
    let tags = model.tags();
    let in_type = |(id, ty): (TypeId, &NamedType)| match &ty.definition {
        Definition::Record(record) => {
            let mut said = record.fields.iter().filter(|field| !tags.contains(&(id, &field.wire)));
            said.any(|field| is_literal(&field.slot)) || record.extras.iter().any(is_literal)
        }
        Definition::Union(union) => union.cases.iter().any(|case| is_literal(&case.slot)),
        Definition::Enumeration(_) => false,
    };
    model.types().any(in_type) || model.roots().any(|root| is_literal(&root.slot))
}

fn is_literal(slot: &Slot) -> bool {
    match &slot.ty {
        Type::Constant(_) | Type::Scalar(Scalar::Always(_)) => true,
        Type::List(items) | Type::Map(items) => is_literal(items),
        Type::Tuple(items) => items.iter().any(is_literal),
        Type::Any | Type::Scalar(_) | Type::Named(_) => false,
    }
}

fn widen_field(field: &mut Field) {
    let (value, same) = match &field.slot.ty {
        Type::Constant(text) => {
            (format!("{:?}", text.as_str()), DefaultValue::Text(text.as_str().to_owned()))
        }
        Type::Scalar(Scalar::Always(truth)) => (truth.to_string(), DefaultValue::Boolean(*truth)),
        Type::Any | Type::Scalar(_) | Type::List(_) | Type::Map(_) | Type::Tuple(_) | Type::Named(_) => {
            return widen(&mut field.slot);
        }
    };
    // Another default would not fit.
    field.default = field.default.take().filter(|default| *default == same);
    let said = field.docs.text();
    let gap = if said.is_empty() { "" } else { "\n\n" };
    field.docs = field.docs.with_text(&format!("{said}{gap}Always {value}."));
    widen(&mut field.slot);
}

fn widen(slot: &mut Slot) {
    match &mut slot.ty {
        Type::Constant(_) => slot.ty = Type::Scalar(Scalar::Text),
        Type::Scalar(scalar @ Scalar::Always(_)) => *scalar = Scalar::Boolean,
        Type::List(items) | Type::Map(items) => widen(items),
        Type::Tuple(items) => items.iter_mut().for_each(widen),
        Type::Any | Type::Scalar(_) | Type::Named(_) => {}
    }
}
