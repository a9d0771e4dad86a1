//! Model types as Java types, with the imports and helpers they need.

use std::sync::LazyLock;

use jar_sprout_model::{Coding, Scalar, ScalarKind, Slot, Type, Width};

use super::Sheet;
use super::settings::Library;
use crate::languages::jvm::java_time::JavaSyntax;
use crate::plan::{Fate, PlannedField};
use crate::prepare::suffix;
use crate::spell::Helper;
use crate::spell::swap;
use crate::spell::{EpochHelpers, TimeHelpers};

/// A type of the platform that the library is told how to read and write.
struct Dated {
    name: &'static str,
    import: &'static str,
    /// The annotation that tells Jackson.
    annotation: Helpers,
    /// What tells Gson.
    adapter: Helpers,
}

/// A helper, and the same for other ways to write a time.
struct Helpers {
    usual: Helper,
    special: LazyLock<TimeHelpers>,
}

macro_rules! helpers {
    ($ty:literal, $file:expr, $base:literal, $end:literal, $parent:literal, $indent:literal) => {
        Helpers {
            usual: Helper { name: concat!($base, $end), text: include_str!($file) },
            special: LazyLock::new(|| {
                TimeHelpers::new(|form| {
                    let name = format!("{}{}{}", $base, suffix(form), $end);
                    let text = swap(include_str!($file), concat!($base, $end), &name);
                    let class = concat!("extends ", $parent, "<", $ty, "> {\n");
                    (name, SYNTAX.in_form(&text, $ty, class, $indent, form))
                })
            }),
        }
    };
}

macro_rules! dated {
    ($name:literal, $annotation:literal) => {
        Dated {
            name: $name,
            import: concat!("java.time.", $name),
            annotation: helpers!($name, concat!($annotation, ".java"), $annotation, "", "JsonSerializer", 4),
            adapter: helpers!(
                $name,
                concat!("gson/", $name, "Adapter.java"),
                $name,
                "Adapter",
                "TypeAdapter",
                2
            ),
        }
    };
}

const MAYBE: Helper = Helper { name: "Maybe", text: include_str!("Maybe.java") };

const JSON_IN_TEXT: Helper = Helper { name: "JsonInText", text: include_str!("JsonInText.java") };
const JSON_ADAPTER: Helper =
    Helper { name: "JsonInTextAdapter", text: include_str!("gson/JsonInTextAdapter.java") };

static DATE_TIME: Dated = dated!("OffsetDateTime", "JsonOffsetDateTime");
static LOCAL_DATE_TIME: Dated = dated!("LocalDateTime", "JsonLocalDateTime");
static DATE: Dated = dated!("LocalDate", "JsonLocalDate");
static TIME: Dated = dated!("LocalTime", "JsonLocalTime");

/// How an annotation or an adapter writes times in another way.
const SYNTAX: JavaSyntax = JavaSyntax {
    new: "new ",
    constant: "private static final DateTimeFormatter",
    whole: "WHOLE",
    format: "FORMAT",
    either: "(value.getNano() == 0 ? WHOLE : FORMAT)",
    end: ";",
};

/// A type as it stands in code, with the annotations that its place needs.
pub(super) struct Spelled {
    pub(super) annotations: Vec<String>,
    pub(super) ty: String,
}

/// The type of a record's field. A date is typed where an annotation can say how it is read: by itself, or held
/// by one list or map.
pub(super) fn field(sheet: &mut Sheet<'_>, field: &PlannedField<'_>) -> Spelled {
    let PlannedField { ident: _, wire: _, slot, encoding: _, docs: _, fate } = field;
    let may_be_null = match fate {
        Fate::Apart => {
            sheet.needs.helpers.insert(MAYBE);
            let ty = format!("Maybe<{}>", boxed(sheet, slot));
            return Spelled { annotations: Vec::new(), ty };
        }
        // A record tells by null that nothing was there; a class has its value from the start.
        Fate::Defaulted(_) => !sheet.options.has_beans,
        Fate::Tag(_) | Fate::Required => false,
        Fate::Nullable | Fate::Optional | Fate::Either => true,
    };
    if let Some(coding) = field.coding() {
        return coded(sheet, coding, may_be_null);
    }
    if field.is_json_in_text() {
        return json_in_text(sheet, slot);
    }
    // Gson's annotation speaks of the field as a whole.
    let has_content = sheet.options.library == Library::Jackson && !sheet.options.has_date_module;
    match &slot.ty {
        Type::Scalar(scalar) if dated(*scalar).is_some() && !sheet.options.has_date_module => {
            of_dated(sheet, *scalar, Held::Itself, str::to_owned)
        }
        Type::List(items) if has_content && dated_slot(items).is_some() => {
            sheet.needs.imports.insert("java.util.List");
            let item = dated_slot(items).expect("asked");
            of_dated(sheet, item, Held::Inside, |name| format!("List<{name}>"))
        }
        Type::Map(values) if has_content && dated_slot(values).is_some() => {
            sheet.needs.imports.insert("java.util.Map");
            let value = dated_slot(values).expect("asked");
            of_dated(sheet, value, Held::Inside, |name| format!("Map<String, {name}>"))
        }
        Type::Any
        | Type::Scalar(_)
        | Type::Constant(_)
        | Type::List(_)
        | Type::Map(_)
        | Type::Tuple(_)
        | Type::Named(_) => {
            let ty = if may_be_null { boxed(sheet, slot) } else { plain(sheet, slot) };
            Spelled { annotations: Vec::new(), ty }
        }
    }
}

