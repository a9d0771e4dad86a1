//! Model types as TypeScript types.

use jar_sprout_layout::{Doc, cat, join, text};
use jar_sprout_model::{OnWire, Slot, Type};

use super::names;
use crate::plan::Plan;

/// The type of a place for a value: `Queen | null`
pub(super) fn slot(plan: &Plan<'_>, slot: &Slot) -> Doc {
    let ty = non_null(plan, &slot.ty);
    // `unknown` takes null as it is.
    if slot.nullable && slot.ty != Type::Any { cat([ty, text(" | null")]) } else { ty }
}

fn non_null(plan: &Plan<'_>, ty: &Type) -> Doc {
    match ty {
        Type::Any => text("unknown"),
        // JSON's own types: a date stays the text it is on the wire.
        Type::Scalar(scalar) => text(match scalar.on_wire() {
            OnWire::Boolean => "boolean",
            OnWire::Integer | OnWire::Number => "number",
            OnWire::Text => "string",
        }),
        Type::Constant(constant) => text(names::LITERAL.of(constant.as_str())),
        Type::List(items) => {
            let item = self::slot(plan, items);
            let is_union = items.nullable && items.ty != Type::Any;
            if is_union { cat([text("("), item, text(")[]")]) } else { cat([item, text("[]")]) }
        }
        Type::Map(values) => cat([text("Record<string, "), self::slot(plan, values), text(">")]),
        Type::Tuple(items) => {
            let items = items.iter().map(|item| self::slot(plan, item));
            cat([text("["), join(&text(", "), items), text("]")])
        }
        Type::Named(id) => text(plan.ident(*id).to_string()),
    }
}
