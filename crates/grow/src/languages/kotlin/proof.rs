//! The driver that passes samples through grown Kotlin.

use crate::code::GrownFile;
use crate::trial::Trial;

const DRIVER: &str = include_str!("Driver.kt");

/// The package of a trial's code.
pub(super) fn package(place: &str) -> String {
    format!("trials.{place}")
}

/// The driver and a table of the trials' types: run it with the folder of the samples and that of the results.
pub(super) fn driver(trials: &[Trial]) -> Vec<GrownFile> {
    let branches: String = trials
        .iter()
        .map(|Trial { place, entry, .. }| {
            format!("    \"{place}\" -> roundTrip<{}.{entry}>(text)\n", package(place))
        })
        .collect();
    let table = format!(
        "package trials\n\n/** Passes a text through the type of a trial. */\nfun roundTrip(place: String, text: String): String = when (place) {{\n{branches}    else -> error(\"no trial $place\")\n}}\n"
    );
    vec![
        GrownFile { name: "Driver.kt".to_owned(), text: DRIVER.to_owned() },
        GrownFile { name: "Trials.kt".to_owned(), text: table },
    ]
}
