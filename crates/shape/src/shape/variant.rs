//! Variants: which keys stood together in one object, bounded.
//!
//! A table of all fields forgets that `caught` only ever stood beside `"kind": "swarm"`. Variants keep it: one for
//! each set of keys, with the kinds and the short texts that each key had there, and what stood beside these texts.

use std::collections::{BTreeSet, HashMap};

use jar_sprout_model::{Kind, KindSet};
use rustc_hash::FxBuildHasher;

use crate::shape::FieldIndex;
use crate::shape::links::{LinkTable, ValueKinds, VariantBits};

/// The most sets of keys told apart at one position.
pub const MAX_VARIANTS: usize = 512;

/// The most sets of keys of which their holders know which of them they hold.
const MAX_KNOWN_BY_HOLDERS: usize = 64;

/// The objects of one position that had the same keys.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
pub struct Variant<'o> {
    /// A number for the set of keys: the same wherever it is met.
    pub id: u64,
    /// How many objects.
    pub count: u64,
    /// The keys, by letter.
    pub keys: Vec<VariantKey<'o>>,
}

/// What one key had in one variant.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
pub struct VariantKey<'o> {
    /// The key.
    pub key: &'o str,
    /// The kinds of its values.
    pub kinds: KindSet,
    /// The kinds of the items of its lists.
    pub items: KindSet,
    /// Those of its values that were true or false.
    pub truths: Truths,
    /// The distinct texts it had; none if they are too many, at this position, to be told apart.
    pub texts: Option<BTreeSet<&'o str>>,
    /// For each of its texts, the variants that the objects beside it had, by key; none if the texts are too many.
    pub beside: Option<BTreeSet<Beside<'o>>>,
    /// For each of its texts, the kinds that stood beside it under the keys that had several, and never null; none if
    /// the texts or the keys are too many.
    pub kinds_beside: Option<BTreeSet<KindsBeside<'o>>>,
}

/// Which of true and false were seen.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, PartialOrd, Ord)]
pub struct Truths {
    /// `true`
    pub yes: bool,
    /// `false`
    pub no: bool,
}

impl Truths {
    /// The one that was seen.
    pub fn of(truth: bool) -> Self {
        Self { yes: truth, no: !truth }
    }

    /// Those of either.
    #[must_use]
    pub fn and(self, other: Self) -> Self {
        Self { yes: self.yes || other.yes, no: self.no || other.no }
    }
}

/// A text of one key, and a variant of an object that stood beside it.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
pub struct Beside<'o> {
    /// The text.
    pub text: &'o str,
    /// The key of the object, or of the list that it stood in.
    pub key: &'o str,
    /// The object's variant.
    pub variant: u64,
}

/// A text of one key, and the kinds that stood beside it under another.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
pub struct KindsBeside<'o> {
    /// The text.
    pub text: &'o str,
    /// The other key.
    pub key: &'o str,
    /// The kinds of its values.
    pub kinds: KindSet,
    /// The kinds of the items of its lists.
    pub items: KindSet,
}

/// One value of an object: what is kept of it for its variant.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct Sighting {
    pub(crate) field: FieldIndex,
    /// The number of its key.
    pub(crate) key: u64,
    pub(crate) kinds: KindSet,
    /// The kinds of the items of its lists.
    pub(crate) items: KindSet,
    pub(crate) truths: Truths,
    /// Bits of the ordinals of its texts.
    pub(crate) ordinals: u64,
    /// Bits of the variants of its objects, or of those in its lists.
    pub(crate) children: u64,
}

/// What was seen of one value, when it is over.
#[derive(Debug, Clone, Copy, Default)]
pub(crate) struct Seen {
    pub(crate) kinds: KindSet,
    pub(crate) items: KindSet,
    pub(crate) truths: Truths,
    pub(crate) ordinals: u64,
    pub(crate) children: u64,
}

/// The variants of one position.
#[derive(Debug, Clone)]
pub(crate) struct Variants {
    /// None once there were more than [`MAX_VARIANTS`].
    known: Option<Vec<Known>>,
    /// Where each set of keys stands in that.
    index: HashMap<u64, usize, FxBuildHasher>,
    last: usize,
}

