//! Bases: records that others extend, in languages whose people would have it so.

use std::collections::HashSet;

use jar_sprout_model::TypeId;

use super::{Plan, PlannedDefinition, PlannedField, PlannedType};

impl<'m> Plan<'m> {
    /// The record that another one extends, if their fields have the same names.
    pub(crate) fn base_of(&self, ty: &PlannedType<'m>) -> Option<&PlannedType<'m>> {
        let base = self.get(ty.base?);
        let (PlannedDefinition::Record(own), PlannedDefinition::Record(theirs)) =
            (&ty.definition, &base.definition)
        else {
            return None;
        };
        let is_same = |a: &PlannedField<'_>, b: &PlannedField<'_>| {
            a.wire == b.wire && a.ident == b.ident && a.is_apart == b.is_apart
        };
        let is_there = |field: &PlannedField<'_>| own.iter().any(|other| is_same(field, other));
        theirs.iter().all(is_there).then_some(base)
    }

    /// Whether another record extends this one.
    pub(crate) fn is_base(&self, ty: &PlannedType<'m>) -> bool {
        self.bases.contains(&ty.id)
    }

    /// The fields that a record does not have of the one that it extends.
    pub(crate) fn own_fields<'f>(
        base: Option<&PlannedType<'_>>,
        fields: &'f [PlannedField<'m>],
    ) -> Vec<&'f PlannedField<'m>> {
        let inherited: &[PlannedField<'_>] = match base.map(|base| &base.definition) {
            Some(PlannedDefinition::Record(inherited)) => inherited,
            Some(PlannedDefinition::Enumeration(_) | PlannedDefinition::Union(_)) | None => &[],
        };
        let is_own = |field: &&PlannedField<'_>| !inherited.iter().any(|other| other.wire == field.wire);
        fields.iter().filter(is_own).collect()
    }

    /// All that some record extends.
    pub(super) fn find_bases(&self) -> HashSet<TypeId> {
        self.types.iter().filter_map(|ty| self.base_of(ty)).map(|base| base.id).collect()
    }

    /// The same types, none before the one that it extends.
    pub(crate) fn bases_first<'p>(&'p self, types: Vec<&'p PlannedType<'m>>) -> Vec<&'p PlannedType<'m>> {
        if self.bases.is_empty() {
            return types;
        }
        let all: HashSet<TypeId> = types.iter().map(|ty| ty.id).collect();
        let mut placed = HashSet::new();
        let mut ordered = Vec::with_capacity(types.len());
        for ty in types {
            let mut chain = vec![ty];
            while let Some(base) = chain.last().and_then(|ty| self.base_of(ty)) {
                chain.push(base);
            }
            let new = chain.into_iter().rev().filter(|ty| all.contains(&ty.id));
            ordered.extend(new.filter(|ty| placed.insert(ty.id)));
        }
        ordered
    }
}
