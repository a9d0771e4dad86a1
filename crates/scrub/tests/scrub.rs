//! A scrubbed sample makes the model of the original, and none of its texts is in it.

use std::collections::BTreeSet;
use std::fs;
use std::hash::{BuildHasherDefault, DefaultHasher};
use std::path::Path;

use jar_sprout_model::{Definition, Model, SourceId, Words};
use jar_sprout_scrub::Scrubber;
use jar_sprout_settle::{Policies, RootName, Subject, infer};
use jar_sprout_shape::{Shape, observe};
use proptest::prelude::*;
use serde_json::{Map, Value, json};

/// A keyed hash with the same key in every run.
type Random = BuildHasherDefault<DefaultHasher>;

fn model(sample: &str) -> Model {
    let mut shape = Shape::default();
    observe(sample.as_bytes(), SourceId(0), &mut shape).expect("it is JSON");
    let name = RootName { words: Words::split("hives"), is_given: true };
    infer(&shape, &name, &Policies::default()).settled.model
}

/// All texts and keys of four letters and more, of which the model makes neither words nor names.
fn texts(model: &Model, value: &Value) -> BTreeSet<String> {
    fn collect(value: &Value, texts: &mut BTreeSet<String>) {
        match value {
            Value::String(text) => drop(texts.insert(text.clone())),
            Value::Array(items) => items.iter().for_each(|item| collect(item, texts)),
            Value::Object(object) => object.iter().for_each(|(key, value)| {
                texts.insert(key.clone());
                collect(value, texts);
            }),
            Value::Null | Value::Bool(_) | Value::Number(_) => {}
        }
    }
    let mut texts = BTreeSet::new();
    collect(value, &mut texts);
    let mut named = Scrubber::new(model, Random::default()).words();
    for (_, ty) in model.types() {
        if let Definition::Record(record) = &ty.definition {
            named.extend(record.fields.iter().map(|field| field.wire.as_str()));
        }
    }
    let is_long = |text: &String| text.chars().filter(|c| c.is_alphabetic()).count() >= 4;
    let is_word = |text: &str| text.eq_ignore_ascii_case("true") || text.eq_ignore_ascii_case("false");
    texts.retain(|text| is_long(text) && !named.contains(text.as_str()) && !is_word(text));
    texts
}

/// What is wrong with what is made of a sample.
fn fault(sample: &str) -> Option<String> {
    let model = model(sample);
    let scrubbed = Scrubber::new(&model, Random::default()).scrub(sample).expect("it is JSON");
    let again = self::model(&scrubbed);
    if again != model {
        return Some(format!("another model of\n{scrubbed}\n{model:#?}\n{again:#?}"));
    }
    let value = |text: &str| serde_json::from_str(text).expect("it is JSON");
    let (before, after) = (texts(&model, &value(sample)), texts(&again, &value(&scrubbed)));
    let stayed: Vec<&String> = before.intersection(&after).collect();
    (!stayed.is_empty()).then(|| format!("{stayed:?} stayed in\n{scrubbed}"))
}

#[track_caller]
fn check(sample: &Value) {
    if let Some(fault) = fault(&sample.to_string()) {
        panic!("{fault}");
    }
}

#[test]
fn the_demo_and_awkward_data() {
    let crates = Path::new(env!("CARGO_MANIFEST_DIR")).join("..");
    let mut count = 0;
    for folder in ["cli/demo", "prove/tests/awkward"] {
        for entry in fs::read_dir(crates.join(folder)).expect("it is there") {
            let path = entry.expect("it can be read").path();
            if path.extension().is_some_and(|extension| extension == "json") {
                let sample = fs::read_to_string(&path).expect("it can be read");
                if let Some(fault) = fault(&sample) {
                    panic!("{}: {fault}", path.display());
                }
                count += 1;
            }
        }
    }
    assert!(count >= 20, "{count} samples");
}

#[test]
fn forms_stay() {
    check(&json!([
        {"at": "2026-05-01T10:30:00.120+02:00", "on": "2024-02-29", "noon": "12:00:00", "early": "06:30"},
        {"at": "2026-05-01T10:30:00.000Z", "on": "0001-01-01", "noon": "00:00:00.5", "early": "23:59"}
    ]));
    check(&json!([
        {"id": "6f1c0a52-8d0e-4c0f-9d5e-0c7f3a1b2d4e", "page": "https://honey.example/a%20b?x=1#top"},
        {"id": "00000000-0000-4000-8000-000000000000", "page": "urn:isbn:0451450523"}
    ]));
    check(&json!([{"mail": "ada@honey.example", "ip": "192.0.2.17"}, {"mail": "x@y.example", "ip": "::1"}]));
    check(
        &json!([{"kg": "12.50", "n": "007", "w": "1,200", "of": "5 kg"}, {"kg": "0", "n": "-3", "w": "9,999,999.5"}]),
    );
    check(
        &json!([{"n": 1_790_000_000, "wide": 9_007_199_254_740_993_u64, "far": u64::MAX, "lat": -0.0125, "e": 1e300}]),
    );
    check(&json!({"hives": {"s-40": {"kg": 1}, "s-41": {"kg": 2}, "s-42": {"kg": 3}}}));
    check(
        &json!({"by": {"2026-05": 1, "2026-06": 2}, "in": {"en": "Honey", "nl-NL": "Honing", "pt_BR": "Mel"}}),
    );
    check(&json!({"said": "{\"name\": \"Alder Bank\", \"n\": 5}"}));
}

