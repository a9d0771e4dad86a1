//! Proofs: grown code compiled by the language's own compiler, at its strictest, and every sample passed through it.
//!
//! `toolchains/install` gets the compilers. Without one the proof says so and passes; where `CI` is set it fails.

#![allow(clippy::unwrap_used, reason = "a test or a bench that cannot go on should stop")]

mod jobs;
mod kotlin;
mod python;
mod round_trip;
mod rust;
mod toolchain;
mod trials;
mod typescript;
