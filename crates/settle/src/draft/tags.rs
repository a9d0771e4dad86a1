//! Tags: a key whose short text tells kinds of object apart.

use std::collections::BTreeSet;

use jar_sprout_model::{Kind, KindSet};

use crate::draft::enums::is_word;
use crate::draft::graph::{FieldPart, Graph, Keys, Node, ObjectPart};
use crate::draft::variants::{VariantPart, Variants};

/// The most kinds of object told apart by one tag.
const MAX_CASES: usize = 60;

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

/// The tag at a position, if the objects there fall apart by one.
pub(crate) fn find_tag(graph: &Graph, node: &Node) -> Option<Tagged> {
    let objects = node.objects.as_ref()?;
    let Keys::Names { fields, variants: Some(variants), extras: _ } = &objects.keys else { return None };
    let candidates = fields.iter().filter_map(|(key, field)| {
        let values = graph.node(field.node).few_texts()?;
        // What was seen once may be anything; of many kinds, a few were seldom met.
        let once = values.iter().filter(|(_, tally)| tally.count < 2).count();
        if once * 2 > values.len() {
            return None;
        }
        candidate(key, variants, values.into_iter().map(|(text, _)| text.to_owned()).collect())
    });
    let count_splits = |tagged: &Tagged| {
        let falls_apart = |(key, field): &(&String, &FieldPart)| {
            let inner = graph.inner_objects(field.node).and_then(|inner| graph.objects(inner));
            splits(inner, key, tagged, variants) || clashes(key, tagged, variants)
        };
        fields.iter().filter(falls_apart).count()
    };
    let scored = candidates.filter_map(|tagged| {
        let score = score(&tagged, variants, objects.tally.count, count_splits(&tagged))?;
        Some((score, tagged))
    });
    // The first of equals, so that the order of keys decides.
    let best = scored.reduce(|best, next| if next.0 > best.0 { next } else { best })?;
    Some(best.1)
}

/// The kinds of object that a key tells apart by the user's word; none where it does not stand in every object, or has
/// too many texts.
pub(crate) fn tagged_by(graph: &Graph, node: &Node, key: &str) -> Option<Tagged> {
    let Keys::Names { fields, variants: Some(variants), extras: _ } = &node.objects.as_ref()?.keys else {
        return None;
    };
    let values = graph.node(fields.get(key)?.node).few_texts()?;
    cases_of(key, variants, values.into_iter().map(|(text, _)| text.to_owned()).collect())
}

/// A key that stands in every object, with few short words as values.
fn candidate(key: &str, variants: &Variants, values: Vec<String>) -> Option<Tagged> {
    let fits = (2..=MAX_CASES).contains(&values.len()) && values.iter().all(|value| is_word(value));
    if !fits || are_numbered(&values) || are_two_codes(&values) {
        return None;
    }
    cases_of(key, variants, values)
}

