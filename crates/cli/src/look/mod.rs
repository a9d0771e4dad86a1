//! The shape shown: as a tree for people, as JSON for programs.

mod at;
mod describe;
pub(crate) mod document;
mod json;
pub(crate) mod recording;
mod text;

pub(crate) use json::json;
pub(crate) use text::{size, text};
