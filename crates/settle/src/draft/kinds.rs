//! Kinds of object that no text tells apart, but keys: `{"hive": …}` beside `{"error": …}`.

use std::collections::BTreeSet;

use jar_sprout_model::Kind;

use crate::draft::graph::{Keys, Node};
use crate::draft::tags::{Variants, keys_always, keys_of};

/// The most kinds of object told apart by keys.
const MAX_KINDS: usize = 12;

/// Objects that share no key with those of another kind but what all have.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) struct ObjectKind {
    /// A key that each of them has, and none of another kind.
    pub(crate) key: String,
    /// The sets of keys that they have.
    pub(crate) variants: BTreeSet<u64>,
    /// How many there are.
    count: u64,
    /// How many keys all of them have and none of another kind.
    own: usize,
}

/// The kinds at a position, if its objects are of several.
pub(crate) fn kinds(node: &Node) -> Option<Vec<ObjectKind>> {
    let objects = node.objects.as_ref()?;
    let Keys::Names { fields, variants: Some(variants), extras: None } = &objects.keys else { return None };
    let all: BTreeSet<u64> = variants.keys().copied().collect();
    let common = keys_always(&all, variants);
    let mut groups: Vec<(BTreeSet<&str>, BTreeSet<u64>)> = Vec::new();
    for (id, part) in variants {
        let mut keys: BTreeSet<&str> =
            part.keys.keys().map(String::as_str).filter(|key| !common.contains(key)).collect();
        let mut ids = BTreeSet::from([*id]);
        // Whatever shares a key is one kind.
        let (same, others): (Vec<_>, Vec<_>) =
            groups.into_iter().partition(|(known, _)| !known.is_disjoint(&keys));
        groups = others;
        for (known, more) in same {
            keys.extend(known);
            ids.extend(more);
        }
        groups.push((keys, ids));
    }
    if !(2..=MAX_KINDS).contains(&groups.len()) {
        return None;
    }
    let order = |key: &str| fields.get_index_of(key);
    let kinds: Option<Vec<ObjectKind>> = groups
        .into_iter()
        .map(|(keys, ids)| {
            let own = own_keys(&keys, &ids, variants);
            let key = own.iter().copied().min_by_key(|key| order(key))?.to_owned();
            let count = ids.iter().map(|id| variants[id].count).sum();
            Some(ObjectKind { key, variants: ids, count, own: own.len() })
        })
        .collect();
    let mut kinds = kinds?;
    kinds.sort_by_key(|kind| order(&kind.key));
    Some(kinds)
}

/// The keys that all objects of a kind have, never null.
fn own_keys<'k>(keys: &BTreeSet<&'k str>, ids: &BTreeSet<u64>, variants: &Variants) -> BTreeSet<&'k str> {
    let always = keys_always(ids, variants);
    debug_assert!(keys.is_subset(&keys_of(ids, variants)));
    let is_never_null = |key: &str| ids.iter().all(|id| !variants[id].keys[key].kinds.has(Kind::Null));
    keys.iter().copied().filter(|key| always.contains(key) && is_never_null(key)).collect()
}

/// Whether the kinds are more than optional keys that chance kept apart: much of one kind, or many of it.
pub(crate) fn are_evident(kinds: &[ObjectKind]) -> bool {
    kinds
        .iter()
        .all(|kind| kind.own >= 3 || kind.own == 2 && kind.count >= 2 || kind.own == 1 && kind.count >= 3)
}
