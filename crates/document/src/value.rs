//! Values: a document in memory, small to hold and fast to walk, since it is walked more often than anything is looked
//! up in it.

use std::collections::HashMap;
use std::fmt;
use std::hash::{Hash, Hasher};

use serde::de::{Deserialize, DeserializeSeed, Deserializer, Error, MapAccess, SeqAccess, Visitor};
use serde::ser::{Serialize, Serializer};
use serde_json::Number;

use crate::text::{Text, Word};

/// A JSON value.
#[derive(Debug, Clone, PartialEq)]
pub enum Value {
    /// `null`
    Null,
    /// `true`
    Bool(bool),
    /// `17`, `8.4`
    Number(Number),
    /// `"Alder Bank"`
    String(Text),
    /// `[…]`
    Array(Box<[Value]>),
    /// `{…}`
    Object(Object),
}

type Entry = (Text, Value);

/// A value as the thing that stands at its place: another one is another, however alike.
#[derive(Debug, Clone, Copy)]
pub(crate) struct ByPlace<'d>(pub(crate) &'d Value);

impl PartialEq for ByPlace<'_> {
    fn eq(&self, other: &Self) -> bool {
        std::ptr::eq(self.0, other.0)
    }
}

impl Eq for ByPlace<'_> {}

impl Hash for ByPlace<'_> {
    fn hash<H: Hasher>(&self, state: &mut H) {
        std::ptr::hash(self.0, state);
    }
}

/// A JSON object: its keys in their order, each once.
#[derive(Debug, Clone)]
pub struct Object(Entries);

#[derive(Debug, Clone)]
enum Entries {
    /// So few that a look at each is faster than a search.
    Few(Box<[Entry]>),
    /// Hardly any object has more.
    Many(Box<Sorted>),
}

#[derive(Debug, Clone)]
struct Sorted {
    entries: Box<[Entry]>,
    /// The places of the entries in the order of their keys.
    order: Vec<u32>,
}

impl Object {
    /// The most entries that are few.
    const FEW: usize = 16;

    /// An object of these entries; of those with one key, the last one counts, in the place of the first.
    pub(crate) fn new(entries: Box<[Entry]>) -> Self {
        if entries.len() > Self::FEW {
            return Self(Entries::Many(Box::new(Sorted::new(entries.into()))));
        }
        let is_again = |at: usize| entries[..at].iter().any(|(key, _)| *key == entries[at].0);
        if !(1..entries.len()).any(is_again) {
            return Self(Entries::Few(entries));
        }
        let mut distinct: Vec<Entry> = Vec::with_capacity(entries.len());
        for (key, value) in entries {
            match distinct.iter_mut().find(|(known, _)| *known == key) {
                Some((_, known)) => *known = value,
                None => distinct.push((key, value)),
            }
        }
        Self(Entries::Few(distinct.into()))
    }

    /// The keys, as they are held, with what stands under them.
    pub(crate) fn entries(&self) -> &[Entry] {
        match &self.0 {
            Entries::Few(entries) => entries,
            Entries::Many(sorted) => &sorted.entries,
        }
    }

    /// What stands under a key.
    #[inline]
    pub(crate) fn get(&self, key: &str) -> Option<&Value> {
        match &self.0 {
            Entries::Few(entries) => entries.iter().find(|(own, _)| **own == *key).map(|(_, value)| value),
            Entries::Many(sorted) => sorted.get(key),
        }
    }

    /// The keys with what stands under them, in their order.
    pub(crate) fn iter(&self) -> Iter<'_> {
        self.entries().iter().map(|(key, value)| (&**key, value))
    }

    /// What stands under a word, looked for in an object that has few keys.
    #[inline]
    pub(crate) fn said(&self, word: Word) -> Option<&Value> {
        self.entries().iter().find(|(key, _)| key.word() == Some(word)).map(|(_, value)| value)
    }

    /// The keys that are words with what stands under them, in their order.
    pub(crate) fn words(&self) -> impl Iterator<Item = (Word, &Value)> {
        self.entries().iter().filter_map(|(key, value)| Some((key.word()?, value)))
    }

    pub(crate) fn keys(&self) -> impl Iterator<Item = &str> {
        self.iter().map(|(key, _)| key)
    }

    pub(crate) fn values(&self) -> impl Iterator<Item = &Value> {
        self.iter().map(|(_, value)| value)
    }

    pub(crate) fn is_empty(&self) -> bool {
        self.entries().is_empty()
    }
}

