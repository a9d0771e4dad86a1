//! Decisions: the user's word on a type or a field, which stands above what the samples say.

pub(crate) mod join;
pub(crate) mod verdict;

use std::collections::{BTreeMap, BTreeSet};

use jar_sprout_model::{
    Case, DefaultValue, Definition, DraftId, Enumeration, Field, NamedType, Numeral, OnWire, Presence, Root,
    Scalar, Slot, Type, TypeId, Width, WireName, Words,
};
use jar_sprout_shape::Distinct;

use crate::decide::join::join;
use crate::decide::verdict::{Decision, Derivation, Purpose, Verdict};
use crate::draft::Drafted;
use crate::model::Settled;
use crate::subject::{Subject, Unmatched};

/// Applies decisions to a settled model; types that are needed no more go. Those that match nothing are told.
pub fn decide(settled: &mut Settled, drafted: &Drafted, decisions: &[Decision]) -> Vec<Unmatched> {
    let mut deciding = Deciding::new(settled, drafted, decisions);
    // One that comes again counts where it comes last: what was decided later stands above it.
    let is_last = |(at, decision): &(usize, &Decision)| !decisions[at + 1..].contains(decision);
    let mut in_turn: Vec<&Decision> =
        decisions.iter().enumerate().filter(is_last).map(|(_, decision)| decision).collect();
    in_turn.sort_by_key(|decision| decision.verdict.turn(decision.subject.key.is_none()));
    for decision in in_turn {
        deciding.apply(decision);
    }
    let Deciding { left_out, renamed, derived, unmatched, .. } = deciding;
    leave_out(settled, &left_out);
    for (id, derivation) in derived {
        derive(settled, id, &derivation);
    }
    rename(settled, renamed);
    let kept = settled.model.drop_unreached();
    settled.origins = kept.iter().map(|old| settled.origins[*old].clone()).collect();
    unmatched
}

/// Decisions on their way into a model.
struct Deciding<'s, 'd> {
    settled: &'s mut Settled,
    drafted: &'d Drafted,
    /// The types by the names that people know them by: as inferred, and as renamed.
    names: BTreeMap<String, TypeId>,
    /// Left out at the end, so that every decision finds its field.
    left_out: BTreeSet<(TypeId, WireName)>,
    /// Derived when their types are done.
    derived: Vec<(TypeId, Derivation)>,
    /// Renamed at the end, so that every decision finds its type.
    renamed: BTreeMap<TypeId, String>,
    unmatched: Vec<Unmatched>,
}

impl<'s, 'd> Deciding<'s, 'd> {
    fn new(settled: &'s mut Settled, drafted: &'d Drafted, decisions: &[Decision]) -> Self {
        let mut names: BTreeMap<String, TypeId> =
            settled.model.types().map(|(id, ty)| (ty.name.in_capitals(), id)).collect();
        for Decision { subject, verdict } in decisions {
            if let (Verdict::Rename(new), None, Some(id)) =
                (verdict, &subject.key, names.get(&subject.type_name).copied())
            {
                names.entry(Words::split(new).in_capitals()).or_insert(id);
            }
        }
        let (left_out, renamed) = (BTreeSet::new(), BTreeMap::new());
        Self { settled, drafted, names, left_out, derived: Vec::new(), renamed, unmatched: Vec::new() }
    }

    fn apply(&mut self, decision: &Decision) {
        let Decision { subject, verdict } = decision;
        let targets = match self.targets(subject) {
            Ok(targets) => targets,
            Err(unmatched) => return self.unmatched.push(unmatched),
        };
        for (id, key) in targets {
            let applied = match &key {
                None => self.decide_type(id, verdict),
                Some(key) => self.decide_field(id, key, verdict),
            };
            if let Err(unmatched) = applied {
                self.unmatched.push(unmatched);
            }
        }
    }

