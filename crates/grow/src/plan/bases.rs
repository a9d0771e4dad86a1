//! Bases: records that others extend, in languages whose people would have it so.

use std::collections::HashSet;

use jar_sprout_model::TypeId;

use super::{Plan, PlannedDefinition, PlannedField, PlannedType};

impl<'m> Plan<'m> {
    /// The record that another one extends.
    pub(crate) fn base_of(&self, ty: &PlannedType<'m>) -> Option<&PlannedType<'m>> {
        ty.base.map(|base| self.get(base))
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
}

/// Forgets bases whose fields have other names in what extends them. Answers all that are extended.
pub(super) fn keep_bases(types: &mut [PlannedType<'_>]) -> HashSet<TypeId> {
    let is_kept = |ty: &PlannedType<'_>| ty.base.is_some_and(|base| has_fields_of(ty, &types[base.index()]));
    let kept: Vec<bool> = types.iter().map(is_kept).collect();
    types.iter_mut().zip(kept).filter(|(_, is_kept)| !is_kept).for_each(|(ty, _)| ty.base = None);
    types.iter().filter_map(|ty| ty.base).collect()
}

fn has_fields_of(ty: &PlannedType<'_>, base: &PlannedType<'_>) -> bool {
    let (PlannedDefinition::Record(own), PlannedDefinition::Record(theirs)) =
        (&ty.definition, &base.definition)
    else {
        return false;
    };
    let is_same = |a: &PlannedField<'_>, b: &PlannedField<'_>| {
        a.wire == b.wire && a.ident == b.ident && a.fate.tells_null() == b.fate.tells_null()
    };
    theirs.iter().all(|field| own.iter().any(|other| is_same(field, other)))
}
