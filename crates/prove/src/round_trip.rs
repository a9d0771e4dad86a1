//! What came back beside what went in.

use jar_sprout_model::{Definition, Model, Presence, Scalar, Slot, Type};
use serde_json::Value;

/// The first difference between a sample and what a language made of it, with its path.
///
/// Where a field may be absent and may be null, a language may write either for the other.
pub(crate) fn difference(
    model: &Model,
    slot: &Slot,
    sent: &Value,
    came: &Value,
    path: &str,
) -> Option<String> {
    match (&slot.ty, sent, came) {
        (
            Type::Scalar(Scalar::DateTime | Scalar::LocalDateTime | Scalar::Time),
            Value::String(a),
            Value::String(b),
        ) if without_idle_zeros(a) == without_idle_zeros(b) => None,
        (_, Value::Number(a), Value::Number(b)) if same_number(a, b) => None,
        (Type::List(items), Value::Array(sent), Value::Array(came)) if sent.len() == came.len() => sent
            .iter()
            .zip(came)
            .enumerate()
            .find_map(|(at, (sent, came))| difference(model, items, sent, came, &format!("{path}[{at}]"))),
        (Type::Tuple(items), Value::Array(sent), Value::Array(came))
            if [sent.len(), came.len()] == [items.len(); 2] =>
        {
            items.iter().zip(sent.iter().zip(came)).enumerate().find_map(|(at, (item, (sent, came)))| {
                difference(model, item, sent, came, &format!("{path}[{at}]"))
            })
        }
        (Type::Map(values), Value::Object(sent), Value::Object(came)) if sent.len() == came.len() => {
            sent.iter().find_map(|(key, sent)| {
                difference(model, values, sent, came.get(key)?, &format!("{path}.{key}"))
            })
        }
        (Type::Named(id), sent, came) => match &model.get(*id).definition {
            Definition::Record(record) if sent.is_object() && came.is_object() => {
                record.fields.iter().find_map(|field| {
                    let key = field.wire.as_str();
                    let path = format!("{path}.{key}");
                    match (sent.get(key), came.get(key)) {
                        (None, None) => None,
                        (Some(Value::Null), None)
                            if field.presence == Presence::Sometimes && field.slot.nullable =>
                        {
                            None
                        }
                        (Some(sent), Some(came)) => difference(model, &field.slot, sent, came, &path),
                        (sent, came) => Some(format!("{path}: sent {sent:?}, came back {came:?}")),
                    }
                })
            }
            Definition::Union(union) => {
                let misses = union.cases.iter().map(|case| difference(model, &case.slot, sent, came, path));
                misses.collect::<Option<Vec<_>>>().map(|all| all.join("; "))
            }
            Definition::Record(_) | Definition::Enumeration(_) => plain_difference(sent, came, path),
        },
        (_, sent, came) => plain_difference(sent, came, path),
    }
}

/// A time without the zeros at the end of its fraction, which mean nothing: `12:30:00.120Z` is `12:30:00.12Z`.
fn without_idle_zeros(text: &str) -> String {
    let Some((seconds, rest)) = text.split_once('.') else { return text.to_owned() };
    let offset = rest.find(|c: char| !c.is_ascii_digit()).unwrap_or(rest.len());
    let (fraction, offset) = rest.split_at(offset);
    let fraction = fraction.trim_end_matches('0');
    if fraction.is_empty() { format!("{seconds}{offset}") } else { format!("{seconds}.{fraction}{offset}") }
}

fn plain_difference(sent: &Value, came: &Value, path: &str) -> Option<String> {
    (sent != came).then(|| format!("{path}: sent {sent}, came back {came}"))
}

/// `8` and `8.0` are the same number.
fn same_number(a: &serde_json::Number, b: &serde_json::Number) -> bool {
    a == b || ((a.is_f64() || b.is_f64()) && a.as_f64() == b.as_f64())
}
