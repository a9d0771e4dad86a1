//! The endpoints of a recording: what was asked in the same way, and answered with the same thing.

use std::collections::{BTreeMap, BTreeSet};
use std::hash::{DefaultHasher, Hash as _, Hasher as _};

use serde_json::Value;

use super::operation::operation;
use super::paths::{Segment, holds_several, segments, template};
use super::read::{Exchange, Side};
use crate::literals::{unsaid_address, unsaid_value};
use crate::secrets::{Secrets, looks_secret};

/// How deep keys are looked at to tell whether two answers are of one kind.
const DEPTH: usize = 3;

/// The most keys that are looked at.
const MOST_KEYS: usize = 200;

/// So many parts of a path, from its start, are looked at for words that stand for one another.
const MOST_PARTS: usize = 16;

/// With fewer keys, nothing shows whether two answers are of one kind.
const FEWEST_KEYS: usize = 3;

/// What was asked in the same way, and its bodies.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Endpoint {
    /// The host, with its port where that is not the usual one.
    pub host: String,
    /// The method; empty of errors.
    pub method: String,
    /// The path as a template (RFC 6570): `/hives/{id}`; empty of errors.
    pub path: String,
    /// The name of the operation, of GraphQL.
    pub operation: Option<String>,
    /// Which bodies.
    pub side: Side,
    /// How often each status came.
    pub statuses: BTreeMap<u16, u64>,
    /// The length of the shortest body, in bytes.
    pub shortest: usize,
    /// The length of the longest body, in bytes.
    pub longest: usize,
    /// The numbers of the exchanges.
    pub exchanges: BTreeSet<u64>,
}

impl Endpoint {
    /// What it is called: `GET /hives/{id}`, `POST /hives request`, `errors`.
    pub fn name(&self) -> String {
        let Self { method, path, operation, side, .. } = self;
        let operation = operation.as_ref().map(|name| format!(" {name}")).unwrap_or_default();
        match side {
            Side::Answer => format!("{method} {path}{operation}"),
            Side::Request => format!("{method} {path}{operation} request"),
            Side::Error => "errors".to_owned(),
        }
    }

    /// The same with the host: `GET honey.example/hives/{id}`.
    pub fn name_with_host(&self) -> String {
        match self.side {
            Side::Error => format!("{} errors", self.host),
            Side::Answer | Side::Request => {
                self.name().replacen(&format!(" {}", self.path), &format!(" {}{}", self.host, self.path), 1)
            }
        }
    }
}

/// What a recording holds.
pub struct Survey {
    /// How many exchanges there are.
    pub exchanges: u64,
    /// Those that have JSON, by host, path and method.
    pub endpoints: Vec<Endpoint>,
    /// What stands in headers, cookies and queries that nobody should see.
    pub secrets: Secrets,
}

/// Looks at one exchange after the other.
#[derive(Default)]
pub struct Surveyor {
    exchanges: u64,
    groups: BTreeMap<Key, Group>,
    secrets: Secrets,
}

#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
struct Key {
    host: String,
    segments: Vec<Segment>,
    operation: Option<String>,
    method: String,
    side: Side,
}

#[derive(Default)]
struct Group {
    statuses: BTreeMap<u16, u64>,
    /// None before the first body.
    lengths: Option<(usize, usize)>,
    exchanges: BTreeSet<u64>,
    keys: BTreeSet<u64>,
}

impl Surveyor {
    /// Looks at an exchange.
    pub fn add(&mut self, number: u64, exchange: &Exchange) {
        self.exchanges += 1;
        self.learn_secrets(exchange);
        let operation = operation(exchange);
        for side in [Side::Answer, Side::Request, Side::Error] {
            let Some(text) = exchange.sample(side) else { continue };
            // The query of an operation is no data of the API's.
            if side == Side::Request && operation.is_some() {
                continue;
            }
            let key = match side {
                Side::Answer | Side::Request => Key {
                    host: host_of(exchange),
                    segments: segments(&exchange.url),
                    operation: operation.clone(),
                    method: exchange.method.clone(),
                    side,
                },
                Side::Error => Key {
                    host: host_of(exchange),
                    segments: Vec::new(),
                    operation: None,
                    method: String::new(),
                    side,
                },
            };
            let group = self.groups.entry(key).or_default();
            *group.statuses.entry(exchange.status).or_default() += 1;
            let (shortest, longest) = group.lengths.unwrap_or((text.len(), text.len()));
            group.lengths = Some((shortest.min(text.len()), longest.max(text.len())));
            group.exchanges.insert(number);
            if side != Side::Error && group.keys.len() < MOST_KEYS {
                let values = serde_json::Deserializer::from_str(&text).into_iter::<Value>();
                values.take(1).flatten().for_each(|value| collect_keys(&value, 0, 0, &mut group.keys));
            }
        }
    }

