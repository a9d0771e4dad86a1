//! What types stand inside which, and inside themselves.

use std::collections::HashSet;

use jar_sprout_model::{Coding, Model, Scalar, Slot, Type, TypeId};

use super::{Plan, PlannedDefinition, PlannedField, PlannedType, PlannedUnion};

impl Plan<'_> {
    /// Whether a type has a part of the type it is itself a direct part of, with no list or map between that would
    /// hold the two apart.
    pub(crate) fn contains_inline(&self, id: TypeId, owner: TypeId) -> bool {
        self.loops[id.index()] == self.loops[owner.index()]
    }

    /// Whether a type has one in it, at any depth, of which something is so; where lists and maps hold their parts
    /// apart, those are passed over.
    pub(crate) fn holds(&self, id: TypeId, is_so: impl Fn(TypeId) -> bool, is_inline: bool) -> bool {
        let parts = |id: TypeId| match (&self.get(id).definition, is_inline) {
            (definition, true) => inline_parts(definition),
            (PlannedDefinition::Record(fields), false) => {
                fields.iter().flat_map(|field| field.slot.ty.named()).collect()
            }
            (PlannedDefinition::Union(union), false) => {
                union.cases.iter().flat_map(|case| case.slot.ty.named()).collect()
            }
            (PlannedDefinition::Enumeration(_), false) => Vec::new(),
        };
        reaches(id, parts, is_so)
    }

    /// Whether a type has a number with a fraction in it, at any depth: values of it need not equal themselves.
    pub(crate) fn has_floats(&self, id: TypeId) -> bool {
        self.has_floats.get_or_init(|| has_floats(self.model))[id.index()]
    }

    /// Whether null may stand anywhere in the place of a type, or nothing.
    pub(crate) fn is_ever_null(&self, id: TypeId) -> bool {
        fn has_null(slot: &Slot, id: TypeId) -> bool {
            match &slot.ty {
                Type::Named(named) => slot.nullable && *named == id,
                Type::List(slot) | Type::Map(slot) => has_null(slot, id),
                Type::Tuple(items) => items.iter().any(|item| has_null(item, id)),
                Type::Any | Type::Scalar(_) | Type::Constant(_) => false,
            }
        }
        let in_type = |ty: &PlannedType<'_>| match &ty.definition {
            PlannedDefinition::Record(fields) => {
                let extras = ty.extras.as_ref().map(|extras| extras.slot);
                let may_be_nothing = |field: &PlannedField<'_>| {
                    field.fate.may_be_nothing() && matches!(field.slot.ty, Type::Named(named) if named == id)
                };
                fields.iter().any(may_be_nothing)
                    || fields.iter().map(|field| field.slot).chain(extras).any(|slot| has_null(slot, id))
            }
            PlannedDefinition::Union(union) => union.cases.iter().any(|case| has_null(case.slot, id)),
            PlannedDefinition::Enumeration(_) => false,
        };
        self.types.iter().any(in_type) || self.roots.iter().any(|root| has_null(root.slot(), id))
    }

    /// Whether a union of kinds names itself with nothing but lists, maps and other such unions between: a language in
    /// which it is a name for an expression cannot write it down before it is there.
    pub(crate) fn names_itself(&self, id: TypeId) -> bool {
        let parts = |id: TypeId| match &self.get(id).definition {
            PlannedDefinition::Union(PlannedUnion { tag: None, cases, .. }) => {
                cases.iter().flat_map(|case| case.slot.ty.named()).collect::<Vec<_>>()
            }
            PlannedDefinition::Union(_)
            | PlannedDefinition::Record(_)
            | PlannedDefinition::Enumeration(_) => Vec::new(),
        };
        reaches(id, parts, |part| part == id)
    }

    /// Whether a type leads to a union through names of others and maps alone.
    pub(crate) fn leads_through_maps(&self, ty: &Type, union: TypeId) -> bool {
        let parts = |id: TypeId| match &self.get(id).definition {
            PlannedDefinition::Union(of) => {
                of.cases.iter().filter_map(|case| behind_maps(&case.slot.ty)).collect()
            }
            PlannedDefinition::Record(_) | PlannedDefinition::Enumeration(_) => Vec::new(),
        };
        behind_maps(ty).is_some_and(|id| id == union || reaches(id, parts, |part| part == union))
    }
}

/// By type, whether it has a number with a fraction in it, at any depth.
fn has_floats(model: &Model) -> Vec<bool> {
    let mut users = vec![Vec::new(); model.types().count()];
    let mut open = Vec::new();
    for (id, ty) in model.types() {
        let is_float =
            |scalar| matches!(scalar, Scalar::Float | Scalar::Coded(Coding::FloatText | Coding::DecimalText));
        open.extend(ty.definition.types().into_iter().flat_map(Type::scalars).any(is_float).then_some(id));
        for part in ty.definition.types().into_iter().flat_map(Type::named) {
            users[part.index()].push(id);
        }
    }
    let mut has = vec![false; users.len()];
    while let Some(id) = open.pop() {
        if !std::mem::replace(&mut has[id.index()], true) {
            open.extend(&users[id.index()]);
        }
    }
    has
}

/// The name that a type is, or that stands in it behind maps alone.
fn behind_maps(ty: &Type) -> Option<TypeId> {
    match ty {
        Type::Named(id) => Some(*id),
        Type::Map(values) => behind_maps(&values.ty),
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::List(_) | Type::Tuple(_) => None,
    }
}

/// Whether a walk along the parts of a type comes to one of which something is so.
fn reaches(id: TypeId, parts: impl Fn(TypeId) -> Vec<TypeId>, is_so: impl Fn(TypeId) -> bool) -> bool {
    let mut open = parts(id);
    let mut met: HashSet<TypeId> = HashSet::new();
    while let Some(part) = open.pop() {
        if is_so(part) {
            return true;
        }
        if met.insert(part) {
            open.extend(parts(part));
        }
    }
    false
}

/// The named types that stand in a definition with no list or map between.
pub(super) fn inline_parts(definition: &PlannedDefinition<'_>) -> Vec<TypeId> {
    fn add_inline(ty: &Type, parts: &mut Vec<TypeId>) {
        match ty {
            Type::Named(id) => parts.push(*id),
            Type::Tuple(items) => items.iter().for_each(|item| add_inline(&item.ty, parts)),
            Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::List(_) | Type::Map(_) => {}
        }
    }
    let mut parts = Vec::new();
    match definition {
        PlannedDefinition::Record(fields) => {
            fields.iter().for_each(|field| add_inline(&field.slot.ty, &mut parts));
        }
        PlannedDefinition::Union(union) => {
            union.cases.iter().for_each(|case| add_inline(&case.slot.ty, &mut parts));
        }
        PlannedDefinition::Enumeration(_) => {}
    }
    parts
}
