//! Java's settings.

use jar_sprout_model::Fraction;

use super::names::KEYWORDS;
use crate::languages::jvm;
use crate::prepare::{
    Abilities, Extras, Foundation, Judge, Level, Nothing, Nulls, Order, PlainCopies, Tags, TimeKeeping,
};
use crate::settings::{
    ABSENT, Absence, ENTRY, Entry, MARK, Meaning, Nesting, OneOf, PLACE, Setting, Settings, Spread, TWINS,
    TextOf, URIS, UUIDS, check_dotted_names,
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

pub(super) const SETTINGS: &[&dyn Setting] =
    &[&PACKAGE, &LIBRARY, &TYPES, &UUIDS, &URIS, &PLACE, &ABSENT, &TWINS, &ENTRY, &MARK];

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

    /// The same for plain records.
    pub(super) fn plain(&self) -> Self {
        Self { has_beans: false, ..self.clone() }
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
            times: TimeKeeping::InForm(Fraction::Shortest),
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
            foundation: Foundation {
                level: Level(17, 0),
                libraries: match self.library {
                    Library::Jackson => &[jvm::JACKSON_DATABIND],
                    Library::Gson => &[jvm::GSON],
                },
                plugins: &[],
            },
        }
    }
}

fn check_package(value: &str) -> Result<(), &'static str> {
    check_dotted_names(value)?;
    if value.split('.').any(|part| KEYWORDS.contains(&part)) {
        return Err("no part of a package may be called as a keyword");
    }
    Ok(())
}