/// A value that stands as JSON in a text.
fn json_in_text(sheet: &mut Sheet<'_>, slot: &Slot) -> Spelled {
    let (annotation, helper) = match sheet.options.library {
        Library::Jackson => (format!("@{}", JSON_IN_TEXT.name), JSON_IN_TEXT),
        Library::Gson => {
            sheet.needs.imports.insert("com.google.gson.annotations.JsonAdapter");
            (format!("@JsonAdapter({}.class)", JSON_ADAPTER.name), JSON_ADAPTER)
        }
    };
    sheet.needs.helpers.insert(helper);
    Spelled { annotations: vec![annotation], ty: boxed(sheet, slot) }
}

static EPOCH_ADAPTERS: EpochHelpers = EpochHelpers::new(
    Helper { name: "EpochSecondsAdapter", text: include_str!("gson/EpochSecondsAdapter.java") },
    EPOCH_SWAPS,
);
static EPOCH_ANNOTATIONS: EpochHelpers = EpochHelpers::new(
    Helper { name: "JsonEpochSeconds", text: include_str!("JsonEpochSeconds.java") },
    EPOCH_SWAPS,
);

const EPOCH_SWAPS: &[(&str, &str)] = &[
    ("EpochSeconds", "EpochMilliseconds"),
    ("as the seconds", "as the milliseconds"),
    ("ofEpochSecond", "ofEpochMilli"),
    ("getEpochSecond", "toEpochMilli"),
];

/// What the wire writes as something else, and what tells it to the library.
pub(super) struct Coded {
    pub(super) boxed: &'static str,
    primitive: &'static str,
    pub(super) adapter: Helper,
    /// For Jackson, where it has none of its own.
    annotation: Option<Helper>,
}

pub(super) fn in_code(coding: Coding) -> Coded {
    macro_rules! helper {
        ($folder:literal, $name:literal) => {
            Helper { name: $name, text: include_str!(concat!($folder, $name, ".java")) }
        };
    }
    let (boxed, primitive, adapter, annotation) = match coding {
        Coding::IntegerText => ("Long", "long", helper!("gson/", "LongInLettersAdapter"), None),
        Coding::FloatText => ("Double", "double", helper!("gson/", "DoubleInLettersAdapter"), None),
        Coding::DecimalText => {
            ("BigDecimal", "BigDecimal", helper!("gson/", "BigDecimalInLettersAdapter"), None)
        }
        Coding::BooleanText => ("Boolean", "boolean", helper!("gson/", "BooleanInLettersAdapter"), None),
        Coding::EpochSeconds | Coding::EpochMilliseconds => {
            ("Instant", "Instant", EPOCH_ADAPTERS.get(coding), Some(EPOCH_ANNOTATIONS.get(coding)))
        }
    };
    Coded { boxed, primitive, adapter, annotation }
}

/// What the wire writes as something else, which the library must be told.
fn coded(sheet: &mut Sheet<'_>, coding: Coding, may_be_null: bool) -> Spelled {
    let annotations = vec![coded_annotation(sheet, coding)];
    let ty = coded_type(sheet, coding);
    let is_boxed = may_be_null || sheet.options.library == Library::Gson;
    let ty = if is_boxed { ty } else { in_code(coding).primitive };
    Spelled { annotations, ty: ty.to_owned() }
}

