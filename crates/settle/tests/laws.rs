//! What must hold for any data: a sample fits the model made from it, and more samples never shut one out.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]

mod sketch;

use jar_sprout_model::{
    DefaultValue, Definition, Encoding, Model, Presence, Scalar, ScalarKind, Slot, Type, Width,
};
use jar_sprout_settle::{
    Decision, FieldType, FieldVerdict, Structure, Subject, TypeVerdict, decide, misfits,
};
use proptest::prelude::*;
use serde_json::{Map, Value};
use sketch::{decided, settled, settled_with_draft, shape_of, sketch};

/// Whether a value fits a place of a model, judged by the model's own words alone.
fn fits(model: &Model, slot: &Slot, value: &Value) -> bool {
    match (&slot.ty, value) {
        (_, Value::Null) => slot.nullable || slot.ty == Type::Any,
        (Type::Any, _) => true,
        (Type::Constant(text), Value::String(value)) => text.as_str() == value,
        (Type::Scalar(scalar), value) => fits_scalar(*scalar, value),
        (Type::List(items), Value::Array(values)) => values.iter().all(|value| fits(model, items, value)),
        (Type::Tuple(items), Value::Array(values)) => {
            items.len() == values.len()
                && items.iter().zip(values).all(|(item, value)| fits(model, item, value))
        }
        (Type::Map(values), Value::Object(map)) => map.values().all(|value| fits(model, values, value)),
        (Type::Named(id), value) => match &model.get(*id).definition {
            Definition::Enumeration(_) => value.is_string(),
            Definition::Union(union) => union.cases.iter().any(|case| fits(model, &case.slot, value)),
            Definition::Record(record) => value.as_object().is_some_and(|map| {
                let known = |key: &String| record.fields.iter().any(|field| field.wire.as_str() == key);
                let is_extra =
                    |value| record.extras.as_ref().is_some_and(|extras| fits(model, extras, value));
                map.iter().all(|(key, value)| known(key) || is_extra(value))
                    && record.fields.iter().all(|field| match map.get(field.wire.as_str()) {
                        Some(Value::String(text)) if field.encoding == Encoding::JsonInText => {
                            serde_json::from_str(text).is_ok_and(|value| fits(model, &field.slot, &value))
                        }
                        Some(value) => {
                            (field.encoding != Encoding::JsonInText || value.is_null())
                                && fits(model, &field.slot, value)
                        }
                        None => field.presence == Presence::Sometimes,
                    })
            }),
        },
        _ => false,
    }
}

fn fits_scalar(scalar: Scalar, value: &Value) -> bool {
    match (scalar, value) {
        (Scalar::Boolean, Value::Bool(_)) | (Scalar::Float, Value::Number(_)) => true,
        (Scalar::Always(truth), Value::Bool(value)) => truth == *value,
        (Scalar::Integer(Width::Narrow), Value::Number(n)) => {
            n.as_i64().is_some_and(|n| i32::try_from(n).is_ok())
        }
        (Scalar::Integer(Width::Wide | Width::Exact), Value::Number(n)) => n.as_i64().is_some(),
        (Scalar::Integer(Width::Big), Value::Number(n)) => n.is_i64() || n.is_u64(),
        (scalar, Value::String(_)) => scalar.kind() == ScalarKind::Text,
        _ => false,
    }
}

/// JSON as APIs write it: few keys that come again, words, ids, dates, and the odd surprise.
fn any_json() -> impl Strategy<Value = Value> {
    let text = prop_oneof![
        prop::sample::select(vec![
            "laying",
            "caged",
            "swarm",
            "harvest",
            "2026-05-01",
            "",
            "q-17",
            "12.5",
            "GBP"
        ])
        .prop_map(String::from),
        ".{0,6}",
    ];
    let leaf = prop_oneof![
        Just(Value::Null),
        any::<bool>().prop_map(Value::from),
        (0_i64..40).prop_map(Value::from),
        any::<u64>().prop_map(Value::from),
        (-90.0..90.0).prop_map(|f: f64| Value::from(f)),
        text.prop_map(Value::from),
    ];
    let key = prop_oneof![
        4 => prop::sample::select(vec!["id", "kind", "name", "queen", "hive", "kg", "items", "parent", "17", "s-40", "s-41", "2026-05-01"])
            .prop_map(String::from),
        1 => ".{0,3}",
    ];
    leaf.prop_recursive(4, 32, 6, move |inner| {
        prop_oneof![
            2 => prop::collection::vec(inner.clone(), 0..6).prop_map(Value::from),
            4 => prop::collection::vec((key.clone(), inner.clone()), 0..6)
                .prop_map(|pairs| Value::Object(pairs.into_iter().collect::<Map<_, _>>())),
            1 => map_of(inner.clone()),
            1 => kinds_of(inner.clone()),
            1 => values_by_tag(inner.clone()),
            1 => answers_of(inner.clone()),
            1 => inside_itself(inner.clone()),
            1 => in_texts(inner),
        ]
    })
}

