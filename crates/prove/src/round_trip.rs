//! What came back beside what went in.

use std::borrow::Cow;

use jar_sprout_model::{
    DefaultValue, Definition, Encoding, Field, Model, NothingWords, Presence, Record, Scalar, Slot,
    TimeForms, Type, TypeId,
};
use jar_sprout_settle::case_of;
use serde_json::Value;

/// What a sample and what came back of it are compared by.
pub(crate) struct Comparison<'m> {
    pub(crate) model: &'m Model,
    pub(crate) lenience: Lenience,
}

/// What may come back otherwise than it was sent, because a library will have it so.
#[derive(Debug, Clone, Copy, Default)]
pub(crate) struct Lenience {
    /// Null may stand where nothing was sent.
    pub(crate) nulls_may_come: bool,
    /// Nothing may stand where null was sent.
    pub(crate) nulls_may_go: bool,
    /// Times may have other zeros at the end of their fraction, and `+00:00` for `Z`.
    pub(crate) are_times_loose: bool,
    /// Whether UUIDs come back in letters of one case.
    pub(crate) are_uuids_folded: bool,
}

impl Comparison<'_> {
    /// The first difference between a sample and what a language made of it, with its path.
    ///
    /// Where a field may be absent and may be null, a language may write either for the other.
    pub(crate) fn difference(&self, slot: &Slot, sent: &Value, came: &Value, path: &str) -> Option<String> {
        match (&slot.ty, sent, came) {
            (Type::Scalar(scalar), Value::String(a), Value::String(b))
                if self.is_loose(*scalar) && in_one_form(a) == in_one_form(b) =>
            {
                None
            }
            (Type::Scalar(Scalar::Uuid), Value::String(a), Value::String(b))
                if self.lenience.are_uuids_folded && a.eq_ignore_ascii_case(b) =>
            {
                None
            }
            (_, Value::Number(a), Value::Number(b)) if same_number(a, b) => None,
            (Type::List(items), Value::Array(sent), Value::Array(came)) if sent.len() == came.len() => {
                let mut pairs = sent.iter().zip(came).enumerate();
                pairs.find_map(|(at, (sent, came))| {
                    self.difference(items, sent, came, &format!("{path}[{at}]"))
                })
            }
            (Type::Tuple(items), Value::Array(sent), Value::Array(came))
                if [sent.len(), came.len()] == [items.len(); 2] =>
            {
                let mut triples = items.iter().zip(sent.iter().zip(came)).enumerate();
                triples.find_map(|(at, (item, (sent, came)))| {
                    self.difference(item, sent, came, &format!("{path}[{at}]"))
                })
            }
            (Type::Map(values), Value::Object(sent), Value::Object(came)) if sent.len() == came.len() => {
                sent.iter().find_map(|(key, sent)| {
                    let path = format!("{path}.{key}");
                    match came.get(key) {
                        Some(came) => self.difference(values, sent, came, &path),
                        None => Some(format!("{path}: sent {sent}, nothing came back")),
                    }
                })
            }
            (Type::Any, Value::Array(sent), Value::Array(came)) if sent.len() == came.len() => {
                sent.iter().zip(came).find_map(|(sent, came)| self.difference(slot, sent, came, path))
            }
            (Type::Any, Value::Object(sent), Value::Object(came)) if sent.len() == came.len() => {
                let mut pairs = sent.iter().zip(sent.keys().map(|key| came.get(key)));
                pairs.find_map(|((key, sent), came)| {
                    let came = came.unwrap_or(&Value::Null);
                    self.difference(slot, sent, came, &format!("{path}.{key}"))
                })
            }
            (Type::Named(id), sent, came) => self.difference_of_named(*id, sent, came, path),
            (_, sent, came) => plain_difference(sent, came, path),
        }
    }

    /// Whether a time may come back in another form: so too where only a document speaks of it, which does not say
    /// in which of its forms it is written.
    fn is_loose(&self, scalar: Scalar) -> bool {
        scalar.time_forms().is_some_and(|forms| self.lenience.are_times_loose || forms == TimeForms::ALL)
    }

    fn difference_of_named(&self, id: TypeId, sent: &Value, came: &Value, path: &str) -> Option<String> {
        match &self.model.get(id).definition {
            Definition::Record(record) if sent.is_object() && came.is_object() => {
                let mut fields = record.fields.iter();
                fields
                    .find_map(|field| self.difference_of_field(field, sent, came, path))
                    .or_else(|| self.difference_of_extras(record, sent, came, path))
                    .or_else(|| added(record, sent, came, path))
            }
            Definition::Union(union) => match case_of(self.model, union, sent) {
                Some(case) => self.difference(&case.slot, sent, came, path),
                // It is kept as it came.
                None => plain_difference(sent, came, path),
            },
            Definition::Record(_) | Definition::Enumeration(_) => plain_difference(sent, came, path),
        }
    }

    /// What stands under keys beyond the fields, where the model says something of it.
    fn difference_of_extras(
        &self,
        record: &Record,
        sent: &Value,
        came: &Value,
        path: &str,
    ) -> Option<String> {
        let extras = record.extras.as_ref()?;
        let is_extra = |key: &&String| !record.has_key(key);
        let keys = |value: &Value| -> Vec<String> {
            value.as_object().into_iter().flat_map(|object| object.keys()).filter(is_extra).cloned().collect()
        };
        let mut all = keys(sent);
        all.extend(keys(came).into_iter().filter(|key| sent.get(key).is_none()));
        all.iter().find_map(|key| {
            let path = format!("{path}.{key}");
            match (sent.get(key), came.get(key)) {
                (Some(sent), Some(came)) => self.difference(extras, sent, came, &path),
                (sent, came) => {
                    let text = |value: Option<&Value>| value.map_or("nothing".to_owned(), Value::to_string);
                    Some(format!("{path}: sent {}, {} came back", text(sent), text(came)))
                }
            }
        })
    }

    fn difference_of_field(&self, field: &Field, sent: &Value, came: &Value, path: &str) -> Option<String> {
        let key = field.wire.as_str();
        let path = format!("{path}.{key}");
        let is_optional = field.presence == Presence::Sometimes;
        if let Encoding::NothingWords(words) = &field.encoding {
            let is_nothing = |value: Option<&Value>| match value {
                None | Some(Value::Null) => true,
                Some(Value::String(text)) => words.has(text),
                Some(_) => false,
            };
            let (sent, came) = (sent.get(key), came.get(key));
            if is_nothing(sent) && is_nothing(came) {
                return self.difference_of_nothing(field, words, sent, came, &path);
            }
        }
        match (sent.get(key), came.get(key)) {
            (None, None) => None,
            (Some(Value::Null), None)
                if self.lenience.nulls_may_go
                    && is_optional
                    && (field.slot.nullable || field.slot.ty == Type::Any) =>
            {
                None
            }
            // What holds where nothing is said may be said as well as not.
            (None, Some(value)) | (Some(value), None) if is_default(field, value) => None,
            (None, Some(Value::Null)) if is_optional && self.lenience.nulls_may_come => None,
            (Some(sent), Some(came)) => {
                let (sent, came) = (inside(field, sent), inside(field, came));
                self.difference(&field.slot, &sent, &came, &path)
            }
            (Some(sent), None) => Some(format!("{path}: sent {sent}, nothing came back")),
            (None, Some(came)) => Some(format!("{path}: nothing was sent, {came} came back")),
        }
    }

    /// Nothing is written as it was: as the first of its words, or not at all where the key may be missing and the
    /// library writes no null there.
    fn difference_of_nothing(
        &self,
        field: &Field,
        words: &NothingWords,
        sent: Option<&Value>,
        came: Option<&Value>,
        path: &str,
    ) -> Option<String> {
        let first = Value::from(words.first().as_str());
        let null_may_come = sent.is_none() && self.lenience.nulls_may_come && came == Some(&Value::Null);
        let is_as_written = came == sent || came == Some(&first) && sent.is_some() || null_may_come;
        let may_go = field.presence == Presence::Sometimes && self.lenience.nulls_may_go && came.is_none();
        let text = |value: Option<&Value>| value.map_or("nothing".to_owned(), Value::to_string);
        (!is_as_written && !may_go).then(|| format!("{path}: sent {}, came back {}", text(sent), text(came)))
    }
}

