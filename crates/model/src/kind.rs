//! Kinds of JSON value, and sets of them.

/// A kind of value, as far as types care: JSON's six, with numbers split in two. The order is that in which kinds are
/// best told apart: what is certain comes first.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Kind {
    /// `{…}`
    Object,
    /// `[…]`
    List,
    /// `"text"`
    Text,
    /// `true`
    Boolean,
    /// `8`: of samples, every number at the position being whole as written
    Integer,
    /// `8.4`, or whole numbers beside it
    Number,
    /// `null`
    Null,
}

impl Kind {
    /// Every kind.
    pub const ALL: [Self; 7] =
        [Self::Object, Self::List, Self::Text, Self::Boolean, Self::Integer, Self::Number, Self::Null];

    /// Every kind, the plain ones first: the order in which what was seen is told.
    const PLAIN_FIRST: [Self; 7] =
        [Self::Null, Self::Boolean, Self::Integer, Self::Number, Self::Text, Self::List, Self::Object];
}

/// A set of kinds.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub struct KindSet(u8);

impl KindSet {
    /// The set of one kind.
    pub fn of(kind: Kind) -> Self {
        Self(1 << kind as u8)
    }

    /// Whether a kind is in the set.
    pub fn has(self, kind: Kind) -> bool {
        self.0 & Self::of(kind).0 != 0
    }

    /// Puts a kind into the set.
    pub fn insert(&mut self, kind: Kind) {
        self.0 |= Self::of(kind).0;
    }

    /// Takes a kind out of the set.
    pub fn remove(&mut self, kind: Kind) {
        self.0 &= !Self::of(kind).0;
    }

    /// The kinds of either set.
    #[must_use]
    pub fn and(self, other: Self) -> Self {
        Self(self.0 | other.0)
    }

    /// The kinds that both allow; a whole number is a number.
    #[must_use]
    pub fn in_both(self, other: Self) -> Self {
        let allows = |set: Self, kind| set.has(kind) || kind == Kind::Integer && set.has(Kind::Number);
        let both = self.iter().filter(|kind| allows(other, *kind));
        both.chain(other.iter().filter(|kind| allows(self, *kind))).collect()
    }

    /// The kinds of the set, in their order.
    pub fn iter(self) -> impl Iterator<Item = Kind> {
        Kind::ALL.into_iter().filter(move |kind| self.has(*kind))
    }

    /// The kinds that were seen, plain ones first; an integer beside a number is a number too.
    pub fn as_seen(self) -> impl Iterator<Item = Kind> {
        let is_number = self.has(Kind::Number);
        let is_told = move |kind: &Kind| self.has(*kind) && !(is_number && *kind == Kind::Integer);
        Kind::PLAIN_FIRST.into_iter().filter(is_told)
    }

    /// The only kind, where there is one.
    pub fn only(self) -> Option<Kind> {
        self.iter().next().filter(|kind| self == Self::of(*kind))
    }

    /// The same with numbers in place of whole ones.
    #[must_use]
    pub fn with_numbers_as_one(self) -> Self {
        let (integer, number) = (Self::of(Kind::Integer).0, Self::of(Kind::Number).0);
        if self.0 & integer == 0 { self } else { Self(self.0 & !integer | number) }
    }

    /// The kinds but null.
    #[must_use]
    pub fn but_null(self) -> Self {
        Self(self.0 & !Self::of(Kind::Null).0)
    }

    /// Whether there is none.
    pub fn is_empty(self) -> bool {
        self.0 == 0
    }
}

impl FromIterator<Kind> for KindSet {
    fn from_iter<I: IntoIterator<Item = Kind>>(kinds: I) -> Self {
        kinds.into_iter().fold(Self::default(), |all, kind| all.and(Self::of(kind)))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_whole_number_is_a_number() {
        let number = KindSet::from_iter([Kind::Number, Kind::Text]);
        let whole = KindSet::from_iter([Kind::Integer, Kind::List]);
        assert_eq!(number.in_both(whole).only(), Some(Kind::Integer));
        assert_eq!(whole.in_both(number).only(), Some(Kind::Integer));
        assert!(whole.in_both(KindSet::of(Kind::Text)).is_empty());
        assert_eq!(number.only(), None);
    }

    #[test]
    fn what_was_seen_is_told_plain_ones_first() {
        let seen = KindSet::from_iter([Kind::Object, Kind::Integer, Kind::Number, Kind::Null]);
        assert_eq!(seen.as_seen().collect::<Vec<_>>(), [Kind::Null, Kind::Number, Kind::Object]);
        assert_eq!(seen.iter().next(), Some(Kind::Object));
    }
}
