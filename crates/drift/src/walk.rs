//! Walking both models at the same time.

use std::collections::{BTreeSet, VecDeque};

use jar_sprout_model::{
    Definition, Docs, Enumeration, Field, Model, NamedType, Presence, Record, Root, ScalarKind, Slot, Type,
    TypeId, Union, UnionCase, WireName, Words,
};
use jar_sprout_settle::Subject;
use jar_sprout_shape::{Path, Step};

use crate::change::{Change, Finding, Side};
use crate::kinds::{is_same_scalar, reads};
use crate::renamed::renamed;

/// What changed from one model to the other, in the order in which types are met.
pub fn drift(old: Side<'_>, new: Side<'_>) -> Vec<Finding> {
    let mut walk = Walk {
        old,
        new,
        pairs: BTreeSet::new(),
        pending: VecDeque::new(),
        alone: Vec::new(),
        renamed: Vec::new(),
        findings: Vec::new(),
    };
    walk.roots();
    // Types may hold each other at any depth, so that nothing here goes down with them.
    while let Some((place, ids)) = walk.pending.pop_front() {
        walk.named(&place, ids);
    }
    walk.tell_parts_alone();
    walk.tell_renamed_types();
    walk.findings
}

/// The most steps of a way.
const LONGEST: usize = 64;

/// So many texts in common are no chance.
const FEWEST_SHARED: usize = 2;

/// Where we are.
#[derive(Debug, Clone)]
struct Place {
    at: Vec<Step>,
    /// The type that is here.
    within: String,
    old: Option<Subject>,
    new: Option<Subject>,
    is_sent: bool,
}

struct Walk<'m> {
    old: Side<'m>,
    new: Side<'m>,
    /// The types that were held against each other.
    pairs: BTreeSet<(TypeId, TypeId)>,
    /// Those that are to be, each with where it was met first.
    pending: VecDeque<(Place, (TypeId, TypeId))>,
    /// Parts of a document that only one side has, it seems.
    alone: Vec<(Type, Place, Change)>,
    /// Those of another name, with where they were met first.
    renamed: Vec<(TypeId, TypeId, Place)>,
    findings: Vec<Finding>,
}

impl<'m> Walk<'m> {
    fn find(&mut self, place: &Place, change: Change) {
        let Place { at, within, old, new, is_sent } = place.clone();
        let is_complete = self.new.is_complete;
        self.findings.push(Finding { at: Path(at), within, old, new, change, is_sent, is_complete });
    }

    /// Holds the roots against each other: by name, or the one against the other one that is most like it.
    fn roots(&mut self) {
        let sorted = |model: &'m Model| {
            let mut roots: Vec<&'m Root> = model.roots().collect();
            roots.sort_by(|one, other| one.name.cmp(&other.name));
            roots
        };
        let (olds, news) = (sorted(self.old.model), sorted(self.new.model));
        let within = self.old.model.root.name.in_capitals();
        let place = Place { at: Vec::new(), within, old: None, new: None, is_sent: false };
        let like = |one: &Root, other: &Root| likeness((self.old.model, one), (self.new.model, other));
        match (&olds[..], &news[..]) {
            ([one], [other]) => self.slot(&place, &one.slot, &other.slot),
            ([one], several) => {
                let best = several.iter().rev().max_by(|a, b| like(one, a).total_cmp(&like(one, b)));
                best.into_iter().for_each(|other| self.slot(&place, &one.slot, &other.slot));
            }
            (several, [other]) => {
                let best = several.iter().rev().max_by(|a, b| like(a, other).total_cmp(&like(b, other)));
                best.into_iter().for_each(|one| self.slot(&place, &one.slot, &other.slot));
            }
            _ => {
                let names: BTreeSet<&Words> = olds.iter().chain(&news).map(|root| &root.name).collect();
                for name in names {
                    let of = |roots: &[&'m Root]| roots.iter().find(|root| root.name == *name).copied();
                    let mut here = place.inside(Step::Child(name.in_capitals()));
                    here.within = name.in_capitals();
                    let subject = Subject { type_name: name.in_capitals(), key: None };
                    match (of(&olds), of(&news)) {
                        (Some(one), Some(other)) => self.slot(&here, &one.slot, &other.slot),
                        (Some(one), None) => {
                            here.old = Some(subject);
                            self.alone.push((one.slot.ty.clone(), here, Change::TypeGone));
                        }
                        (None, Some(other)) => {
                            here.new = Some(subject);
                            self.alone.push((other.slot.ty.clone(), here, Change::TypeNew));
                        }
                        (None, None) => {}
                    }
                }
            }
        }
    }

