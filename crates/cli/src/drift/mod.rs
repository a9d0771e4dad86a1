//! Drift shown: what changed, what it does, and what is to be done about it.

mod json;
mod markdown;
mod readers;
mod sides;
mod text;
mod words;

pub(crate) use json::json;
pub(crate) use markdown::markdown;
pub(crate) use readers::Reader;
pub(crate) use sides::{Half, Pair, within};
pub(crate) use text::text;
pub(crate) use words::{Shown, shown};
