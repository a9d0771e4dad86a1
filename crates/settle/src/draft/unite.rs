//! Union: records at different positions that are the same thing, and records that contain themselves.

use std::collections::HashSet;

use jar_sprout_model::Words;
use jar_sprout_shape::Path;

use crate::draft::graph::{Graph, Keys, NodeId};
use crate::draft::similarity::{Overlap, is_compatible, overlap};
use crate::singular::singular;

/// Records with more fields than this and the same keys are the same thing, whatever they are called.
pub(crate) const TELLING_FIELDS: usize = 2;

/// Unites every record with the one above it that it repeats: comments in comments, parents of parents.
pub(crate) fn fold_recursion(graph: &mut Graph, root: NodeId) {
    while let Some((above, below)) = find_recursion(graph, root) {
        graph.unite(above, below);
    }
}

/// A record, and one inside it that repeats it: it has most of its keys, and the key that led to it too, or nearly all.
fn find_recursion(graph: &Graph, root: NodeId) -> Option<(NodeId, NodeId)> {
    let mut met = HashSet::new();
    descend(graph, graph.find(root), &mut Vec::new(), &mut met)
}

/// `above` holds the records on the way, each with the key that was taken.
fn descend(
    graph: &Graph,
    id: NodeId,
    above: &mut Vec<(NodeId, String)>,
    met: &mut HashSet<NodeId>,
) -> Option<(NodeId, NodeId)> {
    let repeated = above.iter().find(|(record, key)| repeats(graph, *record, id, key));
    if let Some((record, _)) = repeated {
        return Some((*record, id));
    }
    if !met.insert(id) {
        return None;
    }
    let node = graph.node(id);
    let keyed: Vec<(Option<&String>, NodeId)> = match node.objects.as_ref().map(|objects| &objects.keys) {
        Some(Keys::Names { fields, .. }) => {
            fields.iter().map(|(key, field)| (Some(key), field.node)).collect()
        }
        Some(Keys::Data { values, .. }) => vec![(None, *values)],
        None => Vec::new(),
    };
    let items = node.lists.iter().map(|lists| (None, lists.items));
    for (key, part) in items.chain(keyed) {
        if let Some(key) = key {
            above.push((id, key.clone()));
        }
        let found = descend(graph, graph.find(part), above, met);
        if key.is_some() {
            above.pop();
        }
        if found.is_some() {
            return found;
        }
    }
    None
}

fn repeats(graph: &Graph, above: NodeId, below: NodeId, key: &str) -> bool {
    let (above, below) = (graph.find(above), graph.find(below));
    let (Some(fields), Some(overlap)) = (graph.node(below).fields(), overlap(graph, above, below)) else {
        return false;
    };
    // The last one of a chain lacks the key that would lead on; then it must be the same in all else.
    let has_key = fields.contains_key(key);
    let says_so = (has_key && overlap.shared >= 2 && overlap.is_at_least(50))
        || (overlap.shared >= 6 && overlap.shared * 10 >= fields.len() * 9 && overlap.is_at_least(60));
    above != below && says_so && is_compatible(graph, above, below)
}

/// Unites records at different positions that are the same thing.
pub(crate) fn unite_same(graph: &mut Graph, root: NodeId) {
    let mut kept: Vec<NodeId> = Vec::new();
    let records: Vec<NodeId> = graph
        .walk(root)
        .into_iter()
        .filter(|id| graph.node(*id).fields().is_some_and(|f| !f.is_empty()))
        .collect();
    for id in records {
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

/// Whether two records are the same thing: no kind against another, and keys and names that say so.
fn are_same(graph: &Graph, a: NodeId, b: NodeId) -> bool {
    let Some(overlap) = overlap(graph, a, b) else { return false };
    // Cheap first: most pairs have nothing in common.
    overlap.shared > 0 && keys_say_so(overlap, || share_a_name(graph, a, b)) && is_compatible(graph, a, b)
}

/// All keys the same; or most of them, and the same name; or nearly all of many.
fn keys_say_so(overlap: Overlap, share_a_name: impl FnOnce() -> bool) -> bool {
    let Overlap { shared, all } = overlap;
    (shared == all && shared > TELLING_FIELDS)
        || (shared >= 5 && overlap.is_at_least(80))
        || ((shared == all || (shared >= 2 && overlap.is_at_least(50))) && share_a_name())
}

/// Whether a place of the one and a place of the other have names that end alike.
fn share_a_name(graph: &Graph, a: NodeId, b: NodeId) -> bool {
    let names = |id| graph.node(id).paths.iter().filter_map(last_name).collect::<Vec<Words>>();
    let (a, b) = (names(a), names(b));
    a.iter().any(|a| b.iter().any(|b| a.last() == b.last()))
}

/// The last key of a path, in the singular.
fn last_name(path: &Path) -> Option<Words> {
    path.0.iter().rev().find_map(|step| match step {
        jar_sprout_shape::Step::Child(key) => Some(singular(&Words::split(key))),
        jar_sprout_shape::Step::All => None,
    })
}
