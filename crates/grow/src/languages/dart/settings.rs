//! Dart's settings.

use crate::settings::{ABSENT, Choice, ENTRY, Setting, Settings, TWINS, Values};

const JSON: Setting = Setting {
    key: "json",
    doc: "who writes fromJson and toJson",
    values: Values::Choice(&[
        Choice { value: "written-out", doc: "they stand in the code; nothing else is needed" },
        Choice {
            value: "json_annotation",
            doc: "build_runner with json_serializable 6.8 and later, in a part of the file",
        },
    ]),
};

const COPY_WITH: Setting = Setting {
    key: "copy-with",
    doc: "whether classes have a copyWith",
    values: Values::Choice(&[
        Choice { value: "no", doc: "they have none" },
        Choice { value: "yes", doc: "one that can also set null: copyWith(note: () => null)" },
    ]),
};

const EQUALITY: Setting = Setting {
    key: "equality",
    doc: "when two objects are equal",
    values: Values::Choice(&[
        Choice { value: "identity", doc: "when they are one" },
        Choice { value: "values", doc: "when all that they hold is equal" },
    ]),
};

pub(super) const SETTINGS: &[Setting] = &[JSON, COPY_WITH, EQUALITY, ABSENT, TWINS, ENTRY];

/// All settings, resolved.
#[derive(Debug, Clone, Copy)]
pub(super) struct Form {
    /// Whether a tool writes what reads and writes.
    pub(super) is_annotated: bool,
    pub(super) has_copy_with: bool,
    pub(super) has_equality: bool,
}

impl Form {
    pub(super) fn of(settings: &Settings) -> Self {
        Self {
            is_annotated: settings.is(&JSON, "json_annotation"),
            has_copy_with: settings.is(&COPY_WITH, "yes"),
            has_equality: settings.is(&EQUALITY, "values"),
        }
    }
}
