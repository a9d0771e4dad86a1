//! Trials: samples to be passed through grown code by a driver in the same language.

use jar_sprout_model::Model;

use crate::language::{Language, TimeKeeping};
use crate::plan::{Absence, Plan, PlannedRoot};
use crate::settings::Settings;
use crate::times::Times;

/// One root with its samples.
#[derive(Debug, Clone)]
pub struct Trial {
    /// The folder of its code beside the driver, and its package or module: `t0`.
    pub place: String,
    /// The root's type: `HivePage`.
    pub entry: String,
    /// Whether the root is no named type, so that the entry is whatever the language puts in its place.
    pub is_alias: bool,
    /// The file that declares it, as the language names it.
    pub file: String,
    /// What is decoded.
    pub samples: Vec<TrialSample>,
}

/// One sample of a trial.
#[derive(Debug, Clone)]
pub struct TrialSample {
    /// What messages call it; the driver writes its result under this name.
    pub name: String,
    /// One JSON text; without the keys that the model does not know where the compiler judges it, which objects to
    /// them.
    pub text: String,
}

impl Trial {
    /// The trial of a model's code, which stands in the folder `place` beside the driver.
    pub fn new(
        language: &dyn Language,
        settings: &Settings,
        model: &Model,
        place: &str,
        samples: Vec<TrialSample>,
    ) -> Self {
        // Names alone are asked for, whatever becomes of times.
        let plan =
            Plan::of(model, &language.about().naming, Times::of(model, TimeKeeping::AsText), Absence::Untold);
        let entry = plan.root_name().to_owned();
        let file =
            language.file_name(if language.has_file_per_type(settings) { &entry } else { plan.title() });
        let is_alias = matches!(plan.roots[0], PlannedRoot::Alias { .. });
        Self { place: place.to_owned(), is_alias, file, entry, samples }
    }
}
