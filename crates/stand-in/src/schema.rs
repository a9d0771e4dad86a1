//! A model as JSON Schema (draft 2020-12), for the document that an API has of itself.

use jar_sprout_model::{
    Coding, Definition, Encoding, Model, NamedType, Presence, Record, Scalar, ScalarKind, Slot, Type, TypeId,
    Union, Width, WireName,
};
use serde_json::{Map, Value, json};

/// The schemas of a model's types, under the names that `name` gives them, and that of its root.
pub(crate) fn schemas(model: &Model, name: &dyn Fn(TypeId) -> String) -> (Map<String, Value>, Value) {
    let schema = Schema { name };
    let types = model.types().map(|(id, ty)| (name(id), schema.named(ty)));
    (types.collect(), schema.slot(&model.root.slot))
}

struct Schema<'n> {
    name: &'n dyn Fn(TypeId) -> String,
}

impl Schema<'_> {
    fn named(&self, ty: &NamedType) -> Value {
        match &ty.definition {
            Definition::Record(record) => self.record(record),
            Definition::Enumeration(known) => {
                let words: Vec<&str> = known.cases.iter().map(|case| case.wire.as_str()).collect();
                match known.is_closed {
                    true => json!({"type": "string", "enum": words}),
                    // Others may come.
                    false => json!({"type": "string", "examples": words}),
                }
            }
            Definition::Union(union) => self.union(union),
        }
    }

    fn record(&self, record: &Record) -> Value {
        let Record { fields, extras } = record;
        let mut properties = Map::new();
        let mut required = Vec::new();
        for field in fields {
            let mut schema = match &field.encoding {
                Encoding::Plain => self.slot(&field.slot),
                Encoding::JsonInText => json!({
                    "type": "string",
                    "contentMediaType": "application/json",
                    "contentSchema": self.slot(&field.slot),
                }),
                Encoding::NothingWords(words) => {
                    let words: Vec<&str> = words.iter().map(WireName::as_str).collect();
                    json!({"anyOf": [self.slot(&field.slot), {"enum": words}]})
                }
            };
            let text = field.docs.text();
            if let Some(schema) = schema.as_object_mut().filter(|_| !text.is_empty()) {
                schema.insert("description".to_owned(), text.into());
            }
            properties.insert(field.wire.as_str().to_owned(), schema);
            if field.presence == Presence::Always {
                required.push(field.wire.as_str());
            }
        }
        let mut schema = json!({"type": "object", "properties": properties});
        if !required.is_empty() {
            schema["required"] = json!(required);
        }
        if let Some(slot) = extras {
            schema["additionalProperties"] = self.slot(slot);
        }
        schema
    }

    fn union(&self, union: &Union) -> Value {
        let cases: Vec<Value> = union.cases.iter().map(|case| self.slot(&case.slot)).collect();
        match &union.tag {
            Some(tag) => {
                let mapping: Map<String, Value> = union
                    .cases
                    .iter()
                    .filter_map(|case| match (&case.tag, &case.slot.ty) {
                        (Some(tag), Type::Named(id)) => {
                            Some((tag.as_str().to_owned(), reference(&(self.name)(*id)).into()))
                        }
                        _ => None,
                    })
                    .collect();
                json!({"oneOf": cases, "discriminator": {"propertyName": tag.as_str(), "mapping": mapping}})
            }
            None => json!({"anyOf": cases}),
        }
    }

    fn slot(&self, slot: &Slot) -> Value {
        let schema = self.ty(&slot.ty);
        match (slot.nullable, schema.get("type").cloned()) {
            (false, _) => schema,
            (true, Some(Value::String(kind)))
                if schema.get("enum").is_none() && schema.get("const").is_none() =>
            {
                let mut schema = schema;
                schema["type"] = json!([kind, "null"]);
                schema
            }
            (true, _) if slot.ty == Type::Any => schema,
            (true, _) => json!({"anyOf": [schema, {"type": "null"}]}),
        }
    }

    fn ty(&self, ty: &Type) -> Value {
        match ty {
            Type::Any => json!({}),
            Type::Scalar(scalar) => self::scalar(*scalar),
            Type::Constant(text) => json!({"const": text.as_str()}),
            Type::List(item) => json!({"type": "array", "items": self.slot(item)}),
            Type::Map(value) => json!({"type": "object", "additionalProperties": self.slot(value)}),
            Type::Tuple(items) => {
                let items: Vec<Value> = items.iter().map(|item| self.slot(item)).collect();
                json!({"type": "array", "prefixItems": items, "minItems": items.len(), "maxItems": items.len()})
            }
            Type::Named(id) => json!({"$ref": reference(&(self.name)(*id))}),
        }
    }
}

fn reference(name: &str) -> String {
    format!("#/components/schemas/{name}")
}

fn scalar(scalar: Scalar) -> Value {
    let text = |format: &str| json!({"type": "string", "format": format});
    match scalar {
        Scalar::Boolean => json!({"type": "boolean"}),
        Scalar::Always(truth) => json!({"const": truth}),
        Scalar::Integer(Width::Narrow) => json!({"type": "integer", "format": "int32"}),
        Scalar::Integer(Width::Wide | Width::Exact) => json!({"type": "integer", "format": "int64"}),
        Scalar::Integer(Width::Big) => json!({"type": "integer"}),
        Scalar::Float => json!({"type": "number", "format": "double"}),
        Scalar::Decimal => json!({"type": "number"}),
        Scalar::DateTime(_) => text("date-time"),
        Scalar::Date => text("date"),
        Scalar::Uuid => text("uuid"),
        Scalar::Uri => text("uri"),
        Scalar::Time(_) | Scalar::LocalDateTime(_) | Scalar::Text => json!({"type": "string"}),
        Scalar::Coded(coding) => coded(coding),
    }
}

fn coded(coding: Coding) -> Value {
    match coding.kind() {
        ScalarKind::Integer => json!({"type": "integer", "format": "int64"}),
        ScalarKind::Boolean | ScalarKind::Number | ScalarKind::Text => json!({"type": "string"}),
    }
}
