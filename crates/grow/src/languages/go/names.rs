//! Go's names: exported identifiers with initialisms, struct tags, file names.

use std::borrow::Cow;

use jar_sprout_model::Words;

use crate::plan::{
    NamePlace, Naming, NothingNames, OwnName, UnionCaseKind, initialism, push_capitalised, small_words,
};
use crate::spell::{self, Literal, backslash_u};

pub(super) const NAMING: Naming = Naming {
    type_case: exported,
    member_case: Some(exported),
    keeps_capitals: true,
    case_case: exported,
    cases: NamePlace::Package,
    union_case: exported,
    union_cases: NamePlace::Type,
    // Only helpers are exported beside what is grown; the language's own names are in small letters.
    reserved_types: &[
        "Date",
        "EpochMilliseconds",
        "EpochSeconds",
        "JSONText",
        "LettersOrNothing",
        "LocalDateTime",
        "LocalTime",
        "Maybe",
        "OrNothing",
        "Time",
        "Words",
    ],
    // A field may not be called as a method of its type.
    reserved_members: &["MarshalJSON", "UnmarshalJSON"],
    reserved_cases: &[],
    reserved_union_cases: &["MarshalJSON", "Other", "UnmarshalJSON"],
    unshared: None,
    union_case_kind: UnionCaseKind::Type,
    own_name: OwnName::Free,
    nothing: NothingNames::ByWords,
    escape: std::convert::identity,
    function_case: exported,
};

pub(super) const LITERAL: Literal = Literal {
    quote: '"',
    escapes: &[('"', "\\\""), ('\\', "\\\\"), ('\n', "\\n"), ('\r', "\\r"), ('\t', "\\t")],
    character: |character| {
        if u32::from(character) > 0xFFFF {
            format!("\\U{:08x}", u32::from(character))
        } else {
            backslash_u(character)
        }
    },
};

/// `HoneyKg`, `SensorIDs`: other packages only see names that start with a capital.
fn exported(words: &Words) -> String {
    let mut name = String::with_capacity(words.len());
    words.iter().for_each(|word| push_word(word, &mut name));
    if name.chars().next().is_some_and(char::is_uppercase) { name } else { format!("X{name}") }
}

fn push_word(word: &str, name: &mut String) {
    if let Some(capitals) = initialism(word) {
        return name.push_str(&capitals);
    }
    if word.chars().all(is_letter_or_digit) {
        return push_capitalised(word, name);
    }
    // A letter that Go does not allow in identifiers is its number.
    let letter = |character: char| match is_letter_or_digit(character) {
        true => character.to_string(),
        false => format!("u{:x}", u32::from(character)),
    };
    push_capitalised(&word.chars().map(letter).collect::<String>(), name);
}

/// Letters and digits as Go's specification has them: no marks, and no numbers that are written as letters.
fn is_letter_or_digit(character: char) -> bool {
    if character.is_ascii() {
        return character.is_ascii_alphanumeric();
    }
    let is_letter_number = matches!(character,
        '\u{16EE}'..='\u{16F0}' | '\u{2160}'..='\u{2188}' | '\u{3007}' | '\u{3021}'..='\u{3029}'
        | '\u{3038}'..='\u{303A}' | '\u{A6E6}'..='\u{A6EF}' | '\u{10140}'..='\u{10174}'
        | '\u{10341}' | '\u{1034A}' | '\u{103D1}'..='\u{103D5}' | '\u{12400}'..='\u{1246E}');
    let is_no_letter =
        matches!(character, '\u{1885}' | '\u{1886}' | '\u{2118}' | '\u{212E}' | '\u{309B}' | '\u{309C}');
    unicode_ident::is_xid_start(character) && !is_letter_number && !is_no_letter
}

/// A key as a struct tag names it; none where no tag can (`encoding/json` allows letters, digits and some
/// symbols).
pub(super) fn tag_name(key: &str) -> Option<String> {
    let is_allowed = |c: char| is_letter_or_digit(c) || "!#$%&()*+-./:;<=>?@[]^_{|}~ ".contains(c);
    match key {
        "" => None,
        "-" => Some("-,".to_owned()),
        key => key.chars().all(is_allowed).then(|| key.to_owned()),
    }
}

/// The receiver of a type's methods: its first letter.
pub(super) fn receiver(type_name: &str) -> char {
    type_name.chars().next().filter(char::is_ascii).map_or('v', |first| first.to_ascii_lowercase())
}

