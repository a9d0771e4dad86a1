//! The driver that passes samples through grown Rust.

use crate::spell::GrownFile;
use crate::spell::Trial;

const DRIVER: &str = include_str!("driver.rs.in");

/// The driver and a table of the trials' types: run it with the jobs on standard input.
pub(super) fn driver(trials: &[Trial]) -> Vec<GrownFile> {
    let module =
        |Trial { place, file, .. }: &Trial| format!("#[path = \"{place}/{file}\"]\npub mod {place};\n");
    let branch = |Trial { place, decode, encode, .. }: &Trial| {
        format!("        \"{place}\" => {place}::{encode}(&{place}::{decode}(text)?),\n")
    };
    let modules: String = trials.iter().map(module).collect();
    let branches: String = trials.iter().map(branch).collect();
    let table = format!(
        "{modules}\n#[rustfmt::skip]\nfn trial(place: &str, text: &str) -> Result<String, serde_json::Error> {{\n    match place {{\n{branches}        _ => unreachable!(\"no trial {{place}}\"),\n    }}\n}}\n"
    );
    vec![GrownFile { name: "main.rs".to_owned(), text: format!("{DRIVER}\n{table}") }]
}
