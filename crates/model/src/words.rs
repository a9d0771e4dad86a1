//! Names as words, split once; each language joins them its own way.

use std::borrow::Cow;
use std::fmt;
use std::sync::Arc;

use unicode_normalization::{IsNormalized, UnicodeNormalization, is_nfc_quick};

/// A name as lower-case words: `imdbID` is `imdb id`. Never empty, and every word has a letter or a digit.
///
/// Cheap to clone: a name stands at many positions.
#[derive(Debug, Clone, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub struct Words(Arc<str>);

/// What stands between two words, and in none.
const GAP: char = ' ';

impl Words {
    /// Splits a name of any spelling. A name with no letter or digit is spelled out (`🍯` is `u1f36f`),
    /// so that two odd keys never become one.
    pub fn split(name: &str) -> Self {
        if let Some(words) = plain_words(name) {
            return words;
        }
        // A letter and a mark behind it are one letter.
        let name = match is_nfc_quick(name.chars()) {
            IsNormalized::Yes => Cow::Borrowed(name),
            IsNormalized::No | IsNormalized::Maybe => Cow::Owned(name.nfc().collect()),
        };
        let mut words = signed_number(&name).unwrap_or_else(|| split_words(&name));
        if words.is_empty() {
            words = spell_out(&name);
        }
        Self::joined(&words)
    }

    fn joined(words: &[String]) -> Self {
        Self(words.join(" ").into())
    }

    /// The words in their order.
    pub fn iter(&self) -> impl DoubleEndedIterator<Item = &str> {
        self.0.split(GAP)
    }

    /// How many words there are.
    pub fn count(&self) -> usize {
        self.iter().count()
    }

    /// How long they are, with a blank between two: in bytes, and never none.
    #[expect(clippy::len_without_is_empty, reason = "there is a word in them")]
    pub fn len(&self) -> usize {
        self.0.len()
    }

    /// The last word.
    pub fn last(&self) -> &str {
        self.0.rsplit(GAP).next().unwrap_or(&self.0)
    }

    /// These words after those of `front`.
    #[must_use]
    pub fn prefixed(&self, front: &Self) -> Self {
        Self([&front.0, " ", &self.0].concat().into())
    }

    /// These words with one more behind.
    #[must_use]
    pub fn with_word(&self, word: &str) -> Self {
        Self([&self.0, " ", &word.to_lowercase()].concat().into())
    }

    /// These words with another last one.
    #[must_use]
    pub fn with_last(&self, word: &str) -> Self {
        let front = &self.0[..self.0.len() - self.last().len()];
        Self([front, word].concat().into())
    }

    /// `HivePage`: each word with a capital, as people name a type whatever its language.
    pub fn in_capitals(&self) -> String {
        let capital = |word: &str| -> String {
            let mut chars = word.chars();
            chars.next().map(|first| first.to_uppercase().chain(chars).collect()).unwrap_or_default()
        };
        self.iter().map(capital).collect()
    }

    /// These words, with short ones in capitals where a key has them so: `imdb rating` of `IMDB Rating` is `IMDB rating`.
    /// For spelling a name, not for comparing it.
    #[must_use]
    pub fn in_capitals_of(&self, key: &str) -> Self {
        const SHORT: std::ops::RangeInclusive<usize> = 2..=5;
        let runs: Vec<&str> = key.split(|c: char| !c.is_ascii_uppercase()).collect();
        let word = |word: &str| {
            let capitals = word.to_ascii_uppercase();
            // The last capital of a run starts the next word: `VATNumber`.
            let is_run = |run: &&str| run.strip_prefix(&*capitals).is_some_and(|behind| behind.len() <= 1);
            let is_written_so = SHORT.contains(&word.len()) && runs.iter().any(is_run);
            if is_written_so { capitals } else { word.to_owned() }
        };
        Self::joined(&self.iter().map(word).collect::<Vec<_>>())
    }

    /// The longest run of words that both names end in.
    pub fn common_end(&self, other: &Self) -> Option<Self> {
        if self == other {
            return Some(self.clone());
        }
        let shared = self.iter().rev().zip(other.iter().rev()).take_while(|(a, b)| a == b);
        let length: usize = shared.map(|(word, _)| word.len() + GAP.len_utf8()).sum();
        let end = &self.0[self.0.len().saturating_sub(length.saturating_sub(GAP.len_utf8()))..];
        (length > 0).then(|| Self(end.into()))
    }

