//! Nesting: which types stand inside that of the response which alone needs them.

use std::collections::BTreeSet;

use jar_sprout_model::{Type, TypeId};

use super::{Plan, PlannedDefinition, PlannedType};

impl<'m> Plan<'m> {
    /// Puts types inside the record of the root that leads to them, if it is the only one.
    pub(crate) fn nest(&mut self) {
        let hosts: Vec<Option<TypeId>> = self.roots.iter().map(|root| self.host(&root.slot().ty)).collect();
        let mut reached: Vec<BTreeSet<usize>> = vec![BTreeSet::new(); self.types.len()];
        for (number, root) in self.roots.iter().enumerate() {
            let mut open = root.slot().ty.named();
            while let Some(id) = open.pop() {
                if reached[id.index()].insert(number) {
                    open.extend(self.needed_by(id));
                }
            }
        }
        let host = |(index, by): (usize, &BTreeSet<usize>)| {
            let id = TypeId::from_index(index);
            let is_host =
                hosts.contains(&Some(id)) || self.roots.iter().any(|root| root.slot().ty == Type::Named(id));
            by.first().filter(|_| by.len() == 1 && !is_host).and_then(|root| hosts[*root])
        };
        self.hosts = reached.iter().enumerate().map(host).collect();
    }

    /// The types that stand inside no other.
    pub(crate) fn outermost(&self) -> impl Iterator<Item = &PlannedType<'m>> {
        self.types.iter().zip(&self.hosts).filter(|(_, host)| host.is_none()).map(|(ty, _)| ty)
    }

    /// The types that stand inside another.
    pub(crate) fn nested_in(&self, ty: &PlannedType<'_>) -> impl Iterator<Item = &PlannedType<'m>> {
        let host = Some(self.id_of(ty));
        self.types.iter().zip(&self.hosts).filter(move |(_, its)| **its == host).map(|(nested, _)| nested)
    }

    /// Whether a type stands inside another.
    pub(crate) fn is_nested(&self, ty: &PlannedType<'_>) -> bool {
        self.hosts[self.id_of(ty).index()].is_some()
    }

    /// The record that a whole response is or holds, if others can stand in it: what is one of a union's cases cannot
    /// hold the union, and what has a field of a type's name not the type.
    fn host(&self, ty: &Type) -> Option<TypeId> {
        match ty {
            Type::Named(id) if self.unions_of(*id).next().is_none() && self.has_room(*id) => Some(*id),
            Type::List(slot) | Type::Map(slot) => self.host(&slot.ty),
            Type::Named(_) | Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Tuple(_) => None,
        }
    }

    /// Whether it is a record none of whose fields has the name of a type.
    fn has_room(&self, id: TypeId) -> bool {
        match &self.get(id).definition {
            PlannedDefinition::Record(fields) => {
                let members: BTreeSet<&str> = fields.iter().map(|field| field.ident.as_str()).collect();
                !self.types.iter().any(|ty| members.contains(ty.ident.as_str()))
            }
            PlannedDefinition::Enumeration(_) | PlannedDefinition::Union(_) => false,
        }
    }

    /// The types that a type speaks of; a record speaks of the unions that it is a case of.
    fn needed_by(&self, id: TypeId) -> Vec<TypeId> {
        let unions = self.unions_of(id).map(|union| self.id_of(union));
        match &self.get(id).definition {
            PlannedDefinition::Record(fields) => {
                fields.iter().flat_map(|field| field.slot.ty.named()).chain(unions).collect()
            }
            PlannedDefinition::Union(union) => {
                union.cases.iter().flat_map(|case| case.slot.ty.named()).collect()
            }
            PlannedDefinition::Enumeration(_) => Vec::new(),
        }
    }
}
