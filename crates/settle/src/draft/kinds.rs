//! Kinds of object that no text tells apart, but keys: `{"hive": …}` beside `{"error": …}`; a truth may say which:
//! `{"ok": true, …}` beside `{"ok": false, …}`.

use std::collections::BTreeSet;

use indexmap::IndexMap;
use jar_sprout_model::{Kind, KindSet};
use jar_sprout_shape::Truths;

use crate::draft::graph::{FieldPart, Keys, Node};
use crate::draft::tags::{keys_always, keys_of};
use crate::draft::variants::Variants;

/// The most kinds of object told apart by keys.
const MAX_KINDS: usize = 60;

/// Objects of several kinds, each with a key that each of its objects has and none of another kind.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) struct ObjectKinds {
    /// The kinds, by the order of their keys.
    pub(crate) kinds: Vec<ObjectKind>,
    /// The key that is true in one of two kinds, and false in the other.
    pub(crate) truth: Option<String>,
    /// How many keys all of them have together.
    keys: usize,
}

/// Objects that share no key with those of another kind but what all may have.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) struct ObjectKind {
    /// A key that each of them has, and none of another kind.
    pub(crate) key: String,
    /// The sets of keys that they have.
    pub(crate) variants: BTreeSet<u64>,
    /// What the key that tells kinds by a truth says in this one.
    pub(crate) truth: Option<bool>,
    /// How many there are.
    count: u64,
    /// How many keys all of them have and none of another kind.
    own: usize,
}

/// The kinds at a position, if its objects are of several.
pub(crate) fn kinds(node: &Node) -> Option<ObjectKinds> {
    by_truth(node).or_else(|| by_keys(node))
}

fn by_keys(node: &Node) -> Option<ObjectKinds> {
    let (_, variants) = names(node)?;
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
    told(node, groups.into_iter().map(|(_, ids)| (ids, None)).collect(), None)
}

/// The kinds that a truth decides: of the keys that tell more, the one that explains most.
fn by_truth(node: &Node) -> Option<ObjectKinds> {
    let (fields, variants) = names(node)?;
    let candidates = fields.keys().filter_map(|key| {
        let ids_with = |truth: bool| -> BTreeSet<u64> {
            let says = |part: &&u64| {
                let part = variants[*part].keys.get(key);
                let is_truth = |kinds| kinds == KindSet::of(Kind::Boolean);
                part.is_some_and(|part| is_truth(part.kinds) && part.truths == Truths::of(truth))
            };
            variants.keys().filter(says).copied().collect()
        };
        let (yes, no) = (ids_with(true), ids_with(false));
        if yes.len() + no.len() < variants.len() {
            return None;
        }
        told(node, vec![(yes, Some(true)), (no, Some(false))], Some(key.clone()))
    });
    let explained = |kinds: &ObjectKinds| kinds.kinds.iter().map(|kind| kind.own).sum::<usize>();
    // The first of equals, so that the order of keys decides.
    candidates.reduce(|best, next| if explained(&next) > explained(&best) { next } else { best })
}

/// The fields of a position, and the sets of keys that stood together there.
fn names(node: &Node) -> Option<(&IndexMap<String, FieldPart>, &Variants)> {
    match &node.objects.as_ref()?.keys {
        Keys::Names { fields, variants, extras: None } => Some((fields, variants.as_ref()?)),
        Keys::Names { extras: Some(_), .. } | Keys::Data { .. } => None,
    }
}

/// These groups of objects as kinds, if each has a key of its own.
fn told(
    node: &Node,
    groups: Vec<(BTreeSet<u64>, Option<bool>)>,
    truth: Option<String>,
) -> Option<ObjectKinds> {
    let (fields, variants) = names(node)?;
    if !(2..=MAX_KINDS).contains(&groups.len()) {
        return None;
    }
    let order = |key: &str| fields.get_index_of(key);
    let keys: Vec<BTreeSet<&str>> = groups.iter().map(|(ids, _)| keys_of(ids, variants)).collect();
    let kinds: Option<Vec<ObjectKind>> = groups
        .into_iter()
        .enumerate()
        .map(|(at, (ids, truth))| {
            let mut own = own_keys(&ids, variants);
            own.retain(|key| keys.iter().enumerate().all(|(other, keys)| other == at || !keys.contains(key)));
            let key = own.iter().copied().min_by_key(|key| order(key))?.to_owned();
            let count = ids.iter().map(|id| variants[id].count).sum();
            Some(ObjectKind { key, variants: ids, truth, count, own: own.len() })
        })
        .collect();
    let mut kinds = kinds?;
    kinds.sort_by_key(|kind| order(&kind.key));
    Some(ObjectKinds { kinds, truth, keys: fields.len() })
}

/// The keys that all of these objects have, never null.
fn own_keys<'v>(ids: &BTreeSet<u64>, variants: &'v Variants) -> BTreeSet<&'v str> {
    let is_never_null = |key: &&str| ids.iter().all(|id| !variants[id].keys[*key].kinds.has(Kind::Null));
    keys_always(ids, variants).into_iter().filter(is_never_null).collect()
}

impl ObjectKinds {
    /// Whether there is no doubt: a truth says which kind an object is, was seen to say so again and again, and decides
    /// a good part of the keys.
    pub(crate) fn are_plain(&self) -> bool {
        let own: usize = self.kinds.iter().map(|kind| kind.own).sum();
        self.truth.is_some() && self.kinds.iter().all(|kind| kind.count >= 2) && own * 4 >= self.keys
    }

    /// Whether the kinds are more than optional keys that chance kept apart: a truth says which, or there is much of
    /// one kind, or many of it.
    pub(crate) fn are_evident(&self) -> bool {
        let is_evident = |kind: &ObjectKind| {
            kind.own >= 3 || kind.own == 2 && kind.count >= 2 || kind.own == 1 && kind.count >= 3
        };
        self.truth.is_some() || self.kinds.iter().all(is_evident)
    }
}
