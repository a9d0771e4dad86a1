//! Model types as Java types, with the imports and helpers they need.

use std::sync::LazyLock;

use jar_sprout_model::{Presence, Scalar, Slot, TimeForm, Type, Width};

use crate::code::{Helper, Needs};
use crate::plan::{Plan, PlannedField};
use crate::times::{JavaTime, TimeHelpers, suffix};

/// A type of the platform that the library is told how to read and write.
struct Dated {
    name: &'static str,
    import: &'static str,
    /// The annotation that tells it, for the type itself; that for what a list or a map holds stands inside.
    annotation: Helper,
    /// The same for other ways to write it.
    special: LazyLock<TimeHelpers>,
}

macro_rules! dated {
    ($name:literal, $annotation:literal) => {
        Dated {
            name: $name,
            import: concat!("java.time.", $name),
            annotation: Helper { name: $annotation, text: include_str!(concat!($annotation, ".java")) },
            special: LazyLock::new(|| {
                TimeHelpers::new(|form| {
                    let name = format!("{}{}", $annotation, suffix(form));
                    let text = include_str!(concat!($annotation, ".java"));
                    (name.clone(), in_form(&text.replace($annotation, &name), $name, form))
                })
            }),
        }
    };
}

static DATE_TIME: Dated = dated!("OffsetDateTime", "JsonOffsetDateTime");
static LOCAL_DATE_TIME: Dated = dated!("LocalDateTime", "JsonLocalDateTime");
static DATE: Dated = dated!("LocalDate", "JsonLocalDate");
static TIME: Dated = dated!("LocalTime", "JsonLocalTime");

/// The code of an annotation that writes times in another way.
fn in_form(text: &str, ty: &str, form: TimeForm) -> String {
    let JavaTime { usual, format, whole, has_builder } = JavaTime::of(ty, form, "new ");
    let constant = |name: &str, code: &str| {
        JavaTime::declared(&format!("private static final DateTimeFormatter {name}"), code, ";")
    };
    let chosen = if whole.is_some() { "(value.getNano() == 0 ? WHOLE : FORMAT)" } else { "FORMAT" };
    let whole = whole.map(|whole| constant("WHOLE", &whole)).unwrap_or_default();
    let class = format!("extends JsonSerializer<{ty}> {{\n");
    let import = "import java.time.format.DateTimeFormatter;\n";
    let builder = if has_builder { "import java.time.format.DateTimeFormatterBuilder;\n" } else { "" };
    text.replacen(import, &format!("{import}{builder}"), 1)
        .replacen(&class, &format!("{class}{whole}{}\n", constant("FORMAT", &format)), 1)
        .replacen(&format!("DateTimeFormatter.{usual}.format"), &format!("{chosen}.format"), 1)
}

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
        Type::Scalar(scalar) if dated(*scalar).is_some() => of_dated(plan, *scalar, "", str::to_owned, needs),
        Type::List(items) if dated_slot(items).is_some() => {
            needs.imports.insert("java.util.List");
            let item = dated_slot(items).expect("asked");
            of_dated(plan, item, ".Content", |name| format!("List<{name}>"), needs)
        }
        Type::Map(values) if dated_slot(values).is_some() => {
            needs.imports.insert("java.util.Map");
            let value = dated_slot(values).expect("asked");
            of_dated(plan, value, ".Content", |name| format!("Map<String, {name}>"), needs)
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

fn of_dated(
    plan: &Plan<'_>,
    scalar: Scalar,
    inside: &str,
    wrap: impl Fn(&str) -> String,
    needs: &mut Needs,
) -> Spelled {
    let Dated { name, import, annotation, special } = dated(scalar).expect("asked before");
    let form = scalar.time_forms().and_then(|forms| plan.times.special_form(forms));
    let annotation = form.map_or(*annotation, |form| special.get(form));
    needs.imports.insert(import);
    needs.helpers.insert(annotation);
    Spelled { annotation: Some(format!("@{}{inside}", annotation.name)), ty: wrap(name) }
}

fn dated(scalar: Scalar) -> Option<&'static Dated> {
    match scalar {
        Scalar::DateTime(_) => Some(&DATE_TIME),
        Scalar::LocalDateTime(_) => Some(&LOCAL_DATE_TIME),
        Scalar::Date => Some(&DATE),
        Scalar::Time(_) => Some(&TIME),
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
            | Scalar::DateTime(_)
            | Scalar::LocalDateTime(_)
            | Scalar::Date
            | Scalar::Time(_)
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
        Scalar::DateTime(_)
        | Scalar::LocalDateTime(_)
        | Scalar::Date
        | Scalar::Time(_)
        | Scalar::Text
        | Scalar::Uuid
        | Scalar::Uri => "String",
    }
}
