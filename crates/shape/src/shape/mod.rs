//! The shape: what the samples showed at one position, as counters that merge.

pub(crate) mod links;
pub(crate) mod list;
pub(crate) mod object;
pub(crate) mod text;
pub(crate) mod variant;

use jar_sprout_model::Kind;

use crate::number::Numbers;
use crate::tally::Tally;

pub use list::{Lengths, Lists};
pub use object::{FieldShape, MAX_KEYS, Objects};
pub use text::{Distinct, MAX_DISTINCT, Texts};
pub use variant::{Beside, KindsBeside, MAX_VARIANTS, Truths, Variant, VariantKey};

/// A field's place in its table.
pub(crate) type FieldIndex = usize;

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

/// `true` and `false`, counted apart.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub struct Booleans {
    /// `true`
    pub yes: Tally,
    /// `false`
    pub no: Tally,
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
            self.numbers.as_ref().map(|n| if n.has_fractions() { Kind::Number } else { Kind::Integer });
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
        self.absorb(other);
    }

    /// Merges, and answers for each variant of the other's objects, or of those in its lists, its bit here.
    pub(crate) fn absorb(&mut self, other: Self) -> Vec<u64> {
        let Self { nulls, booleans, numbers, texts, lists, objects } = other;
        self.nulls.merge(nulls);
        self.booleans.yes.merge(booleans.yes);
        self.booleans.no.merge(booleans.no);
        merge_boxed(&mut self.numbers, numbers, Numbers::merge);
        merge_boxed(&mut self.texts, texts, Texts::merge);
        // Into an empty table rather than as it is, so that one way is taken always.
        let in_lists =
            lists.map(|theirs| self.lists.get_or_insert_default().merge(*theirs)).unwrap_or_default();
        match (&mut self.objects, objects) {
            (_, None) => in_lists,
            (mine, Some(theirs)) => mine.get_or_insert_default().merge(*theirs),
        }
    }
}

fn merge_boxed<T>(mine: &mut Option<Box<T>>, theirs: Option<Box<T>>, merge: impl FnOnce(&mut T, T)) {
    match (mine.as_deref_mut(), theirs) {
        (_, None) => {}
        (None, theirs) => *mine = theirs,
        (Some(mine), Some(theirs)) => merge(mine, *theirs),
    }
}

impl Booleans {
    /// How many of both.
    pub fn count(&self) -> u64 {
        self.yes.count + self.no.count
    }
}
