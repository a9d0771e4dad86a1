//! Laws of drift, on arbitrary data.

mod sides;

use std::collections::BTreeSet;

use proptest::prelude::*;
use serde_json::{Map, Value, json};
use sides::{Made, drifted, made as made_of, of_samples};

/// Values with few keys, so that many are shared.
fn value() -> impl Strategy<Value = Value> {
    let leaf = prop_oneof![
        Just(Value::Null),
        any::<bool>().prop_map(Value::from),
        (-5_i64..9_000_000_000).prop_map(Value::from),
        (0.5_f64..9.5).prop_map(Value::from),
        prop::sample::select(vec!["laying", "caged", "2026-05-01", "https://honey.example/", "17", ""])
            .prop_map(Value::from),
    ];
    leaf.prop_recursive(4, 24, 4, |inner| {
        let key = prop::sample::select(vec!["id", "kind", "name", "queen", "hives", "image", "img"]);
        prop_oneof![
            prop::collection::vec(inner.clone(), 0..4).prop_map(Value::from),
            prop::collection::vec((key, inner), 0..5).prop_map(|pairs| {
                let object: Map<String, Value> =
                    pairs.into_iter().map(|(key, value)| (key.to_owned(), value)).collect();
                Value::from(object)
            }),
        ]
    })
}

fn made(samples: &[Value]) -> Made {
    let texts: Vec<String> = samples.iter().map(|sample| json!({"all": sample}).to_string()).collect();
    of_samples(texts.iter().map(String::as_str), "hives")
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 400, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn a_thing_has_not_drifted_from_itself(samples in prop::collection::vec(value(), 1..4)) {
        let side = made(&samples);
        prop_assert!(drifted(&side, &side).is_empty());
    }

    #[test]
    fn both_ways_name_the_same_places(
        old in prop::collection::vec(value(), 1..4),
        new in prop::collection::vec(value(), 1..4),
    ) {
        let (old, new) = (made(&old), made(&new));
        let places = |old: &Made, new: &Made| -> BTreeSet<String> {
            drifted(old, new).iter().map(|finding| finding.at.to_string()).collect()
        };
        prop_assert_eq!(places(&old, &new), places(&new, &old));
    }
}

/// A schema of types each of which holds the next one; the last has a value of this kind.
fn chain(kind: &str) -> Made {
    const LENGTH: usize = 5_000;
    let types: Map<String, Value> = (0..LENGTH)
        .map(|at| {
            let next = match at + 1 {
                LENGTH => json!({"type": kind}),
                next => json!({"$ref": format!("#/$defs/T{next}")}),
            };
            (format!("T{at}"), json!({"type": "object", "properties": {"next": next}}))
        })
        .collect();
    made_of(&format!("schema {}", json!({"$ref": "#/$defs/T0", "$defs": types})), "chain")
}

#[test]
fn a_chain_of_types_is_walked_to_its_end() {
    let (old, new) = (chain("string"), chain("integer"));
    assert!(drifted(&old, &old).is_empty());
    assert_eq!(drifted(&old, &new).len(), 1);
}