    fn slot(&mut self, place: &Place, old: &'m Slot, new: &'m Slot) {
        let is_unseen = |slot: &Slot| slot.ty == Type::Any;
        match (old.nullable, new.nullable) {
            (false, true) if !is_unseen(old) => self.find(place, Change::MayBeNull),
            (true, false) if !is_unseen(new) => self.find(place, Change::NeverNull),
            _ => {}
        }
        match (&old.ty, &new.ty) {
            (Type::Any, Type::Any) => {}
            // That is said already.
            (Type::Any, _) | (_, Type::Any) if is_only_null(old, new) || is_only_null(new, old) => {}
            (Type::Scalar(one), Type::Scalar(other)) if is_same_scalar(*one, *other) => {}
            (Type::Constant(one), Type::Constant(other)) if one == other => {}
            (Type::List(one), Type::List(other)) | (Type::Map(one), Type::Map(other)) => {
                self.slot(&place.inside(Step::All), one, other);
            }
            (Type::Tuple(one), Type::Tuple(other)) if one.len() == other.len() => {
                let place = place.inside(Step::All);
                one.iter().zip(other).for_each(|(one, other)| self.slot(&place, one, other));
            }
            (Type::Named(one), Type::Named(other)) => self.meet(place, (*one, *other), old, new),
            _ => self.kind(place, old, new),
        }
    }

    fn kind(&mut self, place: &Place, old: &Slot, new: &Slot) {
        let is_read = reads((self.old.model, &old.ty), (self.new.model, &new.ty));
        // Texts that are all words of the old enum are too few to be one by themselves.
        let is_wider =
            reads((self.new.model, &new.ty), (self.old.model, &old.ty)) && !self.are_words_of(old, place);
        self.find(place, Change::Kind { was: old.clone(), is: new.clone(), is_read, is_wider });
    }

    /// Whether the old side is an enum, and nothing but its words is seen on the new one.
    fn are_words_of(&self, old: &Slot, place: &Place) -> bool {
        let Type::Named(id) = &old.ty else { return false };
        let Definition::Enumeration(known) = &self.old.model.get(*id).definition else { return false };
        let seen =
            place.new.as_ref().filter(|_| !self.new.is_complete).and_then(|field| (self.new.words)(field));
        seen.is_some_and(|seen| {
            seen.iter().all(|word| known.cases.iter().any(|case| case.wire.as_str() == word))
        })
    }

    /// Two types at one place, which are held against each other once.
    fn meet(&mut self, place: &Place, ids: (TypeId, TypeId), was: &Slot, is: &Slot) {
        let (old, new) = (self.old.model.get(ids.0), self.new.model.get(ids.1));
        let is_pair = matches!(
            (&old.definition, &new.definition),
            (Definition::Record(_), Definition::Record(_))
                | (Definition::Enumeration(_), Definition::Enumeration(_))
                | (Definition::Union(_), Definition::Union(_))
        );
        if !is_pair {
            self.kind(place, was, is);
        } else if self.pairs.insert(ids) {
            self.pending.push_back((place.clone(), ids));
        }
    }

