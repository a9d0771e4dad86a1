//! Identifiers: cased, made of letters every language takes, unique in their scope.

use std::borrow::{Borrow, Cow};
use std::fmt;

use deunicode::deunicode;
use jar_sprout_model::Words;
use unicode_normalization::UnicodeNormalization;

/// A name that stands in code. Only the plan makes one.
#[derive(Debug, Clone, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub struct Ident(String);

/// What stands before a name that would start with a digit.
const BEFORE_DIGIT: &str = "value";

impl Ident {
    pub(super) fn new(text: String) -> Self {
        Self(text)
    }

    /// The identifier as it stands in code.
    pub(crate) fn as_str(&self) -> &str {
        &self.0
    }
}

impl Borrow<str> for Ident {
    fn borrow(&self) -> &str {
        &self.0
    }
}

impl fmt::Display for Ident {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(&self.0)
    }
}

/// `HoneyKg`
pub(crate) fn pascal_case(words: &Words) -> String {
    joined(words, "", |_, word, text| push_capitalised(word, text))
}

/// `honeyKg`
pub(crate) fn camel_case(words: &Words) -> String {
    joined(words, "", |at, word, text| match at {
        0 => text.push_str(word),
        _ => push_capitalised(word, text),
    })
}

/// `imageURL`, `urlList`: initialisms keep their capitals but at the start.
pub(crate) fn camel_case_with_initialisms(words: &Words) -> String {
    joined(words, "", |at, word, text| match initialism(word) {
        _ if at == 0 => text.push_str(word),
        Some(initialism) => text.push_str(&initialism),
        None => push_capitalised(word, text),
    })
}

/// `honey_kg`
pub(crate) fn snake_case(words: &Words) -> String {
    joined(words, "_", |_, word, text| text.push_str(word))
}

/// `HONEY_KG`
pub(crate) fn screaming_case(words: &Words) -> String {
    snake_case(words).to_uppercase()
}

/// Words in one text, each put there by `push`, which is told its place.
fn joined(words: &Words, between: &str, push: impl Fn(usize, &str, &mut String)) -> String {
    let mut text = String::with_capacity(words.len() + BEFORE_DIGIT.len());
    for (at, word) in letters(words).enumerate() {
        if at > 0 {
            text.push_str(between);
        }
        push(at, &word, &mut text);
    }
    text
}

/// Words that are written in capitals throughout where a language's people do so: `ID`, `IDs`.
const INITIALISMS: &[&str] = &[
    "acl", "amqp", "api", "ascii", "cpu", "css", "db", "dns", "eof", "gid", "guid", "html", "http", "https",
    "id", "ip", "json", "qps", "ram", "rpc", "rtp", "sip", "sla", "smtp", "sql", "ssh", "tcp", "tls", "ts",
    "ttl", "udp", "ui", "uid", "uri", "url", "utf8", "uuid", "vm", "xml", "xmpp", "xsrf", "xss",
];

/// A word in capitals, if it is an initialism or the plural of one.
pub(crate) fn initialism(word: &str) -> Option<String> {
    const LONGEST: usize = 5;
    if word.len() > LONGEST + 1 {
        return None;
    }
    // `http2` is one with its version.
    if INITIALISMS.contains(&word.trim_end_matches(|c: char| c.is_ascii_digit()))
        || INITIALISMS.contains(&word)
    {
        return Some(word.to_uppercase());
    }
    word.strip_suffix('s').filter(|one| INITIALISMS.contains(one)).map(|one| one.to_uppercase() + "s")
}

/// `hive_page` of `HivePage`: what the file for a type is called where file names are in small letters.
pub(crate) fn small_words(type_name: &str, between: &str) -> String {
    Words::split(type_name).iter().collect::<Vec<_>>().join(between)
}

/// Words in ASCII, for languages whose identifiers are, or should be: `größe` is `grosse`.
pub(crate) fn in_ascii(words: &Words) -> Words {
    if words.iter().all(str::is_ascii) {
        return words.clone();
    }
    let word = |word: &str| -> String {
        let letters: String = deunicode(word).chars().filter(char::is_ascii_alphanumeric).collect();
        if letters.is_empty() {
            word.chars().map(|c| format!("u{:x}", u32::from(c))).collect()
        } else {
            letters.to_lowercase()
        }
    };
    Words::split(&words.iter().map(word).collect::<Vec<_>>().join(" "))
}

/// The words in letters that may stand in an identifier, the first of which may start one.
fn letters(words: &Words) -> impl Iterator<Item = Cow<'_, str>> {
    let mut words = words.iter().map(spelled).peekable();
    let starts_well =
        words.peek().and_then(|word| word.chars().next()).is_some_and(unicode_ident::is_xid_start);
    let front = (!starts_well).then_some(Cow::Borrowed(BEFORE_DIGIT));
    front.into_iter().chain(words)
}

/// A word in letters that may stand in an identifier.
fn spelled(word: &str) -> Cow<'_, str> {
    if word.is_ascii() { Cow::Borrowed(word) } else { word.chars().map(letter).collect::<String>().into() }
}

/// A letter as it is, if Unicode allows it in identifiers (UAX #31) and it is not another way to write others, which
/// some compilers would take for them; else its number.
fn letter(character: char) -> String {
    let is_itself = std::iter::once(character).nfkc().eq(std::iter::once(character));
    if is_itself && unicode_ident::is_xid_continue(character) {
        character.to_string()
    } else {
        format!("u{:x}", u32::from(character))
    }
}

pub(crate) fn push_capitalised(word: &str, text: &mut String) {
    let mut chars = word.chars();
    match chars.next() {
        Some(first) if first.is_ascii() => text.push(first.to_ascii_uppercase()),
        first => text.extend(first.into_iter().flat_map(char::to_uppercase)),
    }
    text.push_str(chars.as_str());
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    #[track_caller]
    fn check(name: &str, pascal: &str, camel: &str, screaming: &str) {
        let words = Words::split(name);
        assert_eq!(
            [pascal_case(&words), camel_case(&words), screaming_case(&words)],
            [pascal, camel, screaming],
            "{name}"
        );
    }

    #[test]
    fn words_are_joined() {
        check("honey_kg", "HoneyKg", "honeyKg", "HONEY_KG");
        check("imdbID", "ImdbId", "imdbId", "IMDB_ID");
        check("24h", "Value24h", "value24h", "VALUE_24H");
        check("größe", "Größe", "größe", "GRÖSSE");
        check("½", "Ubd", "ubd", "UBD");
        check("e\u{301}t\u{e9}", "Été", "été", "ÉTÉ");
        check("ﬁ", "Ufb01", "ufb01", "UFB01");
        check("日本", "日本", "日本", "日本");
    }

    #[test]
    fn file_names_are_in_small_letters() {
        assert_eq!(small_words("HivePage", "-"), "hive-page");
        assert_eq!(small_words("HivePage", "_"), "hive_page");
    }

    proptest! {
        #[test]
        fn any_name_becomes_an_identifier(name in any::<String>()) {
            let words = Words::split(&name);
            for ident in [pascal_case(&words), camel_case(&words), screaming_case(&words)] {
                let mut chars = ident.chars();
                prop_assert!(chars.next().is_some_and(unicode_ident::is_xid_start), "{ident:?}");
                prop_assert!(chars.all(unicode_ident::is_xid_continue), "{ident:?}");
            }
        }
    }
}
