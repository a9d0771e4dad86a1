//! Values that are always the same, in languages whose types do not say so: what they are is said in words.

use std::borrow::Cow;

use jar_sprout_model::{DefaultValue, Definition, Field, Model, Scalar, Slot, Type, TypeId};

use super::Abilities;

/// The model with any text and any truth in place of those that are always the same, but for the tags of cases.
pub(super) fn with_literals<'m>(abilities: &Abilities, model: Cow<'m, Model>) -> Cow<'m, Model> {
    if abilities.has_literals {
        return model;
    }
    let tags = model.tags();
    let is_tag = |id: TypeId, field: &Field| tags.contains(&(id, &field.wire));
    let is_tagged: Vec<Vec<bool>> = model
        .types()
        .map(|(id, ty)| ty.definition.fields().iter().map(|field| is_tag(id, field)).collect())
        .collect();
    let ids: Vec<TypeId> = model.types().map(|(id, _)| id).collect();
    let mut model = model.into_owned();
    for (id, are_tags) in ids.into_iter().zip(is_tagged) {
        match &mut model.get_mut(id).definition {
            Definition::Record(record) => {
                for (field, is_tag) in record.fields.iter_mut().zip(are_tags) {
                    if !is_tag {
                        widen_field(field);
                    }
                }
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
