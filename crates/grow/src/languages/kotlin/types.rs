//! Model types as Kotlin types, with the imports and serializers they need.

use jar_sprout_layout::{Doc, cat, text};
use jar_sprout_model::{Scalar, Slot, Type, Width};

use crate::code::{Helper, Needs};
use crate::plan::Plan;

/// A type of the platform that the library needs a serializer for.
struct Foreign {
    name: &'static str,
    import: &'static str,
    serializer: Helper,
}

macro_rules! foreign {
    ($import:literal, $name:literal, $serializer:literal) => {
        Foreign {
            name: $name,
            import: $import,
            serializer: Helper { name: $serializer, text: include_str!(concat!($serializer, ".kt")) },
        }
    };
}

const BIG_INTEGER: Foreign = foreign!("java.math.BigInteger", "BigInteger", "BigIntegerSerializer");
const DATE_TIME: Foreign = foreign!("java.time.OffsetDateTime", "OffsetDateTime", "OffsetDateTimeSerializer");
const LOCAL_DATE_TIME: Foreign =
    foreign!("java.time.LocalDateTime", "LocalDateTime", "LocalDateTimeSerializer");
const DATE: Foreign = foreign!("java.time.LocalDate", "LocalDate", "LocalDateSerializer");
const TIME: Foreign = foreign!("java.time.LocalTime", "LocalTime", "LocalTimeSerializer");

/// The type of a place for a value: `Queen?`
pub(super) fn slot(plan: &Plan<'_>, slot: &Slot, needs: &mut Needs) -> Doc {
    let ty = non_null(plan, slot, needs);
    if slot.nullable { cat([ty, text("?")]) } else { ty }
}

/// The type of a value that is not null: `Queen`
pub(super) fn non_null(plan: &Plan<'_>, slot: &Slot, needs: &mut Needs) -> Doc {
    match &slot.ty {
        Type::Any => any(needs),
        Type::Scalar(scalar) => text(self::scalar(*scalar, needs)),
        Type::Constant(_) => text("String"),
        Type::List(items) => cat([text("List<"), self::slot(plan, items, needs), text(">")]),
        Type::Map(values) => cat([text("Map<String, "), self::slot(plan, values, needs), text(">")]),
        // Kotlin has no type for a list of unlike items.
        Type::Tuple(_) => cat([text("List<"), any(needs), text(">")]),
        Type::Named(id) => text(plan.ident(*id).to_string()),
    }
}

fn any(needs: &mut Needs) -> Doc {
    needs.imports.insert("kotlinx.serialization.json.JsonElement");
    text("JsonElement")
}

fn scalar(scalar: Scalar, needs: &mut Needs) -> &'static str {
    match scalar {
        Scalar::Boolean => "Boolean",
        Scalar::Integer(Width::Narrow) => "Int",
        Scalar::Integer(Width::Wide) => "Long",
        Scalar::Integer(Width::Big) => foreign(&BIG_INTEGER, needs),
        Scalar::Float => "Double",
        Scalar::Text | Scalar::Uuid | Scalar::Uri => "String",
        Scalar::DateTime => foreign(&DATE_TIME, needs),
        Scalar::LocalDateTime => foreign(&LOCAL_DATE_TIME, needs),
        Scalar::Date => foreign(&DATE, needs),
        Scalar::Time => foreign(&TIME, needs),
    }
}

fn foreign(foreign: &Foreign, needs: &mut Needs) -> &'static str {
    let Foreign { name, import, serializer } = foreign;
    needs.imports.extend([import, "kotlinx.serialization.UseSerializers"]);
    needs.file_annotations.insert(serializer.name);
    needs.helpers.insert(*serializer);
    name
}
