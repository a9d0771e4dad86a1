//! Settings of a language: declared once, checked once, handed over.

use std::collections::BTreeMap;

/// A setting of a language, as the command line, the jar and the documents list it.
pub trait Setting: Sync {
    /// What the user types: `package`.
    fn key(&self) -> &'static str;

    /// What it decides, in one line.
    fn doc(&self) -> &'static str;

    /// The values it takes.
    fn values(&self) -> Values;
}

/// The values that a setting takes.
#[derive(Debug, Clone)]
pub enum Values {
    /// One of these; the first where none is given.
    Choice(Vec<Choice>),
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

/// A setting that is one of several things.
pub(crate) struct OneOf<T: 'static> {
    pub(crate) key: &'static str,
    pub(crate) doc: &'static str,
    /// The first holds where none is given.
    pub(crate) choices: &'static [Meaning<T>],
}

/// A value of a setting, and the thing that it means.
pub(crate) struct Meaning<T> {
    pub(crate) value: &'static str,
    pub(crate) doc: &'static str,
    pub(crate) it: T,
}

impl<T: Copy> OneOf<T> {
    /// What the settings of a run say.
    pub(crate) fn of(&self, settings: &Settings) -> T {
        let given = settings.given(self.key);
        let meant = self.choices.iter().find(|choice| Some(choice.value) == given);
        meant.unwrap_or(&self.choices[0]).it
    }
}

impl<T: Sync> Setting for OneOf<T> {
    fn key(&self) -> &'static str {
        self.key
    }

    fn doc(&self) -> &'static str {
        self.doc
    }

    fn values(&self) -> Values {
        let choice = |Meaning { value, doc, it: _ }: &Meaning<T>| Choice { value, doc };
        Values::Choice(self.choices.iter().map(choice).collect())
    }
}

/// A setting that is a text.
pub(crate) struct TextOf {
    pub(crate) key: &'static str,
    pub(crate) doc: &'static str,
    /// What holds where none is given; nothing of the kind where this is none.
    pub(crate) default: Option<&'static str>,
    /// A value that shows how it is used.
    pub(crate) example: &'static str,
    /// Whether a value can be used; if not, why.
    pub(crate) check: fn(&str) -> Result<(), &'static str>,
}

impl TextOf {
    /// What the settings of a run say.
    pub(crate) fn of(&self, settings: &Settings) -> Option<String> {
        settings.given(self.key).or(self.default).map(str::to_owned)
    }
}

impl Setting for TextOf {
    fn key(&self) -> &'static str {
        self.key
    }

    fn doc(&self) -> &'static str {
        self.doc
    }

    fn values(&self) -> Values {
        Values::Text { default: self.default, example: self.example, check: self.check }
    }
}

/// How types are spread over files.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Spread {
    /// Each has a file of its own.
    PerType,
    /// One file has them all.
    Together,
}

const PER_TYPE: Meaning<Spread> =
    Meaning { value: "per-type", doc: "each type has a file of its own", it: Spread::PerType };
const ONE: Meaning<Spread> = Meaning { value: "one", doc: "one file has all types", it: Spread::Together };

/// How types are spread over files, where the language's people give each its own.
pub(crate) const FILES: OneOf<Spread> =
    OneOf { key: "files", doc: "how types are spread over files", choices: &[PER_TYPE, ONE] };

/// How types are spread over files, where the language's people put them together.
pub(crate) const FILES_TOGETHER: OneOf<Spread> = OneOf { choices: &[ONE, PER_TYPE], ..FILES };

/// Whether null is told from nothing where a field may be either.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Absence {
    /// It is not, or it is without more ado.
    Untold,
    /// In types that are sent to change a part of something.
    ToldInPatches,
    /// Everywhere.
    Told,
}

/// Whether null is told from nothing.
pub(crate) const ABSENT: OneOf<Absence> = OneOf {
    key: "absent",
    doc: "whether a key that is absent is told from one that is null",
    choices: &[
        Meaning {
            value: "null",
            doc: "in types that are sent to change something; else both are null",
            it: Absence::ToldInPatches,
        },
        Meaning { value: "apart", doc: "everywhere, by a type around what may be both", it: Absence::Told },
    ],
};

/// Whether the bounds that a document sets are checked; a language says what checks them.
pub(crate) const BOUNDS: OneOf<bool> = OneOf {
    key: "bounds",
    doc: "what becomes of the bounds that a document sets: the least number, the longest text",
    choices: &[BOUNDS_SAID],
};

