//! The driver that passes samples through grown Python.

use crate::spell::GrownFile;
use crate::spell::Trial;

const DRIVER: &str = include_str!("driver.py");

/// What JSON calls its words, so that a sample stands in the code as it is.
const WORDS: &str =
    "from typing import Final\n\ntrue: Final = True\nfalse: Final = False\nnull: Final = None\n";

/// A module for each trial with its samples, for the type checker to judge.
pub(super) fn typed(trials: &[Trial]) -> Vec<GrownFile> {
    let module = |trial: &Trial| {
        let Trial { place, entry, file, samples, .. } = trial;
        let module = file.trim_end_matches(".py");
        let mut text = format!(
            "# ruff: noqa\nfrom grown.json_words import false, null, true\nfrom grown.{place}.{module} import {entry}\n"
        );
        for (index, sample) in samples.iter().enumerate() {
            // The escapes of JSON that mean something else in Python.
            let whole = || serde_json::from_str::<serde_json::Value>(&sample.text).ok();
            let has_escapes = sample.text.contains("\\u") || sample.text.contains("\\/");
            let plain = has_escapes.then(whole).flatten().map(|value| value.to_string());
            let sample = plain.unwrap_or_else(|| sample.text.trim().to_owned());
            text += &format!("\nsample{index}: {entry} = {sample}\n");
        }
        GrownFile { name: format!("{place}.py"), text }
    };
    let words = GrownFile { name: "json_words.py".to_owned(), text: WORDS.to_owned() };
    trials.iter().filter(|trial| !trial.samples.is_empty()).map(module).chain([words]).collect()
}

/// The driver and a table of the trials' functions: run it with the jobs on standard input.
pub(super) fn driver(trials: &[Trial]) -> Vec<GrownFile> {
    let module = |trial: &Trial| format!("grown.{}.{}", trial.place, trial.file.trim_end_matches(".py"));
    let import = |trial: &Trial| format!("import {}\n", module(trial));
    let entry = |trial: &Trial| {
        let (Trial { place, decode, encode, .. }, module) = (trial, module(trial));
        format!("    \"{place}\": lambda text: {module}.{encode}({module}.{decode}(text)),\n")
    };
    let imports: String = trials.iter().map(import).collect();
    let entries: String = trials.iter().map(entry).collect();
    let table = format!(
        "from collections.abc import Callable\n\n{imports}\nTRIALS: dict[str, Callable[[str], str]] = {{\n{entries}}}\n"
    );
    let file = |name: &str, text: &str| GrownFile { name: name.to_owned(), text: text.to_owned() };
    vec![file("driver.py", DRIVER), file("trials.py", &table)]
}
