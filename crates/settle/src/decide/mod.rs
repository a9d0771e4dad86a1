//! Decisions: the user's word on a type or a field, which stands above what the samples say.

mod derive;
mod fields;
pub(crate) mod join;
mod types;
pub(crate) mod verdict;

use std::collections::{BTreeMap, BTreeSet, HashMap};

use jar_sprout_model::{Definition, Field, Type, TypeId, WireName, Words};

use crate::draft::Drafted;
use crate::model::Settled;
use crate::subject::{Lack, Miss, Subject};
use derive::derive;
use verdict::{Decision, Derivation, TypeVerdict, Verdict};

/// Applies decisions to a settled model; types that are needed no more go. Those that match nothing are told.
pub fn decide(settled: &mut Settled, drafted: &Drafted, decisions: &[Decision]) -> Vec<Miss> {
    let mut deciding = Deciding::new(settled, drafted, decisions);
    let mut in_turn = each_once(decisions);
    in_turn.sort_by_key(|decision| decision.verdict.phase());
    let misses = in_turn.into_iter().filter_map(|decision| deciding.apply(decision)).collect();
    let Deciding { left_out, renamed, derived, .. } = deciding;
    leave_out(settled, &left_out);
    for (id, derivation) in derived {
        derive(settled, id, &derivation);
    }
    rename(settled, renamed);
    let kept = settled.model.drop_unreached();
    settled.origins = kept.iter().map(|old| settled.origins[*old].clone()).collect();
    misses
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
    /// What is decided of by itself.
    explicit: BTreeSet<Subject>,
    /// Whether something is sent in another form than it is read.
    has_sent: bool,
}

impl<'s, 'd> Deciding<'s, 'd> {
    fn new(settled: &'s mut Settled, drafted: &'d Drafted, decisions: &[Decision]) -> Self {
        let mut names: BTreeMap<String, TypeId> =
            settled.model.types().map(|(id, ty)| (ty.name.in_capitals(), id)).collect();
        for Decision { subject, verdict } in decisions {
            if let (Verdict::Type(TypeVerdict::Rename(new)), Some(id)) =
                (verdict, names.get(&subject.type_name).copied())
            {
                names.entry(Words::split(new).in_capitals()).or_insert(id);
            }
        }
        let (left_out, renamed) = (BTreeSet::new(), BTreeMap::new());
        let draft = &drafted.draft;
        let has_sent = draft.ids().any(|id| draft.node(id).sent_of.is_some());
        let explicit = decisions.iter().map(|decision| decision.subject.clone()).collect();
        Self { settled, drafted, names, left_out, derived: Vec::new(), renamed, explicit, has_sent }
    }

    /// What is wrong with a decision, if something is. One on a pattern is well where any of its targets is.
    fn apply(&mut self, decision: &Decision) -> Option<Miss> {
        let Decision { subject, verdict } = decision;
        let miss = |lack| Miss { subject: subject.clone(), lack };
        let applied: Vec<Result<(), Lack>> = match verdict {
            Verdict::Type(verdict) => match self.types(&subject.type_name) {
                Ok(types) => types.into_iter().map(|id| self.decide_type(id, verdict)).collect(),
                Err(lack) => return Some(miss(lack)),
            },
            Verdict::Field(verdict) => match self.fields_of(subject) {
                Ok(fields) => {
                    let sent = if verdict.reaches_sent() { self.sent_of(&fields) } else { Vec::new() };
                    let all = fields.iter().chain(&sent);
                    all.map(|(id, key)| self.decide_field(*id, key, verdict)).collect()
                }
                Err(lack) => return Some(miss(lack)),
            },
        };
        if subject.is_pattern() && applied.iter().any(Result::is_ok) {
            return None;
        }
        applied.into_iter().find_map(Result::err).map(miss)
    }

    /// The types that a name or a pattern means.
    fn types(&self, name: &str) -> Result<BTreeSet<TypeId>, Lack> {
        let types: BTreeSet<TypeId> = match self.names.get(name) {
            Some(id) => BTreeSet::from([*id]),
            None => self.names.iter().filter(|(known, _)| matches(name, known)).map(|(_, id)| *id).collect(),
        };
        if types.is_empty() { Err(self.no_type(name)) } else { Ok(types) }
    }

    fn no_type(&self, name: &str) -> Lack {
        Lack::Type { name: name.to_owned(), known: self.names.keys().cloned().collect() }
    }

    /// The fields that a subject means.
    fn fields_of(&self, subject: &Subject) -> Result<Vec<(TypeId, WireName)>, Lack> {
        let mut targets = Vec::new();
        let mut known = Vec::new();
        for id in self.types(&subject.type_name)? {
            let fields = self.fields(id);
            let name = self.settled.model.get(id).name.in_capitals();
            known.extend(fields.iter().map(|field| format!("{name}.{}", field.wire)));
            let Some(key) = &subject.key else { continue };
            let is_exact = fields.iter().any(|field| field.wire == *key);
            let meant = |field: &&Field| {
                if is_exact { field.wire == *key } else { matches(key.as_str(), field.wire.as_str()) }
            };
            targets.extend(fields.iter().filter(meant).map(|field| (id, field.wire.clone())));
        }
        if targets.is_empty() { Err(Lack::Field { known }) } else { Ok(targets) }
    }

    /// The same fields in what is sent of these types, but for those of which something is decided by themselves.
    fn sent_of(&self, fields: &[(TypeId, WireName)]) -> Vec<(TypeId, WireName)> {
        let Settled { model, origins, .. } = &*self.settled;
        if !self.has_sent {
            return Vec::new();
        }
        let is_sent_of = |other: TypeId, id: TypeId| {
            let read =
                origins[other.index()].iter().filter_map(|node| self.drafted.draft.node(*node).sent_of);
            read.into_iter().any(|read| origins[id.index()].contains(&read))
        };
        let mut sent = Vec::new();
        for (id, key) in fields {
            for (other, ty) in model.types() {
                let has_key = ty.definition.fields().iter().any(|field| field.wire == *key);
                let is_asked = self.explicit.contains(&Subject::of(&ty.name, key));
                if has_key && !is_asked && is_sent_of(other, *id) {
                    sent.push((other, key.clone()));
                }
            }
        }
        sent
    }

    fn fields(&self, id: TypeId) -> &[Field] {
        self.settled.model.get(id).definition.fields()
    }

    fn field(&self, id: TypeId, key: &WireName) -> Option<&Field> {
        self.fields(id).iter().find(|field| field.wire == *key)
    }

    fn named(&self, name: &str) -> Result<TypeId, Lack> {
        self.names.get(name).copied().ok_or_else(|| self.no_type(name))
    }
}

/// One that comes again counts where it comes last: what was decided later stands above it.
fn each_once(decisions: &[Decision]) -> Vec<&Decision> {
    let mut later: HashMap<&Subject, Vec<&Verdict>> = HashMap::new();
    let mut in_turn: Vec<&Decision> = decisions
        .iter()
        .rev()
        .filter(|Decision { subject, verdict }| {
            let verdicts = later.entry(subject).or_default();
            let is_last = !verdicts.contains(&verdict);
            verdicts.push(verdict);
            is_last
        })
        .collect();
    in_turn.reverse();
    in_turn
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
