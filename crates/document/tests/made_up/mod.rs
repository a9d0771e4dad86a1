//! Documents that nobody wrote, each with values that were made to fit it.

use proptest::prelude::*;
use proptest::sample::select;
use serde_json::{Map, Value, json};

/// A document, and values that fit it.
#[derive(Debug, Clone)]
pub(crate) struct MadeUp {
    pub(crate) document: Value,
    pub(crate) instances: Vec<Value>,
}

/// A schema, and values that fit it, at least one.
#[derive(Debug, Clone)]
struct Made {
    schema: Value,
    instances: Vec<Value>,
}

/// Documents of records in records, lists, maps, unions and references, with how they are put together.
pub(crate) fn documents() -> impl Strategy<Value = MadeUp> {
    record(any_schema().boxed()).prop_map(|Made { schema, instances }| {
        let mut definitions = Map::new();
        let Value::Object(mut document) = hoisted(schema, &mut definitions) else { unreachable!("a record") };
        document.insert("$schema".to_owned(), json!("https://json-schema.org/draft/2020-12/schema"));
        document.insert("title".to_owned(), json!("Apiary"));
        document.insert("$defs".to_owned(), Value::Object(definitions));
        MadeUp { document: Value::Object(document), instances }
    })
}

/// Marks a schema that gets a name of its own, and is referred to.
const NAMED: &str = "x-named";

/// A schema in which what is to have a name of its own stands among the definitions.
fn hoisted(schema: Value, definitions: &mut Map<String, Value>) -> Value {
    match schema {
        Value::Object(object) if object.contains_key(NAMED) => {
            let inner = object.into_iter().next().map(|(_, inner)| inner).unwrap_or_default();
            let inner = hoisted(inner, definitions);
            let name = format!("Part{}", definitions.len());
            definitions.insert(name.clone(), inner);
            json!({"$ref": format!("#/$defs/{name}")})
        }
        Value::Object(object) => {
            object.into_iter().map(|(key, value)| (key, hoisted(value, definitions))).collect()
        }
        Value::Array(items) => items.into_iter().map(|item| hoisted(item, definitions)).collect(),
        scalar => scalar,
    }
}

fn any_schema() -> impl Strategy<Value = Made> {
    scalar().prop_recursive(4, 24, 4, |inner| {
        let inner = inner.boxed();
        prop_oneof![
            2 => list(inner.clone()),
            1 => map(inner.clone()),
            4 => record(inner.clone()),
            2 => tagged(inner.clone()),
            1 => told_by_keys(inner.clone()),
            1 => of_kinds(inner.clone()),
            2 => in_two_parts(&inner),
            1 => under_conditions(inner.clone()),
            2 => nullable(inner.clone()),
            2 => inner.prop_map(named),
        ]
    })
}

fn scalar() -> impl Strategy<Value = Made> {
    let of = |schema: Value, instances: &[Value]| Made { schema, instances: instances.to_vec() };
    select(vec![
        of(json!({"type": "string"}), &[json!("Alder Bank"), json!("")]),
        of(json!({"type": "integer"}), &[json!(17), json!(-9_007_199_254_740_991_i64)]),
        of(json!({"type": "integer", "format": "int32", "minimum": 0}), &[json!(0), json!(8)]),
        of(json!({"type": "number"}), &[json!(8.4), json!(-0.25)]),
        of(json!({"type": "boolean"}), &[json!(true), json!(false)]),
        of(json!({"type": "string", "format": "date"}), &[json!("2026-05-01")]),
        of(json!({"type": "string", "format": "date-time"}), &[json!("2026-05-01T12:30:00Z")]),
        of(json!({"type": "string", "format": "uri"}), &[json!("https://honey.example/hives/17")]),
        of(json!({"enum": ["laying", "caged"]}), &[json!("laying"), json!("caged")]),
        of(json!({"const": "wood"}), &[json!("wood")]),
        of(json!({"const": true}), &[json!(true)]),
        of(json!({"enum": [1, 2]}), &[json!(1), json!(2)]),
        of(json!({"type": ["string", "null"]}), &[json!("calm"), Value::Null]),
        of(json!({}), &[json!({"any": [1]}), json!("text")]),
    ])
}

