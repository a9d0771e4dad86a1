//! Models in a few lines, for cases to compare.

use std::fmt::Write as _;

use jar_sprout_model::{Definition, Encoding, Field, Model, Presence, Scalar, Slot, Type, Width};

/// The model: a line for the root, a line for each type.
pub(crate) fn sketch(model: &Model) -> String {
    let mut out = String::new();
    for root in model.roots() {
        writeln!(out, "{} = {}", root.name, show(model, &root.slot)).expect("a string takes everything");
    }
    for (id, ty) in model.types() {
        let (separator, parts): (&str, Vec<String>) = match &ty.definition {
            Definition::Record(record) => {
                let extras = record.extras.iter().map(|extras| format!("* {}", show(model, extras)));
                (", ", record.fields.iter().map(|field| show_field(model, field)).chain(extras).collect())
            }
            Definition::Enumeration(known) => {
                (" ", known.cases.iter().map(|case| format!("{:?}", case.wire.as_str())).collect())
            }
            Definition::Union(union) => {
                (" | ", union.cases.iter().map(|case| show(model, &case.slot)).collect())
            }
        };
        let base = model.base(id).map(|base| format!(" < {}", model.get(base).name)).unwrap_or_default();
        writeln!(out, "{}{base}: {}", ty.name, parts.join(separator)).expect("a string takes everything");
    }
    out
}

/// `note? text|null`
fn show_field(model: &Model, field: &Field) -> String {
    let mark = if field.presence == Presence::Sometimes { "?" } else { "" };
    let encoding = match field.encoding {
        Encoding::JsonInText => "json in text of ",
        Encoding::Plain | Encoding::NothingWords(_) => "",
    };
    format!("{}{mark} {encoding}{}", field.wire, show(model, &field.slot))
}

fn show(model: &Model, slot: &Slot) -> String {
    let ty = match &slot.ty {
        Type::Any => "any".to_owned(),
        Type::Scalar(scalar) => scalar_name(*scalar).to_owned(),
        Type::Constant(text) => format!("{:?}", text.as_str()),
        Type::Tuple(items) => {
            format!("({})", items.iter().map(|item| show(model, item)).collect::<Vec<_>>().join(", "))
        }
        Type::List(items) => format!("[{}]", show(model, items)),
        Type::Map(values) => format!("{{{}}}", show(model, values)),
        Type::Named(id) => format!("<{}>", model.get(*id).name),
    };
    ty + if slot.nullable { "|null" } else { "" }
}

fn scalar_name(scalar: Scalar) -> &'static str {
    match scalar {
        Scalar::Boolean => "bool",
        Scalar::Always(true) => "true",
        Scalar::Always(false) => "false",
        Scalar::Integer(Width::Narrow) => "int",
        Scalar::Integer(Width::Wide | Width::Exact) => "int64",
        Scalar::Integer(Width::Big) => "bigint",
        Scalar::Float => "float",
        Scalar::Text => "text",
        Scalar::DateTime(_) => "date-time",
        Scalar::LocalDateTime(_) => "local date-time",
        Scalar::Date => "date",
        Scalar::Time(_) => "time",
        Scalar::Uuid => "uuid",
        Scalar::Uri => "uri",
        Scalar::Decimal => "decimal",
        Scalar::Coded(_) => "number in letters",
    }
}
