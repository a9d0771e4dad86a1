//! Model types as TypeScript types.

use jar_sprout_layout::{Doc, cat, join, text};
use jar_sprout_model::{OnWire, Scalar, Slot, Type};

use super::{Form, Hold, Reading, names};
use crate::plan::{Plan, PlannedDefinition};

/// The type of a place for a value: `Queen | null`
pub(super) fn slot(plan: &Plan<'_>, slot: &Slot, form: Form) -> Doc {
    let ty = non_null(plan, &slot.ty, form);
    // `unknown` takes null as it is.
    if slot.nullable && slot.ty != Type::Any { cat([ty, text(" | null")]) } else { ty }
}

fn non_null(plan: &Plan<'_>, ty: &Type, form: Form) -> Doc {
    match ty {
        Type::Any => text("unknown"),
        Type::Scalar(Scalar::DateTime(_)) if form.reading == Reading::Dated => text("Date"),
        Type::Scalar(scalar) if form.reading != Reading::None && scalar.leaves_doubles() => text("bigint"),
        Type::Scalar(Scalar::Lettered(_)) => text("`${number}`"),
        // JSON's own types: a date stays the text it is on the wire.
        Type::Scalar(scalar) => text(match scalar.on_wire() {
            OnWire::Boolean => "boolean",
            OnWire::Integer | OnWire::Number => "number",
            OnWire::Text => "string",
        }),
        Type::Constant(constant) => text(names::LITERAL.of(constant.as_str())),
        Type::List(items) => {
            let item = self::slot(plan, items, form);
            let is_union = items.nullable && items.ty != Type::Any;
            // A read-only list in a list is one word too many for `[]`.
            let is_compound = is_union
                || (form.hold == Hold::Readonly && matches!(items.ty, Type::List(_) | Type::Tuple(_)));
            let list =
                if is_compound { cat([text("("), item, text(")[]")]) } else { cat([item, text("[]")]) };
            cat([text(form.hold.property()), list])
        }
        Type::Map(values) => {
            let held = self::slot(plan, values, form);
            if form.is_alias && leads_to_alias(plan, &values.ty) {
                // `Record` is looked into at once, where the name is not known yet.
                let key = text(format!("{{ {}[key: string]: ", form.hold.property()));
                return cat([key, held, text(" }")]);
            }
            let map = cat([text("Record<string, "), held, text(">")]);
            match form.hold {
                Hold::Mutable => map,
                Hold::Readonly => cat([text("Readonly<"), map, text(">")]),
            }
        }
        Type::Tuple(items) => {
            let items = items.iter().map(|item| self::slot(plan, item, form));
            cat([text(form.hold.property()), text("["), join(&text(", "), items), text("]")])
        }
        Type::Named(id) => text(plan.ident(*id).as_str().to_owned()),
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
