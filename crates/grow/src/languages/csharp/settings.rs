//! C#'s settings.

use super::names::KEYWORDS;
use crate::settings::{ABSENT, Choice, ENTRY, FILES, Setting, Settings, TWINS, Values, check_dotted_names};

const NAMESPACE: Setting = Setting {
    key: "namespace",
    doc: "the namespace of the grown code",
    values: Values::Text { default: Some("Models"), example: "Example.Hives", check: check_namespace },
};

const LIBRARY: Setting = Setting {
    key: "library",
    doc: "what reads and writes JSON",
    values: Values::Choice(&[
        Choice { value: "system.text.json", doc: "System.Text.Json, .NET 8 and later" },
        Choice { value: "newtonsoft", doc: "Newtonsoft.Json 13" },
    ]),
};

const TYPES: Setting = Setting {
    key: "types",
    doc: "what objects become",
    values: Values::Choice(&[
        Choice { value: "records", doc: "records whose properties are set once" },
        Choice { value: "classes", doc: "classes whose properties can be changed" },
    ]),
};

const LEVEL: Setting = Setting {
    key: "level",
    doc: "the level of the language",
    values: Values::Choice(&[
        Choice { value: "12", doc: "C# 12 and later: required properties, nullable reference types" },
        Choice {
            value: "7.3",
            doc: "C# 7.3, for older run-times: always classes, and List<T> where no array is asked for",
        },
    ]),
};

const LISTS: Setting = Setting {
    key: "lists",
    doc: "what lists become",
    values: Values::Choice(&[
        Choice { value: "read-only", doc: "IReadOnlyList<T>" },
        Choice { value: "list", doc: "List<T>" },
        Choice { value: "array", doc: "T[]" },
    ]),
};

const ACCESS: Setting = Setting {
    key: "access",
    doc: "who sees the types",
    values: Values::Choice(&[
        Choice { value: "public", doc: "everyone" },
        Choice { value: "internal", doc: "the assembly" },
    ]),
};

pub(super) const SETTINGS: &[Setting] =
    &[NAMESPACE, LIBRARY, TYPES, LEVEL, LISTS, ACCESS, FILES, ABSENT, TWINS, ENTRY];

/// What reads and writes JSON.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Library {
    SystemTextJson,
    Newtonsoft,
}

/// What objects become.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Types {
    Records,
    Classes,
}

/// The level of the language.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub(super) enum Level {
    Seven,
    Twelve,
}

/// What lists become.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Lists {
    ReadOnly,
    List,
    Array,
}

/// All settings, resolved.
#[derive(Debug, Clone, Copy)]
pub(super) struct Form<'s> {
    pub(super) namespace: &'s str,
    pub(super) library: Library,
    pub(super) types: Types,
    pub(super) level: Level,
    pub(super) lists: Lists,
    pub(super) access: &'s str,
}

impl<'s> Form<'s> {
    pub(super) fn of(settings: &'s Settings) -> Self {
        let level = if settings.is(&LEVEL, "7.3") { Level::Seven } else { Level::Twelve };
        let is_class = level == Level::Seven || settings.is(&TYPES, "classes");
        let lists = if settings.is(&LISTS, "array") {
            Lists::Array
        } else if level == Level::Seven || settings.is(&LISTS, "list") {
            // Libraries of that time fill no read-only list.
            Lists::List
        } else {
            Lists::ReadOnly
        };
        let is_newtonsoft = settings.is(&LIBRARY, "newtonsoft");
        Self {
            namespace: settings.value(&NAMESPACE).expect("the setting has a default"),
            library: if is_newtonsoft { Library::Newtonsoft } else { Library::SystemTextJson },
            types: if is_class { Types::Classes } else { Types::Records },
            level,
            lists,
            access: settings.value(&ACCESS).expect("the setting has a default"),
        }
    }
}

fn check_namespace(value: &str) -> Result<(), &'static str> {
    check_dotted_names(value)?;
    if value.split('.').any(|part| KEYWORDS.contains(&part)) {
        return Err("no part of a namespace may be called as a keyword");
    }
    Ok(())
}
