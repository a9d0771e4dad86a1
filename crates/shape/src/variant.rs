//! Variants: which keys stood together in one object, bounded.
//!
//! A table of all fields forgets that `caught` only ever stood beside `"kind": "swarm"`. Variants keep it: one for
//! each set of keys, with the kinds, the short texts and the inner variants that each key had there.

use std::collections::BTreeSet;

use crate::kind::Kinds;
use crate::object::FieldIndex;

/// The most sets of keys told apart at one position.
pub const MAX_VARIANTS: usize = 32;

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
    /// The kinds of its values, as bits; see [`VariantKey::kinds`].
    pub(crate) kinds: Vec<crate::Kind>,
    /// The distinct texts it had; none if they are too many, at this position, to be told apart.
    pub texts: Option<BTreeSet<&'o str>>,
    /// The variants of the objects it had; none if they are too many.
    pub children: Option<BTreeSet<u64>>,
}

impl VariantKey<'_> {
    /// The kinds of value it had.
    pub fn kinds(&self) -> Kinds {
        self.kinds.iter().fold(Kinds::default(), |kinds, kind| kinds.and(Kinds::of(*kind)))
    }
}

/// One value of an object: what is kept of it for its variant.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) struct Sighting {
    pub(crate) field: FieldIndex,
    pub(crate) kinds: Kinds,
    /// Bits of the slots of its texts.
    pub(crate) slots: u64,
    /// Bits of the variants of its objects.
    pub(crate) children: u32,
}

/// What was seen of one value, when it is over.
#[derive(Debug, Clone, Copy, Default)]
pub(crate) struct Seen {
    pub(crate) kinds: Kinds,
    pub(crate) slots: u64,
    pub(crate) children: u32,
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
}

impl Default for Variants {
    fn default() -> Self {
        Self { known: Some(Vec::new()), last: 0 }
    }
}

impl Variants {
    /// Counts an object with these keys. Answers the bit of its variant, none once there are too many.
    pub(crate) fn count(&mut self, id: u64, sightings: &[Sighting]) -> u32 {
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
                known.push(Known { id, count: 0, sightings: sightings.to_vec() });
                known.len() - 1
            }
        };
        self.last = at;
        known[at].add(1, sightings);
        1 << at
    }

    /// Adds another position's variants, whose sightings speak of this one's fields and slots already.
    /// Answers for each of them its bit here.
    pub(crate) fn merge(&mut self, others: Option<Vec<Known>>) -> Vec<u32> {
        let Some(others) = others else {
            self.known = None;
            return Vec::new();
        };
        let mut bits = Vec::with_capacity(others.len());
        for Known { id, count, sightings } in others {
            let bit = self.count(id, &sightings);
            if let Some(known) = &mut self.known {
                known[bit.trailing_zeros() as usize].count += count - 1;
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
    fn add(&mut self, count: u64, sightings: &[Sighting]) {
        self.count += count;
        for (at, sighting) in sightings.iter().enumerate() {
            let mine = match self.sightings.get(at) {
                Some(mine) if mine.field == sighting.field => at,
                // The same keys in another order.
                _ => match self.sightings.iter().position(|mine| mine.field == sighting.field) {
                    Some(at) => at,
                    None => continue,
                },
            };
            let mine = &mut self.sightings[mine];
            mine.kinds = mine.kinds.and(sighting.kinds);
            mine.slots |= sighting.slots;
            mine.children |= sighting.children;
        }
    }
}
