//! What is asked of a proof, and what it shows.

use jar_sprout_grow::{Language, Settings};

use crate::memory::{Digest, Memory};

/// What is to be proven of a language.
#[derive(Clone, Copy)]
pub struct Order<'o> {
    /// The language.
    pub language: &'o dyn Language,
    /// The settings of the grown code.
    pub settings: &'o Settings,
    /// Whether its linters and formatters are heard as well.
    pub with_judges: bool,
    /// Whether the helpers of all proofs stand in one place, as in a jar of several models; where the language can.
    pub is_shared: bool,
    /// What was proven before, and is left out.
    pub memory: Option<&'o Memory>,
}

/// What was proven.
#[derive(Debug, Clone, Default)]
pub struct Report {
    /// What compiled and ran the code: `go 1.26.8`.
    pub toolchain: String,
    /// What the compiler said, by proof; nothing where it took all.
    pub compiler: Vec<ToolOutput>,
    /// How many samples there were.
    pub samples: usize,
    /// The samples that did not come back as they were sent.
    pub misses: Vec<Miss>,
    /// What linters and formatters said.
    pub judges: Vec<ToolOutput>,
    /// Of the proofs that were made now, those of which every sample came back; none where a compiler objected.
    pub proven: Vec<Digest>,
}

/// What a tool said.
#[derive(Debug, Clone)]
pub struct ToolOutput {
    /// The tool.
    pub tool: String,
    /// The proofs it speaks of; none where it does not say.
    pub proofs: Vec<String>,
    /// What it said.
    pub text: String,
}

/// A sample that did not come back as it was sent.
#[derive(Debug, Clone)]
pub struct Miss {
    /// The proof it belongs to.
    pub proof: String,
    /// The sample.
    pub sample: String,
    /// The path and the two values, or why it could not be decoded.
    pub text: String,
}
