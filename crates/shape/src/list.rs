//! Lists at one position: their lengths, and one shape for all their items.

use jar_sprout_model::Place;

use crate::shape::{Shape, Tally};

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
    /// The items of all lists.
    pub items: Shape,
}

impl Lists {
    /// Counts a list that starts; its length follows by [`Lists::end`].
    pub(crate) fn start(&mut self, place: Place) {
        self.tally.add(place);
    }

    /// Counts the length of a list that was started.
    pub(crate) fn end(&mut self, length: u64) {
        // One list being open at this position at a time, the first to end is the only one counted.
        self.shortest = if self.tally.count == 1 { length } else { self.shortest.min(length) };
        self.longest = self.longest.max(length);
        self.empty += u64::from(length == 0);
    }

    pub(crate) fn merge(&mut self, other: Self) {
        let Self { tally, empty, shortest, longest, items } = other;
        self.tally.merge(tally);
        self.empty += empty;
        self.shortest = self.shortest.min(shortest);
        self.longest = self.longest.max(longest);
        self.items.merge(items);
    }
}
