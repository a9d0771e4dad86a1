//! What the values of an `enum` are, and a `const`.

use indexmap::IndexSet;
use jar_sprout_model::{DraftCase, DraftKind, Scalar, Width, WireName};

use super::{Drafter, Made};
use crate::flat::NoteKind;
use crate::value::Value;

impl<'d> Drafter<'_, 'd> {
    /// What the values of an `enum` are.
    pub(super) fn of_values(&mut self, values: &[&'d Value], may_be_null: bool, at: &'d Value) -> Made {
        let is_nullable = may_be_null || values.iter().any(|value| value.is_null());
        let texts: IndexSet<WireName> =
            values.iter().filter_map(|value| value.as_str()).map(WireName::new).collect();
        let texts: Vec<WireName> = texts.into_iter().collect();
        let others: Vec<&&Value> =
            values.iter().filter(|value| !value.is_string() && !value.is_null()).collect();
        let scalars: Option<Vec<Scalar>> = others
            .iter()
            .map(|value| match value {
                Value::Bool(_) => Some(Scalar::Boolean),
                Value::Number(number) if number.is_i64() || number.is_u64() => {
                    Some(Scalar::Integer(Width::Wide))
                }
                Value::Number(_) => Some(Scalar::Float),
                Value::Null | Value::String(_) | Value::Array(_) | Value::Object(_) => None,
            })
            .collect();
        if let ([text], true) = (&texts[..], others.is_empty()) {
            return Made::Kind(DraftKind::Constant(text.clone()), is_nullable);
        }
        if let Some(truth) = only_truth(&others)
            && texts.is_empty()
        {
            return Made::Kind(DraftKind::Scalar(Scalar::Always(truth)), is_nullable);
        }
        let Some(mut scalars) = scalars else {
            self.flattening.note(at, NoteKind::DeepValues);
            return Made::Kind(DraftKind::Any, is_nullable);
        };
        scalars.sort_unstable();
        scalars.dedup();
        if scalars.contains(&Scalar::Float) {
            scalars.retain(|scalar| !matches!(scalar, Scalar::Integer(_)));
        }
        let kinds = scalars.into_iter().map(DraftKind::Scalar);
        let mut kinds: Vec<DraftKind> =
            (!texts.is_empty()).then_some(DraftKind::Enumeration(texts)).into_iter().chain(kinds).collect();
        if kinds.len() > 1 {
            self.flattening.note(at, NoteKind::UnlikeValues);
            let cases =
                kinds.into_iter().map(|kind| DraftCase { tag: None, node: self.draft.add(kind, false) });
            return Made::Kind(DraftKind::Union { tag: None, cases: cases.collect() }, is_nullable);
        }
        Made::Kind(kinds.pop().unwrap_or(DraftKind::Any), is_nullable)
    }
}

/// The truth that all values are.
fn only_truth(values: &[&&Value]) -> Option<bool> {
    let truths: Option<IndexSet<bool>> = values.iter().map(|value| value.as_bool()).collect();
    truths.filter(|truths| truths.len() == 1)?.into_iter().next()
}
