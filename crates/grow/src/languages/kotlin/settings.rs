//! Kotlin's settings.

use jar_sprout_model::{Fraction, Scalar};

use super::names::KEYWORDS;
use crate::languages::jvm;
use crate::prepare::{
    Abilities, Dependency, Extras, Foundation, Judge, Level, Nothing, Nulls, Order, PlainCopies, Tags,
    TimeKeeping,
};
use crate::settings::{
    ABSENT, Absence, ENTRY, Entry, FILES, KEYS, MARK, Meaning, Nesting, OneOf, PLACE, Setting, Settings,
    Spread, TWINS, TextOf, URIS, UUIDS, check_dotted_names,
};

pub(super) const PACKAGE: TextOf = TextOf {
    key: "package",
    doc: "the package of the grown code",
    default: None,
    example: "com.example.hives",
    check: check_dotted_names,
};

const LIBRARY: OneOf<Library> = OneOf {
    key: "library",
    doc: "what reads and writes JSON",
    choices: &[
        Meaning { value: "kotlinx", doc: "kotlinx.serialization", it: Library::Kotlinx },
        Meaning { value: "moshi", doc: "Moshi, by reflection or by its code generation", it: Library::Moshi },
        Meaning { value: "gson", doc: "Gson", it: Library::Gson },
        Meaning { value: "jackson", doc: "Jackson with its Kotlin module", it: Library::Jackson },
        Meaning { value: "none", doc: "nothing: plain classes without an annotation", it: Library::None },
    ],
};

const PROPERTIES: OneOf<&str> = OneOf {
    key: "properties",
    doc: "whether properties can be changed",
    choices: &[
        Meaning { value: "val", doc: "set once", it: "val" },
        Meaning { value: "var", doc: "can be changed", it: "var" },
    ],
};

const PARCELABLE: OneOf<bool> = OneOf {
    key: "parcelable",
    doc: "whether Android can hand objects from screen to screen",
    choices: &[
        Meaning { value: "no", doc: "it cannot", it: false },
        Meaning {
            value: "yes",
            doc: "by the kotlin-parcelize plugin; null and nothing are then one",
            it: true,
        },
    ],
};

const DATES: OneOf<bool> = OneOf {
    key: "dates",
    doc: "the library of dates and times, beside kotlinx.serialization",
    choices: &[
        Meaning { value: "java.time", doc: "java.time, of the JVM and of Android", it: false },
        Meaning {
            value: "kotlinx-datetime",
            doc: "kotlinx-datetime, on all platforms; a date-time with another offset than UTC stays text",
            it: true,
        },
    ],
};

pub(super) const SETTINGS: &[&dyn Setting] = &[
    &PACKAGE,
    &LIBRARY,
    &PROPERTIES,
    &PARCELABLE,
    &DATES,
    &KEYS,
    &UUIDS,
    &URIS,
    &FILES,
    &PLACE,
    &ABSENT,
    &TWINS,
    &ENTRY,
    &MARK,
];

/// What reads and writes JSON.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Library {
    Kotlinx,
    Moshi,
    Gson,
    Jackson,
    None,
}

const SERIALIZATION: Dependency = Dependency("org.jetbrains.kotlinx:kotlinx-serialization-json", "1.9.0");

const DATETIME: Dependency = Dependency("org.jetbrains.kotlinx:kotlinx-datetime", "0.7.1");

/// All settings, resolved.
#[derive(Debug, Clone)]
pub(super) struct KotlinOptions {
    /// The package as it stands in code.
    pub(super) package: Option<String>,
    /// Where helpers stand that other models need as well: a package.
    pub(super) shared: Option<String>,
    /// Columns that a declaration is indented by.
    pub(super) indent: usize,
    /// What reads and writes JSON.
    pub(super) library: Library,
    /// `val` or `var`.
    pub(super) property: &'static str,
    /// Whether Android can hand objects from screen to screen.
    pub(super) is_parcelable: bool,
    /// Whether dates and times are those of kotlinx-datetime.
    pub(super) has_datetime: bool,
    /// Whether the keys of a type are said by one annotation.
    pub(super) has_key_rules: bool,
    /// Whether UUIDs have the platform's own type.
    pub(super) has_uuids: bool,
    /// Whether URIs have.
    pub(super) has_uris: bool,
    spread: Spread,
    nesting: Nesting,
    absence: Absence,
    /// What the names of wire types end in, beside which plain ones stand.
    ending: Option<String>,
    pub(super) entry: Entry,
}

