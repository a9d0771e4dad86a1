//! Default values: what holds where a key is absent.

use jar_sprout_model::{DefaultValue, Model, Scalar, Slot, Type, TypeId};

use super::{Plan, PlannedCase, PlannedDefinition, PlannedType};

/// What holds where a key is absent.
#[derive(Debug, Clone, Copy)]
pub(crate) enum PlannedDefault<'m> {
    Boolean(bool),
    Integer(&'m str),
    Float(&'m str),
    Text(&'m str),
    /// The known value of an enum with this text.
    Case(TypeId, &'m str),
}

impl PlannedDefault<'_> {
    /// Whether it is a number.
    pub(crate) fn is_number(self) -> bool {
        match self {
            Self::Integer(_) | Self::Float(_) => true,
            Self::Boolean(_) | Self::Text(_) | Self::Case(..) => false,
        }
    }
}

/// How a language writes default values; numbers are written alike everywhere.
pub(crate) struct DefaultSpelling {
    pub(crate) truths: [&'static str; 2],
    pub(crate) literal: fn(&str) -> String,
    pub(crate) case: fn(&PlannedType<'_>, &PlannedCase<'_>) -> String,
}

impl Plan<'_> {
    /// The code of a default value.
    pub(crate) fn default_code(&self, default: PlannedDefault<'_>, spelling: &DefaultSpelling) -> String {
        match default {
            PlannedDefault::Boolean(flag) => spelling.truths[usize::from(flag)].to_owned(),
            PlannedDefault::Integer(number) => number.to_owned(),
            PlannedDefault::Float(number) if number.contains(['.', 'e', 'E']) => number.to_owned(),
            PlannedDefault::Float(number) => format!("{number}.0"),
            PlannedDefault::Text(text) => (spelling.literal)(text),
            PlannedDefault::Case(id, text) => {
                let ty = self.get(id);
                let PlannedDefinition::Enumeration(cases) = &ty.definition else {
                    unreachable!("an enum has it, or it would be no default")
                };
                let case = cases.iter().find(|case| case.wire.as_str() == text);
                (spelling.case)(ty, case.expect("the enum knows it, or it would be no default"))
            }
        }
    }
}

/// The default value of a place, where it takes it.
pub(super) fn plan<'m>(
    model: &Model,
    slot: &'m Slot,
    default: &'m DefaultValue,
) -> Option<PlannedDefault<'m>> {
    if !model.takes_default(slot, default) {
        return None;
    }
    Some(match (default, &slot.ty) {
        (DefaultValue::Boolean(flag), _) => PlannedDefault::Boolean(*flag),
        (DefaultValue::Number(number), Type::Scalar(Scalar::Float)) => PlannedDefault::Float(number),
        (DefaultValue::Number(number), _) => PlannedDefault::Integer(number),
        (DefaultValue::Text(text), Type::Named(id)) => PlannedDefault::Case(*id, text),
        (DefaultValue::Text(text), _) => PlannedDefault::Text(text),
    })
}
