//! The proofs of TypeScript: every sample assigned to the type of its root, for the compiler to judge; or passed
//! through the functions that parse.

use std::fmt::Write as _;

use crate::spell::GrownFile;
use crate::spell::Trial;

/// A module for each trial. JSON is an expression of the language (ECMA-262, since 2019), so that a sample stands
/// in it as it is, and the compiler objects to missing keys. It would object to unknown ones as well, which are left out.
pub(super) fn assigned(trials: &[Trial]) -> Vec<GrownFile> {
    trials.iter().filter(|trial| !trial.samples.is_empty()).map(module).collect()
}

fn module(trial: &Trial) -> GrownFile {
    let Trial { place, entry, file, samples, .. } = trial;
    let module = file.trim_end_matches(".ts");
    let mut text = format!("import type {{ {entry} }} from \"./{place}/{module}.js\";\n");
    for (index, sample) in samples.iter().enumerate() {
        write!(text, "\nexport const sample{index}: {entry} = {};\n", sample.text.trim())
            .expect("a string takes everything");
    }
    GrownFile { name: format!("{place}.ts"), text }
}

const DRIVER: &str = include_str!("driver.ts");

/// What the driver uses of the platform, whose types are not installed.
const PLATFORM: &str = include_str!("platform.d.ts");

/// The driver and a table of the trials' functions: run it with the jobs on standard input.
pub(super) fn parsed(trials: &[Trial]) -> Vec<GrownFile> {
    let import = |Trial { place, file, .. }: &Trial| {
        format!("import * as {place} from \"./{place}/{}.js\";\n", file.trim_end_matches(".ts"))
    };
    let entry = |Trial { place, entry, .. }: &Trial| {
        format!("  {place}: (text) => {place}.format{entry}({place}.parse{entry}(text)),\n")
    };
    let imports: String = trials.iter().map(import).collect();
    let entries: String = trials.iter().map(entry).collect();
    let table = format!(
        "{imports}\nexport const trials: Record<string, (text: string) => string> = {{\n{entries}}};\n"
    );
    let file = |name: &str, text: &str| GrownFile { name: name.to_owned(), text: text.to_owned() };
    vec![file("driver.ts", DRIVER), file("platform.d.ts", PLATFORM), file("trials.ts", &table)]
}
