//! Identifiers: cased, made of letters every language takes, unique in their scope.

use std::fmt;

use jar_sprout_model::Words;

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

impl fmt::Display for Ident {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(&self.0)
    }
}

/// `HoneyKg`
pub(crate) fn pascal_case(words: &Words) -> String {
    letters(words).iter().map(|word| capitalised(word)).collect()
}

/// `honeyKg`
pub(crate) fn camel_case(words: &Words) -> String {
    let words = letters(words);
    words
        .iter()
        .enumerate()
        .map(|(at, word)| if at == 0 { word.clone() } else { capitalised(word) })
        .collect()
}

/// `honey_kg`
pub(crate) fn snake_case(words: &Words) -> String {
    letters(words).join("_")
}

/// `HONEY_KG`
pub(crate) fn screaming_case(words: &Words) -> String {
    letters(words).join("_").to_uppercase()
}

/// Words that are written in capitals throughout where a language's people do so: `ID`, `IDs`.
const INITIALISMS: &[&str] = &[
    "acl", "api", "ascii", "cpu", "css", "dns", "eof", "gid", "guid", "html", "http", "https", "id", "ip",
    "json", "qps", "ram", "rpc", "sip", "sla", "smtp", "sql", "ssh", "tcp", "tls", "ttl", "udp", "ui", "uid",
    "uri", "url", "utf8", "uuid", "vm", "xml", "xmpp", "xsrf", "xss",
];

/// A word in capitals, if it is an initialism or the plural of one.
pub(crate) fn initialism(word: &str) -> Option<String> {
    if INITIALISMS.contains(&word) {
        return Some(word.to_uppercase());
    }
    word.strip_suffix('s').filter(|one| INITIALISMS.contains(one)).map(|one| one.to_uppercase() + "s")
}

/// `hive_page` of `HivePage`: what the file for a type is called where file names are in small letters.
pub(crate) fn small_words(type_name: &str, between: &str) -> String {
    Words::split(type_name).iter().collect::<Vec<_>>().join(between)
}

/// The words in letters that may stand in an identifier, the first of which may start one.
fn letters(words: &Words) -> Vec<String> {
    let mut letters: Vec<String> = words.iter().map(|word| word.chars().map(letter).collect()).collect();
    let starts_well =
        letters.first().and_then(|word| word.chars().next()).is_some_and(unicode_ident::is_xid_start);
    if !starts_well {
        letters.insert(0, BEFORE_DIGIT.to_owned());
    }
    letters
}

/// A letter as it is, if Unicode allows it in identifiers (UAX #31); else its number.
fn letter(character: char) -> String {
    if unicode_ident::is_xid_continue(character) {
        character.to_string()
    } else {
        format!("u{:x}", u32::from(character))
    }
}

fn capitalised(word: &str) -> String {
    let mut chars = word.chars();
    chars.next().map(|first| first.to_uppercase().chain(chars).collect()).unwrap_or_default()
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
