//! Scrubbing: samples that make the same model as others and hold none of their values.
//!
//! Letters become other letters of their kind, digits other digits; dates and times move by a length that nobody knows;
//! what a model needs of a value stays: its form, its length, its kind, and whether it is the same as another. All of it
//! follows a keyed hash, whose key is thrown away.

mod letters;
mod numbers;
mod texts;
mod times;
mod walk;
mod written;

pub use walk::Scrubber;
