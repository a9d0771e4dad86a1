//! The keywords of one schema, and what they add to what is said already.

use jar_sprout_model::{Kind, KindSet};

use super::conditions::Condition;
use super::{Flat, Property, Spec};
use crate::text::{Role, Word};
use crate::value::{Object, Value};

/// The keywords of one schema that bear on its type, found in one pass: a lookup for each costs more than all else.
#[derive(Default)]
pub(super) struct Keywords<'d> {
    pub(super) has_reference: bool,
    pub(super) is_nullable: bool,
    pub(super) ty: Option<&'d Value>,
    pub(super) properties: Option<&'d Value>,
    pub(super) required: Option<&'d Value>,
    pub(super) additional: Option<&'d Value>,
    pub(super) unevaluated: Option<&'d Value>,
    pub(super) patterns: Option<&'d Value>,
    pub(super) items: Option<&'d Value>,
    pub(super) more_items: Option<&'d Value>,
    pub(super) prefix: Option<&'d Value>,
    pub(super) most_items: Option<&'d Value>,
    pub(super) minimum: Option<&'d Value>,
    pub(super) above: Option<&'d Value>,
    pub(super) maximum: Option<&'d Value>,
    pub(super) below: Option<&'d Value>,
    pub(super) format: Option<&'d Value>,
    pub(super) constant: Option<&'d Value>,
    pub(super) values: Option<&'d Value>,
    pub(super) discriminator: Option<&'d Value>,
    pub(super) all_of: Option<&'d Value>,
    pub(super) one_of: Option<&'d Value>,
    pub(super) any_of: Option<&'d Value>,
    /// `then`, `else`, and what holds where a property is there.
    pub(super) conditions: Vec<Condition<'d>>,
    /// Those that bear on no type, and say more than yes or no.
    pub(super) untyped: Vec<Word>,
}

/// Patterns that every key fits.
const EVERY_KEY: &[&str] = &["", "^", ".*", "^.*$", "^.*", ".+", "^.+$"];

impl<'d> Keywords<'d> {
    pub(super) fn of(object: &'d Object) -> Self {
        let mut keywords = Self::default();
        for (word, value) in object.words() {
            let place = match word {
                Word::Type => &mut keywords.ty,
                Word::Properties => &mut keywords.properties,
                Word::Required => &mut keywords.required,
                Word::AdditionalProperties => &mut keywords.additional,
                Word::UnevaluatedProperties if value.is_object() => &mut keywords.unevaluated,
                Word::PatternProperties => &mut keywords.patterns,
                Word::Items => &mut keywords.items,
                Word::AdditionalItems => &mut keywords.more_items,
                Word::PrefixItems => &mut keywords.prefix,
                Word::MaxItems => &mut keywords.most_items,
                Word::Minimum => &mut keywords.minimum,
                Word::ExclusiveMinimum => &mut keywords.above,
                Word::Maximum => &mut keywords.maximum,
                Word::ExclusiveMaximum => &mut keywords.below,
                Word::Format => &mut keywords.format,
                Word::Const => &mut keywords.constant,
                Word::Enum => &mut keywords.values,
                Word::Discriminator => &mut keywords.discriminator,
                Word::AllOf => &mut keywords.all_of,
                Word::OneOf => &mut keywords.one_of,
                Word::AnyOf => &mut keywords.any_of,
                Word::Nullable | Word::XNullable => {
                    keywords.is_nullable |= value.is_true();
                    continue;
                }
                Word::Then => {
                    keywords.conditions.push(Condition { test: object.get("if"), then: value });
                    continue;
                }
                Word::Else => {
                    keywords.conditions.push(Condition { test: None, then: value });
                    continue;
                }
                // Before 2019-09 the keys that must be there stand under the same keyword.
                Word::DependentSchemas | Word::Dependencies => {
                    let all = value.as_object().into_iter().flat_map(Object::values);
                    keywords.conditions.extend(all.map(|then| Condition { test: None, then }));
                    continue;
                }
                word if word.is_reference() && value.is_string() => {
                    keywords.has_reference = true;
                    continue;
                }
                word => {
                    let is_told = matches!(word.role(), Role::Untyped | Role::Reference);
                    if is_told && !value.is_boolean() {
                        keywords.untyped.push(word);
                    }
                    continue;
                }
            };
            *place = Some(value);
        }
        keywords
    }

