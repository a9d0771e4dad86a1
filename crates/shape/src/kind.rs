//! Kinds of value, and sets of them.

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

impl Kind {
    /// Every kind, in a fixed order.
    pub const ALL: [Self; 7] =
        [Self::Null, Self::Boolean, Self::Integer, Self::Float, Self::Text, Self::List, Self::Object];
}

/// A set of kinds.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Hash)]
pub struct Kinds(u8);

impl Kinds {
    /// The set of one kind.
    pub fn of(kind: Kind) -> Self {
        Self(1 << kind as u8)
    }

    /// Whether a kind is in the set.
    pub fn has(self, kind: Kind) -> bool {
        self.0 & Self::of(kind).0 != 0
    }

    /// The kinds of both sets.
    #[must_use]
    pub fn and(self, other: Self) -> Self {
        Self(self.0 | other.0)
    }

    /// The kinds of the set in a fixed order; an integer beside a float is a float too.
    pub fn iter(self) -> impl Iterator<Item = Kind> {
        let is_float = self.has(Kind::Float);
        Kind::ALL.into_iter().filter(move |kind| self.has(*kind) && !(is_float && *kind == Kind::Integer))
    }

    /// The kinds but null.
    pub fn but_null(self) -> Self {
        Self(self.0 & !Self::of(Kind::Null).0)
    }

    /// Whether there is none.
    pub fn is_empty(self) -> bool {
        self.0 == 0
    }
}
