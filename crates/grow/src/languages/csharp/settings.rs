//! C#'s settings.

use jar_sprout_model::Fraction;

use super::names::KEYWORDS;
use crate::prepare::{
    Abilities, Dependency, Extras, Foundation, Judge, Nothing, Nulls, Order, PlainCopies, Tags, TimeKeeping,
};
use crate::settings::{
    ABSENT, Absence, BOUNDS_SAID, ENTRY, Entry, FILES, KEYS, MARK, Meaning, Nesting, OneOf, Setting,
    Settings, Spread, TWINS, TextOf, URIS, UUIDS, check_dotted_names,
};

pub(super) const NAMESPACE: TextOf = TextOf {
    key: "namespace",
    doc: "the namespace of the grown code",
    default: Some("Models"),
    example: "Example.Hives",
    check: check_namespace,
};

const LIBRARY: OneOf<Library> = OneOf {
    key: "library",
    doc: "what reads and writes JSON",
    choices: &[
        Meaning {
            value: "system.text.json",
            doc: "System.Text.Json, .NET 8 and later",
            it: Library::SystemTextJson,
        },
        Meaning { value: "newtonsoft", doc: "Newtonsoft.Json 13", it: Library::Newtonsoft },
    ],
};

const TYPES: OneOf<Types> = OneOf {
    key: "types",
    doc: "what objects become",
    choices: &[
        Meaning { value: "records", doc: "records whose properties are set once", it: Types::Records },
        Meaning { value: "classes", doc: "classes whose properties can be changed", it: Types::Classes },
    ],
};

const LEVEL: OneOf<ChosenLevel> = OneOf {
    key: "level",
    doc: "the level of the language",
    choices: &[
        Meaning {
            value: "12",
            doc: "C# 12 and later: required properties, nullable reference types",
            it: ChosenLevel { level: Level::Twelve, refuses_null: false },
        },
        Meaning {
            value: "13",
            doc: "C# 13 and later, .NET 9: the same, and the functions that read a response refuse null where a type has none",
            it: ChosenLevel { level: Level::Twelve, refuses_null: true },
        },
        Meaning {
            value: "7.3",
            doc: "C# 7.3, for older run-times: always classes, and List<T> where no array is asked for",
            it: ChosenLevel { level: Level::Seven, refuses_null: false },
        },
    ],
};

/// A level of the language, and what its platform can do beyond it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
struct ChosenLevel {
    level: Level,
    /// Whether its library can be told to refuse null where a type has none.
    refuses_null: bool,
}

const LISTS: OneOf<Lists> = OneOf {
    key: "lists",
    doc: "what lists become",
    choices: &[
        Meaning { value: "read-only", doc: "IReadOnlyList<T>", it: Lists::ReadOnly },
        Meaning { value: "list", doc: "List<T>", it: Lists::List },
        Meaning { value: "array", doc: "T[]", it: Lists::Array },
    ],
};

const ACCESS: OneOf<&str> = OneOf {
    key: "access",
    doc: "who sees the types",
    choices: &[
        Meaning { value: "public", doc: "everyone", it: "public" },
        Meaning { value: "internal", doc: "the assembly", it: "internal" },
    ],
};

const BOUNDS: OneOf<bool> = OneOf {
    choices: &[
        BOUNDS_SAID,
        Meaning { value: "checked", doc: "they are data annotations as well, from level 12 on", it: true },
    ],
    ..crate::settings::BOUNDS
};

const METADATA: OneOf<bool> = OneOf {
    key: "metadata",
    doc: "where System.Text.Json has what it knows of types from",
    choices: &[
        Meaning { value: "reflection", doc: "it looks at them while the program runs", it: false },
        Meaning {
            value: "generated",
            doc: "a JsonSerializerContext, from level 12 on, for what is trimmed or compiled ahead of time",
            it: true,
        },
    ],
};

pub(super) const SETTINGS: &[&dyn Setting] = &[
    &NAMESPACE, &LIBRARY, &TYPES, &LEVEL, &LISTS, &ACCESS, &BOUNDS, &KEYS, &METADATA, &UUIDS, &URIS, &FILES,
    &ABSENT, &TWINS, &ENTRY, &MARK,
];

