//! Verdicts on types, a function each.

use jar_sprout_model::{Case, Definition, NamedType, Slot, Type, TypeId, Union, UnionCase, WireName, Words};

use super::join::join;
use super::verdict::{Derivation, TypeVerdict};
use super::{Deciding, matches};
use crate::subject::Lack;

impl Deciding<'_, '_> {
    pub(super) fn decide_type(&mut self, id: TypeId, verdict: &TypeVerdict) -> Result<(), Lack> {
        match verdict {
            TypeVerdict::Structure(_) => Err(Lack::Samples),
            TypeVerdict::SameAs(name) => self.join(id, name),
            TypeVerdict::EnumOf(values) => self.set_values(id, values),
            TypeVerdict::Keep(keys) => self.keep(id, keys),
            TypeVerdict::LeaveOut => self.leave_type_out(id),
            TypeVerdict::Cases(named) => self.name_cases(id, named),
            TypeVerdict::Closed(is_closed) => self.close(id, *is_closed),
            TypeVerdict::Describe(text) => {
                let ty = self.settled.model.get_mut(id);
                ty.docs = ty.docs.with_text(text);
                Ok(())
            }
            TypeVerdict::Deprecated(is_deprecated) => {
                self.settled.model.get_mut(id).docs.is_deprecated = *is_deprecated;
                Ok(())
            }
            TypeVerdict::Rename(name) => {
                self.renamed.insert(id, name.clone());
                Ok(())
            }
            TypeVerdict::Derive(derivation) => self.note_derivation(id, derivation),
        }
    }

    /// Makes one type of two.
    fn join(&mut self, gone: TypeId, name: &str) -> Result<(), Lack> {
        let kept = self.named(name)?;
        if let Some(union) = self.union_of_both(gone, kept) {
            return Err(Lack::OneCase { union });
        }
        if gone == kept || join(self.settled, gone, kept) {
            self.names.values_mut().filter(|id| **id == gone).for_each(|id| *id = kept);
            return Ok(());
        }
        Err(Lack::Record { name: name.to_owned() })
    }

    /// The union that has both of two types as cases.
    fn union_of_both(&self, first: TypeId, second: TypeId) -> Option<String> {
        let has = |union: &Union, id: TypeId| union.cases.iter().any(|case| case.slot.ty == Type::Named(id));
        let is_it = |ty: &NamedType| match &ty.definition {
            Definition::Union(union) => first != second && has(union, first) && has(union, second),
            Definition::Record(_) | Definition::Enumeration(_) => false,
        };
        let types = self.settled.model.types();
        types.map(|(_, ty)| ty).find(|ty| is_it(ty)).map(|ty| ty.name.in_capitals())
    }

    fn set_values(&mut self, id: TypeId, values: &[String]) -> Result<(), Lack> {
        let Definition::Enumeration(known) = &mut self.settled.model.get_mut(id).definition else {
            return Err(Lack::Enum);
        };
        known.cases = values.iter().map(|value| Case::new(WireName::new(value))).collect();
        Ok(())
    }

    fn keep(&mut self, id: TypeId, keys: &[String]) -> Result<(), Lack> {
        let ty = self.settled.model.get(id);
        let Definition::Record(record) = &ty.definition else { return Err(Lack::Fields) };
        let is_gone = |key: &WireName| !keys.iter().any(|kept| matches(kept, key.as_str()));
        let keys_of = || record.fields.iter().map(|field| &field.wire);
        self.left_out.extend(keys_of().filter(|key| is_gone(key)).map(|key| (id, key.clone())));
        let is_missing = |kept: &&String| !keys_of().any(|key| matches(kept, key.as_str()));
        keys.iter().find(is_missing).map_or(Ok(()), |missing| Err(no_part(ty, missing)))
    }

