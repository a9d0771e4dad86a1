//! Misfits: where a sample is not what the model says.

use std::fmt;

use jar_sprout_model::{
    Coding, Definition, Encoding, Enumeration, Field, Model, Presence, Record, Scalar, ScalarKind, Slot,
    Type, Union, UnionCase, Width, WireName,
};
use jar_sprout_shape::Form;
use serde_json::{Map, Number, Value};

use crate::decide::verdict::{FieldType, FieldVerdict};
use crate::subject::Subject;

/// A value that does not fit its place in the model.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Misfit {
    /// The way to the value; for a missing key, to the object that lacks it.
    pub path: Vec<Part>,
    /// What the model wants there.
    pub expected: String,
    /// What stands there.
    pub found: String,
    /// The field whose value it is, and what it would have to be; none where no decision can mend it.
    pub remedy: Option<(Subject, FieldVerdict)>,
}

/// Something in a sample of which the model says nothing.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Novelty {
    /// The way to it.
    pub path: Vec<Part>,
    /// The key that a type does not have, or the field that is an enum.
    pub subject: Subject,
    /// The value that the enum does not have.
    pub value: Option<String>,
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
    compare(model, sample).0
}

/// The same, and what a sample has beyond the model, which fits it all the same.
pub fn compare(model: &Model, sample: &Value) -> (Vec<Misfit>, Vec<Novelty>) {
    let mut fitting = Fitting::of(model);
    fitting.slot(&model.root.slot, sample);
    (fitting.misfits, fitting.novelties)
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
            let mut fitting = Fitting::of(model);
            fitting.slot(&case.slot, value);
            fitting.misfits.is_empty()
        }),
    }
}

struct Fitting<'m> {
    model: &'m Model,
    path: Vec<Part>,
    /// The field that we are in, and how many lists around the value; none where no decision reaches it.
    field: Option<(Subject, usize)>,
    misfits: Vec<Misfit>,
    novelties: Vec<Novelty>,
}

impl<'m> Fitting<'m> {
    fn of(model: &'m Model) -> Self {
        Self { model, path: Vec::new(), field: None, misfits: Vec::new(), novelties: Vec::new() }
    }

    fn slot(&mut self, slot: &Slot, value: &Value) {
        match (&slot.ty, value) {
            (Type::Any, _) => {}
            (_, Value::Null) if slot.nullable => {}
            (Type::Scalar(scalar), value) if fits_scalar(*scalar, value) => {}
            (Type::Scalar(scalar), _) => {
                self.miss_for(scalar_word(*scalar), value, taking(*scalar, value));
            }
            (Type::Constant(text), Value::String(found)) if found == text.as_str() => {}
            (Type::Constant(text), _) => self.miss(&format!("{:?}", text.as_str()), value),
            (Type::List(items), Value::Array(values)) => {
                let field = self.field.clone();
                self.field = field.clone().map(|(subject, lists)| (subject, lists + 1));
                for (index, value) in values.iter().enumerate() {
                    self.inside(Part::Item(index), |fitting| fitting.slot(items, value));
                }
                self.field = field;
            }
            (Type::List(_), _) => self.miss("a list", value),
            (Type::Tuple(items), Value::Array(values)) if items.len() == values.len() => {
                let field = self.field.take();
                for (index, (item, value)) in items.iter().zip(values).enumerate() {
                    self.inside(Part::Item(index), |fitting| fitting.slot(item, value));
                }
                self.field = field;
            }
            (Type::Tuple(items), _) => self.miss(&format!("a list of {} items", items.len()), value),
            (Type::Map(values), Value::Object(object)) => {
                let field = self.field.take();
                for (key, value) in object {
                    self.inside(Part::Key(key.clone()), |fitting| fitting.slot(values, value));
                }
                self.field = field;
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
                self.miss_for(
                    &format!("one of {}", known.join(", ")),
                    value,
                    FieldType::Scalar(Scalar::Text),
                );
            }
            Some(text) => {
                let is_known = known.cases.iter().any(|case| case.wire.as_str() == text);
                if let Some((subject, _)) = self.field.as_ref().filter(|_| !is_known) {
                    let (subject, value) = (subject.clone(), Some(text.to_owned()));
                    self.novelties.push(Novelty { path: self.path.clone(), subject, value });
                }
            }
        }
    }

    fn record(&mut self, record: &Record, name: &str, value: &Value) {
        let Value::Object(object) = value else { return self.miss(&format!("an object, {name}"), value) };
        let around = self.field.take();
        let subject = |key: &str| Subject { type_name: name.to_owned(), key: Some(WireName::new(key)) };
        for field in &record.fields {
            let key = field.wire.as_str();
            match object.get(key) {
                // What may be missing may be null as well in most languages.
                Some(Value::Null) if field.presence == Presence::Sometimes => {}
                Some(value) => {
                    self.field = Some((subject(key), 0));
                    self.inside(Part::Key(key.to_owned()), |fitting| fitting.encoded(field, value));
                    self.field = None;
                }
                None if field.presence == Presence::Always => {
                    let (path, expected) = (self.path.clone(), format!("the key `{key}` of {name}"));
                    let remedy = Some((subject(key), FieldVerdict::Optional));
                    self.misfits.push(Misfit { path, expected, found: keys(object), remedy });
                }
                None => {}
            }
        }
        for (key, value) in object.iter().filter(|(key, _)| !record.has_key(key)) {
            match &record.extras {
                Some(extras) => self.inside(Part::Key(key.clone()), |fitting| fitting.slot(extras, value)),
                None => {
                    let path = self.path.iter().cloned().chain([Part::Key(key.clone())]).collect();
                    self.novelties.push(Novelty { path, subject: subject(key), value: None });
                }
            }
        }
        self.field = around;
    }

