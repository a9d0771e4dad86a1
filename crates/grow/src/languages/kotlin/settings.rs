//! Kotlin's settings.

use super::names::KEYWORDS;
use crate::settings::{Setting, Settings, Values, check_dotted_names};

const PACKAGE: Setting = Setting {
    key: "package",
    doc: "the package of the grown code",
    values: Values::Text { default: None, example: "com.example.hives", check: check_dotted_names },
};

pub(super) const SETTINGS: &[Setting] = &[PACKAGE];

/// The package as it stands in code.
pub(super) fn package(settings: &Settings) -> Option<String> {
    let escape = |part: &str| if KEYWORDS.contains(&part) { format!("`{part}`") } else { part.to_owned() };
    settings.value(&PACKAGE).map(|name| name.split('.').map(escape).collect::<Vec<_>>().join("."))
}
