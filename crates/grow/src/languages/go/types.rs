//! Model types as Go types, with the imports and helpers they need.

use jar_sprout_model::{Numeral, Presence, Scalar, Slot, Type, Width};

use super::names::tag_name;
use super::times::TIMES;
use crate::code::{Helper, Needs};
use crate::plan::{Ident, Plan, PlannedField};

const DATE: Helper = Helper { name: "Date", text: include_str!("date.go") };
pub(super) const LOCAL_DATE_TIME: Helper =
    Helper { name: "LocalDateTime", text: include_str!("local_date_time.go") };
const MAYBE: Helper = Helper { name: "Maybe", text: include_str!("maybe.go") };
pub(super) const LOCAL_TIME: Helper = Helper { name: "LocalTime", text: include_str!("local_time.go") };

/// The type of a record's field, and whether its tag says that it may be left out.
pub(super) fn field(
    plan: &Plan<'_>,
    owner: &Ident,
    field: &PlannedField<'_>,
    needs: &mut Needs,
) -> (String, &'static str) {
    let PlannedField { ident: _, wire, presence, slot, docs: _, is_apart, default } = field;
    if *is_apart {
        needs.helpers.insert(MAYBE);
        return (format!("Maybe[{}]", non_null(plan, slot, needs)), ",omitzero");
    }
    if let Some(numeral) = field.numeral().filter(|_| tag_name(wire.as_str()).is_some()) {
        return in_letters(numeral, field, needs);
    }
    if default.is_some() {
        return (non_null(plan, slot, needs), "");
    }
    let nil = has_nil(&slot.ty);
    match presence {
        // `omitempty` would leave out an empty list as well.
        Presence::Sometimes if nil && slot.ty != Type::Any => (non_null(plan, slot, needs), ",omitzero"),
        Presence::Sometimes => (pointer(plan, slot, needs), ",omitempty"),
        Presence::Always => match &slot.ty {
            // Go does not let a struct hold itself.
            Type::Named(id) if plan.contains_inline(*id, owner) => (pointer(plan, slot, needs), ""),
            Type::Named(_)
            | Type::Any
            | Type::Scalar(_)
            | Type::Constant(_)
            | Type::List(_)
            | Type::Map(_)
            | Type::Tuple(_) => (self::slot(plan, slot, needs), ""),
        },
    }
}

/// A number in letters: its tag says so.
fn in_letters(numeral: Numeral, field: &PlannedField<'_>, needs: &mut Needs) -> (String, &'static str) {
    let ty = match numeral {
        Numeral::Integer => "int64",
        Numeral::Float => "float64",
        Numeral::Decimal => number(needs),
    };
    match field.presence {
        Presence::Sometimes => (format!("*{ty}"), ",string,omitempty"),
        Presence::Always if field.slot.nullable => (format!("*{ty}"), ",string"),
        Presence::Always => (ty.to_owned(), ",string"),
    }
}

/// A number with all its digits.
fn number(needs: &mut Needs) -> &'static str {
    needs.imports.insert("encoding/json");
    "json.Number"
}

/// The type of a place for a value: `*Queen` where it may be null.
pub(super) fn slot(plan: &Plan<'_>, slot: &Slot, needs: &mut Needs) -> String {
    if slot.nullable { pointer(plan, slot, needs) } else { non_null(plan, slot, needs) }
}

/// A type whose nil stands for null or for nothing.
fn pointer(plan: &Plan<'_>, slot: &Slot, needs: &mut Needs) -> String {
    let ty = non_null(plan, slot, needs);
    if has_nil(&slot.ty) { ty } else { format!("*{ty}") }
}

/// Whether the type's own nil is written as null.
pub(super) fn has_nil(ty: &Type) -> bool {
    match ty {
        Type::Any | Type::List(_) | Type::Map(_) | Type::Tuple(_) => true,
        Type::Scalar(scalar) => *scalar == Scalar::Integer(Width::Big),
        Type::Constant(_) | Type::Named(_) => false,
    }
}

/// The type of a value that is not null: `Queen`
pub(super) fn non_null(plan: &Plan<'_>, slot: &Slot, needs: &mut Needs) -> String {
    match &slot.ty {
        Type::Any => any(needs).to_owned(),
        Type::Scalar(scalar) => self::scalar(plan, *scalar, needs).to_owned(),
        Type::Constant(_) => "string".to_owned(),
        Type::List(items) => format!("[]{}", self::slot(plan, items, needs)),
        Type::Map(values) => format!("map[string]{}", self::slot(plan, values, needs)),
        // Go has no type for a list of unlike items.
        Type::Tuple(_) => format!("[]{}", any(needs)),
        Type::Named(id) => plan.ident(*id).to_string(),
    }
}

fn any(needs: &mut Needs) -> &'static str {
    needs.imports.insert("encoding/json");
    "json.RawMessage"
}

fn scalar(plan: &Plan<'_>, scalar: Scalar, needs: &mut Needs) -> &'static str {
    let of_helper = |helper: Helper, needs: &mut Needs| {
        needs.helpers.insert(helper);
        helper.name
    };
    if let Some(special) = TIMES.special(plan, scalar) {
        return of_helper(special, needs);
    }
    match scalar {
        Scalar::Boolean => "bool",
        Scalar::Integer(Width::Narrow) => "int",
        Scalar::Integer(Width::Wide | Width::Exact) => "int64",
        Scalar::Integer(Width::Big) => {
            needs.imports.insert("math/big");
            "*big.Int"
        }
        Scalar::Float => "float64",
        Scalar::Decimal => number(needs),
        // No tag reaches into a list.
        Scalar::Lettered(_) => "string",
        Scalar::Text | Scalar::Uuid | Scalar::Uri => "string",
        Scalar::DateTime(_) => {
            needs.imports.insert("time");
            "time.Time"
        }
        Scalar::LocalDateTime(_) => of_helper(LOCAL_DATE_TIME, needs),
        Scalar::Date => of_helper(DATE, needs),
        Scalar::Time(_) => of_helper(LOCAL_TIME, needs),
    }
}
