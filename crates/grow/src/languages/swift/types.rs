//! Model types as Swift types, with the imports and helpers they need.

use jar_sprout_model::{Coding, Scalar, Slot, Type, TypeId, Width};

use super::Sheet;
use super::helpers::{
    BOOLEAN_TEXT, BOX, DECIMAL_TEXT, DOUBLE_TEXT, EPOCH_MILLISECONDS, EPOCH_SECONDS, INTEGER_TEXT, ISO_DATE,
    JSON_TEXT, JSON_VALUE, MAYBE, NOTHING_WORDS, help,
};
use crate::plan::{Fate, PlannedField};

/// The type of a record's property.
pub(super) fn field(sheet: &mut Sheet<'_>, owner: TypeId, field: &PlannedField<'_>) -> String {
    let PlannedField { ident: _, wire: _, slot, encoding: _, docs: _, fate } = field;
    let ty = non_null(sheet, &slot.ty);
    let is_cycle = match &slot.ty {
        // A class stands apart as it is.
        Type::Named(id) => !sheet.options.is_class && sheet.plan.contains_inline(*id, owner),
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::List(_) | Type::Map(_) | Type::Tuple(_) => {
            false
        }
    };
    let ty = if is_cycle {
        let holder = help(sheet, &BOX);
        format!("{holder}<{ty}>")
    } else {
        ty
    };
    let ty = if field.is_json_in_text() { format!("{}<{ty}>", help(sheet, &JSON_TEXT)) } else { ty };
    if field.nothing_words().is_some() {
        help(sheet, &NOTHING_WORDS);
        return format!("{ty}?");
    }
    match fate {
        Fate::Apart => format!("{}<{ty}>", help(sheet, &MAYBE)),
        Fate::Optional | Fate::Either => format!("{ty}?"),
        // Any JSON value has a null of its own.
        Fate::Nullable if slot.ty == Type::Any => ty,
        Fate::Nullable => format!("{ty}?"),
        Fate::Tag(_) | Fate::Required | Fate::Defaulted(_) => ty,
    }
}

/// Whether null is told by nil; any JSON value has a null of its own.
pub(super) fn may_be_nil(slot: &Slot) -> bool {
    slot.nullable && slot.ty != Type::Any
}

/// The type of a place for a value: `Queen?`
pub(super) fn slot(sheet: &mut Sheet<'_>, slot: &Slot) -> String {
    let ty = non_null(sheet, &slot.ty);
    if may_be_nil(slot) { ty + "?" } else { ty }
}

/// The type of a value that is not null.
pub(super) fn non_null(sheet: &mut Sheet<'_>, ty: &Type) -> String {
    match ty {
        Type::Any => any(sheet).to_owned(),
        Type::Scalar(scalar) => self::scalar(sheet, *scalar).to_owned(),
        Type::Constant(_) => "String".to_owned(),
        Type::List(items) => format!("[{}]", slot(sheet, items)),
        Type::Map(values) => format!("[String: {}]", slot(sheet, values)),
        // Swift's tuples cannot be decoded.
        Type::Tuple(_) => format!("[{}]", any(sheet)),
        Type::Named(id) => sheet.plan.ident(*id).to_string(),
    }
}

pub(super) fn any(sheet: &mut Sheet<'_>) -> &'static str {
    help(sheet, &JSON_VALUE)
}

fn scalar(sheet: &mut Sheet<'_>, scalar: Scalar) -> &'static str {
    match scalar {
        Scalar::Boolean | Scalar::Always(_) => "Bool",
        // As its people advise, whatever the width: it has 64 bits wherever Swift 6 runs but on older watches.
        Scalar::Integer(Width::Narrow | Width::Wide | Width::Exact) => "Int",
        Scalar::Integer(Width::Big) => {
            sheet.needs.imports.insert("Foundation");
            "Decimal"
        }
        Scalar::Float => "Double",
        Scalar::Decimal => {
            sheet.needs.imports.insert("Foundation");
            "Decimal"
        }
        Scalar::Coded(Coding::IntegerText) => help(sheet, &INTEGER_TEXT),
        Scalar::Coded(Coding::FloatText) => help(sheet, &DOUBLE_TEXT),
        Scalar::Coded(Coding::DecimalText) => help(sheet, &DECIMAL_TEXT),
        Scalar::Coded(Coding::BooleanText) => help(sheet, &BOOLEAN_TEXT),
        Scalar::Coded(Coding::EpochSeconds) => help(sheet, &EPOCH_SECONDS),
        Scalar::Coded(Coding::EpochMilliseconds) => help(sheet, &EPOCH_MILLISECONDS),
        Scalar::Uuid if sheet.options.has_uuids => {
            sheet.needs.imports.insert("Foundation");
            "UUID"
        }
        Scalar::Uri if sheet.options.has_uris => {
            sheet.needs.imports.insert("Foundation");
            "URL"
        }
        // Swift has no type for a time of day.
        Scalar::Text | Scalar::Uuid | Scalar::Uri | Scalar::Time(_) => "String",
        Scalar::DateTime(_) | Scalar::LocalDateTime(_) | Scalar::Date => help(sheet, &ISO_DATE),
    }
}