    /// These words without those of another name in front, if there are more; an ending that both have stays.
    pub fn without(&self, front: &Self, ending: Option<&Self>) -> Option<Self> {
        let own = |words: &Self| -> Option<String> {
            let own = ending.map_or(Some(&*words.0), |ending| words.0.strip_suffix(&*ending.0))?;
            Some(own.trim_end_matches(GAP).to_owned())
        };
        let own_front = own(front).filter(|front| !front.is_empty())?;
        let rest = self.0.strip_prefix(&*own_front)?.strip_prefix(GAP)?;
        let is_more = ending.is_none_or(|ending| *rest != *ending.0);
        is_more.then(|| Self(rest.into()))
    }

    /// Whether these words end in those of another name.
    pub fn ends_in(&self, end: &Self) -> bool {
        self.0.strip_suffix(&*end.0).is_some_and(|front| front.is_empty() || front.ends_with(GAP))
    }
}

impl fmt::Display for Words {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(&self.0)
    }
}

/// The words of a name in small letters and digits of ASCII with `_` or `-` between, as most keys are: each of its
/// parts is a word.
fn plain_words(name: &str) -> Option<Words> {
    /// Longer ones are so few that it does not matter.
    const LONGEST: usize = 64;
    let mut joined = [0; LONGEST];
    let joined = joined.get_mut(..name.len())?;
    let mut is_gap = true;
    for (byte, to) in name.bytes().zip(&mut *joined) {
        let was_gap = is_gap;
        is_gap = matches!(byte, b'_' | b'-');
        let is_plain = byte.is_ascii_lowercase() || byte.is_ascii_digit() || is_gap && !was_gap;
        if !is_plain {
            return None;
        }
        *to = if is_gap { b' ' } else { byte };
    }
    // Nor may it end in a gap, or be one.
    if is_gap { None } else { str::from_utf8(joined).ok().map(|joined| Words(joined.into())) }
}

/// `+1` and `-1` are different names.
fn signed_number(name: &str) -> Option<Vec<String>> {
    let (sign, digits) = match name.split_at_checked(1)? {
        ("+", digits) => ("plus", digits),
        ("-", digits) => ("minus", digits),
        _ => return None,
    };
    let is_number = !digits.is_empty() && digits.bytes().all(|b| b.is_ascii_digit());
    is_number.then(|| vec![sign.to_owned(), digits.to_owned()])
}

fn split_words(name: &str) -> Vec<String> {
    let mut words: Vec<String> = Vec::new();
    for part in name.split(|c: char| !(c.is_alphanumeric() || is_apostrophe(c))) {
        let letters: Vec<char> = part.chars().filter(|c| !is_apostrophe(*c)).collect();
        split_case(&letters, &mut words);
    }
    words
}

/// `bee's` is one word.
fn is_apostrophe(c: char) -> bool {
    matches!(c, '\'' | '\u{2019}')
}

/// Splits a run of letters and digits at its changes of case.
fn split_case(letters: &[char], words: &mut Vec<String>) {
    let mut start = 0;
    for at in 1..letters.len() {
        if starts_word(letters, start, at) {
            push_word(&letters[start..at], words);
            start = at;
        }
    }
    if start < letters.len() {
        push_word(&letters[start..], words);
    }
}

/// Whether a new word starts at `at`: `honey|Kg`, `URL|List`, `utf8|Text`, but `URLs`, `1st`, `x2y`.
fn starts_word(letters: &[char], start: usize, at: usize) -> bool {
    let (before, here, after) = (letters[at - 1], letters[at], letters.get(at + 1).copied());
    if !here.is_uppercase() {
        return false;
    }
    if before.is_lowercase() || before.is_numeric() {
        return true;
    }
    let plural_acronym = after == Some('s')
        && at > start
        && letters.get(at + 2).is_none_or(|c| c.is_uppercase() || c.is_numeric());
    before.is_uppercase() && after.is_some_and(char::is_lowercase) && !plural_acronym
}

fn push_word(letters: &[char], words: &mut Vec<String>) {
    words.push(letters.iter().flat_map(|c| c.to_lowercase()).filter(|c| c.is_alphanumeric()).collect());
}

/// Names for keys made of nothing but symbols.
fn spell_out(name: &str) -> Vec<String> {
    if name.is_empty() {
        return vec!["empty".to_owned()];
    }
    if name.chars().all(char::is_whitespace) {
        return vec!["blank".to_owned()];
    }
    name.chars().filter(|c| !c.is_whitespace()).take(8).map(symbol_name).collect()
}

