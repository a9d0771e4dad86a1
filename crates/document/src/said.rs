//! What a schema says for people: its description, and the bounds that no type can hold.

use jar_sprout_model::{DefaultValue, Docs};
use serde_json::Value;

/// What a schema says of itself, with the bounds it sets.
pub(crate) fn docs_of(schema: &Value) -> Docs {
    let text =
        |key: &str| schema.get(key).and_then(Value::as_str).map(str::trim).filter(|text| !text.is_empty());
    let mut said: Vec<String> = text("description").map(str::to_owned).into_iter().collect();
    let bounds = bounds(schema);
    if !bounds.is_empty() {
        said.push(bounds);
    }
    Docs {
        text: said.join("\n\n"),
        is_deprecated: says(schema, "deprecated") || says(schema, "x-deprecated"),
    }
}

/// `At least 0, at most 10. Read-only.`
fn bounds(schema: &Value) -> String {
    let number = |key: &str| schema.get(key).filter(|value| value.is_number());
    let mut parts: Vec<String> = Vec::new();
    let mut range = |what: &str, least: Option<&Value>, most: Option<&Value>| {
        let least = least.map(|least| format!("at least {least}"));
        let most = most.map(|most| format!("at most {most}"));
        let both: Vec<String> = least.into_iter().chain(most).collect();
        if !both.is_empty() {
            parts.push(capitalised(&format!("{what}{}.", both.join(", "))));
        }
    };
    range("", number("minimum"), number("maximum"));
    range("length ", number("minLength"), number("maxLength"));
    range("items: ", number("minItems"), number("maxItems"));
    let above = number("exclusiveMinimum").map(|above| format!("above {above}"));
    let below = number("exclusiveMaximum").map(|below| format!("below {below}"));
    let open: Vec<String> = above.into_iter().chain(below).collect();
    if !open.is_empty() {
        parts.push(capitalised(&open.join(", ")) + ".");
    }
    if let Some(step) = number("multipleOf") {
        parts.push(format!("A multiple of {step}."));
    }
    if says(schema, "uniqueItems") {
        parts.push("No item twice.".to_owned());
    }
    if let Some(default) = schema.get("default").filter(|default| !default.is_array() && !default.is_object())
    {
        parts.push(format!("{default} where nothing is said."));
    }
    if says(schema, "readOnly") {
        parts.push("Read-only.".to_owned());
    }
    if says(schema, "writeOnly") {
        parts.push("Write-only.".to_owned());
    }
    parts.join(" ")
}

/// The default value that a schema states, where it is one that code can have.
pub(crate) fn default_of(schema: &Value) -> Option<DefaultValue> {
    match schema.get("default")? {
        Value::Bool(flag) => Some(DefaultValue::Boolean(*flag)),
        Value::Number(number) => Some(DefaultValue::Number(number.to_string())),
        Value::String(text) => Some(DefaultValue::Text(text.clone())),
        Value::Null | Value::Array(_) | Value::Object(_) => None,
    }
}

fn capitalised(text: &str) -> String {
    let mut chars = text.chars();
    chars.next().map(|first| first.to_uppercase().chain(chars).collect()).unwrap_or_default()
}

/// Whether a schema says `true` of itself.
pub(crate) fn says(schema: &Value, key: &str) -> bool {
    schema.get(key).and_then(Value::as_bool) == Some(true)
}
