//! Bodies: what a client might send of a derived type, made of what samples hold.

use jar_sprout_model::{Definition, Model, Presence, Record, Root, Slot, Type, TypeId};
use serde_json::{Map, Value};

use crate::check::misfits::{case_of, misfits};
use crate::model::Settled;

/// The most bodies that are made for one type.
const MOST: usize = 50;

/// A derived type by itself, and what might be sent of it.
#[derive(Debug, Clone, PartialEq)]
pub struct Bodies {
    /// The model whose root it is.
    pub model: Model,
    /// What might be sent; all of it fits.
    pub values: Vec<Value>,
}

/// The bodies of all types that were derived from another: the objects of that other in the samples, with the keys
/// that are sent. Of a type that changes something, also nothing at all, and null by itself where that may be.
pub fn bodies(settled: &Settled, samples: &[Value]) -> Vec<Bodies> {
    let Settled { model, origins, .. } = settled;
    let of_root = |root: &Root| {
        let Type::Named(derived) = root.slot.ty else { return None };
        let own = &origins[derived.index()];
        let is_source = |id: &TypeId| *id != derived && !own.is_empty() && origins[id.index()] == *own;
        let source = model.types().map(|(id, _)| id).find(is_source)?;
        let mut found = Vec::new();
        for sample in samples {
            collect(model, &model.root.slot, sample, source, &mut found);
        }
        let mut alone = model.clone();
        alone.root = root.clone();
        alone.more_roots.clear();
        alone.title = None;
        alone.drop_unreached();
        let Definition::Record(record) = &model.get(derived).definition else { return None };
        let sent = found.into_iter().map(|object| sent(record, object));
        let sent = sent.chain(changes(record).filter(|_| model.get(derived).is_patch));
        let mut values: Vec<Value> = Vec::new();
        for value in sent.filter(|value| misfits(&alone, value).is_empty()) {
            if values.len() < MOST && !values.contains(&value) {
                values.push(value);
            }
        }
        Some(Bodies { model: alone, values })
    };
    model.more_roots.iter().filter_map(of_root).collect()
}

/// The keys of an object that are sent.
fn sent(record: &Record, object: &Map<String, Value>) -> Value {
    let is_sent = |key: &str| record.fields.iter().any(|field| field.wire.as_str() == key);
    object.iter().filter(|(key, _)| is_sent(key)).map(|(key, value)| (key.clone(), value.clone())).collect()
}

/// The smallest changes: none, and one field set to null.
fn changes(record: &Record) -> impl Iterator<Item = Value> {
    let nulls =
        record.fields.iter().filter(|field| field.presence == Presence::Sometimes && field.slot.nullable);
    let nulls = nulls.map(|field| {
        let null = (field.wire.as_str().to_owned(), Value::Null);
        Value::Object(Map::from_iter([null]))
    });
    [Value::Object(Map::new())].into_iter().chain(nulls)
}

/// The objects of a type in a value.
fn collect<'v>(
    model: &Model,
    slot: &Slot,
    value: &'v Value,
    wanted: TypeId,
    found: &mut Vec<&'v Map<String, Value>>,
) {
    match (&slot.ty, value) {
        (Type::List(items), Value::Array(values)) => {
            values.iter().for_each(|value| collect(model, items, value, wanted, found));
        }
        (Type::Map(values), Value::Object(object)) => {
            object.values().for_each(|value| collect(model, values, value, wanted, found));
        }
        (Type::Tuple(items), Value::Array(values)) => {
            items.iter().zip(values).for_each(|(item, value)| collect(model, item, value, wanted, found));
        }
        (Type::Named(id), value) => match (&model.get(*id).definition, value) {
            (Definition::Record(record), Value::Object(object)) => {
                if *id == wanted {
                    found.push(object);
                }
                for field in &record.fields {
                    if let Some(value) = object.get(field.wire.as_str()) {
                        collect(model, &field.slot, value, wanted, found);
                    }
                }
            }
            (Definition::Union(union), value) => {
                if let Some(case) = case_of(model, union, value) {
                    collect(model, &case.slot, value, wanted, found);
                }
            }
            (Definition::Record(_) | Definition::Enumeration(_), _) => {}
        },
        (
            Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::List(_) | Type::Map(_) | Type::Tuple(_),
            _,
        ) => {}
    }
}
