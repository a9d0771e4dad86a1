//! Tags: the unions that records are cases of, and which records must write the tag that they carry, since no union
//! around them does it.

use std::collections::HashMap;

use jar_sprout_model::{Encoding, Scalar, Type, TypeId, WireName};

use super::{
    Fate, Ident, Plan, PlannedDefinition, PlannedField, PlannedRoot, PlannedType, PlannedUnion,
    PlannedUnionCase,
};

impl<'m> Plan<'m> {
    /// The tagged union that a record is a case of as it is, and whose other cases are such records too.
    pub(crate) fn union_of(&self, id: TypeId) -> Option<&PlannedType<'m>> {
        self.unions_of(id).find(|ty| match &ty.definition {
            PlannedDefinition::Union(union) => self.has_direct_cases(union),
            PlannedDefinition::Record(_) | PlannedDefinition::Enumeration(_) => false,
        })
    }

    /// Whether each case of a union is a record that carries the tag and is no other union's case, so that
    /// nothing needs to stand around it.
    pub(crate) fn has_direct_cases(&self, union: &PlannedUnion<'_>) -> bool {
        union.tag.is_some() && union.cases.iter().all(|case| self.direct_case(case).is_some())
    }

    /// The record that is a tagged case as it is, of one union alone.
    pub(crate) fn direct_case(&self, case: &PlannedUnionCase<'_>) -> Option<&PlannedType<'m>> {
        match case.slot.ty {
            Type::Named(id)
                if case.tag.is_some() && self.is_record(id) && self.unions_of(id).count() == 1 =>
            {
                Some(self.get(id))
            }
            Type::Named(_)
            | Type::Any
            | Type::Scalar(_)
            | Type::Constant(_)
            | Type::List(_)
            | Type::Map(_)
            | Type::Tuple(_) => None,
        }
    }

    /// The key and the tag that a record writes by itself, since no union does it.
    pub(crate) fn tag_to_write(&self, ty: &PlannedType<'m>) -> Option<(&'m WireName, &'m WireName)> {
        if self.writes_tag[ty.id.index()] { tag(ty) } else { None }
    }

    /// Whether the cases of a union write the tags that they carry.
    pub(crate) fn have_cases_tags(&self, union: &PlannedUnion<'_>) -> bool {
        let ids = union.cases.iter().filter(|case| case.tag.is_some()).flat_map(|case| case.slot.ty.named());
        ids.into_iter().any(|id| self.writes_tag[id.index()])
    }

    /// The fields that all cases of a union have alike, as its first case has them: they can be reached without
    /// telling the cases apart. None where a case is no record of its own, or no language would reach them so.
    pub(crate) fn shared_fields(&self, id: TypeId) -> Vec<&PlannedField<'m>> {
        let (Some(shared), PlannedDefinition::Union(union)) =
            (self.shared.get(&id), &self.get(id).definition)
        else {
            return Vec::new();
        };
        let first = union.cases.first().and_then(|case| self.direct_case(case));
        let fields = first.map(PlannedType::fields).unwrap_or_default();
        fields.iter().filter(|field| shared.contains(&field.ident)).collect()
    }

    /// Whether a record is a case of a union whose cases all have this field.
    pub(crate) fn is_shared(&self, ty: &PlannedType<'m>, field: &PlannedField<'m>) -> bool {
        let unions = self.unions.get(&ty.id).into_iter().flatten();
        unions.filter_map(|union| self.shared.get(union)).any(|shared| shared.contains(&field.ident))
    }

    /// By union, the fields that all of its cases have alike.
    pub(super) fn shared_by_union(&self, taken: &[&str]) -> HashMap<TypeId, Vec<Ident>> {
        let mut all = HashMap::new();
        for ty in &self.types {
            let PlannedDefinition::Union(union) = &ty.definition else { continue };
            if union.cases.len() < 2 || !self.has_direct_cases(union) {
                continue;
            }
            let mut cases =
                union.cases.iter().filter_map(|case| self.direct_case(case)).map(PlannedType::fields);
            let Some(first) = cases.next() else { continue };
            let is_case = |ident: &Ident| union.cases.iter().any(|case| case.ident == *ident);
            let is_free = |field: &&PlannedField<'_>| {
                is_plain(field) && !taken.contains(&field.ident.as_str()) && !is_case(&field.ident)
            };
            let mut shared: Vec<&PlannedField<'_>> = first.iter().filter(is_free).collect();
            for fields in cases {
                shared.retain(|field| fields.iter().any(|other| is_alike(field, other)));
            }
            if !shared.is_empty() {
                all.insert(ty.id, shared.iter().map(|field| field.ident.clone()).collect());
            }
        }
        all
    }

    fn is_record(&self, id: TypeId) -> bool {
        match &self.get(id).definition {
            PlannedDefinition::Record(_) => true,
            PlannedDefinition::Enumeration(_) | PlannedDefinition::Union(_) => false,
        }
    }

    /// The unions that a type is a tagged case of.
    pub(crate) fn unions_of(&self, id: TypeId) -> impl Iterator<Item = &PlannedType<'m>> {
        self.unions.get(&id).into_iter().flatten().map(|union| self.get(*union))
    }
}