/// A value of a field; of a text that is JSON, what it says, since its spaces mean nothing.
fn inside<'v>(field: &Field, value: &'v Value) -> Cow<'v, Value> {
    match (&field.encoding, value) {
        (Encoding::JsonInText, Value::String(text)) => {
            serde_json::from_str(text).map_or(Cow::Borrowed(value), Cow::Owned)
        }
        (Encoding::JsonInText | Encoding::Plain | Encoding::NothingWords(_), _) => Cow::Borrowed(value),
    }
}

/// A time without the zeros at the end of its fraction, which mean nothing, and with `Z` for no offset:
/// `12:30:00.120+00:00` is `12:30:00.12Z`.
fn in_one_form(text: &str) -> String {
    let text = text.strip_suffix("+00:00").map_or_else(|| text.to_owned(), |local| format!("{local}Z"));
    without_idle_zeros(&text)
}

fn without_idle_zeros(text: &str) -> String {
    let Some((seconds, rest)) = text.split_once('.') else { return text.to_owned() };
    let offset = rest.find(|c: char| !c.is_ascii_digit()).unwrap_or(rest.len());
    let (fraction, offset) = rest.split_at(offset);
    let fraction = fraction.trim_end_matches('0');
    if fraction.is_empty() { format!("{seconds}{offset}") } else { format!("{seconds}.{fraction}{offset}") }
}

