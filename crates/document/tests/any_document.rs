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
            "then",
            "else",
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

/// The names of components that refer to each other.
const NAMES: &[&str] = &["Hive", "Queen", "Frame", "Apiary"];

/// A component that says this of others, each a keyword and which of them.
fn component(said: &[(usize, Vec<usize>)]) -> Value {
    let to = |at: &usize| json!({"$ref": format!("#/components/schemas/{}", NAMES[*at])});
    let mut component = Map::new();
    for (keyword, targets) in said {
        let references: Vec<Value> = targets.iter().map(to).collect();
        let properties = || {
            let keys = ["child", "mother", "next"].into_iter().map(str::to_owned);
            Value::Object(keys.zip(references.clone()).collect())
        };
        let (keyword, value) = match keyword {
            0 => ("properties", properties()),
            1 => ("allOf", json!([references.first(), {"type": "object", "properties": properties()}])),
            2 => ("oneOf", Value::from(references.clone())),
            3 => ("anyOf", json!([references.first(), {"properties": properties()}])),
            4 => ("items", json!({"allOf": references})),
            5 => ("allOf", Value::from(references.clone())),
            _ => {
                let test = |text: &str| json!({"properties": {"kind": {"const": text}}});
                let parts = ["a", "b"].into_iter().zip(&references);
                let kind = json!({"properties": {"kind": {"enum": ["a", "b"]}}, "required": ["kind"]});
                let all = parts.map(|(text, then)| json!({"if": test(text), "then": then})).chain([kind]);
                ("allOf", all.collect())
            }
        };
        component.insert(keyword.to_owned(), value);
    }
    Value::Object(component)
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(400))]

    /// However components lead to each other, there is an end to what is made of them.
    #[test]
    fn references_have_an_end(
        components in prop::collection::vec(
            prop::collection::vec((0_usize..8, prop::collection::vec(0..NAMES.len(), 1..4)), 1..4),
            NAMES.len(),
        ),
    ) {
        let schemas: Map<String, Value> =
            NAMES.iter().zip(&components).map(|(name, said)| ((*name).to_owned(), component(said))).collect();
        let document = json!({"openapi": "3.1.0", "paths": {}, "components": {"schemas": schemas}});
        let library = Library::of("ring.json", DocumentKind::OpenApi, document, &NoFiles);
        let drafted = draft_document(&library, "ring.json", &[], &Words::split("ring"));
        let nodes = drafted.draft.ids().count();
        prop_assert!(nodes < 20_000, "{nodes} nodes of {schemas:?}");
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(300))]

    /// A document in which something was cut, put in or said twice is read or refused.
    #[test]
    fn mutants_do_no_harm(
        at in any::<prop::sample::Index>(),
        length in 0_usize..60,
        with in prop_oneof![
            "[\\[\\]{}:&*!|>%\"'#, \n\t-]{0,12}",
            prop::sample::select(vec!["$ref: '#'", "allOf: [{$ref: '#/components/schemas/Hive'}]", "&a [*a]", "type: []", "1e999", "\u{0}"])
                .prop_map(str::to_owned),
        ],
    ) {
        for whole in [include_str!("../../cli/demo/api.yaml"), include_str!("../../cli/demo/reading.schema.json")] {
            let mut text = whole.to_owned();
            let starts: Vec<usize> = text.char_indices().map(|(start, _)| start).collect();
            let start = at.index(starts.len());
            let end = starts.get(start + length).copied().unwrap_or(text.len());
            text.replace_range(starts[start]..end, &with);
            if let Ok(library) = Library::gather("mutant", &text, &NoFiles) {
                let Drafted { draft, roots, title, .. } =
                    draft_document(&library, "mutant", &[], &Words::split("mutant"));
                if !roots.is_empty() {
                    settle_document(&draft, &roots, title.as_ref(), &Policies::default());
                }
            }
        }
    }
}

/// What leads to a schema on two ways, each of which leads there on two ways, and so on.
#[test]
fn all_of_diamonds_are_followed_once() {
    let link = |at: usize| {
        let next = json!({"$ref": format!("#/$defs/Link{}", at + 1)});
        (format!("Link{at}"), json!({"allOf": [next, next]}))
    };
    let mut definitions: Map<String, Value> = (0..100).map(link).collect();
    definitions
        .insert("Link100".to_owned(), json!({"type": "object", "properties": {"kg": {"type": "number"}}}));
    let document = json!({"$ref": "#/$defs/Link0", "$defs": definitions});
    let library = Library::of("chain.json", DocumentKind::Schema, document, &NoFiles);
    let Drafted { draft, roots, title, .. } =
        draft_document(&library, "chain.json", &[], &Words::split("chain"));
    let model = settle_document(&draft, &roots, title.as_ref(), &Policies::default()).model;
    assert_eq!(model.types().map(|(_, ty)| ty.definition.fields().len()).max(), Some(1));
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
