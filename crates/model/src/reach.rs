//! Which types of a model its root needs.

use std::collections::VecDeque;

use crate::model::{Definition, Model, Type, TypeId};

impl Model {
    /// Drops the types that the root does not lead to. Answers the old index of each type that stayed.
    pub fn drop_unreached(&mut self) -> Vec<usize> {
        let mut reached = vec![false; self.types().count()];
        let mut queue = VecDeque::from_iter(self.roots().flat_map(|root| named_in(&root.slot.ty)));
        while let Some(id) = queue.pop_front() {
            if !std::mem::replace(&mut reached[id.index()], true) {
                queue.extend(parts(&self.get(id).definition).into_iter().flat_map(named_in));
            }
        }
        let kept: Vec<usize> = (0..reached.len()).filter(|index| reached[*index]).collect();
        let mut moved = vec![None; reached.len()];
        kept.iter().enumerate().for_each(|(new, old)| moved[*old] = Some(TypeId::from_index(new)));
        self.keep(&kept, &|id| moved[id.index()].expect("what is kept needs only what is kept"));
        kept
    }
}

/// The types of all places in a definition.
fn parts(definition: &Definition) -> Vec<&Type> {
    match definition {
        Definition::Record(record) => record.fields.iter().map(|field| &field.slot.ty).collect(),
        Definition::Union(union) => union.cases.iter().map(|case| &case.slot.ty).collect(),
        Definition::Enumeration(_) => Vec::new(),
    }
}

/// The named types in a type.
fn named_in(ty: &Type) -> Vec<TypeId> {
    match ty {
        Type::Named(id) => vec![*id],
        Type::List(slot) | Type::Map(slot) => named_in(&slot.ty),
        Type::Tuple(slots) => slots.iter().flat_map(|slot| named_in(&slot.ty)).collect(),
        Type::Any | Type::Scalar(_) | Type::Constant(_) => Vec::new(),
    }
}

/// Replaces every named type in a type.
pub(crate) fn rename_in(ty: &mut Type, to: &dyn Fn(TypeId) -> TypeId) {
    match ty {
        Type::Named(id) => *id = to(*id),
        Type::List(slot) | Type::Map(slot) => rename_in(&mut slot.ty, to),
        Type::Tuple(slots) => slots.iter_mut().for_each(|slot| rename_in(&mut slot.ty, to)),
        Type::Any | Type::Scalar(_) | Type::Constant(_) => {}
    }
}
