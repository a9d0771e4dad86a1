//! Model types as Swift types, with the imports and helpers they need.

use jar_sprout_model::{Numeral, Presence, Scalar, Slot, Type, Width};

use super::settings::Form;
use crate::code::{Helper, Needs};
use crate::plan::{Ident, Plan, PlannedField};

/// A helper in the two forms that its users' access asks for.
struct Twofold {
    internal: Helper,
    public: Helper,
}

macro_rules! twofold {
    ($name:literal, $folder:literal) => {
        Twofold {
            internal: Helper { name: $name, text: include_str!(concat!($folder, $name, ".swift")) },
            public: Helper { name: $name, text: include_str!(concat!($folder, "public/", $name, ".swift")) },
        }
    };
}

const JSON_VALUE: Twofold = twofold!("JSONValue", "");
const ISO_DATE: Twofold = twofold!("ISODate", "");
const INTEGER_TEXT: Twofold = twofold!("IntegerText", "");
const DOUBLE_TEXT: Twofold = twofold!("DoubleText", "");
const DECIMAL_TEXT: Twofold = twofold!("DecimalText", "");
const MAYBE: Twofold = twofold!("Maybe", "");
const BOX: Twofold = twofold!("Box", "");
const DECODED_BOX: Twofold = twofold!("Box", "decode/");

fn help(helper: &Twofold, form: &Form, needs: &mut Needs) -> &'static str {
    let Twofold { internal, public } = helper;
    needs.helpers.insert(if form.access.is_empty() { *internal } else { *public });
    internal.name
}

/// The type of a record's property.
pub(super) fn field(
    plan: &Plan<'_>,
    owner: &Ident,
    field: &PlannedField<'_>,
    form: &Form,
    needs: &mut Needs,
) -> String {
    let PlannedField { ident: _, wire: _, presence, slot, docs: _, is_apart, default } = field;
    let ty = non_null(plan, &slot.ty, form, needs);
    let is_cycle = match &slot.ty {
        // A class stands apart as it is.
        Type::Named(id) => !form.is_class && plan.contains_inline(*id, owner),
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::List(_) | Type::Map(_) | Type::Tuple(_) => {
            false
        }
    };
    let ty = if is_cycle {
        let holder = help(if form.is_encoded { &BOX } else { &DECODED_BOX }, form, needs);
        format!("{holder}<{ty}>")
    } else {
        ty
    };
    match presence {
        Presence::Sometimes if default.is_some() => ty,
        Presence::Sometimes if *is_apart => format!("{}<{ty}>", help(&MAYBE, form, needs)),
        Presence::Sometimes => format!("{ty}?"),
        Presence::Always if may_be_nil(slot) => format!("{ty}?"),
        Presence::Always => ty,
    }
}

/// Whether null is told by nil; any JSON value has a null of its own.
pub(super) fn may_be_nil(slot: &Slot) -> bool {
    slot.nullable && slot.ty != Type::Any
}

/// The type of a place for a value: `Queen?`
pub(super) fn slot(plan: &Plan<'_>, slot: &Slot, form: &Form, needs: &mut Needs) -> String {
    let ty = non_null(plan, &slot.ty, form, needs);
    if may_be_nil(slot) { ty + "?" } else { ty }
}

/// The type of a value that is not null.
pub(super) fn non_null(plan: &Plan<'_>, ty: &Type, form: &Form, needs: &mut Needs) -> String {
    match ty {
        Type::Any => any(form, needs).to_owned(),
        Type::Scalar(scalar) => self::scalar(*scalar, form, needs).to_owned(),
        Type::Constant(_) => "String".to_owned(),
        Type::List(items) => format!("[{}]", slot(plan, items, form, needs)),
        Type::Map(values) => format!("[String: {}]", slot(plan, values, form, needs)),
        // Swift's tuples cannot be decoded.
        Type::Tuple(_) => format!("[{}]", any(form, needs)),
        Type::Named(id) => plan.ident(*id).to_string(),
    }
}

pub(super) fn any(form: &Form, needs: &mut Needs) -> &'static str {
    help(&JSON_VALUE, form, needs)
}

fn scalar(scalar: Scalar, form: &Form, needs: &mut Needs) -> &'static str {
    match scalar {
        Scalar::Boolean => "Bool",
        Scalar::Integer(Width::Narrow) => "Int",
        Scalar::Integer(Width::Wide | Width::Exact) => "Int64",
        Scalar::Integer(Width::Big) => {
            needs.imports.insert("Foundation");
            "Decimal"
        }
        Scalar::Float => "Double",
        Scalar::Decimal => {
            needs.imports.insert("Foundation");
            "Decimal"
        }
        Scalar::Lettered(Numeral::Integer) => help(&INTEGER_TEXT, form, needs),
        Scalar::Lettered(Numeral::Float) => help(&DOUBLE_TEXT, form, needs),
        Scalar::Lettered(Numeral::Decimal) => help(&DECIMAL_TEXT, form, needs),
        // Swift has no type for a time of day.
        Scalar::Text | Scalar::Uuid | Scalar::Uri | Scalar::Time(_) => "String",
        Scalar::DateTime(_) | Scalar::LocalDateTime(_) | Scalar::Date => help(&ISO_DATE, form, needs),
    }
}