impl Sorted {
    fn new(entries: Vec<Entry>) -> Self {
        let mut places: HashMap<String, usize> = HashMap::with_capacity(entries.len());
        let mut distinct: Vec<Entry> = Vec::with_capacity(entries.len());
        for (key, value) in entries {
            match places.get(&*key) {
                Some(place) => distinct[*place].1 = value,
                None => {
                    places.insert(key.to_string(), distinct.len());
                    distinct.push((key, value));
                }
            }
        }
        let last = u32::try_from(distinct.len()).expect("a text of 4 GB is not read at once");
        let mut order: Vec<u32> = (0..last).collect();
        order.sort_unstable_by_key(|at| &*distinct[*at as usize].0);
        Self { entries: distinct.into(), order }
    }

    fn get(&self, key: &str) -> Option<&Value> {
        let entry = |at: u32| &self.entries[at as usize];
        let place = self.order.binary_search_by(|at| (*entry(*at).0).cmp(key)).ok()?;
        Some(&entry(self.order[place]).1)
    }
}

/// The entries of an object.
type Iter<'o> = std::iter::Map<std::slice::Iter<'o, Entry>, fn(&'o Entry) -> (&'o str, &'o Value)>;

impl<'o> IntoIterator for &'o Object {
    type Item = (&'o str, &'o Value);
    type IntoIter = Iter<'o>;

    fn into_iter(self) -> Iter<'o> {
        self.iter()
    }
}

impl PartialEq for Object {
    /// The order of keys makes no difference.
    fn eq(&self, other: &Self) -> bool {
        self.entries().len() == other.entries().len()
            && self.iter().all(|(key, value)| other.get(key) == Some(value))
    }
}

impl Value {
    /// What stands under a key, in an object that has it.
    #[inline]
    pub(crate) fn get(&self, key: &str) -> Option<&Self> {
        self.as_object()?.get(key)
    }

    /// What stands under a word, in a schema that has it.
    #[inline]
    pub(crate) fn said(&self, word: Word) -> Option<&Self> {
        self.as_object()?.said(word)
    }

    pub(crate) fn as_object(&self) -> Option<&Object> {
        if let Self::Object(object) = self { Some(object) } else { None }
    }

    pub(crate) fn as_array(&self) -> Option<&[Self]> {
        if let Self::Array(items) = self { Some(items) } else { None }
    }

    pub(crate) fn as_str(&self) -> Option<&str> {
        if let Self::String(text) = self { Some(text) } else { None }
    }

    pub(crate) fn as_number(&self) -> Option<&Number> {
        if let Self::Number(number) = self { Some(number) } else { None }
    }

    pub(crate) fn is_true(&self) -> bool {
        *self == Self::Bool(true)
    }

    pub(crate) fn is_null(&self) -> bool {
        *self == Self::Null
    }

    pub(crate) fn is_object(&self) -> bool {
        self.as_object().is_some()
    }

    pub(crate) fn is_array(&self) -> bool {
        self.as_array().is_some()
    }

    pub(crate) fn is_string(&self) -> bool {
        self.as_str().is_some()
    }

    pub(crate) fn is_boolean(&self) -> bool {
        self.as_bool().is_some()
    }

    pub(crate) fn as_bool(&self) -> Option<bool> {
        match self {
            Self::Bool(truth) => Some(*truth),
            Self::Null | Self::Number(_) | Self::String(_) | Self::Array(_) | Self::Object(_) => None,
        }
    }