#[test]
fn what_was_equal_stays_equal_and_the_rest_apart() {
    let sample = json!({"a": ["Ada Merrow", "Ada Merrow", "Bo Thatch"], "b": "Ada Merrow"}).to_string();
    let model = model(&sample);
    let scrubbed = Scrubber::new(&model, Random::default()).scrub(&sample).expect("it is JSON");
    let value: Value = serde_json::from_str(&scrubbed).expect("it is JSON");
    assert_eq!(value["a"][0], value["a"][1]);
    assert_eq!(value["a"][0], value["b"]);
    assert_ne!(value["a"][0], value["a"][2]);
}

#[test]
fn what_is_kept_stays_and_words_go_where_that_is_said() {
    let hive = |status: &str, name: &str| json!({"status": status, "name": name});
    let hives: Vec<Value> = (0..9)
        .map(|at| hive(["laying", "caged"][at % 2], ["Alder Bank", "Mill Race", "Old Quarry"][at % 3]))
        .collect();
    let sample = json!({ "hives": hives }).to_string();
    let model = model(&sample);
    let subject = |text: &str| Subject::parse(text);
    let mut scrubber = Scrubber::new(&model, Random::default());
    assert_eq!(scrubber.words().into_iter().collect::<Vec<_>>(), ["caged", "laying"]);
    scrubber.keep(&subject("Hive.name")).expect("it is there");
    let scrubbed = scrubber.scrub(&sample).expect("it is JSON");
    assert!(scrubbed.contains("Alder Bank") && scrubbed.contains("laying"), "{scrubbed}");
    scrubber.scrub_words(&subject("Hive.status")).expect("it is there");
    let scrubbed = scrubber.scrub(&sample).expect("it is JSON");
    assert!(scrubbed.contains("Alder Bank") && !scrubbed.contains("laying"), "{scrubbed}");
    assert!(scrubber.keep(&subject("Hive.none")).is_err());
}

/// Texts as APIs have them, and any others.
fn text() -> impl Strategy<Value = String> {
    prop_oneof![
        "[a-z]{1,9}( [a-z]{1,9})?",
        "[A-Z][a-z]{2,8} [A-Z][a-z]{2,8}",
        "(laying|caged|missing)",
        "20[0-9]{2}-0[1-9]-[0-2][1-8]",
        "20[0-9]{2}-0[1-9]-[0-2][1-8]T[01][0-9]:[0-5][0-9]:[0-5][0-9](\\.[0-9]{1,6})?(Z|[+-]0[0-9]:30)?",
        "[0-9]{1,12}",
        "-?[1-9][0-9]{0,3}\\.[0-9]{1,3}",
        "https://[a-z]{3,9}\\.example/[a-z0-9/?=&%-]{0,9}",
        "[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}",
        "[a-z]{1,6}@[a-z]{2,6}\\.[a-z]{2,3}",
        "\\PC{0,12}",
    ]
}

fn number() -> impl Strategy<Value = Value> {
    prop_oneof![
        any::<i64>().prop_map(Value::from),
        (0..400_i64).prop_map(Value::from),
        (1_500_000_000..1_900_000_000_i64).prop_map(Value::from),
        any::<u64>().prop_map(Value::from),
        (-1e9..1e9_f64).prop_map(Value::from),
    ]
}

fn value() -> impl Strategy<Value = Value> {
    let leaf = prop_oneof![
        3 => text().prop_map(Value::from),
        2 => number(),
        1 => any::<bool>().prop_map(Value::from),
        1 => Just(Value::Null),
    ];
    leaf.prop_recursive(4, 48, 8, |inner| {
        let key = prop_oneof![
            3 => "(id|name|status|kind|at|url|queen|frames|kg|hive)",
            1 => text(),
        ];
        prop_oneof![
            prop::collection::vec(inner.clone(), 0..8).prop_map(Value::from),
            prop::collection::vec((key, inner), 0..8)
                .prop_map(|entries| Value::Object(entries.into_iter().collect::<Map<_, _>>())),
        ]
    })
}

proptest! {
    #[test]
    fn any_sample(value in value()) {
        prop_assert_eq!(fault(&value.to_string()), None);
    }

    #[test]
    fn any_list_of_records(names in prop::collection::vec((text(), text(), number()), 1..24)) {
        let record = |(name, status, n): (String, String, Value)| json!({"name": name, "status": status, "n": n});
        let value = Value::from(names.into_iter().map(record).collect::<Vec<_>>());
        prop_assert_eq!(fault(&value.to_string()), None);
    }
}
