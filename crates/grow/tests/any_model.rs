//! Growing never fails, whatever the wire calls its things, and nothing of the input escapes its place.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]

use std::collections::BTreeSet;

use jar_sprout_grow::{
    Arrangement, GrownFile, LANGUAGES, Language, Origin, Provenance, SettingError, Settings, grow,
    json_schema, marked, origin,
};
use jar_sprout_model::{Model, SourceId, is_hidden};
use jar_sprout_settle::{Policies, RootName, infer, root_name};
use jar_sprout_shape::{Shape, observe};
use proptest::prelude::*;
use serde_json::{Map, Value};

fn model_of(sample: &Value, file: &str) -> Model {
    let mut shape = Shape::default();
    observe(sample.to_string().as_bytes(), SourceId(0), &mut shape).unwrap();
    let words = root_name([file], None, false);
    infer(&shape, &RootName { words, is_given: false }, &Policies::default()).settled.model
}

/// JSON whose keys and words are as hostile as they come.
fn any_json() -> impl Strategy<Value = Value> {
    let text = prop_oneof![
        any::<String>(),
        prop::sample::select(vec![
            "*/", "\"\"\"", "${x}", "`", "\n//", "\u{2028}", "\u{202E}", "class", "List", "a b", "A", "a",
            "", "🍯",
        ])
        .prop_map(String::from),
    ];
    let leaf = prop_oneof![
        Just(Value::Null),
        any::<bool>().prop_map(Value::from),
        any::<i64>().prop_map(Value::from),
        any::<f64>().prop_map(Value::from),
        text.clone().prop_map(Value::from),
    ];
    leaf.prop_recursive(5, 40, 6, move |inner| {
        prop_oneof![
            prop::collection::vec(inner.clone(), 0..6).prop_map(Value::from),
            prop::collection::vec((text.clone(), inner), 0..6)
                .prop_map(|pairs| Value::Object(pairs.into_iter().collect::<Map<_, _>>())),
        ]
    })
}

/// More settings than any language has.
const MOST_SETTINGS: usize = 24;

/// Settings of a language, each as it is by itself or with one of its values.
fn picked(language: &dyn Language, picks: &[prop::sample::Index]) -> Settings {
    let mut settings = Settings::default();
    assert!(language.settings().len() <= MOST_SETTINGS);
    for (setting, pick) in language.settings().iter().zip(picks) {
        let values = setting.values().examples();
        if let Some(value) = pick.index(values.len() + 1).checked_sub(1) {
            let set = language.set(&mut settings, setting.key(), values[value]);
            // One that another rules out stays as it is.
            assert!(matches!(set, Ok(()) | Err(SettingError::Beside { .. })), "{set:?}");
        }
    }
    settings
}

proptest! {
    #[test]
    fn a_sample_passes_the_schema_grown_from_it(sample in any_json(), file in ".{0,8}") {
        let schema = json_schema(&model_of(&sample, &file));
        // A null at the root is for whoever holds the value.
        prop_assume!(!sample.is_null());
        let validator = jsonschema::draft202012::new(&schema).expect("the schema is one");
        prop_assert!(validator.is_valid(&sample), "{sample}\n{schema:#}");
    }

    #[test]
    fn any_sample_grows_into_every_language(
        sample in any_json(),
        file in ".{0,8}",
        picks in prop::collection::vec(any::<prop::sample::Index>(), MOST_SETTINGS),
    ) {
        let model = model_of(&sample, &file);
        for language in LANGUAGES {
            let settings = picked(*language, &picks);
            for arrangement in [Arrangement::Together, Arrangement::AsUsual] {
                let files = grow(&*language.dialect(&settings), &model, arrangement);
                let names: BTreeSet<String> = files.iter().map(|file| file.name.to_lowercase()).collect();
                prop_assert_eq!(names.len(), files.len(), "file names differ on every disk");
                for GrownFile { name, text } in files {
                    prop_assert!(!name.contains(['/', '\\', '\0']) && !name.starts_with('.'), "{name:?}");
                    prop_assert!(text.ends_with('\n'), "{text}");
                    let from = Provenance::of_source(&file);
                    let marked = marked(*language, &text, Some(&from));
                    prop_assert_eq!(origin(&marked), Origin::Grown(from), "{}", marked);
                    // Some indent with tabs, at the start of a line.
                    let mut lines = text.lines().map(|line| line.trim_start_matches('\t'));
                    prop_assert!(lines.all(|line| !line.contains(is_hidden)), "{text:?}");
                }
            }
        }
    }
}
