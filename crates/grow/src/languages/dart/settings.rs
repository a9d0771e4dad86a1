//! Dart's settings.

use jar_sprout_model::{Coding, Scalar, ScalarKind};

use crate::prepare::{
    Abilities, Dependency, Extras, Foundation, Judge, Level, Nothing, Nulls, Order, PlainCopies, Tags,
    TimeKeeping,
};
use crate::settings::{
    ABSENT, Absence, ENTRY, Entry, MARK, Meaning, Nesting, OneOf, Setting, Settings, Spread, TWINS,
};

const JSON: OneOf<bool> = OneOf {
    key: "json",
    doc: "who writes fromJson and toJson",
    choices: &[
        Meaning { value: "written-out", doc: "they stand in the code; nothing else is needed", it: false },
        Meaning {
            value: "json_annotation",
            doc: "build_runner with json_serializable 6.8 and later, in a part of the file",
            it: true,
        },
    ],
};

const COPY_WITH: OneOf<bool> = OneOf {
    key: "copy-with",
    doc: "whether classes have a copyWith",
    choices: &[
        Meaning { value: "no", doc: "they have none", it: false },
        Meaning { value: "yes", doc: "one that can also set null: copyWith(note: () => null)", it: true },
    ],
};

const EQUALITY: OneOf<bool> = OneOf {
    key: "equality",
    doc: "when two objects are equal",
    choices: &[
        Meaning { value: "identity", doc: "when they are one", it: false },
        Meaning { value: "values", doc: "when all that they hold is equal", it: true },
    ],
};

pub(super) const SETTINGS: &[&dyn Setting] = &[&JSON, &COPY_WITH, &EQUALITY, &ABSENT, &TWINS, &ENTRY, &MARK];

/// All settings, resolved.
#[derive(Debug, Clone)]
pub(super) struct DartOptions {
    /// Whether a tool writes what reads and writes.
    pub(super) is_annotated: bool,
    /// Where helpers stand that other models need as well: the way to a folder.
    pub(super) shared: Option<String>,
    pub(super) has_copy_with: bool,
    pub(super) has_equality: bool,
    absence: Absence,
    /// What the names of wire types end in, beside which plain ones stand.
    ending: Option<String>,
    pub(super) entry: Entry,
}

impl DartOptions {
    pub(super) fn of(settings: &Settings) -> Self {
        Self {
            is_annotated: JSON.of(settings),
            shared: settings.shared().map(str::to_owned),
            has_copy_with: COPY_WITH.of(settings),
            has_equality: EQUALITY.of(settings),
            absence: ABSENT.of(settings),
            ending: TWINS.of(settings),
            entry: ENTRY.of(settings),
        }
    }

    /// What code with these options can and cannot do.
    pub(super) fn abilities(&self) -> Abilities {
        const BUILDER: Judge = Judge::Builder {
            what: "the tool that writes the other half of the code",
            install: "in a project of yours: dart pub add json_annotation dev:json_serializable dev:build_runner",
        };
        Abilities {
            spread: Spread::Together,
            order: Order::OutsideIn,
            nesting: Nesting::Beside,
            has_namespace_file: false,
            absence: if self.is_annotated { Absence::Untold } else { self.absence },
            types_uuids: false,
            times: TimeKeeping::AsText,
            // Dart has no decimal, and `json_annotation` no word for a number in letters.
            holds: if self.is_annotated {
                |scalar| {
                    !matches!(scalar, Scalar::Decimal)
                        && !matches!(scalar, Scalar::Coded(coding) if coding.kind() == ScalarKind::Text)
                }
            } else {
                |scalar| !matches!(scalar, Scalar::Decimal | Scalar::Coded(Coding::DecimalText))
            },
            has_literals: false,
            nothing: if self.is_annotated { Nothing::Value } else { Nothing::Absent },
            reads_json_in_text: !self.is_annotated,
            extras: if self.is_annotated { |_| Extras::LeftOut } else { |_| Extras::Typed },
            most_room: None,
            fills_in: true,
            nulls: Nulls::WhereRequired,
            entry: self.entry,
            plain_copies: self.ending.clone().map(|ending| PlainCopies { ending, tags: Tags::Dropped }),
            judge: if self.is_annotated { BUILDER } else { Judge::Driver },
            foundation: Foundation {
                level: Level(3, 3),
                libraries: self
                    .is_annotated
                    .then_some(Dependency("json_annotation", "4.9.0"))
                    .into_iter()
                    .collect(),
                plugins: &[],
            },
        }
    }
}
