//! The proof of TypeScript: every sample assigned to the type of its root, for the compiler to judge.

use std::fmt::Write as _;

use crate::code::GrownFile;
use crate::trial::Trial;

/// A module for each trial. JSON is an expression of the language (ECMA-262, since 2019), so that a sample stands
/// in it as it is, and the compiler objects to missing keys. It would object to unknown ones as well, which are left out.
pub(super) fn driver(trials: &[Trial]) -> Vec<GrownFile> {
    trials.iter().filter(|trial| !trial.samples.is_empty()).map(module).collect()
}

fn module(trial: &Trial) -> GrownFile {
    let Trial { place, entry, is_alias: _, file, samples } = trial;
    let module = file.trim_end_matches(".ts");
    let mut text = format!("import type {{ {entry} }} from \"./{place}/{module}.js\";\n");
    for (index, sample) in samples.iter().enumerate() {
        write!(text, "\nexport const sample{index}: {entry} = {};\n", sample.text.trim())
            .expect("a string takes everything");
    }
    GrownFile { name: format!("{place}.ts"), text }
}
