//! Python's settings.

use jar_sprout_model::{Fraction, Scalar};

use crate::prepare::{Abilities, Dependency, Extras, Foundation, Judge, Nothing, Nulls, Order, TimeKeeping};
use crate::settings::{
    ABSENT, Absence, BOUNDS_SAID, ENTRY, Entry, MARK, Meaning, Nesting, OneOf, Setting, Settings, Spread,
    UUIDS,
};

const TYPES: OneOf<Types> = OneOf {
    key: "types",
    doc: "what objects become",
    choices: &[
        Meaning { value: "pydantic", doc: "models for pydantic v2", it: Types::Pydantic },
        Meaning {
            value: "dataclasses",
            doc: "dataclasses with from_dict and to_dict, which need the standard library alone",
            it: Types::Dataclasses,
        },
        Meaning {
            value: "typed-dicts",
            doc: "TypedDict: the dictionaries of json.loads, checked by a type checker alone",
            it: Types::TypedDicts,
        },
    ],
};

const LEVEL: OneOf<Level> = OneOf {
    key: "level",
    doc: "the level of the language",
    choices: &[
        Meaning { value: "3.11", doc: "Python 3.11 and later", it: Level::Eleven },
        Meaning {
            value: "3.10",
            doc: "Python 3.10 and later; what typing lacks there is typing_extensions'",
            it: Level::Ten,
        },
    ],
};

const BOUNDS: OneOf<bool> = OneOf {
    choices: &[
        BOUNDS_SAID,
        Meaning { value: "checked", doc: "they are checked by the library as well: `Field(ge=0)`", it: true },
    ],
    ..crate::settings::BOUNDS
};

pub(super) const SETTINGS: &[&dyn Setting] = &[&TYPES, &LEVEL, &BOUNDS, &UUIDS, &ABSENT, &ENTRY, &MARK];

/// The level of the language.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Level {
    Ten,
    Eleven,
}

/// What objects become.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Types {
    Pydantic,
    Dataclasses,
    TypedDicts,
}

/// All settings, resolved.
#[derive(Debug, Clone)]
pub(super) struct PythonOptions {
    pub(super) types: Types,
    /// Where helpers stand that other models need as well: a package.
    pub(super) shared: Option<String>,
    pub(super) level: Level,
    /// Whether the bounds that a document sets are checked.
    pub(super) checks_bounds: bool,
    /// Whether UUIDs have the platform's own type.
    pub(super) has_uuids: bool,
    absence: Absence,
    pub(super) entry: Entry,
}

impl PythonOptions {
    pub(super) fn of(settings: &Settings) -> Self {
        Self {
            types: TYPES.of(settings),
            shared: settings.shared().map(str::to_owned),
            level: LEVEL.of(settings),
            checks_bounds: BOUNDS.of(settings) && TYPES.of(settings) == Types::Pydantic,
            has_uuids: UUIDS.of(settings) && TYPES.of(settings) == Types::Pydantic,
            absence: ABSENT.of(settings),
            entry: ENTRY.of(settings),
        }
    }

    /// What code with these options can and cannot do.
    pub(super) fn abilities(&self) -> Abilities {
        Abilities {
            spread: Spread::Together,
            order: Order::InsideOut,
            nesting: Nesting::Beside,
            has_namespace_file: false,
            // Models and dictionaries tell it by themselves.
            absence: match self.types {
                Types::Dataclasses => self.absence,
                Types::Pydantic | Types::TypedDicts => Absence::Untold,
            },
            types_uuids: self.has_uuids,
            times: match self.types {
                Types::Pydantic | Types::Dataclasses => TimeKeeping::InForm(Fraction::NoneOr(6)),
                Types::TypedDicts => TimeKeeping::AsText,
            },
            // `json` knows no decimals, and nothing reads or writes a dictionary.
            holds: match self.types {
                Types::Pydantic => |_| true,
                Types::Dataclasses => |scalar| scalar != Scalar::Decimal,
                Types::TypedDicts => |scalar| !matches!(scalar, Scalar::Decimal | Scalar::Coded(_)),
            },
            has_literals: self.types != Types::Dataclasses,
            nothing: match self.types {
                Types::TypedDicts => Nothing::Word,
                Types::Pydantic | Types::Dataclasses => Nothing::Absent,
            },
            reads_json_in_text: self.types != Types::TypedDicts,
            // A dictionary has its keys as they came, but its type does not name others.
            extras: match self.types {
                Types::Pydantic | Types::Dataclasses => |_| Extras::Typed,
                Types::TypedDicts => |_| Extras::LeftOut,
            },
            most_room: None,
            fills_in: self.types != Types::TypedDicts,
            nulls: Nulls::WhereRequired,
            entry: self.entry,
            plain_copies: None,
            judge: match self.types {
                Types::Pydantic | Types::Dataclasses => Judge::Driver,
                Types::TypedDicts => Judge::Compiler,
            },
            foundation: Foundation {
                level: match self.level {
                    Level::Ten => crate::prepare::Level(3, 10),
                    Level::Eleven => crate::prepare::Level(3, 11),
                },
                libraries: match self.types {
                    Types::Pydantic => vec![Dependency("pydantic", "2.14.3")],
                    Types::Dataclasses | Types::TypedDicts => vec![],
                },
                plugins: &[],
            },
        }
    }
}
