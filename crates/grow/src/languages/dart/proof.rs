//! The driver that passes samples through grown Dart.

use crate::spell::GrownFile;
use crate::spell::Trial;

const DRIVER: &str = include_str!("driver.dart");

/// The driver and a table of the trials' types: run it with the jobs on standard input.
pub(super) fn driver(trials: &[Trial]) -> Vec<GrownFile> {
    let import = |Trial { place, file, .. }: &Trial| format!("import '{place}/{file}' as {place};\n");
    let entry = |Trial { place, decode, encode, .. }: &Trial| {
        format!("  '{place}': (text) => {place}.{encode}({place}.{decode}(text)),\n")
    };
    let imports: String = trials.iter().map(import).collect();
    let entries: String = trials.iter().filter(|trial| !trial.samples.is_empty()).map(entry).collect();
    let table = format!("{imports}\nfinal trials = <String, String Function(String)>{{\n{entries}}};\n");
    vec![
        GrownFile { name: "main.dart".to_owned(), text: DRIVER.to_owned() },
        GrownFile { name: "trials.dart".to_owned(), text: table },
    ]
}
