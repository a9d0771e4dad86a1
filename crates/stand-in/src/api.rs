//! The API: what it has, and what it answers.

use std::io::Write as _;

use flate2::Compression;
use flate2::write::GzEncoder;
use serde_json::{Value, json};
use url::Url;

use crate::document::document;
use crate::pages::Pages;
use crate::path::Template;
use crate::resource::{Held, Resource};

/// Where the document of the API is.
const DOCUMENT: &str = "/openapi.json";

/// Of so many requests, an API that is flaky refuses the last one.
const FLAKY_EVERY: u64 = 4;

/// The shortest body that is packed, in bytes.
const PACKED_FROM: usize = 256;

/// What a request asks for.
#[derive(Debug, Clone, Copy)]
pub struct Asked<'r> {
    /// The method, in capitals (RFC 9110, section 9).
    pub method: &'r str,
    /// The path and the query.
    pub target: &'r str,
    /// Names and values of its headers.
    pub headers: &'r [(&'r str, &'r str)],
}

/// What goes out.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Answer {
    /// The status (RFC 9110, section 15).
    pub status: u16,
    /// Names and values of its headers, but for the length.
    pub headers: Vec<(&'static str, String)>,
    /// The body; empty of an answer to `HEAD`.
    pub body: Vec<u8>,
}

/// A small API that answers with samples.
#[derive(Debug, Clone, Default)]
pub struct Api {
    /// What it is called.
    pub title: String,
    /// What it has.
    pub resources: Vec<Resource>,
    /// The key that is wanted, where one is.
    pub key: Option<String>,
    /// Whether it refuses a request now and then.
    pub is_flaky: bool,
    /// How many items a page has; as many as in the samples where nothing is said.
    pub page_size: Option<usize>,
}

impl Api {
    /// The answer to a request, the `number`th from 1; `origin` is where the API listens, without a slash at its end.
    pub fn answer(&self, asked: Asked<'_>, number: u64, origin: &str) -> Answer {
        let answer = match Url::parse(origin).and_then(|origin| origin.join(asked.target)) {
            Ok(url) => self.answer_to(asked, number, origin, &url),
            Err(_) => Answer::problem(400, "this is no address"),
        };
        let answer = answer.packed(asked.header("accept-encoding"));
        if asked.method == "HEAD" { Answer { body: Vec::new(), ..answer } } else { answer }
    }

    fn answer_to(&self, asked: Asked<'_>, number: u64, origin: &str, url: &Url) -> Answer {
        if self.is_flaky && number.is_multiple_of(FLAKY_EVERY) {
            return Answer::problem(429, "too many requests; ask again in a second").with("Retry-After", "1");
        }
        if !self.is_known(asked, url) {
            let message = "a key is wanted: `Authorization: Bearer …`, `X-Key: …` or `?key=…`";
            return Answer::problem(401, message).with("WWW-Authenticate", "Bearer");
        }
        if url.path() == DOCUMENT {
            let document = document(&self.title, origin, &self.resources, self.key.is_some());
            return Answer::of(200, "application/json", &document.to_string());
        }
        let fits = |resource: &&Resource| Template::of(&resource.path).fits(url.path());
        let best = self.resources.iter().filter_map(|one| fits(&one)).max();
        let here: Vec<&Resource> =
            self.resources.iter().filter(|one| best.is_some() && fits(one) == best).collect();
        let method = if asked.method == "HEAD" { "GET" } else { asked.method };
        match (here.iter().find(|one| one.method == method), &here[..]) {
            (Some(resource), _) => self.give(resource, url),
            (None, []) => {
                let paths: Vec<&str> = self.resources.iter().map(|one| one.path.as_str()).collect();
                let body = json!({"error": "nothing is at this path", "paths": paths, "document": DOCUMENT});
                Answer::of(404, "application/json", &body.to_string())
            }
            (None, here) => {
                let methods: Vec<&str> = here.iter().map(|one| one.method.as_str()).collect();
                Answer::problem(405, "this is not how it is asked").with("Allow", &methods.join(", "))
            }
        }
    }

