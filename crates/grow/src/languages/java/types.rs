//! Model types as Java types, with the imports and helpers they need.

use std::sync::LazyLock;

use jar_sprout_model::{Numeral, Presence, Scalar, Slot, Type, Width};

use super::settings::{Form, Library};
use crate::code::{Helper, Needs};
use crate::plan::{Plan, PlannedField};
use crate::times::{JavaSyntax, TimeHelpers, suffix};

/// A type of the platform that the library is told how to read and write.
struct Dated {
    name: &'static str,
    import: &'static str,
    /// The annotation that tells Jackson, for the type itself; that for what a list or a map holds stands inside.
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
                    let text = include_str!($file).replace(concat!($base, $end), &name);
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

/// A type as it stands in code, with the annotation that its place needs.
pub(super) struct Spelled {
    pub(super) annotation: Option<String>,
    pub(super) ty: String,
}

/// The type of a record's field. A date is typed where an annotation can say how it is read: by itself, or held
/// by one list or map.
pub(super) fn field(plan: &Plan<'_>, field: &PlannedField<'_>, form: Form, needs: &mut Needs) -> Spelled {
    let PlannedField { ident: _, wire: _, presence, slot, docs: _, is_apart, default } = field;
    if *is_apart {
        needs.helpers.insert(MAYBE);
        let ty = format!("Maybe<{}>", boxed(plan, slot, form, needs));
        return Spelled { annotation: None, ty };
    }
    // A record tells by null that nothing was there; a class has its value from the start.
    let is_there = default.is_some() && form.has_beans;
    let may_be_null = slot.nullable || *presence == Presence::Sometimes && !is_there;
    if let Some(numeral) = field.numeral() {
        return in_letters(numeral, may_be_null, form, needs);
    }
    // Gson's annotation speaks of the field as a whole.
    let has_content = form.library == Library::Jackson;
    match &slot.ty {
        Type::Scalar(scalar) if dated(*scalar).is_some() => {
            of_dated(plan, *scalar, form, "", str::to_owned, needs)
        }
        Type::List(items) if has_content && dated_slot(items).is_some() => {
            needs.imports.insert("java.util.List");
            let item = dated_slot(items).expect("asked");
            of_dated(plan, item, form, ".Content", |name| format!("List<{name}>"), needs)
        }
        Type::Map(values) if has_content && dated_slot(values).is_some() => {
            needs.imports.insert("java.util.Map");
            let value = dated_slot(values).expect("asked");
            of_dated(plan, value, form, ".Content", |name| format!("Map<String, {name}>"), needs)
        }
        Type::Any
        | Type::Scalar(_)
        | Type::Constant(_)
        | Type::List(_)
        | Type::Map(_)
        | Type::Tuple(_)
        | Type::Named(_) => {
            let ty =
                if may_be_null { boxed(plan, slot, form, needs) } else { plain(plan, slot, form, needs) };
            Spelled { annotation: None, ty }
        }
    }
}

/// A number in letters, which the library must be told.
fn in_letters(numeral: Numeral, may_be_null: bool, form: Form, needs: &mut Needs) -> Spelled {
    macro_rules! adapter {
        ($ty:literal) => {
            Helper {
                name: concat!($ty, "InLettersAdapter"),
                text: include_str!(concat!("gson/", $ty, "InLettersAdapter.java")),
            }
        };
    }
    let (boxed, primitive, adapter) = match numeral {
        Numeral::Integer => ("Long", "long", adapter!("Long")),
        Numeral::Float => ("Double", "double", adapter!("Double")),
        Numeral::Decimal => {
            needs.imports.insert("java.math.BigDecimal");
            ("BigDecimal", "BigDecimal", adapter!("BigDecimal"))
        }
    };
    let annotation = match form.library {
        Library::Jackson => {
            needs.imports.insert("com.fasterxml.jackson.annotation.JsonFormat");
            "@JsonFormat(shape = JsonFormat.Shape.STRING)".to_owned()
        }
        Library::Gson => {
            needs.helpers.insert(adapter);
            needs.imports.insert("com.google.gson.annotations.JsonAdapter");
            format!("@JsonAdapter({}.class)", adapter.name)
        }
    };
    let ty = if may_be_null || form.library == Library::Gson { boxed } else { primitive };
    Spelled { annotation: Some(annotation), ty: ty.to_owned() }
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
    json: Form,
    inside: &str,
    wrap: impl Fn(&str) -> String,
    needs: &mut Needs,
) -> Spelled {
    let Dated { name, import, annotation, adapter } = dated(scalar).expect("asked before");
    let Helpers { usual, special } = match json.library {
        Library::Jackson => annotation,
        Library::Gson => adapter,
    };
    let form = plan.times.special_form(scalar);
    let helper = form.map_or(*usual, |form| special.get(form));
    needs.imports.insert(import);
    needs.helpers.insert(helper);
    let annotation = match json.library {
        Library::Jackson => format!("@{}{inside}", helper.name),
        Library::Gson => {
            needs.imports.insert("com.google.gson.annotations.JsonAdapter");
            format!("@JsonAdapter({}.class)", helper.name)
        }
    };
    Spelled { annotation: Some(annotation), ty: wrap(name) }
}

fn dated(scalar: Scalar) -> Option<&'static Dated> {
    match scalar {
        Scalar::DateTime(_) => Some(&DATE_TIME),
        Scalar::LocalDateTime(_) => Some(&LOCAL_DATE_TIME),
        Scalar::Date => Some(&DATE),
        Scalar::Time(_) => Some(&TIME),
        Scalar::Boolean
        | Scalar::Integer(_)
        | Scalar::Float
        | Scalar::Text
        | Scalar::Uuid
        | Scalar::Uri
        | Scalar::Decimal
        | Scalar::Lettered(_) => None,
    }
}