fn named(Made { schema, instances }: Made) -> Made {
    Made { schema: json!({ NAMED: schema }), instances }
}

/// So many values as there are of the one that has most; the others come again.
fn each_with<'m>(parts: impl Iterator<Item = &'m Made> + Clone) -> impl Iterator<Item = usize> {
    0..parts.map(|part| part.instances.len()).max().unwrap_or(1)
}

fn at(made: &Made, number: usize) -> Value {
    made.instances[number % made.instances.len()].clone()
}

fn list(inner: BoxedStrategy<Made>) -> impl Strategy<Value = Made> {
    inner.prop_map(|Made { schema, instances }| Made {
        schema: json!({"type": "array", "items": schema}),
        instances: vec![Value::from(instances), json!([])],
    })
}

fn map(inner: BoxedStrategy<Made>) -> impl Strategy<Value = Made> {
    inner.prop_map(|Made { schema, instances }| {
        let entries = instances.into_iter().enumerate().map(|(at, value)| (format!("h-{at}"), value));
        Made {
            schema: json!({"type": "object", "additionalProperties": schema}),
            instances: vec![Value::Object(entries.collect()), json!({})],
        }
    })
}

const KEYS: &[&str] = &["id", "name", "queen", "kg", "items", "notes", "last_seen", "mood"];

fn record(inner: BoxedStrategy<Made>) -> impl Strategy<Value = Made> {
    prop::collection::vec((inner, any::<bool>()), 1..5).prop_map(|fields| of_fields(KEYS, &fields))
}

/// A record with these fields, each of which is required or not; what is not is there in every second value.
fn of_fields(keys: &[&str], fields: &[(Made, bool)]) -> Made {
    let fields = || keys.iter().zip(fields);
    let properties: Map<String, Value> =
        fields().map(|(key, (made, _))| ((*key).to_owned(), made.schema.clone())).collect();
    let required: Vec<&str> =
        fields().filter(|(_, (_, is_required))| *is_required).map(|(key, _)| *key).collect();
    let instance = |number: usize| {
        let there = fields()
            .enumerate()
            .filter(|(index, (_, (_, is_required)))| *is_required || (index + number).is_multiple_of(2));
        there.map(|(_, (key, (made, _)))| ((*key).to_owned(), at(made, number))).collect()
    };
    let count = each_with(fields().map(|(_, (made, _))| made)).count().max(2);
    Made {
        schema: json!({"type": "object", "properties": properties, "required": required}),
        instances: (0..count).map(|number| Value::Object(instance(number))).collect(),
    }
}

/// Adds a required key that has one text to a record.
fn with_tag(mut made: Made, key: &str, text: &str) -> Made {
    made.schema["properties"][key] = json!({"const": text});
    if let Some(required) = made.schema["required"].as_array_mut() {
        required.push(json!(key));
    }
    for instance in &mut made.instances {
        instance[key] = json!(text);
    }
    made
}

/// One of several records, told apart by the text of a key.
fn tagged(inner: BoxedStrategy<Made>) -> impl Strategy<Value = Made> {
    let cases = prop::collection::vec((record(inner), any::<bool>()), 2..4);
    (cases, select(vec!["kind", "type"])).prop_map(|(cases, key)| {
        let texts = ["swarm", "harvest", "look"];
        let cases: Vec<Made> = cases
            .into_iter()
            .zip(texts)
            .map(|((case, is_named), text)| {
                let case = with_tag(case, key, text);
                if is_named { named(case) } else { case }
            })
            .collect();
        one_of("oneOf", &cases)
    })
}

fn one_of(keyword: &str, cases: &[Made]) -> Made {
    let schemas: Vec<&Value> = cases.iter().map(|case| &case.schema).collect();
    Made {
        schema: json!({ keyword: schemas }),
        instances: cases.iter().flat_map(|case| case.instances.clone()).collect(),
    }
}

