//! What no code can mend.

/// Samples that do not come back, and no code can mend it. Each is looked for: one that comes back after all is a failure,
/// as is another that does not.
pub(crate) const KNOWN: &[Known] = &[
    // Moshi takes the key of one NUL for none.
    Known { of: MOSHI, proof: "odd-keys", text: MISSING_NUL, count: 1 },
    Known { of: MOSHI, proof: "torture-keys", text: MISSING_NUL, count: 1 },
    Known { of: MOSHI, proof: "torture-key-types", text: MISSING_NUL, count: 1 },
    // Swift takes an accent behind a letter for the letter that has it, in keys as in all texts.
    Known { of: SWIFT, proof: "torture-key-types", text: "No value associated with key", count: 1 },
    Known { of: SWIFT, proof: "torture-keys", text: "Expected to decode Double but found bool", count: 1 },
    Known { of: SWIFT, proof: "torture-maps", text: "$.by: sent", count: 1 },
    // These write every date-time in UTC, and of a document's no one knows that they are not.
    Known {
        of: &["rust dates=jiff", "kotlin dates=kotlinx-datetime"],
        proof: "keywords",
        text: "came back \"2026-05-01T10:30:00Z\"",
        count: 1,
    },
];

const SWIFT: &[&str] = &["swift"];

const MOSHI: &[&str] = &["kotlin library=moshi"];

const MISSING_NUL: &str = "JsonDataException: Required value 'u0' missing at $";

/// Samples of one proof that do not come back.
pub(crate) struct Known {
    /// Languages with their settings: `rust dates=jiff`.
    pub(crate) of: &'static [&'static str],
    pub(crate) proof: &'static str,
    /// What is said of each sample, in part.
    pub(crate) text: &'static str,
    /// How many samples.
    pub(crate) count: usize,
}
