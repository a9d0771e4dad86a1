//! What a language must know, and the list of languages.

use jar_sprout_layout::{Doc, Style};
use jar_sprout_model::{Fraction, Record, Scalar, Slot};

use crate::code::{GrownFile, Helper, Needs};
use crate::docs::Comment;
use crate::extras::Extras;
use crate::languages::{CSharp, Dart, Go, Java, Kotlin, Python, Rust, Swift, TypeScript};
use crate::plan::{Ident, Naming, Plan, PlannedType};
use crate::settings::{FILES, PLACE, Setting, Settings};
use crate::trial::Trial;
use crate::twins::Tags;

/// Every language there is. No other place tells languages apart.
pub static LANGUAGES: &[&dyn Language] =
    &[&Kotlin, &Swift, &Dart, &CSharp, &Java, &TypeScript, &Python, &Go, &Rust];

/// What is fixed of a language.
pub struct About {
    /// What the user types: `kotlin`.
    pub(crate) key: &'static str,
    /// What people call it: `Kotlin`.
    pub(crate) title: &'static str,
    /// What is grown, in a few words.
    pub(crate) grows: &'static str,
    /// The settings it has.
    pub(crate) settings: &'static [Setting],
    /// How names become identifiers.
    pub(crate) naming: Naming,
    /// How it writes documentation.
    pub(crate) comment: Comment,
    /// The page of its usual formatter.
    pub(crate) style: Style,
    /// Whether its people put every type into a file of its own.
    pub(crate) has_file_per_type: bool,
}

/// How the text of a time, which a platform's own type forgets, comes back as it was.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum TimeKeeping {
    /// It is kept beside the value, or is the value.
    AsText,
    /// It is written in the way that the texts of its place had; this is the one that needs no code.
    InForm(Fraction),
    /// It does not: zeros at the end of a fraction, and `+00:00` for `Z`, are up to the library.
    Loose,
}

/// A target of `grow`.
pub trait Language: Sync {
    /// What is fixed of it.
    fn about(&self) -> &'static About;