    /// Adds the types that are allowed; whether any is left.
    pub(super) fn add_types(&self, flat: &mut Flat<'d>) -> bool {
        let names = match self.ty {
            Some(Value::Array(several)) => several,
            Some(one) => std::slice::from_ref(one),
            None => &[],
        };
        let names = || names.iter().filter_map(Value::as_str);
        let allows_null = self.is_nullable || names().any(|name| name == "null");
        if names().next().is_some() {
            // Null stands only where all that say a type allow it.
            flat.typed_null = Some(allows_null && flat.typed_null.unwrap_or(true));
        } else {
            flat.untyped_null |= allows_null;
        }
        flat.is_nullable = flat.untyped_null || flat.typed_null == Some(true);
        let kinds: KindSet = names().filter_map(json_kind).collect();
        if kinds.is_empty() {
            return true;
        }
        let both = flat.kinds.map(|known| known.in_both(kinds));
        let is_any_left = both.is_none_or(|both| !both.is_empty());
        flat.kinds = Some(both.filter(|both| !both.is_empty()).unwrap_or(kinds));
        is_any_left
    }

    pub(super) fn add_object(&self, flat: &mut Flat<'d>) {
        for (key, schema) in self.properties.and_then(Value::as_object).into_iter().flatten() {
            let spec = match flat.properties.get(key) {
                Some(Property { spec: Spec::One(known), .. }) if std::ptr::eq(*known, schema) => {
                    Spec::One(schema)
                }
                Some(Property { spec, .. }) => Spec::All(vec![spec.clone(), Spec::One(schema)]),
                None => Spec::One(schema),
            };
            flat.properties.insert(key, spec.into());
        }
        let required = self.required.and_then(Value::as_array);
        flat.required.extend(required.into_iter().flatten().filter_map(Value::as_str));
        let patterns = self.patterns.and_then(Value::as_object);
        let (all, some): (Vec<_>, Vec<_>) =
            patterns.into_iter().flatten().partition(|(pattern, _)| EVERY_KEY.contains(pattern));
        flat.patterns.extend(some.into_iter().map(|(_, schema)| schema));
        let every = all.into_iter().map(|(_, schema)| schema);
        for additional in self.additional.into_iter().chain(every).chain(self.unevaluated) {
            flat.additional = flat.additional.filter(|known| known.is_object()).or(Some(additional));
        }
    }

    pub(super) fn add_list(&self, flat: &mut Flat<'d>) {
        let is_false = |value: Option<&Value>| value == Some(&Value::Bool(false));
        let items = match self.items {
            // The drafts before 2020-12 have the prefix there, and what follows it in a keyword of its own.
            Some(Value::Array(prefix)) => {
                flat.prefix.extend(prefix);
                self.more_items
            }
            items => items,
        };
        if let Some(items) = items.filter(|items| !items.is_boolean()) {
            flat.items = Some(match flat.items.take() {
                Some(known) => Spec::All(vec![known, Spec::One(items)]),
                None => Spec::One(items),
            });
        }
        flat.prefix.extend(self.prefix.and_then(Value::as_array).into_iter().flatten());
        let most = self.most_items.and_then(Value::as_number).and_then(serde_json::Number::as_u64);
        flat.is_closed |= is_false(self.items)
            || is_false(self.more_items)
            || most.is_some_and(|most| most <= flat.prefix.len() as u64);
    }
}

fn json_kind(name: &str) -> Option<Kind> {
    match name {
        "object" => Some(Kind::Object),
        "array" => Some(Kind::List),
        "string" | "file" => Some(Kind::Text),
        "boolean" => Some(Kind::Boolean),
        "integer" => Some(Kind::Integer),
        "number" => Some(Kind::Number),
        _ => None,
    }
}
