//! Nesting: which types stand inside that of the response which alone needs them.

use std::collections::HashSet;

use jar_sprout_model::{Type, TypeId};

use super::{Plan, PlannedDefinition, PlannedRoot, PlannedType};

/// What leads to a type: roots, and what is declared beside all types.
#[derive(Clone, Copy, PartialEq)]
enum Leading {
    None,
    One(usize),
    Several,
}

impl<'m> Plan<'m> {
    /// Puts types inside the record of the root that leads to them, if nothing else does.
    pub(super) fn nest(&mut self) {
        let needed = self.needed();
        let mut led_to = vec![Leading::None; self.types.len()];
        let roots = self.roots.iter().map(PlannedRoot::slot);
        let beside = self.nothings.iter().filter_map(|nothing| nothing.slot);
        for (number, slot) in roots.chain(beside).enumerate() {
            let mut open: Vec<TypeId> = slot.ty.named().collect();
            while let Some(id) = open.pop() {
                let is_new = match &mut led_to[id.index()] {
                    // What is behind it is led to by several as well.
                    Leading::Several => false,
                    Leading::One(one) if *one == number => false,
                    by @ Leading::One(_) => {
                        *by = Leading::Several;
                        true
                    }
                    by @ Leading::None => {
                        *by = Leading::One(number);
                        true
                    }
                };
                if is_new {
                    open.extend(&needed[id.index()]);
                }
            }
        }
        let names: HashSet<&str> = self.types.iter().map(|ty| ty.ident.as_str()).collect();
        let hosts: Vec<Option<TypeId>> =
            self.roots.iter().map(|root| self.host(&root.slot().ty, &names)).collect();
        let outermost: HashSet<TypeId> =
            hosts.iter().flatten().copied().chain(self.roots.iter().filter_map(PlannedRoot::named)).collect();
        let host = |(index, by): (usize, &Leading)| match by {
            Leading::One(root) if !outermost.contains(&TypeId::from_index(index)) => {
                hosts.get(*root).copied().flatten()
            }
            Leading::One(_) | Leading::None | Leading::Several => None,
        };
        self.hosts = led_to.iter().enumerate().map(host).collect();
    }

    /// The types that stand inside no other.
    pub(crate) fn outermost(&self) -> impl Iterator<Item = &PlannedType<'m>> {
        let is_outermost = |index: usize| self.hosts.get(index).is_none_or(Option::is_none);
        self.types.iter().enumerate().filter(move |(index, _)| is_outermost(*index)).map(|(_, ty)| ty)
    }

    /// The types that stand inside another.
    pub(crate) fn nested_in(&self, ty: &PlannedType<'_>) -> impl Iterator<Item = &PlannedType<'m>> {
        let host = Some(ty.id);
        self.types.iter().zip(&self.hosts).filter(move |(_, its)| **its == host).map(|(nested, _)| nested)
    }

    /// Columns that a type's declaration is indented by, where one level has so many.
    pub(crate) fn indent(&self, ty: &PlannedType<'_>, columns: usize) -> usize {
        if self.is_nested(ty) { columns } else { 0 }
    }

    /// Whether a type stands inside another.
    pub(crate) fn is_nested(&self, ty: &PlannedType<'_>) -> bool {
        self.hosts.get(ty.id.index()).is_some_and(Option::is_some)
    }

    /// The record that a whole response is or holds, if others can stand in it: what is one of a union's cases cannot
    /// hold the union, and what has a field of a type's name not the type.
    fn host(&self, ty: &Type, names: &HashSet<&str>) -> Option<TypeId> {
        match ty {
            Type::Named(id) => match &self.get(*id).definition {
                PlannedDefinition::Record(fields) => {
                    let has_room = !fields.iter().any(|field| names.contains(field.ident.as_str()));
                    (has_room && self.unions_of(*id).next().is_none()).then_some(*id)
                }
                PlannedDefinition::Enumeration(_) | PlannedDefinition::Union(_) => None,
            },
            Type::List(slot) | Type::Map(slot) => self.host(&slot.ty, names),
            Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Tuple(_) => None,
        }
    }

    /// By type, those that it speaks of; a record speaks of the unions that it is a case of.
    fn needed(&self) -> Vec<Vec<TypeId>> {
        let parts = |ty: &PlannedType<'_>| match &ty.definition {
            PlannedDefinition::Record(fields) => {
                fields.iter().flat_map(|field| field.slot.ty.named()).collect()
            }
            PlannedDefinition::Union(union) => {
                union.cases.iter().flat_map(|case| case.slot.ty.named()).collect()
            }
            PlannedDefinition::Enumeration(_) => Vec::new(),
        };
        let mut needed: Vec<Vec<TypeId>> = self.types.iter().map(parts).collect();
        for (index, ty) in self.types.iter().enumerate() {
            if let PlannedDefinition::Union(union) = &ty.definition {
                let tagged = union.cases.iter().filter(|case| case.tag.is_some());
                for case in tagged.flat_map(|case| case.slot.ty.named()) {
                    needed[case.index()].push(TypeId::from_index(index));
                }
            }
        }
        needed
    }
}
