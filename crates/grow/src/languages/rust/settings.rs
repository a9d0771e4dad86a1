//! Rust's settings.

use crate::settings::{ABSENT, Choice, ENTRY, Setting, Settings, Values};

const DATES: Setting = Setting {
    key: "dates",
    doc: "the library of dates and times",
    values: Values::Choice(&[
        Choice { value: "chrono", doc: "chrono" },
        Choice { value: "time", doc: "time; a date-time with another offset than UTC, or none, stays text" },
        Choice { value: "jiff", doc: "jiff; a date-time with another offset than UTC stays text" },
    ]),
};

pub(super) const SETTINGS: &[Setting] = &[DATES, ABSENT, ENTRY];

/// The library of dates and times.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Dates {
    Chrono,
    Time,
    Jiff,
}

impl Dates {
    pub(super) fn of(settings: &Settings) -> Self {
        match settings.value(&DATES) {
            Some("time") => Self::Time,
            Some("jiff") => Self::Jiff,
            _ => Self::Chrono,
        }
    }
}
