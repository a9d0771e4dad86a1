//! Kinds of JSON value that schemas allow.

/// What kind of JSON value a schema allows, null aside.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub(crate) enum JsonKind {
    Object,
    List,
    Text,
    Boolean,
    Integer,
    Number,
}

/// A set of kinds.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq)]
pub(crate) struct JsonKinds(u8);

impl JsonKinds {
    pub(crate) fn contains(self, kind: JsonKind) -> bool {
        self.0 & bit(kind) != 0
    }

    pub(crate) fn insert(&mut self, kind: JsonKind) {
        self.0 |= bit(kind);
    }

    pub(crate) fn remove(&mut self, kind: JsonKind) {
        self.0 &= !bit(kind);
    }

    pub(crate) fn is_empty(self) -> bool {
        self.0 == 0
    }

    /// The kinds in their order.
    pub(crate) fn iter(self) -> impl Iterator<Item = JsonKind> {
        use JsonKind::{Boolean, Integer, List, Number, Object, Text};
        [Object, List, Text, Boolean, Integer, Number].into_iter().filter(move |kind| self.contains(*kind))
    }

    /// The only kind, where there is one.
    pub(crate) fn only(self) -> Option<JsonKind> {
        self.iter().next().filter(|kind| self.0 == bit(*kind))
    }

    /// The kinds that both allow; a whole number is a number.
    pub(crate) fn in_both(self, other: Self) -> Self {
        let allows = |kinds: Self, kind| {
            kinds.contains(kind) || kind == JsonKind::Integer && kinds.contains(JsonKind::Number)
        };
        let both = self.iter().filter(|kind| allows(other, *kind));
        both.chain(other.iter().filter(|kind| allows(self, *kind))).collect()
    }
}

impl FromIterator<JsonKind> for JsonKinds {
    fn from_iter<I: IntoIterator<Item = JsonKind>>(kinds: I) -> Self {
        let mut all = Self::default();
        kinds.into_iter().for_each(|kind| all.insert(kind));
        all
    }
}

fn bit(kind: JsonKind) -> u8 {
    1 << kind as u8
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_whole_number_is_a_number() {
        let number = JsonKinds::from_iter([JsonKind::Number, JsonKind::Text]);
        let whole = JsonKinds::from_iter([JsonKind::Integer, JsonKind::List]);
        assert_eq!(number.in_both(whole).only(), Some(JsonKind::Integer));
        assert_eq!(whole.in_both(number).only(), Some(JsonKind::Integer));
        assert!(whole.in_both(JsonKinds::from_iter([JsonKind::Text])).is_empty());
        assert_eq!(number.only(), None);
    }
}