/// A type that may be a primitive one: `long`
pub(super) fn plain(plan: &Plan<'_>, slot: &Slot, form: Form, needs: &mut Needs) -> String {
    match &slot.ty {
        Type::Scalar(scalar) if !slot.nullable => match scalar {
            Scalar::Boolean => "boolean".to_owned(),
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
            | Scalar::Lettered(_) => boxed(plan, slot, form, needs),
        },
        Type::Any
        | Type::Scalar(_)
        | Type::Constant(_)
        | Type::List(_)
        | Type::Map(_)
        | Type::Tuple(_)
        | Type::Named(_) => boxed(plan, slot, form, needs),
    }
}

/// A type of objects: `Long`
pub(super) fn boxed(plan: &Plan<'_>, slot: &Slot, form: Form, needs: &mut Needs) -> String {
    match &slot.ty {
        Type::Any => any(form, needs).to_owned(),
        Type::Scalar(scalar) => self::scalar(*scalar, needs).to_owned(),
        Type::Constant(_) => "String".to_owned(),
        Type::List(items) => {
            needs.imports.insert("java.util.List");
            format!("List<{}>", boxed(plan, items, form, needs))
        }
        Type::Map(values) => {
            needs.imports.insert("java.util.Map");
            format!("Map<String, {}>", boxed(plan, values, form, needs))
        }
        // Java has no type for a list of unlike items.
        Type::Tuple(_) => {
            needs.imports.insert("java.util.List");
            format!("List<{}>", any(form, needs))
        }
        Type::Named(id) => plan.ident(*id).to_string(),
    }
}

/// Any JSON value.
pub(super) fn any(form: Form, needs: &mut Needs) -> &'static str {
    let (import, name) = match form.library {
        Library::Jackson => ("com.fasterxml.jackson.databind.JsonNode", "JsonNode"),
        Library::Gson => ("com.google.gson.JsonElement", "JsonElement"),
    };
    needs.imports.insert(import);
    name
}

fn scalar(scalar: Scalar, needs: &mut Needs) -> &'static str {
    match scalar {
        Scalar::Boolean => "Boolean",
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
        // Dates and numbers in letters that no annotation reaches stay what they are on the wire.
        Scalar::DateTime(_)
        | Scalar::LocalDateTime(_)
        | Scalar::Date
        | Scalar::Time(_)
        | Scalar::Text
        | Scalar::Uuid
        | Scalar::Uri
        | Scalar::Lettered(_) => "String",
    }
}
