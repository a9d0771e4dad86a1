//! The languages, a folder each.

mod kotlin;
mod typescript;

pub(crate) use kotlin::Kotlin;
pub(crate) use typescript::TypeScript;
