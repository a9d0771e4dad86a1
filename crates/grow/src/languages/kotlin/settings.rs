//! Kotlin's settings.

use super::names::KEYWORDS;
use crate::settings::{
    ABSENT, Choice, ENTRY, FILES, PLACE, Setting, Settings, TWINS, Values, check_dotted_names,
};

const PACKAGE: Setting = Setting {
    key: "package",
    doc: "the package of the grown code",
    values: Values::Text { default: None, example: "com.example.hives", check: check_dotted_names },
};

const LIBRARY: Setting = Setting {
    key: "library",
    doc: "what reads and writes JSON",
    values: Values::Choice(&[
        Choice { value: "kotlinx", doc: "kotlinx.serialization" },
        Choice { value: "moshi", doc: "Moshi, by reflection or by its code generation" },
        Choice { value: "gson", doc: "Gson" },
        Choice { value: "jackson", doc: "Jackson with its Kotlin module" },
        Choice { value: "none", doc: "nothing: plain classes without an annotation" },
    ]),
};

const PROPERTIES: Setting = Setting {
    key: "properties",
    doc: "whether properties can be changed",
    values: Values::Choice(&[
        Choice { value: "val", doc: "set once" },
        Choice { value: "var", doc: "can be changed" },
    ]),
};

const PARCELABLE: Setting = Setting {
    key: "parcelable",
    doc: "whether Android can hand objects from screen to screen",
    values: Values::Choice(&[
        Choice { value: "no", doc: "it cannot" },
        Choice { value: "yes", doc: "by the kotlin-parcelize plugin; null and nothing are then one" },
    ]),
};

pub(super) const SETTINGS: &[Setting] =
    &[PACKAGE, LIBRARY, PROPERTIES, PARCELABLE, FILES, PLACE, ABSENT, TWINS, ENTRY];

/// What reads and writes JSON.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Library {
    Kotlinx,
    Moshi,
    Gson,
    Jackson,
    None,
}

/// All settings but the package, resolved.
#[derive(Debug, Clone, Copy)]
pub(super) struct Form {
    /// Columns that a declaration is indented by.
    pub(super) indent: usize,
    /// What reads and writes JSON.
    pub(super) library: Library,
    /// `val` or `var`.
    pub(super) property: &'static str,
    /// Whether Android can hand objects from screen to screen.
    pub(super) is_parcelable: bool,
}

impl Form {
    pub(super) fn of(settings: &Settings) -> Self {
        Self {
            indent: 0,
            library: match settings.value(&LIBRARY) {
                Some("moshi") => Library::Moshi,
                Some("gson") => Library::Gson,
                Some("jackson") => Library::Jackson,
                Some("none") => Library::None,
                _ => Library::Kotlinx,
            },
            property: if settings.is(&PROPERTIES, "var") { "var" } else { "val" },
            is_parcelable: settings.is(&PARCELABLE, "yes"),
        }
    }
}

/// The package as it stands in code.
pub(super) fn package(settings: &Settings) -> Option<String> {
    let escape = |part: &str| if KEYWORDS.contains(&part) { format!("`{part}`") } else { part.to_owned() };
    settings.value(&PACKAGE).map(|name| name.split('.').map(escape).collect::<Vec<_>>().join("."))
}
