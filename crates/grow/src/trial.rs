//! Trials: samples to be passed through grown code by a driver in the same language.

use jar_sprout_model::Model;

use crate::language::{Language, TimeKeeping};
use crate::plan::{Absence, Plan, Wanted};
use crate::settings::{ENTRY, Settings};
use crate::times::Times;
use crate::twins::twinned;

/// One root with its samples.
#[derive(Debug, Clone)]
pub struct Trial {
    /// The folder of its code beside the driver, and its package or module: `t0`.
    pub place: String,
    /// The root's type: `HivePage`.
    pub entry: String,
    /// Where the functions stand that read and write it: `HivePageJson`.
    pub home: String,
    /// What reads it from text: `decodeHivePage`.
    pub decode: String,
    /// What writes it as text: `encodeHivePage`.
    pub encode: String,
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
        let twinned = twinned(language, model, settings);
        let model = twinned.as_ref().map_or(model, |twinned| &twinned.model);
        // Names alone are asked for, whatever becomes of times.
        let times = Times::of(model, TimeKeeping::AsText);
        let wanted =
            Wanted { absence: Absence::Untold, has_entry: true, has_defaults: false, first_twin: usize::MAX };
        let plan = Plan::of(model, &language.about().naming, times, wanted);
        let entry = plan.root_name().to_owned();
        let file = if language.has_file_per_type(settings) { &entry } else { plan.title() };
        let file = language.file_name(file, settings);
        let home = plan.entry_home().as_str().to_owned();
        let (_, functions) = plan.entries().next().expect("the first root is named");
        let [decode, encode] = functions.each_ref().map(|ident| ident.as_str().to_owned());
        Self { place: place.to_owned(), home, decode, encode, file, entry, samples }
    }

    /// The settings for the code of a trial: that goes where the driver looks for it, with what the driver calls.
    pub fn settings(language: &dyn Language, place: &str, settings: &Settings) -> Settings {
        let mut settings = language.trial_settings(place).or(settings);
        if language.settings().iter().any(|setting| setting.key == ENTRY.key) {
            settings.set(language, ENTRY.key, "functions").expect("it is one of its values");
        }
        settings
    }
}