/// One of two records, each with a required key that the other does not know.
fn told_by_keys(inner: BoxedStrategy<Made>) -> impl Strategy<Value = Made> {
    (inner.clone(), inner, scalar()).prop_map(|(a, b, shared)| {
        let text = Made { schema: json!({"type": "string"}), instances: vec![json!("x")] };
        let cases = [
            of_fields(
                &["hive", "took", "more"],
                &[(text.clone(), true), (shared.clone(), false), (a, false)],
            ),
            of_fields(&["error", "took", "hint"], &[(text, true), (shared, false), (b, false)]),
        ];
        one_of("anyOf", &cases)
    })
}

/// A text, a number, a list or a record.
fn of_kinds(inner: BoxedStrategy<Made>) -> impl Strategy<Value = Made> {
    let list = list(inner.clone()).boxed();
    let record = record(inner).boxed();
    let of = |schema: Value, instance: Value| Just(Made { schema, instances: vec![instance] }).boxed();
    let text = of(json!({"type": "string"}), json!("none"));
    let number = of(json!({"type": "number"}), json!(4.5));
    let pairs = vec![
        (text.clone(), list.clone()),
        (text.clone(), record.clone()),
        (text, number.clone()),
        (number, list.clone()),
        (list, record),
    ];
    select(pairs).prop_flat_map(|(a, b)| (a, b)).prop_map(|(a, b)| one_of("anyOf", &[a, b]))
}

/// What two records say, of which the first may have a name.
fn in_two_parts(inner: &BoxedStrategy<Made>) -> impl Strategy<Value = Made> + use<> {
    let fields = || prop::collection::vec((inner.clone(), any::<bool>()), 1..4);
    (fields(), fields(), any::<bool>()).prop_map(|(base, own, is_named)| {
        let base = of_fields(KEYS, &base);
        let own = of_fields(&["own", "more", "rest"], &own);
        let instances = each_with([&base, &own].into_iter()).map(|number| {
            let fields = [&base, &own].into_iter().flat_map(|part| match at(part, number) {
                Value::Object(fields) => fields,
                _ => Map::new(),
            });
            Value::Object(fields.collect())
        });
        let instances = instances.collect();
        let base = if is_named { named(base) } else { base };
        Made { schema: json!({"allOf": [base.schema, own.schema]}), instances }
    })
}

/// A record of which a key says which others are there.
fn under_conditions(inner: BoxedStrategy<Made>) -> impl Strategy<Value = Made> {
    (inner.clone(), inner, any::<bool>()).prop_map(|(a, b, tests_all)| {
        let test = |text: &str| json!({"properties": {"kind": {"const": text}}});
        let then = |key: &str, made: &Made| json!({"properties": {key: made.schema}, "required": [key]});
        let known: &[&str] = if tests_all { &["comb", "jar"] } else { &["comb", "jar", "tin"] };
        Made {
            schema: json!({
                "type": "object",
                "properties": {"kind": {"enum": known}},
                "required": ["kind"],
                "allOf": [
                    {"if": test("comb"), "then": then("frames", &a)},
                    {"if": test("jar"), "then": then("grams", &b)},
                ],
            }),
            instances: vec![
                json!({"kind": "comb", "frames": at(&a, 0)}),
                json!({"kind": "jar", "grams": at(&b, 1)}),
            ],
        }
    })
}

fn nullable(inner: BoxedStrategy<Made>) -> impl Strategy<Value = Made> {
    (inner, select(vec!["anyOf", "oneOf"])).prop_map(|(Made { schema, mut instances }, keyword)| {
        let is_null = instances.contains(&Value::Null) || schema == json!({});
        if is_null {
            return Made { schema, instances };
        }
        instances.push(Value::Null);
        Made { schema: json!({ keyword: [schema, {"type": "null"}] }), instances }
    })
}
