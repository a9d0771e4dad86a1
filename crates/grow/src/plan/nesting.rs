//! Nesting: which types stand inside which that alone need them.

use std::collections::{HashSet, VecDeque};

use jar_sprout_model::TypeId;

use super::dominators::dominators;
use super::scope::{self, is_taken};
use super::{Ident, Naming, Plan, PlannedDefinition, PlannedRoot, PlannedType};

/// The most types that stand inside each other: more are not read as one, and each is a part of a file's name.
const DEEPEST: usize = 6;

/// The most letters of all the names around a type and its own.
const LONGEST: usize = 180;

impl<'m> Plan<'m> {
    /// Puts each type inside the nearest record that every way to it leads through, and calls it there by what its name
    /// does not share with that of the record.
    pub(super) fn nest(&mut self, naming: &Naming) {
        let slots =
            self.roots.iter().map(PlannedRoot::slot).chain(self.nothings.iter().filter_map(|one| one.slot));
        let wires: Vec<TypeId> = slots.flat_map(|slot| slot.ty.named()).collect();
        let copies = wires.iter().filter_map(|wire| self.copies.get(wire));
        let starts: Vec<usize> = wires.iter().chain(copies).map(|id| id.index()).collect();
        let nearest = dominators(&self.needed(), starts);
        let mut inside: Vec<Vec<usize>> = vec![Vec::new(); self.types.len()];
        let mut open = VecDeque::new();
        for (index, around) in nearest.iter().enumerate() {
            match around {
                Some(around) => inside[*around].push(index),
                None => open.push_back((index, None)),
            }
        }
        let names: HashSet<String> = self.types.iter().map(|ty| ty.ident.to_string()).collect();
        self.hosts = vec![None; self.types.len()];
        let mut nested = Vec::new();
        while let Some((index, host)) = open.pop_front() {
            self.hosts[index] = host;
            nested.extend(host.map(|host| (index, host)));
            let id = TypeId::from_index(index);
            let is_host = self.is_host(id, &names) && self.has_room(id);
            let host = if is_host { Some(id) } else { host };
            open.extend(inside[index].iter().map(|index| (*index, host)));
        }
        // From the outside in.
        for (index, host) in nested {
            if let Some(ident) = self.shorter(index, host, naming) {
                self.types[index].ident = ident;
            }
        }
    }

    /// The name of a type without the words that the one around it has in front, if nothing else is called so where
    /// either is seen.
    fn shorter(&self, index: usize, host: TypeId, naming: &Naming) -> Option<Ident> {
        let words = |id: TypeId| &self.model.get(id).name;
        let (name, around) = (words(TypeId::from_index(index)), words(host));
        // What names of the wire end in tells nothing apart.
        let ending = if self.has_copies() { name.common_end(around) } else { None };
        let own = name.without(around, ending.as_ref())?;
        let short = (naming.type_case)(&own);
        let ident = Ident::new((naming.escape)(short.clone()));
        let is_around = |inner: TypeId, outer: TypeId| self.around(inner).any(|one| one == outer);
        // It is seen inside, or would hide this one there.
        let is_seen = |other: &PlannedType<'_>| match self.hosts[other.id.index()] {
            None => true,
            Some(its) => is_around(host, its) || is_around(other.id, host),
        };
        let is_other = |other: &&PlannedType<'_>| other.id.index() != index && other.ident == ident;
        let is_free = !self.types.iter().filter(is_other).any(is_seen);
        let is_alias = self.roots.iter().any(|root| *self.root_ident(root) == ident);
        let is_nothing = self.nothings.iter().any(|nothing| nothing.ident == ident);
        let is_taken = is_taken(naming.reserved_types, &short);
        (is_free && !is_alias && !is_nothing && !is_taken).then_some(ident)
    }

    /// The types around one, from the inside.
    fn around(&self, id: TypeId) -> impl Iterator<Item = TypeId> {
        std::iter::successors(self.hosts[id.index()], |id| self.hosts[id.index()])
    }

    /// Whether it can have others inside: not too many are around it, nor names that are too long.
    fn has_room(&self, id: TypeId) -> bool {
        let around = self.around(id).count();
        around + 1 < DEEPEST && self.path(self.get(id)).len() + scope::LONGEST <= LONGEST
    }

    /// The name of a type with those around it: `HarvestPage.Harvest.Honey`
    pub(crate) fn path(&self, ty: &PlannedType<'_>) -> String {
        let mut path = ty.ident.to_string();
        if !self.hosts.is_empty() {
            for around in self.around(ty.id) {
                path = format!("{}.{path}", self.ident(around));
            }
        }
        path
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
        if self.is_nested(ty) { columns * self.around(ty.id).count() } else { 0 }
    }

    /// Whether a type stands inside another.
    pub(crate) fn is_nested(&self, ty: &PlannedType<'_>) -> bool {
        self.hosts.get(ty.id.index()).is_some_and(Option::is_some)
    }

    /// Whether others can stand in a type: what is one of a union's cases cannot hold the union, and what has a field of
    /// a type's name not the type.
    fn is_host(&self, id: TypeId, names: &HashSet<String>) -> bool {
        match &self.get(id).definition {
            PlannedDefinition::Record(fields) => {
                let has_name = fields.iter().any(|field| names.contains(field.ident.as_str()));
                !has_name && self.unions_of(id).next().is_none()
            }
            PlannedDefinition::Enumeration(_) | PlannedDefinition::Union(_) => false,
        }
    }

    /// By type, those that it speaks of; a record speaks of the unions that it is a case of.
    fn needed(&self) -> Vec<Vec<usize>> {
        let parts = |ty: &PlannedType<'_>| match &ty.definition {
            PlannedDefinition::Record(fields) => {
                fields.iter().flat_map(|field| field.slot.ty.named()).map(TypeId::index).collect()
            }
            PlannedDefinition::Union(union) => {
                union.cases.iter().flat_map(|case| case.slot.ty.named()).map(TypeId::index).collect()
            }
            PlannedDefinition::Enumeration(_) => Vec::new(),
        };
        let mut needed: Vec<Vec<usize>> = self.types.iter().map(parts).collect();
        for (index, ty) in self.types.iter().enumerate() {
            if let PlannedDefinition::Union(union) = &ty.definition {
                let tagged = union.cases.iter().filter(|case| case.tag.is_some());
                for case in tagged.flat_map(|case| case.slot.ty.named()) {
                    needed[case.index()].push(index);
                }
            }
        }
        needed
    }
}