/// The type of objects of what the wire writes as something else.
pub(super) fn coded_type(sheet: &mut Sheet<'_>, coding: Coding) -> &'static str {
    let Coded { boxed, .. } = in_code(coding);
    sheet.needs.imports.extend(match boxed {
        "BigDecimal" => Some("java.math.BigDecimal"),
        "Instant" => Some("java.time.Instant"),
        _ => None,
    });
    boxed
}

/// What tells the library that the wire writes it as something else.
pub(super) fn coded_annotation(sheet: &mut Sheet<'_>, coding: Coding) -> String {
    let Coded { adapter, annotation, .. } = in_code(coding);
    match (sheet.options.library, annotation) {
        (Library::Jackson, Some(annotation)) => {
            sheet.needs.helpers.insert(annotation);
            format!("@{}", annotation.name)
        }
        (Library::Jackson, None) => {
            sheet.needs.imports.insert("com.fasterxml.jackson.annotation.JsonFormat");
            "@JsonFormat(shape = JsonFormat.Shape.STRING)".to_owned()
        }
        (Library::Gson, _) => {
            sheet.needs.helpers.insert(adapter);
            sheet.needs.imports.insert("com.google.gson.annotations.JsonAdapter");
            format!("@JsonAdapter({}.class)", adapter.name)
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

/// Where a date stands in a field.
#[derive(Clone, Copy)]
enum Held {
    /// It is the field.
    Itself,
    /// In a list or a map.
    Inside,
}

fn of_dated(sheet: &mut Sheet<'_>, scalar: Scalar, held: Held, wrap: impl Fn(&str) -> String) -> Spelled {
    let (name, import, helper) = dated_helper(sheet, scalar).expect("asked before");
    sheet.needs.imports.insert(import);
    sheet.needs.helpers.insert(helper);
    let helper = helper.name;
    let annotations = match (sheet.options.library, held) {
        (Library::Jackson, Held::Itself) => vec![format!("@{helper}")],
        (Library::Jackson, Held::Inside) => {
            sheet.needs.imports.extend([
                "com.fasterxml.jackson.databind.annotation.JsonDeserialize",
                "com.fasterxml.jackson.databind.annotation.JsonSerialize",
            ]);
            ["Serialize", "Deserialize"]
                .map(|does| format!("@Json{does}(contentUsing = {helper}.{does}r.class)"))
                .to_vec()
        }
        (Library::Gson, _) => {
            sheet.needs.imports.insert("com.google.gson.annotations.JsonAdapter");
            vec![format!("@JsonAdapter({helper}.class)")]
        }
    };
    Spelled { annotations, ty: wrap(name) }
}

/// The platform's type of a date or a time, its import, and what reads and writes it: an annotation for Jackson, or an
/// adapter.
pub(super) fn dated_helper(
    sheet: &Sheet<'_>,
    scalar: Scalar,
) -> Option<(&'static str, &'static str, Helper)> {
    let Dated { name, import, annotation, adapter } =
        dated(scalar).filter(|_| !sheet.options.has_date_module)?;
    let Helpers { usual, special } = match sheet.options.library {
        Library::Jackson => annotation,
        Library::Gson => adapter,
    };
    let special_form = sheet.plan.times.special_form(scalar);
    let helper = special_form.map_or(*usual, |way| special.get(way));
    Some((name, import, helper))
}

/// The platform's type of a date that the library's own module reads, with its import.
fn of_module(sheet: &Sheet<'_>, scalar: Scalar) -> Option<&'static Dated> {
    dated(scalar).filter(|_| sheet.options.has_date_module)
}

fn dated(scalar: Scalar) -> Option<&'static Dated> {
    match scalar {
        Scalar::DateTime(_) => Some(&DATE_TIME),
        Scalar::LocalDateTime(_) => Some(&LOCAL_DATE_TIME),
        Scalar::Date => Some(&DATE),
        Scalar::Time(_) => Some(&TIME),
        Scalar::Boolean
        | Scalar::Always(_)
        | Scalar::Integer(_)
        | Scalar::Float
        | Scalar::Text
        | Scalar::Uuid
        | Scalar::Uri
        | Scalar::Decimal
        | Scalar::Coded(_) => None,
    }
}

/// A type that may be a primitive one: `long`
pub(super) fn plain(sheet: &mut Sheet<'_>, slot: &Slot) -> String {
    match &slot.ty {
        Type::Scalar(scalar) if !slot.nullable => match scalar {
            Scalar::Boolean | Scalar::Always(_) => "boolean".to_owned(),
            Scalar::Integer(Width::Narrow) => "int".to_owned(),
            Scalar::Integer(Width::Wide | Width::Exact) => "long".to_owned(),
            Scalar::Float => "double".to_owned(),
            Scalar::Integer(Width::Big)
            | Scalar::Text
            | Scalar::DateTime(_)
            | Scalar::LocalDateTime(_)
            | Scalar::Date
            | Scalar::Time(_)
            | Scalar::Uuid
            | Scalar::Uri
            | Scalar::Decimal
            | Scalar::Coded(_) => boxed(sheet, slot),
        },
        Type::Any
        | Type::Scalar(_)
        | Type::Constant(_)
        | Type::List(_)
        | Type::Map(_)
        | Type::Tuple(_)
        | Type::Named(_) => boxed(sheet, slot),
    }
}

/// Whether values of a type that are not null are no objects.
pub(super) fn is_primitive(ty: &Type) -> bool {
    match ty {
        Type::Scalar(scalar) => matches!(
            scalar,
            Scalar::Boolean
                | Scalar::Always(_)
                | Scalar::Integer(Width::Narrow | Width::Wide | Width::Exact)
                | Scalar::Float
        ),
        Type::Any | Type::Constant(_) | Type::List(_) | Type::Map(_) | Type::Tuple(_) | Type::Named(_) => {
            false
        }
    }
}

/// A type of objects: `Long`
pub(super) fn boxed(sheet: &mut Sheet<'_>, slot: &Slot) -> String {
    match &slot.ty {
        Type::Any => any(sheet).to_owned(),
        Type::Scalar(scalar) => self::scalar(sheet, *scalar).to_owned(),
        Type::Constant(_) => "String".to_owned(),
        Type::List(items) => {
            sheet.needs.imports.insert("java.util.List");
            format!("List<{}>", inner(sheet, items))
        }
        Type::Map(values) => {
            sheet.needs.imports.insert("java.util.Map");
            format!("Map<String, {}>", inner(sheet, values))
        }
        // Java has no type for a list of unlike items.
        Type::Tuple(_) => {
            sheet.needs.imports.insert("java.util.List");
            format!("List<{}>", any(sheet))
        }
        Type::Named(id) => sheet.plan.ident(*id).to_string(),
    }
}

/// A type whose values may be null, where that is said: `@Nullable String`
pub(super) fn or_null(sheet: &mut Sheet<'_>, ty: String) -> String {
    if !sheet.options.says_null {
        return ty;
    }
    sheet.needs.imports.insert("org.jspecify.annotations.Nullable");
    format!("@Nullable {ty}")
}

/// A type of objects inside another.
fn inner(sheet: &mut Sheet<'_>, slot: &Slot) -> String {
    let ty = boxed(sheet, slot);
    if slot.nullable { or_null(sheet, ty) } else { ty }
}

/// Any JSON value.
pub(super) fn any(sheet: &mut Sheet<'_>) -> &'static str {
    let (import, name) = match sheet.options.library {
        Library::Jackson => ("com.fasterxml.jackson.databind.JsonNode", "JsonNode"),
        Library::Gson => ("com.google.gson.JsonElement", "JsonElement"),
    };
    sheet.needs.imports.insert(import);
    name
}

fn scalar(sheet: &mut Sheet<'_>, scalar: Scalar) -> &'static str {
    if let Some(Dated { name, import, .. }) = of_module(sheet, scalar) {
        sheet.needs.imports.insert(import);
        return name;
    }
    let (has_uuids, has_uris) = (sheet.options.has_uuids, sheet.options.has_uris);
    let needs = &mut sheet.needs;
    match scalar {
        Scalar::Uuid if has_uuids => {
            needs.imports.insert("java.util.UUID");
            "UUID"
        }
        Scalar::Uri if has_uris => {
            needs.imports.insert("java.net.URI");
            "URI"
        }
        Scalar::Boolean | Scalar::Always(_) => "Boolean",
        Scalar::Integer(Width::Narrow) => "Integer",
        Scalar::Integer(Width::Wide | Width::Exact) => "Long",
        Scalar::Integer(Width::Big) => {
            needs.imports.insert("java.math.BigInteger");
            "BigInteger"
        }
        Scalar::Float => "Double",
        Scalar::Decimal => {
            needs.imports.insert("java.math.BigDecimal");
            "BigDecimal"
        }
        // What no annotation reaches stays what it is on the wire.
        Scalar::DateTime(_)
        | Scalar::LocalDateTime(_)
        | Scalar::Date
        | Scalar::Time(_)
        | Scalar::Text
        | Scalar::Uuid
        | Scalar::Uri => "String",
        Scalar::Coded(coding) if coding.kind() == ScalarKind::Integer => "Long",
        Scalar::Coded(_) => "String",
    }
}
