//! Growing: a model prepared, planned and spelled.

use std::collections::BTreeSet;

use jar_sprout_model::{Field, Model, NamedType};

use crate::language::Language;
use crate::languages::LANGUAGES;
use crate::plan::Plan;
use crate::prepare::{
    Prepared, fields_left_as_text as left_as_text, fields_with_words_left as words_left,
    prepare as prepare_for, types_too_wide as too_wide, types_without_extras as without_extras,
};
use crate::settings::Spread;
use crate::spell::{
    Arrangement, Dialect, Grown, GrownFile, Helper, Place, Trial, TrialSample, Usage, spell, spell_shared,
    used,
};

/// A model brought down to what a dialect can do: what growing, trials and proofs share.
pub fn prepare<'m>(dialect: &dyn Dialect, model: &'m Model) -> Prepared<'m> {
    prepare_for(model, &dialect.abilities())
}

/// The code of a prepared model, and the helpers that it finds with what all models share.
pub fn grow_prepared(dialect: &dyn Dialect, model: &Prepared<'_>, arrangement: Arrangement) -> Grown {
    spell(dialect, &plan(dialect, model), arrangement)
}

/// The code of helpers that all models share, for a dialect with [`Language::shared`]'s settings.
pub fn grow_shared(dialect: &dyn Dialect, helpers: &BTreeSet<Helper>) -> Vec<GrownFile> {
    spell_shared(dialect, helpers)
}

/// The code of a model.
pub fn grow(dialect: &dyn Dialect, model: &Model, arrangement: Arrangement) -> Vec<GrownFile> {
    grow_prepared(dialect, &prepare(dialect, model), arrangement).files
}

/// The trial of a prepared model's code, which stands in the folder `place` beside the driver.
pub fn trial(dialect: &dyn Dialect, model: &Prepared<'_>, place: &str, samples: Vec<TrialSample>) -> Trial {
    let plan = plan(dialect, model);
    let entry = plan.root_name().to_owned();
    let file = match dialect.abilities().spread {
        Spread::PerType => &entry,
        Spread::Together => plan.title(),
    };
    let file = dialect.file_name(file);
    let home = plan.entry_home().as_str().to_owned();
    let (_, functions) = plan.first_entry();
    let [decode, encode] = functions.each_ref().map(|ident| ident.as_str().to_owned());
    Trial { place: place.to_owned(), home, decode, encode, file, entry, samples }
}

/// How the code of a prepared model is used to read a file.
pub fn usage(dialect: &dyn Dialect, model: &Prepared<'_>, place: Place<'_>) -> Usage {
    used(dialect, &plan(dialect, model).with_first_entry(), place)
}

/// The plan of a prepared model, type by type, for eyes and not for programs.
pub fn outline(dialect: &dyn Dialect, model: &Prepared<'_>) -> String {
    plan(dialect, model).types.iter().map(|ty| format!("{ty:#?}\n")).collect()
}

/// The types of a model of which a dialect does not keep the keys beyond their fields.
pub fn types_without_extras<'m>(dialect: &dyn Dialect, model: &'m Model) -> Vec<&'m NamedType> {
    without_extras(&dialect.abilities(), model)
}

/// The types of a model that have more fields than a class of a dialect takes: those that are not always there, and come
/// last, are kept as keys beyond its fields, if at all.
pub fn types_too_wide<'m>(dialect: &dyn Dialect, model: &'m Model) -> Vec<&'m NamedType> {
    too_wide(&dialect.abilities(), model)
}

/// The fields of a model, with their types, whose text a dialect does not read as the JSON that it is.
pub fn fields_left_as_text<'m>(dialect: &dyn Dialect, model: &'m Model) -> Vec<(&'m NamedType, &'m Field)> {
    left_as_text(&dialect.abilities(), model)
}

/// The fields of a model, with their types, whose words for nothing a dialect does not read as that.
pub fn fields_with_words_left<'m>(
    dialect: &dyn Dialect,
    model: &'m Model,
) -> Vec<(&'m NamedType, &'m Field)> {
    words_left(&dialect.abilities(), model)
}

