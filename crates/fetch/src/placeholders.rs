//! Texts with `${NAME}` in them, which stand for what nobody should write down.

use thiserror::Error;

/// A text with placeholders: `Token ${HIVES_TOKEN}`.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Template(Vec<Piece>);

#[derive(Debug, Clone, PartialEq, Eq)]
enum Piece {
    Text(String),
    /// The name between `${` and `}`.
    Placeholder(String),
}

/// A placeholder without an end, or with no name in it.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
#[error("a placeholder is `${{NAME}}`, of letters, digits and `_`")]
pub struct OpenPlaceholder {
    /// What stands from the `${` on.
    pub rest: String,
}

impl Template {
    /// Reads a text.
    ///
    /// # Errors
    /// A `${` that opens no placeholder.
    pub fn parse(text: &str) -> Result<Self, OpenPlaceholder> {
        let mut pieces = Vec::new();
        let mut rest = text;
        while let Some(start) = rest.find("${") {
            let (before, opened) = rest.split_at(start);
            let is_name = |name: &&str| {
                !name.is_empty() && name.bytes().all(|byte| byte.is_ascii_alphanumeric() || byte == b'_')
            };
            let end = opened.find('}');
            let name = end.map(|end| &opened[2..end]).filter(is_name);
            let (Some(name), Some(end)) = (name, end) else {
                return Err(OpenPlaceholder { rest: opened.to_owned() });
            };
            pieces.push(Piece::Text(before.to_owned()));
            pieces.push(Piece::Placeholder(name.to_owned()));
            rest = &opened[end + 1..];
        }
        pieces.push(Piece::Text(rest.to_owned()));
        Ok(Self(pieces))
    }

    /// The names of its placeholders.
    pub fn names(&self) -> impl Iterator<Item = &str> {
        self.0.iter().filter_map(|piece| match piece {
            Piece::Text(_) => None,
            Piece::Placeholder(name) => Some(name.as_str()),
        })
    }

    /// The text with its placeholders filled by what `value` has for them.
    pub(crate) fn filled<E>(&self, mut value: impl FnMut(&str) -> Result<String, E>) -> Result<String, E> {
        self.0.iter().try_fold(String::new(), |text, piece| {
            Ok(text
                + &match piece {
                    Piece::Text(text) => text.clone(),
                    Piece::Placeholder(name) => value(name)?,
                })
        })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn placeholders_are_found() {
        let names = |text: &str| -> Vec<String> {
            Template::parse(text).expect("it is one").names().map(str::to_owned).collect()
        };
        assert_eq!(names("Token ${HIVES_TOKEN}"), ["HIVES_TOKEN"]);
        assert_eq!(names("${A}-${B2}"), ["A", "B2"]);
        assert!(names("$5, {x} and $").is_empty());
        for text in ["${", "a ${A", "${}", "${A B}", "${A-B}"] {
            assert!(Template::parse(text).is_err(), "{text}");
        }
    }
}