    /// The types, or the fields, that a subject means.
    fn targets(&self, subject: &Subject) -> Result<Vec<(TypeId, Option<WireName>)>, Unmatched> {
        let Subject { type_name, key } = subject;
        let types: BTreeSet<TypeId> = match self.names.get(type_name) {
            Some(id) => BTreeSet::from([*id]),
            None => {
                self.names.iter().filter(|(name, _)| matches(type_name, name)).map(|(_, id)| *id).collect()
            }
        };
        if types.is_empty() {
            return Err(Unmatched { asked: type_name.clone(), known: self.names.keys().cloned().collect() });
        }
        let Some(key) = key else { return Ok(types.into_iter().map(|id| (id, None)).collect()) };
        let mut targets = Vec::new();
        let mut known = Vec::new();
        for id in types {
            let fields = self.fields(id);
            let is_exact = fields.iter().any(|field| field.wire == *key);
            let name = self.settled.model.get(id).name.in_capitals();
            known.extend(fields.iter().map(|field| format!("{name}.{}", field.wire)));
            let meant = |field: &&Field| {
                if is_exact { field.wire == *key } else { matches(key.as_str(), field.wire.as_str()) }
            };
            targets.extend(fields.iter().filter(meant).map(|field| (id, Some(field.wire.clone()))));
        }
        if targets.is_empty() { Err(Unmatched { asked: subject.to_string(), known }) } else { Ok(targets) }
    }

    fn fields(&self, id: TypeId) -> &[Field] {
        match &self.settled.model.get(id).definition {
            Definition::Record(record) => &record.fields,
            Definition::Enumeration(_) | Definition::Union(_) => &[],
        }
    }

    fn decide_type(&mut self, id: TypeId, verdict: &Verdict) -> Result<(), Unmatched> {
        let ty = self.settled.model.get_mut(id);
        match (verdict, &mut ty.definition) {
            (Verdict::SameAs(name), _) => return self.join(id, name),
            (Verdict::Rename(name), _) => {
                self.renamed.insert(id, name.clone());
            }
            (Verdict::Derive(derivation), Definition::Record(record)) => {
                let has = |key: &&String| record.fields.iter().any(|field| matches(key, field.wire.as_str()));
                if let Some(missing) = derivation.server_made.iter().find(|key| !has(key)) {
                    return Err(unmatched_part(ty, missing));
                }
                let known = (id, derivation.clone());
                if !self.derived.contains(&known) {
                    self.derived.push(known);
                }
            }
            (Verdict::Describe(text), _) => ty.docs = ty.docs.with_text(text),
            (Verdict::Deprecated(is_deprecated), _) => ty.docs.is_deprecated = *is_deprecated,
            (Verdict::Closed(is_closed), Definition::Enumeration(known)) => known.is_closed = *is_closed,
            (Verdict::Keep(keys), Definition::Record(record)) => {
                let is_gone = |field: &&Field| !keys.iter().any(|key| matches(key, field.wire.as_str()));
                let gone = record.fields.iter().filter(is_gone).map(|field| (id, field.wire.clone()));
                self.left_out.extend(gone);
                let missing = keys
                    .iter()
                    .find(|key| !record.fields.iter().any(|field| matches(key, field.wire.as_str())));
                if let Some(key) = missing {
                    return Err(unmatched_part(ty, key));
                }
            }
            (Verdict::Cases(named), Definition::Enumeration(known)) => {
                for (value, name) in named {
                    match known.cases.iter_mut().find(|case| case.wire.as_str() == value) {
                        Some(case) => case.name = Words::split(name),
                        None => return Err(unmatched_part(ty, value)),
                    }
                }
            }
            (Verdict::Cases(named), Definition::Union(union)) => {
                for (value, name) in named {
                    let is_meant = |case: &&mut jar_sprout_model::UnionCase| {
                        case.tag.as_ref().is_some_and(|tag| tag.as_str() == value)
                            || case.name.in_capitals() == *value
                    };
                    match union.cases.iter_mut().find(is_meant) {
                        Some(case) => case.name = Words::split(name),
                        None => return Err(unmatched_part(ty, value)),
                    }
                }
            }
            (Verdict::EnumOf(values), Definition::Enumeration(known)) => {
                known.cases = values.iter().map(|value| Case::new(WireName::new(value))).collect();
            }
            (
                Verdict::Scalar(_)
                | Verdict::Any
                | Verdict::List(_)
                | Verdict::Enum
                | Verdict::EnumOf(_)
                | Verdict::Required
                | Verdict::Optional
                | Verdict::Nullable
                | Verdict::NeverNull
                | Verdict::Default(_)
                | Verdict::Split(_)
                | Verdict::LeaveOut
                | Verdict::Keep(_)
                | Verdict::Derive(_)
                | Verdict::Closed(_)
                | Verdict::Cases(_),
                _,
            ) => {
                let known = vec![format!("{}.…", ty.name.in_capitals())];
                return Err(Unmatched { asked: ty.name.in_capitals(), known });
            }
        }
        Ok(())
    }

