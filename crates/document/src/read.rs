//! Reading: JSON or YAML text to a value, and what kind of document it is.

use indexmap::IndexMap;
use serde_json::Number;
use serde_json::value::RawValue;

use crate::fault::Fault;
use crate::value::{Object, Value, read_json};
use crate::yaml::read_yaml;

/// What a document describes.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub enum DocumentKind {
    /// JSON Schema, of any draft.
    Schema,
    /// OpenAPI 3.
    OpenApi,
    /// Swagger 2.0.
    Swagger,
}

/// The value of a JSON or YAML text.
///
/// # Errors
/// A text that is neither; YAML whose aliases blow up, whose keys stand twice or are no scalars.
pub fn read_value(text: &str) -> Result<Value, Fault> {
    read_document(text).map(|(value, _)| value)
}

/// The same, and whether a reference may lead to another document.
pub(crate) fn read_document(text: &str) -> Result<(Value, bool), Fault> {
    let text = text.trim_start_matches('\u{FEFF}');
    if text.trim_start().starts_with(['{', '[']) {
        return read_json(text).map_err(|error| of_json(&error));
    }
    read_yaml(text).map(|value| (value, true))
}

fn of_json(error: &serde_json::Error) -> Fault {
    let message = error.to_string();
    let message = message.split(" at line ").next().unwrap_or(&message).to_owned();
    Fault { message, place: Some((error.line() as u64, error.column() as u64)), help: None }
}

/// What kind of document a text is; none where it is data, or cannot be read.
///
/// Of JSON only the first two levels are looked at, so that big samples are not held as values.
pub fn recognise_text(text: &str) -> Option<DocumentKind> {
    let text = text.trim_start_matches('\u{FEFF}');
    if !text.trim_start().starts_with(['{', '[']) {
        return recognise(&read_yaml(text).ok()?);
    }
    recognise(&outline(text, 2)?)
}

/// A JSON object with all that is deeper than so many levels left empty.
fn outline(text: &str, levels: usize) -> Option<Value> {
    if !text.trim_start().starts_with('{') {
        return None;
    }
    let parts: IndexMap<String, &RawValue> = serde_json::from_str(text).ok()?;
    let part = |(key, raw): (String, &RawValue)| {
        let raw = raw.get();
        let value = match raw.as_bytes().first() {
            Some(b'{') if levels > 1 => outline(raw, levels - 1).unwrap_or(Value::Null),
            Some(b'{') => Value::Object(Object::new(Box::default())),
            Some(b'[') if key == "type" => serde_json::from_str(raw).unwrap_or(Value::Null),
            Some(b'[') => Value::Array(Box::default()),
            _ => serde_json::from_str(raw).unwrap_or(Value::Null),
        };
        (key.into(), value)
    };
    Some(Value::Object(Object::new(parts.into_iter().map(part).collect())))
}

/// What kind of document a value is; none where it is data.
pub fn recognise(value: &Value) -> Option<DocumentKind> {
    let object = value.as_object()?;
    let text = |key: &str| object.get(key).and_then(Value::as_str);
    let version = |key: &str| text(key).is_some_and(|text| text.starts_with(|c: char| c.is_ascii_digit()));
    if version("openapi") {
        return Some(DocumentKind::OpenApi);
    }
    if version("swagger")
        || object.get("swagger").and_then(Value::as_number).and_then(Number::as_f64) == Some(2.0)
    {
        return Some(DocumentKind::Swagger);
    }
    let holds = |key: &str| object.get(key).is_some_and(Value::is_object);
    let is_type = |value: &Value| {
        let names = ["object", "array", "string", "number", "integer", "boolean", "null"];
        value.as_str().is_some_and(|text| names.contains(&text))
    };
    let has_type = match object.get("type") {
        Some(Value::Array(types)) => !types.is_empty() && types.iter().all(is_type),
        Some(one) => is_type(one),
        None => false,
    };
    // Data may say by which schema it is, and have a `type` of its own.
    let is_of_schema = text("$schema").is_some_and(|schema| schema.contains("json-schema.org"));
    if is_of_schema && (has_type || object.get("type").is_none()) {
        return Some(DocumentKind::Schema);
    }
    let properties_are_schemas =
        object.get("properties").and_then(Value::as_object).is_some_and(|properties| {
            !properties.is_empty()
                && properties.values().all(|schema| schema.is_object() || schema.is_boolean())
        });
    let has_list = |key: &str| object.get(key).is_some_and(Value::is_array);
    let says_values = holds("additionalProperties") || holds("patternProperties");
    let says_parts =
        properties_are_schemas || says_values || object.get("items").is_some() || has_list("enum");
    let holds_more = holds("definitions") || holds("$defs");
    let says_cases = ["oneOf", "anyOf", "allOf"].into_iter().any(has_list) || text("$ref").is_some();
    let is_schema = (has_type && says_parts)
        || (properties_are_schemas && (has_list("required") || holds_more))
        || (says_cases && holds_more);
    is_schema.then_some(DocumentKind::Schema)
}

#[cfg(test)]
mod tests {
    use serde_json::json;

    use super::*;

    #[test]
    fn json_and_yaml_are_read_alike() {
        let expected = json!({"openapi": "3.1.0", "paths": {"/hives": {"200": [1, 2.5, null, true]}}});
        assert_eq!(read_value(&expected.to_string()), Ok(expected.clone().into()));
        let yaml = "openapi: 3.1.0\npaths:\n  /hives:\n    200: [1, 2.5, null, true]\n";
        assert_eq!(read_value(yaml), Ok(expected.into()));
    }

    #[test]
    fn what_cannot_be_read_says_why() {
        #[track_caller]
        fn check(text: &str, expected: &str) {
            let fault = read_value(text).expect_err(text);
            assert!(fault.message.contains(expected), "{fault:?}");
        }
        check("{\"a\": 1,}", "trailing comma");
        check("a: 1\na: 2\n", "duplicate");
        check("a:\n\tb: 1\n", "tab");
        check("? [a]\n: 1\n", "a key is a list");
        let mut bomb = "a: &a [x, x, x, x, x, x, x, x, x]\n".to_owned();
        for (name, before) in ('b'..='i').zip('a'..) {
            let aliases = vec![format!("*{before}"); 9].join(", ");
            bomb.push_str(&format!("{name}: &{name} [{aliases}]\n"));
        }
        check(&bomb, "multiply beyond measure");
    }

    #[test]
    fn documents_are_recognised_by_what_they_say() {
        for (value, expected) in [
            (json!({"openapi": "3.0.3"}), Some(DocumentKind::OpenApi)),
            (json!({"swagger": "2.0"}), Some(DocumentKind::Swagger)),
            (json!({"$schema": "https://json-schema.org/draft/2020-12/schema"}), Some(DocumentKind::Schema)),
            (json!({"type": "object", "properties": {"id": {}}}), Some(DocumentKind::Schema)),
            (json!({"$ref": "#/$defs/hive", "$defs": {}}), Some(DocumentKind::Schema)),
            (json!({"type": "Feature", "properties": {"name": "Alder"}}), None),
            (json!({"type": "object", "properties": {"id": 5}}), None),
            (json!([{"openapi": "3.0.3"}]), None),
        ] {
            assert_eq!(recognise(&value.clone().into()), expected, "{value}");
            assert_eq!(recognise_text(&value.to_string()), expected, "{value}");
        }
    }
}
