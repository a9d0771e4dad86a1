//! Conditions: what holds under `if`, and where a property is there (`dependentSchemas`).

use std::collections::{HashSet, VecDeque};

use super::{Flat, Flattening, NoteKind, Route, Spec};
use crate::value::Value;

/// Something that holds under a condition.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Condition<'d> {
    /// What `if` says, where what holds stands under `then`.
    pub(super) test: Option<&'d Value>,
    /// What holds then.
    pub(super) then: &'d Value,
}

impl<'d> Flattening<'_, 'd> {
    /// Adds what holds under conditions: as alternatives, where they decide by the texts of one key which of them it is;
    /// else as properties that may be there.
    pub(super) fn add_conditions(&mut self, flat: &mut Flat<'d>) {
        if flat.conditions.is_empty() {
            return;
        }
        if let Some(cases) = self.cases_of_conditions(flat) {
            flat.alternatives.push(cases);
            flat.conditions.clear();
            return;
        }
        // Conditions in conditions lead nowhere twice.
        let way = Route { at: &Value::Null, before: None, length: 1 };
        let mut open = VecDeque::from(std::mem::take(&mut flat.conditions));
        while let Some(Condition { then, test: _ }) = open.pop_front() {
            let mut own = Flat::default();
            self.add_one(then, &mut own, Some(&way));
            open.extend(own.conditions);
            for (key, property) in own.properties {
                // Those that are there anyway stay.
                if !flat.properties.contains_key(key) {
                    self.note(then, NoteKind::Condition);
                    flat.properties.insert(key, property);
                }
            }
        }
    }

    /// The alternatives that conditions are, if each tests one key, the same in all, for texts of its own, and together
    /// they test for all that the key may be.
    pub(super) fn cases_of_conditions(&mut self, flat: &Flat<'d>) -> Option<Vec<Spec<'d>>> {
        let [first, _, ..] = &flat.conditions[..] else { return None };
        if !flat.alternatives.is_empty() {
            return None;
        }
        let (key, _) = tested(first.test?)?;
        let property = flat.properties.get(key).filter(|_| flat.required.contains(key))?;
        let mut said = Flat::default();
        let followed = std::mem::take(&mut self.followed);
        self.add(&property.spec, &mut said, None);
        self.followed = followed;
        let mut left: HashSet<&str> =
            said.values?.iter().map(|value| value.as_str()).collect::<Option<_>>()?;
        let mut cases = Vec::with_capacity(flat.conditions.len());
        for Condition { test, then } in &flat.conditions {
            let (test, then) = (test.as_ref().copied()?, *then);
            let (other, values) = tested(test)?;
            // A text that two test for, or that the key never is, tells nothing apart.
            if other != key || !values.iter().all(|value| left.remove(value)) || !then.is_object() {
                return None;
            }
            cases.push(Spec::All(vec![Spec::One(test), Spec::One(then)]));
        }
        left.is_empty().then_some(cases)
    }
}

/// The key that a condition tests, if it tests one and nothing else, and the texts that it tests it for.
fn tested(test: &Value) -> Option<(&str, Vec<&str>)> {
    let object = test.as_object()?;
    let says_more = object.iter().any(|(word, _)| !matches!(word, "properties" | "required" | "type"));
    let mut properties = object.get("properties")?.as_object()?.iter();
    let (key, property) = properties.next()?;
    if says_more || properties.next().is_some() {
        return None;
    }
    let values = match (property.get("const"), property.get("enum").and_then(Value::as_array)) {
        (Some(one), _) => vec![one.as_str()?],
        (None, Some(values)) => values.iter().map(Value::as_str).collect::<Option<_>>()?,
        (None, None) => return None,
    };
    Some((key, values))
}
