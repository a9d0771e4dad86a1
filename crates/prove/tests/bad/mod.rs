//! What grown code says of data that does not fit: the messages of each library, held against a file for each.
//!
//! `BLESS=1 cargo test -p jar-sprout-prove --test matrix` writes the files anew.

use std::fmt::Write as _;
use std::fs;
use std::path::Path;

use jar_sprout_prove::{Miss, Proof};
use serde_json::{Value, json};

use crate::of_document;

/// What the proof is called.
const NAME: &str = "bad-data";

/// The languages and settings whose messages are held.
const TOLD: &[&str] = &[
    "csharp",
    "csharp library=newtonsoft",
    "dart",
    "go",
    "java",
    "java library=gson",
    "kotlin",
    "kotlin library=gson parcelable=yes",
    "kotlin library=jackson",
    "kotlin library=moshi",
    "python",
    "python types=dataclasses",
    "rust",
    "swift",
    "typescript parse=checked",
    "typescript parse=dated properties=readonly",
];

/// What is wrong, where, and how it comes to be.
type Wrong = (&'static str, &'static str, fn(&mut Value));

/// A good response, changed in one place.
const BAD: &[Wrong] = &[
    ("a required key is missing", "/hives/1", |hive| take(hive, "name")),
    ("null, and there is no null", "/hives/1/name", |name| *name = Value::Null),
    ("text for an integer", "/hives/1/id", |id| *id = json!("seven")),
    ("digits in letters for an integer", "/hives/1/id", |id| *id = json!("7")),
    ("a fraction for an integer", "/hives/1/id", |id| *id = json!(1.5)),
    ("an integer for text", "/hives/1/name", |name| *name = json!(7)),
    ("text for a truth", "/hives/1/strong", |strong| *strong = json!("yes")),
    ("an object for a list", "/hives", |hives| *hives = json!({"id": 7})),
    ("a list for an object", "/hives/1/queen", |queen| *queen = json!([2024])),
    ("text for a number inside a map", "/hives/1/combs/b", |weight| *weight = json!("heavy")),
    ("no date", "/hives/1/seen", |seen| *seen = json!("last Friday")),
    ("no such day", "/hives/1/seen", |seen| *seen = json!("2026-02-30T10:00:00Z")),
    ("a word that an enum does not have", "/hives/1/colour", |colour| *colour = json!("pink")),
    ("a key is missing in a known kind", "/events/1", |event| take(event, "kg")),
    ("text for a number in a known kind", "/events/1/kg", |kg| *kg = json!("a lot")),
    ("a kind that is not known", "/events/1/kind", |kind| *kind = json!("flood")),
    ("no kind", "/events/1", |event| take(event, "kind")),
    ("a scalar where several objects may be", "/events/1", |event| *event = json!(7)),
];

fn take(object: &mut Value, key: &str) {
    object.as_object_mut().unwrap().remove(key);
}

/// A model, and a response for each thing that can be wrong with one.
pub(crate) fn proof() -> Proof {
    let schema = json!({
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Yard",
        "type": "object",
        "required": ["hives", "events"],
        "properties": {
            "hives": {"type": "array", "items": {"$ref": "#/$defs/Hive"}},
            "events": {"type": "array", "items": {"$ref": "#/$defs/Event"}}
        },
        "$defs": {
            "Hive": {
                "type": "object",
                "required": ["id", "name", "strong", "queen", "combs", "seen", "colour"],
                "properties": {
                    "id": {"type": "integer"},
                    "name": {"type": "string"},
                    "strong": {"type": "boolean"},
                    "queen": {"$ref": "#/$defs/Queen"},
                    "combs": {"type": "object", "additionalProperties": {"type": "number"}},
                    "seen": {"type": "string", "format": "date-time"},
                    "colour": {"$ref": "#/$defs/Colour"}
                }
            },
            "Queen": {"type": "object", "required": ["born"], "properties": {"born": {"type": "integer"}}},
            "Colour": {"enum": ["blue", "white"]},
            "Event": {
                "oneOf": [{"$ref": "#/$defs/Swarm"}, {"$ref": "#/$defs/Harvest"}],
                "discriminator": {"propertyName": "kind"}
            },
            "Swarm": {
                "type": "object",
                "required": ["kind", "tree"],
                "properties": {"kind": {"const": "swarm"}, "tree": {"type": "string"}}
            },
            "Harvest": {
                "type": "object",
                "required": ["kind", "kg"],
                "properties": {"kind": {"const": "harvest"}, "kg": {"type": "number"}}
            }
        }
    });
    let hive = json!({
        "id": 7, "name": "Fen", "strong": true, "queen": {"born": 2024}, "combs": {"a": 1.5, "b": 2.5},
        "seen": "2026-05-11T10:00:00Z", "colour": "blue"
    });
    let good = json!({
        "hives": [hive, hive],
        "events": [{"kind": "swarm", "tree": "ash"}, {"kind": "harvest", "kg": 2.5}]
    });
    let bad = |(_, pointer, change): &Wrong| {
        let mut value = good.clone();
        change(value.pointer_mut(pointer).expect("the place is there"));
        value
    };
    let all: Vec<Value> = BAD.iter().map(bad).collect();
    let mut proof = of_document(NAME, &schema, &all);
    for (sample, (name, ..)) in proof.samples.iter_mut().zip(BAD) {
        (*name).clone_into(&mut sample.name);
    }
    proof
}

/// Whether the messages of a language with its settings are held.
pub(crate) fn is_told(of: &str) -> bool {
    TOLD.contains(&of)
}

/// Takes what was said of bad data out of the misses, and holds it against what is known of it.
#[track_caller]
pub(crate) fn check(of: &str, misses: &mut Vec<Miss>) {
    let (told, others) = std::mem::take(misses).into_iter().partition(|miss| miss.proof == NAME);
    *misses = others;
    let told: Vec<Miss> = told;
    let mut found = String::new();
    for (name, ..) in BAD {
        let said = told.iter().find(|miss| miss.sample == *name);
        let said =
            said.map_or_else(|| "passes, and comes back as it was".to_owned(), |miss| anywhere(&miss.text));
        writeln!(found, "{name}\n    {said}").unwrap();
    }
    let file = Path::new(env!("JAR_SPROUT_ROOT"))
        .join("crates/prove/tests/bad")
        .join(format!("{}.said", of.replace([' ', '='], "-")));
    if std::env::var_os("BLESS").is_some() {
        fs::write(&file, &found).unwrap();
    }
    let expected = fs::read_to_string(&file).unwrap_or_default();
    assert!(found == expected, "{of} says otherwise of bad data than {}:\n{found}", file.display());
}

/// A message without the place of its trial, and without the calls that led to it.
fn anywhere(text: &str) -> String {
    let text = text.split("    at ").next().unwrap_or_default().trim_end();
    let is_place = |word: &str| {
        let digits = word.strip_prefix(['t', 'T']).unwrap_or_default();
        digits.len() == 4 && digits.chars().all(|c| c.is_ascii_digit())
    };
    let is_part = |c: char| c.is_ascii_alphanumeric();
    let mut out = String::new();
    let mut rest = text;
    while let Some(start) = rest.find(is_part) {
        let end = rest[start..].find(|c| !is_part(c)).map_or(rest.len(), |end| start + end);
        out.push_str(&rest[..start]);
        let word = &rest[start..end];
        out.push_str(if is_place(word) { "t" } else { word });
        rest = &rest[end..];
    }
    out + rest
}
