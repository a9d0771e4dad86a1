//! Checking: values held against a model.

mod misfits;
mod request_bodies;

pub use misfits::{Misfit, Novelty, Part, case_of, compare, misfits};
pub use request_bodies::{Bodies, bodies};
