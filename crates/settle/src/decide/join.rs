//! Joining: two types of a model become one.

use std::collections::{BTreeMap, BTreeSet};

use jar_sprout_model::{
    Definition, Encoding, Field, Kind, Model, NamedType, Presence, Record, Scalar, ScalarKind, Slot,
    TimeForms, Type, TypeId, Union, UnionCase, WireName, Words,
};

use crate::model::Settled;
use crate::model::naming_sites::word_of;

/// Makes one record of two. Everything that was `gone` is `kept` from now on; what only one of them had may be missing.
///
/// Answers false, and changes nothing, unless both are records.
pub(crate) fn join(settled: &mut Settled, gone: TypeId, kept: TypeId) -> bool {
    let model = &mut settled.model;
    let (Definition::Record(from), Definition::Record(into)) =
        (&model.get(gone).definition, &model.get(kept).definition)
    else {
        return false;
    };
    let (mut record, clashes) = joined(model, into, from);
    for Clash { field, kinds } in clashes {
        record.fields[field].slot.ty = Type::Named(push_union(settled, kept, &record.fields[field], kinds));
    }
    let model = &mut settled.model;
    model.get_mut(kept).definition = Definition::Record(record);
    model.replace(gone, kept);
    let origins = settled.origins[gone.index()].clone();
    settled.origins[kept.index()].extend(origins);
    true
}

/// A field of a joined record in which values of two kinds stand.
struct Clash {
    field: usize,
    kinds: [(Kind, Type); 2],
}

/// Adds a union of two kinds for what stands in a field.
fn push_union(settled: &mut Settled, owner: TypeId, field: &Field, kinds: [(Kind, Type); 2]) -> TypeId {
    let case = |(kind, ty): (Kind, Type)| UnionCase {
        name: Words::split(word_of(kind)),
        tag: None,
        slot: Slot::of(ty),
    };
    let cases = kinds.map(case).to_vec();
    let mut name = field.name.prefixed(&settled.model.get(owner).name);
    while settled.model.types().any(|(_, ty)| ty.name == name) {
        name = name.with_word("value");
    }
    let union = Definition::Union(Union { tag: None, cases });
    settled.origins.push(Vec::new());
    settled.model.push(NamedType::new(name, union))
}

/// The kind of all values of a type, if they are of one; whole numbers are numbers.
fn kind_of(model: &Model, ty: &Type) -> Option<Kind> {
    match ty {
        Type::Any => None,
        Type::Scalar(scalar) => Some(match scalar.kind() {
            ScalarKind::Boolean => Kind::Boolean,
            ScalarKind::Integer | ScalarKind::Number => Kind::Number,
            ScalarKind::Text => Kind::Text,
        }),
        Type::Constant(_) => Some(Kind::Text),
        Type::List(_) | Type::Tuple(_) => Some(Kind::List),
        Type::Map(_) => Some(Kind::Object),
        Type::Named(id) => match &model.get(*id).definition {
            Definition::Record(_) => Some(Kind::Object),
            Definition::Enumeration(_) => Some(Kind::Text),
            Definition::Union(union) => union.tag.is_some().then_some(Kind::Object),
        },
    }
}

/// The fields of two records in one, those of the first one first, and those in which two kinds of value stand now.
fn joined(model: &Model, first: &Record, second: &Record) -> (Record, Vec<Clash>) {
    let mut clashes = Vec::new();
    let other =
        |fields: &[Field], field: &Field| fields.iter().find(|other| other.wire == field.wire).cloned();
    let mut fields: Vec<Field> = first
        .fields
        .iter()
        .enumerate()
        .map(|(at, field)| match other(&second.fields, field) {
            Some(theirs) => {
                let (mine, other) = (&field.slot.ty, &theirs.slot.ty);
                if let (Some(kind), Some(others)) = (kind_of(model, mine), kind_of(model, other))
                    && kind != others
                    && field.encoding == Encoding::Plain
                    && theirs.encoding == Encoding::Plain
                {
                    clashes.push(Clash { field: at, kinds: [(kind, mine.clone()), (others, other.clone())] });
                }
                joined_field(field, &theirs)
            }
            None => Field { presence: Presence::Sometimes, ..field.clone() },
        })
        .collect();
    let added = second.fields.iter().filter(|field| other(&first.fields, field).is_none());
    fields.extend(added.map(|field| Field { presence: Presence::Sometimes, ..field.clone() }));
    let record = Record { fields, extras: first.extras.clone().or_else(|| second.extras.clone()) };
    (record, clashes)
}

fn joined_field(mine: &Field, theirs: &Field) -> Field {
    let is_one_encoding = mine.encoding == theirs.encoding;
    let ty = if is_one_encoding { joined_type(&mine.slot.ty, &theirs.slot.ty) } else { Type::Any };
    let slot = Slot { ty, nullable: mine.slot.nullable || theirs.slot.nullable };
    let encoding = if is_one_encoding { mine.encoding.clone() } else { Encoding::Plain };
    Field { presence: mine.presence.max(theirs.presence), slot, encoding, ..mine.clone() }
}