/// Whether a field is read and written as its type is, and may be spoken of.
fn is_plain(field: &PlannedField<'_>) -> bool {
    let is_usual = match field.fate {
        Fate::Required | Fate::Nullable | Fate::Optional | Fate::Either => true,
        Fate::Tag(_) | Fate::Apart | Fate::Defaulted(_) => false,
    };
    is_usual
        && !field.docs.is_deprecated
        && *field.encoding == Encoding::Plain
        && !matches!(field.slot.ty, Type::Scalar(Scalar::Coded(_)))
}

fn is_alike(field: &PlannedField<'_>, other: &PlannedField<'_>) -> bool {
    field.ident == other.ident
        && field.wire == other.wire
        && field.slot.ty == other.slot.ty
        && is_plain(other)
}

/// By type, the unions that it is a tagged case of.
pub(super) fn unions(types: &[PlannedType<'_>]) -> HashMap<TypeId, Vec<TypeId>> {
    let mut unions: HashMap<TypeId, Vec<TypeId>> = HashMap::new();
    for ty in types {
        let PlannedDefinition::Union(union) = &ty.definition else { continue };
        for case in union.cases.iter().filter(|_| union.tag.is_some()) {
            if let Type::Named(id) = case.slot.ty {
                let known = unions.entry(id).or_default();
                if known.last() != Some(&ty.id) {
                    known.push(ty.id);
                }
            }
        }
    }
    unions
}

/// By type, whether it is a record that carries a tag and is written by itself somewhere, or a case of a tagged union
/// beside such a record: a union then writes all its cases as they are.
pub(super) fn writes_tag(types: &[PlannedType<'_>], roots: &[PlannedRoot<'_>]) -> Vec<bool> {
    let mut writes = vec![false; types.len()];
    let mut alone = |ty: &Type| ty.named().for_each(|id| writes[id.index()] = true);
    roots.iter().for_each(|root| alone(&root.slot().ty));
    for ty in types {
        match &ty.definition {
            PlannedDefinition::Record(fields) => {
                fields.iter().for_each(|field| alone(&field.slot.ty));
            }
            PlannedDefinition::Union(union) => {
                let untagged = union.cases.iter().filter(|case| case.tag.is_none());
                untagged.for_each(|case| alone(&case.slot.ty));
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

impl<'m> PlannedType<'m> {
    /// The fields of a record; none of another type.
    pub(crate) fn fields(&self) -> &[PlannedField<'m>] {
        match &self.definition {
            PlannedDefinition::Record(fields) => fields,
            PlannedDefinition::Enumeration(_) | PlannedDefinition::Union(_) => &[],
        }
    }

    /// The field that holds the tag which a record carries.
    pub(crate) fn tag_field(&self) -> Option<&PlannedField<'m>> {
        self.fields().iter().find(|field| field.fate.tag().is_some())
    }
}

/// The key and the tag that a record carries.
pub(super) fn tag<'m>(ty: &PlannedType<'m>) -> Option<(&'m WireName, &'m WireName)> {
    let field = ty.tag_field()?;
    Some((field.wire, field.fate.tag()?))
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