    fn named(&mut self, place: &Place, ids: (TypeId, TypeId)) {
        let (old, new) = (self.old.model.get(ids.0), self.new.model.get(ids.1));
        let subject = |ty: &NamedType| Some(Subject { type_name: ty.name.in_capitals(), key: None });
        let is_sent = (self.old.is_sent)(ids.0) || (self.new.is_sent)(ids.1);
        let within = old.name.in_capitals();
        let here = Place { at: place.at.clone(), within, old: subject(old), new: subject(new), is_sent };
        // What samples are called says nothing of what stands in them.
        let is_root_of_samples =
            !(self.old.is_complete && self.new.is_complete) && place.at.iter().all(|step| *step == Step::All);
        if old.name != new.name && !is_root_of_samples {
            self.renamed.push((ids.0, ids.1, here.clone()));
        }
        self.docs(&here, &old.docs, &new.docs);
        match (&old.definition, &new.definition) {
            (Definition::Record(one), Definition::Record(other)) => self.record(&here, one, other),
            (Definition::Enumeration(one), Definition::Enumeration(other)) => {
                self.enumeration(&here, one, other);
            }
            (Definition::Union(one), Definition::Union(other)) => self.union(&here, one, other),
            _ => {}
        }
    }

    fn record(&mut self, here: &Place, old: &'m Record, new: &'m Record) {
        let sorted = |record: &'m Record| {
            let mut fields: Vec<&'m Field> = record.fields.iter().collect();
            fields.sort_by(|one, other| one.wire.cmp(&other.wire));
            fields
        };
        let (olds, news) = (sorted(old), sorted(new));
        let lacks = |fields: &[&'m Field], wire: &WireName| fields.iter().all(|field| field.wire != *wire);
        let gone: Vec<&Field> = olds.iter().copied().filter(|field| lacks(&news, &field.wire)).collect();
        let fresh: Vec<&Field> = news.iter().copied().filter(|field| lacks(&olds, &field.wire)).collect();
        let shares_values = |one: &Field, other: &Field| {
            let place = here.of_field(Some(one), Some(other));
            self.shared_words(&place) >= FEWEST_SHARED
        };
        let moved = renamed(self.old.model, self.new.model, &gone, &fresh, &shares_values);
        for one in &olds {
            if let Some(other) = news.iter().find(|other| other.wire == one.wire) {
                self.field(&here.of_field(Some(one), Some(other)), one, other);
            } else if let Some((_, other)) = moved.iter().find(|(gone, _)| gone.wire == one.wire) {
                let place = here.of_field(Some(one), Some(other));
                let (from, to, presence) = (one.wire.clone(), other.wire.clone(), one.presence);
                self.find(&place, Change::FieldRenamed { from, to, presence });
                self.slot(&place, &one.slot, &other.slot);
            } else {
                let (presence, was) = (one.presence, one.slot.clone());
                self.find(&here.of_field(Some(one), None), Change::FieldGone { presence, was });
            }
        }
        for other in fresh.iter().filter(|field| moved.iter().all(|(_, fresh)| fresh.wire != field.wire)) {
            let (presence, is) = (other.presence, other.slot.clone());
            self.find(&here.of_field(None, Some(other)), Change::FieldNew { presence, is });
        }
        match (&old.extras, &new.extras) {
            (Some(one), Some(other)) => self.slot(&here.inside(Step::All), one, other),
            (None, None) => {}
            (one, _) => self.find(here, Change::Extras { are_typed: one.is_none() }),
        }
    }

    /// How many of the few texts that were seen in a field on one side were seen on the other one: none where most of them
    /// were not.
    fn shared_words(&self, place: &Place) -> usize {
        let seen =
            |side: &Side<'_>, field: &Option<Subject>| field.as_ref().and_then(|field| (side.words)(field));
        let (Some(old), Some(new)) = (seen(&self.old, &place.old), seen(&self.new, &place.new)) else {
            return 0;
        };
        let shared = old.iter().filter(|word| !word.is_empty() && new.contains(word)).count();
        if shared * 2 >= old.len().max(new.len()) { shared } else { 0 }
    }

