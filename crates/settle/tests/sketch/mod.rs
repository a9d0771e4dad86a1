//! Models in a few lines, for cases to compare.

use std::fmt::Write as _;

use jar_sprout_model::{Definition, Field, Model, Presence, Scalar, Slot, SourceId, Type, Width};
use jar_sprout_settle::{Drafted, Policies, RootName, Settled, draft_shape, root_name, settle};
use jar_sprout_shape::{Shape, observe};

/// The shape of samples, each a source of its own.
pub(crate) fn shape_of<'s>(samples: impl IntoIterator<Item = &'s str>) -> Shape {
    let mut shape = Shape::default();
    for (source, sample) in (0..).map(SourceId).zip(samples) {
        observe(sample.as_bytes(), source, &mut shape).expect("the sample is JSON");
    }
    shape
}

/// What is made of a shape whose file has this name.
pub(crate) fn settled(shape: &Shape, file: &str) -> Settled {
    settled_with_draft(shape, file).0
}

/// The same with the draft it comes from.
pub(crate) fn settled_with_draft(shape: &Shape, file: &str) -> (Settled, Drafted) {
    let policies = Policies::default();
    let words = root_name([file], None);
    let drafted = draft_shape(shape, &words, &policies);
    let settled = settle(&drafted.draft, drafted.root, &RootName { words, is_given: false }, &policies);
    (settled, drafted)
}

/// The model: a line for the root, a line for each type.
pub(crate) fn sketch(model: &Model) -> String {
    let mut out = format!("{} = {}\n", model.root.name, show(model, &model.root.slot));
    for (_, ty) in model.types() {
        let (separator, parts): (&str, Vec<String>) = match &ty.definition {
            Definition::Record(record) => {
                (", ", record.fields.iter().map(|field| show_field(model, field)).collect())
            }
            Definition::Enumeration(known) => {
                (" ", known.cases.iter().map(|case| format!("{:?}", case.wire.as_str())).collect())
            }
            Definition::Union(union) => {
                (" | ", union.cases.iter().map(|case| show(model, &case.slot)).collect())
            }
        };
        writeln!(out, "{}: {}", ty.name, parts.join(separator)).expect("a string takes everything");
    }
    out
}

/// `note? text|null`
fn show_field(model: &Model, field: &Field) -> String {
    let mark = if field.presence == Presence::Sometimes { "?" } else { "" };
    format!("{}{mark} {}", field.wire, show(model, &field.slot))
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
        Scalar::Lettered(_) => "number in letters",
    }
}
