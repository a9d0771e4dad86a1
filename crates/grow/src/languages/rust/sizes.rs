//! How much room values take, so that a large case of an enum stands in a box.

use std::collections::HashMap;

use jar_sprout_model::{Scalar, Slot, Type, TypeId, Width};

use crate::plan::{Fate, Plan, PlannedDefinition, PlannedField, PlannedUnion};

/// The most bytes by which the largest case may exceed the next one: what its linter allows.
const MOST: usize = 200;

/// Which cases of a union stand in a box.
pub(super) fn boxed(plan: &Plan<'_>, union: &PlannedUnion<'_>) -> Vec<bool> {
    let mut sizes = Sizes { plan, known: HashMap::new() };
    let mut bytes: Vec<usize> = union.cases.iter().map(|case| sizes.of_slot(case.slot)).collect();
    // What is not known yet is a `Value`.
    let unknown = usize::from(union.tag.is_some()) * 32;
    let mut boxed = vec![false; bytes.len()];
    loop {
        let largest = (0..bytes.len()).max_by_key(|at| bytes[*at]);
        let Some(largest) = largest else { return boxed };
        let others = bytes.iter().enumerate().filter(|(at, _)| *at != largest).map(|(_, bytes)| *bytes);
        let next = others.chain([unknown]).max().unwrap_or_default();
        if bytes[largest] <= next + MOST {
            return boxed;
        }
        boxed[largest] = true;
        bytes[largest] = 8;
    }
}

struct Sizes<'p> {
    plan: &'p Plan<'p>,
    /// Those of named types; what is being measured stands in a box wherever it meets itself.
    known: HashMap<TypeId, usize>,
}

impl Sizes<'_> {
    fn of_slot(&mut self, slot: &Slot) -> usize {
        let bytes = self.of_type(&slot.ty);
        if slot.nullable { or_none(&slot.ty, bytes) } else { bytes }
    }

    fn of_type(&mut self, ty: &Type) -> usize {
        match ty {
            Type::Any => 32,
            Type::Scalar(scalar) => of_scalar(*scalar),
            Type::Constant(_) | Type::List(_) | Type::Map(_) => 24,
            Type::Tuple(items) => items.iter().map(|item| self.of_slot(item).next_multiple_of(8)).sum(),
            Type::Named(id) => self.of_named(*id),
        }
    }

    fn of_named(&mut self, id: TypeId) -> usize {
        if let Some(bytes) = self.known.get(&id) {
            return *bytes;
        }
        self.known.insert(id, 8);
        let plan = self.plan;
        let bytes = match &plan.get(id).definition {
            PlannedDefinition::Enumeration(_) => 24,
            PlannedDefinition::Record(fields) => {
                let bytes: usize = fields.iter().map(|field| self.of_field(field)).sum();
                let extras = if plan.get(id).extras.is_some() { 24 } else { 0 };
                bytes.next_multiple_of(8) + extras
            }
            PlannedDefinition::Union(union) => {
                union.cases.iter().map(|case| self.of_slot(case.slot)).max().unwrap_or_default().min(8 + MOST)
                    + 8
            }
        };
        self.known.insert(id, bytes);
        bytes
    }

    fn of_field(&mut self, field: &PlannedField<'_>) -> usize {
        match field.fate {
            // The tag is the enum's.
            Fate::Tag(_) => 0,
            Fate::Required | Fate::Nullable => self.of_slot(field.slot),
            Fate::Optional | Fate::Either | Fate::Apart | Fate::Defaulted(_) => {
                or_none(&field.slot.ty, self.of_type(&field.slot.ty))
            }
        }
    }
}

/// Numbers have no value to spare for none.
fn or_none(ty: &Type, bytes: usize) -> usize {
    match ty {
        Type::Scalar(Scalar::Integer(Width::Narrow | Width::Wide | Width::Exact) | Scalar::Float) => {
            bytes * 2
        }
        Type::Any
        | Type::Scalar(_)
        | Type::Constant(_)
        | Type::List(_)
        | Type::Map(_)
        | Type::Tuple(_)
        | Type::Named(_) => bytes,
    }
}

fn of_scalar(scalar: Scalar) -> usize {
    match scalar {
        Scalar::Boolean | Scalar::Always(_) => 1,
        Scalar::Integer(Width::Narrow) | Scalar::Date => 4,
        Scalar::Integer(Width::Wide | Width::Exact) | Scalar::Float | Scalar::Time(_) => 8,
        Scalar::LocalDateTime(_) => 12,
        Scalar::Integer(Width::Big) | Scalar::DateTime(_) => 16,
        Scalar::Decimal => 16,
        Scalar::Text | Scalar::Uuid | Scalar::Uri | Scalar::Coded(_) => 24,
    }
}

#[cfg(test)]
mod tests {
    use jar_sprout_model::{
        Definition, Field, Model, NamedType, Presence, Record, Root, Union, UnionCase, WireName, Words,
    };

    use super::*;
    use crate::languages::rust::settings::RustOptions;
    use crate::prepare::prepare;
    use crate::settings::Settings;

    /// Which cases stand in a box, of a union of records with so many texts each.
    fn boxed_of(texts: &[usize]) -> Vec<bool> {
        let record = |(case, count): (usize, &usize)| {
            let field = |at: usize| {
                let text = Slot::of(Type::Scalar(Scalar::Text));
                Field::new(WireName::new(format!("text{at}of{case}")), Presence::Always, text)
            };
            Definition::Record(Record::of((0..*count).map(field).collect()))
        };
        let named = |at: usize| Slot::of(Type::Named(TypeId::from_index(at)));
        let case = |at: usize| UnionCase {
            name: Words::split(&format!("case{at}")),
            tag: None,
            slot: named(at + 1),
        };
        let union = Union { tag: None, cases: (0..texts.len()).map(case).collect() };
        let types = [Definition::Union(union)].into_iter().chain(texts.iter().enumerate().map(record));
        let ty = |(at, definition)| NamedType::new(Words::split(&format!("hive{at}")), definition);
        let root = Root { name: Words::split("hive0"), slot: named(0) };
        let model = Model::new(types.enumerate().map(ty).collect(), root);
        let abilities = RustOptions::of(&Settings::default()).abilities();
        let prepared = prepare(&model, &abilities);
        let plan = Plan::of(&prepared, &super::super::ABOUT.naming, &abilities);
        let PlannedDefinition::Union(union) = &plan.types[0].definition else { panic!("it is a union") };
        boxed(&plan, union)
    }

    #[test]
    fn what_is_much_larger_than_the_rest_stands_in_a_box() {
        assert_eq!(boxed_of(&[1, 2]), [false, false]);
        assert_eq!(boxed_of(&[1, 12]), [false, true]);
        assert_eq!(boxed_of(&[12, 13]), [false, false]);
        assert_eq!(boxed_of(&[1, 20, 30]), [false, true, true]);
    }
}
