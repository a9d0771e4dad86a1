//! Likeness: whether two positions could hold the same thing.

use jar_sprout_model::{Kind, KindSet};

use crate::draft::graph::{Graph, Node, NodeId};

/// How deep a comparison looks; below that, nothing speaks against likeness.
const MAX_LOOK: usize = 6;

/// How many keys two records share.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct Overlap {
    pub(crate) shared: usize,
    /// Keys that either has.
    pub(crate) all: usize,
}

impl Overlap {
    /// Whether the shared keys are at least this share, in percent, of all.
    pub(crate) fn is_at_least(self, percent: usize) -> bool {
        self.shared * 100 >= self.all * percent
    }
}

/// The overlap of two records' keys; none if one of them is no record.
pub(crate) fn overlap(graph: &Graph, a: NodeId, b: NodeId) -> Option<Overlap> {
    let (a, b) = (graph.fields(a)?, graph.fields(b)?);
    let shared = a.keys().filter(|key| b.contains_key(*key)).count();
    Some(Overlap { shared, all: a.len() + b.len() - shared })
}

/// Whether nothing that both positions have speaks against their being the same: no kind stands against another.
pub(crate) fn is_compatible(graph: &Graph, a: NodeId, b: NodeId) -> bool {
    compatible(graph, a, b, MAX_LOOK)
}

fn compatible(graph: &Graph, a: NodeId, b: NodeId, look: usize) -> bool {
    let (a, b) = (graph.find(a), graph.find(b));
    if a == b || look == 0 {
        return true;
    }
    let (one, other) = (graph.node(a), graph.node(b));
    let (kinds, other_kinds) = (numbers_as_one(one.kinds()), numbers_as_one(other.kinds()));
    if kinds.is_empty() || other_kinds.is_empty() {
        return true;
    }
    if kinds != other_kinds {
        return one_or_many(graph, one, other_kinds) || one_or_many(graph, other, kinds);
    }
    if let (Some(lists), Some(others)) = (&one.lists, &other.lists)
        && !compatible(graph, lists.items, others.items, look - 1)
    {
        return false;
    }
    match (graph.fields(a), graph.fields(b)) {
        (Some(fields), Some(others)) => {
            let shared: Vec<_> =
                fields.iter().filter_map(|(key, field)| Some((field, others.get(key)?))).collect();
            let is_empty = fields.is_empty() || others.is_empty();
            let could_be_maps = || {
                let all = || fields.values().chain(others.values());
                let kinds = |node| numbers_as_one(graph.node(node).kinds());
                let first = all().next().map(|field| kinds(field.node));
                all().all(|field| Some(kinds(field.node)) == first)
            };
            (is_empty || !shared.is_empty() || could_be_maps())
                && shared.iter().all(|(mine, theirs)| {
                    compatible(graph, mine.node, theirs.node, look - 1)
                        || leads_back(graph, a, mine.node, theirs.node)
                        || leads_back(graph, b, theirs.node, mine.node)
                })
        }
        _ => true,
    }
}

/// Whether under each key that both records have stands the same kind of value, or nothing is known of the one.
pub(crate) fn has_same_kinds(graph: &Graph, a: NodeId, b: NodeId) -> bool {
    let (Some(a), Some(b)) = (graph.fields(a), graph.fields(b)) else { return false };
    let kinds = |node| numbers_as_one(graph.node(node).kinds());
    let mut pairs = a.iter().filter_map(|(key, field)| Some((kinds(field.node), kinds(b.get(key)?.node))));
    pairs.all(|(mine, theirs)| mine == theirs || mine.is_empty() || theirs.is_empty())
}

/// Whether under a key of a record stand records like itself, and under that key of another one something that can
/// stand in their place: a text, a list of such things. What holds itself is of several kinds as often as not.
fn leads_back(graph: &Graph, record: NodeId, part: NodeId, other: NodeId) -> bool {
    let in_place = [Kind::Text, Kind::List, Kind::Object];
    let items = graph.node(part).lists.as_ref().map(|lists| lists.items);
    let is_like = |inner: NodeId| {
        overlap(graph, record, inner).is_some_and(|overlap| overlap.shared >= 2 && overlap.is_at_least(50))
    };
    graph.node(other).kinds().iter().all(|kind| in_place.contains(&kind))
        && [Some(part), items].into_iter().flatten().any(is_like)
}

