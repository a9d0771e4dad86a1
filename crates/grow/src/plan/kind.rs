//! Kinds of JSON values: how the cases of a union without a tag are told apart.

use jar_sprout_model::{ScalarKind, Slot, Type, WireName};

use super::{Plan, PlannedDefinition, PlannedUnion, PlannedUnionCase};

/// What tells a case from the others, in the order in which it is best told: what is certain comes first.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub(crate) enum CaseKind {
    /// `{"id": 17}`
    Object,
    /// `[17]`
    List,
    /// `"laying"`
    Text,
    /// `true`
    Boolean,
    /// `17`
    Integer,
    /// `8.4`
    Number,
    /// Nothing: the case takes what is left, null as well.
    Any,
}

/// A case of a union without a tag, with what tells it from those after it.
#[derive(Debug, Clone, Copy)]
pub(crate) struct ToldCase<'u, 'm> {
    pub(crate) kind: CaseKind,
    /// A key that this one of several objects has, and none of the others; none for the last of them.
    pub(crate) key: Option<&'m WireName>,
    pub(crate) case: &'u PlannedUnionCase<'m>,
}

impl From<ScalarKind> for CaseKind {
    fn from(kind: ScalarKind) -> Self {
        match kind {
            ScalarKind::Text => Self::Text,
            ScalarKind::Boolean => Self::Boolean,
            ScalarKind::Integer => Self::Integer,
            ScalarKind::Number => Self::Number,
        }
    }
}

impl<'m> Plan<'m> {
    /// What stands in a place that is not null.
    pub(crate) fn kind(&self, slot: &Slot) -> CaseKind {
        match &slot.ty {
            Type::Any => CaseKind::Any,
            Type::Constant(_) => CaseKind::Text,
            Type::Scalar(scalar) => scalar.kind().into(),
            Type::List(_) | Type::Tuple(_) => CaseKind::List,
            Type::Map(_) => CaseKind::Object,
            Type::Named(id) => match &self.get(*id).definition {
                PlannedDefinition::Enumeration(_) => CaseKind::Text,
                PlannedDefinition::Record(_) | PlannedDefinition::Union(_) => CaseKind::Object,
            },
        }
    }

    /// The cases of a union with the kinds, and the keys of objects, that tell them apart, in the order in which to ask
    /// for them.
    pub(crate) fn by_kind<'u>(&self, union: &'u PlannedUnion<'m>) -> Vec<ToldCase<'u, 'm>> {
        let told =
            |case: &'u PlannedUnionCase<'m>| ToldCase { kind: self.kind(case.slot), key: case.key, case };
        let mut cases: Vec<ToldCase<'u, 'm>> = union.cases.iter().map(told).collect();
        cases.sort_by_key(|told| (told.kind, told.key.is_none()));
        // Whatever has no other key is the last one.
        let objects = cases.iter().filter(|told| told.kind == CaseKind::Object).count();
        if let Some(last) = objects.checked_sub(1) {
            cases[last].key = None;
        }
        cases
    }

    /// Whether keys tell cases of a union apart.
    pub(crate) fn is_told_by_keys(&self, union: &PlannedUnion<'_>) -> bool {
        let is_object = |case: &&PlannedUnionCase<'_>| self.kind(case.slot) == CaseKind::Object;
        union.tag.is_none() && union.cases.iter().filter(is_object).count() > 1
    }
}
