//! Sameness: which records at different positions are the same thing.

use indexmap::IndexMap;
use jar_sprout_model::Words;
use jar_sprout_shape::{Path, Step};

use crate::draft::enums::is_word;
use crate::draft::graph::{Graph, Keys, NodeId, ObjectPart};
use crate::draft::similarity::{Overlap, is_compatible, overlap};
use crate::singular::singular;

/// Records with more fields than this and the same keys are the same thing, whatever they are called.
pub(crate) const TELLING_FIELDS: usize = 2;

/// Whether two records are the same thing: no kind against another, and keys and names that say so.
pub(crate) fn are_same(graph: &Graph, a: NodeId, b: NodeId) -> bool {
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
    let fewest = [a, b].into_iter().filter_map(|id| graph.fields(id)).map(IndexMap::len).min();
    let is_half = shared == all || (shared >= 2 && overlap.is_at_least(50));
    let is_part = || {
        let is_much = shared >= 2 || all <= 2 * TELLING_FIELDS;
        fewest == Some(shared) && (shared > TELLING_FIELDS || is_much && may_lack_rest(graph, a, b))
    };
    // Names cost more than keys.
    if !is_half && fewest != Some(shared) {
        return false;
    }
    match names(graph, a, b) {
        Naming::Same => is_half || is_part(),
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
pub(crate) fn constants_differ(graph: &Graph, a: NodeId, b: NodeId) -> bool {
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
pub(crate) enum Naming {
    /// A place of the one and a place of the other have the same name.
    Same,
    /// They have names that end alike.
    SameEnd,
    Unlike,
}

pub(crate) fn names(graph: &Graph, a: NodeId, b: NodeId) -> Naming {
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
        Step::Child(key) => Some(singular(&Words::split(key))),
        Step::All => None,
    })
}
