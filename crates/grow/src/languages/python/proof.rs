//! The driver that passes samples through grown Python.

use crate::code::GrownFile;
use crate::trial::Trial;

const DRIVER: &str = include_str!("driver.py");

/// The driver and a table of the trials' types: run it with the jobs on standard input.
pub(super) fn driver(trials: &[Trial]) -> Vec<GrownFile> {
    let module = |trial: &Trial| trial.file.trim_end_matches(".py").to_owned();
    let import = |trial: &Trial| format!("import {}.{}\n", trial.place, module(trial));
    let entry = |trial: &Trial| {
        format!("    \"{0}\": TypeAdapter({0}.{1}.{2}),\n", trial.place, module(trial), trial.entry)
    };
    let imports: String = trials.iter().map(import).collect();
    let entries: String = trials.iter().map(entry).collect();
    let table = format!(
        "from typing import Any\n\nfrom pydantic import TypeAdapter\n\n{imports}\nTRIALS: dict[str, TypeAdapter[Any]] = {{\n{entries}}}\n"
    );
    vec![
        GrownFile { name: "driver.py".to_owned(), text: DRIVER.to_owned() },
        GrownFile { name: "trials.py".to_owned(), text: table },
    ]
}
