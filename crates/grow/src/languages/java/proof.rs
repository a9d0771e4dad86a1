//! The driver that passes samples through grown Java.

use super::settings::Library;
use crate::code::GrownFile;
use crate::trial::Trial;

const DRIVER: &str = include_str!("Driver.java");

/// The package of a trial's code.
pub(super) fn package(place: &str) -> String {
    format!("trials.{place}")
}

/// The driver and a table of the trials' types: run it with the jobs on standard input.
pub(super) fn driver(trials: &[Trial], library: Library) -> Vec<GrownFile> {
    let entry = |trial: &Trial| {
        let root = format!("{}.{}", package(&trial.place), trial.entry);
        let root = if trial.is_alias { format!("{root}.TYPE") } else { format!("{root}.class") };
        let place = &trial.place;
        format!("    ALL.put(\"{place}\", text -> RoundTrip.of(text, {root}));\n")
    };
    let entries: String = trials.iter().map(entry).collect();
    let table = format!(
        "package trials;\n\nimport java.util.HashMap;\nimport java.util.Map;\n\nfinal class Trials {{\n  static final Map<String, Driver.Trial> ALL = new HashMap<>();\n\n  static {{\n{entries}  }}\n\n  private Trials() {{}}\n}}\n"
    );
    let round_trip = match library {
        Library::Jackson => include_str!("RoundTrip.java"),
        Library::Gson => include_str!("gson/RoundTrip.java"),
    };
    vec![
        GrownFile { name: "RoundTrip.java".to_owned(), text: round_trip.to_owned() },
        GrownFile { name: "Driver.java".to_owned(), text: DRIVER.to_owned() },
        GrownFile { name: "Trials.java".to_owned(), text: table },
    ]
}
