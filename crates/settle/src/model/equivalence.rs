//! Sameness: which positions of a draft have the same structure.

use foldhash::HashSet as FastSet;
use foldhash::fast::RandomState;
use indexmap::IndexSet;
use jar_sprout_model::{
    Draft, DraftCase, DraftField, DraftId, DraftKind, Encoding, Presence, Scalar, TimeForms, WireName, Words,
};

/// A set of positions with the same structure.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub(crate) struct Class(usize);

/// The class of each position.
pub(crate) struct Classes(Vec<Class>);

impl Classes {
    pub(crate) fn of(&self, id: DraftId) -> Class {
        self.0[id.index()]
    }
}

/// The class of every position reached from `root`: equal for those of the same structure, whatever the order
/// of their keys.
///
/// Starts with classes of what positions show without their parts, and splits them until nothing more tells their
/// members apart, so that positions that contain themselves are equal when no look inside, however deep, shows a
/// difference.
pub(crate) fn same_types(draft: &Draft, positions: &[DraftId]) -> Classes {
    let mut classes = Classes(vec![Class(0); draft.len()]);
    // Sets keep the hashes of what is in them: a look at all names again would cost more than anything else here.
    let mut faces: IndexSet<(&Option<Words>, Face<'_>), RandomState> = IndexSet::default();
    let mut with_parts: Vec<(DraftId, Vec<DraftId>)> = Vec::new();
    let alone = alone_by_name(draft, positions);
    for id in positions {
        // What has a name that nothing else has is told apart already.
        let is_alone = draft.node(*id).name.as_ref().is_some_and(|name| alone.contains(name));
        let (face, parts) = if is_alone { (Face::Any, Vec::new()) } else { faced(draft, *id) };
        // What a document tells apart by name is not the same thing, however alike.
        let (class, _) = faces.insert_full((&draft.node(*id).name, face));
        classes.0[id.index()] = Class(class);
        if !parts.is_empty() {
            with_parts.push((*id, parts));
        }
    }
    let mut count = 0;
    loop {
        let mut structures: IndexSet<(Class, Vec<(Class, bool)>), RandomState> = IndexSet::default();
        let mut refined = Vec::with_capacity(with_parts.len());
        for (id, parts) in &with_parts {
            let seen = parts.iter().map(|part| (classes.of(*part), draft.node(*part).nullable));
            let (class, _) = structures.insert_full((classes.of(*id), seen.collect()));
            refined.push(Class(faces.len() + class));
        }
        let is_settled = structures.len() == count;
        count = structures.len();
        for ((id, _), class) in with_parts.iter().zip(refined) {
            classes.0[id.index()] = class;
        }
        if is_settled {
            return classes;
        }
    }
}

/// The names that one position has, and no other.
fn alone_by_name<'d>(draft: &'d Draft, positions: &[DraftId]) -> FastSet<&'d Words> {
    let (mut alone, mut met) = (FastSet::default(), FastSet::default());
    for name in positions.iter().filter_map(|id| draft.node(*id).name.as_ref()) {
        if met.insert(name) {
            alone.insert(name);
        } else {
            alone.remove(name);
        }
    }
    alone
}

/// What a position shows without its parts.
#[derive(PartialEq, Eq, Hash)]
enum Face<'d> {
    Any,
    Scalar(Scalar),
    Constant(&'d WireName),
    Enumeration(&'d [WireName]),
    List,
    Map,
    Tuple(usize),
    Record(Vec<(&'d WireName, Presence, &'d Encoding)>, bool),
    Union(Option<&'d WireName>, Vec<Option<&'d WireName>>),
}

/// What a position shows, and its parts in an order that is the same for all that show the same.
fn faced(draft: &Draft, id: DraftId) -> (Face<'_>, Vec<DraftId>) {
    match &draft.node(id).kind {
        DraftKind::Any => (Face::Any, Vec::new()),
        DraftKind::Scalar(scalar) => (Face::Scalar(scalar.with_time_forms(TimeForms::ALL)), Vec::new()),
        DraftKind::Constant(text) => (Face::Constant(text), Vec::new()),
        DraftKind::Enumeration(known) => (Face::Enumeration(known), Vec::new()),
        DraftKind::List(items) => (Face::List, vec![*items]),
        DraftKind::Map(values) => (Face::Map, vec![*values]),
        DraftKind::Tuple(items) => (Face::Tuple(items.len()), items.clone()),
        DraftKind::Record { fields, extras } => {
            let mut fields: Vec<&DraftField> = fields.iter().collect();
            fields.sort_unstable_by_key(|field| &field.wire);
            let keys = fields.iter().map(|field| (&field.wire, field.presence, &field.encoding));
            let face = Face::Record(keys.collect(), extras.is_some());
            (face, fields.iter().map(|field| field.node).chain(*extras).collect())
        }
        DraftKind::Union { tag, cases } => {
            let tags = cases.iter().map(|DraftCase { tag, .. }| tag.as_ref());
            (Face::Union(tag.as_ref(), tags.collect()), cases.iter().map(|case| case.node).collect())
        }
    }
}
