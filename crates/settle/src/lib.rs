//! From shape to draft, and from draft to model: what each position is, which positions share a type, and
//! what everything is called.
//!
//! ```text
//! shape ──draft_shape──> draft ──same_types──> classes ──settle──> model
//! ```

mod draft;
mod name;
mod root_name;
mod same;
mod settle;
mod singular;
mod uses;

pub use draft::draft_shape;
pub use root_name::root_name;
pub use settle::settle;
pub use singular::singular;