    /// A type goes with all that holds it: fields, cases of unions, further roots.
    fn leave_type_out(&mut self, gone: TypeId) -> Result<(), Lack> {
        let model = &mut self.settled.model;
        let holds = |slot: &Slot| slot.ty.named().any(|id| id == gone);
        let is_whole = |case: &UnionCase| holds(&case.slot);
        let mut unions = model.types().filter_map(|(_, ty)| match &ty.definition {
            Definition::Union(union) => Some(union),
            Definition::Record(_) | Definition::Enumeration(_) => None,
        });
        let is_empty = unions.any(|union| union.cases.iter().all(is_whole));
        drop(unions);
        if holds(&model.root.slot) || is_empty {
            return Err(Lack::Rest);
        }
        model.more_roots.retain(|root| !holds(&root.slot));
        let ids: Vec<TypeId> = model.types().map(|(id, _)| id).collect();
        for id in ids {
            let ty = model.get_mut(id);
            ty.base = ty.base.filter(|base| *base != gone);
            match &mut ty.definition {
                Definition::Record(record) => {
                    let fields = record.fields.iter().filter(|field| holds(&field.slot));
                    self.left_out.extend(fields.map(|field| (id, field.wire.clone())));
                    if record.extras.as_ref().is_some_and(holds) {
                        record.extras = Some(Slot::of(Type::Any));
                    }
                }
                Definition::Union(union) => union.cases.retain(|case| !holds(&case.slot)),
                Definition::Enumeration(_) => {}
            }
        }
        Ok(())
    }

    fn name_cases(&mut self, id: TypeId, named: &[(String, String)]) -> Result<(), Lack> {
        for (value, name) in named {
            let ty = self.settled.model.get_mut(id);
            let called = match &mut ty.definition {
                Definition::Enumeration(known) => {
                    known.cases.iter_mut().find(|case| case.wire.as_str() == value).map(|case| &mut case.name)
                }
                Definition::Union(union) => {
                    let is_meant = |case: &&mut UnionCase| {
                        case.tag.as_ref().is_some_and(|tag| tag.as_str() == value)
                            || case.name.in_capitals() == *value
                    };
                    union.cases.iter_mut().find(is_meant).map(|case| &mut case.name)
                }
                Definition::Record(_) => return Err(Lack::Enum),
            };
            match called {
                Some(called) => *called = Words::split(name),
                None => return Err(no_part(self.settled.model.get(id), value)),
            }
        }
        Ok(())
    }

    pub(super) fn close(&mut self, id: TypeId, is_closed: bool) -> Result<(), Lack> {
        let Definition::Enumeration(known) = &mut self.settled.model.get_mut(id).definition else {
            return Err(Lack::Enum);
        };
        known.is_closed = is_closed;
        Ok(())
    }

    fn note_derivation(&mut self, id: TypeId, derivation: &Derivation) -> Result<(), Lack> {
        let ty = self.settled.model.get(id);
        let Definition::Record(record) = &ty.definition else { return Err(Lack::Fields) };
        let has = |key: &&String| record.fields.iter().any(|field| matches(key, field.wire.as_str()));
        if let Some(missing) = derivation.server_made.iter().find(|key| !has(key)) {
            return Err(no_part(ty, missing));
        }
        let known = (id, derivation.clone());
        if !self.derived.contains(&known) {
            self.derived.push(known);
        }
        Ok(())
    }
}

/// A field, a value or a case that a type does not have.
fn no_part(ty: &NamedType, part: &str) -> Lack {
    let known: Vec<&str> = match &ty.definition {
        Definition::Record(record) => record.fields.iter().map(|field| field.wire.as_str()).collect(),
        Definition::Enumeration(known) => known.cases.iter().map(|case| case.wire.as_str()).collect(),
        Definition::Union(union) => {
            union.cases.iter().filter_map(|case| case.tag.as_ref().map(WireName::as_str)).collect()
        }
    };
    let name = ty.name.in_capitals();
    Lack::Part {
        asked: format!("{name}.{part}"),
        known: known.iter().map(|known| format!("{name}.{known}")).collect(),
    }
}
