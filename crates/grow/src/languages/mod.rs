//! The languages, a folder each.

mod csharp;
mod dart;
mod go;
mod java;
mod kotlin;
mod python;
mod rust;
mod swift;
mod typescript;

pub(crate) use csharp::CSharp;
pub(crate) use dart::Dart;
pub(crate) use go::Go;
pub(crate) use java::Java;
pub(crate) use kotlin::Kotlin;
pub(crate) use python::Python;
pub(crate) use rust::Rust;
pub(crate) use swift::Swift;
pub(crate) use typescript::TypeScript;