    fn decide_field(&mut self, id: TypeId, key: &WireName, verdict: &Verdict) -> Result<(), Unmatched> {
        let ty = match verdict {
            Verdict::SameAs(_) | Verdict::Scalar(_) | Verdict::Any | Verdict::List(_) => {
                let decided = self.decided_type(verdict)?;
                let known = self.fields(id).iter().find(|field| field.wire == *key);
                Some(known.map_or_else(|| decided.clone(), |field| self.as_on_wire(&decided, &field.slot.ty)))
            }
            Verdict::Enum => Some(self.seen_values(id, key)),
            Verdict::EnumOf(values) => {
                let known = values.iter().map(WireName::new).collect();
                Some(self.enumeration(id, key, known, None))
            }
            Verdict::Split(name) => return self.split(id, key, name),
            Verdict::Required
            | Verdict::Optional
            | Verdict::Nullable
            | Verdict::NeverNull
            | Verdict::Default(_)
            | Verdict::Rename(_)
            | Verdict::LeaveOut
            | Verdict::Keep(_)
            | Verdict::Describe(_)
            | Verdict::Deprecated(_)
            | Verdict::Derive(_)
            | Verdict::Closed(_)
            | Verdict::Cases(_) => None,
        };
        let subject = Subject::of(&self.settled.model.get(id).name, key);
        if let Verdict::Default(value) = verdict {
            // What may be null is null where it is null.
            let known = self.fields(id).iter().find(|field| field.wire == *key);
            let takes =
                |field: &Field| !field.slot.nullable && self.settled.model.takes_default(&field.slot, value);
            if !known.is_some_and(takes) {
                let kind = match value {
                    DefaultValue::Boolean(_) => "boolean",
                    DefaultValue::Number(_) => "number",
                    DefaultValue::Text(_) => "text",
                };
                return Err(Unmatched { asked: format!("never-null {kind} {subject}"), known: Vec::new() });
            }
        }
        let Some(field) = field_mut(self.settled, id, key) else { return Ok(()) };
        if let Some(ty) = ty {
            field.slot.ty = ty;
        }
        match verdict {
            Verdict::Required => {
                field.presence = Presence::Always;
                field.slot.nullable = false;
            }
            Verdict::Optional => field.presence = Presence::Sometimes,
            Verdict::Default(value) => {
                field.presence = Presence::Sometimes;
                field.default = Some(value.clone());
            }
            Verdict::Nullable => field.slot.nullable = true,
            Verdict::NeverNull => field.slot.nullable = false,
            Verdict::Rename(name) => field.name = Words::split(name),
            Verdict::Describe(text) => field.docs = field.docs.with_text(text),
            Verdict::Deprecated(is_deprecated) => field.docs.is_deprecated = *is_deprecated,
            Verdict::LeaveOut => {
                self.left_out.insert((id, key.clone()));
            }
            Verdict::Closed(_) => {
                // It is said of the type that the field has.
                let named = match &field.slot.ty {
                    Type::Named(named) => Some(*named),
                    Type::Any
                    | Type::Scalar(_)
                    | Type::Constant(_)
                    | Type::List(_)
                    | Type::Map(_)
                    | Type::Tuple(_) => None,
                };
                let unmatched = Unmatched { asked: format!("enum {subject}"), known: Vec::new() };
                return named.map_or(Err(unmatched), |named| self.decide_type(named, verdict));
            }
            Verdict::Keep(_) | Verdict::Cases(_) | Verdict::Derive(_) => {
                return Err(Unmatched { asked: subject.to_string(), known: Vec::new() });
            }
            Verdict::Scalar(_)
            | Verdict::Any
            | Verdict::List(_)
            | Verdict::Enum
            | Verdict::EnumOf(_)
            | Verdict::SameAs(_)
            | Verdict::Split(_) => {}
        }
        if verdict.settles() {
            self.settled.decided.insert(subject);
        }
        Ok(())
    }

    fn named(&self, name: &str) -> Result<TypeId, Unmatched> {
        self.names
            .get(name)
            .copied()
            .ok_or_else(|| Unmatched { asked: name.to_owned(), known: self.names.keys().cloned().collect() })
    }

    /// Makes one type of two.
    fn join(&mut self, gone: TypeId, name: &str) -> Result<(), Unmatched> {
        let kept = self.named(name)?;
        if gone == kept || join(self.settled, gone, kept) {
            self.names.values_mut().filter(|id| **id == gone).for_each(|id| *id = kept);
            return Ok(());
        }
        Err(Unmatched { asked: format!("record {name}"), known: Vec::new() })
    }