    /// What a JSON Pointer (RFC 6901) leads to.
    pub(crate) fn pointer(&self, pointer: &str) -> Option<&Self> {
        if pointer.is_empty() {
            return Some(self);
        }
        pointer.strip_prefix('/')?.split('/').try_fold(self, |value, step| match value {
            Self::Object(object) if step.contains('~') => {
                object.get(&step.replace("~1", "/").replace("~0", "~"))
            }
            Self::Object(object) => object.get(step),
            Self::Array(items) => {
                let is_index = step == "0" || !step.starts_with(['0', '+']);
                items.get(step.parse::<usize>().ok().filter(|_| is_index)?)
            }
            Self::Null | Self::Bool(_) | Self::Number(_) | Self::String(_) => None,
        })
    }
}

impl From<serde_json::Value> for Value {
    fn from(value: serde_json::Value) -> Self {
        match value {
            serde_json::Value::Null => Self::Null,
            serde_json::Value::Bool(flag) => Self::Bool(flag),
            serde_json::Value::Number(number) => Self::Number(number),
            serde_json::Value::String(text) => Self::String(text.into()),
            serde_json::Value::Array(items) => Self::Array(items.into_iter().map(Self::from).collect()),
            serde_json::Value::Object(object) => {
                let entries = object.into_iter().map(|(key, value)| (key.into(), Self::from(value)));
                Self::Object(Object::new(entries.collect()))
            }
        }
    }
}

impl Serialize for Value {
    fn serialize<S: Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error> {
        match self {
            Self::Null => serializer.serialize_unit(),
            Self::Bool(flag) => serializer.serialize_bool(*flag),
            Self::Number(number) => number.serialize(serializer),
            Self::String(text) => serializer.serialize_str(text),
            Self::Array(items) => serializer.collect_seq(items),
            Self::Object(object) => serializer.collect_map(object),
        }
    }
}

impl fmt::Display for Value {
    /// As JSON writes it.
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(&serde_json::to_string(self).map_err(|_| fmt::Error)?)
    }
}

impl<'de> Deserialize<'de> for Text {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        deserializer.deserialize_str(AnyText)
    }
}

struct AnyText;

impl Visitor<'_> for AnyText {
    type Value = Text;

    fn expecting(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str("a text")
    }

    fn visit_str<E: Error>(self, text: &str) -> Result<Text, E> {
        Ok(text.into())
    }
}

impl<'de> Deserialize<'de> for Value {
    fn deserialize<D: Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        AnyValue(&mut Open::default()).deserialize(deserializer)
    }
}

/// The value of a JSON text, and whether a reference in it leads elsewhere.
pub(crate) fn read_json(text: &str) -> serde_json::Result<(Value, bool)> {
    let mut open = Open::default();
    let mut reader = serde_json::Deserializer::from_str(text);
    let value = AnyValue(&mut open).deserialize(&mut reader)?;
    reader.end()?;
    Ok((value, open.leads_elsewhere))
}

/// What was read of lists and objects that are not at their ends: each of those takes as much room as it needs when
/// that is known.
#[derive(Default)]
struct Open {
    items: Vec<Value>,
    entries: Vec<Entry>,
    /// Whether a reference was read that is more than a fragment.
    leads_elsewhere: bool,
}

struct AnyValue<'o>(&'o mut Open);

impl<'de> DeserializeSeed<'de> for AnyValue<'_> {
    type Value = Value;

    fn deserialize<D: Deserializer<'de>>(self, deserializer: D) -> Result<Value, D::Error> {
        deserializer.deserialize_any(self)
    }
}

