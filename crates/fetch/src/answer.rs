//! What came back, as a sample.

use std::borrow::Cow;

use thiserror::Error;

/// An answer that is a sample.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Answer {
    /// Its text in UTF-8.
    pub text: String,
    /// What a file of it ends in: `json`, `ndjson` or `yaml`.
    pub ending: &'static str,
}

/// Why an answer is no sample.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum NoSample {
    /// It is empty.
    #[error("the answer is empty")]
    Empty,
    /// It is text of another kind.
    #[error("the answer is {kind}, and starts with `{start}`")]
    Other {
        /// What it says it is.
        kind: String,
        /// Its first line.
        start: String,
    },
    /// It says that it is JSON, and is none.
    #[error("the answer says that it is JSON, and is none: {reason}")]
    Broken {
        /// What is wrong, with line and column.
        reason: String,
    },
    /// It is in letters that nobody knows, or breaks their rules.
    #[error("the answer is not text in {charset}")]
    Letters {
        /// What it says they are.
        charset: String,
    },
}

/// What an answer holds; `content_type` is what its header says (RFC 9110, section 8.3).
///
/// # Errors
/// It is no JSON, NDJSON or YAML.
pub fn answer(content_type: &str, bytes: &[u8]) -> Result<Answer, NoSample> {
    let mut parts = content_type.split(';').map(str::trim);
    let kind = parts.next().unwrap_or_default().to_ascii_lowercase();
    let charset =
        parts.find_map(|part| part.to_ascii_lowercase().strip_prefix("charset=").map(str::to_owned));
    let text = decoded(charset.as_deref().unwrap_or("utf-8").trim_matches('"'), bytes)?;
    if text.trim().is_empty() {
        return Err(NoSample::Empty);
    }
    let text = text.into_owned();
    let says_lines = ["ndjson", "jsonl", "jsonlines", "json-seq"].iter().any(|word| kind.contains(word));
    if kind.contains("yaml") {
        return Ok(Answer { text, ending: "yaml" });
    }
    let mut values = serde_json::Deserializer::from_str(&text).into_iter::<serde::de::IgnoredAny>();
    let mut count = 0;
    let fault = loop {
        match values.next() {
            None => break None,
            Some(Ok(_)) => count += 1,
            Some(Err(error)) => break Some(error),
        }
    };
    match fault {
        None => Ok(Answer { text, ending: if count > 1 || says_lines { "ndjson" } else { "json" } }),
        Some(error) if kind.contains("json") => Err(NoSample::Broken { reason: error.to_string() }),
        Some(_) => {
            let kind = if kind.is_empty() { "of no kind that it says".to_owned() } else { kind };
            let start = text.trim_start().lines().next().unwrap_or_default();
            Err(NoSample::Other { kind, start: start.chars().take(80).collect() })
        }
    }
}

/// JSON is in UTF-8 (RFC 8259, section 8.1); what says otherwise is taken at its word.
fn decoded<'b>(charset: &str, bytes: &'b [u8]) -> Result<Cow<'b, str>, NoSample> {
    let letters = || NoSample::Letters { charset: charset.to_owned() };
    let encoding = encoding_rs::Encoding::for_label(charset.as_bytes()).ok_or_else(letters)?;
    let (text, _, is_broken) = encoding.decode(bytes);
    if is_broken { Err(letters()) } else { Ok(text) }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn samples_are_told_from_other_answers() {
        let ending = |kind: &str, text: &str| answer(kind, text.as_bytes()).map(|answer| answer.ending);
        assert_eq!(ending("application/json", "{}"), Ok("json"));
        assert_eq!(ending("application/problem+json; charset=utf-8", "[1]"), Ok("json"));
        assert_eq!(ending("text/plain", "{\"id\": 17}\n"), Ok("json"));
        assert_eq!(ending("application/x-ndjson", "{}\n{}\n"), Ok("ndjson"));
        assert_eq!(ending("", "{}\n{}\n"), Ok("ndjson"));
        assert_eq!(ending("application/yaml", "id: 17\n"), Ok("yaml"));
        assert_eq!(ending("application/json", " \n"), Err(NoSample::Empty));
        assert!(matches!(ending("application/json", "{"), Err(NoSample::Broken { .. })));
        let other = NoSample::Other { kind: "text/html".to_owned(), start: "<!doctype html>".to_owned() };
        assert_eq!(ending("text/html", "\n<!doctype html>\n<p>"), Err(other));
    }

    #[test]
    fn letters_of_old_are_read_as_they_say() {
        let text =
            answer("application/json; charset=iso-8859-1", b"\"gr\xfc\xdfe\"").map(|answer| answer.text);
        assert_eq!(text.as_deref(), Ok("\"grüße\""));
        let broken = NoSample::Letters { charset: "utf-8".to_owned() };
        assert_eq!(answer("application/json", b"\"gr\xfc\""), Err(broken));
        assert!(matches!(answer("application/json; charset=nonsense", b"1"), Err(NoSample::Letters { .. })));
    }
}
