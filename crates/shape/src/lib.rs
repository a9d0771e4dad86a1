//! Streaming observation of JSON and NDJSON into shapes, and the merging of shapes.
//!
//! A sample is never held as a tree of values: [`observe()`] reads bytes through a sliding buffer and counts
//! what it sees at each position of a [`Shape`]. Memory is bounded whatever the input's size.
//! What the counts mean (a map? an enum?) is decided elsewhere.

mod fault;
mod form;
mod input;
mod number;
mod observe;
mod path;
mod shape;
mod tally;
mod token;

pub use form::Form;
pub use number::{Numbers, Range};
pub use observe::{MAX_DEPTH, MAX_POSITIONS, Observed, observe};
pub use path::{NoMatch, Path, PathError, Step};
pub use shape::{
    Beside, Booleans, Distinct, FieldShape, KindsBeside, Lengths, Lists, MAX_DISTINCT, MAX_KEYS,
    MAX_VARIANTS, Objects, Shape, Texts, Truths, Variant, VariantKey,
};
pub use tally::Tally;
