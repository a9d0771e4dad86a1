//! Plain data shared by every stage: names, drafts, models and problems.
//!
//! Nothing here computes more than its own invariants, and nothing knows where the data came from or
//! which language it will become; and `each`, for stages that do the same with many of these.

mod docs;
mod draft;
mod each;
mod hidden;
mod kind;
mod model;
mod problem;
mod reach;
mod scalar;
mod time_form;
mod wire;
mod words;

pub use docs::{Counts, Docs, Limit, Limits, READ_ONLY};
pub use draft::{Direction, Draft, DraftCase, DraftField, DraftId, DraftKind, DraftNode, DraftRoot};
pub use each::each;
pub use hidden::is_hidden;
pub use kind::{Kind, KindSet};
pub use model::{
    Case, DefaultValue, Definition, Encoding, Enumeration, Field, Model, NamedType, NothingWords, Record,
    Root, Slot, Type, TypeId, Union, UnionCase,
};
pub use problem::{Excerpt, Place, Problem, Severity, SourceId, Spot};
pub use scalar::{Coding, Scalar, ScalarKind, Width};
pub use time_form::{Fraction, TimeForm, TimeForms, ZeroOffset};
pub use wire::{Presence, WireName};
pub use words::Words;