pub(crate) const BOUNDS_SAID: Meaning<bool> =
    Meaning { value: "said", doc: "they are said in comments", it: false };

/// How the keys of the wire are said, in languages whose library can be told of all that a type has.
pub(crate) const KEYS: OneOf<bool> = OneOf {
    key: "keys",
    doc: "how the keys of the wire are said where names differ from them",
    choices: &[
        Meaning { value: "each", doc: "each with its property", it: false },
        Meaning {
            value: "rule",
            doc: "by one annotation of a type, where the library has one and a rule makes most of its keys",
            it: true,
        },
    ],
};

/// What UUIDs are.
pub(crate) const UUIDS: OneOf<bool> = OneOf {
    key: "uuids",
    doc: "what UUIDs are",
    choices: &[
        Meaning { value: "text", doc: "texts", it: false },
        Meaning {
            value: "typed",
            doc: "the platform's own type, which writes their letters in one case",
            it: true,
        },
    ],
};

/// What URIs are.
pub(crate) const URIS: OneOf<bool> = OneOf {
    key: "uris",
    doc: "what URIs are",
    choices: &[
        Meaning { value: "text", doc: "texts", it: false },
        Meaning { value: "typed", doc: "the platform's own type, which keeps their text", it: true },
    ],
};

/// Where the types stand that a response is made of.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Nesting {
    /// Beside that of the response.
    Beside,
    /// Inside it, those that nothing else needs.
    Inside,
}

/// Where types stand.
pub(crate) const PLACE: OneOf<Nesting> = OneOf {
    key: "place",
    doc: "where the types stand that a response is made of",
    choices: &[
        Meaning { value: "beside", doc: "beside that of the response", it: Nesting::Beside },
        Meaning { value: "nested", doc: "inside those that alone need them", it: Nesting::Inside },
    ],
};

/// Whether plain types stand beside those of the wire.
pub(crate) const TWINS: TextOf = TextOf {
    key: "twins",
    doc: "what the names of wire types end in, beside each of which stands a plain type that is made from it",
    default: None,
    example: "Dto",
    check: check_ending,
};

fn check_ending(value: &str) -> Result<(), &'static str> {
    let is_ending = value.starts_with(|c: char| c.is_ascii_uppercase())
        && value.chars().all(|c| c.is_ascii_alphabetic())
        && value.len() <= 20;
    if is_ending { Ok(()) } else { Err("it must be letters, the first one a capital") }
}

/// What reads and writes a whole response.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Entry {
    /// The library, as its user sets it up.
    Library,
    /// Functions that come along.
    Functions,
}

/// Whether functions read and write whole samples.
pub(crate) const ENTRY: OneOf<Entry> = OneOf {
    key: "entry",
    doc: "what reads and writes a whole response",
    choices: &[
        Meaning { value: "none", doc: "the library, as you set it up", it: Entry::Library },
        Meaning {
            value: "functions",
            doc: "two functions that come along: one decodes, one encodes",
            it: Entry::Functions,
        },
    ],
};

/// Whether grown files say that they are grown.
pub(crate) const MARK: OneOf<bool> = OneOf {
    key: "mark",
    doc: "whether the first line of a file says that it is grown",
    choices: &[
        Meaning { value: "line", doc: "it does, and what it is grown from", it: true },
        Meaning { value: "none", doc: "it does not: the code is yours, and is not written over", it: false },
    ],
};

/// The settings of one run for one language; those not given have the language's defaults.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Settings {
    values: BTreeMap<&'static str, String>,
    /// Where the code finds its helpers that other models need as well, in the language's own words; it brings its own
    /// where this is none.
    shared: Option<String>,
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
    /// It does not go together with another one that was set.
    Beside {
        /// The other.
        other: &'static str,
        /// Why not.
        reason: &'static str,
    },
    /// The setting has no such value.
    Choice {
        /// Those it has.
        known: Vec<&'static str>,
    },
}

