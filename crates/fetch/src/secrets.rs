//! What may not be written down.

use std::cell::OnceCell;
use std::collections::{BTreeMap, BTreeSet};

use aho_corasick::{AhoCorasick, MatchKind};
use thiserror::Error;

use crate::placeholders::Template;

/// The fewest characters of a value that is looked for in texts: a shorter one would stand anywhere.
const SHORTEST: usize = 4;

/// Values that went out and that nobody may see, each with what stands for it.
#[derive(Default)]
pub struct Secrets {
    /// By value.
    known: BTreeMap<String, String>,
    /// What finds them, with what stands for each of its patterns.
    finder: OnceCell<(Option<AhoCorasick>, Vec<String>)>,
}

/// A placeholder for which nothing is set.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
#[error("`{name}` is not set")]
pub struct Unset {
    /// The name.
    pub name: String,
}

impl Secrets {
    /// A text with its placeholders filled; what fills them is a secret from now on.
    ///
    /// # Errors
    /// A placeholder for which `lookup` has nothing.
    pub fn fill(
        &mut self,
        template: &Template,
        lookup: &dyn Fn(&str) -> Option<String>,
    ) -> Result<String, Unset> {
        template.filled(|name| {
            let value = lookup(name).ok_or_else(|| Unset { name: name.to_owned() })?;
            self.add(&value, &format!("${{{name}}}"));
            Ok(value)
        })
    }

    /// Makes a value a secret, which is shown as something else.
    pub fn add(&mut self, value: &str, shown: &str) {
        if value.chars().count() >= SHORTEST {
            self.known.insert(value.to_owned(), shown.to_owned());
            self.finder.take();
        }
    }

    /// A text in which nothing secret stands, neither as it is nor as an address has it (RFC 3986, section 2.1) or JSON
    /// (RFC 8259, section 7).
    pub fn masked(&self, text: &str) -> String {
        if self.known.is_empty() {
            return text.to_owned();
        }
        let (finder, shown) = self.finder.get_or_init(|| self.make_finder());
        // Where there are so many that nothing finds them all, nothing is said at all.
        finder.as_ref().map_or_else(|| "…".to_owned(), |finder| finder.replace_all(text, shown))
    }

    /// What finds all forms of all secrets, the longest of those that start at a place, and what stands for each of them.
    fn make_finder(&self) -> (Option<AhoCorasick>, Vec<String>) {
        let (mut forms, mut shown) = (Vec::new(), Vec::new());
        for (value, placeholder) in &self.known {
            let encoded: String = url::form_urlencoded::byte_serialize(value.as_bytes()).collect();
            let in_path = percent_encoding::utf8_percent_encode(value, percent_encoding::NON_ALPHANUMERIC);
            let in_json = serde_json::Value::from(value.as_str()).to_string();
            let in_json = in_json[1..in_json.len() - 1].to_owned();
            let with_slashes = in_json.replace('/', "\\/");
            let all = [value.clone(), encoded, in_path.to_string(), in_json, with_slashes];
            for form in all.into_iter().collect::<BTreeSet<String>>() {
                forms.push(form);
                shown.push(placeholder.clone());
            }
        }
        (AhoCorasick::builder().match_kind(MatchKind::LeftmostLongest).build(&forms).ok(), shown)
    }
}

/// Whether a header or a parameter of this name holds what only its owner should know.
pub fn is_secret_name(name: &str) -> bool {
    const WORDS: &[&str] = &[
        "apikey",
        "auth",
        "authorization",
        "cookie",
        "credential",
        "credentials",
        "key",
        "passwd",
        "password",
        "secret",
        "session",
        "sid",
        "sig",
        "signature",
        "token",
    ];
    let name = name.to_ascii_lowercase();
    let mut words = name.split(|c: char| !c.is_ascii_alphanumeric());
    words.any(|word| WORDS.contains(&word)) || is_credential(&name)
}

/// Whether a key of this name holds what proves who somebody is, and nothing else.
pub(crate) fn is_credential(name: &str) -> bool {
    let name = name.to_ascii_lowercase();
    ["apikey", "accesskey", "token", "secret", "password"].iter().any(|end| name.ends_with(end))
}

/// Whether a value may be a secret by itself: it is long, or of letters and digits, as no word of a language is.
pub(crate) fn looks_secret(value: &str) -> bool {
    let has = |is: fn(&char) -> bool| value.chars().any(|c| is(&c));
    let length = value.chars().count();
    length >= 20 || length >= 8 && has(char::is_ascii_digit) && has(char::is_ascii_alphabetic)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_fills_a_placeholder_is_shown_as_one() {
        let mut secrets = Secrets::default();
        let template = Template::parse("Token ${HIVES_TOKEN}").expect("it is one");
        let lookup = |name: &str| (name == "HIVES_TOKEN").then(|| "b33s & more".to_owned());
        assert_eq!(secrets.fill(&template, &lookup).as_deref(), Ok("Token b33s & more"));
        assert_eq!(secrets.masked("sent b33s & more"), "sent ${HIVES_TOKEN}");
        assert_eq!(
            secrets.masked("https://x.example/?k=b33s+%26+more"),
            "https://x.example/?k=${HIVES_TOKEN}"
        );
        secrets.add("a/b\"c", "${OTHER}");
        assert_eq!(secrets.masked(r#"["a\/b\"c", "a/b\"c"]"#), "[\"${OTHER}\", \"${OTHER}\"]");
        assert_eq!(secrets.masked("https://x.example/b33s%20%26%20more"), "https://x.example/${HIVES_TOKEN}");
        let other = Template::parse("${OTHER}").expect("it is one");
        assert_eq!(secrets.fill(&other, &lookup), Err(Unset { name: "OTHER".to_owned() }));
    }

    #[test]
    fn values_that_look_secret() {
        for value in ["c0mb-5e55ion", "b33s0ffennimarsh", "aVeryLongTokenOfLettersAlone"] {
            assert!(looks_secret(value), "{value}");
        }
        for value in ["dark", "Norway", "en-GB", "2026-05-01", "springtime", "p2"] {
            assert!(!looks_secret(value), "{value}");
        }
    }

    #[test]
    fn names_that_tell_of_secrets() {
        for name in [
            "Authorization",
            "X-Api-Key",
            "api_key",
            "apikey",
            "access_token",
            "Cookie",
            "sig",
            "clientSecret",
        ] {
            assert!(is_secret_name(name), "{name}");
        }
        for name in ["Accept", "page_size", "keyboard", "monkey", "q", "User-Agent", "design"] {
            assert!(!is_secret_name(name), "{name}");
        }
    }
}
