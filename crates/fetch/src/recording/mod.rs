//! Recorded traffic: which endpoints answered with JSON, and what of it is a sample.

mod endpoints;
mod naming;
mod operation;
mod paths;
mod read;

pub use endpoints::{Endpoint, Survey, Surveyor};
pub use paths::path_template;
pub use read::{Body, Exchange, Side, read_recording};