    fn field(&mut self, place: &Place, old: &'m Field, new: &'m Field) {
        match (old.presence, new.presence) {
            (Presence::Always, Presence::Sometimes) => self.find(place, Change::MayBeMissing),
            (Presence::Sometimes, Presence::Always) => self.find(place, Change::AlwaysThere),
            _ => {}
        }
        if old.encoding != new.encoding {
            self.find(place, Change::Encoding { was: old.encoding.clone(), is: new.encoding.clone() });
        }
        if old.default != new.default {
            self.find(place, Change::Default { was: old.default.clone(), is: new.default.clone() });
        }
        self.docs(place, &old.docs, &new.docs);
        self.slot(place, &old.slot, &new.slot);
    }

    fn docs(&mut self, place: &Place, old: &Docs, new: &Docs) {
        // Samples say nothing of what they mean.
        if !(self.new.is_complete && self.old.is_complete) {
            return;
        }
        if old.is_deprecated != new.is_deprecated {
            self.find(place, Change::Deprecated { is_deprecated: new.is_deprecated });
        }
        if old.text() != new.text() {
            let (was, is) = (old.text().to_owned(), new.text().to_owned());
            self.find(place, Change::Description { was, is });
        }
    }

    fn enumeration(&mut self, here: &Place, old: &Enumeration, new: &Enumeration) {
        let beyond = |these: &Enumeration, those: &Enumeration| -> Vec<WireName> {
            let is_in = |word: &WireName| those.cases.iter().any(|case| case.wire == *word);
            these.cases.iter().map(|case| case.wire.clone()).filter(|word| !is_in(word)).collect()
        };
        let (fresh, gone) = (beyond(new, old), beyond(old, new));
        if !fresh.is_empty() {
            self.find(here, Change::ValuesNew { words: fresh, was_closed: old.is_closed });
        }
        if !gone.is_empty() {
            self.find(here, Change::ValuesGone { words: gone });
        }
        if old.is_closed != new.is_closed {
            self.find(here, Change::Openness { is_closed: new.is_closed });
        }
    }

    fn union(&mut self, here: &Place, old: &'m Union, new: &'m Union) {
        if old.tag != new.tag {
            self.find(here, Change::Tag { was: old.tag.clone(), is: new.tag.clone() });
            return;
        }
        let is_tagged = old.tag.is_some();
        // The one case that is an object is the other one's, whatever it is called.
        let objects = |union: &Union, model: &Model| {
            union.cases.iter().filter(|case| kind_word(&case.slot.ty, model) == OBJECT).count()
        };
        let has_few = objects(old, self.old.model) <= 1 && objects(new, self.new.model) <= 1;
        let key = |case: &UnionCase, model: &Model| match &case.tag {
            Some(tag) => tag.as_str().to_owned(),
            None => match kind_word(&case.slot.ty, model) {
                OBJECT if !has_few => case.name.to_string(),
                word => word.to_owned(),
            },
        };
        let keyed = |union: &'m Union, model| {
            // Of what nothing is seen, nothing can be said.
            let told = union.cases.iter().filter(|case| case.slot.ty != Type::Any);
            let mut cases: Vec<(String, &'m UnionCase)> = told.map(|case| (key(case, model), case)).collect();
            cases.sort_by(|one, other| one.0.cmp(&other.0));
            cases
        };
        let (olds, news) = (keyed(old, self.old.model), keyed(new, self.new.model));
        for (word, case) in &olds {
            match news.iter().find(|(other, _)| other == word) {
                Some((_, other)) => self.slot(here, &case.slot, &other.slot),
                None => self.find(here, Change::CaseGone { case: word.clone() }),
            }
        }
        for (word, _) in news.iter().filter(|(word, _)| olds.iter().all(|(other, _)| other != word)) {
            self.find(here, Change::CaseNew { case: word.clone(), is_tagged });
        }
    }

