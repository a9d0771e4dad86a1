//! Model to JSON Schema, draft 2020-12: for validators and for whoever reads schemas.

use jar_sprout_model::{
    Coding, DefaultValue, Definition, Docs, Encoding, Field, Limit, Limits, Model, NamedType, Presence,
    Record, Root, Scalar, Slot, Type, Union, UnionCase, Width, WireName,
};
use percent_encoding::{NON_ALPHANUMERIC, utf8_percent_encode};
use serde_json::{Map, Value, json};

/// The JSON Schema of a model: its root, and each named type among the `$defs`.
///
/// It says what the model says: enums are open, so that their values are examples; keys beyond the known ones are
/// allowed.
pub fn json_schema(model: &Model) -> Value {
    let schemas = Schemas { model };
    let Root { name, slot } = &model.root;
    let mut whole = json!({
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": name.in_capitals(),
    });
    let root = schemas.slot(slot);
    merge(&mut whole, root);
    let defs: Map<String, Value> =
        model.types().map(|(_, ty)| (ty.name.in_capitals(), schemas.named(ty))).collect();
    if !defs.is_empty() {
        whole["$defs"] = Value::Object(defs);
    }
    whole
}

fn merge(into: &mut Value, from: Value) {
    if let (Value::Object(into), Value::Object(from)) = (into, from) {
        into.extend(from);
    }
}

struct Schemas<'m> {
    model: &'m Model,
}

impl Schemas<'_> {
    fn slot(&self, slot: &Slot) -> Value {
        let schema = self.ty(&slot.ty);
        if !slot.nullable || slot.ty == Type::Any {
            return schema;
        }
        match schema.get("type").and_then(Value::as_str).map(str::to_owned) {
            Some(ty) if schema.get("const").is_none() => {
                let mut schema = schema;
                schema["type"] = json!([ty, "null"]);
                schema
            }
            _ => json!({"anyOf": [schema, {"type": "null"}]}),
        }
    }

    fn ty(&self, ty: &Type) -> Value {
        match ty {
            Type::Any => json!({}),
            Type::Scalar(scalar) => self::scalar(*scalar),
            Type::Constant(text) => json!({"const": text.as_str()}),
            Type::List(items) => json!({"type": "array", "items": self.slot(items)}),
            Type::Map(values) => json!({"type": "object", "additionalProperties": self.slot(values)}),
            Type::Tuple(items) => {
                let count = items.len();
                let items: Vec<Value> = items.iter().map(|item| self.slot(item)).collect();
                json!({"type": "array", "prefixItems": items, "items": false, "minItems": count})
            }
            Type::Named(id) => json!({"$ref": reference(&self.model.get(*id).name.in_capitals())}),
        }
    }

    fn named(&self, ty: &NamedType) -> Value {
        let mut schema = docs(&ty.docs);
        let said = match &ty.definition {
            Definition::Record(record) => self.record(record),
            Definition::Enumeration(known) => {
                let values: Vec<&str> = known.cases.iter().map(|case| case.wire.as_str()).collect();
                // Examples allow others, which an enum does not.
                let keyword = if known.is_closed { "enum" } else { "examples" };
                json!({"type": "string", keyword: values})
            }
            Definition::Union(union) => self.union(union),
        };
        merge(&mut schema, said);
        schema
    }

    fn record(&self, record: &Record) -> Value {
        let required: Vec<&str> = record
            .fields
            .iter()
            .filter(|field| field.presence == Presence::Always)
            .map(|field| field.wire.as_str())
            .collect();
        let property =
            |Field { wire, name: _, presence: _, slot, encoding, default, docs: docs_of }: &Field| {
                let mut schema = docs(docs_of);
                let said = match encoding {
                    Encoding::Plain => self.slot(slot),
                    Encoding::NothingWords(words) => {
                        let words: Vec<&str> = words.iter().map(WireName::as_str).collect();
                        json!({"anyOf": [self.slot(slot), {"enum": words}]})
                    }
                    // Annotations of 2020-12, validation, section 8.
                    Encoding::JsonInText => {
                        let ty = if slot.nullable { json!(["string", "null"]) } else { json!("string") };
                        json!({"type": ty, "contentMediaType": "application/json", "contentSchema": self.ty(&slot.ty)})
                    }
                };
                merge(&mut schema, said);
                // Keywords about other kinds of value say nothing.
                docs_of.limits().into_iter().for_each(|limits| merge(&mut schema, bounds(limits)));
                if let Some(default) = default {
                    schema["default"] = default_value(default);
                }
                (wire.as_str().to_owned(), schema)
            };
        let properties: Map<String, Value> = record.fields.iter().map(property).collect();
        let mut schema = json!({"type": "object", "properties": properties});
        if !required.is_empty() {
            schema["required"] = json!(required);
        }
        if let Some(extras) = &record.extras {
            schema["additionalProperties"] = self.slot(extras);
        }
        schema
    }

    /// A tag that is not known fits as well, as it does in code.
    fn union(&self, union: &Union) -> Value {
        let Union { tag, cases } = union;
        let case = |UnionCase { name: _, tag: _, slot }: &UnionCase| self.slot(slot);
        let mut schemas: Vec<Value> = cases.iter().map(case).collect();
        if let Some(tag) = tag {
            let known: Vec<&str> =
                cases.iter().filter_map(|case| Some(case.tag.as_ref()?.as_str())).collect();
            let mut properties = Map::new();
            properties.insert(tag.as_str().to_owned(), json!({"not": {"enum": known}}));
            schemas.push(json!({"type": "object", "properties": properties}));
        }
        json!({"anyOf": schemas})
    }
}

