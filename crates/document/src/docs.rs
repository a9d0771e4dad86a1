//! What a schema says for people: its description, and the bounds that no type can hold.

use jar_sprout_model::{Counts, DefaultValue, Docs, Limit, Limits, READ_ONLY};
use serde_json::Number;

use crate::text::Word;
use crate::value::Value;

/// What a schema says of itself, with the bounds it sets.
pub(crate) fn docs_of(schema: &Value) -> Docs {
    docs_of_all([schema])
}

/// The same of several that hold together: what the last one says stands above what those before it say.
pub(crate) fn docs_of_all<'d>(schemas: impl IntoIterator<Item = &'d Value>) -> Docs {
    let mut description = "";
    let mut is_deprecated = false;
    let mut bounds = Bounds::default();
    for object in schemas.into_iter().filter_map(Value::as_object) {
        for (word, value) in object.words() {
            match word {
                Word::Description => {
                    let said = value.as_str().unwrap_or_default().trim();
                    description = if said.is_empty() { description } else { said };
                }
                Word::Deprecated | Word::XDeprecated => is_deprecated |= value.is_true(),
                word => bounds.add(word, value),
            }
        }
    }
    let said = if bounds.has_any { bounds.text() } else { String::new() };
    let gap = if description.is_empty() || said.is_empty() { "" } else { "\n\n" };
    let docs = Docs::new(&[description, gap, &said].concat());
    docs.deprecated(is_deprecated).read_only(bounds.is_read_only).limited(bounds.limits())
}

/// What a schema says of what fits it that no type can hold.
#[derive(Default)]
struct Bounds<'d> {
    has_any: bool,
    values: Range<'d>,
    lengths: Range<'d>,
    items: Range<'d>,
    above: Option<&'d Number>,
    below: Option<&'d Number>,
    is_above: bool,
    is_below: bool,
    step: Option<&'d Number>,
    default: Option<&'d Value>,
    /// Numbers and truths: an enum of texts has a type of its own.
    known: Vec<&'d Value>,
    has_no_item_twice: bool,
    is_read_only: bool,
    is_write_only: bool,
}

/// The least and the greatest number.
#[derive(Default)]
struct Range<'d>(Option<&'d Number>, Option<&'d Number>);

impl<'d> Bounds<'d> {
    fn add(&mut self, word: Word, value: &'d Value) {
        let number = value.as_number();
        let is_true = value.is_true();
        match word {
            Word::Minimum => self.values.0 = number,
            Word::Maximum => self.values.1 = number,
            // Of what is counted, no least number is nothing said.
            Word::MinLength | Word::MinItems if number.and_then(Number::as_u64) == Some(0) => return,
            Word::MinLength => self.lengths.0 = number,
            Word::MaxLength => self.lengths.1 = number,
            Word::MinItems => self.items.0 = number,
            Word::MaxItems => self.items.1 = number,
            // OpenAPI 3.0 says of the other bound that it does not fit itself (Schema Object).
            Word::ExclusiveMinimum => (self.above, self.is_above) = (number, is_true),
            Word::ExclusiveMaximum => (self.below, self.is_below) = (number, is_true),
            Word::MultipleOf => self.step = number,
            Word::Enum => {
                let values = value.as_array().into_iter().flatten().filter(|value| !value.is_null());
                self.known = values.collect();
                let is_one_truth = matches!(self.known[..], [one] if one.is_boolean());
                if is_one_truth
                    || self.known.iter().any(|value| value.as_number().is_none() && !value.is_boolean())
                {
                    self.known.clear();
                    return;
                }
            }
            // Of a text or a truth, the type says it.
            Word::Const if value.as_number().is_some() => self.known = vec![value],
            Word::Default if !value.is_array() && !value.is_object() => self.default = Some(value),
            Word::UniqueItems => self.has_no_item_twice = is_true,
            Word::ReadOnly => self.is_read_only = is_true,
            Word::WriteOnly => self.is_write_only = is_true,
            _ => return,
        }
        self.has_any = true;
    }

    /// What fits.
    fn limits(&self) -> Limits {
        let limit = |within: Option<&Number>, is_without: bool, beyond: Option<&Number>| {
            let (number, is_within) = match (within, beyond) {
                (_, Some(beyond)) => (beyond, false),
                (Some(within), None) => (within, !is_without),
                (None, None) => return None,
            };
            Some(Limit { number: number.to_string(), is_within })
        };
        let counts = |Range(least, most): &Range<'_>| Counts {
            least: least.and_then(Number::as_u64),
            most: most.and_then(Number::as_u64),
        };
        Limits {
            least: limit(self.values.0, self.is_above, self.above),
            most: limit(self.values.1, self.is_below, self.below),
            step: self.step.map(ToString::to_string),
            lengths: counts(&self.lengths),
            items: counts(&self.items),
        }
    }

    /// `At least 0, at most 10. Read-only.`
    fn text(&self) -> String {
        let (least, above) = if self.is_above { (None, self.values.0) } else { (self.values.0, self.above) };
        let (most, below) = if self.is_below { (None, self.values.1) } else { (self.values.1, self.below) };
        let values = Range(least, most);
        let mut parts: Vec<String> = Vec::new();
        let mut range = |what: &str, said: [Option<String>; 2]| {
            let both: Vec<String> = said.into_iter().flatten().collect();
            if !both.is_empty() {
                parts.push(capitalised(&format!("{what}{}.", both.join(", "))));
            }
        };
        for (what, Range(least, most)) in
            [("", &values), ("length ", &self.lengths), ("items: ", &self.items)]
        {
            range(
                what,
                [least.map(|least| format!("at least {least}")), most.map(|most| format!("at most {most}"))],
            );
        }
        range("", [above.map(|above| format!("above {above}")), below.map(|below| format!("below {below}"))]);
        let known: Vec<String> = self.known.iter().map(ToString::to_string).collect();
        match &known[..] {
            [] => {}
            [one] => parts.push(format!("Always {one}.")),
            _ => parts.push(format!("One of {}.", known.join(", "))),
        }
        parts.extend(self.step.map(|step| format!("A multiple of {step}.")));
        parts.extend(self.has_no_item_twice.then(|| "Items are unique.".to_owned()));
        parts.extend(self.default.map(|default| format!("Defaults to {default}.")));
        parts.extend(self.is_read_only.then(|| READ_ONLY.to_owned()));
        parts.extend(self.is_write_only.then(|| "Write-only.".to_owned()));
        parts.join(" ")
    }
}

/// The default value that a schema states, where it is one that code can have.
fn default_of(schema: &Value) -> Option<DefaultValue> {
    match schema.said(Word::Default)? {
        Value::Bool(flag) => Some(DefaultValue::Boolean(*flag)),
        Value::Number(number) => Some(DefaultValue::Number(number.to_string())),
        Value::String(text) => Some(DefaultValue::Text(text.to_string())),
        Value::Null | Value::Array(_) | Value::Object(_) => None,
    }
}

fn capitalised(text: &str) -> String {
    let mut chars = text.chars();
    chars.next().map(|first| first.to_uppercase().chain(chars).collect()).unwrap_or_default()
}

/// The default value that the last of several schemas states which states one.
pub(crate) fn default_of_all<'d>(
    schemas: impl DoubleEndedIterator<Item = &'d Value>,
) -> Option<DefaultValue> {
    schemas.rev().find_map(default_of)
}

/// Whether a schema says `true` of itself.
pub(crate) fn says(schema: &Value, word: Word) -> bool {
    schema.said(word).is_some_and(Value::is_true)
}
