//! Asking: what could not be settled, and what spoke for what was.

mod clusters;
mod explain;
mod question;
mod questions;
mod wording;

pub use explain::{Explanation, explain, words_seen};
pub use question::{Question, Settling};
pub use questions::open_questions;
