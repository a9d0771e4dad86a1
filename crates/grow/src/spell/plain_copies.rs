//! What a plain type is made of: how each value of the wire becomes one of it.

use jar_sprout_model::{Slot, Type};

use super::sheet::Needs;
use crate::plan::{Plan, PlannedDefinition, PlannedField, PlannedType, PlannedUnion};

/// How a value of the wire becomes one of the copy.
pub(crate) enum Conversion<'p> {
    /// It is one.
    AsIs,
    /// It is made of it.
    Made(&'p PlannedType<'p>),
    /// Each item of a list becomes one.
    Items(Box<Conversion<'p>>, bool),
    /// Each value of a map becomes one.
    Values(Box<Conversion<'p>>, bool),
}

/// How a value of a type of the wire becomes one of the copy.
pub(crate) fn conversion<'p>(plan: &'p Plan<'_>, ty: &Type) -> Conversion<'p> {
    let inside = |slot: &Slot| match conversion(plan, &slot.ty) {
        Conversion::AsIs => None,
        conversion @ (Conversion::Made(_) | Conversion::Items(..) | Conversion::Values(..)) => {
            Some((Box::new(conversion), slot.nullable))
        }
    };
    match ty {
        Type::Named(id) => plan.copy_of(*id).map_or(Conversion::AsIs, Conversion::Made),
        Type::List(items) => inside(items)
            .map_or(Conversion::AsIs, |(conversion, is_null)| Conversion::Items(conversion, is_null)),
        Type::Map(values) => inside(values)
            .map_or(Conversion::AsIs, |(conversion, is_null)| Conversion::Values(conversion, is_null)),
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Tuple(_) => Conversion::AsIs,
    }
}

/// Something of a plain type, and the same of its type of the wire.
pub(crate) struct Both<'p, T: ?Sized> {
    pub(crate) copy: &'p T,
    pub(crate) wire: &'p T,
}

/// What a copy is, and what it is made of.
pub(crate) enum Sides<'p, 'm> {
    Records(Both<'p, [PlannedField<'m>]>),
    Unions(Both<'p, PlannedUnion<'m>>),
}

/// The definitions of a copy and of its type of the wire.
pub(crate) fn sides<'p, 'm>(copy: &'p PlannedType<'m>, wire: &'p PlannedType<'m>) -> Sides<'p, 'm> {
    match (&copy.definition, &wire.definition) {
        (PlannedDefinition::Record(copy), PlannedDefinition::Record(wire)) => {
            Sides::Records(Both { copy, wire })
        }
        (PlannedDefinition::Union(copy), PlannedDefinition::Union(wire)) => {
            Sides::Unions(Both { copy, wire })
        }
        (
            PlannedDefinition::Record(_) | PlannedDefinition::Enumeration(_) | PlannedDefinition::Union(_),
            _,
        ) => unreachable!("a copy is made of its wire type, and enums have none"),
    }
}

impl<'p, 'm> Both<'p, [PlannedField<'m>]> {
    /// A copy's fields, each with that of the wire that it is made of.
    pub(crate) fn pairs(
        &self,
    ) -> impl Iterator<Item = (&'p PlannedField<'m>, &'p PlannedField<'m>)> + use<'p, 'm> {
        let wire = self.wire;
        let source = move |field: &PlannedField<'_>| wire.iter().find(|of| of.wire == field.wire);
        self.copy.iter().filter_map(move |field| Some((field, source(field)?)))
    }
}

/// Takes over what a plain type needs imported of what its spelling for the wire needs.
pub(crate) fn import_plain(own: &Needs, needs: &mut Needs) {
    const TYPES: [&str; 3] = ["JsonElement", "JsonNode", "JsonObject"];
    const PLATFORMS: [&str; 3] = ["java.", "kotlin.", "kotlinx.datetime."];
    let is_plain = |name: &&&str| {
        PLATFORMS.iter().any(|start| name.starts_with(start))
            || TYPES.iter().any(|ty| name.ends_with(&format!(".{ty}")))
    };
    needs.imports.extend(own.imports.iter().filter(is_plain));
}

/// Whether what makes a copy uses something that should not be used any more.
pub(crate) fn uses_deprecated(wire: &PlannedType<'_>) -> bool {
    match &wire.definition {
        PlannedDefinition::Record(fields) => fields.iter().any(|field| field.docs.is_deprecated),
        PlannedDefinition::Enumeration(_) | PlannedDefinition::Union(_) => false,
    }
}

/// Whether a field of the wire may have nothing for the copy.
pub(crate) fn may_be_null(wire: &PlannedField<'_>) -> bool {
    wire.fate.may_be_nothing()
}

/// Whether a field of the wire is a list or a map.
pub(crate) fn is_collection(wire: &PlannedField<'_>) -> bool {
    matches!(wire.slot.ty, Type::List(_) | Type::Map(_))
}