    /// What the user types: `kotlin`.
    fn key(&self) -> &'static str {
        self.about().key
    }

    /// What people call it: `Kotlin`.
    fn title(&self) -> &'static str {
        self.about().title
    }

    /// What is grown, in a few words.
    fn grows(&self) -> &'static str {
        self.about().grows
    }

    /// The settings it has.
    fn settings(&self) -> &'static [Setting] {
        self.about().settings
    }

    /// Whether every type goes into a file of its own.
    #[doc(hidden)]
    fn has_file_per_type(&self, settings: &Settings) -> bool {
        match settings.given(FILES.key) {
            Some(files) => files == "per-type",
            None => self.about().has_file_per_type,
        }
    }

    /// Where a declaration goes among the others of its file: those of a low rank come first.
    #[doc(hidden)]
    fn rank(&self, _: &PlannedType<'_>) -> u8 {
        0
    }

    /// Whether what is needed comes before what needs it.
    fn declares_inside_out(&self) -> bool {
        false
    }

    /// The name of the file for a type.
    fn file_name(&self, type_name: &str, settings: &Settings) -> String;

    /// What is said of a named type, where that stands before its declaration.
    #[doc(hidden)]
    fn comment(&self, _: &Plan<'_>, ty: &PlannedType<'_>, _: &Settings) -> Option<Doc> {
        self.about().comment.of(ty.docs, 0)
    }

    /// The declaration of a named type.
    #[doc(hidden)]
    fn declare(&self, plan: &Plan<'_>, ty: &PlannedType<'_>, settings: &Settings, needs: &mut Needs) -> Doc;

    /// The declaration of a plain type, and what makes it of the type of the wire.
    #[doc(hidden)]
    fn declare_twin(
        &self,
        _: &Plan<'_>,
        _twin: &PlannedType<'_>,
        _wire: &PlannedType<'_>,
        _: &Settings,
        _: &mut Needs,
    ) -> Doc {
        unreachable!("a language without the setting has no twins")
    }

    /// What becomes of tags in plain types.
    #[doc(hidden)]
    fn tags_of_twins(&self) -> Tags {
        Tags::Dropped
    }

    /// The name for a root that is no named type.
    #[doc(hidden)]
    fn alias(
        &self,
        plan: &Plan<'_>,
        ident: &Ident,
        slot: &Slot,
        settings: &Settings,
        needs: &mut Needs,
    ) -> Doc;

    /// The functions that read and write whole samples, if the language has such beside its types.
    #[doc(hidden)]
    fn entry(&self, _: &Plan<'_>, _: &Settings, _: &mut Needs) -> Vec<Doc> {
        Vec::new()
    }

    /// A file of this name: the mark, what it imports, its declarations.
    #[doc(hidden)]
    fn assemble(&self, file: &str, settings: &Settings, needs: &Needs, declarations: Vec<Doc>) -> Doc;

    /// Whether types stand inside that of the response.
    #[doc(hidden)]
    fn nests(&self, settings: &Settings) -> bool {
        settings.given(PLACE.key) == Some("nested")
    }

    /// Whether code with these settings has a type that tells null from nothing.
    #[doc(hidden)]
    fn tells_absence(&self, _: &Settings) -> bool {
        false
    }

    /// How times go back to text.
    fn time_keeping(&self, _: &Settings) -> TimeKeeping {
        TimeKeeping::AsText
    }

    /// What a line of helper code imports, if it does.
    #[doc(hidden)]
    fn imported(&self, _line: &'static str) -> Option<&'static str> {
        None
    }

    /// Whether code with these settings can hold such a value; else a number in letters stays text, and a decimal
    /// is a float.
    fn holds(&self, _: Scalar, _: &Settings) -> bool {
        true
    }

    /// Whether code with these settings gives what is absent its default value.
    fn fills_in(&self, _: &Settings) -> bool {
        true
    }

    /// Whether its types stand in a namespace that has a file of its own.
    #[doc(hidden)]
    fn has_namespace_file(&self, _: &Settings) -> bool {
        false
    }

    /// The code of a helper, and the part of it that cannot stand in a namespace.
    #[doc(hidden)]
    fn split_helper(&self, helper: Helper, _: &Settings) -> (&'static str, Option<String>) {
        (helper.text, None)
    }

    /// The settings for one model of several, whose code must stand apart from that of the others: in a package or
    /// a namespace of its own, where the language has such a thing. The folder of the same name comes on top.
    fn apart(&self, settings: &Settings, _model: &str) -> Settings {
        settings.clone()
    }

    /// What becomes of the keys of a record beyond its fields, where a document says what stands there.
    fn extras(&self, _record: &Record, _settings: &Settings) -> Extras {
        Extras::LeftOut
    }

    /// The settings that put a trial's code where its driver looks for it.
    fn trial_settings(&self, _place: &str) -> Settings {
        Settings::default()
    }

    /// A program that passes samples through grown code, for all trials at once. Its folder holds a folder
    /// for each trial's code.
    fn driver(&self, trials: &[Trial], settings: &Settings) -> Vec<GrownFile>;
}

/// The language of a key.
pub fn find_language(key: &str) -> Option<&'static dyn Language> {
    LANGUAGES.iter().copied().find(|language| {
        language.key().eq_ignore_ascii_case(key) || language.title().eq_ignore_ascii_case(key)
    })
}

/// The language whose key or title is most like a word, if one is like it at all.
pub fn nearest_language(word: &str) -> Option<&'static dyn Language> {
    let word = word.to_lowercase();
    let likeness = |language: &&dyn Language| strsim::jaro_winkler(&word, language.key());
    let nearest = LANGUAGES.iter().copied().max_by(|a, b| likeness(a).total_cmp(&likeness(b)))?;
    (likeness(&nearest) > 0.7).then_some(nearest)
}

#[cfg(test)]
mod tests {
    use std::collections::BTreeSet;

    use super::*;
    use crate::settings::Values;

    #[test]
    fn keys_are_found_and_nearly_found() {
        assert_eq!(find_language("Kotlin").map(Language::key), Some("kotlin"));
        assert!(find_language("kotlinx").is_none());
        assert_eq!(nearest_language("kotlni").map(Language::key), Some("kotlin"));
        assert_eq!(nearest_language("typscript").map(Language::key), Some("typescript"));
        assert!(nearest_language("brainfog").is_none());
    }

    #[test]
    fn settings_are_unique_and_documented() {
        for language in LANGUAGES {
            let mut keys = BTreeSet::new();
            for setting in language.settings() {
                assert!(keys.insert(setting.key), "{} twice", setting.key);
                assert!(!setting.doc.is_empty());
                let known = match setting.values {
                    Values::Choice(choices) => choices.iter().map(|choice| choice.value).collect(),
                    Values::Text { default, example, .. } => {
                        default.into_iter().chain([example]).collect::<Vec<_>>()
                    }
                };
                for value in known {
                    Settings::default()
                        .set(*language, setting.key, value)
                        .expect("the value is one of its own");
                }
            }
        }
    }
}
