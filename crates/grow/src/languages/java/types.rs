//! Model types as Java types, with the imports and helpers they need.

use jar_sprout_model::{Presence, Scalar, Slot, Type, Width};

use crate::code::{Helper, Needs};
use crate::plan::{Plan, PlannedField};

/// A type of the platform that the library is told how to read and write.
struct Dated {
    name: &'static str,
    import: &'static str,
    /// The annotation that tells it, for the type itself; that for what a list or a map holds stands inside.
    annotation: Helper,
}

macro_rules! dated {
    ($name:literal, $annotation:literal) => {
        Dated {
            name: $name,
            import: concat!("java.time.", $name),
            annotation: Helper { name: $annotation, text: include_str!(concat!($annotation, ".java")) },
        }
    };
}

const DATE_TIME: Dated = dated!("OffsetDateTime", "JsonOffsetDateTime");
const LOCAL_DATE_TIME: Dated = dated!("LocalDateTime", "JsonLocalDateTime");
const DATE: Dated = dated!("LocalDate", "JsonLocalDate");
const TIME: Dated = dated!("LocalTime", "JsonLocalTime");

/// A type as it stands in code, with the annotation that its place needs.
pub(super) struct Spelled {
    pub(super) annotation: Option<String>,
    pub(super) ty: String,
}

/// The type of a record's field. A date is typed where an annotation can say how it is read: by itself, or held
/// by one list or map.
pub(super) fn field(plan: &Plan<'_>, field: &PlannedField<'_>, needs: &mut Needs) -> Spelled {
    let PlannedField { ident: _, wire: _, presence, slot, docs: _ } = field;
    let may_be_null = slot.nullable || *presence == Presence::Sometimes;
    match &slot.ty {
        Type::Scalar(scalar) if dated(*scalar).is_some() => of_dated(*scalar, "", str::to_owned, needs),
        Type::List(items) if dated_slot(items).is_some() => {
            needs.imports.insert("java.util.List");
            of_dated(dated_slot(items).expect("asked"), ".Content", |name| format!("List<{name}>"), needs)
        }
        Type::Map(values) if dated_slot(values).is_some() => {
            needs.imports.insert("java.util.Map");
            of_dated(
                dated_slot(values).expect("asked"),
                ".Content",
                |name| format!("Map<String, {name}>"),
                needs,
            )
        }
        Type::Any
        | Type::Scalar(_)
        | Type::Constant(_)
        | Type::List(_)
        | Type::Map(_)
        | Type::Tuple(_)
        | Type::Named(_) => {
            let ty = if may_be_null { boxed(plan, slot, needs) } else { plain(plan, slot, needs) };
            Spelled { annotation: None, ty }
        }
    }
}

fn dated_slot(slot: &Slot) -> Option<Scalar> {
    match &slot.ty {
        Type::Scalar(scalar) => dated(*scalar).map(|_| *scalar),
        Type::Any | Type::Constant(_) | Type::List(_) | Type::Map(_) | Type::Tuple(_) | Type::Named(_) => {
            None
        }
    }
}

fn of_dated(scalar: Scalar, inside: &str, wrap: impl Fn(&str) -> String, needs: &mut Needs) -> Spelled {
    let Dated { name, import, annotation } = dated(scalar).expect("asked before");
    needs.imports.insert(import);
    needs.helpers.insert(*annotation);
    Spelled { annotation: Some(format!("@{}{inside}", annotation.name)), ty: wrap(name) }
}

fn dated(scalar: Scalar) -> Option<&'static Dated> {
    match scalar {
        Scalar::DateTime => Some(&DATE_TIME),
        Scalar::LocalDateTime => Some(&LOCAL_DATE_TIME),
        Scalar::Date => Some(&DATE),
        Scalar::Time => Some(&TIME),
        Scalar::Boolean | Scalar::Integer(_) | Scalar::Float | Scalar::Text | Scalar::Uuid | Scalar::Uri => {
            None
        }
    }
}

/// A type that may be a primitive one: `long`
pub(super) fn plain(plan: &Plan<'_>, slot: &Slot, needs: &mut Needs) -> String {
    match &slot.ty {
        Type::Scalar(scalar) if !slot.nullable => match scalar {
            Scalar::Boolean => "boolean".to_owned(),
            Scalar::Integer(Width::Narrow) => "int".to_owned(),
            Scalar::Integer(Width::Wide) => "long".to_owned(),
            Scalar::Float => "double".to_owned(),
            Scalar::Integer(Width::Big)
            | Scalar::Text
            | Scalar::DateTime
            | Scalar::LocalDateTime
            | Scalar::Date
            | Scalar::Time
            | Scalar::Uuid
            | Scalar::Uri => boxed(plan, slot, needs),
        },
        Type::Any
        | Type::Scalar(_)
        | Type::Constant(_)
        | Type::List(_)
        | Type::Map(_)
        | Type::Tuple(_)
        | Type::Named(_) => boxed(plan, slot, needs),
    }
}

/// A type of objects: `Long`
pub(super) fn boxed(plan: &Plan<'_>, slot: &Slot, needs: &mut Needs) -> String {
    match &slot.ty {
        Type::Any => any(needs).to_owned(),
        Type::Scalar(scalar) => self::scalar(*scalar, needs).to_owned(),
        Type::Constant(_) => "String".to_owned(),
        Type::List(items) => {
            needs.imports.insert("java.util.List");
            format!("List<{}>", boxed(plan, items, needs))
        }
        Type::Map(values) => {
            needs.imports.insert("java.util.Map");
            format!("Map<String, {}>", boxed(plan, values, needs))
        }
        // Java has no type for a list of unlike items.
        Type::Tuple(_) => {
            needs.imports.insert("java.util.List");
            format!("List<{}>", any(needs))
        }
        Type::Named(id) => plan.ident(*id).to_string(),
    }
}

fn any(needs: &mut Needs) -> &'static str {
    needs.imports.insert("com.fasterxml.jackson.databind.JsonNode");
    "JsonNode"
}

fn scalar(scalar: Scalar, needs: &mut Needs) -> &'static str {
    match scalar {
        Scalar::Boolean => "Boolean",
        Scalar::Integer(Width::Narrow) => "Integer",
        Scalar::Integer(Width::Wide) => "Long",
        Scalar::Integer(Width::Big) => {
            needs.imports.insert("java.math.BigInteger");
            "BigInteger"
        }
        Scalar::Float => "Double",
        // Dates that no annotation reaches stay what they are on the wire.
        Scalar::DateTime
        | Scalar::LocalDateTime
        | Scalar::Date
        | Scalar::Time
        | Scalar::Text
        | Scalar::Uuid
        | Scalar::Uri => "String",
    }
}
