//! Java's settings.

use super::names::KEYWORDS;
use crate::settings::{Setting, Settings, Values, check_dotted_names};

const PACKAGE: Setting = Setting {
    key: "package",
    doc: "the package of the grown code",
    values: Values::Text { default: Some("models"), example: "com.example.hives", check: check_package },
};

pub(super) const SETTINGS: &[Setting] = &[PACKAGE];

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
