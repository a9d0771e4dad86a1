//! The order of declarations where a name must be there before it is used.

use std::collections::HashSet;

use jar_sprout_model::TypeId;

use super::{Plan, PlannedDefinition, PlannedType};

impl<'m> Plan<'m> {
    /// The same types, none before what it is made of; of those that hold each other, a union stands behind its cases
    /// and a record behind the one that it extends, which are needed at once.
    pub(crate) fn inside_out<'p>(&'p self, types: Vec<&'p PlannedType<'m>>) -> Vec<&'p PlannedType<'m>> {
        let readable = self.parts_first(types, |ty| {
            let parts: Vec<TypeId> = match &ty.definition {
                PlannedDefinition::Record(fields) => {
                    let extras = ty.extras.as_ref().map(|extras| extras.slot);
                    let slots = fields.iter().map(|field| field.slot).chain(extras);
                    slots.flat_map(|slot| slot.ty.named()).collect()
                }
                PlannedDefinition::Enumeration(_) | PlannedDefinition::Union(_) => Vec::new(),
            };
            [needed_at_once(self, ty), parts].concat()
        });
        self.parts_first(readable, |ty| needed_at_once(self, ty))
    }

    /// The same types, each behind its parts.
    fn parts_first<'p>(
        &'p self,
        types: Vec<&'p PlannedType<'m>>,
        parts: impl Fn(&PlannedType<'m>) -> Vec<TypeId>,
    ) -> Vec<&'p PlannedType<'m>> {
        let all: HashSet<TypeId> = types.iter().map(|ty| ty.id).collect();
        let open = |ty: &PlannedType<'m>| parts(ty).into_iter().rev().filter(|id| all.contains(id)).collect();
        let mut met = HashSet::new();
        let mut ordered = Vec::with_capacity(types.len());
        for ty in types {
            // Each with the parts that are still to come before it, the first one last.
            let mut path: Vec<(_, Vec<TypeId>)> = Vec::new();
            path.extend(met.insert(ty.id).then(|| (ty, open(ty))));
            while let Some((ty, parts)) = path.last_mut() {
                match parts.pop() {
                    Some(part) if met.insert(part) => {
                        let part = self.get(part);
                        path.push((part, open(part)));
                    }
                    Some(_) => {}
                    None => {
                        ordered.push(*ty);
                        path.pop();
                    }
                }
            }
        }
        ordered
    }
}

/// The types that must be there when one is declared; what names itself is declared by a text, which is read later.
fn needed_at_once(plan: &Plan<'_>, ty: &PlannedType<'_>) -> Vec<TypeId> {
    match &ty.definition {
        PlannedDefinition::Record(_) => ty.base.into_iter().collect(),
        PlannedDefinition::Union(_) if plan.names_itself(ty.id) => Vec::new(),
        PlannedDefinition::Union(union) => union.cases.iter().flat_map(|case| case.slot.ty.named()).collect(),
        PlannedDefinition::Enumeration(_) => Vec::new(),
    }
}
