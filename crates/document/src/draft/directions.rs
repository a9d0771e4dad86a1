//! Directions: what is sent of a thing is not what is read of it, all the way down.
//!
//! What the server makes is no part of what is sent, and what is only sent is no part of what is read. A thing has two
//! forms where that makes a difference, in it or in what it holds; else one.

use std::collections::HashSet;

use foldhash::HashMap as FastMap;
use jar_sprout_model::{
    Direction, Draft, DraftCase, DraftField, DraftId, DraftKind, DraftRoot, Presence, Words,
};

/// What a request has in it.
pub(super) struct SentBody {
    pub(super) node: DraftId,
    /// Whether it changes what is there, so that everything may be left out.
    pub(super) is_update: bool,
    /// Whether nothing but the request speaks of it.
    pub(super) is_inline: bool,
}

/// Gives what is sent forms of its own where they differ, asks for them, and takes out of the others what is only sent.
/// `read` is what responses have in them. Answers the form of each body, by its position and whether it changes what is
/// there.
pub(super) fn tell_apart(
    draft: &mut Draft,
    roots: &mut Vec<DraftRoot>,
    bodies: &[SentBody],
    read: Vec<DraftId>,
) -> FastMap<(DraftId, bool), DraftId> {
    let mut told = FastMap::default();
    let sent = reached(draft, bodies.iter().map(|body| body.node));
    let read = reached(draft, sent.iter().copied().chain(read));
    let mut forms = SentForms { differing: differing(draft, &sent), made: FastMap::default(), draft };
    // One thing may be sent by several operations.
    let mut asked = HashSet::new();
    for SentBody { node, is_update, is_inline } in bodies {
        let form = forms.of(*node);
        told.entry((*node, *is_update)).or_insert(form);
        let own_root = roots.iter_mut().find(|root| *is_inline && root.node == *node);
        if let Some(root) = own_root {
            root.node = form;
            if *is_update && matches!(forms.draft.node(form).kind, DraftKind::Record { .. }) {
                forms.draft.mark_patch(form);
            }
            continue;
        }
        let (held, node) = (forms.held(form), forms.held(*node));
        let Some(name) = forms.draft.node(node).name.clone().filter(|_| asked.insert((node, *is_update)))
        else {
            continue;
        };
        if *is_update {
            let update = forms.update(held, node, &name);
            // A list of updates is not one itself.
            told.extend(update.iter().filter(|_| held == form).map(|update| ((node, true), update.node)));
            roots.extend(update);
        } else if held != node {
            roots.push(DraftRoot { name: sent_name(&name), node: held });
        }
    }
    for id in read {
        leave(draft, id, Direction::Sent);
    }
    told
}

fn sent_name(name: &Words) -> Words {
    name.prefixed(&Words::split("new"))
}

/// All that some positions lead to.
fn reached(draft: &Draft, from: impl Iterator<Item = DraftId>) -> Vec<DraftId> {
    let mut order: Vec<DraftId> = from.collect();
    let mut met: HashSet<DraftId> = order.iter().copied().collect();
    let mut next = 0;
    while let Some(id) = order.get(next) {
        next += 1;
        for part in parts(&draft.node(*id).kind) {
            if met.insert(part) {
                order.push(part);
            }
        }
    }
    order
}

fn parts(kind: &DraftKind) -> Vec<DraftId> {
    match kind {
        DraftKind::Any | DraftKind::Scalar(_) | DraftKind::Constant(_) | DraftKind::Enumeration(_) => {
            Vec::new()
        }
        DraftKind::List(part) | DraftKind::Map(part) => vec![*part],
        DraftKind::Tuple(parts) => parts.clone(),
        DraftKind::Record { fields, extras } => {
            fields.iter().map(|field| field.node).chain(*extras).collect()
        }
        DraftKind::Union { cases, .. } => cases.iter().map(|case| case.node).collect(),
    }
}

