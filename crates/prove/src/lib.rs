//! Proofs: grown code compiled by the language's own compiler, at its strictest, and every sample passed through it.
//!
//! This crate writes into a scratch folder and runs compilers; what it proves comes from `grow`, and what is said
//! of it is for others to show. One compiler call serves all models of a language.

mod jobs;
mod judges;
mod memory;
mod pardons;
mod proof;
mod prove;
mod report;
mod round_trip;
mod run;
mod toolchain;
mod toolchains;
mod tools;
mod usage;

pub use judges::{Exhibit, judge};
pub use memory::{Digest, Memory};
pub use proof::{Proof, Sample};
pub use prove::prove;
pub use report::{Miss, Order, Report, ToolOutput};
pub use toolchain::Missing;
pub use tools::Tools;
pub use usage::{Used, prove_usage};