/// What the toolchain takes for a condition when a file's name ends in it (`go help buildconstraint`).
const CONDITIONS: &[&str] = &[
    "386",
    "aix",
    "amd64",
    "android",
    "arm",
    "arm64",
    "darwin",
    "dragonfly",
    "freebsd",
    "illumos",
    "ios",
    "js",
    "linux",
    "loong64",
    "mips",
    "mips64",
    "mips64le",
    "mipsle",
    "netbsd",
    "openbsd",
    "plan9",
    "ppc64",
    "ppc64le",
    "riscv64",
    "s390x",
    "solaris",
    "test",
    "unix",
    "wasip1",
    "wasm",
    "windows",
    "zos",
    "armbe",
    "arm64be",
    "hurd",
    "nacl",
    "ppc",
    "riscv",
    "s390",
    "sparc",
    "sparc64",
    "amd64p32",
    "mips64p32",
    "mips64p32le",
];

/// `hive_page.go`
pub(super) fn file_name(type_name: &str) -> String {
    let stem = small_words(type_name, "_");
    let last = stem.rsplit('_').next().unwrap_or_default();
    let more = if stem != last && CONDITIONS.contains(&last) { "_model" } else { "" };
    format!("{stem}{more}.go")
}

/// Go's keywords, none of which may be a package's name.
pub(super) const KEYWORDS: &[&str] = &[
    "break",
    "case",
    "chan",
    "const",
    "continue",
    "default",
    "defer",
    "else",
    "fallthrough",
    "for",
    "func",
    "go",
    "goto",
    "if",
    "import",
    "interface",
    "map",
    "package",
    "range",
    "return",
    "select",
    "struct",
    "switch",
    "type",
    "var",
];

/// The package that stands at a path.
pub(super) fn package_at(path: &str) -> String {
    path.rsplit('/').next().unwrap_or_default().replace(['-', '_'], "")
}

/// `DecodeKeys`
pub(super) fn capitalised(name: &str) -> String {
    let mut capitalised = String::with_capacity(name.len());
    push_capitalised(name, &mut capitalised);
    capitalised
}

/// What a line of helper code declares.
pub(super) fn declared(line: &'static str) -> Option<&'static str> {
    // A method is reached by its type.
    spell::declared(line, &["type", "func"]).filter(|_| !line.starts_with("func ("))
}

/// The functions of helper code, which other packages do not reach.
const HIDDEN: &[&str] = &["decodeKeys", "encodeKeys", "decodeOthers", "encodeOthers"];

/// A line of helper code, as it stands in a package of its own.
pub(super) fn opened(line: &'static str) -> Cow<'static, str> {
    let mut opened = Cow::Borrowed(line);
    for name in HIDDEN.iter().filter(|name| line.contains(**name)) {
        opened = Cow::Owned(opened.replace(name, &capitalised(name)));
    }
    opened
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn names_are_exported_and_initialisms_in_capitals() {
        let check = |name: &str, expected: &str| {
            assert_eq!(exported(&Words::split(name)), expected);
        };
        check("honey_kg", "HoneyKg");
        check("id", "ID");
        check("sensorIDs", "SensorIDs");
        check("img_url", "ImgURL");
        check("日本", "X日本");
        check("größe", "Größe");
        check("24h", "X24h");
        check("का", "Xकu93e");
    }

    #[test]
    fn words_in_capitals_stay_so_beside_others() {
        let check = |name: &str, key: &str, expected: &str| {
            assert_eq!(exported(&Words::split(name).in_capitals_of(key)), expected);
        };
        check("IMDB Rating", "IMDB Rating", "IMDBRating");
        check("VATNumber", "VATNumber", "VATNumber");
        check("number", "VATNumber", "Number");
        check("QUEENLESS", "QUEENLESS", "Queenless");
    }

    #[test]
    fn tags_name_what_they_can() {
        assert_eq!(tag_name("honey-kg").as_deref(), Some("honey-kg"));
        assert_eq!(tag_name("-").as_deref(), Some("-,"));
        for odd in ["", "a,b", "a\"b", "a`b", "a\\b", "🍯", "a\nb", "\u{202E}"] {
            assert_eq!(tag_name(odd), None, "{odd:?}");
        }
    }

    #[test]
    fn file_names_are_no_build_conditions() {
        assert_eq!(file_name("HivePage"), "hive_page.go");
        assert_eq!(file_name("HiveTest"), "hive_test_model.go");
        assert_eq!(file_name("Test"), "test.go");
    }
}
