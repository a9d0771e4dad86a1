//! Addresses with variables (RFC 6570): `{id}` of level 1, and `{?query*}` for all parameters.

use std::collections::BTreeSet;

use jar_sprout_shape::{Path, Step};
use percent_encoding::{AsciiSet, NON_ALPHANUMERIC, utf8_percent_encode};
use serde_json::Value;
use thiserror::Error;

/// What stands for itself in an address (RFC 3986, section 2.3).
const ESCAPED: &AsciiSet = &NON_ALPHANUMERIC.remove(b'-').remove(b'.').remove(b'_').remove(b'~');

/// An address with variables: `https://honey.example/hives/{id}{?query*}`.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct AddressTemplate(Vec<Piece>);

#[derive(Debug, Clone, PartialEq, Eq)]
enum Piece {
    Text(String),
    Variable(String),
    /// All parameters that were given.
    Query,
}

/// What is no template.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
#[error("`{0}` is no variable: there are `{{name}}` and `{{?query*}}`")]
pub struct NoVariable(pub String);

impl AddressTemplate {
    /// Reads an address; `${NAME}` in it stands for a secret, and is no variable.
    ///
    /// # Errors
    /// A brace that opens no variable.
    pub fn parse(text: &str) -> Result<Self, NoVariable> {
        let mut pieces = Vec::new();
        let mut written = String::new();
        let mut rest = text;
        while let Some(start) = rest.find('{') {
            let (before, opened) = rest.split_at(start);
            written.push_str(before);
            if before.ends_with('$') {
                written.push('{');
                rest = &opened[1..];
                continue;
            }
            let end = opened.find('}').ok_or_else(|| NoVariable(opened.to_owned()))?;
            let name = &opened[1..end];
            rest = &opened[end + 1..];
            pieces.push(Piece::Text(std::mem::take(&mut written)));
            let is_name = !name.is_empty() && name.bytes().all(|b| b.is_ascii_alphanumeric() || b == b'_');
            pieces.push(match name {
                "?query*" => Piece::Query,
                name if is_name => Piece::Variable(name.to_owned()),
                _ => return Err(NoVariable(opened[..=end].to_owned())),
            });
        }
        written.push_str(rest);
        pieces.push(Piece::Text(written));
        Ok(Self(pieces))
    }

    /// The names of its variables.
    pub fn variables(&self) -> BTreeSet<&str> {
        let names = self.0.iter().filter_map(|piece| match piece {
            Piece::Variable(name) => Some(name.as_str()),
            Piece::Text(_) | Piece::Query => None,
        });
        names.collect()
    }

    /// The address with a value for each variable; what is missing is nothing (RFC 6570, section 3.2.1).
    pub fn expanded(&self, value: &dyn Fn(&str) -> Option<String>) -> String {
        let pieces = self.0.iter().map(|piece| match piece {
            Piece::Text(text) => text.clone(),
            Piece::Variable(name) => {
                utf8_percent_encode(&value(name).unwrap_or_default(), ESCAPED).to_string()
            }
            // They are added to any address.
            Piece::Query => String::new(),
        });
        pieces.collect()
    }
}

/// The texts and numbers at a path of a sample, each once, in their order.
pub fn values_at(sample: &Value, path: &Path) -> Vec<String> {
    fn collect(value: &Value, steps: &[Step], found: &mut Vec<String>) {
        match (steps.split_first(), value) {
            (None, Value::String(text)) => found.push(text.clone()),
            (None, Value::Number(number)) => found.push(number.to_string()),
            (Some((Step::Child(key), rest)), Value::Object(object)) => {
                object.get(key).into_iter().for_each(|value| collect(value, rest, found));
            }
            (Some((Step::All, rest)), Value::Array(items)) => {
                items.iter().for_each(|value| collect(value, rest, found));
            }
            (Some((Step::All, rest)), Value::Object(object)) => {
                object.values().for_each(|value| collect(value, rest, found));
            }
            _ => {}
        }
    }
    let mut found = Vec::new();
    collect(sample, &path.0, &mut found);
    let mut seen = BTreeSet::new();
    found.retain(|value| seen.insert(value.clone()));
    found
}

#[cfg(test)]
mod tests {
    use serde_json::json;

    use super::*;

    #[test]
    fn variables_are_filled() {
        let template =
            AddressTemplate::parse("https://honey.example/${KEY}/hives/{id}{?query*}").expect("it is one");
        assert_eq!(template.variables(), BTreeSet::from(["id"]));
        let value = |_: &str| Some("a b/ü".to_owned());
        assert_eq!(template.expanded(&value), "https://honey.example/${KEY}/hives/a%20b%2F%C3%BC");
        assert_eq!(template.expanded(&|_| None), "https://honey.example/${KEY}/hives/");
        for text in ["{", "{}", "{+id}", "{id*}", "{a b}", "x{?a}"] {
            assert!(AddressTemplate::parse(text).is_err(), "{text}");
        }
    }

    #[test]
    fn values_are_found_once() {
        let sample =
            json!({"hives": [{"id": 17}, {"id": "x"}, {"id": 17}, {"id": null}, {}], "by": {"a": {"id": 1}}});
        let at = |path: &str| values_at(&sample, &Path::parse(path).expect("it is one"));
        assert_eq!(at("$.hives[*].id"), ["17", "x"]);
        assert_eq!(at("$.by.*.id"), ["1"]);
        assert!(at("$.none[*]").is_empty());
    }
}
