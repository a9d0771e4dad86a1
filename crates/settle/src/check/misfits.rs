//! Misfits: where a sample is not what the model says.

use std::fmt;

use jar_sprout_model::{
    Definition, Enumeration, Model, Numeral, Presence, Record, Scalar, Slot, Type, Union, UnionCase, Width,
};
use jar_sprout_shape::Form;
use serde_json::{Map, Number, Value};

/// A value that does not fit its place in the model.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Misfit {
    /// The way to the value; for a missing key, to the object that lacks it.
    pub path: Vec<Part>,
    /// What the model wants there.
    pub expected: String,
    /// What stands there.
    pub found: String,
}

/// A step on the way to a value.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Part {
    /// `.name`
    Key(String),
    /// `[0]`
    Item(usize),
}

impl fmt::Display for Misfit {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str("$")?;
        self.path.iter().try_for_each(|part| match part {
            Part::Item(index) => write!(f, "[{index}]"),
            Part::Key(key) => write!(f, "{}", jar_sprout_shape::Step::Child(key.clone())),
        })?;
        write!(f, ": expected {}, found {}", self.expected, self.found)
    }
}

/// All places where a sample does not fit a model's root.
pub fn misfits(model: &Model, sample: &Value) -> Vec<Misfit> {
    let mut fitting = Fitting { model, path: Vec::new(), misfits: Vec::new() };
    fitting.slot(&model.root.slot, sample);
    fitting.misfits
}

/// The case of a union that a value is: by its tag, else the first that it fits.
pub fn case_of<'u>(model: &Model, union: &'u Union, value: &Value) -> Option<&'u UnionCase> {
    let mut cases = union.cases.iter();
    match &union.tag {
        Some(tag) => {
            let tag = value.get(tag.as_str())?.as_str()?;
            cases.find(|case| case.tag.as_ref().is_some_and(|known| known.as_str() == tag))
        }
        None => cases.find(|case| {
            let mut fitting = Fitting { model, path: Vec::new(), misfits: Vec::new() };
            fitting.slot(&case.slot, value);
            fitting.misfits.is_empty()
        }),
    }
}

struct Fitting<'m> {
    model: &'m Model,
    path: Vec<Part>,
    misfits: Vec<Misfit>,
}

impl Fitting<'_> {
    fn slot(&mut self, slot: &Slot, value: &Value) {
        match (&slot.ty, value) {
            (Type::Any, _) => {}
            (_, Value::Null) if slot.nullable => {}
            (Type::Scalar(scalar), value) if fits_scalar(*scalar, value) => {}
            (Type::Scalar(scalar), _) => self.miss(scalar_word(*scalar), value),
            (Type::Constant(text), Value::String(found)) if found == text.as_str() => {}
            (Type::Constant(text), _) => self.miss(&format!("{:?}", text.as_str()), value),
            (Type::List(items), Value::Array(values)) => {
                for (index, value) in values.iter().enumerate() {
                    self.inside(Part::Item(index), |fitting| fitting.slot(items, value));
                }
            }
            (Type::List(_), _) => self.miss("a list", value),
            (Type::Tuple(items), Value::Array(values)) if items.len() == values.len() => {
                for (index, (item, value)) in items.iter().zip(values).enumerate() {
                    self.inside(Part::Item(index), |fitting| fitting.slot(item, value));
                }
            }
            (Type::Tuple(items), _) => self.miss(&format!("a list of {} items", items.len()), value),
            (Type::Map(values), Value::Object(object)) => {
                for (key, value) in object {
                    self.inside(Part::Key(key.clone()), |fitting| fitting.slot(values, value));
                }
            }
            (Type::Map(_), _) => self.miss("an object", value),
            (Type::Named(id), value) => {
                let model = self.model;
                let ty = model.get(*id);
                match &ty.definition {
                    Definition::Record(record) => self.record(record, &ty.name.in_capitals(), value),
                    Definition::Enumeration(known) => self.enumeration(known, value),
                    Definition::Union(union) => self.union(union, &ty.name.in_capitals(), value),
                }
            }
        }
    }

    fn enumeration(&mut self, known: &Enumeration, value: &Value) {
        match value.as_str() {
            None => self.miss("a text", value),
            Some(text) if known.is_closed && known.cases.iter().all(|case| case.wire.as_str() != text) => {
                let known: Vec<String> =
                    known.cases.iter().map(|case| format!("{:?}", case.wire.as_str())).collect();
                self.miss(&format!("one of {}", known.join(", ")), value);
            }
            Some(_) => {}
        }
    }

    fn record(&mut self, record: &Record, name: &str, value: &Value) {
        let Value::Object(object) = value else { return self.miss(&format!("an object, {name}"), value) };
        for field in &record.fields {
            let key = field.wire.as_str();
            match object.get(key) {
                // What may be missing may be null as well in most languages.
                Some(Value::Null) if field.presence == Presence::Sometimes => {}
                Some(value) => {
                    self.inside(Part::Key(key.to_owned()), |fitting| fitting.slot(&field.slot, value));
                }
                None if field.presence == Presence::Always => {
                    let expected = format!("the key `{key}` of {name}");
                    self.misfits.push(Misfit { path: self.path.clone(), expected, found: keys(object) });
                }
                None => {}
            }
        }
        let Some(extras) = &record.extras else { return };
        for (key, value) in object.iter().filter(|(key, _)| !record.has_key(key)) {
            self.inside(Part::Key(key.clone()), |fitting| fitting.slot(extras, value));
        }
    }

    fn union(&mut self, union: &Union, name: &str, value: &Value) {
        if union.tag.is_some() && !value.is_object() {
            return self.miss(&format!("an object, {name}"), value);
        }
        match case_of(self.model, union, value) {
            // Without a tag it was found by fitting.
            Some(case) if union.tag.is_some() => self.slot(&case.slot, value),
            // A tag that is not known is kept as it is.
            None if union.tag.is_none() => self.miss(&format!("one of {name}"), value),
            Some(_) | None => {}
        }
    }

    fn inside(&mut self, part: Part, fit: impl FnOnce(&mut Self)) {
        self.path.push(part);
        fit(self);
        self.path.pop();
    }

    fn miss(&mut self, expected: &str, found: &Value) {
        let misfit = Misfit { path: self.path.clone(), expected: expected.to_owned(), found: shown(found) };
        self.misfits.push(misfit);
    }
}

