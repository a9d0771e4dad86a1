//! Tags: a key whose short text tells kinds of object apart.

use std::collections::{BTreeMap, BTreeSet};

use jar_sprout_shape::{Kind, Kinds};

use crate::enums::is_word;
use crate::graph::{Keys, Node, VariantPart};

/// The most kinds of object told apart by one tag.
const MAX_CASES: usize = 24;

/// Objects at one position that fall apart into kinds.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) struct Tagged {
    /// The key that tells them apart.
    pub(crate) key: String,
    /// Each kind's tag, in order of first sight.
    pub(crate) cases: Vec<TaggedCase>,
}

/// One kind of object.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) struct TaggedCase {
    /// The tag's text.
    pub(crate) tag: String,
    /// The sets of keys it came with.
    pub(crate) variants: BTreeSet<u64>,
}

type Variants = BTreeMap<u64, VariantPart>;

/// The tag at a position, if the objects there fall apart by one.
pub(crate) fn find_tag(node: &Node, fields_of: impl Fn(&str) -> Option<Vec<String>>) -> Option<Tagged> {
    let objects = node.objects.as_ref()?;
    let Keys::Names { fields, variants: Some(variants) } = &objects.keys else { return None };
    if variants.len() < 2 {
        return None;
    }
    let candidates = fields.keys().filter_map(|key| candidate(key, variants, &fields_of));
    let scored =
        candidates.filter_map(|tagged| Some((score(&tagged, variants, objects.tally.count)?, tagged)));
    // The first of equals, so that the order of keys decides.
    let best = scored.reduce(|best, next| if next.0 > best.0 { next } else { best })?;
    Some(best.1)
}

/// A key that stands in every object, with few short words as values.
fn candidate(
    key: &str,
    variants: &Variants,
    values_of: &impl Fn(&str) -> Option<Vec<String>>,
) -> Option<Tagged> {
    let is_text =
        |part: &VariantPart| part.keys.get(key).is_some_and(|part| part.kinds == Kinds::of(Kind::Text));
    if !variants.values().all(is_text) {
        return None;
    }
    let values = values_of(key)?;
    if !(2..=MAX_CASES).contains(&values.len()) || !values.iter().all(|value| is_word(value)) {
        return None;
    }
    let cases = values.into_iter().map(|tag| {
        let has =
            |part: &VariantPart| part.keys[key].texts.as_ref().is_some_and(|texts| texts.contains(&tag));
        let variants = variants.iter().filter(|(_, part)| has(part)).map(|(id, _)| *id).collect();
        TaggedCase { tag, variants }
    });
    Some(Tagged { key: key.to_owned(), cases: cases.collect() })
}

/// How well a tag tells the kinds apart: keys it explains less keys it does not. None if it does not.
fn score(tagged: &Tagged, variants: &Variants, objects: u64) -> Option<i64> {
    let cases = tagged.cases.len() as u64;
    // Words that come once each are names, not tags.
    if objects * 2 < cases * 3 {
        return None;
    }
    let profiles: BTreeSet<BTreeSet<&str>> =
        tagged.cases.iter().map(|case| keys_always(&case.variants, variants)).collect();
    let exclusive = profiles.iter().any(|a| {
        profiles.iter().any(|b| a.difference(b).next().is_some() && b.difference(a).next().is_some())
    });
    let keys: BTreeSet<&str> =
        variants.values().flat_map(|part| part.keys.keys().map(String::as_str)).collect();
    let presence = |key: &str, case: &TaggedCase| {
        let with = case.variants.iter().filter(|id| variants[id].keys.contains_key(key)).count();
        (with > 0, with == case.variants.len())
    };
    let (mut explained, mut stray) = (0, 0);
    for key in keys {
        let all: Vec<(bool, bool)> = tagged.cases.iter().map(|case| presence(key, case)).collect();
        if all.iter().all(|(_, always)| *always) {
            continue;
        }
        if all.iter().all(|(some, always)| some == always) {
            explained += 1;
        } else if all.iter().filter(|(some, _)| *some).count() > 1 {
            stray += 1;
        }
    }
    (exclusive && explained >= 2 && explained > stray).then_some(explained - stray)
}

/// The keys in all of these variants.
pub(crate) fn keys_always<'v>(ids: &BTreeSet<u64>, variants: &'v Variants) -> BTreeSet<&'v str> {
    let mut sets = ids.iter().map(|id| variants[id].keys.keys().map(String::as_str).collect::<BTreeSet<_>>());
    let first = sets.next().unwrap_or_default();
    sets.fold(first, |all, set| all.intersection(&set).copied().collect())
}