impl<'de> Visitor<'de> for AnyValue<'_> {
    type Value = Value;

    fn expecting(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str("any JSON value")
    }

    fn visit_unit<E: Error>(self) -> Result<Value, E> {
        Ok(Value::Null)
    }

    fn visit_bool<E: Error>(self, flag: bool) -> Result<Value, E> {
        Ok(Value::Bool(flag))
    }

    fn visit_i64<E: Error>(self, number: i64) -> Result<Value, E> {
        Ok(Value::Number(number.into()))
    }

    fn visit_u64<E: Error>(self, number: u64) -> Result<Value, E> {
        Ok(Value::Number(number.into()))
    }

    fn visit_f64<E: Error>(self, number: f64) -> Result<Value, E> {
        Ok(Number::from_f64(number).map_or(Value::Null, Value::Number))
    }

    fn visit_str<E: Error>(self, text: &str) -> Result<Value, E> {
        Ok(Value::String(text.into()))
    }

    fn visit_string<E: Error>(self, text: String) -> Result<Value, E> {
        Ok(Value::String(text.into()))
    }

    fn visit_seq<A: SeqAccess<'de>>(self, mut seq: A) -> Result<Value, A::Error> {
        let start = self.0.items.len();
        while let Some(item) = seq.next_element_seed(AnyValue(self.0))? {
            self.0.items.push(item);
        }
        Ok(Value::Array(self.0.items.drain(start..).collect()))
    }

    fn visit_map<A: MapAccess<'de>>(self, mut map: A) -> Result<Value, A::Error> {
        let start = self.0.entries.len();
        while let Some(key) = map.next_key::<Text>()? {
            let value = map.next_value_seed(AnyValue(self.0))?;
            if key.word().is_some_and(Word::is_reference) {
                self.0.leads_elsewhere |= value.as_str().is_some_and(|reference| !reference.starts_with('#'));
            }
            self.0.entries.push((key, value));
        }
        Ok(Value::Object(Object::new(self.0.entries.drain(start..).collect())))
    }
}

#[cfg(test)]
#[allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]
mod tests {
    use proptest::prelude::*;

    use super::*;

    /// JSON with keys that come again, and objects of more keys than few.
    fn any_json() -> impl Strategy<Value = String> {
        let leaf = prop_oneof![
            Just("null".to_owned()),
            any::<bool>().prop_map(|flag| flag.to_string()),
            any::<i64>().prop_map(|number| number.to_string()),
            any::<u64>().prop_map(|number| number.to_string()),
            (-1e9..1e9).prop_map(|number: f64| format!("{number:?}")),
            "[a-z~/]{0,3}".prop_map(|text| format!("{text:?}")),
        ];
        leaf.prop_recursive(3, 60, 24, |inner| {
            prop_oneof![
                prop::collection::vec(inner.clone(), 0..4).prop_map(|items| format!("[{}]", items.join(","))),
                prop::collection::vec(("[a-d~/0]{0,2}", inner), 0..24).prop_map(|entries| {
                    let entries: Vec<String> =
                        entries.into_iter().map(|(key, value)| format!("{key:?}:{value}")).collect();
                    format!("{{{}}}", entries.join(","))
                }),
            ]
        })
    }

    #[test]
    fn references_that_lead_elsewhere_are_seen() {
        for (text, expected) in [
            (r##"{"a": {"$ref": "#/a"}}"##, false),
            (r##"[{"$dynamicRef": "hive.json#a"}]"##, true),
            (r##"{"properties": {"$ref": {"type": "string"}}}"##, false),
        ] {
            assert_eq!(read_json(text).unwrap().1, expected, "{text}");
        }
    }

    proptest! {
        #[test]
        fn values_are_those_of_any_other_parser(text in any_json(), pointer in "(/[a-d~0]{0,2}|/[0-9]){0,3}") {
            let value: Value = serde_json::from_str(&text).unwrap();
            let other: serde_json::Value = serde_json::from_str(&text).unwrap();
            prop_assert_eq!(&value, &Value::from(other.clone()));
            prop_assert_eq!(value.to_string(), other.to_string());
            let found = other.pointer(&pointer).cloned().map(Value::from);
            prop_assert_eq!(value.pointer(&pointer), found.as_ref());
            if let (Some(own), Some(theirs)) = (value.as_object(), other.as_object()) {
                prop_assert!(own.keys().eq(theirs.keys()));
                for (key, value) in theirs {
                    prop_assert_eq!(own.get(key).cloned(), Some(Value::from(value.clone())));
                }
            }
        }
    }
}
