//! Reading a recording: an HTTP Archive (HAR 1.2), one exchange after the other, so that only one is in memory.

use std::fmt;
use std::io::Read;

use base64::prelude::{BASE64_STANDARD, Engine as _};
use serde::Deserialize;
use serde::de::{DeserializeSeed, Deserializer, IgnoredAny, MapAccess, SeqAccess, Visitor};
use serde_json::Value;
use url::Url;

use crate::answer::{Answer, answer};
use crate::literals::{unsaid_answer, unsaid_body};
use crate::packing::unpacked;

/// The most bytes that one body is unpacked to.
const MOST_BYTES: u64 = 256 << 20;

/// One request of a recording, and what came back.
#[derive(Debug, Clone, PartialEq)]
pub struct Exchange {
    /// The method, in capitals.
    pub method: String,
    /// The address, of http or https.
    pub url: Url,
    /// When it went out, as the recording has it (RFC 3339).
    pub started: String,
    /// The status of the answer; 0 where none came.
    pub status: u16,
    /// What was sent.
    pub request: Option<Body>,
    /// What came back.
    pub answer: Option<Body>,
    /// Headers and cookies of both, by name: what in them is secret stands in no sample.
    pub headers: Vec<(String, String)>,
}

/// Which bodies of an endpoint.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Side {
    /// What came back, with a status of success (RFC 9110, section 15.3).
    Answer,
    /// What was sent.
    Request,
    /// What came back with another status; those of one host are taken together.
    Error,
}

/// A body as a recording keeps it.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Body {
    /// What it says it is (RFC 9110, section 8.3).
    pub kind: String,
    text: String,
    is_base64: bool,
    packing: String,
}

impl Body {
    #[cfg(test)]
    pub(super) fn of_text(text: &str) -> Self {
        Self { kind: String::new(), text: text.to_owned(), is_base64: false, packing: String::new() }
    }

    /// It as a sample: JSON, or several values of it; none where it is something else.
    pub fn sample(&self) -> Option<String> {
        let bytes = match self.is_base64 {
            true => BASE64_STANDARD.decode(self.text.trim()).ok()?,
            false => self.text.clone().into_bytes(),
        };
        let json = |answer: Answer| (answer.ending != "yaml").then_some(answer.text);
        match answer(&self.kind, &bytes) {
            Ok(answer) => json(answer),
            // Some recorders keep it as it came.
            Err(_) if !self.packing.is_empty() => {
                let mut plain = Vec::new();
                let reader = unpacked(&self.packing, &bytes[..]).ok()?;
                reader.take(MOST_BYTES).read_to_end(&mut plain).ok()?;
                json(answer(&self.kind, &plain).ok()?)
            }
            Err(_) => None,
        }
    }
}

/// Reads a recording, and hands over each exchange with its number, from 1, while that answers with true.
///
/// # Errors
/// It is no JSON, or no recording.
pub fn read_recording(
    reader: impl Read,
    take: &mut dyn FnMut(u64, Exchange) -> bool,
) -> Result<(), serde_json::Error> {
    let mut json = serde_json::Deserializer::from_reader(reader);
    let mut entries = Entries { take, count: 0, is_over: false };
    match (&mut entries).deserialize(&mut json) {
        Err(_) if entries.is_over => Ok(()),
        other => other,
    }
}

/// Walks through `log` to `entries`, past everything else.
struct Entries<'t> {
    take: &'t mut dyn FnMut(u64, Exchange) -> bool,
    count: u64,
    /// Whether nobody wants more.
    is_over: bool,
}

impl<'de> DeserializeSeed<'de> for &mut Entries<'_> {
    type Value = ();

    fn deserialize<D: Deserializer<'de>>(self, deserializer: D) -> Result<(), D::Error> {
        deserializer.deserialize_any(self)
    }
}

impl<'de> Visitor<'de> for &mut Entries<'_> {
    type Value = ();

    fn expecting(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str("a recording: an object with a `log`, which has a list of `entries`")
    }

    fn visit_map<A: MapAccess<'de>>(self, mut map: A) -> Result<(), A::Error> {
        while let Some(key) = map.next_key::<String>()? {
            match key.as_str() {
                "log" | "entries" => map.next_value_seed(&mut *self)?,
                _ => drop(map.next_value::<IgnoredAny>()?),
            }
        }
        Ok(())
    }

    fn visit_seq<A: SeqAccess<'de>>(self, mut entries: A) -> Result<(), A::Error> {
        while let Some(entry) = entries.next_element::<Entry>()? {
            self.count += 1;
            let Some(exchange) = entry.into_exchange() else { continue };
            if !(self.take)(self.count, exchange) {
                self.is_over = true;
                return Err(serde::de::Error::custom("nobody wants more"));
            }
        }
        Ok(())
    }
}

