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
    let (a, b) = (graph.node(a).fields()?, graph.node(b).fields()?);
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
    match (one.fields(), other.fields()) {
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
                && shared.iter().all(|(mine, theirs)| compatible(graph, mine.node, theirs.node, look - 1))
        }
        _ => true,
    }
}

/// Whether a position has lists of what another has: one or many of it.
fn one_or_many(graph: &Graph, many: &Node, one: KindSet) -> bool {
    let is_list = many.kinds() == KindSet::of(Kind::List);
    is_list && many.lists.as_ref().is_some_and(|lists| numbers_as_one(graph.node(lists.items).kinds()) == one)
}

/// The kinds but null, integers and floats being the same.
fn numbers_as_one(kinds: KindSet) -> KindSet {
    let as_one = |kind| if kind == Kind::Integer { Kind::Number } else { kind };
    kinds.but_null().iter().map(as_one).collect()
}

/// With so many positions, a few odd ones among them do not make the others something else.
const MANY: usize = 20;

/// Whether all of these positions could be one: each has at least half of its keys in common with the fullest of
/// them, and no kind against it.
pub(crate) fn are_alike(graph: &Graph, positions: &[NodeId]) -> bool {
    let size = |id: &NodeId| {
        let node = graph.node(*id);
        (node.fields().map_or(0, indexmap::IndexMap::len), usize::from(!node.kinds().is_empty()))
    };
    let Some(fullest) = positions.iter().rev().max_by_key(|id| size(id)) else { return true };
    let is_like = |id: &&NodeId| {
        let keys = |id| graph.node(id).fields().map_or(0, indexmap::IndexMap::len);
        let fewest = keys(**id).min(keys(*fullest));
        is_compatible(graph, *fullest, **id)
            && overlap(graph, *fullest, **id).is_none_or(|overlap| overlap.shared * 2 >= fewest)
    };
    let alike = positions.iter().filter(is_like).count();
    alike == positions.len() || (positions.len() >= MANY && alike * 20 >= positions.len() * 19)
}
