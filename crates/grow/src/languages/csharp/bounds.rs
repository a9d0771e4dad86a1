//! What data annotations check of a property.

use jar_sprout_model::{Counts, Limit, Limits, Scalar, Type, Width};

use super::Sheet;
use crate::plan::PlannedField;

/// `[Range(0, 10)]`, `[StringLength(60, MinimumLength = 1)]`
pub(super) fn checks(sheet: &mut Sheet<'_>, field: &PlannedField<'_>) -> Vec<String> {
    let Some(limits) = field.docs.limits().filter(|_| field.is_plain() && !field.fate.tells_null()) else {
        return Vec::new();
    };
    let checks: Vec<String> = match &field.slot.ty {
        Type::Scalar(Scalar::Integer(Width::Narrow | Width::Wide | Width::Exact)) => {
            whole(limits).into_iter().collect()
        }
        Type::Scalar(Scalar::Float) => range(limits).into_iter().collect(),
        Type::Scalar(Scalar::Text) => text_length(limits.lengths).into_iter().collect(),
        Type::List(_) => lengths(limits.items),
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Map(_) | Type::Tuple(_) | Type::Named(_) => {
            Vec::new()
        }
    };
    if !checks.is_empty() {
        sheet.needs.imports.insert("System.ComponentModel.DataAnnotations");
    }
    checks
}

/// Whole numbers of 32 bits; beyond, the attribute compares what it parses.
fn whole(limits: &Limits) -> Option<String> {
    let least = limits.least.as_ref().and_then(|least| least.whole(true));
    let most = limits.most.as_ref().and_then(|most| most.whole(false));
    if least.is_none() && most.is_none() {
        return None;
    }
    let narrow = |bound: Option<i64>| bound.map(i32::try_from).transpose();
    Some(match (narrow(least), narrow(most)) {
        (Ok(Some(least)), Ok(Some(most))) => format!("[Range({least}, {most})]"),
        _ => {
            let (least, most) = (least.unwrap_or(i64::MIN), most.unwrap_or(i64::MAX));
            format!("[Range(typeof(long), \"{least}\", \"{most}\")]")
        }
    })
}

fn range(limits: &Limits) -> Option<String> {
    let Limits { least, most, .. } = limits;
    if least.is_none() && most.is_none() {
        return None;
    }
    // A whole number would be taken for one of 32 bits.
    let literal = |Limit { number, .. }: &Limit| match number.parse::<i64>() {
        Ok(_) => format!("{number}.0"),
        Err(_) => number.clone(),
    };
    let or = |limit: &Option<Limit>, unbounded: &str| limit.as_ref().map_or(unbounded.to_owned(), literal);
    let mut arguments = vec![or(least, "double.NegativeInfinity"), or(most, "double.PositiveInfinity")];
    let is_without = |limit: &Option<Limit>| limit.as_ref().is_some_and(|limit| !limit.is_within);
    if is_without(least) {
        arguments.push("MinimumIsExclusive = true".to_owned());
    }
    if is_without(most) {
        arguments.push("MaximumIsExclusive = true".to_owned());
    }
    Some(format!("[Range({})]", arguments.join(", ")))
}

/// Counts are `int`s there.
fn text_length(counts: Counts) -> Option<String> {
    let Counts { least, most } = counts.narrow();
    match (least, most) {
        (None, None) => None,
        (Some(least), None) => Some(format!("[MinLength({least})]")),
        (None, Some(most)) => Some(format!("[StringLength({most})]")),
        (Some(least), Some(most)) => Some(format!("[StringLength({most}, MinimumLength = {least})]")),
    }
}

fn lengths(counts: Counts) -> Vec<String> {
    let Counts { least, most } = counts.narrow();
    let least = least.map(|least| format!("[MinLength({least})]"));
    let most = most.map(|most| format!("[MaxLength({most})]"));
    least.into_iter().chain(most).collect()
}
