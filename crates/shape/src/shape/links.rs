//! Links: what another field had beside the texts of one, in objects of one set of keys; bounded.

use jar_sprout_model::KindSet;

use crate::shape::FieldIndex;

/// What is linked with texts.
pub(crate) trait Linked: Copy + Default {
    /// Adds what stood there as well.
    fn add(&mut self, other: Self);
}

/// The bits of the variants that an object had.
pub(crate) type VariantBits = u64;

impl Linked for VariantBits {
    fn add(&mut self, other: Self) {
        *self |= other;
    }
}

/// The kinds of values, and those of the items of lists among them; whole numbers are numbers.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub(crate) struct ValueKinds {
    pub(crate) kinds: KindSet,
    pub(crate) items: KindSet,
}

impl Linked for ValueKinds {
    fn add(&mut self, other: Self) {
        self.kinds = self.kinds.and(other.kinds);
        self.items = self.items.and(other.items);
    }
}

/// The texts of one field, and what another had beside them.
#[derive(Debug, Clone)]
pub(crate) struct Links<T> {
    pub(crate) field: FieldIndex,
    pub(crate) other: FieldIndex,
    /// For each ordinal of a text, as far as they were seen.
    pub(crate) by_ordinal: Vec<T>,
}

impl<T: Linked> Links<T> {
    /// Links of fields with nothing beside their texts yet.
    pub(crate) fn new(field: FieldIndex, other: FieldIndex) -> Self {
        Self { field, other, by_ordinal: Vec::new() }
    }

    /// Adds what stood beside a text.
    pub(crate) fn add(&mut self, ordinal: usize, seen: T) {
        if self.by_ordinal.len() <= ordinal {
            self.by_ordinal.resize(ordinal + 1, T::default());
        }
        self.by_ordinal[ordinal].add(seen);
    }
}

/// All links of a set of keys, at most so many.
#[derive(Debug, Clone)]
pub(crate) struct LinkTable<T, const MOST: usize> {
    /// None once there were more.
    known: Option<Vec<Links<T>>>,
}

impl<T: Linked, const MOST: usize> LinkTable<T, MOST> {
    /// A table of these; of none, it tells nothing any more.
    pub(crate) fn of(known: Option<Vec<Links<T>>>) -> Self {
        Self { known }
    }

    /// All of them; none once there were too many.
    pub(crate) fn known(&self) -> Option<&[Links<T>]> {
        self.known.as_deref()
    }

    pub(crate) fn into_known(self) -> Option<Vec<Links<T>>> {
        self.known
    }

    /// The links of two fields, made if they are new. None once there are too many.
    pub(crate) fn entry(&mut self, field: FieldIndex, other: FieldIndex) -> Option<&mut Links<T>> {
        let links = self.known.as_mut()?;
        let at = match links.iter().position(|links| links.field == field && links.other == other) {
            Some(at) => at,
            None if links.len() == MOST => {
                self.known = None;
                return None;
            }
            None => {
                links.push(Links::new(field, other));
                links.len() - 1
            }
        };
        self.known.as_mut().map(|links| &mut links[at])
    }

    /// Adds those of another table, in the words of this one.
    pub(crate) fn merge(&mut self, other: &Self) {
        let Some(others) = &other.known else {
            self.known = None;
            return;
        };
        for Links { field, other, by_ordinal } in others {
            if let Some(mine) = self.entry(*field, *other) {
                by_ordinal.iter().enumerate().for_each(|(ordinal, seen)| mine.add(ordinal, *seen));
            }
        }
    }
}

impl<T: Linked, const MOST: usize> Default for LinkTable<T, MOST> {
    fn default() -> Self {
        Self::of(Some(Vec::new()))
    }
}
