//! Letters and digits in the place of others of their kind.

use std::hash::BuildHasher;

/// What is made of each character depends on the key and on all that stands before it, and no two characters become the
/// same one: texts with the same start keep the same start, and different ones stay different.
pub(crate) struct Letters<'s, S> {
    random: &'s S,
    state: u64,
}

impl<'s, S: BuildHasher> Letters<'s, S> {
    /// `salt` is for another try.
    pub(crate) fn new(random: &'s S, salt: u64) -> Self {
        Self { random, state: random.hash_one(("letters", salt)) }
    }

    /// Another character of the same kind; marks and zeros stay.
    pub(crate) fn next(&mut self, character: char) -> char {
        let turned = turn(character, self.state);
        self.pass(character);
        turned
    }

    /// Another hexadecimal digit, a letter for a letter.
    pub(crate) fn next_hex(&mut self, character: char) -> char {
        let turned = match character {
            'a'..='f' => among('a', 6, character, self.state),
            'A'..='F' => among('A', 6, character, self.state),
            _ => turn(character, self.state),
        };
        self.pass(character);
        turned
    }

    /// A character that stays.
    pub(crate) fn pass(&mut self, character: char) {
        self.state = self.random.hash_one((self.state, character));
    }
}

fn turn(character: char, state: u64) -> char {
    match character {
        'a'..='z' => among('a', 26, character, state),
        'A'..='Z' => among('A', 26, character, state),
        '1'..='9' => among('1', 9, character, state),
        character if character.is_ascii() => character,
        character => neighbour(character, state),
    }
}

/// Another of so many characters in a row.
fn among(first: char, count: u32, character: char, state: u64) -> char {
    let place = u32::from(character) - u32::from(first);
    char::from_u32(u32::from(first) + (place + step(count, state)) % count).unwrap_or(character)
}

/// At least one, so that nothing stays as it was.
fn step(count: u32, state: u64) -> u32 {
    1 + u32::try_from(state % u64::from(count - 1)).unwrap_or_default()
}

/// Another character of those nearby that are letters, or digits, of the same case.
fn neighbour(character: char, state: u64) -> char {
    if !character.is_alphanumeric() {
        return character;
    }
    let kind = |c: char| (c.is_uppercase(), c.is_lowercase(), c.is_alphabetic(), c.is_alphanumeric());
    // In UTF-8, they differ in nothing but the last byte: none is longer.
    let start = u32::from(character) & !63;
    let like: Vec<char> =
        (start..start + 64).filter_map(char::from_u32).filter(|c| kind(*c) == kind(character)).collect();
    let place = like.iter().position(|c| *c == character);
    match (place, u32::try_from(like.len())) {
        (Some(place), Ok(count @ 2..)) => like[(place + step(count, state) as usize) % like.len()],
        _ => character,
    }
}

#[cfg(test)]
mod tests {
    use std::collections::BTreeSet;
    use std::hash::{BuildHasherDefault, DefaultHasher};

    use super::*;

    fn turned(text: &str) -> String {
        let random = BuildHasherDefault::<DefaultHasher>::default();
        let mut letters = Letters::new(&random, 0);
        text.chars().map(|c| letters.next(c)).collect()
    }

    #[test]
    fn kinds_stay_and_letters_do_not() {
        let kinds = |text: &str| -> Vec<(bool, bool, bool, usize)> {
            text.chars().map(|c| (c.is_uppercase(), c.is_lowercase(), c.is_numeric(), c.len_utf8())).collect()
        };
        for text in ["Ada Merrow", "größe 207", "Ωμέγα", "пчела", "ミツバチ", "a-1_b/2"] {
            let new = turned(text);
            assert_eq!(kinds(&new), kinds(text), "{text} became {new}");
            let same = text.chars().zip(new.chars()).filter(|(old, new)| old == new && old.is_alphabetic());
            assert_eq!(same.count(), 0, "{text} became {new}");
        }
    }

    #[test]
    fn different_texts_stay_different_and_starts_the_same() {
        let all: Vec<String> = (0..2000).map(|number| turned(&format!("hive-{number}"))).collect();
        assert_eq!(all.iter().collect::<BTreeSet<_>>().len(), all.len());
        assert!(all.iter().all(|text| text.starts_with(&all[0][..5])), "{}", all[1]);
    }
}
