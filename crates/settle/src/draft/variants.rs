//! The sets of keys that stood together at a position, and what each key had in them.

use std::collections::{BTreeMap, BTreeSet};

use jar_sprout_model::KindSet;
use jar_sprout_shape::Truths;

/// The sets of keys at a position, by id.
pub(crate) type Variants = BTreeMap<u64, VariantPart>;

/// The objects that had the same keys.
#[derive(Debug)]
pub(crate) struct VariantPart {
    pub(crate) count: u64,
    pub(crate) keys: BTreeMap<String, VariantKeyPart>,
}

#[derive(Debug)]
pub(crate) struct VariantKeyPart {
    pub(crate) kinds: KindSet,
    /// The kinds of the items of its lists.
    pub(crate) items: KindSet,
    pub(crate) truths: Truths,
    pub(crate) texts: Option<BTreeSet<String>>,
    /// Its texts, each with the key and the variant of an object that stood beside it, alone or in a list.
    pub(crate) beside: Option<BTreeSet<(String, String, u64)>>,
    /// Its texts, each with a key that had several kinds, and the kinds that stood beside it there, themselves and in
    /// lists.
    pub(crate) kinds_beside: Option<KindsBeside>,
}

pub(super) fn variant_part(variant: &jar_sprout_shape::Variant<'_>) -> (u64, VariantPart) {
    let keys = variant.keys.iter().map(|key| {
        let part = VariantKeyPart {
            kinds: key.kinds,
            items: key.items,
            truths: key.truths,
            texts: key.texts.as_ref().map(|texts| texts.iter().map(|text| (*text).to_owned()).collect()),
            beside: key.beside.as_ref().map(|all| all.iter().map(beside_part).collect()),
            kinds_beside: key.kinds_beside.as_ref().map(|all| all.iter().map(kinds_part).collect()),
        };
        (key.key.to_owned(), part)
    });
    (variant.id, VariantPart { count: variant.count, keys: keys.collect() })
}

fn beside_part(beside: &jar_sprout_shape::Beside<'_>) -> (String, String, u64) {
    (beside.text.to_owned(), beside.key.to_owned(), beside.variant)
}

fn kinds_part(beside: &jar_sprout_shape::KindsBeside<'_>) -> ((String, String), (KindSet, KindSet)) {
    ((beside.text.to_owned(), beside.key.to_owned()), (beside.kinds, beside.items))
}

pub(super) fn merge_variants(
    mut mine: Variants,
    theirs: BTreeMap<u64, VariantPart>,
) -> BTreeMap<u64, VariantPart> {
    for (id, variant) in theirs {
        match mine.get_mut(&id) {
            None => drop(mine.insert(id, variant)),
            Some(known) => known.take_in(variant),
        }
    }
    mine
}

/// A text and a key, with the kinds that stood under the key beside the text, themselves and in lists.
pub(crate) type KindsBeside = BTreeMap<(String, String), (KindSet, KindSet)>;

impl VariantKeyPart {
    /// The kinds of its values, and those of the items of its lists; whole numbers are numbers.
    fn value_kinds(&self) -> (KindSet, KindSet) {
        (self.kinds.with_numbers_as_one(), self.items.with_numbers_as_one())
    }
}

impl VariantPart {
    /// The kinds that stood under a key beside one text of another, themselves and in lists; none where that is not
    /// known.
    pub(crate) fn kinds_beside(&self, tag_key: &str, tag: &str, key: &str) -> Option<(KindSet, KindSet)> {
        let (told, part) = (self.keys.get(tag_key)?, self.keys.get(key)?);
        let told = told.kinds_beside.as_ref()?;
        let beside = told.get(&(tag.to_owned(), key.to_owned())).copied();
        // Where all had the same, each had it.
        let is_mixed = || told.keys().any(|(_, other)| other == key);
        beside.or_else(|| (!is_mixed()).then(|| part.value_kinds()))
    }

    /// What stood beside the texts of a key here and in other objects of the same keys.
    fn kinds_beside_with(&self, other: &Self, tag_key: &str) -> Option<KindsBeside> {
        let mut all = KindsBeside::new();
        for (key, part) in self.keys.iter().filter(|(key, _)| *key != tag_key) {
            let theirs = other.keys.get(key)?;
            let kinds = part.value_kinds();
            if kinds == theirs.value_kinds() && kinds.0.only().is_some() {
                continue;
            }
            for variant in [self, other] {
                for text in variant.keys.get(tag_key)?.texts.iter().flatten() {
                    let (kinds, items) = variant.kinds_beside(tag_key, text, key)?;
                    let known = all.entry((text.clone(), key.clone())).or_default();
                    *known = (known.0.and(kinds), known.1.and(items));
                }
            }
        }
        Some(all)
    }

    fn take_in(&mut self, other: Self) {
        let beside: Vec<Option<KindsBeside>> =
            self.keys.keys().map(|key| self.kinds_beside_with(&other, key)).collect();
        for (part, beside) in self.keys.values_mut().zip(beside) {
            part.kinds_beside = beside;
        }
        let Self { count, keys } = other;
        self.count += count;
        for (key, theirs) in keys {
            if let Some(mine) = self.keys.get_mut(&key) {
                mine.kinds = mine.kinds.and(theirs.kinds);
                mine.items = mine.items.and(theirs.items);
                mine.truths = mine.truths.and(theirs.truths);
                mine.texts = mine.texts.take().zip(theirs.texts).map(|(a, b)| a.union(&b).cloned().collect());
                mine.beside =
                    mine.beside.take().zip(theirs.beside).map(|(a, b)| a.union(&b).cloned().collect());
            }
        }
    }
}
