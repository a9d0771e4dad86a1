//! Which kinds of value a reader of another kind reads as well.

use jar_sprout_model::{Definition, Model, Scalar, ScalarKind, Slot, Type, Union, Width};

/// Whether two scalars are the same to a reader: how a time is written and how wide an integer is are looked at by
/// themselves.
pub(crate) fn is_same_scalar(one: Scalar, other: Scalar) -> bool {
    match (one, other) {
        (Scalar::Integer(one), Scalar::Integer(other)) => width(one) == width(other),
        (Scalar::DateTime(_), Scalar::DateTime(_))
        | (Scalar::LocalDateTime(_), Scalar::LocalDateTime(_))
        | (Scalar::Time(_), Scalar::Time(_)) => true,
        (one, other) => one == other,
    }
}

/// What tells integers apart in code; that a double does not keep one is a matter of one language.
fn width(width: Width) -> u8 {
    match width {
        Width::Narrow => 0,
        Width::Wide | Width::Exact => 1,
        Width::Big => 2,
    }
}

/// How deep lists and maps are looked into, and how much less records; what is deeper, and a union in a union, is taken
/// for another kind.
const DEEPEST: usize = 16;

/// Whether a reader of the first kind reads all values of the second one.
pub(crate) fn reads(old: (&Model, &Type), new: (&Model, &Type)) -> bool {
    reads_within(old, new, DEEPEST)
}

fn reads_within(old: (&Model, &Type), new: (&Model, &Type), depth: usize) -> bool {
    let Some(depth) = depth.checked_sub(1) else { return false };
    let is_text = |model: &Model, ty: &Type| match ty {
        Type::Scalar(scalar) => scalar.kind() == ScalarKind::Text,
        Type::Constant(_) => true,
        Type::Named(id) => matches!(model.get(*id).definition, Definition::Enumeration(_)),
        Type::Any | Type::List(_) | Type::Map(_) | Type::Tuple(_) => false,
    };
    let has_case = |union: &Union| {
        union.tag.is_none()
            && union.cases.iter().any(|case| reads_within((old.0, &case.slot.ty), new, depth.min(1)))
    };
    match (old.1, new.1) {
        (Type::Any, _) => true,
        (Type::Scalar(Scalar::Text | Scalar::Uri | Scalar::Uuid), _) if is_text(new.0, new.1) => {
            // A UUID and a URI may be types of their own, which read nothing else.
            matches!(old.1, Type::Scalar(Scalar::Text))
        }
        (
            Type::Scalar(Scalar::Float | Scalar::Decimal),
            Type::Scalar(Scalar::Integer(_) | Scalar::Float | Scalar::Decimal),
        ) => true,
        (Type::Scalar(Scalar::Integer(old)), Type::Scalar(Scalar::Integer(new))) => {
            width(*old) >= width(*new)
        }
        (Type::Scalar(Scalar::Boolean), Type::Scalar(Scalar::Always(_))) => true,
        (Type::Scalar(old), Type::Scalar(new)) => is_same_scalar(*old, *new),
        (Type::Named(id), Type::Constant(_) | Type::Scalar(_)) => match &old.0.get(*id).definition {
            Definition::Enumeration(known) => !known.is_closed && is_text(new.0, new.1),
            Definition::Union(union) => has_case(union),
            Definition::Record(_) => false,
        },
        (Type::List(old_item), Type::List(new_item)) | (Type::Map(old_item), Type::Map(new_item)) => {
            reads_slot((old.0, old_item), (new.0, new_item), depth)
        }
        (Type::List(item), Type::Tuple(items)) => {
            items.iter().all(|one| reads_slot((old.0, item), (new.0, one), depth))
        }
        (Type::Map(value), Type::Named(id)) => match &new.0.get(*id).definition {
            Definition::Record(record) => {
                record.fields.iter().all(|field| reads_slot((old.0, value), (new.0, &field.slot), depth / 2))
            }
            Definition::Enumeration(_) | Definition::Union(_) => false,
        },
        (Type::Named(id), _) => match &old.0.get(*id).definition {
            Definition::Union(union) => has_case(union),
            Definition::Record(_) | Definition::Enumeration(_) => false,
        },
        _ => false,
    }
}

fn reads_slot(old: (&Model, &Slot), new: (&Model, &Slot), depth: usize) -> bool {
    (old.1.nullable || !new.1.nullable) && reads_within((old.0, &old.1.ty), (new.0, &new.1.ty), depth)
}
