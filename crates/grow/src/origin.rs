//! Where a file comes from: the first line of a grown file says it, with a seal by which the file is known again.

use crate::language::Language;
use crate::settings::{MARK, Settings};

/// What a grown file says in its first line, whatever its language, and how to grow it anew.
const SAID: &str = "by jar-sprout grow";

/// The most characters that a mark says of a source.
const MAX_SAID: usize = 60;

/// What a file is grown from.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Provenance {
    /// A model of a jar.
    Jar {
        /// What the jar calls the model.
        model: String,
        /// The way from the file's folder to the jar's file: `../jar.toml`.
        jar: String,
    },
    /// Something that is no jar: `hives.json`.
    Source(String),
}

/// Where a file comes from.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Origin {
    /// A person wrote it.
    Foreign,
    /// We grew it, and nobody changed it since, but for its white space.
    Grown(Provenance),
    /// We grew it, and somebody changed it since, or nobody can tell.
    Changed,
}

impl std::fmt::Display for Provenance {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        match self {
            Self::Jar { model, jar } => write!(f, "{model} in {jar}"),
            Self::Source(name) => f.write_str(name),
        }
    }
}

impl Provenance {
    /// A model of a jar, with the way to the jar from the file's folder.
    pub fn of_jar(model: &str, jar: &str) -> Self {
        Self::Jar { model: model.to_owned(), jar: plain(jar) }
    }

    /// Something that is no jar.
    pub fn of_source(name: &str) -> Self {
        Self::Source(plain(name).chars().take(MAX_SAID).collect())
    }

    fn parse(said: &str) -> Self {
        match said.split_once(" in ").filter(|(model, _)| !model.contains(' ')) {
            Some((model, jar)) if jar.ends_with("jar.toml") => Self::of_jar(model, jar),
            _ => Self::Source(said.to_owned()),
        }
    }
}

/// A text without anything that could end a comment, or stand in it unseen.
fn plain(text: &str) -> String {
    let is_plain = |c: char| c.is_alphanumeric() || " ._-/#~$".contains(c);
    text.chars().map(|c| if is_plain(c) { c } else { '_' }).collect()
}

/// Whether files that are grown with these settings say so.
pub fn is_marked(settings: &Settings) -> bool {
    MARK.of(settings)
}

/// Code with a first line that says where it comes from; with a seal where it is said from what.
pub fn marked(language: &dyn Language, code: &str, from: Option<&Provenance>) -> String {
    let [before, end, end_with_seal] = language.about().mark;
    match from {
        None => format!("{before}{SAID}{end}\n\n{code}"),
        Some(from) => format!("{before}{SAID}: {from}, {}{end_with_seal}\n\n{code}", seal(code)),
    }
}

/// Where a file's text comes from.
pub fn origin(text: &str) -> Origin {
    let (first, code) = text.split_once('\n').unwrap_or((text, ""));
    let Some((_, said)) = first.split_once(SAID) else { return Origin::Foreign };
    // What stands behind the mark has no comma.
    let sealed = said.strip_prefix(": ").and_then(|said| said.rsplit_once(", "));
    match sealed {
        Some((from, found)) if found.split(['.', ';']).next() == Some(&seal(code)) => {
            Origin::Grown(Provenance::parse(from))
        }
        Some(_) => Origin::Changed,
        None if said.starts_with('.') => Origin::Changed,
        None => Origin::Foreign,
    }
}

/// Whether two texts differ in nothing but their white space, which formatters and version control may change.
pub fn is_same_code(a: &str, b: &str) -> bool {
    without_space(a).eq(without_space(b))
}

fn seal(code: &str) -> String {
    let mut hasher = crc32fast::Hasher::new();
    code.split_whitespace().for_each(|part| hasher.update(part.as_bytes()));
    format!("{:08x}", hasher.finalize())
}

fn without_space(text: &str) -> impl Iterator<Item = char> {
    text.chars().filter(|c| !c.is_whitespace())
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::languages::LANGUAGES;

    const CODE: &str = "package x\n\nclass Hive {\n  val kg = 1\n}\n";

    #[test]
    fn a_seal_is_known_again() {
        for language in LANGUAGES {
            for from in [Provenance::of_jar("hives", "../jar.toml"), Provenance::of_source("hives.json")] {
                let text = marked(*language, CODE, Some(&from));
                let grown = Origin::Grown(from);
                assert_eq!(origin(&text), grown, "{text}");
                assert_eq!(origin(&text.replace('\n', "\r\n")), grown);
                assert_eq!(origin(&text.replace("  val kg = 1", "\tval kg=1")), grown, "a formatter's");
                assert_eq!(origin(&text.replace("kg = 1", "kg = 2")), Origin::Changed);
            }
        }
    }

    #[test]
    fn what_has_no_seal_is_a_persons() {
        for language in LANGUAGES {
            assert_eq!(origin(&marked(*language, CODE, None)), Origin::Changed);
        }
        for text in ["", CODE, "package x\n// @generated by jar-sprout grow.\n", "// by jar-sprout growers\n"]
        {
            assert_eq!(origin(text), Origin::Foreign, "{text:?}");
        }
    }

    #[test]
    fn nothing_in_a_name_ends_the_line() {
        let evil = "a\\u000aclass Evil {}\n*/ evil() /*\u{2028}\u{202e}, 00000000. in jar.toml";
        for language in LANGUAGES {
            for from in [Provenance::of_source(evil), Provenance::of_jar("hives", evil)] {
                let text = marked(*language, CODE, Some(&from));
                let (first, rest) = text.split_once('\n').unwrap();
                assert!(!first.contains(['\\', '*', '\u{2028}', '\u{202e}']), "{first}");
                assert_eq!(rest.trim_start(), CODE);
                assert!(matches!(origin(&text), Origin::Grown(_)), "{first}");
            }
        }
    }
}
