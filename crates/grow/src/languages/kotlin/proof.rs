//! The driver that passes samples through grown Kotlin.

use crate::spell::GrownFile;
use crate::spell::Trial;

/// Reads what is to be done and does it.
const DRIVER: &str = include_str!("Driver.kt");

/// The package of a trial's code.
pub(super) fn package(place: &str) -> String {
    format!("trials.{place}")
}

/// The driver and a table of the trials' functions: run it with the folder of the samples and that of the results.
pub(super) fn driver(trials: &[Trial]) -> Vec<GrownFile> {
    let branch = |Trial { place, decode, encode, .. }: &Trial| {
        let package = package(place);
        format!("    \"{place}\" -> {package}.{encode}({package}.{decode}(text))\n")
    };
    let branches: String = trials.iter().map(branch).collect();
    let table = format!(
        "package trials\n\n/** Passes a text through the type of a trial. */\nfun roundTrip(place: String, text: String): String = when (place) {{\n{branches}    else -> error(\"no trial $place\")\n}}\n"
    );
    vec![
        GrownFile { name: "Driver.kt".to_owned(), text: DRIVER.to_owned() },
        GrownFile { name: "Trials.kt".to_owned(), text: table },
    ]
}
