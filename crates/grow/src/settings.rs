//! Settings of a language: declared once, checked once, handed over.

use std::collections::BTreeMap;

use crate::language::Language;

/// One setting of a language.
#[derive(Debug, Clone, Copy)]
pub struct Setting {
    /// What the user types: `package`.
    pub key: &'static str,
    /// What it decides, in one line.
    pub doc: &'static str,
    /// The values it takes.
    pub values: Values,
}

/// The values that a setting takes.
#[derive(Debug, Clone, Copy)]
pub enum Values {
    /// One of these; the first where none is given.
    Choice(&'static [Choice]),
    /// Any text that passes a check.
    Text {
        /// What holds where none is given; nothing of the kind where this is none.
        default: Option<&'static str>,
        /// A value that shows how it is used.
        example: &'static str,
        /// Whether a value can be used; if not, why.
        check: fn(&str) -> Result<(), &'static str>,
    },
}

/// A value of a setting.
#[derive(Debug, Clone, Copy)]
pub struct Choice {
    /// What the user types: `moshi`.
    pub value: &'static str,
    /// What it does, in one line.
    pub doc: &'static str,
}

const PER_TYPE: Choice = Choice { value: "per-type", doc: "each type has a file of its own" };
const ONE: Choice = Choice { value: "one", doc: "one file has all types" };

/// How types are spread over files, where the language's people give each its own.
pub(crate) const FILES: Setting = Setting {
    key: "files",
    doc: "how types are spread over files",
    values: Values::Choice(&[PER_TYPE, ONE]),
};

/// How types are spread over files, where the language's people put them together.
pub(crate) const FILES_TOGETHER: Setting = Setting { values: Values::Choice(&[ONE, PER_TYPE]), ..FILES };

/// Whether null is told from nothing.
pub(crate) const ABSENT: Setting = Setting {
    key: "absent",
    doc: "whether a key that is absent is told from one that is null",
    values: Values::Choice(&[
        Choice { value: "null", doc: "in types that are sent to change something; else both are null" },
        Choice { value: "apart", doc: "everywhere, by a type around what may be both" },
    ]),
};

/// Where types stand.
pub(crate) const PLACE: Setting = Setting {
    key: "place",
    doc: "where the types stand that a response is made of",
    values: Values::Choice(&[
        Choice { value: "beside", doc: "beside that of the response" },
        Choice { value: "nested", doc: "inside that of the response, those that nothing else needs" },
    ]),
};

/// Whether plain types stand beside those of the wire.
pub(crate) const TWINS: Setting = Setting {
    key: "twins",
    doc: "what the names of wire types end in, beside each of which stands a plain type that is made from it",
    values: Values::Text { default: None, example: "Dto", check: check_ending },
};

fn check_ending(value: &str) -> Result<(), &'static str> {
    let is_ending = value.starts_with(|c: char| c.is_ascii_uppercase())
        && value.chars().all(|c| c.is_ascii_alphabetic())
        && value.len() <= 20;
    if is_ending { Ok(()) } else { Err("it must be letters, the first one a capital") }
}

/// Whether functions read and write whole samples.
pub(crate) const ENTRY: Setting = Setting {
    key: "entry",
    doc: "what reads and writes a whole response",
    values: Values::Choice(&[
        Choice { value: "none", doc: "the library, as you set it up" },
        Choice { value: "functions", doc: "two functions that come along: one decodes, one encodes" },
    ]),
};

/// The settings of one run for one language; those not given have the language's defaults.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Settings {
    values: BTreeMap<&'static str, String>,
}

/// A setting that cannot be used.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum SettingError {
    /// The language has no such setting.
    Unknown {
        /// Those it has.
        known: Vec<&'static str>,
    },
    /// The setting cannot take that text.
    Text {
        /// Why not.
        reason: &'static str,
        /// One that it can take.
        example: &'static str,
    },
    /// The setting has no such value.
    Choice {
        /// Those it has.
        known: Vec<&'static str>,
    },
}

impl Settings {
    /// Sets one setting.
    ///
    /// # Errors
    /// A key that the language does not have, or a value it cannot take.
    pub fn set(&mut self, language: &dyn Language, key: &str, value: &str) -> Result<(), SettingError> {
        let Some(setting) = language.settings().iter().find(|setting| setting.key == key) else {
            return Err(SettingError::Unknown { known: language.settings().iter().map(|s| s.key).collect() });
        };
        setting.values.check(value)?;
        self.values.insert(setting.key, value.to_owned());
        Ok(())
    }

    /// These settings, and those of `others` that they do not have.
    #[must_use]
    pub fn or(mut self, others: &Self) -> Self {
        for (key, value) in &others.values {
            self.values.entry(key).or_insert_with(|| value.clone());
        }
        self
    }

    /// These settings with a part added to a dotted name, or with the part alone where none is given.
    pub(crate) fn with_part(&self, language: &dyn Language, key: &'static str, part: &str) -> Self {
        let mut settings = self.clone();
        let given = self.given(key).map(|given| format!("{given}.")).unwrap_or_default();
        // A word of the language's own cannot be a part.
        let _ = settings
            .set(language, key, &format!("{given}{part}"))
            .or_else(|_| settings.set(language, key, &format!("{given}{part}_models")));
        settings
    }

    /// The value that was given for a key.
    pub fn given(&self, key: &str) -> Option<&str> {
        self.values.get(key).map(String::as_str)
    }

    /// The value of a setting: as given, else the setting's default.
    pub(crate) fn value(&self, setting: &Setting) -> Option<&str> {
        self.values.get(setting.key).map(String::as_str).or_else(|| setting.values.default())
    }

    /// Whether a setting has this value.
    pub(crate) fn is(&self, setting: &Setting, value: &str) -> bool {
        debug_assert!(setting.values.check(value).is_ok(), "{} cannot be {value}", setting.key);
        self.value(setting) == Some(value)
    }
}

impl Values {
    /// The value where none is given.
    pub fn default(&self) -> Option<&'static str> {
        match self {
            Self::Choice(choices) => choices.first().map(|choice| choice.value),
            Self::Text { default, .. } => *default,
        }
    }

    fn check(&self, value: &str) -> Result<(), SettingError> {
        match self {
            Self::Choice(choices) if choices.iter().any(|choice| choice.value == value) => Ok(()),
            Self::Choice(choices) => {
                Err(SettingError::Choice { known: choices.iter().map(|choice| choice.value).collect() })
            }
            Self::Text { example, check, .. } => {
                check(value).map_err(|reason| SettingError::Text { reason, example })
            }
        }
    }
}

/// A package or a namespace: names of ASCII letters, digits and `_`, joined by dots.
pub(crate) fn check_dotted_names(value: &str) -> Result<(), &'static str> {
    let is_name = |part: &str| {
        let mut chars = part.chars();
        chars.next().is_some_and(|c| c.is_ascii_alphabetic() || c == '_')
            && chars.all(|c| c.is_ascii_alphanumeric() || c == '_')
    };
    if value.split('.').all(is_name) { Ok(()) } else { Err("it must be names joined by dots") }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn dotted_names_are_names_joined_by_dots() {
        for good in ["hives", "com.example.hives", "_a.b2", "com.in.x"] {
            assert!(check_dotted_names(good).is_ok(), "{good}");
        }
        for bad in ["", ".", "com..hives", "com.1", "a b", "a;b", "a\nb", "größe"] {
            assert!(check_dotted_names(bad).is_err(), "{bad:?}");
        }
    }
}