/// The keywords of what fits (validation, sections 6.2 to 6.4).
fn bounds(limits: &Limits) -> Value {
    let Limits { least, most, step, lengths, items } = limits;
    let number = |text: &String| serde_json::from_str::<Value>(text).unwrap_or_default();
    let limit = |keywords: [&'static str; 2], limit: &Option<Limit>| {
        let Limit { number: text, is_within } = limit.as_ref()?;
        Some((keywords[usize::from(!is_within)], number(text)))
    };
    let count = |keyword, count: Option<u64>| count.map(|count| (keyword, json!(count)));
    let said = [
        limit(["minimum", "exclusiveMinimum"], least),
        limit(["maximum", "exclusiveMaximum"], most),
        step.as_ref().map(|step| ("multipleOf", number(step))),
        count("minLength", lengths.least),
        count("maxLength", lengths.most),
        count("minItems", items.least),
        count("maxItems", items.most),
    ];
    said.into_iter().flatten().map(|(keyword, value)| (keyword.to_owned(), value)).collect()
}

fn default_value(default: &DefaultValue) -> Value {
    match default {
        DefaultValue::Boolean(flag) => json!(flag),
        DefaultValue::Number(number) => serde_json::from_str(number).unwrap_or_default(),
        DefaultValue::Text(text) => json!(text),
    }
}

/// A reference to one of the `$defs`: a JSON Pointer (RFC 6901) in the fragment of a URI (RFC 3986).
fn reference(name: &str) -> String {
    let pointer = name.replace('~', "~0").replace('/', "~1");
    format!("#/$defs/{}", utf8_percent_encode(&pointer, NON_ALPHANUMERIC))
}

fn docs(docs: &Docs) -> Value {
    let mut schema = Map::new();
    let said = docs.without_read_only();
    if !said.text().is_empty() {
        schema.insert("description".to_owned(), json!(said.text()));
    }
    if docs.is_read_only {
        schema.insert("readOnly".to_owned(), json!(true));
    }
    if docs.is_deprecated {
        schema.insert("deprecated".to_owned(), json!(true));
    }
    Value::Object(schema)
}

fn scalar(scalar: Scalar) -> Value {
    match scalar {
        Scalar::Boolean => json!({"type": "boolean"}),
        Scalar::Always(truth) => json!({"const": truth}),
        Scalar::Integer(Width::Narrow) => json!({"type": "integer", "format": "int32"}),
        Scalar::Integer(Width::Wide | Width::Exact) => json!({"type": "integer", "format": "int64"}),
        Scalar::Integer(Width::Big) => json!({"type": "integer"}),
        Scalar::Float | Scalar::Decimal => json!({"type": "number"}),
        Scalar::Coded(Coding::IntegerText) => json!({"type": "string", "pattern": "^-?[0-9]+$"}),
        Scalar::Coded(Coding::FloatText | Coding::DecimalText) => {
            json!({"type": "string", "pattern": "^-?[0-9]+(\\.[0-9]+)?$"})
        }
        Scalar::Coded(Coding::BooleanText) => json!({"type": "string", "enum": ["true", "false"]}),
        Scalar::Coded(Coding::EpochSeconds | Coding::EpochMilliseconds) => {
            json!({"type": "integer", "format": "int64"})
        }
        Scalar::Text | Scalar::LocalDateTime(_) | Scalar::Time(_) => json!({"type": "string"}),
        Scalar::DateTime(_) => json!({"type": "string", "format": "date-time"}),
        Scalar::Date => json!({"type": "string", "format": "date"}),
        Scalar::Uuid => json!({"type": "string", "format": "uuid"}),
        Scalar::Uri => json!({"type": "string", "format": "uri"}),
    }
}