#[derive(Debug, Clone)]
pub(crate) struct Known {
    pub(crate) id: u64,
    pub(crate) count: u64,
    pub(crate) sightings: Vec<Sighting>,
    /// The variants that objects had beside texts.
    pub(crate) links: LinkTable<VariantBits, MAX_LINKS>,
    /// The fields that had values of several kinds, none of them null.
    pub(crate) mixed: Vec<FieldIndex>,
    /// The kinds that stood in those beside texts.
    pub(crate) kind_links: LinkTable<ValueKinds, MAX_KIND_LINKS>,
}

/// The most pairs of a text's key and an object's key that are watched in one variant.
pub(crate) const MAX_LINKS: usize = 32;

/// The most pairs of a text's key and a key of several kinds that are watched in one variant.
pub(crate) const MAX_KIND_LINKS: usize = 128;

impl Default for Variants {
    fn default() -> Self {
        Self { known: Some(Vec::new()), index: HashMap::default(), last: 0 }
    }
}

impl Variants {
    /// Counts an object with these keys. Answers the bit of its variant, none once there are too many.
    #[inline]
    pub(crate) fn count(&mut self, id: u64, sightings: &[Sighting]) -> u64 {
        let Some(at) = self.enter(id, || Known::new(id, sightings)) else { return 0 };
        if let Some(known) = &mut self.known {
            let mine = &mut known[at];
            mine.count += 1;
            mine.link(sightings);
            mine.link_kinds(sightings);
            mine.add(sightings);
        }
        bit(at)
    }

    /// Where a variant stands, which is made if it is new. None once there are too many.
    #[inline]
    fn enter(&mut self, id: u64, new: impl FnOnce() -> Known) -> Option<usize> {
        let last = self.last;
        let known = self.known.as_mut()?;
        let at = match known.get(last) {
            Some(variant) if variant.id == id => Some(last),
            _ => self.index.get(&id).copied(),
        };
        let at = match at {
            Some(at) => at,
            None if known.len() == MAX_VARIANTS => {
                self.give_up();
                return None;
            }
            None => {
                known.push(new());
                self.index.insert(id, known.len() - 1);
                known.len() - 1
            }
        };
        self.last = at;
        Some(at)
    }

    /// Adds another position's variants, whose sightings speak of this one's fields and ordinals already.
    /// Answers for each of them its bit here.
    pub(crate) fn merge(&mut self, others: Option<Vec<Known>>) -> Vec<u64> {
        let Some(others) = others else {
            self.give_up();
            return Vec::new();
        };
        let mut bits = Vec::with_capacity(others.len());
        for other in others {
            let nothing = || Known { count: 0, ..other.clone() };
            let Some(at) = self.enter(other.id, nothing) else {
                bits.push(0);
                continue;
            };
            if let Some(known) = &mut self.known {
                known[at].merge(&other);
            }
            bits.push(bit(at));
        }
        bits
    }

    /// Tells no variants apart any more.
    pub(crate) fn give_up(&mut self) {
        self.known = None;
        self.index = HashMap::default();
    }

    /// The variants, if they are few enough for their holders to know which of them they hold.
    pub(crate) fn known_by_holders(&self) -> Option<&[Known]> {
        self.known().filter(|known| known.len() <= MAX_KNOWN_BY_HOLDERS)
    }

    pub(crate) fn known(&self) -> Option<&[Known]> {
        self.known.as_deref()
    }

    pub(crate) fn into_known(self) -> Option<Vec<Known>> {
        self.known
    }
}

impl Known {
    /// A variant that was not counted yet.
    fn new(id: u64, sightings: &[Sighting]) -> Self {
        Self {
            id,
            count: 0,
            sightings: sightings.to_vec(),
            links: LinkTable::default(),
            mixed: Vec::new(),
            kind_links: LinkTable::default(),
        }
    }

    /// Adds what the same keys had elsewhere, in the words of this table.
    fn merge(&mut self, other: &Self) {
        self.count += other.count;
        self.merge_mixed(other);
        self.add(&other.sightings);
        self.links.merge(&other.links);
        self.kind_links.merge(&other.kind_links);
    }

