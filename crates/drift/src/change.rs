//! What can change between two models.

use jar_sprout_model::{DefaultValue, Encoding, Model, Presence, Slot, TypeId, WireName};
use jar_sprout_settle::Subject;
use jar_sprout_shape::Path;

/// One of the two models.
#[derive(Clone, Copy)]
pub struct Side<'m> {
    /// The model.
    pub model: &'m Model,
    /// Whether what it does not have is not there, as a document says it; samples show only what they show.
    pub is_complete: bool,
    /// The types that a client sends.
    pub is_sent: &'m dyn Fn(TypeId) -> bool,
    /// The texts that were seen in a field, where they are few.
    pub words: &'m dyn Fn(&Subject) -> Option<Vec<String>>,
}

/// One thing that changed.
#[derive(Debug, Clone, PartialEq)]
pub struct Finding {
    /// Where: the way through the data.
    pub at: Path,
    /// What the old model calls the type that it is about; the new one where the old one has none.
    pub within: String,
    /// What the old model calls it; none of what is new.
    pub old: Option<Subject>,
    /// What the new model calls it; none of what is gone.
    pub new: Option<Subject>,
    /// What changed.
    pub change: Change,
    /// Whether it is part of what a client sends.
    pub is_sent: bool,
    /// Whether the new side would have what is gone if it were there still.
    pub is_complete: bool,
}

/// What changed in one place.
#[derive(Debug, Clone, PartialEq)]
pub enum Change {
    /// A key is no longer there.
    FieldGone {
        /// Whether it was always there.
        presence: Presence,
        /// What stood there.
        was: Slot,
    },
    /// A key is there that was not.
    FieldNew {
        /// Whether it is always there.
        presence: Presence,
        /// What stands there.
        is: Slot,
    },
    /// A key is gone, and another one has all that it had.
    FieldRenamed {
        /// The key that it had.
        from: WireName,
        /// The key that it has, it seems.
        to: WireName,
        /// Whether it was always there.
        presence: Presence,
    },
    /// A key that was always there may be missing.
    MayBeMissing,
    /// A key that might be missing is always there.
    AlwaysThere,
    /// Null may stand where it never did.
    MayBeNull,
    /// Null never stands where it might.
    NeverNull,
    /// Another kind of value stands there.
    Kind {
        /// What stood there.
        was: Slot,
        /// What stands there.
        is: Slot,
        /// Whether who reads the old kind reads the new one as well.
        is_read: bool,
        /// Whether who reads the new kind reads the old one as well: then both together are the new one.
        is_wider: bool,
    },
    /// An enum has more values.
    ValuesNew {
        /// The new ones.
        words: Vec<WireName>,
        /// Whether the old one had no room for them.
        was_closed: bool,
    },
    /// An enum has fewer values.
    ValuesGone {
        /// Those that it had.
        words: Vec<WireName>,
    },
    /// An enum may have other values, or may no longer.
    Openness {
        /// Whether it is closed now.
        is_closed: bool,
    },
    /// A union has one more case.
    CaseNew {
        /// What it is told by, or its name.
        case: String,
        /// Whether an old reader knows that it does not know it.
        is_tagged: bool,
    },
    /// A union has one case less.
    CaseGone {
        /// What it was told by, or its name.
        case: String,
    },
    /// What tells the cases of a union apart is another key.
    Tag {
        /// The key that it was.
        was: Option<WireName>,
        /// The key that it is.
        is: Option<WireName>,
    },
    /// A part of a document is no longer there.
    TypeGone,
    /// A part of a document is there that was not.
    TypeNew,
    /// A type has another name in code.
    TypeRenamed,
    /// The wire writes it in another way.
    Encoding {
        /// As it was.
        was: Encoding,
        /// As it is.
        is: Encoding,
    },
    /// What holds where the key is absent.
    Default {
        /// What it was.
        was: Option<DefaultValue>,
        /// What it is.
        is: Option<DefaultValue>,
    },
    /// Keys beyond the known ones have a type, or have none any more.
    Extras {
        /// Whether they have one now.
        are_typed: bool,
    },
    /// Whether it should not be used any more.
    Deprecated {
        /// As it is now.
        is_deprecated: bool,
    },
    /// What is said of it.
    Description {
        /// What was said.
        was: String,
        /// What is said.
        is: String,
    },
}
