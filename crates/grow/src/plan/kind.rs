//! Kinds of JSON values: how the cases of a union without a tag are told apart.

use jar_sprout_model::{OnWire, Slot, Type};

use super::{Plan, PlannedDefinition, PlannedUnion, PlannedUnionCase};

/// What a value is in JSON, in the order in which it is best told: what is certain comes first.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub(crate) enum Kind {
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
    /// Anything.
    Any,
}

impl<'m> Plan<'m> {
    /// What stands in a place that is not null.
    pub(crate) fn kind(&self, slot: &Slot) -> Kind {
        match &slot.ty {
            Type::Any => Kind::Any,
            Type::Constant(_) => Kind::Text,
            Type::Scalar(scalar) => match scalar.on_wire() {
                OnWire::Boolean => Kind::Boolean,
                OnWire::Integer => Kind::Integer,
                OnWire::Number => Kind::Number,
                OnWire::Text => Kind::Text,
            },
            Type::List(_) | Type::Tuple(_) => Kind::List,
            Type::Map(_) => Kind::Object,
            Type::Named(id) => match &self.get(*id).definition {
                PlannedDefinition::Enumeration(_) => Kind::Text,
                PlannedDefinition::Record(_) | PlannedDefinition::Union(_) => Kind::Object,
            },
        }
    }

    /// The cases of a union with the kinds that tell them apart, in the order in which to ask for them.
    pub(crate) fn by_kind<'u>(&self, union: &'u PlannedUnion<'m>) -> Vec<(Kind, &'u PlannedUnionCase<'m>)> {
        let mut cases: Vec<_> = union.cases.iter().map(|case| (self.kind(case.slot), case)).collect();
        cases.sort_by_key(|(kind, _)| *kind);
        cases
    }
}