#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
struct Entry {
    #[serde(default)]
    started_date_time: Value,
    request: Request,
    response: Option<Response>,
}

#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
struct Request {
    method: String,
    url: String,
    headers: Option<Vec<Pair>>,
    cookies: Option<Vec<Pair>>,
    post_data: Option<Content>,
}

#[derive(Deserialize)]
struct Response {
    #[serde(default)]
    status: Value,
    headers: Option<Vec<Pair>>,
    cookies: Option<Vec<Pair>>,
    content: Option<Content>,
}

#[derive(Deserialize)]
#[serde(rename_all = "camelCase")]
struct Content {
    mime_type: Option<String>,
    text: Option<String>,
    encoding: Option<String>,
}

#[derive(Deserialize)]
struct Pair {
    #[serde(default)]
    name: Value,
    #[serde(default)]
    value: Value,
}

impl Pair {
    fn into_texts(self) -> Option<(String, String)> {
        match (self.name, self.value) {
            (Value::String(name), Value::String(value)) => Some((name, value)),
            _ => None,
        }
    }
}

impl Exchange {
    /// Its body on a side, if that is a sample, without what its own keys say is secret.
    pub fn harmless_sample(&self, side: Side) -> Option<String> {
        let text = self.sample(side)?;
        Some(match side {
            Side::Request => unsaid_body(&text).text,
            Side::Answer | Side::Error => unsaid_answer(&text).text,
        })
    }

    /// Its body on a side, if that is a sample.
    pub(super) fn sample(&self, side: Side) -> Option<String> {
        let is_success = (200..300).contains(&self.status);
        let body = match side {
            Side::Answer => self.answer.as_ref().filter(|_| is_success),
            Side::Error => self.answer.as_ref().filter(|_| self.status >= 400),
            Side::Request => self.request.as_ref(),
        };
        body?.sample()
    }
}

impl Entry {
    fn into_exchange(self) -> Option<Exchange> {
        let Request { method, url, headers, cookies, post_data } = self.request;
        let url = Url::parse(&url).ok().filter(|url| matches!(url.scheme(), "http" | "https"))?;
        let texts = |pairs: Option<Vec<Pair>>| pairs.into_iter().flatten().filter_map(Pair::into_texts);
        // A cookie is secret whatever its name is.
        let cookie = |(_, value): (String, String)| ("Cookie".to_owned(), value);
        let sent: Vec<(String, String)> = texts(headers).collect();
        let request = post_data.and_then(|content| content.into_body(&sent));
        let mut all = sent;
        all.extend(texts(cookies).map(cookie));
        let (mut status, mut answer) = (0, None);
        if let Some(response) = self.response {
            status = response.status.as_u64().and_then(|status| status.try_into().ok()).unwrap_or_default();
            let came: Vec<(String, String)> = texts(response.headers).collect();
            answer = response.content.and_then(|content| content.into_body(&came));
            all.extend(came);
            all.extend(texts(response.cookies).map(cookie));
        }
        let started = self.started_date_time.as_str().unwrap_or_default().to_owned();
        let method = method.to_ascii_uppercase();
        Some(Exchange { method, url, started, status, request, answer, headers: all })
    }
}

impl Content {
    fn into_body(self, headers: &[(String, String)]) -> Option<Body> {
        let header = |wanted: &str| {
            let found = headers.iter().find(|(name, _)| name.eq_ignore_ascii_case(wanted));
            found.map(|(_, value)| value.clone()).unwrap_or_default()
        };
        let text = self.text.filter(|text| !text.is_empty())?;
        let is_base64 = self.encoding.is_some_and(|encoding| encoding.eq_ignore_ascii_case("base64"));
        // A text is in UTF-8 by now, whatever it was in when it came.
        let kind = self.mime_type.filter(|kind| !kind.is_empty()).unwrap_or_else(|| header("content-type"));
        let kind = if is_base64 { kind } else { kind.split(';').next().unwrap_or_default().to_owned() };
        Some(Body { kind, text, is_base64, packing: header("content-encoding") })
    }
}

