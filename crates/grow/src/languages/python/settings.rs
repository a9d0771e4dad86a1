//! Python's settings.

use crate::settings::{ABSENT, Choice, ENTRY, Setting, Settings, Values};

const TYPES: Setting = Setting {
    key: "types",
    doc: "what objects become",
    values: Values::Choice(&[
        Choice { value: "pydantic", doc: "models for pydantic v2" },
        Choice {
            value: "dataclasses",
            doc: "dataclasses with from_dict and to_dict, which need the standard library alone",
        },
        Choice {
            value: "typed-dicts",
            doc: "TypedDict: the dictionaries of json.loads, checked by a type checker alone",
        },
    ]),
};

pub(super) const SETTINGS: &[Setting] = &[TYPES, ABSENT, ENTRY];

/// What objects become.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Types {
    Pydantic,
    Dataclasses,
    TypedDicts,
}

impl Types {
    pub(super) fn of(settings: &Settings) -> Self {
        match settings.value(&TYPES) {
            Some("dataclasses") => Self::Dataclasses,
            Some("typed-dicts") => Self::TypedDicts,
            _ => Self::Pydantic,
        }
    }
}
