//! The reference of `jar.toml` and its JSON Schema, made of the tables that read it.

#[cfg(test)]
use jar_sprout_grow::{
    Arrangement, Choice, GrownFile, Language, Place, Settings, Usage, UsingProgram, Values, prepare, usage,
};
#[cfg(test)]
use jar_sprout_model::Model;
use serde_json::{Value, json};

use crate::decisions::decision_keys;
use crate::keys::{Key, LANGUAGE, MODEL, TOP};
use crate::policies::policy_keys;
use crate::recipe::recipe_keys;

/// The sections of the reference, in order.
#[cfg(test)]
fn sections() -> [(&'static str, &'static str, Vec<Key>); 6] {
    [
        ("At the top", "", TOP.to_vec()),
        ("A model", "`[models.NAME]`; names are small letters, digits, `-` and `_`.", MODEL.to_vec()),
        ("Policies", "`[policies]`, or `[models.NAME.policies]`.", policy_keys()),
        (
            "A language",
            "`[languages.NAME]`. The settings of the language stand here as well: `jar-sprout languages kotlin` lists them.",
            LANGUAGE.to_vec(),
        ),
        (
            "A decision",
            "In `[decisions]` or `[models.NAME.decisions]`, by type and key as `look` and the samples have them: `\"Hive.img\"`. A `*` stands for any part of a name: `\"*.created_at\"`. Where all that is decided is what a field is, the word alone will do: `\"Hive.honey_kg\" = \"float\"`.",
            decision_keys(),
        ),
        (
            "A recipe",
            "`[models.NAME.fetch]`: what `jar-sprout fetch` asks, with the names of its options. `${NAME}` stands for what the environment says, or the `env-file`; no secret is written here.",
            recipe_keys(),
        ),
    ]
}

/// The reference of all keys, as it stands in `docs/jar.md`.
#[cfg(test)]
pub(crate) fn reference() -> String {
    let mut out = String::new();
    for (title, about, keys) in sections() {
        out.push_str(&format!("\n## {title}\n\n"));
        if !about.is_empty() {
            out.push_str(&format!("{about}\n\n"));
        }
        out.push_str("| key | takes | means |\n|---|---|---|\n");
        for Key { name, takes, doc, example } in keys {
            out.push_str(&format!("| `{name}` | {} | {doc}: `{example}` |\n", takes.words()));
        }
    }
    out
}

/// The page of a language: what it grows, its settings, and the code of a small model.
#[cfg(test)]
fn language_page(language: &dyn Language, model: &Model) -> String {
    let (title, key) = (language.title(), language.key());
    let mut out = format!("# {title}\n\n{title}: {}.\n\n", language.grows());
    out.push_str(&format!(
        "`jar-sprout languages {key}` lists these settings. `--with KEY=VALUE` sets one, as does a line under `[languages.{key}]` in `jar.toml`. The first value holds where none is given.\n\n| setting | decides | values |\n|---|---|---|\n"
    ));
    for setting in language.settings() {
        let values = match setting.values() {
            Values::Choice(choices) => choices
                .iter()
                .map(|Choice { value, doc }| format!("`{value}`: {doc}"))
                .collect::<Vec<_>>()
                .join("; "),
            Values::Text { default, example, check: _ } => match default {
                Some(default) => format!("`{default}`, or such as `{example}`"),
                None => format!("none, unless given, such as `{example}`"),
            },
        };
        let values = values.replace('|', "\\|");
        out.push_str(&format!("| `{}` | {} | {values} |\n", setting.key(), setting.doc()));
    }
    let dialect = language.dialect(&Settings::default());
    let files = jar_sprout_grow::grow(&*dialect, model, Arrangement::Together);
    let code: String = files.into_iter().map(|file| file.text).collect();
    let about = "What becomes of numbers, dates, nulls and unknown values is in [values.md](../values.md).";
    out.push_str(&format!(
        "\n{about}\n\n## A small model\n\nOf the demo's `readings.json`, readings by sensor:\n\n```{key}\n{}\n```\n",
        code.trim_end()
    ));
    let Usage { project, program } =
        usage(&*dialect, &prepare(&*dialect, model), Place { sample: "readings.json", code: None });
    out.push_str(&format!(
        "\n## How it is used\n\n`jar-sprout use readings.json --into {key}` shows it of your own samples; the versions are those that the proofs are made with.\n"
    ));
    for GrownFile { name, text } in project {
        let form = name.rsplit('.').next().unwrap_or_default();
        out.push_str(&format!("\nIn `{name}`:\n\n```{form}\n{}\n```\n", text.trim_end()));
    }
    if let Some(UsingProgram { file, folder, run: _, reading: _ }) = program {
        let place = folder.map_or_else(
            || "beside the code".to_owned(),
            |folder| format!("with the code in the folder `{folder}`"),
        );
        out.push_str(&format!(
            "\nA program, `{}`, {place}:\n\n```{key}\n{}\n```\n",
            file.name,
            file.text.trim_end()
        ));
    }
    out
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
        "additionalProperties": {
            "anyOf": [
                {"type": "string"},
                {"type": "array", "items": {"type": "string"}},
                {"$ref": "#/$defs/decision"},
            ],
        },
    });
    let mut model = object(MODEL, true);
    model["properties"]["policies"] = json!({"$ref": "#/$defs/policies"});
    model["properties"]["decisions"] = json!({"$ref": "#/$defs/decisions"});
    model["properties"]["fetch"] = object(&recipe_keys(), true);
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
        "policies": object(&policy_keys(), true),
        "decisions": decisions,
        "decision": object(&decision_keys(), true),
    });
    top
}

#[cfg(test)]
mod tests {
    use std::fs;
    use std::path::Path;

    use jar_sprout_grow::LANGUAGES;
    use jar_sprout_model::{SourceId, Words};
    use jar_sprout_settle::{Policies, RootName, infer};

    use super::*;
    use crate::keys::Takes;

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
    fn the_pages_of_the_languages_are_current() {
        let sample = include_str!("../demo/readings.json");
        let mut shape = jar_sprout_shape::Shape::default();
        jar_sprout_shape::observe(sample.as_bytes(), SourceId(0), &mut shape).unwrap();
        let name = RootName { words: Words::split("readings"), is_given: false };
        let model = infer(&shape, &name, &Policies::default()).settled.model;
        for language in LANGUAGES {
            check(&format!("languages/{}.md", language.key()), &language_page(*language, &model));
        }
    }

    #[test]
    fn the_schema_is_current() {
        check("jar.schema.json", &format!("{:#}\n", schema()));
    }

    #[test]
    fn every_example_is_one() {
        for (_, _, keys) in sections() {
            for Key { name, takes, doc, example } in keys {
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
