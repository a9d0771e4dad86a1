//! Go's settings.

use super::names::KEYWORDS;
use crate::settings::{ABSENT, ENTRY, FILES_TOGETHER, Setting, Settings, Values};

const PACKAGE: Setting = Setting {
    key: "package",
    doc: "the package of the grown code",
    values: Values::Text { default: Some("models"), example: "hives", check: check_package },
};

pub(super) const SETTINGS: &[Setting] = &[PACKAGE, FILES_TOGETHER, ABSENT, ENTRY];

fn check_package(value: &str) -> Result<(), &'static str> {
    let is_name = value.starts_with(|c: char| c.is_ascii_lowercase())
        && value.chars().all(|c| c.is_ascii_lowercase() || c.is_ascii_digit() || c == '_');
    if !is_name {
        Err("a package is one word in small letters")
    } else if KEYWORDS.contains(&value) {
        Err("a package may not be called as a keyword")
    } else {
        Ok(())
    }
}

pub(super) fn package(settings: &Settings) -> &str {
    settings.value(&PACKAGE).expect("the setting has a default")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_package_is_one_word_in_small_letters() {
        assert!(check_package("hives2").is_ok());
        for bad in ["", "Hives", "a.b", "1a", "func", "a b", "a\nb"] {
            assert!(check_package(bad).is_err(), "{bad:?}");
        }
    }
}
