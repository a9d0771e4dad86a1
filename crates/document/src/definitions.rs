//! What a schema defines beside what it says itself.

use crate::value::Value;

/// What a schema defines: where, under which name, and what.
pub(crate) fn definitions(whole: &Value) -> impl Iterator<Item = (&'static str, &str, &Value)> {
    ["definitions", "$defs"].into_iter().flat_map(|holder| {
        let held = whole.get(holder).and_then(Value::as_object).into_iter().flatten();
        held.map(move |(name, schema)| (holder, name, schema))
    })
}

/// Whether a schema says what it is itself, and not only what it defines.
pub(crate) fn says_itself(whole: &Value) -> bool {
    const TELLING: &[&str] = &[
        "properties",
        "additionalProperties",
        "patternProperties",
        "items",
        "$ref",
        "allOf",
        "oneOf",
        "anyOf",
        "enum",
        "const",
    ];
    whole.as_object().is_none_or(|object| {
        let ty = object.get("type");
        // That it is an object says nothing beside what it defines.
        let is_any_object =
            ty.and_then(Value::as_str) == Some("object") && definitions(whole).next().is_some();
        TELLING.iter().any(|key| object.get(key).is_some()) || (ty.is_some() && !is_any_object)
    })
}
