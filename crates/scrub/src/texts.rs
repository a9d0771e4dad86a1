//! Texts: other letters in the same form.

use std::hash::BuildHasher;

use jar_sprout_model::{TimeForms, Words};
use jar_sprout_settle::{is_hexadecimal, is_locale, is_month};
use jar_sprout_shape::Form;

use crate::letters::Letters;
use crate::times::Move;

/// How often another way is tried where something came out that means something else.
pub(crate) const TRIES: u64 = 64;

/// Another text of the same form, on which everything that a model needs to know is as it was. A text for nothing, a truth in
/// letters, a language's code stay; so do the few of three letters or digits and fewer for which there is no other.
pub(crate) fn scrubbed<S: BuildHasher>(
    text: &str,
    random: &S,
    moved: &Move,
    is_taken: impl Fn(&str) -> bool,
) -> String {
    let form = Form::of(text.as_bytes());
    if matches!(form, Form::Blank | Form::BooleanWord) {
        return text.to_owned();
    }
    let class = Class::of(text);
    let mut tries = (0..TRIES).map(|salt| turned(text, form, random, moved, salt));
    let found = tries.find(|new| new != text && !is_taken(new) && Class::of(new) == class);
    found.unwrap_or_else(|| {
        let is_short = text.chars().filter(|c| c.is_alphanumeric()).count() < 4;
        if is_short { text.to_owned() } else { plain(text, &mut Letters::new(random, 0)) }
    })
}

fn turned<S: BuildHasher>(text: &str, form: Form, random: &S, moved: &Move, salt: u64) -> String {
    let letters = &mut Letters::new(random, salt);
    let special = match form {
        Form::Date | Form::DateTime | Form::LocalDateTime | Form::LooseDateTime => moved.date(text, letters),
        Form::Time | Form::HourAndMinute => moved.time(text, letters),
        Form::Uuid => Some(uuid(text, letters)),
        Form::Uri => Some(uri(text, letters)),
        Form::Ip => Some(ip(text, random, salt)),
        _ if is_month(text) => moved.month(text),
        _ if is_locale(text) => Some(locale(text, letters)),
        _ if is_hexadecimal(text) => Some(text.chars().map(|c| letters.next_hex(c)).collect()),
        _ => None,
    };
    special.unwrap_or_else(|| plain(text, &mut Letters::new(random, salt)))
}

fn plain<S: BuildHasher>(text: &str, letters: &mut Letters<'_, S>) -> String {
    text.chars().map(|c| letters.next(c)).collect()
}

/// The version and the variant stay (RFC 9562, sections 4.1 and 4.2).
fn uuid<S: BuildHasher>(text: &str, letters: &mut Letters<'_, S>) -> String {
    let turn = |(at, c): (usize, char)| {
        if matches!(at, 14 | 19) {
            letters.pass(c);
            return c;
        }
        letters.next_hex(c)
    };
    text.chars().enumerate().map(turn).collect()
}

/// The scheme stays, and what is written as `%20`.
fn uri<S: BuildHasher>(text: &str, letters: &mut Letters<'_, S>) -> String {
    let start = text.find(':').map_or(0, |colon| colon + 1);
    let mut escaped = 0;
    let turn = |c: char| {
        escaped = if c == '%' { 3_u8 } else { escaped };
        if escaped > 0 {
            escaped -= 1;
            letters.pass(c);
            return c;
        }
        letters.next(c)
    };
    text[..start].chars().chain(text[start..].chars().map(turn).collect::<Vec<_>>()).collect()
}

/// Numbers of an address of version 4 stay numbers of one; of version 6, digits stay digits.
fn ip<S: BuildHasher>(text: &str, random: &S, salt: u64) -> String {
    if text.contains(':') {
        let mut letters = Letters::new(random, salt);
        return text.chars().map(|c| letters.next_hex(c)).collect();
    }
    let mut start = String::new();
    let turn = |part: &str| {
        let step = 1 + random.hash_one(("ip", salt, &start)) % 255;
        start.push_str(part);
        start.push('.');
        ((part.parse::<u64>().unwrap_or_default() + step) % 256).to_string()
    };
    text.split('.').map(turn).collect::<Vec<_>>().join(".")
}

/// The language stays, the region does not.
fn locale<S: BuildHasher>(text: &str, letters: &mut Letters<'_, S>) -> String {
    let turn = |(at, c): (usize, char)| {
        if at < 2 {
            letters.pass(c);
            return c;
        }
        letters.next(c)
    };
    text.chars().enumerate().map(turn).collect()
}

/// All that a model may tell of a text but its letters.
#[derive(PartialEq)]
struct Class {
    form: Form,
    times: TimeForms,
    length: usize,
    is_locale: bool,
    is_month: bool,
    is_hexadecimal: bool,
    is_wide: bool,
    has_json: bool,
    words: usize,
}

impl Class {
    fn of(text: &str) -> Self {
        let form = Form::of(text.as_bytes());
        let is_time = matches!(form, Form::DateTime | Form::LocalDateTime | Form::Time);
        Self {
            form,
            times: if is_time { TimeForms::of(text) } else { TimeForms::default() },
            // The numbers of an address change their length.
            length: if form == Form::Ip { 0 } else { text.len() },
            is_locale: is_locale(text),
            is_month: is_month(text),
            is_hexadecimal: is_hexadecimal(text),
            is_wide: text.parse::<i64>().is_err(),
            has_json: serde_json::from_str::<serde_json::Value>(text).is_ok(),
            words: if text.len() <= 64 { Words::split(text).count() } else { 0 },
        }
    }
}

#[cfg(test)]
mod tests {
    use std::hash::{BuildHasherDefault, DefaultHasher};

    use super::*;

    #[test]
    fn forms_stay_and_values_do_not() {
        let random = BuildHasherDefault::<DefaultHasher>::default();
        let moved = Move::new(&random);
        for text in [
            "192.0.2.17",
            "2001:db8::17",
            "+44 1632 960 017",
            "2026-05",
            "nl-NL",
            "1f2a9c4477",
            "12.50",
            "1,200",
            "340 g",
            "ada@honey.example",
            "https://honey.example/a%20b",
            "Ada Merrow",
            "10:30",
        ] {
            let new = scrubbed(text, &random, &moved, |_| false);
            assert_ne!(new, text);
            assert_eq!(Form::of(new.as_bytes()), Form::of(text.as_bytes()), "{text} became {new}");
        }
        for text in ["", " ", "true", "No", "en", "-"] {
            assert_eq!(scrubbed(text, &random, &moved, |_| false), text);
        }
    }
}