#[cfg(test)]
mod tests {
    use std::io::Write;

    use flate2::Compression;
    use flate2::write::GzEncoder;
    use serde_json::json;

    use super::*;

    fn exchanges(recording: &Value) -> Vec<(u64, Exchange)> {
        let mut all = Vec::new();
        let text = recording.to_string();
        read_recording(text.as_bytes(), &mut |number, exchange| {
            all.push((number, exchange));
            true
        })
        .expect("it is one");
        all
    }

    fn recording(entries: &[Value]) -> Value {
        json!({"log": {"version": "1.2", "creator": {"name": "x", "version": "1"}, "pages": [{"entries": 1}], "entries": entries}})
    }

    #[test]
    fn exchanges_are_read_one_by_one() {
        let entry = json!({
            "startedDateTime": "2026-05-01T09:12:33.120+02:00",
            "request": {
                "method": "post", "url": "https://honey.example/hives?a=1", "httpVersion": "h2",
                "headers": [{"name": "X-Key", "value": "b33s"}], "cookies": [{"name": "a", "value": "c00kie"}],
                "postData": {"mimeType": "application/json", "text": "{\"name\": \"Alder\"}"},
            },
            "response": {
                "status": 201, "headers": null, "content": {"size": 9, "mimeType": "", "text": "{\"id\": 17}"},
            },
            "timings": {},
        });
        let odd = json!({"request": {"method": "GET", "url": "data:,x"}, "response": null});
        let all = exchanges(&recording(&[odd, entry]));
        let [(2, exchange)] = &all[..] else { panic!("{all:?}") };
        assert_eq!((exchange.method.as_str(), exchange.status), ("POST", 201));
        assert_eq!(exchange.answer.as_ref().and_then(Body::sample).as_deref(), Some("{\"id\": 17}"));
        assert_eq!(
            exchange.request.as_ref().and_then(Body::sample).as_deref(),
            Some("{\"name\": \"Alder\"}")
        );
        let headers: Vec<&str> = exchange.headers.iter().map(|(_, value)| value.as_str()).collect();
        assert_eq!(headers, ["b33s", "c00kie"]);
    }

    #[test]
    fn bodies_are_unpacked() {
        let mut gzip = GzEncoder::new(Vec::new(), Compression::fast());
        gzip.write_all(b"[1]").expect("it is written to memory");
        let gzip = BASE64_STANDARD.encode(gzip.finish().expect("it is written to memory"));
        let body = |kind: &str, text: &str, is_base64: bool, packing: &str| {
            let body = Body { kind: kind.into(), text: text.into(), is_base64, packing: packing.into() };
            body.sample()
        };
        assert_eq!(body("application/json", &gzip, true, "gzip").as_deref(), Some("[1]"));
        assert_eq!(
            body("application/json", &BASE64_STANDARD.encode("[1]"), true, "gzip").as_deref(),
            Some("[1]")
        );
        assert_eq!(body("application/json", "[1]", false, "br").as_deref(), Some("[1]"));
        for (kind, text, is_base64) in [
            ("text/html", "<p>", false),
            ("application/json", "[1", false),
            ("", "%", true),
            ("a/yaml", "a: 1", false),
        ] {
            assert_eq!(body(kind, text, is_base64, ""), None);
        }
    }

    #[test]
    fn what_is_no_recording_is_an_error() {
        for text in
            ["[1]", "{\"log\": 1}", "{\"log\": {\"entries\": [{}]}}", "{\"log\": {\"entries\": [", "17"]
        {
            assert!(read_recording(text.as_bytes(), &mut |_, _| true).is_err(), "{text}");
        }
        let none = read_recording("{\"a\": 1}".as_bytes(), &mut |_, _| panic!("there is none"));
        assert!(none.is_ok());
    }

    #[test]
    fn who_has_enough_stops() {
        let entry = json!({"request": {"method": "GET", "url": "https://honey.example/"}, "response": null});
        let text = recording(&[entry.clone(), entry]).to_string();
        let mut count = 0;
        let done = read_recording(text.as_bytes(), &mut |_, _| {
            count += 1;
            false
        });
        assert!(done.is_ok() && count == 1);
    }
}
