//! Drift for programs.

use serde_json::{Map, Value, json};

use super::words::Shown;

/// A finding.
pub(crate) fn json(one: &Shown, model: Option<&str>) -> Value {
    let Shown { verdict, by_language, at, of, what, change, was, is, evidence, way_out } = one;
    let said = |text: &String| Some(text.clone()).filter(|text| !text.is_empty());
    json!({
        "model": model,
        "verdict": verdict.words(),
        "languages": by_language.iter().map(|(name, verdict)| (name.clone(), verdict.words().into())).collect::<Map<String, Value>>(),
        "at": at,
        "type": of,
        "field": what,
        "change": change,
        "was": was,
        "is": is,
        "evidence": said(evidence),
        "wayOut": said(way_out),
    })
}
