//! The keys of `jar.toml`: one table that feeds reading, the reference and the schema.

use serde_json::{Value, json};
use toml_edit::Item;

/// A key, where it stands, what it takes and what it means.
pub(crate) struct Key {
    pub(crate) name: &'static str,
    pub(crate) takes: Takes,
    pub(crate) doc: &'static str,
    /// As it is written in a jar.
    pub(crate) example: &'static str,
}

/// What a key takes.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Takes {
    Number,
    Text,
    Texts,
    /// One of these texts.
    Choice(&'static [&'static str]),
    Switch,
    /// Texts by text.
    Names,
    /// A text, or a list of texts.
    TextOrTexts,
    /// A truth, a number or a text.
    Value,
    /// A table with keys of its own.
    Table,
}

const fn key(name: &'static str, takes: Takes, doc: &'static str, example: &'static str) -> Key {
    Key { name, takes, doc, example }
}

/// The keys at the top.
pub(crate) const TOP: &[Key] = &[
    key("version", Takes::Number, "the version of this file's form; always 1", "version = 1"),
    key("policies", Takes::Table, "how inference decides, for all models", "[policies]"),
    key("decisions", Takes::Table, "decisions on types and fields of all models", "[decisions]"),
    key("models", Takes::Table, "a table for each model, under the name you choose for it", "[models.hives]"),
    key("languages", Takes::Table, "a table for each language to grow, under its key", "[languages.kotlin]"),
];

/// The keys of a model.
pub(crate) const MODEL: &[Key] = &[
    key(
        "sources",
        Takes::Texts,
        "samples: paths and globs, from the jar's folder",
        "sources = [\"samples/hives-*.json\"]",
    ),
    key("at", Takes::Text, "the part of each sample that is taken, as JSONPath", "at = \"$.hives[*]\""),
    key(
        "refs-from",
        Takes::Text,
        "the folder in which a document may refer to other files; without it, the document's own",
        "refs-from = \"api\"",
    ),
    key("root", Takes::Text, "the name of the root type", "root = \"Hive\""),
    key(
        "policies",
        Takes::Table,
        "policies of this model, which stand above those of all",
        "[models.hives.policies]",
    ),
    key(
        "decisions",
        Takes::Table,
        "decisions of this model, which stand above those of all",
        "[models.hives.decisions]",
    ),
];

/// The keys of policies.
pub(crate) const POLICIES: &[Key] = &[
    key(
        "trust",
        Takes::Choice(&["seen", "nothing"]),
        "how far to trust that a key is always there",
        "trust = \"nothing\"",
    ),
    key(
        "essential",
        Takes::Texts,
        "keys to rely on even where nothing is trusted",
        "essential = [\"id\", \"name\"]",
    ),
    key("enums", Takes::Switch, "whether words that repeat become enums", "enums = false"),
    key("dates", Takes::Choice(&["typed", "text"]), "what texts that are dates become", "dates = \"text\""),
    key("maps", Takes::Switch, "whether objects whose keys are data become maps", "maps = false"),
    key("integers", Takes::Choice(&["fit", "64"]), "how wide integers are", "integers = \"64\""),
    key(
        "defaults",
        Takes::Choice(&["said", "code"]),
        "what the default values of a document become: documentation, or the code's own",
        "defaults = \"code\"",
    ),
    key("prefix", Takes::Text, "what the name of every type starts with", "prefix = \"Fm\""),
];

/// The keys of a language, beside its own settings.
pub(crate) const LANGUAGE: &[Key] = &[
    key("dir", Takes::Text, "the folder to grow into, from the jar's folder", "dir = \"app/src/models\""),
    key(
        "language",
        Takes::Text,
        "the language, where the table is not called after it",
        "language = \"kotlin\"",
    ),
];

