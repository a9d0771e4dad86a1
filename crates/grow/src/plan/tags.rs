//! Tags: which records must write the one that they carry, since no union around them does it.

use jar_sprout_model::{Type, TypeId, WireName};

use super::{PlannedDefinition, PlannedRoot, PlannedType};

/// By type, whether it is a record that carries a tag and is written by itself somewhere, or a case of a tagged union
/// beside such a record: a union then writes all its cases as they are.
pub(super) fn writes_tag(types: &[PlannedType<'_>], roots: &[PlannedRoot<'_>]) -> Vec<bool> {
    let mut writes = vec![false; types.len()];
    let mut alone = |ids: Vec<TypeId>| ids.into_iter().for_each(|id| writes[id.index()] = true);
    roots.iter().for_each(|root| alone(root.slot().ty.named()));
    for ty in types {
        match &ty.definition {
            PlannedDefinition::Record(fields) => {
                fields.iter().for_each(|field| alone(field.slot.ty.named()));
            }
            PlannedDefinition::Union(union) => {
                let untagged = union.cases.iter().filter(|case| case.tag.is_none());
                untagged.for_each(|case| alone(case.slot.ty.named()));
            }
            PlannedDefinition::Enumeration(_) => {}
        }
    }
    for (index, ty) in types.iter().enumerate() {
        writes[index] &= tag(ty).is_some();
    }
    let unions: Vec<Vec<usize>> = types.iter().map(tagged_cases).collect();
    let mut is_stable = false;
    while !is_stable {
        is_stable = true;
        for cases in &unions {
            if cases.iter().any(|case| writes[*case]) && !cases.iter().all(|case| writes[*case]) {
                cases.iter().for_each(|case| writes[*case] = true);
                is_stable = false;
            }
        }
    }
    writes
}

/// The key and the tag that a record carries.
pub(super) fn tag<'m>(ty: &PlannedType<'m>) -> Option<(&'m WireName, &'m WireName)> {
    match &ty.definition {
        PlannedDefinition::Record(fields) => fields.iter().find_map(|field| match &field.slot.ty {
            Type::Constant(tag) => Some((field.wire, tag)),
            Type::Any | Type::Scalar(_) | Type::List(_) | Type::Map(_) | Type::Tuple(_) | Type::Named(_) => {
                None
            }
        }),
        PlannedDefinition::Enumeration(_) | PlannedDefinition::Union(_) => None,
    }
}

/// The types that are a tagged union's cases.
fn tagged_cases(ty: &PlannedType<'_>) -> Vec<usize> {
    match &ty.definition {
        PlannedDefinition::Union(union) => {
            let cases = union.cases.iter().filter(|case| case.tag.is_some());
            cases.flat_map(|case| case.slot.ty.named()).map(TypeId::index).collect()
        }
        PlannedDefinition::Record(_) | PlannedDefinition::Enumeration(_) => Vec::new(),
    }
}
