//! What an API has: samples at a path.

use serde_json::Value;

use crate::pages::Pages;
use crate::path::Template;

/// What a resource answers with.
#[derive(Debug, Clone, PartialEq)]
pub enum Held {
    /// Samples, each a whole answer, the newest last.
    Samples(Vec<Value>),
    /// Values that go out one a line.
    Lines(Vec<Value>),
}

impl Held {
    /// What its answers say they are.
    pub(crate) fn kind(&self) -> &'static str {
        match self {
            Self::Samples(_) => "application/json",
            Self::Lines(_) => "application/x-ndjson",
        }
    }
}

/// Something that can be asked for.
#[derive(Debug, Clone)]
pub struct Resource {
    /// What it is called.
    pub(crate) name: String,
    /// Its path as a template (RFC 6570): `/hives/{id}`.
    pub(crate) path: String,
    /// How it is asked for.
    pub(crate) method: String,
    pub(crate) held: Held,
    pub(crate) pages: Option<Pages>,
    /// Of a whole answer (JSON Schema, draft 2020-12).
    pub(crate) schema: Option<Value>,
}

impl Resource {
    /// A resource at a path; `schema` is that of a whole answer (JSON Schema, draft 2020-12), with its types among the
    /// `$defs`.
    pub fn new(name: &str, method: &str, path: &str, held: Held, schema: Option<Value>) -> Self {
        let is_one = Template::of(path).which(path).is_some();
        let pages = match &held {
            Held::Samples(samples) if !is_one => Pages::of(samples, path.rsplit('/').next().unwrap_or(name)),
            Held::Samples(_) | Held::Lines(_) => None,
        };
        let (name, method, path) = (name.to_owned(), method.to_ascii_uppercase(), path.to_owned());
        Self { name, path, method, held, pages, schema }
    }

    /// How it is asked for: `GET /hives`
    pub fn request(&self) -> String {
        format!("{} {}", self.method, self.path)
    }

    /// What there is, in words: `a list of 9`
    pub fn holds(&self) -> String {
        let Self { held, pages, .. } = self;
        match (pages, held) {
            (Some(pages), _) => format!("a list of {}", pages.len()),
            (None, Held::Samples(samples)) if samples.len() == 1 => "1 sample".to_owned(),
            (None, Held::Samples(samples)) => format!("{} samples", samples.len()),
            (None, Held::Lines(lines)) => format!("{} lines", lines.len()),
        }
    }
}
