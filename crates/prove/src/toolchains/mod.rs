//! The toolchains, a file for each language.

mod csharp;
mod dart;
mod go;
mod java;
mod javac;
mod kotlin;
mod python;
mod rust;
mod swift;
mod typescript;

use jar_sprout_grow::Judge;

use crate::toolchain::{Find, Missing, Ready, Task};

/// How each language's toolchain is found.
const TOOLCHAINS: &[(&str, Find)] = &[
    ("csharp", csharp::find),
    ("dart", dart::find),
    ("go", go::find),
    ("java", javac::find),
    ("kotlin", kotlin::find),
    ("python", python::find),
    ("rust", rust::find),
    ("swift", swift::find),
    ("typescript", typescript::find),
];

/// The toolchain of a language.
pub(crate) fn find(wanted: &Task<'_>) -> Result<Ready, Missing> {
    if let Judge::Builder { what, install } = wanted.abilities.judge {
        return Err(Missing::new(what, install));
    }
    let key = wanted.language.key();
    match TOOLCHAINS.iter().find(|(language, _)| *language == key) {
        Some((_, find)) => find(wanted),
        None => Err(Missing::new("a way to compile it here", "none is known")),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_language_has_a_toolchain() {
        for language in jar_sprout_grow::LANGUAGES {
            assert!(TOOLCHAINS.iter().any(|(key, _)| *key == language.key()), "{}", language.key());
        }
    }
}