/// The positions that are something else when they are sent: records with a field that goes one way alone, and what
/// holds such a one.
fn differing(draft: &Draft, sent: &[DraftId]) -> HashSet<DraftId> {
    let mut holders: FastMap<DraftId, Vec<DraftId>> = FastMap::default();
    for id in sent {
        for part in parts(&draft.node(*id).kind) {
            holders.entry(part).or_default().push(*id);
        }
    }
    let goes_one_way = |id: &&DraftId| match &draft.node(**id).kind {
        DraftKind::Record { fields, .. } => fields.iter().any(|field| field.direction != Direction::Both),
        _ => false,
    };
    let mut open: Vec<DraftId> = sent.iter().filter(goes_one_way).copied().collect();
    let mut differing: HashSet<DraftId> = open.iter().copied().collect();
    while let Some(id) = open.pop() {
        let above = holders.get(&id).into_iter().flatten().copied();
        open.extend(above.filter(|holder| differing.insert(*holder)));
    }
    differing
}

/// Takes the fields that go one way alone out of a record.
fn leave(draft: &mut Draft, id: DraftId, direction: Direction) {
    let node = draft.node(id);
    if let DraftKind::Record { fields, extras } = &node.kind
        && fields.iter().any(|field| field.direction == direction)
    {
        let kept = fields.iter().filter(|field| field.direction != direction).cloned().collect();
        let (kind, nullable) = (DraftKind::Record { fields: kept, extras: *extras }, node.nullable);
        draft.set(id, kind, nullable);
    }
}

struct SentForms<'d> {
    draft: &'d mut Draft,
    differing: HashSet<DraftId>,
    made: FastMap<DraftId, DraftId>,
}

impl SentForms<'_> {
    /// What is sent of a position, which leads to what is sent of its parts.
    fn of(&mut self, id: DraftId) -> DraftId {
        let first = self.form(id);
        let mut open: Vec<(DraftId, DraftId)> = if first == id { Vec::new() } else { vec![(id, first)] };
        // Not by calls in calls: things hold each other in chains of any length.
        while let Some((id, form)) = open.pop() {
            let node = self.draft.node(id).clone();
            let mut part = |id: DraftId| {
                let known = self.made.contains_key(&id);
                let form = self.form(id);
                if form != id && !known {
                    open.push((id, form));
                }
                form
            };
            let kind = match node.kind {
                DraftKind::List(items) => DraftKind::List(part(items)),
                DraftKind::Map(values) => DraftKind::Map(part(values)),
                DraftKind::Tuple(items) => DraftKind::Tuple(items.into_iter().map(part).collect()),
                DraftKind::Union { tag, cases } => {
                    let case = |DraftCase { tag, node }| DraftCase { tag, node: part(node) };
                    DraftKind::Union { tag, cases: cases.into_iter().map(case).collect() }
                }
                DraftKind::Record { fields, extras } => {
                    let sent = fields.into_iter().filter(|field| field.direction != Direction::Read);
                    let sent = sent.map(|field| DraftField { node: part(field.node), ..field });
                    let fields: Vec<DraftField> = sent.collect();
                    DraftKind::Record { fields, extras: extras.map(part) }
                }
                other => other,
            };
            self.draft.set(form, kind, node.nullable);
            self.draft.describe(form, node.name.as_ref().map(sent_name), node.docs);
            self.draft.mark_sent(form, id);
        }
        first
    }

    fn form(&mut self, id: DraftId) -> DraftId {
        if !self.differing.contains(&id) {
            return id;
        }
        *self.made.entry(id).or_insert_with(|| self.draft.reserve())
    }

    /// What a body is a list or a map of.
    fn held(&self, mut id: DraftId) -> DraftId {
        for _ in 0..self.draft.len() {
            match self.draft.node(id).kind {
                DraftKind::List(part) | DraftKind::Map(part) => id = part,
                _ => break,
            }
        }
        id
    }

    /// What is sent to change a thing: everything may be left out. None where that is so anyway.
    fn update(&mut self, sent: DraftId, read: DraftId, name: &Words) -> Option<DraftRoot> {
        let node = self.draft.node(sent).clone();
        let DraftKind::Record { mut fields, extras } = node.kind else { return None };
        let is_other = node.name.as_ref() != Some(name);
        if fields.is_empty() || !(is_other || fields.iter().any(|field| field.presence == Presence::Always)) {
            return None;
        }
        fields.iter_mut().for_each(|field| field.presence = Presence::Sometimes);
        let update = self.draft.add(DraftKind::Record { fields, extras }, node.nullable);
        let name = name.with_word("update");
        self.draft.describe(update, Some(name.clone()), node.docs);
        self.draft.mark_patch(update);
        self.draft.mark_sent(update, read);
        Some(DraftRoot { name, node: update })
    }
}