impl Settings {
    /// Sets one of the known settings.
    ///
    /// # Errors
    /// A key that is not among them, a value it cannot take, or one that another setting rules out.
    pub fn set(&mut self, known: &[&dyn Setting], key: &str, value: &str) -> Result<(), SettingError> {
        let is_it = |setting: &&&dyn Setting| setting.key().eq_ignore_ascii_case(key);
        let Some(setting) = known.iter().find(is_it) else {
            return Err(SettingError::Unknown { known: known.iter().map(|setting| setting.key()).collect() });
        };
        let values = setting.values();
        values.check(value)?;
        self.values.insert(setting.key(), values.spelled(value).to_owned());
        let tells_absence = self.given(ABSENT.key) == Some("apart");
        match (tells_absence && self.given(TWINS.key).is_some(), setting.key()) {
            (true, key) => {
                self.values.remove(key);
                let other = if key == ABSENT.key { TWINS.key } else { ABSENT.key };
                Err(SettingError::Beside { other, reason: "a plain twin cannot tell null from nothing" })
            }
            (false, _) => Ok(()),
        }
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
    pub(crate) fn with_part(&self, setting: &TextOf, part: &str) -> Self {
        let given = self.given(setting.key).map(|given| format!("{given}.")).unwrap_or_default();
        // A word of the language's own cannot be a part.
        let names = [format!("{given}{part}"), format!("{given}{part}models")];
        names.iter().find_map(|name| self.with(setting, name)).unwrap_or_else(|| self.clone())
    }

    /// These settings with a text for one; none where it cannot be that text.
    pub(crate) fn with(&self, setting: &TextOf, value: &str) -> Option<Self> {
        let mut settings = self.clone();
        settings.set(&[setting], setting.key, value).ok()?;
        Some(settings)
    }

    /// These settings without one.
    pub(crate) fn without(&self, setting: &TextOf) -> Self {
        let mut settings = self.clone();
        settings.values.remove(setting.key);
        settings
    }

    /// These settings, with the functions that a driver calls.
    pub(crate) fn for_trial(&self) -> Self {
        let mut settings = self.clone();
        settings.values.insert(ENTRY.key, "functions".to_owned());
        settings
    }

    /// These settings, for code that finds its helpers elsewhere.
    pub(crate) fn with_shared(mut self, place: String) -> Self {
        self.shared = Some(place);
        self
    }

    /// Where the code finds its helpers, if it does not bring them.
    pub(crate) fn shared(&self) -> Option<&str> {
        self.shared.as_deref()
    }

    /// The value that was given for a key.
    pub(crate) fn given(&self, key: &str) -> Option<&str> {
        self.values.get(key).map(String::as_str)
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

    /// Values that it takes: all of a choice, the default one first; of a text the one that shows how it is used.
    pub fn examples(&self) -> Vec<&'static str> {
        match self {
            Self::Choice(choices) => choices.iter().map(|choice| choice.value).collect(),
            Self::Text { example, .. } => vec![example],
        }
    }

    /// A value as it is written here: `moshi` where `Moshi` was typed.
    fn spelled<'v>(&self, value: &'v str) -> &'v str {
        match self {
            Self::Choice(choices) => {
                let meant = choices.iter().find(|choice| choice.value.eq_ignore_ascii_case(value));
                meant.map_or(value, |choice| choice.value)
            }
            Self::Text { .. } => value,
        }
    }

    fn check(&self, value: &str) -> Result<(), SettingError> {
        match self {
            Self::Choice(choices)
                if choices.iter().any(|choice| choice.value.eq_ignore_ascii_case(value)) =>
            {
                Ok(())
            }
            Self::Choice(_) => Err(SettingError::Choice { known: self.examples() }),
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
            // A name of nothing but `_` is none in many languages.
            && part.contains(|c: char| c.is_ascii_alphanumeric())
            && chars.all(|c| c.is_ascii_alphanumeric() || c == '_')
    };
    if value.split('.').all(is_name) { Ok(()) } else { Err("it must be names joined by dots") }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_rules_out_another_is_refused_whichever_comes_first() {
        let known: &[&dyn Setting] = &[&ABSENT, &TWINS];
        for [first, second] in
            [[("absent", "apart"), ("twins", "Dto")], [("twins", "Dto"), ("absent", "apart")]]
        {
            let mut settings = Settings::default();
            assert_eq!(settings.set(known, first.0, first.1), Ok(()));
            let refused = settings.set(known, second.0, second.1);
            assert!(matches!(refused, Err(SettingError::Beside { other, .. }) if other == first.0));
            assert_eq!(settings.set(known, "absent", "null"), Ok(()));
        }
    }

    #[test]
    fn dotted_names_are_names_joined_by_dots() {
        for good in ["hives", "com.example.hives", "_a.b2", "com.in.x"] {
            assert!(check_dotted_names(good).is_ok(), "{good}");
        }
        for bad in ["", ".", "com..hives", "com.1", "a b", "a;b", "a\nb", "größe", "_", "com.__"] {
            assert!(check_dotted_names(bad).is_err(), "{bad:?}");
        }
    }
}
