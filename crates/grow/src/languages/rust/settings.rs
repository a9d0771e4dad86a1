//! Rust's settings.

use jar_sprout_model::{Coding, Fraction, Scalar};

use crate::prepare::{
    Abilities, Dependency, Extras, Foundation, Judge, Level, Nothing, Nulls, Order, TimeKeeping,
};
use crate::settings::{
    ABSENT, Absence, ENTRY, Entry, MARK, Meaning, Nesting, OneOf, Setting, Settings, Spread,
};

const DATES: OneOf<Dates> = OneOf {
    key: "dates",
    doc: "the library of dates and times",
    choices: &[
        Meaning { value: "chrono", doc: "chrono", it: Dates::Chrono },
        Meaning {
            value: "time",
            doc: "time; a date-time with another offset than UTC, or none, stays text",
            it: Dates::Time,
        },
        Meaning {
            value: "jiff",
            doc: "jiff; a date-time with another offset than UTC stays text",
            it: Dates::Jiff,
        },
    ],
};

const SERDE: Dependency = Dependency("serde", "1.0");
const SERDE_JSON: Dependency = Dependency("serde_json", "1.0");
const CHRONO: Dependency = Dependency("chrono", "0.4");
const TIME: Dependency = Dependency("time", "0.3");
const JIFF: Dependency = Dependency("jiff", "0.2");

pub(super) const SETTINGS: &[&dyn Setting] = &[&DATES, &ABSENT, &ENTRY, &MARK];

/// The library of dates and times.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Dates {
    Chrono,
    Time,
    Jiff,
}

/// All settings, resolved.
#[derive(Debug, Clone)]
pub(super) struct RustOptions {
    pub(super) dates: Dates,
    absence: Absence,
    pub(super) entry: Entry,
}

impl RustOptions {
    pub(super) fn of(settings: &Settings) -> Self {
        Self { dates: DATES.of(settings), absence: ABSENT.of(settings), entry: ENTRY.of(settings) }
    }

    /// What code with these options can and cannot do.
    pub(super) fn abilities(&self) -> Abilities {
        Abilities {
            spread: Spread::Together,
            order: Order::OutsideIn,
            nesting: Nesting::Beside,
            has_namespace_file: false,
            absence: self.absence,
            types_uuids: false,
            times: TimeKeeping::InForm(match self.dates {
                Dates::Chrono => Fraction::Threes,
                Dates::Time | Dates::Jiff => Fraction::Shortest,
            }),
            // The standard library has no decimal.
            holds: |scalar| scalar != Scalar::Coded(Coding::DecimalText),
            has_literals: false,
            nothing: Nothing::Absent,
            reads_json_in_text: true,
            extras: |_| Extras::Typed,
            most_room: None,
            fills_in: true,
            nulls: Nulls::WhereRequired,
            entry: self.entry,
            plain_copies: None,
            judge: Judge::Driver,
            foundation: Foundation {
                level: Level(1, 85),
                libraries: match self.dates {
                    Dates::Chrono => vec![SERDE, SERDE_JSON, CHRONO],
                    Dates::Time => vec![SERDE, SERDE_JSON, TIME],
                    Dates::Jiff => vec![SERDE, SERDE_JSON, JIFF],
                },
                plugins: &[],
            },
        }
    }
}
