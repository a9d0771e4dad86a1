//! Java's settings.

use super::names::KEYWORDS;
use crate::settings::{Choice, Setting, Settings, Values, check_dotted_names};

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

pub(super) const SETTINGS: &[Setting] = &[PACKAGE, TYPES];

/// Whether objects become classes with getters and setters.
pub(super) fn has_beans(settings: &Settings) -> bool {
    settings.is(&TYPES, "beans")
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
