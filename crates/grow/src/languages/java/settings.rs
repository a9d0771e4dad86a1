//! Java's settings.

use jar_sprout_model::Fraction;

use super::names::KEYWORDS;
use crate::languages::jvm;
use crate::prepare::{
    Abilities, Dependency, Extras, Foundation, Judge, Level, Nothing, Nulls, Order, PlainCopies, Tags,
    TimeKeeping,
};
use crate::settings::{
    ABSENT, Absence, BOUNDS_SAID, ENTRY, Entry, KEYS, MARK, Meaning, Nesting, OneOf, PLACE, Setting,
    Settings, Spread, TWINS, TextOf, URIS, UUIDS, check_dotted_names,
};

pub(super) const PACKAGE: TextOf = TextOf {
    key: "package",
    doc: "the package of the grown code",
    default: Some("models"),
    example: "com.example.hives",
    check: check_package,
};

const TYPES: OneOf<bool> = OneOf {
    key: "types",
    doc: "what objects become",
    choices: &[
        Meaning { value: "records", doc: "records", it: false },
        Meaning { value: "beans", doc: "classes with getters and setters", it: true },
    ],
};

const LIBRARY: OneOf<Library> = OneOf {
    key: "library",
    doc: "what reads and writes JSON",
    choices: &[
        Meaning { value: "jackson", doc: "Jackson", it: Library::Jackson },
        Meaning {
            value: "gson",
            doc: "Gson 2.10 and later, with serializeNulls() where null must be written",
            it: Library::Gson,
        },
    ],
};

const NULLS: OneOf<bool> = OneOf {
    key: "nulls",
    doc: "what says which values may be null",
    choices: &[
        Meaning { value: "unsaid", doc: "nothing", it: false },
        Meaning { value: "jspecify", doc: "the annotations of JSpecify", it: true },
    ],
};

const DATES: OneOf<bool> = OneOf {
    key: "dates",
    doc: "what reads and writes dates, for Jackson",
    choices: &[
        Meaning {
            value: "annotations",
            doc: "annotations that come along, and keep how they were written",
            it: false,
        },
        Meaning { value: "module", doc: "its module for java.time, which you register", it: true },
    ],
};

const BOUNDS: OneOf<bool> = OneOf {
    choices: &[
        BOUNDS_SAID,
        Meaning {
            value: "checked",
            doc: "they are constraints of Jakarta Bean Validation as well",
            it: true,
        },
    ],
    ..crate::settings::BOUNDS
};

pub(super) const SETTINGS: &[&dyn Setting] = &[
    &PACKAGE, &LIBRARY, &TYPES, &DATES, &NULLS, &BOUNDS, &KEYS, &UUIDS, &URIS, &PLACE, &ABSENT, &TWINS,
    &ENTRY, &MARK,
];

/// What reads and writes JSON.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Library {
    Jackson,
    Gson,
}

/// All settings, resolved.
#[derive(Debug, Clone)]
pub(super) struct JavaOptions {
    pub(super) package: String,
    /// Where helpers stand that other models need as well: a package.
    pub(super) shared: Option<String>,
    /// Columns that a declaration is indented by.
    pub(super) indent: usize,
    /// What reads and writes JSON.
    pub(super) library: Library,
    /// Whether objects become classes with getters and setters.
    pub(super) has_beans: bool,
    /// Whether a module of the library reads and writes dates.
    pub(super) has_date_module: bool,
    /// Whether it is said what may be null.
    pub(super) says_null: bool,
    /// Whether the bounds that a document sets are checked.
    pub(super) checks_bounds: bool,
    /// Whether the keys of a type are said by one annotation.
    pub(super) has_key_rules: bool,
    /// Whether UUIDs have the platform's own type.
    pub(super) has_uuids: bool,
    /// Whether URIs have.
    pub(super) has_uris: bool,
    nesting: Nesting,
    absence: Absence,
    /// What the names of wire types end in, beside which plain ones stand.
    ending: Option<String>,
    pub(super) entry: Entry,
}

impl JavaOptions {
    pub(super) fn of(settings: &Settings) -> Self {
        Self {
            package: PACKAGE.of(settings).expect("the setting has a default"),
            shared: settings.shared().map(str::to_owned),
            indent: 0,
            library: LIBRARY.of(settings),
            has_beans: TYPES.of(settings),
            has_date_module: DATES.of(settings) && LIBRARY.of(settings) == Library::Jackson,
            says_null: NULLS.of(settings),
            checks_bounds: BOUNDS.of(settings),
            has_key_rules: KEYS.of(settings) && LIBRARY.of(settings) == Library::Jackson,
            has_uuids: UUIDS.of(settings),
            has_uris: URIS.of(settings),
            nesting: PLACE.of(settings),
            absence: ABSENT.of(settings),
            ending: TWINS.of(settings),
            entry: ENTRY.of(settings),
        }
    }

    /// The same for a declaration that stands so many columns to the right.
    pub(super) fn indented(&self, indent: usize) -> Self {
        Self { indent, ..self.clone() }
    }

    /// The same for plain records, whose lists and maps are empty where there are none.
    pub(super) fn plain(&self) -> Self {
        Self { has_beans: false, says_null: false, ..self.clone() }
    }

    /// What code with these options can and cannot do.
    pub(super) fn abilities(&self) -> Abilities {
        Abilities {
            spread: Spread::PerType,
            order: Order::OutsideIn,
            nesting: self.nesting,
            has_namespace_file: false,
            absence: match self.library {
                Library::Jackson => self.absence,
                Library::Gson => Absence::Untold,
            },
            types_uuids: self.has_uuids,
            times: if self.has_date_module {
                TimeKeeping::Loose
            } else {
                TimeKeeping::InForm(Fraction::Shortest)
            },
            holds: |_| true,
            has_literals: false,
            nothing: Nothing::Absent,
            reads_json_in_text: true,
            extras: match self.library {
                Library::Jackson => |_| Extras::Typed,
                Library::Gson => |_| Extras::LeftOut,
            },
            most_room: Some(jvm::MOST_ROOM),
            fills_in: true,
            nulls: match self.library {
                Library::Jackson => Nulls::WhereRequired,
                Library::Gson => Nulls::Everywhere,
            },
            entry: self.entry,
            plain_copies: self.ending.clone().map(|ending| PlainCopies { ending, tags: Tags::Dropped }),
            judge: Judge::Driver,
            foundation: Foundation { level: Level(17, 0), libraries: self.libraries(), plugins: &[] },
        }
    }
}

impl JavaOptions {
    fn libraries(&self) -> Vec<Dependency> {
        let library = match self.library {
            Library::Jackson => jvm::JACKSON_DATABIND,
            Library::Gson => jvm::GSON,
        };
        let others = [
            (self.has_date_module, jvm::JACKSON_DATES),
            (self.says_null, jvm::JSPECIFY),
            (self.checks_bounds, jvm::BEAN_VALIDATION),
        ];
        let others = others.into_iter().filter_map(|(is_used, library)| is_used.then_some(library));
        [library].into_iter().chain(others).collect()
    }
}

fn check_package(value: &str) -> Result<(), &'static str> {
    check_dotted_names(value)?;
    if value.split('.').any(|part| KEYWORDS.contains(&part)) {
        return Err("no part of a package may be called as a keyword");
    }
    Ok(())
}