    /// Gives what stands in a field a type of its own.
    fn split(&mut self, id: TypeId, key: &WireName, name: &str) -> Result<(), Unmatched> {
        let field = self.fields(id).iter().find(|field| field.wire == *key);
        let Some(whole) = field.and_then(|field| field.slot.ty.named().next()) else {
            let subject = Subject::of(&self.settled.model.get(id).name, key);
            return Err(Unmatched { asked: format!("type in {subject}"), known: Vec::new() });
        };
        let part = NamedType { name: Words::split(name), ..self.settled.model.get(whole).clone() };
        let known_as = part.name.in_capitals();
        let added = self.settled.model.push(part);
        self.names.insert(known_as, added);
        self.settled.origins.push(self.settled.origins[whole.index()].clone());
        if let Some(field) = field_mut(self.settled, id, key) {
            field.slot.ty.rename(&|id| if id == whole { added } else { id });
        }
        Ok(())
    }

    fn decided_type(&self, verdict: &Verdict) -> Result<Type, Unmatched> {
        Ok(match verdict {
            Verdict::Scalar(scalar) => Type::Scalar(*scalar),
            Verdict::List(inner) => Type::List(Box::new(Slot::of(self.decided_type(inner)?))),
            Verdict::SameAs(name) => Type::Named(self.named(name)?),
            _ => Type::Any,
        })
    }

    /// A type that was decided, in letters where the wire has texts and it is a number.
    fn as_on_wire(&self, decided: &Type, known: &Type) -> Type {
        match (decided, known) {
            (Type::List(decided), Type::List(known)) => {
                Type::List(Box::new(Slot::of(self.as_on_wire(&decided.ty, &known.ty))))
            }
            (Type::Scalar(scalar), known) if self.is_text(known) => Type::Scalar(match scalar {
                Scalar::Integer(Width::Narrow | Width::Wide | Width::Exact) => {
                    Scalar::Lettered(Numeral::Integer)
                }
                Scalar::Float => Scalar::Lettered(Numeral::Float),
                Scalar::Decimal => Scalar::Lettered(Numeral::Decimal),
                other => *other,
            }),
            (other, _) => other.clone(),
        }
    }

    fn is_text(&self, ty: &Type) -> bool {
        match ty {
            Type::Scalar(scalar) => scalar.on_wire() == OnWire::Text,
            Type::Named(id) => matches!(self.settled.model.get(*id).definition, Definition::Enumeration(_)),
            Type::Constant(_) => true,
            Type::Any | Type::List(_) | Type::Map(_) | Type::Tuple(_) => false,
        }
    }

    /// An enum of the values that a field had; text where they are too many to know.
    fn seen_values(&mut self, id: TypeId, key: &WireName) -> Type {
        let origin = self.settled.origin(&self.drafted.draft, id, Some(key));
        let texts = origin.and_then(|node| self.drafted.evidence.get(&node)?.texts.as_ref());
        let Some(Distinct::All(values)) = texts.map(jar_sprout_shape::Texts::distinct) else {
            return Type::Scalar(Scalar::Text);
        };
        let mut known: Vec<WireName> = values.iter().map(|(text, _)| WireName::new(*text)).collect();
        known.sort();
        self.enumeration(id, key, known, origin)
    }

    fn enumeration(
        &mut self,
        id: TypeId,
        key: &WireName,
        known: Vec<WireName>,
        origin: Option<DraftId>,
    ) -> Type {
        let cases = known.into_iter().map(Case::new).collect();
        let owner = self.settled.model.get(id).name.clone();
        let Some(field) = self.fields(id).iter().find(|field| field.wire == *key) else {
            return Type::Scalar(Scalar::Text);
        };
        let (ty, name) = (field.slot.ty.clone(), field.name.prefixed(&owner));
        if let Type::Named(known) = ty
            && let Definition::Enumeration(known) = &mut self.settled.model.get_mut(known).definition
        {
            if origin.is_none() {
                known.cases = cases;
            }
            return ty;
        }
        let definition = Definition::Enumeration(Enumeration { cases, is_closed: false });
        let added = self.settled.model.push(NamedType::new(name.clone(), definition));
        self.settled.origins.push(origin.into_iter().collect());
        self.names.entry(name.in_capitals()).or_insert(added);
        Type::Named(added)
    }
}

