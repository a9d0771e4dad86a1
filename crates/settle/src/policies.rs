//! Policies: what a user sets once, without deciding each field.

use std::collections::{BTreeMap, BTreeSet};

use jar_sprout_model::Words;
use jar_sprout_shape::Path;

use crate::structure::Structure;

/// How inference decides where the samples leave a choice.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Policies {
    /// How far presence is trusted.
    pub trust: Trust,
    /// Keys that are always there, even when nothing is trusted.
    pub essential: BTreeSet<String>,
    /// Whether repeated words become enums.
    pub enums: bool,
    /// Whether texts that are dates become dates.
    pub dates: bool,
    /// Whether objects whose keys are data become maps.
    pub maps: bool,
    /// Whether every integer has 64 bits.
    pub wide_integers: bool,
    /// Whether the default values of a document are those of the code, and not documentation alone.
    pub defaults: bool,
    /// What every type's name starts with.
    pub prefix: Option<Words>,
    /// What objects are by the user's word, by the position they stand at.
    pub(crate) structures: BTreeMap<String, Structure>,
    /// The positions of texts that are read as JSON by the user's word.
    pub(crate) json_texts: BTreeSet<String>,
}

impl Policies {
    /// Whether the user said that the texts at one of these positions are read as JSON.
    pub(crate) fn are_json(&self, paths: &[Path]) -> bool {
        paths.iter().any(|path| self.json_texts.contains(&path.to_string()))
    }

    /// What the user said that the objects at one of these positions are.
    pub(crate) fn structure_at(&self, paths: &[Path]) -> Option<&Structure> {
        if self.structures.is_empty() {
            None
        } else {
            paths.iter().find_map(|path| self.structures.get(&path.to_string()))
        }
    }
}

/// How far presence is trusted.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Trust {
    /// What was seen, until somebody says how far; one sample alone raises a question.
    Provisional,
    /// A key that every object had is always there.
    Seen,
    /// Any key but the essential ones may be missing or null tomorrow.
    Nothing,
}

impl Default for Policies {
    fn default() -> Self {
        Self {
            trust: Trust::Provisional,
            essential: BTreeSet::new(),
            enums: true,
            dates: true,
            maps: true,
            wide_integers: false,
            defaults: false,
            prefix: None,
            structures: BTreeMap::new(),
            json_texts: BTreeSet::new(),
        }
    }
}
