//! What a client might send is made of what samples hold.

use jar_sprout_model::{SourceId, Words};
use jar_sprout_settle::{
    Decision, Derivation, Inferred, Policies, Purpose, RootName, Subject, TypeVerdict, bodies, decide, infer,
};
use jar_sprout_shape::{Shape, observe};
use serde_json::{Value, json};

/// The bodies of a type that is derived from `Hive`, of samples that hold hives.
fn bodies_of(purpose: Purpose, samples: &Value) -> Vec<Value> {
    let mut shape = Shape::default();
    observe(samples.to_string().as_bytes(), SourceId(0), &mut shape).expect("it is JSON");
    let name = RootName { words: Words::split("hives"), is_given: false };
    let Inferred { drafted, mut settled } = infer(&shape, &name, &Policies::default());
    let derivation = Derivation { name: "Body".to_owned(), purpose, server_made: vec!["id".to_owned()] };
    let subject = Subject { type_name: "Hive".to_owned(), key: None };
    let decision = Decision { subject, verdict: TypeVerdict::Derive(derivation).into() };
    assert!(decide(&mut settled, &drafted, &[decision]).is_empty());
    let mut made = bodies(&settled, std::slice::from_ref(samples));
    assert_eq!(made.len(), 1, "one type was derived");
    let made = made.remove(0);
    assert_eq!(made.model.root.name.in_capitals(), "Body");
    assert_eq!(made.model.roots().count(), 1);
    made.values
}

#[test]
fn a_new_one_is_sent_without_what_the_server_makes() {
    let samples = json!([{"id": 1, "name": "North", "honey_kg": 2.5}, {"id": 2, "name": "South"}]);
    // The second lacks what must be sent.
    assert_eq!(bodies_of(Purpose::Create, &samples), [json!({"name": "North", "honey_kg": 2.5})]);
}

#[test]
fn a_change_may_be_nothing_or_null_and_is_sent_once() {
    let samples = json!([
        {"id": 1, "name": "North", "note": null},
        {"id": 2, "name": "South", "note": "strong"},
        {"id": 3, "name": "South", "note": "strong"},
    ]);
    let expected = [
        json!({"name": "North", "note": null}),
        json!({"name": "South", "note": "strong"}),
        json!({}),
        json!({"note": null}),
    ];
    assert_eq!(bodies_of(Purpose::Update, &samples), expected);
}

#[test]
fn no_more_are_made_than_a_proof_can_bear() {
    let hives: Vec<Value> = (0..200).map(|id| json!({"id": id, "name": format!("hive {id}")})).collect();
    assert_eq!(bodies_of(Purpose::Create, &Value::from(hives)).len(), 50);
}
