//! The shape: what the samples showed at one position, as counters that merge.

use jar_sprout_model::Place;

use crate::list::Lists;
use crate::number::Numbers;
use crate::object::Objects;
use crate::text::Texts;

/// What was seen at one position. Merging two shapes equals observing both inputs, in any order.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Shape {
    /// `null`
    pub nulls: Tally,
    /// `true`, `false`
    pub booleans: Booleans,
    /// `8`, `8.4`
    pub numbers: Option<Box<Numbers>>,
    /// `"Alder Bank"`
    pub texts: Option<Box<Texts>>,
    /// `[…]`
    pub lists: Option<Box<Lists>>,
    /// `{…}`
    pub objects: Option<Box<Objects>>,
}

/// How often something was seen, and where first.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub struct Tally {
    /// How often.
    pub count: u64,
    /// The first place, by source and byte.
    pub first: Option<Place>,
}

/// `true` and `false`, counted apart.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub struct Booleans {
    /// `true`
    pub yes: Tally,
    /// `false`
    pub no: Tally,
}

/// A kind of value, as far as types care: JSON's six, with numbers split in two.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Kind {
    /// `null`
    Null,
    /// `true`
    Boolean,
    /// `8`, every number at the position being whole as written
    Integer,
    /// `8.4`, or whole numbers beside it
    Float,
    /// `"text"`
    Text,
    /// `[…]`
    List,
    /// `{…}`
    Object,
}

impl Shape {
    /// How many values were seen, nulls among them.
    pub fn seen(&self) -> u64 {
        self.nulls.count
            + self.booleans.count()
            + self.numbers.as_ref().map_or(0, |n| n.count())
            + self.texts.as_ref().map_or(0, |t| t.tally.count)
            + self.lists.as_ref().map_or(0, |l| l.tally.count)
            + self.objects.as_ref().map_or(0, |o| o.tally.count)
    }

    /// The kinds of value seen, null first, in a fixed order.
    pub fn kinds(&self) -> Vec<Kind> {
        let number =
            self.numbers.as_ref().map(|n| if n.has_fractions() { Kind::Float } else { Kind::Integer });
        [
            (self.nulls.count > 0).then_some(Kind::Null),
            (self.booleans.count() > 0).then_some(Kind::Boolean),
            number,
            self.texts.is_some().then_some(Kind::Text),
            self.lists.is_some().then_some(Kind::List),
            self.objects.is_some().then_some(Kind::Object),
        ]
        .into_iter()
        .flatten()
        .collect()
    }

    /// Adds what another shape saw at the same position.
    pub fn merge(&mut self, other: Self) {
        let Self { nulls, booleans, numbers, texts, lists, objects } = other;
        self.nulls.merge(nulls);
        self.booleans.yes.merge(booleans.yes);
        self.booleans.no.merge(booleans.no);
        merge_boxed(&mut self.numbers, numbers, Numbers::merge);
        merge_boxed(&mut self.texts, texts, Texts::merge);
        merge_boxed(&mut self.lists, lists, Lists::merge);
        merge_boxed(&mut self.objects, objects, Objects::merge);
    }
}

fn merge_boxed<T>(mine: &mut Option<Box<T>>, theirs: Option<Box<T>>, merge: impl FnOnce(&mut T, T)) {
    match (mine.as_deref_mut(), theirs) {
        (_, None) => {}
        (None, theirs) => *mine = theirs,
        (Some(mine), Some(theirs)) => merge(mine, *theirs),
    }
}

impl Tally {
    /// Counts one more.
    #[inline]
    pub(crate) fn add(&mut self, place: Place) {
        self.count += 1;
        if self.first.is_none_or(|first| place < first) {
            self.first = Some(place);
        }
    }

    pub(crate) fn merge(&mut self, other: Self) {
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

impl Booleans {
    /// How many of both.
    pub fn count(&self) -> u64 {
        self.yes.count + self.no.count
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
