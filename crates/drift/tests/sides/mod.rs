//! Models to hold against each other, made of samples or of a schema.

#![allow(dead_code, reason = "no test needs all of it")]

use jar_sprout_document::{Library, NoFiles, draft_document};
use jar_sprout_drift::{Change, Finding, Side, drift};
use jar_sprout_model::{Model, Slot, SourceId, Type, TypeId, WireName, Words};
use jar_sprout_settle::{Inferred, Policies, RootName, Subject, infer, infer_document, words_seen};
use jar_sprout_shape::{Shape, observe};

/// A model, and whether what it does not have is not there.
pub(crate) struct Made {
    pub(crate) model: Model,
    pub(crate) is_complete: bool,
    /// What was seen, of samples.
    inferred: Option<Inferred>,
}

/// The model of samples, one a line, or of a schema that stands behind `schema`.
pub(crate) fn made(text: &str, name: &str) -> Made {
    match text.trim().strip_prefix("schema ") {
        Some(schema) => Made { model: of_schema(schema, name), is_complete: true, inferred: None },
        None => of_samples(text.lines(), name),
    }
}

pub(crate) fn of_samples<'t>(samples: impl Iterator<Item = &'t str>, name: &str) -> Made {
    let mut shape = Shape::default();
    for (id, sample) in (0..).map(SourceId).zip(samples.filter(|line| !line.trim().is_empty())) {
        observe(sample.as_bytes(), id, &mut shape).expect(sample);
    }
    let name = RootName { words: Words::split(name), is_given: false };
    let inferred = infer(&shape, &name, &Policies::default());
    Made { model: inferred.settled.model.clone(), is_complete: false, inferred: Some(inferred) }
}

fn of_schema(schema: &str, name: &str) -> Model {
    let library =
        Library::gather("schema.json", schema, &NoFiles).unwrap_or_else(|fault| panic!("{fault:?}"));
    let drafted = draft_document(&library, "schema.json", &[], &Words::split(name));
    let (draft, roots) = (drafted.draft.clone(), drafted.roots.clone());
    infer_document(draft, &roots, drafted.title.as_ref(), &Policies::default()).settled.model
}

/// What changed; the types that a case calls `New…` are sent.
pub(crate) fn drifted(old: &Made, new: &Made) -> Vec<Finding> {
    let sent = |model: &Model, id: TypeId| model.get(id).name.in_capitals().starts_with("New");
    let (old_sent, new_sent) = (|id| sent(&old.model, id), |id| sent(&new.model, id));
    let words = |made: &Made, field: &Subject| {
        let Inferred { drafted, settled } = made.inferred.as_ref()?;
        words_seen(drafted, settled, field)
    };
    let (old_words, new_words) = (|field: &Subject| words(old, field), |field: &Subject| words(new, field));
    drift(
        Side { model: &old.model, is_complete: old.is_complete, is_sent: &old_sent, words: &old_words },
        Side { model: &new.model, is_complete: new.is_complete, is_sent: &new_sent, words: &new_words },
    )
}

/// A line for a finding.
pub(crate) fn line(finding: &Finding, old: &Model, new: &Model) -> String {
    let what = match &finding.change {
        Change::FieldGone { presence, was } => format!("gone, {presence:?}, {}", slot(old, was)),
        Change::FieldNew { presence, is } => format!("new, {presence:?}, {}", slot(new, is)),
        Change::FieldRenamed { from, to, presence } => format!("{from} is now {to}, {presence:?}"),
        Change::Kind { was, is, .. } => format!("{} is now {}", slot(old, was), slot(new, is)),
        Change::ValuesNew { words, .. } => {
            format!("new values {}", words.iter().map(WireName::as_str).collect::<Vec<_>>().join(", "))
        }
        Change::ValuesGone { words } => {
            format!("no values {}", words.iter().map(WireName::as_str).collect::<Vec<_>>().join(", "))
        }
        Change::CaseNew { case, .. } => format!("new case {case}"),
        Change::CaseGone { case } => format!("no case {case}"),
        Change::Description { was, is } => format!("said {was:?}, says {is:?}"),
        Change::TypeRenamed => format!(
            "type {} is now {}",
            finding.old.as_ref().map_or("?", |old| &old.type_name),
            finding.new.as_ref().map_or("?", |new| &new.type_name),
        ),
        other => format!("{other:?}"),
    };
    format!("{}: {} {what}\n", finding.verdict().words(), finding.at)
}

fn slot(model: &Model, slot: &Slot) -> String {
    let text = match &slot.ty {
        Type::Any => "any".to_owned(),
        Type::Scalar(scalar) => format!("{scalar:?}").split('(').next().unwrap_or_default().to_lowercase(),
        Type::Constant(text) => format!("{:?}", text.as_str()),
        Type::List(items) => format!("[{}]", self::slot(model, items)),
        Type::Map(values) => format!("{{{}}}", self::slot(model, values)),
        Type::Tuple(items) => {
            format!("({})", items.iter().map(|item| self::slot(model, item)).collect::<Vec<_>>().join(", "))
        }
        Type::Named(id) => model.get(*id).name.in_capitals(),
    };
    if slot.nullable { format!("{text}?") } else { text }
}
