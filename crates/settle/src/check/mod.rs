//! Checking: values held against a model.

mod misfits;
mod request_bodies;

pub use misfits::{Misfit, Part, case_of, misfits};
pub use request_bodies::{Bodies, bodies};
