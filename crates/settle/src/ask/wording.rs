//! The words for reasons.

use crate::draft::evidence::{EpochUnit, KeyClue, KeyForm, NoEnum};

pub(super) fn epoch_unit(unit: EpochUnit) -> &'static str {
    match unit {
        EpochUnit::Seconds => "seconds",
        EpochUnit::Milliseconds => "milliseconds",
    }
}

/// `every key is a date (14), values of one kind (1)`
pub(super) fn key_clues<'c>(clues: impl IntoIterator<Item = &'c (KeyClue, i32)>) -> String {
    let one = |(clue, weight): &(KeyClue, i32)| format!("{} ({})", key_clue(*clue), weight.abs());
    clues.into_iter().map(one).collect::<Vec<_>>().join(", ")
}

/// `"N/A", "-"`
pub(super) fn quoted(words: &[String]) -> String {
    words.iter().map(|word| format!("{word:?}")).collect::<Vec<_>>().join(", ")
}

/// Keys, each in backticks.
pub(super) fn in_backticks(keys: &[String]) -> String {
    keys.iter().map(|key| format!("`{key}`")).collect::<Vec<_>>().join(", ")
}

fn key_clue(clue: KeyClue) -> &'static str {
    match clue {
        KeyClue::Decided => "as decided",
        KeyClue::Form(KeyForm::Number) => "every key is a number",
        KeyClue::Form(KeyForm::Id) => "every key is an id",
        KeyClue::Form(KeyForm::Date) => "every key is a date",
        KeyClue::Form(KeyForm::Email) => "every key is an e-mail address",
        KeyClue::Form(KeyForm::Route) => "every key has a slash",
        KeyClue::Form(KeyForm::Dotted) => "every key is words with dots between",
        KeyClue::Form(KeyForm::DigitFirst) => "every key starts with a digit",
        KeyClue::Form(KeyForm::Numbered) => "the keys differ only in their number",
        KeyClue::Form(KeyForm::Counted) => "the keys are counted up",
        KeyClue::Form(KeyForm::Code) => "every key is a code of capitals",
        KeyClue::Form(KeyForm::Locale) => "every key is a language",
        KeyClue::Form(KeyForm::Label) => "the keys are no names of fields",
        KeyClue::Sparse => "the objects hardly share a key",
        KeyClue::Many => "many keys",
        KeyClue::MapElsewhere => "a map stands under the same key elsewhere",
        KeyClue::AlwaysTogether => "every object has all of the keys",
        KeyClue::OneStructure => "values of one structure",
        KeyClue::LikeStructure => "values of like structure",
        KeyClue::OneKind => "values of one kind",
        KeyClue::UnlikeValues => "unlike values",
        KeyClue::BeyondNames => "more keys than names could be",
    }
}

pub(super) fn no_enum(reason: NoEnum) -> &'static str {
    match reason {
        NoEnum::OtherForms => "some values are numbers, dates or the like",
        NoEnum::MoreThanWords => "some values are more than a word",
        NoEnum::OneValue => "there is but one value",
        NoEnum::Codes => "the values are codes of a long list",
        NoEnum::Numbered => "the values are numbered, as ids are",
        NoEnum::Paths => "the values are paths",
        NoEnum::Identities => "the values are what somebody or something is called by",
        NoEnum::Seldom => "the values hardly repeat",
        NoEnum::TooMany => "there are too many values",
    }
}
