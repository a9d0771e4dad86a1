//! The languages, a folder each.

mod csharp;
mod dart;
mod go;
mod java;
mod jvm;
mod kotlin;
mod python;
mod rust;
mod swift;
mod typescript;

use crate::language::Language;
use csharp::CSharp;
use dart::Dart;
use go::Go;
use java::Java;
use kotlin::Kotlin;
use python::Python;
use rust::Rust;
use swift::Swift;
use typescript::TypeScript;

/// Every language there is. No other place tells languages apart.
pub static LANGUAGES: &[&dyn Language] =
    &[&Kotlin, &Swift, &Dart, &CSharp, &Java, &TypeScript, &Python, &Go, &Rust];
