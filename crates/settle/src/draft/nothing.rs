//! Nothing words: a few texts that stand for no value, among others that have a form.

use jar_sprout_shape::{Form, Tally, Texts};

/// The most words for nothing at one place.
const MAX_WORDS: usize = 3;

/// So many texts of a form say what the place is, whatever one other text says.
const MANY: u64 = 5;

/// The most characters of a word.
const LONGEST: usize = 24;

/// What people and programs write where there is nothing.
const USUAL: &[&str] = &[
    "",
    "n/a",
    "na",
    "n.a.",
    "none",
    "null",
    "nil",
    "undefined",
    "unknown",
    "not available",
    "not applicable",
    "tbd",
    "tba",
    "never",
    "?",
    "-",
    "--",
    "---",
    "–",
    "—",
    "0000-00-00",
    "0000-00-00 00:00:00",
];

/// The one form that all texts have but for words that stand for nothing, and these.
///
/// A word is known by what people usually write, by repetition, or, alone, by how many others there are.
pub(crate) fn among_form(texts: &Texts) -> Option<(Form, Vec<String>)> {
    let words = texts.words().filter(|words| !words.is_empty())?;
    let seen: u64 = words.iter().map(|(_, tally)| tally.count).sum();
    let rest = texts.tally.count - seen;
    let of = |form| texts.of_form(form);
    let form =
        [Form::DateTime, Form::LocalDateTime, Form::Date, Form::Time, Form::Uuid, Form::Uri, Form::Whole]
            .into_iter()
            .find(|form| of(*form) == rest)
            .or_else(|| (of(Form::Whole) + of(Form::Decimal) == rest).then_some(Form::Decimal))?;
    (rest > 0).then_some((form, stand_for_nothing(words, rest)?))
}

/// The texts of a place that has other kinds of value as well, if all of them stand for nothing.
pub(crate) fn beside_others(texts: &Texts, others: u64) -> Option<Vec<String>> {
    let words = texts.words()?;
    let seen: u64 = words.iter().map(|(_, tally)| tally.count).sum();
    (seen == texts.tally.count && others > 0).then(|| stand_for_nothing(words, others)).flatten()
}

fn stand_for_nothing(words: Vec<(&str, Tally)>, others: u64) -> Option<Vec<String>> {
    let is_usual = |word: &str| USUAL.contains(&word.trim().to_lowercase().as_str());
    let stands = |(word, tally): &(&str, Tally)| {
        is_usual(word) || tally.count > 1 && tally.count <= others || words.len() == 1 && others >= MANY
    };
    // What has digits that are not zero says something.
    let is_bare = |(word, _): &(&str, Tally)| {
        word.chars().count() <= LONGEST && !word.chars().any(|c| c.is_numeric() && c != '0')
    };
    let is_it = words.len() <= MAX_WORDS && words.iter().all(|word| stands(word) && is_bare(word));
    let mut words = words;
    // The one that comes most often is written back.
    words.sort_by_key(|(word, tally)| (std::cmp::Reverse(tally.count), *word));
    is_it.then(|| words.into_iter().map(|(word, _)| word.to_owned()).collect())
}
