//! Settings of a language: declared once, checked once, handed over.

use std::collections::BTreeMap;

use crate::language::Language;

/// One setting of a language.
#[derive(Debug, Clone, Copy)]
pub struct Setting {
    /// What the user types: `package`.
    pub key: &'static str,
    /// What it does, in one line.
    pub doc: &'static str,
    /// A value that shows how it is used.
    pub example: &'static str,
    /// Whether a value can be used; if not, why.
    pub check: fn(&str) -> Result<(), &'static str>,
}

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
    /// The setting cannot take that value.
    Value {
        /// Why not.
        reason: &'static str,
        /// One that it can take.
        example: &'static str,
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
        (setting.check)(value).map_err(|reason| SettingError::Value { reason, example: setting.example })?;
        self.values.insert(setting.key, value.to_owned());
        Ok(())
    }

    pub(crate) fn get(&self, key: &str) -> Option<&str> {
        self.values.get(key).map(String::as_str)
    }
}
