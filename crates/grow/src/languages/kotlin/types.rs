//! Model types as Kotlin types, with the imports and serializers they need.

use std::sync::LazyLock;

use jar_sprout_layout::{Doc, cat, text};
use jar_sprout_model::{Coding, Scalar, ScalarKind, Slot, TimeForm, Type, Width};

use super::foreign::Foreign;
use super::settings::{KotlinOptions, Library};
use super::{Sheet, datetime};
use crate::languages::jvm::java_time::JavaSyntax;
use crate::plan::PlannedField;
use crate::prepare::suffix;
use crate::spell::TimeHelpers;
use crate::spell::swap;
use crate::spell::{EpochHelpers, Helper};

macro_rules! foreign {
    ($import:literal, $name:literal, $serializer:literal) => {
        Foreign {
            name: $name,
            import: $import,
            serializer: Helper {
                name: $serializer,
                text: include_str!(concat!("kotlinx/", $serializer, ".kt")),
            },
            special: LazyLock::new(|| {
                TimeHelpers::new(|form| {
                    let name = swap($serializer, "Serializer", &format!("{}Serializer", suffix(form)));
                    let text = include_str!(concat!("kotlinx/", $serializer, ".kt"));
                    let class = concat!("KSerializer<", $name, "> {\n");
                    (name.clone(), SYNTAX.in_form(&swap(text, $serializer, &name), $name, class, 4, form))
                })
            }),
        }
    };
}

static BIG_INTEGER: Foreign = foreign!("java.math.BigInteger", "BigInteger", "BigIntegerSerializer");
static BIG_DECIMAL: Foreign = foreign!("java.math.BigDecimal", "BigDecimal", "BigDecimalSerializer");
static DATE_TIME: Foreign =
    foreign!("java.time.OffsetDateTime", "OffsetDateTime", "OffsetDateTimeSerializer");
static LOCAL_DATE_TIME: Foreign =
    foreign!("java.time.LocalDateTime", "LocalDateTime", "LocalDateTimeSerializer");
static DATE: Foreign = foreign!("java.time.LocalDate", "LocalDate", "LocalDateSerializer");
static UUID: Foreign = foreign!("java.util.UUID", "UUID", "UUIDSerializer");
static URI: Foreign = foreign!("java.net.URI", "URI", "URISerializer");
static TIME: Foreign = foreign!("java.time.LocalTime", "LocalTime", "LocalTimeSerializer");

/// How a serializer writes times in another way.
const SYNTAX: JavaSyntax = JavaSyntax {
    new: "",
    constant: "private val",
    whole: "whole",
    format: "format",
    either: "(if (value.nano == 0) whole else format)",
    end: "",
};

pub(super) const MAYBE: Helper = Helper { name: "Maybe", text: include_str!("kotlinx/Maybe.kt") };
pub(super) const MOSHI_DATES: Helper = Helper { name: "Dates", text: include_str!("moshi/Dates.kt") };
pub(super) const GSON_DATES: Helper = Helper { name: "Dates", text: include_str!("gson/Dates.kt") };
pub(super) const JACKSON_DATES: Helper = Helper { name: "Dates", text: include_str!("jackson/Dates.kt") };

const JSON_TEXT: Helper = Helper { name: "JsonText", text: include_str!("kotlinx/JsonText.kt") };
const JSON_ADAPTER: Helper =
    Helper { name: "JsonInTextAdapter", text: include_str!("gson/JsonInTextAdapter.kt") };
const JSON_IN_TEXT: Helper = Helper { name: "JsonInText", text: include_str!("jackson/JsonInText.kt") };

/// What reads and writes what the wire writes as something else.
pub(super) struct Coded {
    ty: &'static str,
    pub(super) serializer: Helper,
    pub(super) adapter: Helper,
    /// What says it to Jackson: an annotation of its own, or one that comes along.
    annotation: Option<Helper>,
}

macro_rules! in_letters {
    ($ty:literal) => {
        Coded {
            ty: $ty,
            serializer: Helper {
                name: concat!($ty, "InLettersSerializer"),
                text: include_str!(concat!("kotlinx/", $ty, "InLettersSerializer.kt")),
            },
            adapter: Helper {
                name: concat!($ty, "InLettersAdapter"),
                text: include_str!(concat!("gson/", $ty, "InLettersAdapter.kt")),
            },
            annotation: None,
        }
    };
}

