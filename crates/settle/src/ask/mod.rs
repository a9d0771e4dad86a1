//! Asking: what could not be settled, and what spoke for what was.

mod explain;
mod questions;
mod wording;

pub use explain::{Explanation, explain};
pub use questions::{Question, Settling, open_questions};