    /// A part that was met elsewhere under another name is not alone.
    fn tell_parts_alone(&mut self) {
        let (olds, news): (BTreeSet<TypeId>, BTreeSet<TypeId>) = self.pairs.iter().copied().unzip();
        for (ty, place, change) in std::mem::take(&mut self.alone) {
            let met = if change == Change::TypeGone { &olds } else { &news };
            if !matches!(ty, Type::Named(id) if met.contains(&id)) {
                self.find(&place, change);
            }
        }
    }

    /// A type that has a partner of its own name was split, or joined with another; it is not renamed.
    fn tell_renamed_types(&mut self) {
        let is_same =
            |pair: &&(TypeId, TypeId)| self.old.model.get(pair.0).name == self.new.model.get(pair.1).name;
        let (olds, news): (BTreeSet<TypeId>, BTreeSet<TypeId>) =
            self.pairs.iter().filter(is_same).copied().unzip();
        for (one, other, place) in std::mem::take(&mut self.renamed) {
            if !olds.contains(&one) && !news.contains(&other) {
                self.find(&place, Change::TypeRenamed);
            }
        }
    }
}

/// Whether nothing but null stands in one place, and none in the other.
fn is_only_null(one: &Slot, other: &Slot) -> bool {
    one.ty == Type::Any && one.nullable && !other.nullable
}

/// How many keys two roots share, of all that they have; a list is looked into.
fn likeness(old: (&Model, &Root), new: (&Model, &Root)) -> f64 {
    let keys = |(model, root): (&Model, &Root)| -> BTreeSet<String> {
        let mut slot = &root.slot;
        while let Type::List(items) | Type::Map(items) = &slot.ty {
            slot = items;
        }
        let Type::Named(id) = slot.ty else { return BTreeSet::new() };
        model.get(id).definition.fields().iter().map(|field| field.wire.as_str().to_owned()).collect()
    };
    let (one, other) = (keys(old), keys(new));
    let shared = one.intersection(&other).count();
    shared as f64 / (one.len() + other.len() - shared).max(1) as f64
}

/// What a case is that is an object.
const OBJECT: &str = "object";

/// What kind of value a case of a union without a tag is.
fn kind_word(ty: &Type, model: &Model) -> &'static str {
    match ty {
        Type::Any => "any value",
        Type::Scalar(scalar) => match scalar.kind() {
            ScalarKind::Boolean => "boolean",
            ScalarKind::Integer | ScalarKind::Number => "number",
            ScalarKind::Text => "text",
        },
        Type::Constant(_) => "text",
        Type::List(_) | Type::Tuple(_) => "list",
        Type::Map(_) => OBJECT,
        Type::Named(id) => match &model.get(*id).definition {
            Definition::Enumeration(_) => "text",
            Definition::Record(_) | Definition::Union(_) => OBJECT,
        },
    }
}

impl Place {
    fn inside(&self, step: Step) -> Self {
        let mut place = self.clone();
        place.go(step);
        place
    }

    /// One step on; a way that nobody would read to its end is not made longer.
    fn go(&mut self, step: Step) {
        if self.at.len() < LONGEST {
            self.at.push(step);
        }
    }

    /// A field of the type that is here.
    fn of_field(&self, old: Option<&Field>, new: Option<&Field>) -> Self {
        let subject = |ty: &Option<Subject>, field: Option<&Field>| {
            let (ty, field) = (ty.as_ref()?, field?);
            Some(Subject { type_name: ty.type_name.clone(), key: Some(field.wire.clone()) })
        };
        // Of two keys, the first by letter, so that the place is the same both ways.
        let keys = [old, new].into_iter().flatten().map(|field| field.wire.as_str());
        let key = keys.min().unwrap_or_default().to_owned();
        let mut place = self.inside(Step::Child(key));
        (place.old, place.new) = (subject(&self.old, old), subject(&self.new, new));
        place
    }
}