impl KotlinOptions {
    pub(super) fn of(settings: &Settings) -> Self {
        Self {
            package: PACKAGE.of(settings).map(|name| escaped(&name)),
            shared: settings.shared().map(escaped),
            indent: 0,
            library: LIBRARY.of(settings),
            property: PROPERTIES.of(settings),
            is_parcelable: PARCELABLE.of(settings),
            // A parcel holds what the JVM can write.
            has_datetime: DATES.of(settings)
                && !PARCELABLE.of(settings)
                && matches!(LIBRARY.of(settings), Library::Kotlinx | Library::None),
            has_key_rules: KEYS.of(settings) && LIBRARY.of(settings) == Library::Jackson,
            has_uuids: UUIDS.of(settings) && LIBRARY.of(settings) != Library::Moshi,
            has_uris: URIS.of(settings) && LIBRARY.of(settings) != Library::Moshi,
            spread: FILES.of(settings),
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

    /// The same for plain classes, which no library reads.
    pub(super) fn plain(&self) -> Self {
        Self { library: Library::None, is_parcelable: false, ..self.clone() }
    }

    /// What code with these options can and cannot do.
    pub(super) fn abilities(&self) -> Abilities {
        let library = self.library;
        Abilities {
            spread: self.spread,
            order: Order::OutsideIn,
            // Moshi looks for an adapter beside all types.
            nesting: if library == Library::Moshi { Nesting::Beside } else { self.nesting },
            has_namespace_file: false,
            // A default that is not written tells it; the other libraries write all nulls or none.
            absence: if library == Library::Kotlinx && !self.is_parcelable {
                self.absence
            } else {
                Absence::Untold
            },
            types_uuids: self.has_uuids,
            times: match library {
                Library::Kotlinx => TimeKeeping::InForm(Fraction::Shortest),
                Library::Moshi | Library::Gson | Library::Jackson | Library::None => TimeKeeping::Loose,
            },
            holds: match library {
                // It reads a decimal as a double.
                Library::Moshi => |scalar| scalar != Scalar::Decimal,
                // An instant forgets its offset.
                Library::Kotlinx | Library::None if self.has_datetime => {
                    |scalar| !matches!(scalar, Scalar::DateTime(forms) if !forms.are_in_utc())
                }
                Library::Kotlinx | Library::Gson | Library::Jackson | Library::None => |_| true,
            },
            has_literals: false,
            nothing: match library {
                Library::Kotlinx | Library::Gson | Library::Jackson | Library::None => Nothing::Absent,
                Library::Moshi => Nothing::Value,
            },
            reads_json_in_text: match library {
                // A class around the value is no part of a parcel, nor of a plain class.
                Library::Kotlinx => !self.is_parcelable && self.ending.is_none(),
                Library::Gson | Library::Jackson | Library::None => true,
                Library::Moshi => false,
            },
            extras: match library {
                Library::Kotlinx | Library::Jackson => |_| Extras::Typed,
                Library::Moshi | Library::Gson | Library::None => |_| Extras::LeftOut,
            },
            // Gson makes objects without their constructor.
            most_room: Some(jvm::MOST_ROOM),
            fills_in: library != Library::Gson,
            nulls: match library {
                Library::Moshi | Library::Gson => Nulls::Everywhere,
                Library::Kotlinx | Library::Jackson | Library::None => Nulls::WhereRequired,
            },
            entry: self.entry,
            plain_copies: self.ending.clone().map(|ending| PlainCopies { ending, tags: Tags::Dropped }),
            judge: match library {
                Library::None => Judge::Compiler,
                Library::Kotlinx | Library::Moshi | Library::Gson | Library::Jackson => Judge::Driver,
            },
            foundation: self.foundation(),
        }
    }

    fn foundation(&self) -> Foundation {
        Foundation {
            level: Level(2, 0),
            libraries: match self.library {
                Library::Kotlinx if self.has_datetime => vec![SERIALIZATION, DATETIME],
                Library::Kotlinx => vec![SERIALIZATION],
                Library::None if self.has_datetime => vec![DATETIME],
                Library::Moshi => vec![Dependency("com.squareup.moshi:moshi-kotlin", "1.15.2")],
                Library::Gson => vec![jvm::GSON],
                Library::Jackson => vec![jvm::JACKSON_KOTLIN, jvm::JACKSON_DATES],
                Library::None => vec![],
            },
            plugins: match (self.library, self.is_parcelable) {
                (Library::Kotlinx, true) => &["serialization", "parcelize"],
                (Library::Kotlinx, false) => &["serialization"],
                (Library::Moshi | Library::Gson | Library::Jackson | Library::None, true) => &["parcelize"],
                (Library::Moshi | Library::Gson | Library::Jackson | Library::None, false) => &[],
            },
        }
    }
}

/// A package as it stands in code.
fn escaped(name: &str) -> String {
    let escape = |part: &str| if KEYWORDS.contains(&part) { format!("`{part}`") } else { part.to_owned() };
    name.split('.').map(escape).collect::<Vec<_>>().join(".")
}
