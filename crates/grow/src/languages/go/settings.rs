//! Go's settings.

use jar_sprout_model::{Field, Fraction, Record};

use super::names::{self, KEYWORDS};
use crate::prepare::{Abilities, Extras, Foundation, Judge, Level, Nothing, Nulls, Order, TimeKeeping};
use crate::settings::{
    ABSENT, Absence, ENTRY, Entry, FILES_TOGETHER, MARK, Meaning, Nesting, OneOf, Setting, Settings, Spread,
    TextOf,
};

pub(super) const PACKAGE: TextOf = TextOf {
    key: "package",
    doc: "the package of the grown code",
    default: Some("models"),
    example: "hives",
    check: check_package,
};

const TIMES: OneOf<TimeKeeping> = OneOf {
    key: "times",
    doc: "how a date-time is written back",
    choices: &[
        Meaning {
            value: "exact",
            doc: "digit for digit, by a type of its own where `time.Time` would drop zeros",
            it: TimeKeeping::InForm(Fraction::Shortest),
        },
        Meaning { value: "plain", doc: "as `time.Time` does, always", it: TimeKeeping::Loose },
    ],
};

pub(super) const SETTINGS: &[&dyn Setting] = &[&PACKAGE, &TIMES, &FILES_TOGETHER, &ABSENT, &ENTRY, &MARK];

fn check_package(value: &str) -> Result<(), &'static str> {
    let is_name = value.starts_with(|c: char| c.is_ascii_lowercase())
        && value.chars().all(|c| c.is_ascii_lowercase() || c.is_ascii_digit() || c == '_');
    if !is_name {
        Err("a package is one word in small letters")
    } else if KEYWORDS.contains(&value) {
        Err("a package may not be called as a keyword")
    } else {
        Ok(())
    }
}

/// All settings, resolved.
#[derive(Debug, Clone)]
pub(super) struct GoOptions {
    pub(super) package: String,
    /// Where helpers stand that other models need as well: the path of a package.
    pub(super) shared: Option<String>,
    times: TimeKeeping,
    spread: Spread,
    absence: Absence,
    pub(super) entry: Entry,
}

impl GoOptions {
    pub(super) fn of(settings: &Settings) -> Self {
        Self {
            package: PACKAGE.of(settings).expect("the setting has a default"),
            shared: settings.shared().map(str::to_owned),
            times: TIMES.of(settings),
            spread: FILES_TOGETHER.of(settings),
            absence: ABSENT.of(settings),
            entry: ENTRY.of(settings),
        }
    }

    /// The name of a helper where it is used; another package's is exported, and stands behind its name.
    pub(super) fn name_of(&self, helper: &str) -> String {
        match self.shared.as_deref() {
            None => helper.to_owned(),
            Some(path) => format!("{}.{}", names::package_at(path), names::capitalised(helper)),
        }
    }

    /// What code with these options can and cannot do.
    pub(super) fn abilities(&self) -> Abilities {
        Abilities {
            spread: self.spread,
            order: Order::OutsideIn,
            nesting: Nesting::Beside,
            has_namespace_file: false,
            absence: self.absence,
            types_uuids: false,
            times: self.times,
            holds: |_| true,
            has_literals: false,
            nothing: Nothing::Absent,
            reads_json_in_text: true,
            extras: kept_extras,
            most_room: None,
            fills_in: true,
            nulls: Nulls::WhereRequired,
            entry: self.entry,
            plain_copies: None,
            judge: Judge::Driver,
            foundation: Foundation { level: Level(1, 24), libraries: Vec::new(), plugins: &[] },
        }
    }
}

/// A method of its own reads default values, and another one keys that no tag can name.
fn kept_extras(record: &Record) -> Extras {
    let is_plain = |field: &Field| field.default.is_none() && names::tag_name(field.wire.as_str()).is_some();
    if record.fields.iter().all(is_plain) { Extras::Typed } else { Extras::LeftOut }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_package_is_one_word_in_small_letters() {
        assert!(check_package("hives2").is_ok());
        for bad in ["", "Hives", "a.b", "1a", "func", "a b", "a\nb"] {
            assert!(check_package(bad).is_err(), "{bad:?}");
        }
    }
}
