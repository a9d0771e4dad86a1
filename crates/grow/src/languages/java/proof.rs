//! The driver that passes samples through grown Java.

use crate::spell::GrownFile;
use crate::spell::Trial;

const DRIVER: &str = include_str!("Driver.java");

/// The package of a trial's code.
pub(super) fn package(place: &str) -> String {
    format!("trials.{place}")
}

/// The driver and a table of the trials' functions: run it with the jobs on standard input.
pub(super) fn driver(trials: &[Trial]) -> Vec<GrownFile> {
    let entry = |Trial { place, home, decode, encode, .. }: &Trial| {
        let home = format!("{}.{home}", package(place));
        format!("    ALL.put(\"{place}\", text -> {home}.{encode}({home}.{decode}(text)));\n")
    };
    let entries: String = trials.iter().map(entry).collect();
    let table = format!(
        "package trials;\n\nimport java.util.HashMap;\nimport java.util.Map;\n\nfinal class Trials {{\n  static final Map<String, Driver.Trial> ALL = new HashMap<>();\n\n  static {{\n{entries}  }}\n\n  private Trials() {{}}\n}}\n"
    );
    vec![
        GrownFile { name: "Driver.java".to_owned(), text: DRIVER.to_owned() },
        GrownFile { name: "Trials.java".to_owned(), text: table },
    ]
}
