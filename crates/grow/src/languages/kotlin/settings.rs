//! Kotlin's settings.

use super::names::KEYWORDS;
use crate::settings::{Setting, Settings};

pub(super) const SETTINGS: &[Setting] = &[Setting {
    key: "package",
    doc: "the package of the grown code",
    example: "com.example.hives",
    check: check_package,
}];

fn check_package(value: &str) -> Result<(), &'static str> {
    let is_name = |part: &str| {
        let mut chars = part.chars();
        chars.next().is_some_and(|c| c.is_ascii_alphabetic() || c == '_')
            && chars.all(|c| c.is_ascii_alphanumeric() || c == '_')
    };
    if value.split('.').all(is_name) { Ok(()) } else { Err("a package is names joined by dots") }
}

/// The package as it stands in code.
pub(super) fn package(settings: &Settings) -> Option<String> {
    let escape = |part: &str| if KEYWORDS.contains(&part) { format!("`{part}`") } else { part.to_owned() };
    settings.get("package").map(|name| name.split('.').map(escape).collect::<Vec<_>>().join("."))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_package_is_names_joined_by_dots() {
        for good in ["hives", "com.example.hives", "_a.b2", "com.in.x"] {
            assert!(check_package(good).is_ok(), "{good}");
        }
        for bad in ["", ".", "com..hives", "com.1", "a b", "a;b", "a\nb", "größe"] {
            assert!(check_package(bad).is_err(), "{bad:?}");
        }
    }
}
