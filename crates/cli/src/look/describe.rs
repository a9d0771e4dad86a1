//! A shape in a few words: its type, and an example.

use std::borrow::Cow;

use jar_sprout_model::Kind;
use jar_sprout_shape::{Distinct, Form, Lists, Numbers, Objects, Shape, Texts};

use super::at::At;

use crate::screen::visible;

/// `integer`, `list of Hive`, `HiveCode: integer or text`, `date text`, `text QueenStatus`
pub(crate) fn type_of(shape: &Shape, at: At<'_>) -> String {
    if at.is_left_out() {
        return "left out".to_owned();
    }
    let kinds: Vec<String> = shape
        .kinds()
        .into_iter()
        .filter(|kind| *kind != Kind::Null)
        .map(|kind| match kind {
            Kind::Text => text_type(shape.texts.as_deref(), at),
            Kind::List => format!("list of {}", item_type(shape.lists.as_deref(), at.items())),
            Kind::Object => object_type(shape, at),
            Kind::Null | Kind::Boolean | Kind::Integer | Kind::Number => kind_name(kind).to_owned(),
        })
        .collect();
    match (kinds.len(), at.union()) {
        (0, _) => "unknown".to_owned(),
        (2.., Some(name)) => format!("{name}: {}", kinds.join(" or ")),
        _ => kinds.join(" or "),
    }
}

/// What a kind is called.
pub(crate) fn kind_name(kind: Kind) -> &'static str {
    match kind {
        Kind::Null => "null",
        Kind::Boolean => "boolean",
        Kind::Integer => "integer",
        Kind::Number => "float",
        Kind::Text => "text",
        Kind::List => "list",
        Kind::Object => "object",
    }
}

/// The form that all texts but the blank ones have, if there is a telling one.
pub(crate) fn form_of(texts: &Texts) -> Option<Form> {
    let filled = texts.tally.count - texts.of_form(Form::Blank);
    Form::ALL
        .into_iter()
        .filter(|form| !matches!(form, Form::Plain | Form::Blank))
        .find(|form| filled > 0 && texts.of_form(*form) == filled)
}

fn text_type(texts: Option<&Texts>, at: At<'_>) -> String {
    if let Some(inside) = texts.and_then(Texts::inside) {
        let read = at.inside().map(|at| format!(" of {}", type_of(inside, at)));
        return format!("json text{}", read.unwrap_or_default());
    }
    match (texts.and_then(form_of), at.enumeration()) {
        (Some(form), _) => format!("{} text", form.name()),
        (None, Some(name)) => format!("text {name}"),
        (None, None) => "text".to_owned(),
    }
}

fn item_type(lists: Option<&Lists>, at: At<'_>) -> String {
    lists.map_or_else(String::new, |lists| type_of(&lists.items, at))
}

fn object_type(shape: &Shape, at: At<'_>) -> String {
    match shape.objects.as_ref().and_then(|objects| values_of(objects, at)) {
        Some((values, at)) => format!("map of {}", type_of(&values, at)),
        None => at.record().or_else(|| at.union()).unwrap_or_else(|| "object".to_owned()),
    }
}

/// What stands under all keys of a map, whatever they are; none where the keys are names.
pub(crate) fn values_of<'s, 'm>(objects: &'s Objects, at: At<'m>) -> Option<(Cow<'s, Shape>, At<'m>)> {
    let values = at.values();
    if let Some(crowd) = objects.crowd() {
        return Some((Cow::Borrowed(crowd), values.unwrap_or(at.items())));
    }
    let mut shapes = objects.fields().into_iter().map(|field| field.shape.clone());
    let (mut all, at) = (shapes.next()?, values?);
    shapes.for_each(|shape| all.merge(shape));
    Some((Cow::Owned(all), at))
}

/// What the values are like: an example, a range, the lengths of lists.
pub(crate) fn example(shape: &Shape) -> String {
    let parts = [
        shape.numbers.as_deref().and_then(number_example),
        shape.texts.as_deref().map(text_example),
        shape.lists.as_deref().map(list_example),
        boolean_example(shape),
    ];
    parts.into_iter().flatten().collect::<Vec<_>>().join(", ")
}

fn number_example(numbers: &Numbers) -> Option<String> {
    let example = numbers.example()?.to_owned();
    let Some((least, greatest)) = number_range(numbers) else { return Some(example) };
    Some(if least == greatest { example } else { format!("{least} to {greatest}") })
}

/// The least and the greatest number as text.
pub(crate) fn number_range(numbers: &Numbers) -> Option<(String, String)> {
    match (numbers.integer_range, numbers.fraction_range) {
        (Some(range), None) => Some((range.least.to_string(), range.greatest.to_string())),
        (None, Some(range)) => Some((range.least.to_string(), range.greatest.to_string())),
        (Some(integers), Some(fractions)) => Some((
            fractions.least.min(integers.least as f64).to_string(),
            fractions.greatest.max(integers.greatest as f64).to_string(),
        )),
        (None, None) => None,
    }
}

fn text_example(texts: &Texts) -> String {
    let quoted = |text: &str| format!("\"{}\"", visible(text));
    let distinct = texts.distinct();
    // Where all are blank, a blank.
    let blank = match &distinct {
        Distinct::All(values) => values.first().map(|(text, _)| *text),
        Distinct::Many => None,
    };
    let example = quoted(texts.example().or(blank).unwrap_or_default());
    match distinct {
        Distinct::All(values) if values.len() > 1 && texts.tally.count > values.len() as u64 => {
            format!("{example} … {} values", values.len())
        }
        Distinct::All(_) | Distinct::Many => example,
    }
}

fn list_example(lists: &Lists) -> String {
    let Lists { shortest, longest, .. } = lists;
    match (shortest, longest) {
        (0, 0) => "empty".to_owned(),
        (1, 1) => "1 item".to_owned(),
        (least, most) if least == most => format!("{most} items"),
        (least, most) => format!("{least} to {most} items"),
    }
}

fn boolean_example(shape: &Shape) -> Option<String> {
    match (shape.booleans.yes.count, shape.booleans.no.count) {
        (0, 0) => None,
        (_, 0) => Some("true".to_owned()),
        (0, _) => Some("false".to_owned()),
        (yes, no) => Some(format!("{yes} true, {no} false")),
    }
}
