//! What may not be written down.

use std::collections::BTreeMap;

use thiserror::Error;

use crate::placeholders::Template;

/// The fewest characters of a value that is looked for in texts: a shorter one would stand anywhere.
const SHORTEST: usize = 4;

/// Values that went out and that nobody may see, each with what stands for it.
#[derive(Default)]
pub struct Secrets {
    /// By value.
    known: BTreeMap<String, String>,
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
        }
    }

    /// A text in which nothing secret stands, neither as it is nor as an address has it (RFC 3986, section 2.1).
    pub fn masked(&self, text: &str) -> String {
        let mut text = text.to_owned();
        // The longest first: one may be a part of another.
        let mut all: Vec<(&String, &String)> = self.known.iter().collect();
        all.sort_by_key(|(value, _)| std::cmp::Reverse(value.len()));
        for (value, shown) in all {
            let encoded: String = url::form_urlencoded::byte_serialize(value.as_bytes()).collect();
            let in_path = percent_encoding::utf8_percent_encode(value, percent_encoding::NON_ALPHANUMERIC);
            for form in [value.clone(), encoded, in_path.to_string()] {
                text = text.replace(&form, shown);
            }
        }
        text
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
    words.any(|word| WORDS.contains(&word))
        || ["apikey", "accesskey", "token", "secret", "password"].iter().any(|end| name.ends_with(end))
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
        assert_eq!(secrets.masked("https://x.example/b33s%20%26%20more"), "https://x.example/${HIVES_TOKEN}");
        let other = Template::parse("${OTHER}").expect("it is one");
        assert_eq!(secrets.fill(&other, &lookup), Err(Unset { name: "OTHER".to_owned() }));
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
