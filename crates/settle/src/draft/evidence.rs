//! Evidence: what was seen at a position, and what was made of it.

use jar_sprout_model::Place;
use jar_sprout_shape::{Form, Numbers, Path, Texts};

/// What was seen at a position, and what was made of it.
#[derive(Debug, Clone)]
pub struct Evidence {
    /// How many values.
    pub seen: u64,
    /// Which kinds of value, each with where it was seen first.
    pub kinds: Vec<KindSeen>,
    /// Where the position stands; several places where they are the same thing.
    pub paths: Vec<Path>,
    /// What was decided, and why.
    pub choice: Choice,
    /// The texts seen.
    pub texts: Option<Texts>,
    /// The numbers seen.
    pub numbers: Option<Numbers>,
}

/// A kind of value at a position.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct KindSeen {
    /// What it is: `null`, `integer`, `text`.
    pub what: &'static str,
    /// How often.
    pub count: u64,
    /// Where first.
    pub first: Option<Place>,
}

/// What was decided, and why.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Choice {
    /// The type is what was written: nothing else was in question.
    AsWritten,
    /// Always null.
    NothingKnown,
    /// No list had an item.
    EmptyLists,
    /// No object had a key.
    EmptyObjects,
    /// Two or three kinds of value.
    MixedKinds,
    /// More kinds of value than a union is good for.
    ManyKinds,
    /// Whole numbers only.
    Integer {
        /// Whether the name says that it is measured, not counted.
        is_measure: bool,
        /// The unit, if name and range say that it counts from 1970 on.
        since_1970: Option<&'static str>,
    },
    /// Every text has this form.
    Form(Form),
    /// Every text has this form but for blanks.
    BlankAmong(Form),
    /// Every text is a number or a truth in letters.
    Coded(Form),
    /// Few words, seen again and again.
    Enum,
    /// Few words, but seen too seldom.
    NearlyEnum,
    /// Texts that are no enum, and why.
    NoEnum(&'static str),
    /// Keys that are data, and why.
    Map(&'static str),
    /// Keys that are names.
    Record,
    /// Short lists of unlike items.
    Tuple,
    /// Objects that this key tells apart.
    Tagged(String),
    /// One of the objects that this key tells apart.
    TaggedCase(String),
}
