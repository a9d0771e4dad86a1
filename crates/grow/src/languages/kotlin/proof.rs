//! The driver that passes samples through grown Kotlin.

use super::settings::Library;
use super::types::{GSON_DATES, JACKSON_DATES, MOSHI_DATES};
use crate::code::GrownFile;
use crate::trial::Trial;

/// Reads what is to be done, and does it by the library's round trip.
const DRIVER: &str = include_str!("Driver.kt");

const KOTLINX: &str = include_str!("kotlinx/RoundTrip.kt");
const MOSHI: &str = include_str!("moshi/RoundTrip.kt");
const GSON: &str = include_str!("gson/RoundTrip.kt");
const JACKSON: &str = include_str!("jackson/RoundTrip.kt");

/// The package of a trial's code.
pub(super) fn package(place: &str) -> String {
    format!("trials.{place}")
}

/// The driver and a table of the trials' types: run it with the folder of the samples and that of the results.
pub(super) fn driver(trials: &[Trial], library: Library) -> Vec<GrownFile> {
    let (round_trip, dates) = match library {
        Library::Kotlinx | Library::None => (KOTLINX, None),
        Library::Moshi => (MOSHI, Some(MOSHI_DATES)),
        Library::Gson => (GSON, Some(GSON_DATES)),
        Library::Jackson => (JACKSON, Some(JACKSON_DATES)),
    };
    // One for all trials, and the same text as theirs.
    let dates = dates.map(|dates| GrownFile {
        name: "Dates.kt".to_owned(),
        text: format!("package trials\n\n{}", dates.text),
    });
    let branches: String = trials
        .iter()
        .map(|Trial { place, entry, .. }| {
            format!("    \"{place}\" -> roundTrip<{}.{entry}>(text)\n", package(place))
        })
        .collect();
    let table = format!(
        "package trials\n\n/** Passes a text through the type of a trial. */\nfun roundTrip(place: String, text: String): String = when (place) {{\n{branches}    else -> error(\"no trial $place\")\n}}\n"
    );
    let driver = GrownFile { name: "Driver.kt".to_owned(), text: DRIVER.to_owned() };
    let round_trip = GrownFile { name: "RoundTrip.kt".to_owned(), text: round_trip.to_owned() };
    let table = GrownFile { name: "Trials.kt".to_owned(), text: table };
    [driver, round_trip, table].into_iter().chain(dates).collect()
}
