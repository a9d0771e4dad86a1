//! What Jakarta Bean Validation checks of a field.

use jar_sprout_model::{Counts, Limit, Limits, Scalar, Type, Width};

use super::{Sheet, types};
use crate::plan::{Fate, PlannedField};

/// The package of the checks.
macro_rules! import {
    ($name:literal) => {
        concat!("jakarta.validation.constraints.", $name)
    };
}

/// `@NotNull`, `@Min(0)`, `@Size(max = 60)`: what is checked of a value, and that what it holds is checked as well.
pub(super) fn checks(sheet: &mut Sheet<'_>, field: &PlannedField<'_>) -> Vec<String> {
    let mut checks = Vec::new();
    if matches!(field.fate, Fate::Required)
        && field.is_plain()
        && !types::is_primitive(&field.slot.ty)
        && field.slot.ty != Type::Any
    {
        sheet.needs.imports.insert(import!("NotNull"));
        checks.push("@NotNull".to_owned());
    }
    if holds_records(&field.slot.ty) {
        sheet.needs.imports.insert("jakarta.validation.Valid");
        checks.push("@Valid".to_owned());
    }
    let Some(limits) = field.docs.limits().filter(|_| field.is_plain()) else { return checks };
    match &field.slot.ty {
        Type::Scalar(Scalar::Integer(Width::Narrow | Width::Wide | Width::Exact)) => {
            checks.extend(whole(sheet, limits));
        }
        Type::Scalar(Scalar::Float | Scalar::Integer(Width::Big) | Scalar::Decimal) => {
            checks.extend(decimal(sheet, limits));
        }
        Type::Scalar(Scalar::Text) => checks.extend(size(sheet, limits.lengths)),
        Type::List(_) => checks.extend(size(sheet, limits.items)),
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Map(_) | Type::Tuple(_) | Type::Named(_) => {}
    }
    checks
}

/// Whether there are objects whose parts are checked.
fn holds_records(ty: &Type) -> bool {
    match ty {
        Type::Named(_) => true,
        Type::List(items) | Type::Map(items) => matches!(items.ty, Type::Named(_)),
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Tuple(_) => false,
    }
}

fn whole(sheet: &mut Sheet<'_>, limits: &Limits) -> Vec<String> {
    let literal = |number: i64| {
        let long = if i32::try_from(number).is_ok() { "" } else { "L" };
        format!("{number}{long}")
    };
    let mut checks = Vec::new();
    if let Some(least) = limits.least.as_ref().and_then(|least| least.whole(true)) {
        sheet.needs.imports.insert(import!("Min"));
        checks.push(format!("@Min({})", literal(least)));
    }
    if let Some(most) = limits.most.as_ref().and_then(|most| most.whole(false)) {
        sheet.needs.imports.insert(import!("Max"));
        checks.push(format!("@Max({})", literal(most)));
    }
    checks
}

fn decimal(sheet: &mut Sheet<'_>, limits: &Limits) -> Vec<String> {
    let check = |name: &str, Limit { number, is_within }: &Limit| match is_within {
        true => format!("@{name}(\"{number}\")"),
        false => format!("@{name}(value = \"{number}\", inclusive = false)"),
    };
    let mut checks = Vec::new();
    if let Some(least) = &limits.least {
        sheet.needs.imports.insert(import!("DecimalMin"));
        checks.push(check("DecimalMin", least));
    }
    if let Some(most) = &limits.most {
        sheet.needs.imports.insert(import!("DecimalMax"));
        checks.push(check("DecimalMax", most));
    }
    checks
}

/// Counts are `int`s there.
fn size(sheet: &mut Sheet<'_>, counts: Counts) -> Option<String> {
    let Counts { least, most } = counts.narrow();
    let least = least.map(|least| format!("min = {least}"));
    let most = most.map(|most| format!("max = {most}"));
    let parts: Vec<String> = least.into_iter().chain(most).collect();
    if parts.is_empty() {
        return None;
    }
    sheet.needs.imports.insert(import!("Size"));
    Some(format!("@Size({})", parts.join(", ")))
}
