//! Joining: two types of a model become one.

use jar_sprout_model::{
    Definition, Field, Model, Presence, Record, Scalar, ScalarKind, Slot, TimeForms, Type, TypeId,
};

use crate::model::Settled;

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
    let joined = Definition::Record(joined(into, from));
    model.get_mut(kept).definition = joined;
    model.replace(gone, kept);
    let origins = settled.origins[gone.index()].clone();
    settled.origins[kept.index()].extend(origins);
    true
}

/// The fields of two records in one, those of the first one first.
fn joined(first: &Record, second: &Record) -> Record {
    let other =
        |fields: &[Field], field: &Field| fields.iter().find(|other| other.wire == field.wire).cloned();
    let mut fields: Vec<Field> = first
        .fields
        .iter()
        .map(|field| match other(&second.fields, field) {
            Some(theirs) => joined_field(field, &theirs),
            None => Field { presence: Presence::Sometimes, ..field.clone() },
        })
        .collect();
    let added = second.fields.iter().filter(|field| other(&first.fields, field).is_none());
    fields.extend(added.map(|field| Field { presence: Presence::Sometimes, ..field.clone() }));
    Record { fields, extras: first.extras.clone().or_else(|| second.extras.clone()) }
}

fn joined_field(mine: &Field, theirs: &Field) -> Field {
    let slot = Slot {
        ty: joined_type(&mine.slot.ty, &theirs.slot.ty),
        nullable: mine.slot.nullable || theirs.slot.nullable,
    };
    Field { presence: mine.presence.max(theirs.presence), slot, ..mine.clone() }
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

/// The pairs of records that look like one thing: three keys and more in common, and more than half of all.
pub(crate) fn near_alike(model: &Model) -> Vec<NearAlike> {
    // What is asked for besides the root was made from other types, or has a name of its own.
    let is_asked_for = |id: TypeId| model.more_roots.iter().any(|root| root.slot.ty == Type::Named(id));
    let records: Vec<(TypeId, &Record)> = model
        .types()
        .filter(|(id, _)| !is_asked_for(*id))
        .filter_map(|(id, ty)| match &ty.definition {
            Definition::Record(record) => Some((id, record)),
            Definition::Enumeration(_) | Definition::Union(_) => None,
        })
        .collect();
    let is_case = |id: TypeId| {
        model.types().any(|(_, ty)| match &ty.definition {
            Definition::Union(union) => union.cases.iter().any(|case| case.slot.ty == Type::Named(id)),
            Definition::Record(_) | Definition::Enumeration(_) => false,
        })
    };
    let mut pairs = Vec::new();
    for (at, (first, a)) in records.iter().enumerate() {
        for (second, b) in &records[at + 1..] {
            let shared =
                a.fields.iter().filter(|field| b.fields.iter().any(|other| other.wire == field.wire)).count();
            let all = a.fields.len() + b.fields.len() - shared;
            // The cases of one union share keys by their nature.
            if shared >= 3 && shared * 2 > all && !(is_case(*first) && is_case(*second)) {
                pairs.push(NearAlike { first: *first, second: *second, shared, all });
            }
        }
    }
    pairs
}
