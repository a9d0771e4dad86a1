//! Java's settings.

use super::names::KEYWORDS;
use crate::settings::{ABSENT, Choice, ENTRY, PLACE, Setting, Settings, TWINS, Values, check_dotted_names};

const PACKAGE: Setting = Setting {
    key: "package",
    doc: "the package of the grown code",
    values: Values::Text { default: Some("models"), example: "com.example.hives", check: check_package },
};

const TYPES: Setting = Setting {
    key: "types",
    doc: "what objects become",
    values: Values::Choice(&[
        Choice { value: "records", doc: "records" },
        Choice { value: "beans", doc: "classes with getters and setters" },
    ]),
};

const LIBRARY: Setting = Setting {
    key: "library",
    doc: "what reads and writes JSON",
    values: Values::Choice(&[
        Choice { value: "jackson", doc: "Jackson" },
        Choice {
            value: "gson",
            doc: "Gson 2.10 and later, with serializeNulls() where null must be written",
        },
    ]),
};

pub(super) const SETTINGS: &[Setting] = &[PACKAGE, LIBRARY, TYPES, PLACE, ABSENT, TWINS, ENTRY];

/// What reads and writes JSON.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Library {
    Jackson,
    Gson,
}

/// All settings but the package, resolved.
#[derive(Debug, Clone, Copy)]
pub(super) struct Form {
    /// Columns that a declaration is indented by.
    pub(super) indent: usize,
    /// What reads and writes JSON.
    pub(super) library: Library,
    /// Whether objects become classes with getters and setters.
    pub(super) has_beans: bool,
}

impl Form {
    pub(super) fn of(settings: &Settings) -> Self {
        let library = if settings.is(&LIBRARY, "gson") { Library::Gson } else { Library::Jackson };
        Self { indent: 0, library, has_beans: settings.is(&TYPES, "beans") }
    }
}

fn check_package(value: &str) -> Result<(), &'static str> {
    check_dotted_names(value)?;
    if value.split('.').any(|part| KEYWORDS.contains(&part)) {
        return Err("no part of a package may be called as a keyword");
    }
    Ok(())
}

pub(super) fn package(settings: &Settings) -> &str {
    settings.value(&PACKAGE).expect("the setting has a default")
}