/// The keys of a decision.
pub(crate) const DECISION: &[Key] = &[
    key(
        "rename",
        Takes::Text,
        "another name for the type or field; the key on the wire stays",
        "\"Hive.img\" = { rename = \"imageUrl\" }",
    ),
    key(
        "type",
        Takes::TextOrTexts,
        "what a field is: a word such as `float`, a list such as `[text]`, another type's name, or the values of an enum",
        "\"Hive.honey_kg\" = { type = \"float\" }",
    ),
    key(
        "presence",
        Takes::Choice(&["required", "optional"]),
        "whether a field is always there and never null, or may be missing",
        "\"Hive.name\" = { presence = \"required\" }",
    ),
    key("null", Takes::Switch, "whether a field may be null", "\"Hive.queen\" = { null = true }"),
    key(
        "default",
        Takes::Value,
        "what holds where a field is absent: a truth, a number, a text or a known value of an enum; it is then written as well",
        "\"Hive.supers\" = { default = 0 }",
    ),
    key("leave-out", Takes::Switch, "not a part of the model", "\"Hive.internal_*\" = { leave-out = true }"),
    key(
        "keep",
        Takes::Texts,
        "of a type: these fields and no others",
        "\"Hive\" = { keep = [\"id\", \"name\"] }",
    ),
    key(
        "same-as",
        Takes::Text,
        "of a type: one with that other type",
        "\"BillingAddress\" = { same-as = \"Address\" }",
    ),
    key(
        "split",
        Takes::Text,
        "of a field: a type of its own, under this name, for what stands there",
        "\"Hive.breeder\" = { split = \"HiveBreeder\" }",
    ),
    key(
        "create",
        Takes::Text,
        "of a type: another one, under this name, for what is sent to make a new one: all that the server does not make is required",
        "\"Hive\" = { create = \"NewHive\", server-made = [\"id\"] }",
    ),
    key(
        "update",
        Takes::Text,
        "of a type: another one, under this name, for what is sent to change one: every field may be left out",
        "\"Hive\" = { update = \"HiveUpdate\", server-made = [\"id\"] }",
    ),
    key(
        "server-made",
        Takes::Texts,
        "the keys that are not sent, since the server makes them",
        "\"Hive\" = { create = \"NewHive\", server-made = [\"id\", \"created_*\"] }",
    ),
    key(
        "cases",
        Takes::Names,
        "of an enum or a union: names for its values",
        "\"QueenColour\" = { cases = { w = \"white\" } }",
    ),
    key(
        "closed",
        Takes::Switch,
        "of an enum, or of a field that is one: whether there can be no other values; else one that is not known is kept as it came",
        "\"QueenColour\" = { closed = true }",
    ),
    key(
        "describe",
        Takes::Text,
        "what its documentation says",
        "\"Hive\" = { describe = \"A hive of bees.\" }",
    ),
    key(
        "deprecated",
        Takes::Switch,
        "whether it should not be used any more",
        "\"Hive.old_id\" = { deprecated = true }",
    ),
];

/// The names of all keys of a decision.
pub(crate) fn decision_keys() -> impl Iterator<Item = &'static str> {
    DECISION.iter().map(|key| key.name)
}

/// The sections of the reference, in order.
#[cfg(test)]
const SECTIONS: &[(&str, &str, &[Key])] = &[
    ("At the top", "", TOP),
    ("A model", "`[models.NAME]`; names are small letters, digits, `-` and `_`.", MODEL),
    ("Policies", "`[policies]`, or `[models.NAME.policies]`.", POLICIES),
    (
        "A language",
        "`[languages.NAME]`. The settings of the language stand here as well: `jar-sprout languages kotlin` lists them.",
        LANGUAGE,
    ),
    (
        "A decision",
        "In `[decisions]` or `[models.NAME.decisions]`, by type and key as `look` and the samples have them: `\"Hive.img\"`. A `*` stands for any part of a name: `\"*.created_at\"`. Where all that is decided is what a field is, the word alone will do: `\"Hive.honey_kg\" = \"float\"`.",
        DECISION,
    ),
];

/// The reference of all keys, as it stands in `docs/jar.md`.
#[cfg(test)]
pub(crate) fn reference() -> String {
    let mut out = String::new();
    for (title, about, keys) in SECTIONS {
        out.push_str(&format!("\n## {title}\n\n"));
        if !about.is_empty() {
            out.push_str(&format!("{about}\n\n"));
        }
        out.push_str("| key | takes | means |\n|---|---|---|\n");
        for Key { name, takes, doc, example } in *keys {
            out.push_str(&format!("| `{name}` | {} | {doc}: `{example}` |\n", takes.words()));
        }
    }
    out
}

impl Takes {
    /// Whether a value is of the kind.
    pub(crate) fn fits(self, item: &Item) -> bool {
        let is_texts = |array: &toml_edit::Array| array.iter().all(toml_edit::Value::is_str);
        match self {
            Self::Number => item.is_integer(),
            Self::Text | Self::Choice(_) => item.is_str(),
            Self::Texts => item.as_array().is_some_and(is_texts),
            Self::Switch => item.is_bool(),
            Self::Names => {
                item.as_table_like().is_some_and(|table| table.iter().all(|(_, item)| item.is_str()))
            }
            Self::TextOrTexts => Self::Text.fits(item) || Self::Texts.fits(item),
            Self::Value => item.is_bool() || item.is_integer() || item.is_float() || item.is_str(),
            Self::Table => item.is_table_like(),
        }
    }

