//! Model types as Kotlin types, with the imports and serializers they need.

use jar_sprout_layout::{Doc, cat, text};
use jar_sprout_model::{Scalar, Slot, Type, Width};

use super::settings::{Form, Library};
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
            serializer: Helper {
                name: $serializer,
                text: include_str!(concat!("kotlinx/", $serializer, ".kt")),
            },
        }
    };
}

const BIG_INTEGER: Foreign = foreign!("java.math.BigInteger", "BigInteger", "BigIntegerSerializer");
const DATE_TIME: Foreign = foreign!("java.time.OffsetDateTime", "OffsetDateTime", "OffsetDateTimeSerializer");
const LOCAL_DATE_TIME: Foreign =
    foreign!("java.time.LocalDateTime", "LocalDateTime", "LocalDateTimeSerializer");
const DATE: Foreign = foreign!("java.time.LocalDate", "LocalDate", "LocalDateSerializer");
const TIME: Foreign = foreign!("java.time.LocalTime", "LocalTime", "LocalTimeSerializer");

pub(super) const MOSHI_DATES: Helper = Helper { name: "Dates", text: include_str!("moshi/Dates.kt") };
pub(super) const GSON_DATES: Helper = Helper { name: "Dates", text: include_str!("gson/Dates.kt") };
pub(super) const JACKSON_DATES: Helper = Helper { name: "Dates", text: include_str!("jackson/Dates.kt") };

/// The type of a place for a value: `Queen?`
pub(super) fn slot(plan: &Plan<'_>, slot: &Slot, form: Form, needs: &mut Needs) -> Doc {
    let ty = non_null(plan, slot, form, needs);
    if slot.nullable { cat([ty, text("?")]) } else { ty }
}

/// The type of a value that is not null: `Queen`
pub(super) fn non_null(plan: &Plan<'_>, slot: &Slot, form: Form, needs: &mut Needs) -> Doc {
    match &slot.ty {
        Type::Any => any(form, needs),
        Type::Scalar(scalar) => text(self::scalar(*scalar, form, needs)),
        Type::Constant(_) => text("String"),
        Type::List(items) => cat([text("List<"), self::slot(plan, items, form, needs), text(">")]),
        Type::Map(values) => cat([text("Map<String, "), self::slot(plan, values, form, needs), text(">")]),
        // Kotlin has no type for a list of unlike items.
        Type::Tuple(items) => {
            let may_be_null = items.iter().any(|item| item.nullable || item.ty == Type::Any);
            let has_null = matches!(form.library, Library::Kotlinx | Library::Gson | Library::Jackson);
            let mark = if may_be_null && !has_null { "?>" } else { ">" };
            cat([text("List<"), any(form, needs), text(mark)])
        }
        Type::Named(id) => text(plan.ident(*id).to_string()),
    }
}

fn any(form: Form, needs: &mut Needs) -> Doc {
    let (import, name) = match form.library {
        Library::Kotlinx => ("kotlinx.serialization.json.JsonElement", "JsonElement"),
        Library::Gson => ("com.google.gson.JsonElement", "JsonElement"),
        Library::Jackson => ("com.fasterxml.jackson.databind.JsonNode", "JsonNode"),
        Library::Moshi | Library::None => return text("Any"),
    };
    needs.imports.insert(import);
    text(name)
}

fn scalar(scalar: Scalar, form: Form, needs: &mut Needs) -> &'static str {
    match scalar {
        Scalar::Boolean => "Boolean",
        Scalar::Integer(Width::Narrow) => "Int",
        Scalar::Integer(Width::Wide) => "Long",
        Scalar::Integer(Width::Big) => foreign(&BIG_INTEGER, form, needs),
        Scalar::Float => "Double",
        Scalar::Text | Scalar::Uuid | Scalar::Uri => "String",
        Scalar::DateTime => foreign(&DATE_TIME, form, needs),
        Scalar::LocalDateTime => foreign(&LOCAL_DATE_TIME, form, needs),
        Scalar::Date => foreign(&DATE, form, needs),
        Scalar::Time => foreign(&TIME, form, needs),
    }
}

fn foreign(foreign: &Foreign, form: Form, needs: &mut Needs) -> &'static str {
    let Foreign { name, import, serializer } = foreign;
    needs.imports.insert(import);
    match form.library {
        Library::Kotlinx => {
            needs.imports.insert("kotlinx.serialization.UseSerializers");
            needs.file_annotations.insert(serializer.name);
            needs.helpers.insert(*serializer);
        }
        Library::Moshi => drop(needs.helpers.insert(MOSHI_DATES)),
        // Big integers are numbers to them as they are.
        Library::Gson if *name != BIG_INTEGER.name => drop(needs.helpers.insert(GSON_DATES)),
        Library::Jackson if *name != BIG_INTEGER.name => drop(needs.helpers.insert(JACKSON_DATES)),
        Library::Gson | Library::Jackson | Library::None => {}
    }
    name
}
