//! What stands for nothing: the names of what reads and writes words, or a type or words in its place, where code
//! declares something for them.

use jar_sprout_model::{Coding, Field, Model, NothingWords, Scalar, Slot, Type, Words};

use super::{Ident, NothingNames, Plan, PlannedField};

/// Words that stand for nothing, in the place of any type or of one.
#[derive(Debug)]
pub struct PlannedNothing<'m> {
    /// `NaIsNothing`, `NumberOrNa`
    pub(crate) ident: Ident,
    /// The type, where there is one of these for each.
    pub(crate) slot: Option<&'m Slot>,
    pub(crate) words: &'m NothingWords,
}

impl<'m> Plan<'m> {
    /// Which of those of the plan a field takes, if words stand for nothing there.
    pub(crate) fn nothing_of(&self, field: &PlannedField<'_>) -> Option<(usize, &PlannedNothing<'m>)> {
        let words = field.nothing_words()?;
        let is_it = |(_, known): &(usize, &PlannedNothing<'_>)| {
            known.words == words && known.slot.is_none_or(|slot| slot.ty == field.slot.ty)
        };
        self.nothings.iter().enumerate().find(is_it)
    }
}

/// The words in a model, or the pairs of a type and words, each once, with its name.
pub(super) fn plan<'m>(
    model: &'m Model,
    names: NothingNames,
    mut declare: impl FnMut(&Words) -> Ident,
) -> Vec<PlannedNothing<'m>> {
    let mut planned: Vec<PlannedNothing<'m>> = Vec::new();
    for Field { slot, encoding, .. } in model.types().flat_map(|(_, ty)| ty.definition.fields()) {
        let Some(words) = encoding.nothing_words() else { continue };
        let is_new = |known: &PlannedNothing<'_>| {
            known.words != words || known.slot.is_some_and(|known| known.ty != slot.ty)
        };
        if planned.iter().all(is_new) {
            let (slot, name) = match names {
                NothingNames::ByWords => (None, word(words).with_word("is").with_word("nothing")),
                NothingNames::ByType => {
                    (Some(slot), word(words).prefixed(&words_of(model, &slot.ty).with_word("or")))
                }
            };
            planned.push(PlannedNothing { ident: declare(&name), slot, words });
        }
    }
    planned
}

/// What the first of some words is called.
fn word(words: &NothingWords) -> Words {
    match words.first().as_str().trim() {
        "" => Words::split("blank"),
        zeros if zeros.contains('0') && zeros.chars().all(|c| c == '0' || c.is_ascii_punctuation()) => {
            Words::split("zero")
        }
        mark if mark.chars().all(|c| matches!(c, '-' | '–' | '—')) => Words::split("dash"),
        word => Words::split(word),
    }
}

fn words_of(model: &Model, ty: &Type) -> Words {
    match ty {
        Type::Any => Words::split("value"),
        Type::Scalar(scalar) => Words::split(match scalar {
            Scalar::Boolean | Scalar::Always(_) => "flag",
            Scalar::Integer(_) => "integer",
            Scalar::Float | Scalar::Decimal => "number",
            Scalar::Text => "text",
            Scalar::DateTime(_) | Scalar::LocalDateTime(_) => "dateTime",
            Scalar::Date => "date",
            Scalar::Time(_) => "time",
            Scalar::Uuid => "uuid",
            Scalar::Uri => "uri",
            Scalar::Coded(Coding::IntegerText) => "integerText",
            Scalar::Coded(Coding::FloatText | Coding::DecimalText) => "numberText",
            Scalar::Coded(Coding::BooleanText) => "flagText",
            Scalar::Coded(Coding::EpochSeconds | Coding::EpochMilliseconds) => "timestamp",
        }),
        Type::Constant(text) => Words::split(text.as_str()),
        Type::List(items) => words_of(model, &items.ty).with_word("list"),
        Type::Map(values) => words_of(model, &values.ty).with_word("map"),
        Type::Tuple(_) => Words::split("tuple"),
        Type::Named(id) => model.get(*id).name.clone(),
    }
}