    /// What it takes, in words.
    pub(crate) fn words(self) -> String {
        match self {
            Self::Number => "a number".to_owned(),
            Self::Text => "a text".to_owned(),
            Self::Texts => "a list of texts".to_owned(),
            Self::Choice(choices) => {
                choices.iter().map(|choice| format!("`{choice}`")).collect::<Vec<_>>().join(" or ")
            }
            Self::Switch => "`true` or `false`".to_owned(),
            Self::Names => "a table of texts".to_owned(),
            Self::TextOrTexts => "a text, or a list of texts".to_owned(),
            Self::Value => "`true`, `false`, a number or a text".to_owned(),
            Self::Table => "a table".to_owned(),
        }
    }

    fn schema(self) -> Value {
        let texts = json!({"type": "array", "items": {"type": "string"}});
        match self {
            Self::Number => json!({"const": super::VERSION}),
            Self::Text => json!({"type": "string"}),
            Self::Texts => texts,
            Self::Choice(choices) => json!({"enum": choices}),
            Self::Switch => json!({"type": "boolean"}),
            Self::Names => json!({"type": "object", "additionalProperties": {"type": "string"}}),
            Self::TextOrTexts => json!({"anyOf": [{"type": "string"}, texts]}),
            Self::Value => json!({"type": ["boolean", "number", "string"]}),
            Self::Table => json!({"type": "object"}),
        }
    }
}

/// A JSON Schema of the file, for editors.
pub(crate) fn schema() -> Value {
    let object = |keys: &[Key], is_closed: bool| {
        let properties: serde_json::Map<String, Value> = keys
            .iter()
            .map(|key| {
                let mut schema = key.takes.schema();
                schema["description"] = json!(key.doc);
                (key.name.to_owned(), schema)
            })
            .collect();
        json!({"type": "object", "properties": properties, "additionalProperties": !is_closed})
    };
    let decisions = json!({
        "type": "object",
        "additionalProperties": {"anyOf": [{"type": "string"}, {"$ref": "#/$defs/decision"}]},
    });
    let mut model = object(MODEL, true);
    model["properties"]["policies"] = json!({"$ref": "#/$defs/policies"});
    model["properties"]["decisions"] = json!({"$ref": "#/$defs/decisions"});
    let mut top = object(TOP, true);
    top["properties"]["policies"] = json!({"$ref": "#/$defs/policies"});
    top["properties"]["decisions"] = json!({"$ref": "#/$defs/decisions"});
    top["properties"]["models"] = json!({"type": "object", "additionalProperties": model});
    top["properties"]["languages"] =
        json!({"type": "object", "additionalProperties": object(LANGUAGE, false)});
    top["$schema"] = json!("https://json-schema.org/draft/2020-12/schema");
    top["title"] = json!("jar.toml");
    top["required"] = json!(["version"]);
    top["$defs"] = json!({
        "policies": object(POLICIES, true),
        "decisions": decisions,
        "decision": object(DECISION, true),
    });
    top
}

#[cfg(test)]
mod tests {
    use std::fs;
    use std::path::Path;

    use super::*;

    /// A file of the documentation, of which a part comes from the table; `BLESS=1` writes it anew.
    #[track_caller]
    fn check(file: &str, expected: &str) {
        let path = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../docs").join(file);
        if std::env::var_os("BLESS").is_some() {
            fs::write(&path, expected).unwrap();
        }
        assert_eq!(fs::read_to_string(&path).unwrap_or_default(), expected, "{file}: cargo xtask bless");
    }

    #[test]
    fn the_reference_is_current() {
        let path = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../docs/jar.md");
        let text = fs::read_to_string(path).unwrap();
        let (before, _) = text.split_once("\n## At the top\n").expect("the reference is the end of the page");
        check("jar.md", &format!("{before}{}", reference()));
    }

    #[test]
    fn the_schema_is_current() {
        check("jar.schema.json", &format!("{:#}\n", schema()));
    }

    #[test]
    fn every_example_is_one() {
        for (_, _, keys) in SECTIONS {
            for Key { name, takes, doc, example } in *keys {
                assert!(!doc.is_empty());
                let document: toml_edit::DocumentMut = example.parse().expect(example);
                let item = match takes {
                    Takes::Table => continue,
                    _ => document.iter().next().expect(example).1.clone(),
                };
                let item = item.as_table_like().and_then(|table| table.get(name)).unwrap_or(&item).clone();
                assert!(takes.fits(&item), "{example}");
            }
        }
    }
}