fn scalar_word(scalar: Scalar) -> &'static str {
    match scalar {
        Scalar::Boolean => "true or false",
        Scalar::Integer(Width::Narrow) => "an integer of 32 bits",
        Scalar::Integer(Width::Wide | Width::Exact) => "an integer of 64 bits",
        Scalar::Integer(Width::Big) => "an integer",
        Scalar::Float => "a number",
        Scalar::Text | Scalar::Uuid | Scalar::Uri => "a text",
        Scalar::DateTime(_) => "a date-time with its offset",
        Scalar::LocalDateTime(_) => "a date-time without an offset",
        Scalar::Date => "a date",
        Scalar::Time(_) => "a time",
        Scalar::Decimal => "a number",
        Scalar::StringEncoded(Numeral::Integer) => "an integer of 64 bits in letters, as it would be written",
        Scalar::StringEncoded(Numeral::Float | Numeral::Decimal) => "a number in letters",
    }
}

fn fits_scalar(scalar: Scalar, value: &Value) -> bool {
    let has_form = |form: Form| value.as_str().is_some_and(|text| Form::of(text.as_bytes()) == form);
    match scalar {
        Scalar::Boolean => value.is_boolean(),
        Scalar::Integer(Width::Narrow) => value.as_i64().is_some_and(|number| i32::try_from(number).is_ok()),
        Scalar::Integer(Width::Wide | Width::Exact) => value.as_i64().is_some(),
        Scalar::Integer(Width::Big) => value.as_number().is_some_and(is_whole),
        Scalar::Float => value.is_number(),
        Scalar::Text | Scalar::Uuid | Scalar::Uri => value.is_string(),
        Scalar::DateTime(_) => has_form(Form::DateTime),
        Scalar::LocalDateTime(_) => has_form(Form::LocalDateTime),
        Scalar::Date => has_form(Form::Date),
        Scalar::Time(_) => has_form(Form::Time),
        Scalar::Decimal => value.is_number(),
        Scalar::StringEncoded(numeral) => value.as_str().is_some_and(|text| is_numeral(numeral, text)),
    }
}

/// Whether a text is a number; one with zeros in front, say, would not go back as it came.
fn is_numeral(numeral: Numeral, text: &str) -> bool {
    match numeral {
        Numeral::Integer => text.parse::<i64>().is_ok_and(|number| number.to_string() == text),
        Numeral::Float | Numeral::Decimal => {
            let digits = text.strip_prefix('-').unwrap_or(text);
            let (whole, fraction) = digits.split_once('.').unwrap_or((digits, "0"));
            let are_digits = |part: &str| !part.is_empty() && part.bytes().all(|byte| byte.is_ascii_digit());
            are_digits(whole) && are_digits(fraction) && (whole == "0" || !whole.starts_with('0'))
        }
    }
}

fn is_whole(number: &Number) -> bool {
    // Beyond 64 bits the number was read as a float.
    number.is_i64() || number.is_u64() || number.as_f64().is_some_and(|float| float.fract() == 0.0)
}

/// The most characters of a value in a message.
const SHOWN: usize = 40;

fn shown(value: &Value) -> String {
    match value {
        Value::Array(items) => format!("a list of {}", items.len()),
        Value::Object(object) => keys(object),
        Value::Null | Value::Bool(_) | Value::Number(_) | Value::String(_) => {
            let text = value.to_string();
            match text.char_indices().nth(SHOWN) {
                Some((end, _)) => format!("{}…", &text[..end]),
                None => text,
            }
        }
    }
}

/// `an object with id, name and 4 more keys`
fn keys(object: &Map<String, Value>) -> String {
    const FEW: usize = 4;
    if object.is_empty() {
        return "an empty object".to_owned();
    }
    let few: Vec<&str> = object.keys().take(FEW).map(String::as_str).collect();
    match object.len().saturating_sub(FEW) {
        0 => format!("an object with {}", few.join(", ")),
        1 => format!("an object with {} and 1 more key", few.join(", ")),
        more => format!("an object with {} and {more} more keys", few.join(", ")),
    }
}