static EPOCH_SERIALIZERS: EpochHelpers = EpochHelpers::new(
    Helper { name: "EpochSecondsSerializer", text: include_str!("kotlinx/EpochSecondsSerializer.kt") },
    &[
        ("EpochSeconds", "EpochMilliseconds"),
        ("as the seconds", "as the milliseconds"),
        // The shorter one fits its line.
        ("Instant =\n        Instant.ofEpochSecond", "Instant = Instant.ofEpochMilli"),
        ("value.epochSecond", "value.toEpochMilli()"),
    ],
);
static EPOCH_ADAPTERS: EpochHelpers = EpochHelpers::new(
    Helper { name: "EpochSecondsAdapter", text: include_str!("gson/EpochSecondsAdapter.kt") },
    EPOCH_SWAPS,
);
static EPOCH_ANNOTATIONS: EpochHelpers = EpochHelpers::new(
    Helper { name: "JsonEpochSeconds", text: include_str!("jackson/JsonEpochSeconds.kt") },
    EPOCH_SWAPS,
);

const EPOCH_SWAPS: &[(&str, &str)] = &[
    ("EpochSeconds", "EpochMilliseconds"),
    ("as the seconds", "as the milliseconds"),
    ("ofEpochSecond", "ofEpochMilli"),
    ("value.epochSecond", "value.toEpochMilli()"),
];

pub(super) fn coded(coding: Coding) -> Coded {
    match coding {
        Coding::IntegerText => in_letters!("Long"),
        Coding::FloatText => in_letters!("Double"),
        Coding::DecimalText => in_letters!("BigDecimal"),
        Coding::BooleanText => in_letters!("Boolean"),
        Coding::EpochSeconds | Coding::EpochMilliseconds => Coded {
            ty: "Instant",
            serializer: EPOCH_SERIALIZERS.get(coding),
            adapter: EPOCH_ADAPTERS.get(coding),
            annotation: Some(EPOCH_ANNOTATIONS.get(coding)),
        },
    }
}

/// What reads and writes for kotlinx.serialization what the wire writes as something else.
pub(super) fn serializer_of(options: &KotlinOptions, coding: Coding) -> Helper {
    let is_epoch = matches!(coding, Coding::EpochSeconds | Coding::EpochMilliseconds);
    if is_epoch && options.has_datetime { datetime::of_epoch(coding) } else { coded(coding).serializer }
}

/// The annotation and the type of what the wire writes as something else.
pub(super) fn of_coded(sheet: &mut Sheet<'_>, coding: Coding) -> Option<(String, &'static str)> {
    let Coded { ty: _, serializer: _, adapter, annotation } = coded(coding);
    let annotation = match (sheet.options.library, annotation) {
        (Library::Kotlinx, _) => {
            let serializer = serializer_of(sheet.options, coding);
            sheet.needs.helpers.insert(serializer);
            format!("@Serializable({}::class)", serializer.name)
        }
        (Library::Gson, _) => {
            sheet.needs.helpers.insert(adapter);
            sheet.needs.imports.insert("com.google.gson.annotations.JsonAdapter");
            format!("@JsonAdapter({}::class)", adapter.name)
        }
        (Library::Jackson, Some(annotation)) => {
            sheet.needs.helpers.insert(annotation);
            format!("@{}", annotation.name)
        }
        (Library::Jackson, None) => {
            sheet.needs.imports.insert("com.fasterxml.jackson.annotation.JsonFormat");
            "@JsonFormat(shape = JsonFormat.Shape.STRING)".to_owned()
        }
        (Library::Moshi | Library::None, _) => return None,
    };
    Some((annotation, decoded(sheet, coding)))
}