    /// Whether a request has the key, where one is wanted.
    fn is_known(&self, asked: Asked<'_>, url: &Url) -> bool {
        let Some(key) = &self.key else { return true };
        let in_headers = asked.headers.iter().any(|(name, value)| match name.to_ascii_lowercase().as_str() {
            // Of `Bearer abc`, the last word is the key.
            "authorization" => value.rsplit(' ').next() == Some(key),
            "x-key" | "x-api-key" | "x-token" => value == key,
            _ => false,
        });
        let is_key = |name: &str| matches!(name, "key" | "api_key" | "token");
        in_headers || url.query_pairs().any(|(name, value)| is_key(&name) && value == *key)
    }

    fn give(&self, resource: &Resource, url: &Url) -> Answer {
        let kind = resource.held.kind();
        let samples = match &resource.held {
            Held::Samples(samples) => samples,
            Held::Lines(lines) => {
                let text: String = lines.iter().map(|line| format!("{line}\n")).collect();
                return Answer::of(200, kind, &text);
            }
        };
        if let Some(pages) = &resource.pages {
            return self.page(pages, url);
        }
        let sample = match Template::of(&resource.path).which(url.path()) {
            Some(which) => one_of(samples, which),
            None => samples.last().cloned(),
        };
        match sample {
            Some(sample) => Answer::of(200, kind, &sample.to_string()),
            None => Answer::problem(404, "there is no such thing"),
        }
    }

    fn page(&self, pages: &Pages, url: &Url) -> Answer {
        let count = |wanted: &[&str]| -> Result<Option<usize>, Answer> {
            let found = url.query_pairs().find(|(name, _)| wanted.contains(&&**name));
            let Some((name, text)) = found else { return Ok(None) };
            match text.parse() {
                Ok(number) if number > 0 => Ok(Some(number)),
                _ => Err(Answer::problem(400, &format!("`{name}` is a number, 1 or more"))),
            }
        };
        let (number, size) = match (count(&["page"]), count(&["page_size", "per_page", "limit"])) {
            (Ok(number), Ok(size)) => (number.unwrap_or(1), size.or(self.page_size)),
            (Err(problem), _) | (_, Err(problem)) => return problem,
        };
        let address = |number: usize| {
            let mut next = url.clone();
            let others: Vec<(String, String)> = url
                .query_pairs()
                .filter(|(name, _)| name != "page")
                .map(|(n, v)| (n.into(), v.into()))
                .collect();
            next.query_pairs_mut().clear().extend_pairs(others).append_pair("page", &number.to_string());
            next.to_string()
        };
        let page = pages.page(number, size, &address);
        let answer = Answer::of(200, "application/json", &page.body.to_string());
        match page.next {
            Some(next) => answer.with("Link", &format!("<{}>; rel=\"next\"", address(next))),
            None => answer,
        }
    }
}

/// The sample of this id; another one with this id in its place, where it looks like theirs.
fn one_of(samples: &[Value], which: &str) -> Option<Value> {
    let id_of = |sample: &Value| match sample.get("id")? {
        Value::String(text) => Some(text.clone()),
        Value::Number(number) => Some(number.to_string()),
        _ => None,
    };
    if let Some(sample) = samples.iter().rev().find(|sample| id_of(sample).as_deref() == Some(which)) {
        return Some(sample.clone());
    }
    let mut sample = samples.last()?.clone();
    match sample.get_mut("id") {
        Some(id @ Value::Number(_)) => *id = which.parse::<u64>().ok()?.into(),
        Some(id @ Value::String(_)) => *id = which.into(),
        Some(_) | None => {}
    }
    Some(sample)
}

