//! Drift: what changed between two models, and what of that breaks.
//!
//! Both are walked from their roots at the same time, by what stands on the wire: what a type or a field is called in code
//! has no part in which are held against each other.

mod change;
mod kinds;
mod renamed;
mod verdict;
mod walk;

pub use change::{Change, Finding, Side};
pub use verdict::{Trouble, Verdict};
pub use walk::drift;
