//! What a plain type is made of: how each value of the wire becomes one of it.

use jar_sprout_model::{Slot, Type};

use super::sheet::Needs;
use crate::plan::{Plan, PlannedDefinition, PlannedField, PlannedType, PlannedUnion};

/// How a value of the wire becomes one of the twin.
pub(crate) enum Turn<'p> {
    /// It is one.
    AsIs,
    /// It is made of it.
    Made(&'p PlannedType<'p>),
    /// Each item of a list becomes one.
    Items(Box<Turn<'p>>, bool),
    /// Each value of a map becomes one.
    Values(Box<Turn<'p>>, bool),
}

/// How a value of a type of the wire becomes one of the twin.
pub(crate) fn turn<'p>(plan: &'p Plan<'_>, ty: &Type) -> Turn<'p> {
    let inside = |slot: &Slot| match turn(plan, &slot.ty) {
        Turn::AsIs => None,
        turn @ (Turn::Made(_) | Turn::Items(..) | Turn::Values(..)) => Some((Box::new(turn), slot.nullable)),
    };
    match ty {
        Type::Named(id) => plan.twin_of(*id).map_or(Turn::AsIs, Turn::Made),
        Type::List(items) => inside(items).map_or(Turn::AsIs, |(turn, is_null)| Turn::Items(turn, is_null)),
        Type::Map(values) => inside(values).map_or(Turn::AsIs, |(turn, is_null)| Turn::Values(turn, is_null)),
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Tuple(_) => Turn::AsIs,
    }
}

/// What a twin is, and what it is made of.
pub(crate) enum Sides<'p, 'm> {
    Records(&'p [PlannedField<'m>], &'p [PlannedField<'m>]),
    Unions(&'p PlannedUnion<'m>, &'p PlannedUnion<'m>),
}

/// The definitions of a twin and of its type of the wire.
pub(crate) fn sides<'p, 'm>(twin: &'p PlannedType<'m>, wire: &'p PlannedType<'m>) -> Sides<'p, 'm> {
    match (&twin.definition, &wire.definition) {
        (PlannedDefinition::Record(fields), PlannedDefinition::Record(sources)) => {
            Sides::Records(fields, sources)
        }
        (PlannedDefinition::Union(union), PlannedDefinition::Union(source)) => Sides::Unions(union, source),
        (
            PlannedDefinition::Record(_) | PlannedDefinition::Enumeration(_) | PlannedDefinition::Union(_),
            _,
        ) => unreachable!("a twin is a copy of its wire type, and enums have none"),
    }
}

/// A twin's fields, each with that of the wire that it is made of.
pub(crate) fn pairs<'f, 'm>(
    twin: &'f [PlannedField<'m>],
    wire: &'f [PlannedField<'m>],
) -> impl Iterator<Item = (&'f PlannedField<'m>, &'f PlannedField<'m>)> {
    let source = move |field: &PlannedField<'_>| wire.iter().find(|of| of.wire == field.wire);
    twin.iter().filter_map(move |field| Some((field, source(field)?)))
}

/// Takes over what a plain type needs imported of what its spelling for the wire needs.
pub(crate) fn import_plain(own: &Needs, needs: &mut Needs) {
    const TYPES: [&str; 3] = ["JsonElement", "JsonNode", "JsonObject"];
    let is_plain =
        |name: &&&str| name.starts_with("java.") || TYPES.iter().any(|ty| name.ends_with(&format!(".{ty}")));
    needs.imports.extend(own.imports.iter().filter(is_plain));
}

/// Whether what makes a twin uses something that should not be used any more.
pub(crate) fn uses_deprecated(wire: &PlannedType<'_>) -> bool {
    match &wire.definition {
        PlannedDefinition::Record(fields) => fields.iter().any(|field| field.docs.is_deprecated),
        PlannedDefinition::Enumeration(_) | PlannedDefinition::Union(_) => false,
    }
}

/// Whether a field of the wire may have nothing for the twin.
pub(crate) fn may_be_null(wire: &PlannedField<'_>) -> bool {
    wire.fate.may_be_nothing()
}

/// Whether a field of the wire is a list or a map.
pub(crate) fn is_collection(wire: &PlannedField<'_>) -> bool {
    matches!(wire.slot.ty, Type::List(_) | Type::Map(_))
}
