//! The words for reasons.

use crate::draft::evidence::{EpochUnit, KeyForm, MapReason, NoEnum};

pub(super) fn epoch_unit(unit: EpochUnit) -> &'static str {
    match unit {
        EpochUnit::Seconds => "seconds",
        EpochUnit::Milliseconds => "milliseconds",
    }
}

pub(super) fn map_reason(reason: MapReason) -> &'static str {
    match reason {
        MapReason::Form(KeyForm::Number) => "every key is a number",
        MapReason::Form(KeyForm::Id) => "every key is an id",
        MapReason::Form(KeyForm::Date) => "every key is a date",
        MapReason::Form(KeyForm::Email) => "every key is an e-mail address",
        MapReason::Form(KeyForm::DigitFirst) => "every key starts with a digit",
        MapReason::Form(KeyForm::Numbered) => "the keys differ only in their number",
        MapReason::Form(KeyForm::Code) => "every key is a code of capitals",
        MapReason::Form(KeyForm::Locale) => "every key is a language",
        MapReason::Form(KeyForm::Label) => "the keys are no names of fields",
        MapReason::Sparse => "the objects hardly share a key",
        MapReason::Many => "many keys, values of one structure",
        MapReason::BeyondNames => "more keys than names could be",
    }
}

pub(super) fn no_enum(reason: NoEnum) -> &'static str {
    match reason {
        NoEnum::OtherForms => "some values are numbers, dates or the like",
        NoEnum::MoreThanWords => "some values are more than a word",
        NoEnum::OneValue => "there is but one value",
        NoEnum::Codes => "the values are codes of a long list",
        NoEnum::Numbered => "the values are numbered, as ids are",
        NoEnum::Seldom => "the values hardly repeat",
        NoEnum::TooMany => "there are too many values",
    }
}