/// Objects whose keys are data, with values of one structure or of any.
fn map_of(inner: impl Strategy<Value = Value> + Clone + 'static) -> impl Strategy<Value = Value> {
    let keys = prop::sample::select(vec!["heather", "ivy", "linden", "clover", "bramble", "willow"]);
    let routes = prop::sample::select(vec!["./hive", "2/east", "coop.fen.title", "coop.fen.hint"]);
    let key = prop_oneof![keys, routes].prop_map(String::from);
    let same = inner.clone().prop_map(|value| serde_json::json!({"safe": true, "value": value}));
    prop::collection::vec((key, prop_oneof![3 => same, 1 => inner]), 1..5)
        .prop_map(|pairs| Value::Object(pairs.into_iter().collect()))
}

/// A list of objects of several kinds, each with keys of its own, and keys that all may have.
fn kinds_of(inner: impl Strategy<Value = Value> + Clone + 'static) -> impl Strategy<Value = Value> {
    let one = (0..3_usize, any::<bool>(), inner).prop_map(|(kind, has_note, value)| {
        let (tag, key) = [("swarm", "caught"), ("harvest", "grams"), ("alarm", "level")][kind];
        let mut object = serde_json::json!({"kind": tag, "at": "2026-05-01", key: value});
        if has_note {
            object["note"] = "x".into();
        }
        object
    });
    prop::collection::vec(one, 2..5).prop_map(Value::from)
}

/// A list of objects with the same keys, of which a word says what kind of value stands beside it; now and then it
/// does not.
fn values_by_tag(inner: impl Strategy<Value = Value> + Clone + 'static) -> impl Strategy<Value = Value> {
    let one = (0..3_usize, any::<bool>(), 0..10, inner).prop_map(|(kind, is_list, odd, value)| {
        let shown = match (kind, odd) {
            (_, 0) => value,
            (0, _) => 4.5.into(),
            (1, _) => "open".into(),
            _ => serde_json::json!({"caught": value}),
        };
        let shown = if is_list { Value::Array(vec![shown]) } else { shown };
        serde_json::json!({"sensor": (["scale", "sign", "trap"][kind]), "shows": shown})
    });
    prop::collection::vec(one, 2..6).prop_map(Value::from)
}

/// A list of answers and errors, which a truth tells apart; now and then it does not.
fn answers_of(inner: impl Strategy<Value = Value> + Clone + 'static) -> impl Strategy<Value = Value> {
    let one = (any::<bool>(), 0..10, inner).prop_map(|(is_ok, odd, value)| {
        let key = if is_ok || odd == 0 { "hive" } else { "error" };
        serde_json::json!({"ok": is_ok, key: value})
    });
    prop::collection::vec(one, 2..6).prop_map(Value::from)
}

/// A text, a list of such things, or an object with such things in it.
fn inside_itself(inner: impl Strategy<Value = Value> + Clone + 'static) -> impl Strategy<Value = Value> {
    inner.prop_map(|value| {
        let note = |inner: Value| serde_json::json!({"text": "a", "inner": inner});
        serde_json::json!({"note": ["b", note("c".into()), note(serde_json::json!([note(value)]))]})
    })
}

/// Values under the keys that decisions speak of, as JSON in texts.
fn in_texts(inner: impl Strategy<Value = Value> + Clone + 'static) -> impl Strategy<Value = Value> {
    let object =
        prop_oneof![3 => inner.clone().prop_map(|value| serde_json::json!({"kg": value})), 1 => inner];
    let key = prop::sample::select(vec!["id", "name", "queen", "hive"]).prop_map(String::from);
    prop::collection::vec((key, object), 1..4).prop_map(|pairs| {
        pairs
            .into_iter()
            .map(|(key, value)| (key, Value::from(value.to_string())))
            .collect::<Map<_, _>>()
            .into()
    })
}

fn model_of(samples: &[Value]) -> Model {
    let texts: Vec<String> = samples.iter().map(Value::to_string).collect();
    settled(&shape_of(texts.iter().map(String::as_str)), "hives").model
}

const SUBJECTS: &[&str] = &[
    "*",
    "*.id",
    "*.kind",
    "*.queen",
    "Hive",
    "Hive.id",
    "Hive.name",
    "Queen",
    "Queen.hive",
    "Hive.n*",
    "Item",
];