/// The type of what the wire writes as something else.
fn decoded(sheet: &mut Sheet<'_>, coding: Coding) -> &'static str {
    let ty = coded(coding).ty;
    sheet.needs.imports.extend(match ty {
        "BigDecimal" => Some(BIG_DECIMAL.import),
        "Instant" if sheet.options.has_datetime => Some("kotlin.time.Instant"),
        "Instant" => Some("java.time.Instant"),
        _ => None,
    });
    ty
}

/// The type of a place for a value: `Queen?`
pub(super) fn slot(sheet: &mut Sheet<'_>, slot: &Slot) -> Doc {
    let ty = non_null(sheet, slot);
    if slot.nullable { cat([ty, text("?")]) } else { ty }
}

/// The type of a value that is not null: `Queen`
pub(super) fn non_null(sheet: &mut Sheet<'_>, slot: &Slot) -> Doc {
    match &slot.ty {
        Type::Any => any(sheet),
        Type::Scalar(scalar) => text(self::scalar(sheet, *scalar)),
        Type::Constant(_) => text("String"),
        Type::List(items) => cat([text("List<"), self::slot(sheet, items), text(">")]),
        Type::Map(values) => cat([text("Map<String, "), self::slot(sheet, values), text(">")]),
        // Kotlin has no type for a list of unlike items.
        Type::Tuple(items) => {
            let may_be_null = items.iter().any(|item| item.nullable || item.ty == Type::Any);
            let has_null =
                matches!(sheet.options.library, Library::Kotlinx | Library::Gson | Library::Jackson);
            let mark = if may_be_null && !has_null { "?>" } else { ">" };
            cat([text("List<"), any(sheet), text(mark)])
        }
        Type::Named(id) => text(sheet.plan.ident(*id).as_str().to_owned()),
    }
}

/// A field's own type that is not null, where that is not the same everywhere, with the annotations that it takes.
pub(super) fn annotated(sheet: &mut Sheet<'_>, field: &PlannedField<'_>) -> Option<(Vec<String>, Doc)> {
    if field.is_json_in_text() {
        return json_in_text(sheet, field.slot);
    }
    let (annotation, ty) = match field.coding() {
        Some(coding) => of_coded(sheet, coding)?,
        None => in_another_way(sheet, field)?,
    };
    Some((vec![annotation], text(ty)))
}

/// The type of a value with an annotation that says how the wire has it.
pub(super) fn value(sheet: &mut Sheet<'_>, slot: &Slot) -> Doc {
    match slot.ty {
        Type::Scalar(Scalar::Coded(coding)) => text(decoded(sheet, coding)),
        Type::Scalar(scalar) if sheet.options.library == Library::Kotlinx => {
            match foreign_of(sheet.options, scalar) {
                Some(foreign) => {
                    sheet.needs.imports.insert(foreign.import);
                    text(foreign.name)
                }
                None => non_null(sheet, slot),
            }
        }
        Type::Scalar(_)
        | Type::Any
        | Type::Constant(_)
        | Type::List(_)
        | Type::Map(_)
        | Type::Tuple(_)
        | Type::Named(_) => non_null(sheet, slot),
    }
}

/// A value that stands as JSON in a text.
fn json_in_text(sheet: &mut Sheet<'_>, slot: &Slot) -> Option<(Vec<String>, Doc)> {
    let inside = non_null(sheet, slot);
    let (annotation, helper) = match sheet.options.library {
        Library::Kotlinx => {
            sheet.needs.helpers.insert(JSON_TEXT);
            return Some((Vec::new(), cat([text("JsonText<"), inside, text(">")])));
        }
        Library::Gson => {
            sheet.needs.imports.insert("com.google.gson.annotations.JsonAdapter");
            (format!("@JsonAdapter({}::class)", JSON_ADAPTER.name), JSON_ADAPTER)
        }
        Library::Jackson => (format!("@{}", JSON_IN_TEXT.name), JSON_IN_TEXT),
        Library::Moshi | Library::None => return None,
    };
    sheet.needs.helpers.insert(helper);
    Some((vec![annotation], inside))
}

/// A field's own time that is written in another way than most, with the annotation that says so.
fn in_another_way(sheet: &mut Sheet<'_>, field: &PlannedField<'_>) -> Option<(String, &'static str)> {
    let Type::Scalar(scalar) = field.slot.ty else { return None };
    scalar.time_forms()?;
    let special = sheet.plan.times.special_form(scalar);
    if sheet.plan.times.is_main(special) || sheet.options.library != Library::Kotlinx {
        return None;
    }
    let foreign = foreign_of(sheet.options, scalar)?;
    let serializer = foreign.serializer_of(special);
    sheet.needs.imports.insert(foreign.import);
    sheet.needs.helpers.insert(serializer);
    Some((format!("@Serializable({}::class)", serializer.name), foreign.name))
}

fn any(sheet: &mut Sheet<'_>) -> Doc {
    let (import, name) = match sheet.options.library {
        Library::Kotlinx => ("kotlinx.serialization.json.JsonElement", "JsonElement"),
        Library::Gson => ("com.google.gson.JsonElement", "JsonElement"),
        Library::Jackson => ("com.fasterxml.jackson.databind.JsonNode", "JsonNode"),
        Library::Moshi | Library::None if sheet.options.is_parcelable => {
            ("kotlinx.parcelize.RawValue", "@RawValue Any")
        }
        Library::Moshi | Library::None => return text("Any"),
    };
    sheet.needs.imports.insert(import);
    text(name)
}

/// The type of any object, where the library has none for it.
pub(super) fn any_object(sheet: &mut Sheet<'_>) -> Doc {
    cat([text("Map<String, "), any(sheet), text("?>")])
}

fn scalar(sheet: &mut Sheet<'_>, scalar: Scalar) -> &'static str {
    let special = sheet.plan.times.special_form(scalar);
    // What the file does not speak of stays what it is on the wire where no annotation is.
    if scalar.time_forms().is_some()
        && sheet.options.library == Library::Kotlinx
        && !sheet.plan.times.is_main(special)
    {
        return "String";
    }
    match scalar {
        Scalar::Boolean | Scalar::Always(_) => "Boolean",
        Scalar::Integer(Width::Narrow) => "Int",
        Scalar::Integer(Width::Wide | Width::Exact) => "Long",
        Scalar::Float => "Double",
        Scalar::Uuid | Scalar::Uri => match identifier(sheet.options, scalar) {
            Some(identifier) => foreign(sheet, identifier, None),
            None => "String",
        },
        Scalar::Text => "String",
        // Nothing reads a plain class, and no annotation reaches into a list.
        Scalar::Coded(coding) if sheet.options.library == Library::None => decoded(sheet, coding),
        Scalar::Coded(coding) if coding.kind() == ScalarKind::Integer => "Long",
        Scalar::Coded(_) => "String",
        Scalar::Integer(Width::Big)
        | Scalar::Decimal
        | Scalar::DateTime(_)
        | Scalar::LocalDateTime(_)
        | Scalar::Date
        | Scalar::Time(_) => {
            let foreign = foreign_of(sheet.options, scalar).expect("these are the platform's");
            self::foreign(sheet, foreign, special)
        }
    }
}

/// The platform's type for what names a thing anywhere, where that is asked for.
pub(super) fn identifier(options: &KotlinOptions, scalar: Scalar) -> Option<&'static Foreign> {
    if scalar == Scalar::Uuid && options.has_uuids {
        Some(&UUID)
    } else if scalar == Scalar::Uri && options.has_uris {
        Some(&URI)
    } else {
        None
    }
}

/// Whether the library must be told how a scalar is read and written.
pub(super) fn is_foreign(options: &KotlinOptions, scalar: Scalar) -> bool {
    foreign_of(options, scalar).is_some()
}

/// The platform's type for a scalar that the language has none for.
pub(super) fn foreign_of(options: &KotlinOptions, scalar: Scalar) -> Option<&'static Foreign> {
    if let Some(foreign) = datetime::foreign(scalar).filter(|_| options.has_datetime) {
        return Some(foreign);
    }
    match scalar {
        Scalar::Integer(Width::Big) => Some(&BIG_INTEGER),
        Scalar::Decimal => Some(&BIG_DECIMAL),
        Scalar::DateTime(_) => Some(&DATE_TIME),
        Scalar::LocalDateTime(_) => Some(&LOCAL_DATE_TIME),
        Scalar::Date => Some(&DATE),
        Scalar::Time(_) => Some(&TIME),
        Scalar::Boolean
        | Scalar::Always(_)
        | Scalar::Integer(Width::Narrow | Width::Wide | Width::Exact)
        | Scalar::Float
        | Scalar::Text
        | Scalar::Uuid
        | Scalar::Uri
        | Scalar::Coded(_) => None,
    }
}

/// A type of the platform. The file says once how most of its kind are read and written.
fn foreign(sheet: &mut Sheet<'_>, foreign: &'static Foreign, special: Option<TimeForm>) -> &'static str {
    let Foreign { name, import, serializer: _, special: _ } = foreign;
    sheet.needs.imports.insert(import);
    match sheet.options.library {
        Library::Kotlinx => {
            let serializer = foreign.serializer_of(special);
            sheet.needs.helpers.insert(serializer);
            sheet.needs.imports.insert("kotlinx.serialization.UseSerializers");
            sheet.needs.file_annotations.insert(serializer.name);
        }
        Library::Moshi => drop(sheet.needs.helpers.insert(MOSHI_DATES)),
        // What is no time they know as it is.
        Library::Gson if !is_known(name) => drop(sheet.needs.helpers.insert(GSON_DATES)),
        Library::Jackson if !is_known(name) => drop(sheet.needs.helpers.insert(JACKSON_DATES)),
        Library::Gson | Library::Jackson | Library::None => {}
    }
    name
}

fn is_known(name: &str) -> bool {
    [BIG_INTEGER.name, BIG_DECIMAL.name, UUID.name, URI.name].contains(&name)
}
