//! What is proven: a model and its samples.

use jar_sprout_grow::{Arrangement, GrownFile, Language, Settings, Trial, TrialSample, grow};
use jar_sprout_model::Model;

/// A model and the samples it must carry.
#[derive(Debug, Clone)]
pub struct Proof {
    /// What messages call it.
    pub name: String,
    /// The model.
    pub model: Model,
    /// What is decoded and encoded again.
    pub samples: Vec<Sample>,
}

/// One JSON text.
#[derive(Debug, Clone)]
pub struct Sample {
    /// What messages call it.
    pub name: String,
    /// The text.
    pub text: String,
}

/// A proof in one language.
pub(crate) struct Laid {
    /// Its place among all proofs.
    pub(crate) index: usize,
    pub(crate) trial: Trial,
    pub(crate) files: Vec<GrownFile>,
}

impl Laid {
    pub(crate) fn of(language: &dyn Language, settings: &Settings, index: usize, proof: &Proof) -> Self {
        let place = format!("t{index:04}");
        let settings = language.trial_settings(&place).or(settings);
        let files = grow(language, &proof.model, &settings, Arrangement::AsUsual);
        let sample = |(number, sample): (usize, &Sample)| TrialSample {
            name: format!("{place}-{number}"),
            text: sample.text.clone(),
        };
        let samples = proof.samples.iter().enumerate().map(sample).collect();
        Self { index, trial: Trial::new(language, &proof.model, &place, samples), files }
    }
}