    /// What is secret in headers and addresses stands in no sample.
    fn learn_secrets(&mut self, exchange: &Exchange) {
        let headers = exchange.headers.iter().flat_map(|(name, value)| {
            // Of `Set-Cookie: sid=abc; Path=/` the value alone comes back (RFC 6265, section 4.1).
            let values: Vec<&str> = match name.to_ascii_lowercase().as_str() {
                "cookie" => value.split(';').map(value_of_cookie).collect(),
                "set-cookie" => value.split(';').take(1).map(value_of_cookie).collect(),
                _ => vec![value],
            };
            values.into_iter().map(|value| unsaid_value(name, value)).collect::<Vec<_>>()
        });
        for unsaid in headers.chain([unsaid_address(exchange.url.as_str())]) {
            for (name, value) in unsaid.secrets {
                let value = percent_encoding::percent_decode_str(&value).decode_utf8_lossy();
                // A word that stands in a cookie may stand anywhere.
                if looks_secret(&value) {
                    self.secrets.add(&value, &format!("${{{name}}}"));
                }
            }
        }
    }

    /// The endpoints: words in a path that stand for one another are taken together.
    pub fn finish(self) -> Survey {
        let mut groups = self.groups;
        let longest = groups.keys().map(|key| key.segments.len()).max().unwrap_or(0);
        for at in 1..longest.min(MOST_PARTS) {
            groups = joined_at(groups, at);
        }
        let endpoint = |(key, group): (Key, Group)| {
            let Key { host, segments, operation, method, side } = key;
            let path = if side == Side::Error { String::new() } else { template(&segments) };
            let Group { statuses, lengths, exchanges, keys: _ } = group;
            let (shortest, longest) = lengths.unwrap_or_default();
            Endpoint { host, method, path, operation, side, statuses, shortest, longest, exchanges }
        };
        let mut endpoints: Vec<Endpoint> = groups.into_iter().map(endpoint).collect();
        // Errors are looked at last.
        endpoints.sort_by_key(|endpoint| (endpoint.host.clone(), endpoint.side == Side::Error));
        Survey { exchanges: self.exchanges, endpoints, secrets: self.secrets }
    }
}

fn host_of(exchange: &Exchange) -> String {
    let host = exchange.url.host_str().unwrap_or_default();
    exchange.url.port().map_or_else(|| host.to_owned(), |port| format!("{host}:{port}"))
}

fn value_of_cookie(pair: &str) -> &str {
    pair.split_once('=').map_or(pair, |(_, value)| value).trim()
}

/// The keys of a value, each with those above it.
fn collect_keys(value: &Value, above: u64, depth: usize, keys: &mut BTreeSet<u64>) {
    match value {
        Value::Object(object) if depth < DEPTH => {
            for (key, value) in object {
                if keys.len() >= MOST_KEYS {
                    return;
                }
                let mut hasher = DefaultHasher::new();
                (above, key).hash(&mut hasher);
                let here = hasher.finish();
                keys.insert(here);
                collect_keys(value, here, depth + 1, keys);
            }
        }
        Value::Array(items) => {
            items.iter().take(8).for_each(|item| collect_keys(item, above, depth, keys));
        }
        _ => {}
    }
}

/// The groups with those made one that differ in one part of the path, which says which of several is meant: they
/// answer with the same keys.
fn joined_at(groups: BTreeMap<Key, Group>, at: usize) -> BTreeMap<Key, Group> {
    /// Kinds in one place; more than a few are not told apart.
    const MOST_KINDS: usize = 8;
    let mut joined: BTreeMap<Key, Group> = BTreeMap::new();
    let mut rows: BTreeMap<Key, Vec<(Key, Group)>> = BTreeMap::new();
    for (key, group) in groups {
        match key.segments.get(at - 1).filter(|_| key.segments.len() > at) {
            Some(above) if holds_several(above) => {
                let mut row = key.clone();
                row.segments[at] = Segment::Which;
                rows.entry(row).or_default().push((key, group));
            }
            Some(_) | None => drop(joined.insert(key, group)),
        }
    }
    for (row, members) in rows {
        let mut kinds: Vec<(Key, Group)> = Vec::new();
        // What is known to be one of several comes first.
        let (which, words): (Vec<_>, Vec<_>) = members.into_iter().partition(|(key, _)| *key == row);
        for (key, group) in which.into_iter().chain(words) {
            match kinds.iter().position(|(_, kind)| are_alike(&kind.keys, &group.keys)) {
                Some(at) => {
                    let (same, kind) = &mut kinds[at];
                    same.clone_from(&row);
                    kind.join(group);
                }
                None if kinds.len() < MOST_KINDS => kinds.push((key, group)),
                None => drop(joined.insert(key, group)),
            }
        }
        for (key, group) in kinds {
            joined.entry(key).or_default().join(group);
        }
    }
    joined
}

