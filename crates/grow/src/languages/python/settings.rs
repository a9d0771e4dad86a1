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

const LEVEL: Setting = Setting {
    key: "level",
    doc: "the level of the language",
    values: Values::Choice(&[
        Choice { value: "3.11", doc: "Python 3.11 and later" },
        Choice { value: "3.10", doc: "Python 3.10 and later; what typing lacks there is typing_extensions'" },
    ]),
};

pub(super) const SETTINGS: &[Setting] = &[TYPES, LEVEL, ABSENT, ENTRY];

/// The level of the language.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Level {
    Ten,
    Eleven,
}

impl Level {
    pub(super) fn of(settings: &Settings) -> Self {
        if settings.is(&LEVEL, "3.10") { Self::Ten } else { Self::Eleven }
    }
}

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
