//! Model types as Kotlin types, with the imports they need.

use jar_sprout_layout::{Doc, cat, text};
use jar_sprout_model::{Scalar, Slot, Type, Width};

use crate::code::{Helper, Needs};
use crate::plan::Plan;

const BIG_INTEGER: Helper = Helper { name: "JsonBigInteger", text: include_str!("JsonBigInteger.kt") };

/// The type of a place for a value: `Queen?`
pub(super) fn slot(plan: &Plan<'_>, slot: &Slot, needs: &mut Needs) -> Doc {
    let ty = non_null(plan, slot, needs);
    if slot.nullable { cat([ty, text("?")]) } else { ty }
}

/// The type of a value that is not null: `Queen`
pub(super) fn non_null(plan: &Plan<'_>, slot: &Slot, needs: &mut Needs) -> Doc {
    match &slot.ty {
        Type::Any => {
            needs.imports.insert("kotlinx.serialization.json.JsonElement");
            text("JsonElement")
        }
        Type::Scalar(scalar) => text(self::scalar(*scalar, needs)),
        Type::Constant(_) => text("String"),
        Type::List(items) => cat([text("List<"), self::slot(plan, items, needs), text(">")]),
        Type::Map(values) => cat([text("Map<String, "), self::slot(plan, values, needs), text(">")]),
        Type::Named(id) => text(plan.ident(*id).to_string()),
    }
}

fn scalar(scalar: Scalar, needs: &mut Needs) -> &'static str {
    match scalar {
        Scalar::Boolean => "Boolean",
        Scalar::Integer(Width::Narrow) => "Int",
        Scalar::Integer(Width::Wide) => "Long",
        Scalar::Integer(Width::Big) => {
            needs.helpers.insert(BIG_INTEGER);
            "JsonBigInteger"
        }
        Scalar::Float => "Double",
        Scalar::Text => "String",
    }
}
