//! The shape as JSON, for programs.

use jar_sprout_settle::{Inferred, Question};
use jar_sprout_shape::{Distinct, Lists, Objects, Shape};
use serde::Serialize;

use super::at::At;
use super::describe::{form_of, kind_name, number_range, type_of};
use crate::modelling::{Home, questions_of, settling_line};
use crate::sources::Gathered;

#[derive(Serialize)]
struct Look<'s> {
    samples: u64,
    bytes: u64,
    name: String,
    shape: Position<'s>,
    questions: Vec<Asked>,
}

/// An open question.
#[derive(Serialize)]
#[serde(rename_all = "camelCase")]
struct Asked {
    #[serde(skip_serializing_if = "Option::is_none")]
    subject: Option<String>,
    #[serde(skip_serializing_if = "Option::is_none")]
    path: Option<String>,
    saw: String,
    for_now: String,
    settle: String,
}

/// One position; what was not seen there is not there.
#[derive(Serialize)]
#[serde(rename_all = "camelCase")]
struct Position<'s> {
    seen: u64,
    kinds: Vec<&'static str>,
    /// As `look` shows it.
    #[serde(rename = "type")]
    ty: String,
    #[serde(skip_serializing_if = "is_zero")]
    nulls: u64,
    #[serde(skip_serializing_if = "Option::is_none")]
    form: Option<&'static str>,
    #[serde(skip_serializing_if = "Option::is_none")]
    example: Option<&'s str>,
    #[serde(skip_serializing_if = "Option::is_none")]
    range: Option<[String; 2]>,
    #[serde(skip_serializing_if = "Vec::is_empty")]
    values: Vec<Value<'s>>,
    #[serde(skip_serializing_if = "Option::is_none")]
    lengths: Option<[u64; 2]>,
    #[serde(skip_serializing_if = "Option::is_none")]
    items: Option<Box<Position<'s>>>,
    /// What the texts are, where each is JSON itself.
    #[serde(skip_serializing_if = "Option::is_none")]
    inside: Option<Box<Position<'s>>>,
    #[serde(skip_serializing_if = "Vec::is_empty")]
    fields: Vec<FieldPosition<'s>>,
    #[serde(skip_serializing_if = "Option::is_none")]
    any_key: Option<Box<Position<'s>>>,
}

#[derive(Serialize)]
struct Value<'s> {
    text: &'s str,
    count: u64,
}

#[derive(Serialize)]
struct FieldPosition<'s> {
    key: &'s str,
    /// Objects without the key.
    absent: u64,
    #[serde(flatten)]
    position: Position<'s>,
}

fn is_zero(count: &u64) -> bool {
    *count == 0
}

/// The look as JSON, with a newline at the end.
pub(crate) fn json(gathered: &Gathered, modelled: &Inferred, home: Home<'_>) -> String {
    let questions = questions_of(modelled, gathered).into_iter().map(|question| {
        let Question { subject, path, saw, chose, settle, harm: _ } = question;
        Asked {
            subject: subject.map(|subject| subject.to_string()),
            path: path.map(|path| path.to_string()),
            saw,
            for_now: chose,
            settle: settling_line(&settle, home),
        }
    });
    let at = At::root(&modelled.settled.model, gathered.document.is_none());
    let look = Look {
        samples: gathered.samples,
        bytes: gathered.bytes,
        name: gathered.root_name().to_string(),
        shape: position(&gathered.shape, at),
        questions: questions.collect(),
    };
    serde_json::to_string_pretty(&look).expect("plain data is always JSON") + "\n"
}

fn position<'s>(shape: &'s Shape, at: At<'_>) -> Position<'s> {
    let Shape { nulls, booleans: _, numbers, texts, lists, objects } = shape;
    let text_example = texts.as_ref().and_then(|texts| texts.example());
    Position {
        seen: shape.seen(),
        kinds: shape.kinds().into_iter().map(kind_name).collect(),
        ty: type_of(shape, at),
        nulls: nulls.count,
        form: texts.as_deref().and_then(form_of).map(jar_sprout_shape::Form::name),
        example: text_example.or_else(|| numbers.as_ref().and_then(|numbers| numbers.example())),
        range: numbers.as_deref().and_then(number_range).map(|(least, greatest)| [least, greatest]),
        inside: texts
            .as_ref()
            .and_then(|texts| texts.inside())
            .map(|inside| Box::new(position(inside, at.inside().unwrap_or(at.items())))),
        values: texts.as_ref().map(|texts| values(texts.distinct())).unwrap_or_default(),
        lengths: lists.as_ref().map(|lists| [lists.shortest, lists.longest]),
        items: lists.as_deref().map(|Lists { items, .. }| Box::new(position(items, at.items()))),
        fields: objects.as_deref().map(|objects| fields(objects, at)).unwrap_or_default(),
        any_key: objects
            .as_deref()
            .and_then(Objects::crowd)
            .map(|values| Box::new(position(values, at.values().unwrap_or(at.items())))),
    }
}

fn values(distinct: Distinct<'_>) -> Vec<Value<'_>> {
    match distinct {
        Distinct::Many => Vec::new(),
        Distinct::All(values) => {
            values.into_iter().map(|(text, tally)| Value { text, count: tally.count }).collect()
        }
    }
}

fn fields<'s>(objects: &'s Objects, at: At<'_>) -> Vec<FieldPosition<'s>> {
    objects
        .fields()
        .into_iter()
        .map(|one| FieldPosition {
            key: &one.key,
            absent: objects.tally.count - one.seen.count,
            position: position(&one.shape, at.values().unwrap_or(at.field(&one.key).0)),
        })
        .collect()
}
