//! Whatever a document says, it becomes a model that grows into every language.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]

use jar_sprout_document::{DocumentKind, Drafted, Library, NoFiles, draft_document};
use jar_sprout_grow::{Arrangement, LANGUAGES, Settings, grow};
use jar_sprout_model::Words;
use jar_sprout_settle::{Policies, settle_document};
use proptest::prelude::*;
use serde_json::{Map, Value, json};

/// A schema that any mixture of keywords may stand in, references to itself among them.
fn any_schema() -> impl Strategy<Value = Value> {
    let references =
        vec!["#", "#/$defs/a", "#/$defs/b", "#/$defs/gone", "#a", "b.json", "https://honey.example/x", ""];
    let leaf = prop_oneof![
        any::<bool>().prop_map(Value::from),
        prop::sample::select(references).prop_map(|to| json!({"$ref": to})),
        prop::sample::select(vec!["string", "integer", "null", "object", "array", "odd"])
            .prop_map(|ty| json!({"type": ty})),
        Just(json!({"enum": ["a", "b", null, 1, [2]]})),
        Just(json!({"const": "swarm"})),
        Just(json!({"format": "date-time"})),
        Just(json!({"type": ["string", "number", "null"]})),
        Just(Value::Null),
    ];
    leaf.prop_recursive(5, 40, 5, |inner| {
        let lists =
            prop::sample::select(vec!["allOf", "oneOf", "anyOf", "prefixItems", "items", "required", "type"]);
        let parts = prop::sample::select(vec![
            "items",
            "additionalProperties",
            "not",
            "if",
            "contains",
            "discriminator",
        ]);
        let maps =
            prop::sample::select(vec!["properties", "patternProperties", "$defs", "definitions", "mapping"]);
        let keys = prop::sample::select(vec!["a", "b", "kind", "$ref", "", "next"]);
        let said = prop_oneof![
            (lists, prop::collection::vec(inner.clone(), 0..4))
                .prop_map(|(key, parts)| (key, Value::from(parts))),
            (parts, inner.clone()),
            (maps, prop::collection::vec((keys, inner), 0..4)).prop_map(|(key, parts)| {
                let parts = parts.into_iter().map(|(key, part)| (key.to_owned(), part));
                (key, Value::Object(parts.collect::<Map<_, _>>()))
            }),
            prop::sample::select(vec![
                ("nullable", json!(true)),
                ("title", json!("Hive")),
                ("description", json!("*/ class Evil {}")),
                ("required", json!(["a", "kind"])),
                ("discriminator", json!({"propertyName": "kind"})),
                ("$dynamicAnchor", json!("a")),
                ("$id", json!("https://honey.example/x")),
            ]),
        ];
        prop::collection::vec(said, 1..5).prop_map(|said| {
            Value::Object(said.into_iter().map(|(key, value)| (key.to_owned(), value)).collect::<Map<_, _>>())
        })
    })
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(300))]

    #[test]
    fn any_document_grows(a in any_schema(), b in any_schema(), root in any_schema(), is_api in any::<bool>()) {
        let (kind, value) = if is_api {
            let schemas = json!({"a": a, "b": b, "Page_Hive_": root});
            let path = json!({"get": {"responses": {"200": {"content": {"application/json": {"schema": {"$ref": "#/components/schemas/a"}}}}}}});
            (DocumentKind::OpenApi, json!({"openapi": "3.1.0", "paths": {"/a": path}, "components": {"schemas": schemas}}))
        } else {
            (DocumentKind::Schema, json!({"$defs": {"a": a, "b": b}, "allOf": [root]}))
        };
        let library = Library::of("odd", kind, value, &NoFiles);
        let drafted = draft_document(&library, "odd", &[], &Words::split("odd"));
        prop_assert!(!drafted.roots.is_empty());
        let Drafted { draft, roots, title, .. } = drafted;
        let model = settle_document(&draft, &roots, title.as_ref(), &Policies::default()).model;
        for language in LANGUAGES {
            let files = grow(&*language.dialect(&Settings::default()), &model, Arrangement::AsUsual);
            prop_assert!(!files.is_empty());
        }
    }
}

/// Schemas that follow each other further than calls within calls can go.
#[test]
fn a_chain_of_all_of_is_cut() {
    let mut definitions = Map::new();
    for link in 0..20_000 {
        let next = format!("#/$defs/Link{}", link + 1);
        let properties = json!({format!("weight_{link}"): {"type": "number"}});
        definitions
            .insert(format!("Link{link}"), json!({"properties": properties, "allOf": [{"$ref": next}]}));
    }
    definitions.insert("Link20000".to_owned(), json!({"type": "object"}));
    let document = json!({"$ref": "#/$defs/Link0", "$defs": definitions});
    let library = Library::of("chain.json", DocumentKind::Schema, document, &NoFiles);
    let drafted = draft_document(&library, "chain.json", &[], &Words::split("chain"));
    let problems: Vec<&str> = drafted.problems.iter().map(|problem| problem.message.as_str()).collect();
    assert!(problems.iter().any(|problem| problem.contains("more than 256 levels")), "{problems:?}");
}

/// Records that hold each other further than calls within calls can go.
#[test]
fn a_chain_of_records_grows() {
    const LINKS: usize = 20_000;
    let link = |at: usize| {
        let next = json!({"$ref": format!("#/$defs/Link{}", at + 1)});
        (format!("Link{at}"), json!({"type": "object", "properties": {"next": next}}))
    };
    let mut definitions: Map<String, Value> = (0..LINKS).map(link).collect();
    definitions.insert(format!("Link{LINKS}"), json!({"type": "string"}));
    let document = json!({"$ref": "#/$defs/Link0", "$defs": definitions});
    let library = Library::of("chain.json", DocumentKind::Schema, document, &NoFiles);
    let Drafted { draft, roots, title, .. } =
        draft_document(&library, "chain.json", &[], &Words::split("chain"));
    let model = settle_document(&draft, &roots, title.as_ref(), &Policies::default()).model;
    assert_eq!(model.types().count(), LINKS);
    for language in LANGUAGES {
        let files = grow(&*language.dialect(&Settings::default()), &model, Arrangement::Together);
        assert!(files[0].text.contains(&format!("Link{}", LINKS - 1)), "{}", language.title());
    }
}