/// The plan of a prepared model.
pub(crate) fn plan<'m>(dialect: &dyn Dialect, model: &'m Prepared<'_>) -> Plan<'m> {
    Plan::of(model, &dialect.about().naming, &dialect.abilities())
}

/// The language of a key.
pub fn find_language(key: &str) -> Option<&'static dyn Language> {
    LANGUAGES.iter().copied().find(|language| {
        let mut aliases = language.about().aliases.iter();
        language.key().eq_ignore_ascii_case(key)
            || language.title().eq_ignore_ascii_case(key)
            || aliases.any(|alias| alias.eq_ignore_ascii_case(key))
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
    use jar_sprout_model::{
        Coding, Definition, Presence, Record, Root, Scalar, Slot, TimeForms, Type, TypeId, WireName, Words,
    };

    use super::*;
    use crate::settings::Settings;

    #[test]
    fn keys_are_found_and_nearly_found() {
        assert_eq!(find_language("Kotlin").map(<dyn Language>::key), Some("kotlin"));
        for (alias, key) in
            [("kt", "kotlin"), ("CS", "csharp"), ("C#", "csharp"), ("ts", "typescript"), ("golang", "go")]
        {
            assert_eq!(find_language(alias).map(<dyn Language>::key), Some(key));
        }
        assert!(find_language("kotlinx").is_none());
        assert_eq!(nearest_language("kotlni").map(<dyn Language>::key), Some("kotlin"));
        assert_eq!(nearest_language("typscript").map(<dyn Language>::key), Some("typescript"));
        assert!(nearest_language("brainfog").is_none());
    }

    #[test]
    fn settings_are_unique_and_documented() {
        for language in LANGUAGES {
            let mut keys = BTreeSet::new();
            for setting in language.settings() {
                assert!(keys.insert(setting.key()), "{} twice", setting.key());
                assert!(!setting.doc().is_empty());
                let values = setting.values();
                for value in values.default().into_iter().chain(values.examples()) {
                    language
                        .set(&mut Settings::default(), setting.key(), value)
                        .expect("the value is one of its own");
                }
            }
        }
    }

    /// Every setting of a language by itself.
    fn variations(language: &dyn Language) -> Vec<Settings> {
        let mut all = vec![Settings::default()];
        for setting in language.settings() {
            for value in setting.values().examples() {
                let mut settings = Settings::default();
                language.set(&mut settings, setting.key(), value).expect("it is one of its values");
                all.push(settings);
            }
        }
        all
    }

    /// Helpers that are like another but for some of their text look for that text.
    #[test]
    fn all_helpers_of_times_are_made() {
        let forms = TimeForms::of("2026-05-01T12:30:00.120+00:00");
        let scalars =
            [Scalar::DateTime(forms), Scalar::LocalDateTime(forms), Scalar::Date, Scalar::Time(forms)];
        let coded = [Coding::BooleanText, Coding::EpochSeconds, Coding::EpochMilliseconds];
        let scalars: Vec<Scalar> = scalars.into_iter().chain(coded.map(Scalar::Coded)).collect();
        let field = |scalar: Scalar| {
            let wire = WireName::new(format!("{scalar:?}"));
            Field::new(wire, Presence::Always, Slot::of(Type::Scalar(scalar)))
        };
        let record = Definition::Record(Record::of(scalars.into_iter().map(field).collect()));
        let name = Words::split("hive");
        let root = Root { name: name.clone(), slot: Slot::of(Type::Named(TypeId::from_index(0))) };
        let model = Model::new(vec![NamedType::new(name, record)], root);
        for language in LANGUAGES {
            for settings in variations(*language) {
                let files = grow(&*language.dialect(&settings), &model, Arrangement::Together);
                assert_eq!(files.len(), 1, "{} {settings:?}", language.title());
            }
        }
    }
}
