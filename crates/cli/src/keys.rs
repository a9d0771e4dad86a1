//! The keys of `jar.toml`: what each takes and means. Policies, decisions and recipes have tables of their own.

use serde_json::{Value, json};
use toml_edit::Item;

/// A key, what it takes and what it means.
#[derive(Clone, Copy)]
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
    /// The version of the file's form.
    Version,
    /// A whole number, 1 or more.
    Count,
    /// A number, not below zero.
    Seconds,
    Text,
    /// A text that is not blank.
    Word,
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

impl Key {
    pub(crate) const fn new(
        name: &'static str,
        takes: Takes,
        doc: &'static str,
        example: &'static str,
    ) -> Self {
        Self { name, takes, doc, example }
    }
}

/// The version of the file's form that this program reads and writes.
pub(crate) const VERSION: i64 = 1;

/// The keys at the top.
pub(crate) const TOP: &[Key] = &[
    Key::new("version", Takes::Version, "the version of this file's form; always 1", "version = 1"),
    Key::new("policies", Takes::Table, "how inference decides, for all models", "[policies]"),
    Key::new("decisions", Takes::Table, "decisions on types and fields of all models", "[decisions]"),
    Key::new(
        "models",
        Takes::Table,
        "a table for each model, under the name you choose for it",
        "[models.hives]",
    ),
    Key::new(
        "languages",
        Takes::Table,
        "a table for each language to grow, under its key",
        "[languages.kotlin]",
    ),
];

/// The keys of a model.
pub(crate) const MODEL: &[Key] = &[
    Key::new(
        "sources",
        Takes::Texts,
        "samples: paths and globs, from the jar's folder",
        "sources = [\"samples/hives-*.json\"]",
    ),
    Key::new("at", Takes::Text, "the part of each sample that is taken, as JSONPath", "at = \"$.hives[*]\""),
    Key::new(
        "refs-from",
        Takes::Text,
        "the folder in which a document may refer to other files; without it, the document's own",
        "refs-from = \"api\"",
    ),
    Key::new(
        "lenient",
        Takes::Switch,
        "whether comments and needless commas in samples are read past",
        "lenient = true",
    ),
    Key::new("root", Takes::Word, "the name of the root type", "root = \"Hive\""),
    Key::new(
        "folder",
        Takes::Text,
        "the folder of its code in that of each language, and the end of its package; `.` for none. Without it, the model's name where the jar has several models",
        "folder = \"hives\"",
    ),
    Key::new(
        "policies",
        Takes::Table,
        "policies of this model, which stand above those of all",
        "[models.hives.policies]",
    ),
    Key::new(
        "decisions",
        Takes::Table,
        "decisions of this model, which stand above those of all",
        "[models.hives.decisions]",
    ),
    Key::new(
        "fetch",
        Takes::Table,
        "its recipe: how its samples are asked for, which `jar-sprout fetch` does again",
        "[models.hives.fetch]",
    ),
];

/// The keys of a language, beside its own settings.
pub(crate) const LANGUAGE: &[Key] = &[
    Key::new(
        "dir",
        Takes::Text,
        "the folder to grow into, from the jar's folder",
        "dir = \"app/src/models\"",
    ),
    Key::new(
        "language",
        Takes::Text,
        "the language, where the table is not called after it",
        "language = \"kotlin\"",
    ),
    Key::new(
        "shared",
        Takes::Word,
        "the folder, package or namespace of the code that all models share, where the jar has several; `none` where each brings its own. In Python and Go the path by which it is imported, without which each brings its own; in the others `shared`, where nothing else is said",
        "shared = \"json\"",
    ),
];

/// The texts of a list of them.
pub(crate) fn texts_of(item: &Item) -> Option<Vec<String>> {
    Some(item.as_array()?.iter().filter_map(toml_edit::Value::as_str).map(str::to_owned).collect())
}

impl Takes {
    /// Whether a value is of the kind.
    pub(crate) fn fits(self, item: &Item) -> bool {
        let is_texts = |array: &toml_edit::Array| array.iter().all(toml_edit::Value::is_str);
        match self {
            Self::Version => item.is_integer(),
            Self::Count => item.as_integer().is_some_and(|count| count > 0),
            Self::Seconds => {
                let seconds = item.as_float().or(item.as_integer().map(|whole| whole as f64));
                seconds.is_some_and(|seconds| seconds >= 0.0 && seconds.is_finite())
            }
            Self::Text => item.is_str(),
            Self::Word => item.as_str().is_some_and(|text| !text.trim().is_empty()),
            Self::Choice(choices) => item.as_str().is_some_and(|text| choices.contains(&text)),
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
            Self::Version => "a number".to_owned(),
            Self::Count => "a whole number, 1 or more".to_owned(),
            Self::Seconds => "a number of seconds".to_owned(),
            Self::Text => "a text".to_owned(),
            Self::Word => "a text that is not blank".to_owned(),
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

    pub(crate) fn schema(self) -> Value {
        let texts = json!({"type": "array", "items": {"type": "string"}});
        match self {
            Self::Version => json!({"const": VERSION}),
            Self::Count => json!({"type": "integer", "minimum": 1}),
            Self::Seconds => json!({"type": "number", "minimum": 0}),
            Self::Text => json!({"type": "string"}),
            Self::Word => json!({"type": "string", "pattern": "\\S"}),
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
