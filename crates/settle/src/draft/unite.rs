//! Union: records at different positions that are the same thing, and records that contain themselves.

use std::collections::{BTreeMap, BTreeSet, HashSet};

use jar_sprout_model::Words;
use jar_sprout_shape::Path;

use crate::draft::enums::is_word;
use crate::draft::graph::{Graph, Keys, NodeId, ObjectPart};
use crate::draft::similarity::{Overlap, has_same_kinds, is_compatible, overlap};
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
    let small = |graph: &Graph, id: NodeId| {
        let fields = graph.node(id).fields().filter(|fields| (1..=TELLING_FIELDS).contains(&fields.len()))?;
        Some(fields.keys().cloned().collect::<BTreeSet<String>>())
    };
    let by_keys = |graph: &Graph, ids: &mut dyn Iterator<Item = NodeId>| {
        let mut groups: BTreeMap<BTreeSet<String>, Vec<NodeId>> = BTreeMap::new();
        for id in ids {
            if let Some(keys) = small(graph, id) {
                groups.entry(keys).or_default().push(id);
            }
        }
        groups.into_values().collect::<Vec<_>>()
    };
    for parent in records(graph, root) {
        let parts = graph.fields(parent).into_iter().flat_map(|fields| fields.values());
        let mut parts = parts.map(|field| graph.record(field.node));
        // Two will do where they are all there is in what is called after many.
        let count = graph.fields(parent).map_or(0, indexmap::IndexMap::len);
        let least = if is_of_many(graph, parent) && count == 2 { 2 } else { SIBLINGS };
        for group in by_keys(graph, &mut parts).into_iter().filter(|group| group.len() >= least) {
            unite_compatible(graph, &group, least);
        }
    }
    for group in by_keys(graph, &mut records(graph, root).into_iter()) {
        unite_compatible(graph, &group, PLACES);
    }
}

/// Whether a place of a position is called after many things: `links`.
fn is_of_many(graph: &Graph, id: NodeId) -> bool {
    let own = |path: &Path| match path.0.last() {
        Some(jar_sprout_shape::Step::Child(key)) => {
            let name = Words::split(key);
            singular(&name) != name
        }
        Some(jar_sprout_shape::Step::All) | None => false,
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

/// Whether two records are the same thing: no kind against another, and keys and names that say so.
fn are_same(graph: &Graph, a: NodeId, b: NodeId) -> bool {
    let Some(overlap) = overlap(graph, a, b) else { return false };
    // Cheap first: most pairs have nothing in common.
    overlap.shared > 0 && keys_say_so(graph, a, b, overlap) && is_compatible(graph, a, b)
}

/// All keys the same; or nearly all of many; or, under the same name, half of them, or all of the one among those of the
/// other.
fn keys_say_so(graph: &Graph, a: NodeId, b: NodeId, overlap: Overlap) -> bool {
    let Overlap { shared, all } = overlap;
    if shared == all && shared > TELLING_FIELDS {
        return true;
    }
    if shared >= 5 && overlap.is_at_least(80) {
        return !constants_differ(graph, a, b);
    }
    let is_part = || {
        let (Some(mine), Some(theirs)) = (graph.fields(a), graph.fields(b)) else { return false };
        let is_much = shared >= 2 || all <= 2 * TELLING_FIELDS;
        shared == mine.len().min(theirs.len())
            && (shared > TELLING_FIELDS || is_much && may_lack_rest(graph, a, b))
    };
    match names(graph, a, b) {
        Naming::Same => shared == all || (shared >= 2 && overlap.is_at_least(50)) || is_part(),
        Naming::SameEnd => {
            shared == all || (shared >= 3 && overlap.is_at_least(75) && !constants_differ(graph, a, b))
        }
        Naming::Unlike => false,
    }
}

/// Whether what the one lacks of the other is not always there in that either.
fn may_lack_rest(graph: &Graph, a: NodeId, b: NodeId) -> bool {
    let (Some(mine), Some(theirs)) = (graph.objects(a), graph.objects(b)) else { return false };
    let lacks = |few: &ObjectPart, many: &ObjectPart| match (&few.keys, &many.keys) {
        (Keys::Names { fields: few, .. }, Keys::Names { fields, .. }) => fields
            .iter()
            .filter(|(key, _)| !few.contains_key(*key))
            .all(|(_, field)| field.seen.count < many.tally.count),
        _ => false,
    };
    lacks(mine, theirs) && lacks(theirs, mine)
}

/// Whether each says of itself, again and again, that it is something else: `word: "family"`, `word: "branch"`.
fn constants_differ(graph: &Graph, a: NodeId, b: NodeId) -> bool {
    let (Some(mine), Some(theirs)) = (graph.fields(a), graph.fields(b)) else { return false };
    let constant = |node: NodeId| match graph.node(node).few_texts()?[..] {
        [(text, tally)] if tally.count >= 2 && is_word(text) => Some(text.to_owned()),
        _ => None,
    };
    mine.iter().any(|(key, field)| {
        let other = theirs.get(key).and_then(|other| constant(other.node));
        other.is_some_and(|other| constant(field.node).is_some_and(|own| own != other))
    })
}

/// What the names of two positions have in common.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Naming {
    /// A place of the one and a place of the other have the same name.
    Same,
    /// They have names that end alike.
    SameEnd,
    Unlike,
}

fn names(graph: &Graph, a: NodeId, b: NodeId) -> Naming {
    let names = |id| graph.node(id).paths.iter().filter_map(last_name).collect::<Vec<Words>>();
    let (a, b) = (names(a), names(b));
    let pairs = || a.iter().flat_map(|a| b.iter().map(move |b| (a, b)));
    if pairs().any(|(a, b)| a == b) {
        Naming::Same
    } else if pairs().any(|(a, b)| a.last() == b.last()) {
        Naming::SameEnd
    } else {
        Naming::Unlike
    }
}

/// The last key of a path, in the singular.
fn last_name(path: &Path) -> Option<Words> {
    path.0.iter().rev().find_map(|step| match step {
        jar_sprout_shape::Step::Child(key) => Some(singular(&Words::split(key))),
        jar_sprout_shape::Step::All => None,
    })
}
