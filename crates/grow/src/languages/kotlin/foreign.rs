//! Types that kotlinx.serialization must be told how to read and write.

use std::sync::LazyLock;

use jar_sprout_model::TimeForm;

use crate::spell::{Helper, TimeHelpers};

/// A type of the platform that the library needs a serializer for.
pub(super) struct Foreign {
    pub(super) name: &'static str,
    pub(super) import: &'static str,
    pub(super) serializer: Helper,
    /// The same for other ways to write a time.
    pub(super) special: LazyLock<TimeHelpers>,
}

impl Foreign {
    /// What reads and writes it in one way or another.
    pub(super) fn serializer_of(&'static self, special: Option<TimeForm>) -> Helper {
        special.map_or(self.serializer, |way| self.special.get(way))
    }
}
