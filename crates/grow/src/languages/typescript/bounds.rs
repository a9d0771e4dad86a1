//! What a function that parses a response checks of a value beside its type.

use jar_sprout_model::{Counts, Limit, Scalar, ScalarKind, Type};

use crate::plan::PlannedField;

/// The greatest whole number that no number of the language rounds.
const GREATEST_SAFE: u64 = (1 << 53) - 1;

/// `{ least: 0, below: 10 }`; none where nothing is checked.
pub(super) fn limits(field: &PlannedField<'_>) -> Option<String> {
    let limits = field.docs.limits().filter(|_| field.is_plain())?;
    let bounds: Vec<String> = match &field.slot.ty {
        Type::Scalar(scalar) if scalar.leaves_doubles() => Vec::new(),
        Type::Scalar(Scalar::Text) => counts(limits.lengths),
        Type::Scalar(scalar @ (Scalar::Integer(_) | Scalar::Float)) => {
            let least = limits.least.as_ref().and_then(|limit| number(["least", "above"], limit));
            let most = limits.most.as_ref().and_then(|limit| number(["most", "below"], limit));
            // Of a fraction, no remainder tells.
            let step = limits.step.as_ref().filter(|step| {
                scalar.kind() == ScalarKind::Integer
                    && step.parse().is_ok_and(|step: u64| is_safe(step) && step > 0)
            });
            least.into_iter().chain(most).chain(step.map(|step| format!("step: {step}"))).collect()
        }
        Type::List(_) => counts(limits.items),
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Map(_) | Type::Tuple(_) | Type::Named(_) => {
            Vec::new()
        }
    };
    (!bounds.is_empty()).then(|| format!("{{ {} }}", bounds.join(", ")))
}

fn is_safe(number: u64) -> bool {
    number <= GREATEST_SAFE
}

fn number(keys: [&str; 2], Limit { number, is_within }: &Limit) -> Option<String> {
    // A whole number that is rounded is another bound.
    let is_exact = match number.parse::<i64>() {
        Ok(whole) => is_safe(whole.unsigned_abs()),
        Err(_) => number.parse::<f64>().is_ok_and(|number| number.is_finite() && number.fract() != 0.0),
    };
    is_exact.then(|| format!("{}: {number}", keys[usize::from(!is_within)]))
}

fn counts(counts: Counts) -> Vec<String> {
    let count = |key: &str, count: Option<u64>| {
        count.filter(|count| is_safe(*count)).map(|count| format!("{key}: {count}"))
    };
    count("least", counts.least).into_iter().chain(count("most", counts.most)).collect()
}