fn unmatched_part(ty: &NamedType, part: &str) -> Unmatched {
    let known: Vec<&str> = match &ty.definition {
        Definition::Record(record) => record.fields.iter().map(|field| field.wire.as_str()).collect(),
        Definition::Enumeration(known) => known.cases.iter().map(|case| case.wire.as_str()).collect(),
        Definition::Union(union) => {
            union.cases.iter().filter_map(|case| case.tag.as_ref().map(WireName::as_str)).collect()
        }
    };
    let name = ty.name.in_capitals();
    Unmatched {
        asked: format!("{name}.{part}"),
        known: known.iter().map(|known| format!("{name}.{known}")).collect(),
    }
}

fn field_mut<'s>(settled: &'s mut Settled, id: TypeId, key: &WireName) -> Option<&'s mut Field> {
    match &mut settled.model.get_mut(id).definition {
        Definition::Record(record) => record.fields.iter_mut().find(|field| field.wire == *key),
        Definition::Enumeration(_) | Definition::Union(_) => None,
    }
}

/// The tag of a union's case stays: without it nothing tells the cases apart.
fn leave_out(settled: &mut Settled, left_out: &BTreeSet<(TypeId, WireName)>) {
    let ids: BTreeSet<TypeId> = left_out.iter().map(|(id, _)| *id).collect();
    for id in ids {
        if let Definition::Record(record) = &mut settled.model.get_mut(id).definition {
            record.fields.retain(|field| {
                matches!(field.slot.ty, Type::Constant(_)) || !left_out.contains(&(id, field.wire.clone()))
            });
        }
    }
}

/// Adds a type for what a client sends, and asks for it, since nothing else does.
fn derive(settled: &mut Settled, id: TypeId, derivation: &Derivation) {
    let Derivation { name, purpose, server_made } = derivation;
    let mut ty = NamedType { name: Words::split(name), ..settled.model.get(id).clone() };
    ty.alternatives.clear();
    ty.is_patch = *purpose == Purpose::Update;
    if let Definition::Record(record) = &mut ty.definition {
        record.fields.retain(|field| !server_made.iter().any(|key| matches(key, field.wire.as_str())));
        for field in &mut record.fields {
            field.presence = match purpose {
                // What may be null may be left to the server as well.
                Purpose::Create if field.slot.nullable => field.presence,
                Purpose::Create => Presence::Always,
                Purpose::Update => Presence::Sometimes,
            };
        }
    }
    let name = ty.name.clone();
    let added = settled.model.push(ty);
    settled.origins.push(settled.origins[id.index()].clone());
    settled.model.more_roots.push(Root { name, slot: Slot::of(Type::Named(added)) });
}

fn rename(settled: &mut Settled, renamed: BTreeMap<TypeId, String>) {
    for (id, name) in renamed {
        let ty = settled.model.get_mut(id);
        let old = ty.name.in_capitals();
        ty.name = Words::split(&name);
        ty.alternatives.clear();
        let (new, words) = (ty.name.in_capitals(), ty.name.clone());
        if settled.model.root.slot.ty == Type::Named(id) {
            settled.model.root.name = words;
        }
        let moved: Vec<Subject> =
            settled.decided.iter().filter(|subject| subject.type_name == old).cloned().collect();
        for subject in moved {
            settled.decided.remove(&subject);
            settled.decided.insert(Subject { type_name: new.clone(), ..subject });
        }
    }
}

/// Whether a name matches a pattern, in which `*` stands for any part.
fn matches(pattern: &str, name: &str) -> bool {
    let mut parts = pattern.split('*');
    let first = parts.next().unwrap_or_default();
    let Some(mut rest) = name.strip_prefix(first) else { return false };
    let mut parts: Vec<&str> = parts.collect();
    let Some(last) = parts.pop() else { return rest.is_empty() };
    for part in parts {
        match rest.find(part) {
            Some(at) => rest = &rest[at + part.len()..],
            None => return false,
        }
    }
    rest.ends_with(last)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_star_stands_for_any_part() {
        for (pattern, name) in
            [("*", "id"), ("*_at", "created_at"), ("is*", "is"), ("a*b*c", "axxbyyc"), ("id", "id")]
        {
            assert!(matches(pattern, name), "{pattern} {name}");
        }
        for (pattern, name) in [("*_at", "at"), ("id", "ids"), ("a*b*c", "acb"), ("ab*ba", "aba")] {
            assert!(!matches(pattern, name), "{pattern} {name}");
        }
    }
}