/// A type that takes the values of both.
fn joined_type(mine: &Type, theirs: &Type) -> Type {
    match (mine, theirs) {
        (mine, theirs) if mine == theirs => mine.clone(),
        (Type::Any, other) | (other, Type::Any) => other.clone(),
        (Type::Scalar(a), Type::Scalar(b)) if is_one_time(*a, *b) => {
            let forms = [a, b].into_iter().filter_map(|one| one.time_forms());
            Type::Scalar(a.with_time_forms(forms.fold(TimeForms::ALL, TimeForms::and)))
        }
        (Type::Scalar(a), Type::Scalar(b)) => match (a.kind(), b.kind()) {
            (ScalarKind::Text, ScalarKind::Text) => Type::Scalar(Scalar::Text),
            (ScalarKind::Integer, ScalarKind::Integer) => Type::Scalar(*a.max(b)),
            (ScalarKind::Integer | ScalarKind::Number, ScalarKind::Integer | ScalarKind::Number) => {
                Type::Scalar(Scalar::Float)
            }
            _ => Type::Any,
        },
        _ => Type::Any,
    }
}

/// Whether two are the same kind of time, though it may be written in other ways.
fn is_one_time(a: Scalar, b: Scalar) -> bool {
    a.with_time_forms(TimeForms::ALL) == b.with_time_forms(TimeForms::ALL)
}

/// Two records of a model that share most of their keys.
pub(crate) struct NearAlike {
    pub(crate) first: TypeId,
    pub(crate) second: TypeId,
    pub(crate) shared: usize,
    pub(crate) all: usize,
}

/// The pairs of records that look like one thing: three keys and more in common, and more than half of all, no kind
/// against it, and nothing that `differ` knows. Of more than two that look alike, the pair that does most.
pub(crate) fn near_alike(model: &Model, differ: &dyn Fn(TypeId, TypeId) -> bool) -> Vec<NearAlike> {
    // What is asked for besides the root was made from other types, or has a name of its own.
    let asked_for: BTreeSet<TypeId> =
        model.more_roots.iter().filter_map(|root| named(&root.slot.ty)).collect();
    // The cases of a union are told apart already.
    let cases: BTreeSet<TypeId> = model
        .types()
        .filter_map(|(_, ty)| match &ty.definition {
            Definition::Union(union) => Some(union.cases.iter().filter_map(|case| named(&case.slot.ty))),
            Definition::Record(_) | Definition::Enumeration(_) => None,
        })
        .flatten()
        .collect();
    let records: BTreeMap<TypeId, &Record> = model
        .types()
        .filter(|(id, _)| !asked_for.contains(id) && !cases.contains(id))
        .filter_map(|(id, ty)| match &ty.definition {
            Definition::Record(record) => Some((id, record)),
            Definition::Enumeration(_) | Definition::Union(_) => None,
        })
        .collect();
    let mut pairs: Vec<NearAlike> = shared_keys(&records)
        .into_iter()
        .filter_map(|((first, second), shared)| {
            let (a, b) = (records[&first], records[&second]);
            let all = a.fields.len() + b.fields.len() - shared;
            let is_near = shared >= 3 && shared * 2 > all && are_compatible(a, b) && !differ(first, second);
            is_near.then_some(NearAlike { first, second, shared, all })
        })
        .collect();
    pairs.sort_by_key(|pair| (std::cmp::Reverse(pair.shared * 1000 / pair.all), pair.first, pair.second));
    let mut asked: BTreeSet<TypeId> = BTreeSet::new();
    // One of a cluster at a time: the answer changes what the others are like.
    pairs.retain(|pair| {
        let is_new = !asked.contains(&pair.first) && !asked.contains(&pair.second);
        asked.extend([pair.first, pair.second]);
        is_new
    });
    pairs.sort_by_key(|pair| (pair.first, pair.second));
    pairs
}

fn named(ty: &Type) -> Option<TypeId> {
    match ty {
        Type::Named(id) => Some(*id),
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::List(_) | Type::Map(_) | Type::Tuple(_) => {
            None
        }
    }
}

/// A key of more records than this says nothing of any two.
const COMMON: usize = 100;

/// How many keys each two records share, if they share one that is not common to very many.
fn shared_keys(records: &BTreeMap<TypeId, &Record>) -> BTreeMap<(TypeId, TypeId), usize> {
    let mut by_key: BTreeMap<&WireName, Vec<TypeId>> = BTreeMap::new();
    for (id, record) in records {
        record.fields.iter().for_each(|field| by_key.entry(&field.wire).or_default().push(*id));
    }
    let mut shared: BTreeMap<(TypeId, TypeId), usize> = BTreeMap::new();
    for ids in by_key.values().filter(|ids| ids.len() <= COMMON) {
        for (at, first) in ids.iter().enumerate() {
            ids[at + 1..].iter().for_each(|second| *shared.entry((*first, *second)).or_default() += 1);
        }
    }
    shared
}

/// Whether what both have under the same key could be one.
fn are_compatible(a: &Record, b: &Record) -> bool {
    let pairs = a
        .fields
        .iter()
        .filter_map(|mine| Some((mine, b.fields.iter().find(|other| other.wire == mine.wire)?)));
    pairs.into_iter().all(|(mine, theirs)| {
        let (mine, theirs) = (&mine.slot.ty, &theirs.slot.ty);
        *mine == Type::Any || *theirs == Type::Any || joined_type(mine, theirs) != Type::Any
    })
}
