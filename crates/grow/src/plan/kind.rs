//! Kinds of JSON values: how the cases of a union without a tag are told apart.

use jar_sprout_model::{ScalarKind, Slot, Type};

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

    /// The cases of a union with the kinds that tell them apart, in the order in which to ask for them.
    pub(crate) fn by_kind<'u>(
        &self,
        union: &'u PlannedUnion<'m>,
    ) -> Vec<(CaseKind, &'u PlannedUnionCase<'m>)> {
        let mut cases: Vec<_> = union.cases.iter().map(|case| (self.kind(case.slot), case)).collect();
        cases.sort_by_key(|(kind, _)| *kind);
        cases
    }
}