fn symbol_name(symbol: char) -> String {
    let known = match symbol {
        '+' => "plus",
        '-' => "minus",
        '*' => "star",
        '/' => "slash",
        '\\' => "backslash",
        '#' => "hash",
        '$' => "dollar",
        '%' => "percent",
        '&' => "and",
        '@' => "at",
        '!' => "bang",
        '?' => "question",
        '.' => "dot",
        ',' => "comma",
        ':' => "colon",
        ';' => "semicolon",
        '_' => "underscore",
        '=' => "equals",
        '<' => "less",
        '>' => "greater",
        '|' => "bar",
        '~' => "tilde",
        '^' => "caret",
        '"' => "quote",
        '\'' => "apostrophe",
        '`' => "backtick",
        '(' | '[' | '{' => "open",
        ')' | ']' | '}' => "close",
        _ => return format!("u{:x}", u32::from(symbol)),
    };
    known.to_owned()
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    #[track_caller]
    fn check(name: &str, expected: &str) {
        assert_eq!(Words::split(name).to_string(), expected, "{name:?}");
    }

    #[test]
    fn a_name_inside_another_is_shorter() {
        let without = |name: &str, front: &str, ending: Option<&str>| {
            let ending = ending.map(Words::split);
            Words::split(name).without(&Words::split(front), ending.as_ref()).map(|words| words.to_string())
        };
        assert_eq!(without("HiveHoney", "Hive", None).as_deref(), Some("honey"));
        assert_eq!(without("HiveHoneyDto", "HiveDto", Some("dto")).as_deref(), Some("honey dto"));
        assert_eq!(without("HiveDto", "HiveDto", Some("dto")), None);
        assert_eq!(without("Hives", "Hive", None), None);
        assert_eq!(without("Dto", "Dto", Some("dto")), None);
        assert_eq!(without("HiveDto", "HiveSwarmDto", Some("dto")), None);
    }

    #[test]
    fn splits_every_spelling() {
        check("honey_kg", "honey kg");
        check("Honey-Kg", "honey kg");
        check("honeyKG", "honey kg");
        check("imdbID", "imdb id");
        check("URLList", "url list");
        check("URLs", "urls");
        check("hiveIDs", "hive ids");
        check("IDsSeen", "ids seen");
        check("utf8Text", "utf8 text");
        check("x2y", "x2y");
        check("dotted.key", "dotted key");
        check("@id", "id");
        check("$ref", "ref");
        check("1st", "1st");
        check("bee's", "bees");
        check("HTMLParser2Go", "html parser2 go");
        check("日本語", "日本語");
        check("größe_cm", "größe cm");
        check("e\u{301}tat", "\u{e9}tat");
        check("ÉtatActuel", "état actuel");
        check("A", "a");
        check("ABC", "abc");
    }

    #[test]
    fn odd_names_stay_apart() {
        check("", "empty");
        check("  ", "blank");
        check("🍯", "u1f36f");
        check("+1", "plus 1");
        check("-1", "minus 1");
        check("%", "percent");
        check("<=", "less equals");
    }

    #[test]
    fn common_end_is_the_shared_tail() {
        let end = |a, b| Words::split(a).common_end(&Words::split(b)).map(|w| w.to_string());
        assert_eq!(end("home_address", "work_address"), Some("address".to_owned()));
        assert_eq!(end("origin", "location"), None);
        assert_eq!(end("hive", "hive"), Some("hive".to_owned()));
        assert_eq!(end("hive", "old_hive"), Some("hive".to_owned()));
        let ends_in = |words, end| Words::split(words).ends_in(&Words::split(end));
        assert!(ends_in("old_hive", "hive") && ends_in("hive", "hive"));
        assert!(!ends_in("beehive", "hive") && !ends_in("hive", "old_hive"));
    }

    proptest! {
        #[test]
        fn any_name_gives_clean_words(name in any::<String>()) {
            let words = Words::split(&name);
            prop_assert!(words.count() > 0);
            for word in words.iter() {
                prop_assert!(!word.is_empty());
                prop_assert!(word.chars().all(char::is_alphanumeric), "{word:?}");
            }
        }

        #[test]
        fn plain_names_are_split_like_any(name in "[a-z0-9_-]{0,12}") {
            if let Some(words) = plain_words(&name) {
                prop_assert_eq!(words, Words::joined(&split_words(&name)));
            }
        }
    }
}
