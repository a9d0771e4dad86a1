//! Counters with a place: how often, and where first.

use jar_sprout_model::Place;

/// How often something was seen, and where first.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub struct Tally {
    /// How often.
    pub count: u64,
    /// The first place, by source and byte.
    pub first: Option<Place>,
}

impl Tally {
    /// Counts one more, which stands behind all counted so far: sources are read in their order.
    #[inline]
    pub(crate) fn add(&mut self, place: Place) {
        self.count += 1;
        if self.first.is_none() {
            self.first = Some(place);
        }
    }

    /// Adds what another tally counted.
    pub fn merge(&mut self, other: Self) {
        self.count += other.count;
        self.first = earlier(self.first, other.first);
    }
}

/// The earlier of two places.
fn earlier(a: Option<Place>, b: Option<Place>) -> Option<Place> {
    match (a, b) {
        (Some(a), Some(b)) => Some(a.min(b)),
        (a, b) => a.or(b),
    }
}

/// A short text kept as an example: the one seen first.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) struct Example {
    pub(crate) place: Place,
    pub(crate) text: String,
}

impl Example {
    /// Keeps the example that stands first in the input.
    pub(crate) fn merge(mine: &mut Option<Self>, theirs: Option<Self>) {
        if let Some(theirs) = theirs
            && mine.as_ref().is_none_or(|mine| theirs.place < mine.place)
        {
            *mine = Some(theirs);
        }
    }
}
