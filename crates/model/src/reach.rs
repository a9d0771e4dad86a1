//! Which types of a model its root needs.

use std::collections::VecDeque;

use crate::model::{Definition, Model, Type, TypeId};
use crate::scalar::Scalar;

impl Model {
    /// Drops the types that the root does not lead to. Answers the old index of each type that stayed.
    pub fn drop_unreached(&mut self) -> Vec<usize> {
        let mut reached = vec![false; self.types().count()];
        let mut queue = VecDeque::from_iter(self.roots().flat_map(|root| root.slot.ty.named()));
        while let Some(id) = queue.pop_front() {
            if !std::mem::replace(&mut reached[id.index()], true) {
                queue.extend(self.get(id).definition.types().into_iter().flat_map(Type::named));
            }
        }
        let kept: Vec<usize> = (0..reached.len()).filter(|index| reached[*index]).collect();
        let mut moved = vec![None; reached.len()];
        kept.iter().enumerate().for_each(|(new, old)| moved[*old] = Some(TypeId::from_index(new)));
        self.keep(&kept, &|id| moved[id.index()].expect("what is kept needs only what is kept"));
        kept
    }
}

impl Definition {
    /// The types of all its places.
    pub fn types(&self) -> Vec<&Type> {
        match self {
            Self::Record(record) => record.slots().map(|slot| &slot.ty).collect(),
            Self::Union(union) => union.cases.iter().map(|case| &case.slot.ty).collect(),
            Self::Enumeration(_) => Vec::new(),
        }
    }
}

impl Type {
    /// The named types that it speaks of.
    pub fn named(&self) -> impl Iterator<Item = TypeId> {
        self.leaves().filter_map(|ty| if let Self::Named(id) = ty { Some(*id) } else { None })
    }

    /// The scalars that it speaks of.
    pub fn scalars(&self) -> impl Iterator<Item = Scalar> {
        self.leaves().filter_map(|ty| if let Self::Scalar(scalar) = ty { Some(*scalar) } else { None })
    }

    /// The types in it that hold no others, in their order; itself, where it holds none.
    fn leaves(&self) -> impl Iterator<Item = &Self> {
        let mut next = Some(self);
        let mut more = Vec::new();
        std::iter::from_fn(move || {
            loop {
                match next.take().or_else(|| more.pop())? {
                    Self::List(slot) | Self::Map(slot) => next = Some(&slot.ty),
                    Self::Tuple(slots) => more.extend(slots.iter().rev().map(|slot| &slot.ty)),
                    leaf => return Some(leaf),
                }
            }
        })
    }

    /// Puts another scalar in the place of each that it speaks of.
    pub(crate) fn change_scalars(&mut self, to: &dyn Fn(Scalar) -> Scalar) {
        match self {
            Self::Scalar(scalar) => *scalar = to(*scalar),
            Self::List(slot) | Self::Map(slot) => slot.ty.change_scalars(to),
            Self::Tuple(slots) => slots.iter_mut().for_each(|slot| slot.ty.change_scalars(to)),
            Self::Any | Self::Named(_) | Self::Constant(_) => {}
        }
    }

    /// Puts another named type in the place of each that it speaks of.
    pub fn rename(&mut self, to: &dyn Fn(TypeId) -> TypeId) {
        match self {
            Self::Named(id) => *id = to(*id),
            Self::List(slot) | Self::Map(slot) => slot.ty.rename(to),
            Self::Tuple(slots) => slots.iter_mut().for_each(|slot| slot.ty.rename(to)),
            Self::Any | Self::Scalar(_) | Self::Constant(_) => {}
        }
    }
}
