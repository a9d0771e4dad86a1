//! Python's settings.

use crate::settings::{Choice, Setting, Settings, Values};

const TYPES: Setting = Setting {
    key: "types",
    doc: "what objects become",
    values: Values::Choice(&[
        Choice { value: "pydantic", doc: "models for pydantic v2" },
        Choice {
            value: "typed-dicts",
            doc: "TypedDict: the dictionaries of json.loads, checked by a type checker alone",
        },
    ]),
};

pub(super) const SETTINGS: &[Setting] = &[TYPES];

/// Whether the code is types alone.
pub(super) fn has_typed_dicts(settings: &Settings) -> bool {
    settings.is(&TYPES, "typed-dicts")
}