/// The objects by the text of a key, if all of them have one.
fn cases_of(key: &str, variants: &Variants, values: Vec<String>) -> Option<Tagged> {
    let is_text =
        |part: &VariantPart| part.keys.get(key).is_some_and(|part| part.kinds == KindSet::of(Kind::Text));
    if !variants.values().all(is_text) {
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

/// Two words of nothing but capitals are more likely what two samples were asked for than kinds of object.
fn are_two_codes(values: &[String]) -> bool {
    values.len() == 2 && values.iter().all(|value| value.bytes().all(|b| b.is_ascii_uppercase()))
}

/// Words with digits in them are ids and versions more often than kinds.
fn are_numbered(values: &[String]) -> bool {
    values.iter().filter(|value| value.contains(|c: char| c.is_ascii_digit())).count() * 2 >= values.len()
}

/// The variants of the objects under `key` that stood beside one text of the tag.
pub(crate) fn children_beside<'v>(
    parts: impl Iterator<Item = &'v VariantPart>,
    tag_key: &str,
    tag: &str,
    key: &str,
) -> Option<BTreeSet<u64>> {
    let mut all = BTreeSet::new();
    for part in parts.filter_map(|part| part.keys.get(tag_key)) {
        let beside = part.beside.as_ref()?.iter();
        all.extend(
            beside.filter(|(text, other, _)| text == tag && other == key).map(|(_, _, variant)| *variant),
        );
    }
    Some(all)
}

/// Whether the objects under a key fall apart as their holders do: those beside one text of the tag share little with
/// those beside any other.
fn splits(inner: Option<&ObjectPart>, key: &str, tagged: &Tagged, variants: &Variants) -> bool {
    let Some(inner) = inner.and_then(ObjectPart::variants) else { return false };
    let sets = tagged.cases.iter().map(|case| {
        let ids = children_beside(variants.values(), &tagged.key, &case.tag, key)?;
        let (all, always) = (keys_of(&ids, inner), keys_always(&ids, inner));
        // Those of one kind have a good part of their keys in common; else their keys are data.
        (always.len() * 2 >= all.len()).then_some(all)
    });
    let Some(sets) = sets.collect::<Option<Vec<_>>>() else { return false };
    let sets: Vec<BTreeSet<&str>> = sets.into_iter().filter(|set| !set.is_empty()).collect();
    sets.len() >= 2
        && sets
            .iter()
            .enumerate()
            .all(|(at, a)| sets[at + 1..].iter().all(|b| a.intersection(b).count() * 2 < a.union(b).count()))
}

/// Whether a key has values of another kind in each case: a text here, a number there.
fn clashes(key: &str, tagged: &Tagged, variants: &Variants) -> bool {
    let kinds = tagged.cases.iter().map(|case| {
        let (kinds, items) = kinds_in_case(variants, &tagged.key, case, key)?;
        let kinds = kinds.but_null();
        (!kinds.is_empty()).then_some((kinds, items.but_null()))
    });
    let Some(kinds) = kinds.collect::<Option<Vec<_>>>() else { return false };
    let is_disjoint = |a: KindSet, b: KindSet| !a.iter().any(|kind| b.has(kind));
    let are_unlike = |(a, a_items): &(KindSet, KindSet), (b, b_items): &(KindSet, KindSet)| {
        let are_lists = a.only() == Some(Kind::List) && b.only() == Some(Kind::List);
        let is_told = !a_items.is_empty() && !b_items.is_empty();
        is_disjoint(*a, *b) || are_lists && is_told && is_disjoint(*a_items, *b_items)
    };
    kinds.iter().enumerate().all(|(at, a)| kinds[at + 1..].iter().all(|b| are_unlike(a, b)))
}

/// The kinds that a key has in one case, and those of the items of its lists, numbers as one; none where that is not
/// known.
pub(crate) fn kinds_in_case(
    variants: &Variants,
    tag_key: &str,
    case: &TaggedCase,
    key: &str,
) -> Option<(KindSet, KindSet)> {
    let parts = case.variants.iter().filter_map(|id| variants.get(id));
    let with = parts.filter(|part| part.keys.contains_key(key));
    with.map(|part| part.kinds_beside(tag_key, &case.tag, key)).try_fold(
        (KindSet::default(), KindSet::default()),
        |all, kinds| {
            let kinds = kinds?;
            Some((all.0.and(kinds.0), all.1.and(kinds.1)))
        },
    )
}

/// The keys in any of these variants.
pub(crate) fn keys_of<'v>(ids: &BTreeSet<u64>, variants: &'v Variants) -> BTreeSet<&'v str> {
    ids.iter()
        .filter_map(|id| variants.get(id))
        .flat_map(|part| part.keys.keys().map(String::as_str))
        .collect()
}

/// How well a tag tells the kinds apart: keys it explains less keys it does not. None if it does not.
/// `splits` counts the keys whose objects fall apart by the tag.
fn score(tagged: &Tagged, variants: &Variants, objects: u64, splits: usize) -> Option<i64> {
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
    let all_keys = i64::try_from(keys.len()).unwrap_or(i64::MAX);
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
        let with = all.iter().filter(|(some, _)| *some).count();
        if with == 1 || all.iter().all(|(some, always)| some == always) {
            explained += 1;
        } else if with < all.len() {
            // What all kinds may have speaks neither for them nor against.
            stray += 1;
        }
    }
    if splits > 0 {
        return Some(explained - stray + i64::try_from(splits).unwrap_or(1) * 2);
    }
    // A key or two that come with one kind are optional fields; kinds of object differ in a good part of their keys.
    let differ = explained * 4 >= all_keys;
    (exclusive && explained >= 2 && differ && explained > stray).then_some(explained - stray)
}

/// The keys in all of these variants.
pub(crate) fn keys_always<'v>(ids: &BTreeSet<u64>, variants: &'v Variants) -> BTreeSet<&'v str> {
    let mut sets = ids.iter().map(|id| variants[id].keys.keys().map(String::as_str).collect::<BTreeSet<_>>());
    let first = sets.next().unwrap_or_default();
    sets.fold(first, |all, set| all.intersection(&set).copied().collect())
}
