//! Enums: few words, seen again and again.

use jar_sprout_shape::{Form, Tally, Texts};

use crate::draft::evidence::NoEnum;
use crate::draft::maps::is_locale;

/// The most characters of a value of an enum.
const MAX_LENGTH: usize = 40;

/// What was found of a text's values.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) enum Repetition {
    /// An enum: its values by how the data orders them.
    Enum,
    /// Nearly one: seen too seldom.
    Nearly,
    /// None, and why.
    No(NoEnum),
}

/// Judges the distinct values of a text, each with how often it was seen.
///
/// What counts is repetition: three sightings of a value on average, more where the values might be names, or stand in
/// lists, as tags do that people make up.
pub(crate) fn judge(values: &[(&str, Tally)], texts: &Texts, is_item: bool) -> Repetition {
    let filled: Vec<(&str, u64)> = values
        .iter()
        .filter(|(text, _)| !text.trim().is_empty())
        .map(|(text, tally)| (*text, tally.count))
        .collect();
    if texts.of_form(Form::Plain) + texts.of_form(Form::Blank) < texts.tally.count {
        return Repetition::No(NoEnum::OtherForms);
    }
    // Strong repetition makes words of what could be the start of a sentence.
    let repeats = filled.iter().all(|(_, count)| *count >= OFTEN);
    if !filled.iter().all(|(text, _)| is_word(text) || repeats && is_label(text)) {
        return Repetition::No(NoEnum::MoreThanWords);
    }
    if filled.len() < 2 {
        return Repetition::No(NoEnum::OneValue);
    }
    if are_codes(&filled) {
        return Repetition::No(NoEnum::Codes);
    }
    if filled.iter().filter(|(text, _)| text.contains(|c: char| c.is_ascii_digit())).count() * 2
        >= filled.len()
    {
        return Repetition::No(NoEnum::Numbered);
    }
    if filled.iter().all(|(text, _)| text.matches('/').count() >= 2) {
        return Repetition::No(NoEnum::Paths);
    }
    let distinct = filled.len() as u64;
    let seen: u64 = filled.iter().map(|(_, count)| count).sum();
    let once = filled.iter().filter(|(_, count)| *count == 1).count() as u64;
    // In tenths: a value seen once asks for more sightings of the others.
    let wanted = match (is_item || may_be_names(&filled), once) {
        (true, _) => 60,
        (false, 0) => 25,
        (false, _) => 30,
    };
    let enough = seen * 10 >= distinct * wanted && seen >= 6 && once * 4 <= distinct;
    match (enough, seen >= distinct * 2) {
        (true, _) => Repetition::Enum,
        (false, true) => Repetition::Nearly,
        (false, false) => Repetition::No(NoEnum::Seldom),
    }
}

/// A word, or a few joined ones in lower case: `laying`, `TOP_BAR`, `top bar`. Not a sentence, not a person.
pub(crate) fn is_word(text: &str) -> bool {
    let joins = |c: char| matches!(c, '_' | '-' | '.' | '/' | '+' | ' ' | ':');
    let blanks = text.matches(' ').count();
    text.chars().count() <= MAX_LENGTH
        && Form::of(text.as_bytes()) == Form::Plain
        && text.chars().all(|c| c.is_alphanumeric() || joins(c))
        && text.chars().any(char::is_alphabetic)
        && (blanks == 0 || (blanks <= 2 && !text.chars().any(char::is_uppercase)))
}

/// Two or three words of which the first alone has a capital: `Early queens`. Not a person.
fn is_label(text: &str) -> bool {
    let mut chars = text.chars();
    let first = chars.next().map(|first| first.to_lowercase().collect::<String>());
    first.is_some_and(|first| is_word(&(first + chars.as_str())))
}

/// So often each of several values was seen that nobody wrote it anew each time.
const OFTEN: u64 = 6;

/// Values of two or three capitals, or of two small letters, as countries, currencies and languages have; or of one
/// letter, which says nothing.
fn are_codes(values: &[(&str, u64)]) -> bool {
    let letters = values.iter().all(|(text, _)| text.chars().count() == 1);
    let capitals = |length: usize| {
        values.iter().all(|(text, _)| text.len() == length && text.bytes().all(|b| b.is_ascii_uppercase()))
    };
    let small =
        values.iter().all(|(text, _)| text.len() == 2 && text.bytes().all(|b| b.is_ascii_lowercase()));
    let locales = values.iter().all(|(text, _)| is_locale(text));
    letters || capitals(2) || capitals(3) || small || locales
}

/// Capitalised words could be the names of people and places.
fn may_be_names(values: &[(&str, u64)]) -> bool {
    let capitalised = |text: &str| {
        let mut chars = text.chars();
        chars.next().is_some_and(char::is_uppercase) && chars.any(char::is_lowercase)
    };
    values.iter().filter(|(text, _)| capitalised(text)).count() * 2 > values.len()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn words() {
        for word in ["laying", "TOP_BAR", "top bar", "out-apiary", "v2.image", "größe", "image/png"] {
            assert!(is_word(word), "{word}");
        }
        for other in ["Ada Merrow", "", "12", "fed 2 l of syrup today", "a, b", "What?"] {
            assert!(!is_word(other), "{other}");
        }
    }
}