/// The property of a project whose code may be compiled ahead of time.
pub(super) const AHEAD_OF_TIME: &str = "IsAotCompatible";

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
#[derive(Debug, Clone)]
pub(super) struct CSharpOptions {
    pub(super) namespace: String,
    /// Where helpers stand that other models need as well: a namespace.
    pub(super) shared: Option<String>,
    pub(super) library: Library,
    pub(super) types: Types,
    pub(super) level: Level,
    /// Whether what reads a response refuses null where a type has none.
    pub(super) refuses_null: bool,
    pub(super) lists: Lists,
    pub(super) access: &'static str,
    /// Whether the bounds that a document sets are checked.
    pub(super) checks_bounds: bool,
    /// Whether the keys of a type are said by one annotation.
    pub(super) has_key_rules: bool,
    /// Whether a context has what the library knows of types.
    pub(super) has_context: bool,
    /// Whether UUIDs have the platform's own type.
    pub(super) has_uuids: bool,
    /// Whether URIs have.
    pub(super) has_uris: bool,
    spread: Spread,
    absence: Absence,
    /// What the names of wire types end in, beside which plain ones stand.
    ending: Option<String>,
    pub(super) entry: Entry,
}

impl CSharpOptions {
    pub(super) fn of(settings: &Settings) -> Self {
        let ChosenLevel { level, refuses_null } = LEVEL.of(settings);
        Self {
            namespace: NAMESPACE.of(settings).expect("the setting has a default"),
            shared: settings.shared().map(str::to_owned),
            library: LIBRARY.of(settings),
            types: match level {
                Level::Seven => Types::Classes,
                Level::Twelve => TYPES.of(settings),
            },
            level,
            refuses_null,
            lists: match (LISTS.of(settings), level) {
                // Libraries of that time fill no read-only list.
                (Lists::ReadOnly, Level::Seven) => Lists::List,
                (lists, _) => lists,
            },
            access: ACCESS.of(settings),
            checks_bounds: BOUNDS.of(settings) && level >= Level::Twelve,
            has_key_rules: KEYS.of(settings) && LIBRARY.of(settings) == Library::Newtonsoft,
            has_context: METADATA.of(settings)
                && LIBRARY.of(settings) == Library::SystemTextJson
                && level >= Level::Twelve,
            has_uuids: UUIDS.of(settings),
            has_uris: URIS.of(settings),
            spread: FILES.of(settings),
            absence: ABSENT.of(settings),
            ending: TWINS.of(settings),
            entry: ENTRY.of(settings),
        }
    }

    /// What code with these options can and cannot do.
    pub(super) fn abilities(&self) -> Abilities {
        Abilities {
            spread: self.spread,
            order: Order::OutsideIn,
            // A property may not be called as a type beside it.
            nesting: Nesting::Beside,
            has_namespace_file: false,
            absence: match self.library {
                Library::SystemTextJson => self.absence,
                Library::Newtonsoft => Absence::Untold,
            },
            types_uuids: self.has_uuids,
            times: match self.library {
                Library::SystemTextJson => TimeKeeping::InForm(Fraction::Shortest),
                Library::Newtonsoft => TimeKeeping::Loose,
            },
            holds: |_| true,
            has_literals: false,
            nothing: match self.library {
                // The generator takes no attributes that make converters.
                Library::SystemTextJson if self.has_context => Nothing::Value,
                Library::SystemTextJson => Nothing::Absent,
                // It asks no converter what to write for null.
                Library::Newtonsoft => Nothing::Value,
            },
            reads_json_in_text: true,
            extras: |_| Extras::OfAny,
            most_room: None,
            fills_in: true,
            nulls: Nulls::WhereRequired,
            entry: self.entry,
            plain_copies: self.ending.clone().map(|ending| PlainCopies { ending, tags: Tags::Dropped }),
            judge: Judge::Driver,
            foundation: Foundation {
                level: match self.level {
                    Level::Seven => crate::prepare::Level(7, 3),
                    Level::Twelve if self.refuses_null => crate::prepare::Level(13, 0),
                    Level::Twelve => crate::prepare::Level(12, 0),
                },
                libraries: match self.library {
                    Library::SystemTextJson => vec![],
                    Library::Newtonsoft => vec![Dependency("Newtonsoft.Json", "13.0.4")],
                },
                plugins: if self.has_context { &[AHEAD_OF_TIME] } else { &[] },
            },
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
