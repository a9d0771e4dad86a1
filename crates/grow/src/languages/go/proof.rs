//! The driver that passes samples through grown Go.

use crate::spell::GrownFile;
use crate::spell::Trial;

const DRIVER: &str = include_str!("driver.go");

const MODULE: &str = "module trials\n\ngo 1.24\n";

/// The driver and a table of the trials' types: run it with the jobs on standard input.
pub(super) fn driver(trials: &[Trial]) -> Vec<GrownFile> {
    let import = |Trial { place, .. }: &Trial| format!("\t\"trials/{place}\"\n");
    let width = trials.iter().map(|trial| trial.place.len()).max().unwrap_or(0) + 4;
    let entry = |Trial { place, decode, encode, .. }: &Trial| {
        format!("\t{:<width$}roundTrip({place}.{decode}, {place}.{encode}),\n", format!("\"{place}\":"))
    };
    let mut sorted: Vec<&Trial> = trials.iter().collect();
    sorted.sort_by_key(|trial| &trial.place);
    let imports: String = sorted.into_iter().map(import).collect();
    let entries: String = trials.iter().map(entry).collect();
    let table = format!(
        "package main\n\nimport (\n{imports})\n\nvar trials = map[string]func([]byte) ([]byte, error){{\n{entries}}}\n"
    );
    vec![
        GrownFile { name: "go.mod".to_owned(), text: MODULE.to_owned() },
        GrownFile { name: "main.go".to_owned(), text: DRIVER.to_owned() },
        GrownFile { name: "trials.go".to_owned(), text: table },
    ]
}
