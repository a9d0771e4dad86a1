//! What is proven: a model and its samples.

use std::collections::BTreeSet;

use jar_sprout_grow::{
    Arrangement, Grown, GrownFile, Helper, Settings, SharedPlace, Trial, TrialSample, grow_prepared,
    grow_shared, prepare, trial,
};
use jar_sprout_model::{Definition, Encoding, Model, Slot, Type};
use jar_sprout_settle::case_of;
use serde_json::Value;

use crate::memory::Digest;
use crate::report::Order;

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
pub(crate) struct Staged {
    /// Its place among all proofs.
    pub(crate) index: usize,
    pub(crate) trial: Trial,
    pub(crate) files: Vec<GrownFile>,
    /// The helpers that it shares with others.
    pub(crate) shared: BTreeSet<Helper>,
    /// The model as the language holds it.
    pub(crate) model: Model,
    /// What it is remembered by; none where nobody remembers.
    pub(crate) digest: Option<Digest>,
}

/// A sample without the keys that its model does not know; as it is where all are known.
fn known(model: &Model, text: &str) -> String {
    let Ok(mut value) = serde_json::from_str::<Value>(text) else { return text.to_owned() };
    if prune(model, &model.root.slot, &mut value) { value.to_string() } else { text.to_owned() }
}

/// Takes unknown keys out of a value; whether there was one.
fn prune(model: &Model, slot: &Slot, value: &mut Value) -> bool {
    let mut is_pruned = false;
    match (&slot.ty, value) {
        (Type::List(items) | Type::Map(items), Value::Array(values)) => {
            values.iter_mut().for_each(|value| is_pruned |= prune(model, items, value));
        }
        (Type::Map(values), Value::Object(object)) => {
            object.values_mut().for_each(|value| is_pruned |= prune(model, values, value));
        }
        (Type::Tuple(items), Value::Array(values)) => {
            items.iter().zip(values).for_each(|(item, value)| is_pruned |= prune(model, item, value));
        }
        (Type::Named(id), value) => match (&model.get(*id).definition, value) {
            (Definition::Record(record), Value::Object(object)) => {
                let before = object.len();
                object.retain(|key, _| record.extras.is_some() || record.has_key(key));
                is_pruned = object.len() < before;
                for (_, value) in object.iter_mut().filter(|(key, _)| !record.has_key(key)) {
                    is_pruned |= record.extras.as_ref().is_some_and(|extras| prune(model, extras, value));
                }
                for field in &record.fields {
                    if let Some(value) = object.get_mut(field.wire.as_str()) {
                        is_pruned |=
                            field.encoding != Encoding::JsonInText && prune(model, &field.slot, value);
                    }
                }
            }
            (Definition::Union(union), value) => {
                if let Some(case) = case_of(model, union, value) {
                    is_pruned = prune(model, &case.slot, value);
                }
            }
            (Definition::Record(_) | Definition::Enumeration(_), _) => {}
        },
        _ => {}
    }
    is_pruned
}

/// The folder of what all proofs share, beside theirs.
pub(crate) const SHARED: &str = "shared";

impl Order<'_> {
    /// The settings of the code at a place.
    fn settings_at(&self, place: &str) -> Settings {
        let settings = self.language.for_trial(self.settings, place);
        // Where all that is proven stands, for the languages that import by whole paths.
        let name = match self.language.shared_path() {
            None => SHARED.to_owned(),
            Some('/') => format!("trials/{SHARED}"),
            Some(between) => format!("grown{between}{SHARED}"),
        };
        let way = format!("../{SHARED}");
        let shared = SharedPlace { name: &name, settings: &self.settings_shared(), way: &way };
        let sharing = self.is_shared.then(|| self.language.sharing(&settings, &shared)).flatten();
        sharing.unwrap_or(settings)
    }

    /// The settings of what all proofs share.
    fn settings_shared(&self) -> Settings {
        self.language.shared(&self.language.for_trial(self.settings, "trials"), SHARED)
    }

    /// The code of helpers that proofs share.
    pub(crate) fn shared_code(&self, helpers: &BTreeSet<Helper>) -> Vec<GrownFile> {
        grow_shared(&*self.language.dialect(&self.settings_shared()), helpers)
    }
}

impl Staged {
    /// `is_run` says whether a program passes the samples through the code; else the compiler judges them.
    pub(crate) fn of(order: &Order<'_>, index: usize, proof: &Proof, is_run: bool) -> Self {
        let place = format!("t{index:04}");
        let dialect = &*order.language.dialect(&order.settings_at(&place));
        let prepared = prepare(dialect, &proof.model);
        let Grown { files, shared } = grow_prepared(dialect, &prepared, Arrangement::AsUsual);
        let sample = |(number, sample): (usize, &Sample)| TrialSample {
            name: format!("{place}-{number}"),
            text: if is_run { sample.text.clone() } else { known(prepared.model(), &sample.text) },
        };
        let samples = proof.samples.iter().enumerate().map(sample).collect();
        let trial = trial(dialect, &prepared, &place, samples);
        Self { index, trial, files, shared, model: prepared.model().clone(), digest: None }
    }

    /// All that its proof depends on, given the driver of it alone and how the tools are called; its place among all
    /// proofs is no part of it.
    pub(crate) fn digest_of(&self, driver: &[GrownFile], shared: &[GrownFile], called: &str) -> Digest {
        let place = &self.trial.place;
        let anywhere = |text: &str| text.replace(place, "t").replace(&place.to_uppercase(), "T");
        let file = |file: &GrownFile| (anywhere(&file.name), anywhere(&file.text));
        let code: Vec<_> = self.files.iter().chain(driver).chain(shared).map(file).collect();
        let samples: Vec<&str> = self.trial.samples.iter().map(|sample| sample.text.as_str()).collect();
        Digest::of(&(called, code, samples, format!("{:?}", self.model)))
    }
}
