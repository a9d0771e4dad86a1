//! Helpers for points in time that the wire has as numbers: those for milliseconds are those for seconds with some of
//! their text exchanged.

use std::sync::OnceLock;

use jar_sprout_model::Coding;

use super::sheet::Helper;
use super::swap::swap;

/// A helper for seconds since 1970, and what is otherwise in that for milliseconds.
pub(crate) struct EpochHelpers {
    seconds: Helper,
    swaps: &'static [(&'static str, &'static str)],
    milliseconds: OnceLock<(String, String)>,
}

impl EpochHelpers {
    /// `swaps` are parts of the text for seconds, each with what stands in its place for milliseconds.
    pub(crate) const fn new(seconds: Helper, swaps: &'static [(&'static str, &'static str)]) -> Self {
        Self { seconds, swaps, milliseconds: OnceLock::new() }
    }

    /// The helper for a unit.
    pub(crate) fn get(&'static self, coding: Coding) -> Helper {
        if coding == Coding::EpochSeconds {
            return self.seconds;
        }
        let (name, text) = self.milliseconds.get_or_init(|| {
            let Helper { name, text } = self.seconds;
            let text =
                self.swaps.iter().fold(text.to_owned(), |text, (part, other)| swap(&text, part, other));
            let name = match name.split_once("Seconds") {
                Some((before, after)) => format!("{before}Milliseconds{after}"),
                None => swap(name, "seconds", "milliseconds"),
            };
            (name, text)
        });
        Helper { name: name.as_str(), text: text.as_str() }
    }
}