    /// Links every text of one object with every object beside it.
    #[inline]
    fn link(&mut self, sightings: &[Sighting]) {
        // Most objects have no object inside, or no text that is still told apart.
        let all = sightings
            .iter()
            .fold((0, 0), |(ordinals, children), one| (ordinals | one.ordinals, children | one.children));
        if all.0 == 0 || all.1 == 0 {
            return;
        }
        for child in sightings.iter().filter(|one| one.children != 0) {
            for text in sightings.iter().filter(|one| one.ordinals != 0) {
                if let Some(links) = self.links.entry(text.field, child.field) {
                    links.add(text.ordinals.trailing_zeros() as usize, child.children);
                }
            }
        }
    }

    /// Links every text of one object with the kinds beside it, where a field has not always had the same.
    #[inline]
    fn link_kinds(&mut self, sightings: &[Sighting]) {
        for (at, one) in sightings.iter().enumerate() {
            let Some(mine) = self.cell(at, one.field).map(|cell| self.sightings[cell]) else { continue };
            if mine.value_kinds() != one.value_kinds() || self.mixed.contains(&one.field) {
                self.link_mixed(&mine, one, sightings);
            }
        }
    }

    #[cold]
    fn link_mixed(&mut self, mine: &Sighting, one: &Sighting, sightings: &[Sighting]) {
        if mine.kinds.has(Kind::Null) || one.kinds.has(Kind::Null) {
            return;
        }
        self.make_mixed(mine);
        self.add_kinds(one.field, one.value_kinds(), sightings);
    }

    /// Begins to tell by texts what stands in a field, which had one kind of value up to here.
    fn make_mixed(&mut self, mine: &Sighting) {
        if !self.mixed.contains(&mine.field) {
            self.mixed.push(mine.field);
            let known = self.sightings.clone();
            self.add_kinds(mine.field, mine.value_kinds(), &known);
        }
    }

    /// Adds what stood in a field beside all texts of these sightings.
    fn add_kinds(&mut self, other: FieldIndex, kinds: ValueKinds, sightings: &[Sighting]) {
        for text in sightings.iter().filter(|one| one.ordinals != 0 && one.field != other) {
            if let Some(links) = self.kind_links.entry(text.field, other) {
                bits(text.ordinals).for_each(|ordinal| links.add(ordinal, kinds));
            }
        }
    }

    /// Begins to tell by texts what stands in fields that had one kind here and another there.
    fn merge_mixed(&mut self, other: &Self) {
        for theirs in &other.sightings {
            let Some(cell) = self.cell(0, theirs.field) else { continue };
            let mine = self.sightings[cell];
            let they_are_mixed = other.mixed.contains(&theirs.field);
            let is_alike = mine.value_kinds() == theirs.value_kinds() && !they_are_mixed;
            let is_null = mine.kinds.has(Kind::Null) || theirs.kinds.has(Kind::Null);
            if is_null || is_alike && !self.mixed.contains(&theirs.field) {
                continue;
            }
            self.make_mixed(&mine);
            if !they_are_mixed {
                self.add_kinds(theirs.field, theirs.value_kinds(), &other.sightings);
            }
        }
    }

    /// Where a field's sighting stands, most likely at `at`: the same keys may come in another order.
    #[inline]
    fn cell(&self, at: usize, field: FieldIndex) -> Option<usize> {
        match self.sightings.get(at) {
            Some(mine) if mine.field == field => Some(at),
            _ => self.sightings.iter().position(|mine| mine.field == field),
        }
    }

    #[inline]
    fn add(&mut self, sightings: &[Sighting]) {
        for (at, sighting) in sightings.iter().enumerate() {
            if let Some(cell) = self.cell(at, sighting.field) {
                self.sightings[cell].add(sighting);
            }
        }
    }
}

/// The bit of a variant, none where it is one too many for its holders.
fn bit(at: usize) -> u64 {
    if at < MAX_KNOWN_BY_HOLDERS { 1 << at } else { 0 }
}

/// The places of the bits that are set.
pub(crate) fn bits(set: u64) -> impl Iterator<Item = usize> {
    (0..64).filter(move |at| set & (1 << at) != 0)
}

impl Sighting {
    #[inline]
    fn value_kinds(&self) -> ValueKinds {
        ValueKinds { kinds: self.kinds.with_numbers_as_one(), items: self.items.with_numbers_as_one() }
    }

    #[inline]
    fn add(&mut self, other: &Self) {
        self.kinds = self.kinds.and(other.kinds);
        self.items = self.items.and(other.items);
        self.truths = self.truths.and(other.truths);
        self.ordinals |= other.ordinals;
        self.children |= other.children;
    }
}
