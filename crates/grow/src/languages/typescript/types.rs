//! Model types as TypeScript types.

use jar_sprout_model::{Coding, NothingWords, Scalar, ScalarKind, Slot, Type, WireName};

use super::Sheet;
use super::settings::TypeScriptOptions;
use super::{Hold, Reading, names};
use crate::plan::{Plan, PlannedDefinition, PlannedField};

/// The type of a place for a value: `Queen | null`
pub(super) fn slot(sheet: &Sheet<'_>, slot: &Slot) -> String {
    let mut out = String::new();
    push_slot(sheet, slot, &mut out);
    out
}

/// The type of a field: `number | "N/A" | null`
pub(super) fn field(sheet: &Sheet<'_>, field: &PlannedField<'_>) -> String {
    let mut out = String::new();
    push_non_null(sheet, &field.slot.ty, &mut out);
    for word in words(sheet, field) {
        out.extend([" | ", &names::LITERAL.of(word.as_str())]);
    }
    if field.slot.nullable && field.slot.ty != Type::Any {
        out.push_str(" | null");
    }
    out
}

/// The words for nothing that are no texts among others in a field.
pub(super) fn words<'f>(
    sheet: &Sheet<'_>,
    field: &'f PlannedField<'_>,
) -> impl Iterator<Item = &'f WireName> {
    let takes_any_text = match &field.slot.ty {
        Type::Any => true,
        Type::Scalar(scalar) => self::scalar(*scalar, sheet.options) == "string",
        Type::Named(id) => {
            let ty = sheet.plan.get(*id);
            matches!(ty.definition, PlannedDefinition::Enumeration(_)) && !ty.is_closed
        }
        Type::Constant(_) | Type::List(_) | Type::Map(_) | Type::Tuple(_) => false,
    };
    field.nothing_words().filter(|_| !takes_any_text).into_iter().flat_map(NothingWords::iter)
}

fn push_slot(sheet: &Sheet<'_>, slot: &Slot, out: &mut String) {
    push_non_null(sheet, &slot.ty, out);
    // `unknown` takes null as it is.
    if slot.nullable && slot.ty != Type::Any {
        out.push_str(" | null");
    }
}

fn push_non_null(sheet: &Sheet<'_>, ty: &Type, out: &mut String) {
    match ty {
        Type::Any => out.push_str("unknown"),
        Type::Scalar(scalar) => out.push_str(self::scalar(*scalar, sheet.options)),
        Type::Constant(constant) => out.push_str(&names::LITERAL.of(constant.as_str())),
        Type::List(items) => {
            let is_union = items.nullable && items.ty != Type::Any;
            // A read-only list in a list is one word too many for `[]`.
            let is_compound = is_union
                || (sheet.options.hold == Hold::Readonly
                    && matches!(items.ty, Type::List(_) | Type::Tuple(_)));
            out.push_str(sheet.options.hold.property());
            out.push_str(if is_compound { "(" } else { "" });
            push_slot(sheet, items, out);
            out.push_str(if is_compound { ")[]" } else { "[]" });
        }
        Type::Map(values) => {
            // `Record` is looked into at once, where the name is not known yet.
            let is_spelled_out = sheet.options.is_alias && leads_to_alias(sheet.plan, &values.ty);
            let (opening, closing) = match (is_spelled_out, sheet.options.hold) {
                (true, Hold::Mutable) => ("{ [key: string]: ", " }"),
                (true, Hold::Readonly) => ("{ readonly [key: string]: ", " }"),
                (false, Hold::Mutable) => ("Record<string, ", ">"),
                (false, Hold::Readonly) => ("Readonly<Record<string, ", ">>"),
            };
            out.push_str(opening);
            push_slot(sheet, values, out);
            out.push_str(closing);
        }
        Type::Tuple(items) => {
            out.push_str(sheet.options.hold.property());
            out.push('[');
            for (at, item) in items.iter().enumerate() {
                out.push_str(if at > 0 { ", " } else { "" });
                push_slot(sheet, item, out);
            }
            out.push(']');
        }
        Type::Named(id) => out.push_str(sheet.plan.ident(*id).as_str()),
    }
}

fn scalar(scalar: Scalar, options: &TypeScriptOptions) -> &'static str {
    if options.reading == Reading::Dated && matches!(scalar, Scalar::DateTime(_)) {
        return "Date";
    }
    if options.reading != Reading::None && scalar.leaves_doubles() {
        return "bigint";
    }
    if let Scalar::Coded(coding) = scalar
        && coding.kind() == ScalarKind::Text
    {
        return if coding == Coding::BooleanText { "`${boolean}`" } else { "`${number}`" };
    }
    if let Scalar::Always(truth) = scalar {
        return if truth { "true" } else { "false" };
    }
    // JSON's own types: a date stays the text it is on the wire.
    match scalar.kind() {
        ScalarKind::Boolean => "boolean",
        ScalarKind::Integer | ScalarKind::Number => "number",
        ScalarKind::Text => "string",
    }
}

/// Whether a type is the name for a union, or a map that holds such a one.
fn leads_to_alias(plan: &Plan<'_>, ty: &Type) -> bool {
    match ty {
        Type::Named(id) => matches!(plan.get(*id).definition, PlannedDefinition::Union(_)),
        Type::Map(values) => leads_to_alias(plan, &values.ty),
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::List(_) | Type::Tuple(_) => false,
    }
}
