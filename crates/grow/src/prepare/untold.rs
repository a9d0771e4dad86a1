//! Unions whose objects nothing tells apart any more: what a decision made of a key, or a body that is sent without it.

use std::borrow::Cow;

use jar_sprout_model::{Definition, Model, Slot, Type, TypeId, Union};

/// The model with any value in place of a union of which nobody could say which case an object is.
pub(super) fn with_told_unions(model: Cow<'_, Model>) -> Cow<'_, Model> {
    let is_untold = |union: &Union| union.tag.is_none() && !model.are_objects_told(union);
    let untold: Vec<TypeId> = model
        .types()
        .filter(|(_, ty)| matches!(&ty.definition, Definition::Union(union) if is_untold(union)))
        .map(|(id, _)| id)
        .collect();
    if untold.is_empty() {
        return model;
    }
    let mut model = model.into_owned();
    for id in untold {
        if let Definition::Union(union) = &mut model.get_mut(id).definition {
            union.cases.truncate(1);
            union.cases[0].slot = Slot::of(Type::Any);
        }
    }
    model.drop_unreached();
    Cow::Owned(model)
}