/// Whether a position has lists of what another has: one or many of it.
fn one_or_many(graph: &Graph, many: &Node, one: KindSet) -> bool {
    let is_list = many.kinds() == KindSet::of(Kind::List);
    is_list && many.lists.as_ref().is_some_and(|lists| numbers_as_one(graph.node(lists.items).kinds()) == one)
}

/// The kinds but null, integers and floats being the same.
fn numbers_as_one(kinds: KindSet) -> KindSet {
    kinds.but_null().with_numbers_as_one()
}

/// With so many positions, a few odd ones among them do not make the others something else.
const MANY: usize = 20;

/// How much several positions have in common, whatever kinds of scalar stand in them.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Agreement {
    /// Objects with the same keys.
    One,
    /// Objects that share at least half of their keys with the fullest.
    Like,
    /// Scalars of one kind.
    Kind,
    /// Nothing, and nothing against it.
    Nothing,
    /// Objects that share little, or objects beside scalars.
    Unlike,
}

/// What several positions have in common; lists by what they hold, and one or many as the one.
pub(crate) fn agreement(graph: &Graph, positions: &[NodeId]) -> Agreement {
    let is_known = |id: &NodeId| !graph.node(*id).kinds().is_empty();
    let mut known: Vec<NodeId> = positions.iter().copied().filter(is_known).collect();
    // Through lists of lists, but not for ever: what holds itself has no end.
    for _ in 0..MAX_LOOK {
        let items = |id: &NodeId| graph.node(*id).lists.as_ref().map(|lists| lists.items);
        let is_list = |id: &NodeId| graph.node(*id).kinds() == KindSet::of(Kind::List);
        if known.is_empty() || !known.iter().all(is_list) {
            break;
        }
        known = known.iter().filter_map(items).filter(is_known).collect();
    }
    let record = |id: &NodeId| {
        let node = graph.node(*id);
        let of_items = || node.lists.as_ref().map(|lists| lists.items);
        if graph.objects(*id).is_some() {
            Some(*id)
        } else {
            of_items().filter(|items| graph.objects(*items).is_some())
        }
    };
    let records: Vec<NodeId> = known.iter().filter_map(record).collect();
    if records.is_empty() {
        return agreement_of_scalars(graph, &known);
    }
    let is_most =
        |count: usize| count == known.len() || (known.len() >= MANY && count * 20 >= known.len() * 19);
    let size = |id: &NodeId| graph.fields(*id).map_or(0, indexmap::IndexMap::len);
    let fullest = *records.iter().rev().max_by_key(|id| size(id)).expect("there is one");
    let overlaps = records.iter().map(|id| (size(id), overlap(graph, fullest, *id)));
    let (mut same, mut like) = (0, 0);
    for (size, overlap) in overlaps {
        // A map, or an object without a key, has nothing against it.
        let is_like = overlap.is_none_or(|overlap| overlap.shared * 2 >= size);
        same += usize::from(overlap.is_some_and(|overlap| overlap.shared == overlap.all));
        like += usize::from(is_like);
    }
    match (is_most(same), is_most(like)) {
        (true, _) if size(&fullest) > 1 => Agreement::One,
        (_, true) => Agreement::Like,
        _ if is_most(records.len()) && could_be_maps(graph, &records) => Agreement::Like,
        _ => Agreement::Unlike,
    }
}

fn agreement_of_scalars(graph: &Graph, known: &[NodeId]) -> Agreement {
    let mut kinds = known.iter().map(|id| numbers_as_one(graph.node(*id).kinds()));
    match kinds.next() {
        Some(first) if kinds.all(|kinds| kinds == first) => Agreement::Kind,
        _ => Agreement::Nothing,
    }
}

/// Whether everything in these records is of one kind: whatever their keys are, the records could be one map.
fn could_be_maps(graph: &Graph, records: &[NodeId]) -> bool {
    let fields = records.iter().filter_map(|id| graph.fields(*id)).flat_map(|fields| fields.values());
    let mut kinds = fields.map(|field| numbers_as_one(graph.node(field.node).kinds()));
    let first = kinds.next();
    kinds.all(|kinds| Some(kinds) == first)
}
