//! Recursion: records that contain themselves.

use std::collections::HashSet;

use crate::draft::graph::{Graph, Keys, NodeId};
use crate::draft::sameness::{Naming, TELLING_FIELDS, constants_differ, names};
use crate::draft::similarity::{Overlap, is_compatible, overlap};

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
        None => node.record.iter().map(|record| (None, record.node)).collect(),
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
    let Overlap { shared, .. } = overlap;
    // Under its own name it is itself, whatever it lacks.
    let is_part =
        shared == fields.len() && shared > TELLING_FIELDS && names(graph, above, below) == Naming::Same;
    let says_so = (has_key && shared >= 2 && overlap.is_at_least(50))
        || (shared >= 6 && shared * 10 >= fields.len() * 9 && overlap.is_at_least(60));
    above != below
        && (is_part || says_so && !constants_differ(graph, above, below))
        && is_compatible(graph, above, below)
}