fn field_verdict() -> impl Strategy<Value = FieldVerdict> {
    let values = || vec!["laying".to_owned(), "caged".to_owned()];
    prop::sample::select(vec![
        FieldVerdict::Is(FieldType::Scalar(Scalar::Float)),
        FieldVerdict::Is(FieldType::Scalar(Scalar::Decimal)),
        FieldVerdict::Is(FieldType::Scalar(Scalar::Integer(Width::Wide))),
        FieldVerdict::Is(FieldType::Any),
        FieldVerdict::Is(FieldType::Enum),
        FieldVerdict::Is(FieldType::EnumOf(values())),
        FieldVerdict::Default(DefaultValue::Number("3".to_owned())),
        FieldVerdict::Default(DefaultValue::Text("laying".to_owned())),
        FieldVerdict::Closed(true),
        FieldVerdict::Required,
        FieldVerdict::Optional,
        FieldVerdict::Nullable,
        FieldVerdict::NeverNull,
        FieldVerdict::LeaveOut,
        FieldVerdict::Describe("A hive.".to_owned()),
        FieldVerdict::Deprecated(true),
        FieldVerdict::Rename("colony".to_owned()),
    ])
}

fn structure() -> impl Strategy<Value = Structure> {
    prop::sample::select(vec![
        Structure::Map,
        Structure::Record,
        Structure::By("kind".to_owned()),
        Structure::By("ok".to_owned()),
        Structure::By("sensor".to_owned()),
        Structure::Union,
        Structure::JsonInText,
    ])
}

fn type_verdict() -> impl Strategy<Value = TypeVerdict> {
    prop::sample::select(vec![
        TypeVerdict::EnumOf(vec!["laying".to_owned(), "caged".to_owned()]),
        TypeVerdict::Keep(vec!["id".to_owned(), "k*".to_owned()]),
        TypeVerdict::Closed(true),
        TypeVerdict::Describe("A hive.".to_owned()),
        TypeVerdict::Deprecated(true),
        TypeVerdict::Rename("colony".to_owned()),
    ])
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(400))]

    #[test]
    fn every_sample_fits_the_model_made_from_it(samples in prop::collection::vec(any_json(), 1..6)) {
        let model = model_of(&samples);
        for sample in &samples {
            prop_assert!(fits(&model, &model.root.slot, sample), "{sample}\n{}", sketch(&model));
            prop_assert_eq!(misfits(&model, sample), vec![]);
        }
    }

    #[test]
    fn a_model_of_more_samples_takes_the_fewer(samples in prop::collection::vec(any_json(), 2..6)) {
        let model = model_of(&samples);
        let fewer = &samples[..samples.len() - 1];
        prop_assert!(fewer.iter().all(|sample| fits(&model, &model.root.slot, sample)));
    }

    #[test]
    fn decisions_twice_are_decisions_once(
        samples in prop::collection::vec(any_json(), 1..4),
        subjects in prop::collection::vec(prop::sample::select(SUBJECTS), 1..5),
        of_fields in prop::collection::vec(field_verdict(), 5),
        of_types in prop::collection::vec(type_verdict(), 5),
    ) {
        let texts: Vec<String> = samples.iter().map(Value::to_string).collect();
        let shape = shape_of(texts.iter().map(String::as_str));
        let decisions: Vec<Decision> = subjects
            .iter()
            .zip(of_fields.into_iter().zip(of_types))
            .map(|(subject, (of_field, of_type))| {
                let subject = Subject::parse(subject);
                let verdict = if subject.key.is_some() { of_field.into() } else { of_type.into() };
                Decision { subject, verdict }
            })
            .collect();
        let decided = |decisions: &[Decision]| {
            let (mut settled, drafted) = settled_with_draft(&shape, "hives");
            decide(&mut settled, &drafted, decisions);
            settled.model
        };
        let once = decided(&decisions);
        prop_assert_eq!(decided(&[decisions.clone(), decisions].concat()), once);
    }

    #[test]
    fn what_objects_are_can_be_said_of_any(
        samples in prop::collection::vec(any_json(), 1..4),
        subjects in prop::collection::vec(prop::sample::select(SUBJECTS), 1..4),
        structures in prop::collection::vec(structure(), 4),
    ) {
        let texts: Vec<String> = samples.iter().map(Value::to_string).collect();
        let shape = shape_of(texts.iter().map(String::as_str));
        let decisions: Vec<Decision> = subjects
            .iter()
            .zip(structures)
            .map(|(subject, structure)| {
                let subject = Subject::parse(subject);
                let verdict = match subject.key {
                    None if structure == Structure::JsonInText => TypeVerdict::Structure(Structure::Map).into(),
                    Some(_) => FieldVerdict::Structure(structure).into(),
                    None => TypeVerdict::Structure(structure).into(),
                };
                Decision { subject, verdict }
            })
            .collect();
        let (settled, _) = decided(&shape, "hives", &decisions);
        for sample in &samples {
            prop_assert!(fits(&settled.model, &settled.model.root.slot, sample), "{sample}");
        }
    }

    #[test]
    fn names_are_unique(samples in prop::collection::vec(any_json(), 1..6)) {
        let model = model_of(&samples);
        let mut names: Vec<String> = model.types().map(|(_, ty)| ty.name.in_capitals().to_lowercase()).collect();
        let count = names.len();
        names.sort();
        names.dedup();
        prop_assert_eq!(names.len(), count);
    }
}