    /// What stands in a field, as its text says it where it is JSON in a text.
    fn encoded(&mut self, field: &Field, value: &Value) {
        match (&field.encoding, value) {
            (Encoding::NothingWords(words), Value::String(text)) if words.has(text) => {}
            (Encoding::Plain | Encoding::NothingWords(_), _) | (Encoding::JsonInText, Value::Null) => {
                self.slot(&field.slot, value);
            }
            (Encoding::JsonInText, value) => {
                match value.as_str().and_then(|text| serde_json::from_str(text).ok()) {
                    Some(inside) => self.slot(&field.slot, &inside),
                    None => self.miss_for("JSON in a text", value, FieldType::Scalar(Scalar::Text)),
                }
            }
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
        self.miss_for(expected, found, FieldType::Any);
    }

    /// A misfit that is none where the value is of this type.
    fn miss_for(&mut self, expected: &str, found: &Value, taking: FieldType) {
        let remedy = self.field.clone().and_then(|(subject, lists)| {
            let in_lists = |ty| (0..lists).fold(ty, |ty, _| FieldType::List(Box::new(ty)));
            match (found, lists) {
                (Value::Null, 0) => Some((subject, FieldVerdict::Nullable)),
                (Value::Null, _) => None,
                _ => Some((subject, FieldVerdict::Is(in_lists(taking)))),
            }
        });
        let (path, expected) = (self.path.clone(), expected.to_owned());
        self.misfits.push(Misfit { path, expected, found: shown(found), remedy });
    }
}

fn scalar_word(scalar: Scalar) -> &'static str {
    match scalar {
        Scalar::Boolean => "true or false",
        Scalar::Always(true) => "true",
        Scalar::Always(false) => "false",
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
        Scalar::Coded(Coding::IntegerText) => "an integer of 64 bits in letters, as it would be written",
        Scalar::Coded(Coding::FloatText | Coding::DecimalText) => "a number in letters",
        Scalar::Coded(Coding::BooleanText) => "true or false in letters",
        Scalar::Coded(Coding::EpochSeconds) => "whole seconds since 1970",
        Scalar::Coded(Coding::EpochMilliseconds) => "whole milliseconds since 1970",
    }
}

fn fits_scalar(scalar: Scalar, value: &Value) -> bool {
    let has_form = |form: Form| value.as_str().is_some_and(|text| Form::of(text.as_bytes()) == form);
    match scalar {
        Scalar::Boolean => value.is_boolean(),
        Scalar::Always(truth) => *value == Value::Bool(truth),
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
        Scalar::Coded(coding) => is_coded(coding, value),
    }
}

/// What takes all that a scalar does, and this value as well.
fn taking(scalar: Scalar, value: &Value) -> FieldType {
    match (scalar, value) {
        (Scalar::Integer(_), Value::Number(number)) => FieldType::Scalar(match number {
            number if number.is_i64() => Scalar::Integer(Width::Wide),
            number if is_whole(number) => Scalar::Integer(Width::Big),
            _ => Scalar::Float,
        }),
        (scalar, Value::String(_)) if scalar.kind() == ScalarKind::Text => FieldType::Scalar(Scalar::Text),
        _ => FieldType::Any,
    }
}

/// Whether a value is what the wire writes; a number with zeros in front, say, would not go back as it came.
fn is_coded(coding: Coding, value: &Value) -> bool {
    let text = || value.as_str().unwrap_or_default();
    // The days of the year 10,000 and later, which not every platform has, and those before the year 1.
    let is_time = |seconds: i64| (-62_135_596_800..253_402_300_800).contains(&seconds);
    match coding {
        Coding::IntegerText => text().parse::<i64>().is_ok_and(|number| number.to_string() == text()),
        Coding::FloatText | Coding::DecimalText => {
            let digits = text().strip_prefix('-').unwrap_or(text());
            let (whole, fraction) = digits.split_once('.').unwrap_or((digits, "0"));
            let are_digits = |part: &str| !part.is_empty() && part.bytes().all(|byte| byte.is_ascii_digit());
            are_digits(whole) && are_digits(fraction) && (whole == "0" || !whole.starts_with('0'))
        }
        Coding::BooleanText => matches!(text(), "true" | "false"),
        Coding::EpochSeconds => value.as_i64().is_some_and(is_time),
        Coding::EpochMilliseconds => value.as_i64().is_some_and(|number| is_time(number.div_euclid(1_000))),
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
