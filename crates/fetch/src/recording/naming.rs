//! What the models of an endpoint's bodies are called.

use jar_sprout_model::Words;
use jar_sprout_settle::{root_name, singular};

use super::endpoints::Endpoint;
use super::read::Side;
use crate::records::thing;

impl Endpoint {
    /// What its bodies are about, and whether each is one of several things: `hives` of `GET /hives`, and one of them of
    /// `GET /hives/{id}`.
    pub fn thing(&self) -> (String, bool) {
        match (&self.operation, self.side) {
            (_, Side::Error) => ("api error".to_owned(), false),
            (Some(operation), _) => (operation.clone(), false),
            (None, Side::Answer | Side::Request) => thing(&format!("https://{}{}", self.host, self.path)),
        }
    }

    /// What a model of it is called: `hives`, `hive`, `new hive`, `hive update`.
    pub fn model_name(&self) -> Words {
        let (words, is_one) = self.thing();
        let thing = root_name([words.as_str()], None, false);
        let one = singular(&thing);
        let is_list = one != thing && !is_one;
        let thing = if is_one { one.clone() } else { thing };
        let before = |word: &str| one.prefixed(&Words::split(word));
        match (self.side, self.method.as_str()) {
            (Side::Error, _) => thing,
            (_, _) if self.operation.is_some() => thing,
            (Side::Answer, "POST") if is_list => before("created"),
            (Side::Answer, "PUT" | "PATCH") if is_one => before("updated"),
            (Side::Answer, "DELETE") if is_one => before("deleted"),
            (Side::Answer, _) => thing,
            (Side::Request, "POST") if is_list => before("new"),
            (Side::Request, "PUT") => one.with_word("update"),
            (Side::Request, "PATCH") => one.with_word("changes"),
            (Side::Request, _) => thing.with_word("request"),
        }
    }

    /// What its root type is called, where the names of the samples do not say it.
    pub fn root_name(&self) -> Option<Words> {
        let (_, is_one) = self.thing();
        let is_said =
            self.side == Side::Answer && self.method == "GET" && self.operation.is_none() && !is_one;
        (!is_said).then(|| self.model_name())
    }

    /// What else it may be called where others of a recording have that name, the best one first: `apiary hives`,
    /// `search post`, `honey example hives`. With them all taken, nothing but a number is left.
    pub fn other_names(&self, all: &[&Self]) -> Vec<Words> {
        let best = self.model_name();
        let is_here = |other: &&&Self| (&other.host, &other.path) == (&self.host, &self.path);
        let has_methods = all.iter().filter(is_here).any(|other| other.method != self.method);
        let above: Vec<String> = self.parents().iter().map(ToString::to_string).collect();
        let mut names = Vec::new();
        if !above.is_empty() {
            names.push(best.prefixed(&Words::split(&above.join(" "))));
        }
        if has_methods {
            names.push(best.with_word(&self.method.to_lowercase()));
        }
        names.push(best.prefixed(&Words::split(&self.host)));
        names
    }

    /// What stands above the thing in the path: `apiary` of `/v1/apiaries/{apiary_id}/hives`.
    fn parents(&self) -> Vec<Words> {
        let words = self.path.split('/').filter(|part| !part.is_empty() && !part.starts_with('{'));
        let words: Vec<Words> = words.map(Words::split).collect();
        let above = words.split_last().map_or(&[][..], |(_, above)| above);
        // What is no list is a version, or where the API is.
        above
            .iter()
            .map(|word| (word, singular(word)))
            .filter(|(word, one)| *word != one)
            .map(|(_, one)| one)
            .collect()
    }
}
#[cfg(test)]
mod tests {
    use std::collections::{BTreeMap, BTreeSet};

    use super::*;

    #[track_caller]
    fn check(method: &str, path: &str, operation: Option<&str>, side: Side, expected: &str) {
        let endpoint = Endpoint {
            host: "honey.example".to_owned(),
            method: method.to_owned(),
            path: path.to_owned(),
            operation: operation.map(str::to_owned),
            side,
            statuses: BTreeMap::new(),
            shortest: 0,
            longest: 0,
            exchanges: BTreeSet::new(),
        };
        assert_eq!(endpoint.model_name().to_string(), expected);
    }

    #[test]
    fn models_are_called_by_what_is_done() {
        check("GET", "/v2/hives", None, Side::Answer, "hives");
        check("GET", "/v2/hives/{id}", None, Side::Answer, "hive");
        check("GET", "/hives/{id}/queen", None, Side::Answer, "queen");
        check("POST", "/hives", None, Side::Answer, "created hive");
        check("POST", "/hives", None, Side::Request, "new hive");
        check("POST", "/search", None, Side::Answer, "search");
        check("POST", "/search", None, Side::Request, "search request");
        check("PUT", "/hives/{id}", None, Side::Request, "hive update");
        check("PATCH", "/hives/{id}", None, Side::Request, "hive changes");
        check("PATCH", "/hives/{id}", None, Side::Answer, "updated hive");
        check("POST", "/graphql", Some("HivesOfApiary"), Side::Answer, "hives of apiary");
        check("", "", None, Side::Error, "api error");
    }
}
