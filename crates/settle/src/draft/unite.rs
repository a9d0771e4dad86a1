//! Union: positions that hold the same thing become one.

use std::collections::{BTreeMap, BTreeSet};

use jar_sprout_model::Words;
use jar_sprout_shape::{Path, Step};

use crate::draft::graph::{Graph, NodeId};
use crate::draft::sameness::{TELLING_FIELDS, are_same};
use crate::draft::similarity::{Overlap, has_same_kinds, is_compatible, overlap};
use crate::singular::singular;

/// Unites records at different positions that are the same thing.
pub(crate) fn unite_same(graph: &mut Graph, root: NodeId) {
    let mut kept: Vec<NodeId> = Vec::new();
    for id in records(graph, root) {
        if graph.find(id) != id {
            continue;
        }
        let same =
            kept.iter().map(|kept| graph.find(*kept)).find(|kept| *kept != id && are_same(graph, *kept, id));
        match same {
            Some(same) => graph.unite(same, id),
            None => kept.push(id),
        }
    }
}

/// The records with keys below a position.
fn records(graph: &Graph, root: NodeId) -> Vec<NodeId> {
    let has_keys = |id: &NodeId| graph.node(*id).fields().is_some_and(|fields| !fields.is_empty());
    graph.walk(root).into_iter().filter(has_keys).collect()
}

/// So many siblings of one small structure are one thing.
const SIBLINGS: usize = 3;

/// And so many places anywhere.
const PLACES: usize = 5;

/// Unites records of a field or two: one alone says nothing, but several do.
pub(crate) fn unite_small(graph: &mut Graph, root: NodeId) {
    for parent in records(graph, root) {
        let parts = graph.fields(parent).into_iter().flat_map(|fields| fields.values());
        let parts: Vec<NodeId> = parts.map(|field| graph.record(field.node)).collect();
        // Two will do where they are all there is in what is called after many.
        let least = if parts.len() == 2 && is_of_many(graph, parent) { 2 } else { SIBLINGS };
        for group in small_by_keys(graph, parts).into_iter().filter(|group| group.len() >= least) {
            unite_compatible(graph, &group, least);
        }
    }
    let all = records(graph, root);
    for group in small_by_keys(graph, all) {
        unite_compatible(graph, &group, PLACES);
    }
}

/// The small ones of these records, those with the same keys together.
fn small_by_keys(graph: &Graph, ids: Vec<NodeId>) -> Vec<Vec<NodeId>> {
    let mut groups: BTreeMap<BTreeSet<&str>, Vec<NodeId>> = BTreeMap::new();
    for id in ids {
        let fields = graph.node(id).fields();
        if let Some(fields) = fields.filter(|fields| (1..=TELLING_FIELDS).contains(&fields.len())) {
            groups.entry(fields.keys().map(String::as_str).collect()).or_default().push(id);
        }
    }
    groups.into_values().collect()
}

/// Whether a place of a position is called after many things: `links`.
fn is_of_many(graph: &Graph, id: NodeId) -> bool {
    let own = |path: &Path| match path.0.last() {
        Some(Step::Child(key)) => {
            let name = Words::split(key);
            singular(&name) != name
        }
        Some(Step::All) | None => false,
    };
    graph.node(id).paths.iter().any(own)
}

/// Unites positions against which nothing speaks, if they are so many places.
fn unite_compatible(graph: &mut Graph, group: &[NodeId], least: usize) {
    let mut left: Vec<NodeId> = group.to_vec();
    while let Some(first) = left.first().copied() {
        let is_same = |id: &NodeId| has_same_kinds(graph, first, *id) && is_compatible(graph, first, *id);
        let (same, others): (Vec<_>, Vec<_>) = left.into_iter().partition(is_same);
        left = others;
        let places: BTreeSet<NodeId> = same.iter().map(|id| graph.find(*id)).collect();
        let count: usize = places.iter().map(|id| graph.node(*id).paths.len()).sum();
        if count >= least {
            same.iter().for_each(|id| graph.unite(first, *id));
        }
    }
}

/// Unites what stands alone with what stands in lists at the same position: one or many of it.
pub(crate) fn unite_one_or_many(graph: &mut Graph, root: NodeId) {
    for id in graph.walk(root) {
        let node = graph.node(id);
        let (Some(record), Some(lists)) = (&node.record, &node.lists) else { continue };
        let (one, many) = (graph.find(record.node), graph.record(lists.items));
        let Some(Overlap { shared, all }) = overlap(graph, one, many) else { continue };
        let keys = |id| graph.fields(id).map_or(0, indexmap::IndexMap::len);
        let is_same = shared == keys(one).min(keys(many)) || shared * 2 >= all;
        if one != many && shared > 0 && is_same && is_compatible(graph, one, many) {
            graph.unite(one, many);
        }
    }
}

/// Unites positions of several kinds that stand inside each other and hold the same record: a text, a list of such
/// things, or a record with such things in it.
pub(crate) fn unite_mixed(graph: &mut Graph, root: NodeId) {
    for outer in graph.walk(root) {
        let outer = graph.find(outer);
        let Some(record) = graph.node(outer).record.map(|record| graph.find(record.node)) else { continue };
        let holds_it = |graph: &Graph, id: NodeId| {
            graph.node(id).record.is_some_and(|inner| graph.find(inner.node) == record)
        };
        let inside = |graph: &Graph, parts: Vec<NodeId>| -> Vec<NodeId> {
            let items =
                |part: NodeId| graph.node(part).lists.iter().map(|lists| lists.items).collect::<Vec<_>>();
            let parts = parts.into_iter().flat_map(|part| [vec![part], items(part)].concat());
            let parts = parts.map(|part| graph.find(part));
            parts.filter(|part| *part != outer && holds_it(graph, *part)).collect()
        };
        let mut inner = inside(graph, graph.parts(record));
        // Lists of such things in lists were not seen, if it does not hold itself.
        let holds_itself = graph.parts(record).into_iter().any(|part| graph.find(part) == outer);
        if !inner.is_empty() || holds_itself {
            inner.extend(inside(graph, graph.parts(outer)));
        }
        inner.into_iter().for_each(|inner| graph.unite(outer, inner));
    }
}
