//! Variants: which keys stood together in one object, bounded.
//!
//! A table of all fields forgets that `caught` only ever stood beside `"kind": "swarm"`. Variants keep it: one for
//! each set of keys, with the kinds, the short texts and the inner variants that each key had there.

use std::collections::BTreeSet;

use jar_sprout_model::KindSet;

use crate::shape::FieldIndex;
use crate::shape::text::MAX_DISTINCT;

/// The most sets of keys told apart at one position.
pub const MAX_VARIANTS: usize = 64;

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
    /// Those of them that were true or false.
    pub truths: Truths,
    /// The distinct texts it had; none if they are too many, at this position, to be told apart.
    pub texts: Option<BTreeSet<&'o str>>,
    /// The variants of the objects it had; none if they are too many.
    pub children: Option<BTreeSet<u64>>,
    /// For each of its texts, the variants that the objects beside it had, by key; none if the texts are too many.
    pub beside: Option<BTreeSet<Beside<'o>>>,
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
    /// The key of the object.
    pub key: &'o str,
    /// The object's variant.
    pub variant: u64,
}

/// One value of an object: what is kept of it for its variant.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct Sighting {
    pub(crate) field: FieldIndex,
    /// The number of its key.
    pub(crate) key: u64,
    pub(crate) kinds: KindSet,
    pub(crate) truths: Truths,
    /// Bits of the ordinals of its texts.
    pub(crate) ordinals: u64,
    /// Bits of the variants of its objects.
    pub(crate) children: u64,
}

/// What was seen of one value, when it is over.
#[derive(Debug, Clone, Copy, Default)]
pub(crate) struct Seen {
    pub(crate) kinds: KindSet,
    pub(crate) truths: Truths,
    pub(crate) ordinals: u64,
    pub(crate) children: u64,
}

/// The variants of one position.
#[derive(Debug, Clone)]
pub(crate) struct Variants {
    /// None once there were more than [`MAX_VARIANTS`].
    known: Option<Vec<Known>>,
    last: usize,
}

#[derive(Debug, Clone)]
pub(crate) struct Known {
    pub(crate) id: u64,
    pub(crate) count: u64,
    pub(crate) sightings: Vec<Sighting>,
    /// None once there were more than [`MAX_LINKS`].
    pub(crate) links: Option<Vec<Links>>,
}

/// The texts of one field, and the variants that the objects of another had beside them.
#[derive(Debug, Clone)]
pub(crate) struct Links {
    pub(crate) field: FieldIndex,
    pub(crate) child: FieldIndex,
    /// For each ordinal of a text, the bits of the variants.
    pub(crate) by_ordinal: Box<[u64; MAX_DISTINCT]>,
}

/// The most pairs of a text's key and an object's key that are watched in one variant.
const MAX_LINKS: usize = 32;

impl Default for Variants {
    fn default() -> Self {
        Self { known: Some(Vec::new()), last: 0 }
    }
}

impl Variants {
    /// Counts an object with these keys. Answers the bit of its variant, none once there are too many.
    #[inline]
    pub(crate) fn count(&mut self, id: u64, sightings: &[Sighting]) -> u64 {
        let bit = self.count_apart(id, sightings);
        if let Some(known) = &mut self.known {
            let mine = &mut known[bit.trailing_zeros() as usize];
            mine.count += 1;
            mine.link(sightings);
        }
        bit
    }

    /// Adds sightings to a variant, without counting or linking them.
    #[inline]
    fn count_apart(&mut self, id: u64, sightings: &[Sighting]) -> u64 {
        let last = self.last;
        let Some(known) = &mut self.known else { return 0 };
        let at = match known.get(last) {
            Some(variant) if variant.id == id => Some(last),
            _ => known.iter().position(|variant| variant.id == id),
        };
        let at = match at {
            Some(at) => at,
            None if known.len() == MAX_VARIANTS => {
                self.known = None;
                return 0;
            }
            None => {
                known.push(Known { id, count: 0, sightings: sightings.to_vec(), links: Some(Vec::new()) });
                known.len() - 1
            }
        };
        self.last = at;
        known[at].add(sightings);
        1 << at
    }

    /// Adds another position's variants, whose sightings speak of this one's fields and ordinals already.
    /// Answers for each of them its bit here.
    pub(crate) fn merge(&mut self, others: Option<Vec<Known>>) -> Vec<u64> {
        let Some(others) = others else {
            self.known = None;
            return Vec::new();
        };
        let mut bits = Vec::with_capacity(others.len());
        for Known { id, count, sightings, links } in others {
            // Its links say which text stood beside which object; the sightings alone would link all to all.
            let bit = self.count_apart(id, &sightings);
            if let Some(known) = &mut self.known {
                let mine = &mut known[bit.trailing_zeros() as usize];
                mine.count += count;
                mine.merge_links(links);
            }
            bits.push(bit);
        }
        bits
    }

    /// Tells no variants apart any more.
    pub(crate) fn give_up(&mut self) {
        self.known = None;
    }

    pub(crate) fn known(&self) -> Option<&[Known]> {
        self.known.as_deref()
    }

    pub(crate) fn into_known(self) -> Option<Vec<Known>> {
        self.known
    }
}

impl Known {
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
                if let Some(links) = self.links_of(text.field, child.field) {
                    links.by_ordinal[text.ordinals.trailing_zeros() as usize] |= child.children;
                }
            }
        }
    }

    fn links_of(&mut self, field: FieldIndex, child: FieldIndex) -> Option<&mut Links> {
        let links = self.links.as_mut()?;
        let at = match links.iter().position(|links| links.field == field && links.child == child) {
            Some(at) => at,
            None if links.len() == MAX_LINKS => {
                self.links = None;
                return None;
            }
            None => {
                links.push(Links { field, child, by_ordinal: Box::new([0; MAX_DISTINCT]) });
                links.len() - 1
            }
        };
        self.links.as_mut().map(|links| &mut links[at])
    }

    fn merge_links(&mut self, others: Option<Vec<Links>>) {
        let Some(others) = others else {
            self.links = None;
            return;
        };
        for Links { field, child, by_ordinal } in others {
            if let Some(mine) = self.links_of(field, child) {
                mine.by_ordinal.iter_mut().zip(*by_ordinal).for_each(|(mine, theirs)| *mine |= theirs);
            }
        }
    }

    #[inline]
    fn add(&mut self, sightings: &[Sighting]) {
        for (at, sighting) in sightings.iter().enumerate() {
            match self.sightings.get_mut(at) {
                Some(mine) if mine.field == sighting.field => mine.add(sighting),
                // The same keys in another order.
                _ => {
                    if let Some(mine) = self.sightings.iter_mut().find(|mine| mine.field == sighting.field) {
                        mine.add(sighting);
                    }
                }
            }
        }
    }
}

impl Sighting {
    #[inline]
    fn add(&mut self, other: &Self) {
        self.kinds = self.kinds.and(other.kinds);
        self.truths = self.truths.and(other.truths);
        self.ordinals |= other.ordinals;
        self.children |= other.children;
    }
}