impl Asked<'_> {
    fn header(&self, wanted: &str) -> &str {
        let found = self.headers.iter().find(|(name, _)| name.eq_ignore_ascii_case(wanted));
        found.map_or("", |(_, value)| value)
    }
}

impl Answer {
    fn of(status: u16, kind: &str, text: &str) -> Self {
        Self { status, headers: vec![("Content-Type", kind.to_owned())], body: text.as_bytes().to_vec() }
    }

    /// An answer that says what is wrong.
    pub fn problem(status: u16, message: &str) -> Self {
        Self::of(status, "application/json", &json!({"error": message}).to_string())
    }

    fn with(mut self, name: &'static str, value: &str) -> Self {
        self.headers.push((name, value.to_owned()));
        self
    }

    /// The same with its body packed, if the request takes that (RFC 9110, section 12.5.3).
    fn packed(self, accepted: &str) -> Self {
        let takes = accepted.split(',').any(|one| {
            let (name, weight) = one.split_once(';').unwrap_or((one, ""));
            name.trim().eq_ignore_ascii_case("gzip") && weight.trim() != "q=0"
        });
        if !takes || self.body.len() < PACKED_FROM {
            return self;
        }
        let mut gzip = GzEncoder::new(Vec::new(), Compression::fast());
        let packed = gzip.write_all(&self.body).and_then(|()| gzip.finish());
        match packed {
            Ok(body) => Self { body, ..self }.with("Content-Encoding", "gzip"),
            Err(_) => self,
        }
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    const ORIGIN: &str = "http://127.0.0.1:8017";

    fn api() -> Api {
        let hives = json!({"count": 9, "next": null, "hives": [{"id": 17}, {"id": 95}, {"id": 96}]});
        let resource = |name: &str, method: &str, path: &str, samples: Vec<Value>| {
            Resource::new(name, method, path, Held::Samples(samples), None)
        };
        Api {
            title: "Honey".to_owned(),
            resources: vec![
                resource("hives", "GET", "/v1/hives", vec![hives]),
                resource(
                    "hive",
                    "GET",
                    "/v1/hives/{id}",
                    vec![json!({"id": 17, "a": 1}), json!({"id": 95, "a": 2})],
                ),
                resource("top", "get", "/v1/hives/top", vec![json!({"top": 1})]),
                resource("search", "POST", "/search", vec![json!({"found": "x".repeat(300)})]),
                Resource::new("events", "GET", "/events", Held::Lines(vec![json!(1), json!(2)]), None),
            ],
            page_size: Some(2),
            ..Api::default()
        }
    }

    fn ask(api: &Api, method: &str, target: &str, headers: &[(&str, &str)]) -> (u16, Value, Answer) {
        let answer = api.answer(Asked { method, target, headers }, 1, ORIGIN);
        (answer.status, serde_json::from_slice(&answer.body).unwrap_or_default(), answer)
    }

    #[test]
    fn samples_are_given_by_path() {
        let api = api();
        let body = |target: &str| ask(&api, "GET", target, &[]).1;
        assert_eq!(body("/v1/hives/17"), json!({"id": 17, "a": 1}));
        assert_eq!(body("/v1/hives/96"), json!({"id": 96, "a": 2}), "one that the list has");
        assert_eq!(body("/v1/hives/top"), json!({"top": 1}));
        let page = body("/v1/hives");
        assert_eq!(page["hives"], json!([{"id": 17}, {"id": 95}]));
        assert_eq!(page["next"], json!("http://127.0.0.1:8017/v1/hives?page=2"));
        assert_eq!(
            body("/v1/hives?page=2&page_size=1&x=y")["next"],
            json!("http://127.0.0.1:8017/v1/hives?page_size=1&x=y&page=3")
        );
        let (_, _, answer) = ask(&api, "GET", "/v1/hives", &[]);
        let link = ("Link", "<http://127.0.0.1:8017/v1/hives?page=2>; rel=\"next\"".to_owned());
        assert!(answer.headers.contains(&link), "{answer:?}");
        assert_eq!(ask(&api, "GET", "/events", &[]).2.body, b"1\n2\n");
        assert!(ask(&api, "HEAD", "/events", &[]).2.body.is_empty());
    }

    #[test]
    fn what_is_not_there_is_told() {
        let api = api();
        for (method, target, status) in [
            ("GET", "/none", 404),
            ("GET", "/v1/hives/none", 404),
            ("DELETE", "/v1/hives", 405),
            ("GET", "/search", 405),
            ("GET", "/v1/hives?page=0", 400),
            ("GET", "/v1/hives?page_size=x", 400),
            ("GET", "http://[", 400),
        ] {
            assert_eq!(ask(&api, method, target, &[]).0, status, "{method} {target}");
        }
        assert_eq!(ask(&api, "GET", "/none", &[]).1["paths"][0], json!("/v1/hives"));
        assert!(ask(&api, "GET", "/search", &[]).2.headers.contains(&("Allow", "POST".to_owned())));
    }

    #[test]
    fn a_key_is_wanted_where_one_is_set() {
        let api = Api { key: Some("b33s".to_owned()), ..api() };
        let status = |target: &str, headers: &[(&str, &str)]| ask(&api, "GET", target, headers).0;
        assert_eq!(status("/events", &[]), 401);
        assert_eq!(status("/events", &[("X-Key", "other")]), 401);
        assert_eq!(status("/openapi.json", &[]), 401);
        assert_eq!(status("/events", &[("authorization", "Token b33s")]), 200);
        assert_eq!(status("/events", &[("X-API-Key", "b33s")]), 200);
        assert_eq!(status("/events?key=b33s", &[]), 200);
    }

    #[test]
    fn now_and_then_it_refuses() {
        let api = Api { is_flaky: true, ..api() };
        let statuses: Vec<u16> = (1..=8)
            .map(|number| {
                api.answer(Asked { method: "GET", target: "/events", headers: &[] }, number, ORIGIN).status
            })
            .collect();
        assert_eq!(statuses, [200, 200, 200, 429, 200, 200, 200, 429]);
    }

    #[test]
    fn bodies_are_packed_for_those_who_take_it() {
        let packing = |accepted: &str| {
            let (_, _, answer) = ask(&api(), "POST", "/search", &[("Accept-Encoding", accepted)]);
            answer.headers.iter().any(|(name, _)| *name == "Content-Encoding")
        };
        assert!(packing("br, gzip;q=0.5"));
        assert!(!packing("gzip;q=0") && !packing("br") && !packing(""));
    }

    #[test]
    fn it_says_what_it_has() {
        let (_, document, _) = ask(&Api { key: None, ..api() }, "GET", "/openapi.json", &[]);
        assert_eq!(document["openapi"], json!("3.1.0"));
        let parameters = |path: &str| -> Vec<Value> {
            let all = document["paths"][path]["get"]["parameters"].as_array().cloned().unwrap_or_default();
            all.iter().map(|one| one["name"].clone()).collect()
        };
        assert_eq!(parameters("/v1/hives"), [json!("page"), json!("page_size")]);
        assert_eq!(parameters("/v1/hives/{id}"), [json!("id")]);
        assert_eq!(document["paths"]["/search"]["post"]["operationId"], json!("postSearch"));
    }

    proptest! {
        /// Whatever is asked, something is answered.
        #[test]
        fn every_request_has_an_answer(
            method in "[A-Z]{1,6}",
            target in "[ -~]{0,40}|/v1/hives[ -~]{0,20}",
            value in "\\PC{0,10}",
        ) {
            let headers = [("authorization", value.as_str()), ("accept-encoding", value.as_str())];
            let answer = api().answer(Asked { method: &method, target: &target, headers: &headers }, 1, ORIGIN);
            prop_assert!((200..500).contains(&answer.status));
        }
    }
}
