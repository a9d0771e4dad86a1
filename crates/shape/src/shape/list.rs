//! Lists at one position: their lengths, and one shape for all their items.

use jar_sprout_model::{KindSet, Place};

use crate::shape::Shape;
use crate::tally::Tally;

/// The longest list whose items are told apart by where they stand.
pub(crate) const MAX_FIXED: usize = 8;

/// What lists were seen.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Lists {
    /// How many lists.
    pub tally: Tally,
    /// How many of them were empty.
    pub empty: u64,
    /// The shortest list's length, once a list was seen.
    pub shortest: u64,
    /// The longest list's length.
    pub longest: u64,
    /// Whether all have one length, and which kinds stood where.
    pub lengths: Lengths,
    /// The items of all lists.
    pub items: Shape,
}

/// Whether all lists of a position have one length.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub enum Lengths {
    /// No list yet.
    #[default]
    Unseen,
    /// All of them, and it is a short one: the kinds at each place in the list.
    Same(Vec<KindSet>),
    /// They differ, or are long.
    Varying,
}

impl Lists {
    /// Counts a list that starts; its length follows by [`Lists::end`].
    pub(crate) fn start(&mut self, place: Place) {
        self.tally.add(place);
    }

    /// Counts the length of a list that was started, and the kinds of its first items.
    pub(crate) fn end(&mut self, length: u64, kinds: &[KindSet]) {
        // One list being open at this position at a time, the first to end is the only one counted.
        self.shortest = if self.tally.count == 1 { length } else { self.shortest.min(length) };
        self.longest = self.longest.max(length);
        self.empty += u64::from(length == 0);
        self.lengths.add(if length as usize == kinds.len() { Some(kinds) } else { None });
    }

    /// Merges, and answers for each variant of the objects in the other's lists its bit here.
    pub(crate) fn merge(&mut self, other: Self) -> Vec<u64> {
        let Self { tally, empty, shortest, longest, lengths, items } = other;
        // Before the first list there is no shortest one.
        self.shortest = if self.tally.count == 0 { shortest } else { self.shortest.min(shortest) };
        self.tally.merge(tally);
        self.empty += empty;
        self.longest = self.longest.max(longest);
        self.lengths.merge(lengths);
        self.items.absorb(items)
    }
}

impl Lengths {
    /// Adds one list, given the kinds of its items unless it is long.
    fn add(&mut self, kinds: Option<&[KindSet]>) {
        match (&mut *self, kinds) {
            (Self::Varying, _) => {}
            (Self::Unseen, Some(kinds)) => *self = Self::Same(kinds.to_vec()),
            (Self::Same(mine), Some(kinds)) if mine.len() == kinds.len() => {
                mine.iter_mut().zip(kinds).for_each(|(mine, kinds)| *mine = mine.and(*kinds));
            }
            (Self::Unseen | Self::Same(_), _) => *self = Self::Varying,
        }
    }

    /// Adds what other lists had.
    pub fn merge(&mut self, other: Self) {
        match other {
            Self::Unseen => {}
            Self::Same(kinds) => self.add(Some(&kinds)),
            Self::Varying => *self = Self::Varying,
        }
    }
}