fn is_default(field: &Field, value: &Value) -> bool {
    match (&field.default, value) {
        (Some(DefaultValue::Boolean(flag)), Value::Bool(value)) => flag == value,
        (Some(DefaultValue::Text(text)), Value::String(value)) => text == value,
        (Some(DefaultValue::Number(number)), Value::Number(value)) => {
            number.parse::<f64>().ok() == value.as_f64()
        }
        (Some(_) | None, _) => false,
    }
}

/// A key that came back and that neither the sample nor the model has.
fn added(record: &Record, sent: &Value, came: &Value, path: &str) -> Option<String> {
    let is_new = |key: &&String| sent.get(key.as_str()).is_none() && !record.has_key(key);
    let key = came.as_object()?.keys().find(is_new)?;
    Some(format!("{path}.{key}: nothing was sent, {} came back", came[key]))
}

fn plain_difference(sent: &Value, came: &Value, path: &str) -> Option<String> {
    (sent != came).then(|| format!("{path}: sent {sent}, came back {came}"))
}

/// `8` and `8.0` are the same number.
fn same_number(a: &serde_json::Number, b: &serde_json::Number) -> bool {
    a == b || ((a.is_f64() || b.is_f64()) && a.as_f64() == b.as_f64())
}

#[cfg(test)]
mod tests {
    use jar_sprout_model::{NamedType, Record, Root, WireName, Words};
    use serde_json::json;

    use super::*;

    /// A record with an optional nullable note, a required date-time and a list of numbers.
    fn model() -> Model {
        let field = |wire: &str, presence, slot| Field::new(WireName::new(wire), presence, slot);
        let text = Slot { ty: Type::Scalar(Scalar::Text), nullable: true };
        let numbers = Type::List(Box::new(Slot::of(Type::Scalar(Scalar::Float))));
        let fields = vec![
            field("note", Presence::Sometimes, text),
            field("at", Presence::Always, Slot::of(Type::Scalar(Scalar::DateTime(TimeForms::ALL)))),
            field("kg", Presence::Always, Slot::of(numbers)),
        ];
        let name = Words::split("hive");
        let definition = Definition::Record(Record::of(fields));
        let hive = NamedType::new(name.clone(), definition);
        Model::new(vec![hive], Root { name, slot: Slot::of(Type::Named(TypeId::from_index(0))) })
    }

    #[track_caller]
    fn check(sent: &Value, came: &Value, expected: Option<&str>) {
        let model = model();
        let comparison =
            Comparison { model: &model, lenience: Lenience { nulls_may_go: true, ..Lenience::default() } };
        assert_eq!(comparison.difference(&model.root.slot, sent, came, "$").as_deref(), expected);
    }

    #[test]
    fn what_means_the_same_is_no_difference() {
        let sent = json!({"note": null, "at": "2026-05-01T12:30:00.120+00:00", "kg": [8, 8.5]});
        check(&sent, &json!({"at": "2026-05-01T12:30:00.12Z", "kg": [8.0, 8.5]}), None);
    }

    #[test]
    fn a_difference_has_its_path() {
        let sent = json!({"at": "2026-05-01T12:30:00Z", "kg": [8, 8.5]});
        let other_number = json!({"at": "2026-05-01T12:30:00Z", "kg": [8, 9]});
        check(&sent, &other_number, Some("$.kg[1]: sent 8.5, came back 9"));
        let other_offset = json!({"at": "2026-05-01T13:30:00+01:00", "kg": [8, 8.5]});
        let said = "$.at: sent \"2026-05-01T12:30:00Z\", came back \"2026-05-01T13:30:00+01:00\"";
        check(&sent, &other_offset, Some(said));
        let null_came = json!({"note": null, "at": "2026-05-01T12:30:00Z", "kg": [8, 8.5]});
        check(&sent, &null_came, Some("$.note: nothing was sent, null came back"));
        let added = json!({"at": "2026-05-01T12:30:00Z", "kg": [8, 8.5], "Kg": 8});
        check(&sent, &added, Some("$.Kg: nothing was sent, 8 came back"));
        check(
            &null_came,
            &json!({"note": null, "kg": [8, 8.5]}),
            Some("$.at: sent \"2026-05-01T12:30:00Z\", nothing came back"),
        );
    }
}