/// Whether two answers have so many keys in common that they are of one kind.
fn are_alike(one: &BTreeSet<u64>, other: &BTreeSet<u64>) -> bool {
    let shared = one.intersection(other).count();
    let all = one.len() + other.len() - shared;
    shared >= FEWEST_KEYS && shared * 5 >= all * 4
}

impl Group {
    fn join(&mut self, other: Self) {
        let Self { statuses, lengths, exchanges, keys } = other;
        statuses.into_iter().for_each(|(status, count)| *self.statuses.entry(status).or_default() += count);
        self.lengths = match (self.lengths, lengths) {
            (Some((a, b)), Some((c, d))) => Some((a.min(c), b.max(d))),
            (one, other) => one.or(other),
        };
        self.exchanges.extend(exchanges);
        self.keys.extend(keys);
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;
    use serde_json::json;
    use url::Url;

    use super::super::read::{Body, read_recording};
    use super::*;

    /// A recording of these: method, address, status, what was sent, what came back.
    fn survey(exchanges: &[(&str, &str, u16, &str, &str)]) -> Survey {
        let entry = |(method, url, status, sent, came): &(&str, &str, u16, &str, &str)| {
            json!({
                "request": {"method": method, "url": url, "headers": [], "postData": {"mimeType": "", "text": sent}},
                "response": {"status": status, "headers": [], "content": {"mimeType": "", "text": came}},
            })
        };
        let entries: Vec<Value> = exchanges.iter().map(entry).collect();
        let text = json!({"log": {"entries": entries}}).to_string();
        let mut surveyor = Surveyor::default();
        read_recording(text.as_bytes(), &mut |number, exchange| {
            surveyor.add(number, &exchange);
            true
        })
        .expect("it is one");
        surveyor.finish()
    }

    #[track_caller]
    fn check(exchanges: &[(&str, &str, u16, &str, &str)], expected: &[&str]) {
        let survey = survey(exchanges);
        let told = |endpoint: &Endpoint| format!("{} {}", endpoint.name(), endpoint.exchanges.len());
        assert_eq!(survey.endpoints.iter().map(told).collect::<Vec<_>>(), expected);
    }

    const HIVE: &str = "{\"id\": 17, \"name\": \"a\", \"queen\": {\"year\": 2026}}";

    #[test]
    fn what_is_asked_in_the_same_way_is_one_endpoint() {
        check(
            &[
                ("GET", "https://honey.example/hives/17", 200, "", HIVE),
                ("GET", "https://honey.example/hives/95?full=1", 200, "", HIVE),
                ("GET", "https://honey.example/hives/1", 404, "", "{\"error\": 1}"),
                ("GET", "https://honey.example/queens/1", 500, "", "{\"error\": 1}"),
                ("POST", "https://honey.example/hives", 201, "{\"name\": 1}", HIVE),
                ("GET", "https://honey.example/logo.png", 200, "", "PNG"),
                ("GET", "https://other.example/hives", 304, "", ""),
            ],
            &["POST /hives 1", "POST /hives request 1", "GET /hives/{id} 2", "errors 2"],
        );
    }

    #[test]
    fn words_that_stand_for_one_another_are_one_endpoint() {
        let list = "{\"count\": 1, \"next\": null, \"results\": [{\"a\": 1, \"b\": 1, \"c\": 1, \"d\": 1}]}";
        let other = "{\"count\": 1, \"next\": null, \"results\": [{\"e\": 1, \"f\": 1, \"g\": 1, \"h\": 1}]}";
        check(
            &[
                ("GET", "https://honey.example/hives/alder-bank", 200, "", HIVE),
                ("GET", "https://honey.example/hives/stone-hill", 200, "", HIVE),
                ("GET", "https://honey.example/hives/17", 200, "", HIVE),
                (
                    "GET",
                    "https://honey.example/hives/statistics",
                    200,
                    "",
                    "{\"mean\": 1, \"n\": 2, \"max\": 3}",
                ),
                ("GET", "https://honey.example/api/hives", 200, "", list),
                ("GET", "https://honey.example/api/queens", 200, "", other),
                ("GET", "https://honey.example/api/jars", 200, "", list),
            ],
            &[
                "GET /api/hives 1",
                "GET /api/jars 1",
                "GET /api/queens 1",
                "GET /hives/statistics 1",
                "GET /hives/{id} 3",
            ],
        );
    }

    #[test]
    fn operations_are_endpoints_of_their_own() {
        let query =
            |name: &str| json!({"operationName": name, "query": "query X { hives { id } }"}).to_string();
        check(
            &[
                ("POST", "https://honey.example/graphql", 200, &query("Hives"), "{\"data\": {}}"),
                ("POST", "https://honey.example/graphql", 200, &query("Queens"), "{\"data\": {}}"),
                ("POST", "https://honey.example/graphql", 200, "{\"query\": \"{ jars }\"}", "{\"data\": {}}"),
                ("GET", "https://honey.example/graphql?operationName=Hives", 200, "", "{\"data\": {}}"),
                ("GET", "https://honey.example/search?query=honey", 200, "", "[]"),
            ],
            &[
                "GET /graphql Hives 1",
                "POST /graphql Hives 1",
                "POST /graphql Queens 1",
                "POST /graphql jars 1",
                "GET /search 1",
            ],
        );
    }

    #[test]
    fn a_host_may_be_named_as_well() {
        let survey = survey(&[
            ("GET", "http://127.0.0.1:8000/hives", 200, "", "[]"),
            ("GET", "http://127.0.0.1:8000/x", 400, "", "{}"),
        ]);
        let names: Vec<String> = survey.endpoints.iter().map(Endpoint::name_with_host).collect();
        assert_eq!(names, ["GET 127.0.0.1:8000/hives", "127.0.0.1:8000 errors"]);
        let [endpoint, _] = &survey.endpoints[..] else { panic!("two") };
        assert_eq!(
            (endpoint.shortest, endpoint.longest, &endpoint.statuses),
            (2, 2, &BTreeMap::from([(200, 1)]))
        );
    }

    #[test]
    fn secrets_are_learnt() {
        let body = |text: &str| Body::of_text(text);
        let exchange = Exchange {
            method: "GET".to_owned(),
            url: Url::parse("https://honey.example/hives?token=qu3ry-of-hives").expect("it is one"),
            started: String::new(),
            status: 200,
            request: None,
            answer: Some(body("{}")),
            headers: [
                ("authorization", "Bearer h3ader-of-hives"),
                ("Cookie", "theme=dark; sid=c00kie-of-hives"),
                ("Set-Cookie", "sid=n3xt-of-hives; Path=/hives"),
                ("Accept", "application/json"),
            ]
            .map(|(name, value)| (name.to_owned(), value.to_owned()))
            .to_vec(),
        };
        let mut surveyor = Surveyor::default();
        surveyor.add(1, &exchange);
        let secrets = surveyor.finish().secrets;
        let masked =
            secrets.masked("qu3ry-of-hives h3ader-of-hives c00kie-of-hives n3xt-of-hives dark /hives");
        assert_eq!(masked, "${TOKEN} ${AUTHORIZATION} ${COOKIE} ${SET_COOKIE} dark /hives");
    }

    proptest! {
        /// Whatever stands in a recording, it is read or refused, and nothing of an endpoint's name goes past a line.
        #[test]
        fn garbage_is_read_or_refused(
            url in "https://[a-z]{1,5}\\.example/[!-~]{0,30}|\\PC{0,20}",
            text in "\\PC{0,30}|[{}\\[\\]\":,a1]{0,20}",
            kind in "application/json|\\PC{0,10}",
            encoding in "base64|gzip|\\PC{0,5}",
            at in any::<prop::sample::Index>(),
        ) {
            let body = json!({"mimeType": kind, "text": text, "encoding": encoding});
            let whole = json!({"log": {"entries": [{
                "request": {"method": "POST", "url": url, "headers": [{"name": "Cookie", "value": text}], "postData": body},
                "response": {"status": 200, "headers": [{"name": "content-encoding", "value": encoding}], "content": body},
            }]}}).to_string();
            let cut = whole.char_indices().nth(at.index(whole.chars().count())).map_or(0, |(start, _)| start);
            for text in [whole.as_str(), &whole[..cut]] {
                let mut surveyor = Surveyor::default();
                let _ = read_recording(text.as_bytes(), &mut |number, exchange| {
                    surveyor.add(number, &exchange);
                    let _ = exchange.harmless_sample(Side::Request);
                    true
                });
                for endpoint in surveyor.finish().endpoints {
                    prop_assert!(!endpoint.name().contains('\n'));
                    prop_assert!(!endpoint.model_name().to_string().is_empty());
                }
            }
        }
    }
}
