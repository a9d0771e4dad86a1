//! The two sides that are held against each other.

use std::collections::{BTreeMap, BTreeSet};
use std::env;
use std::path::{Path, PathBuf};

use jar_sprout_drift::{Finding, Side, drift};
use jar_sprout_model::{Model, Problem, Slot, Type, TypeId};
use jar_sprout_settle::{FieldVerdict, Inferred, Misfit, Part, Subject, words_seen};
use jar_sprout_shape::{Path as Way, Step};

use crate::failure::{Failure, Outcome, reason};
use crate::modelling::{are_many, compared, place_of};
use crate::request::Selection;
use crate::sources::{Gathered, LocatedSample, located_samples};

/// One side: what was read, and the model of it.
pub(crate) struct Half {
    pub(crate) gathered: Gathered,
    pub(crate) modelled: Inferred,
    selection: Selection,
    /// The folder from which its sources are called.
    home: PathBuf,
}

/// Two sides of one model.
pub(crate) struct Pair {
    /// What the jar calls it, where it is one of a jar's.
    pub(crate) model: Option<String>,
    pub(crate) old: Half,
    pub(crate) new: Half,
    /// Where each value of the new side stands first that the old one's model does not take, by its way through the data.
    misfits: BTreeMap<String, String>,
}

/// Does something in another folder.
pub(crate) fn within<T>(folder: &Path, act: impl FnOnce() -> Outcome<T>) -> Outcome<T> {
    let here = here()?;
    let enter =
        |folder: &Path| env::set_current_dir(folder).map_err(|error| Failure::path(reason(&error), folder));
    enter(folder)?;
    let done = act();
    enter(&here)?;
    done
}

fn here() -> Result<PathBuf, Problem> {
    env::current_dir().map_err(|error| Failure::path(reason(&error), Path::new(".")))
}

impl Pair {
    /// Two sides, the new one's samples held against the old one's model.
    pub(crate) fn of(model: Option<String>, old: Half, new: Half) -> Outcome<Self> {
        let samples = new.samples()?;
        let mut misfits = BTreeMap::new();
        for (sample, Misfit { path, remedy, .. }) in &compared(&old.modelled, &samples).0 {
            let step = |part: &Part| match part {
                Part::Key(key) => Step::Child(key.clone()),
                Part::Item(_) => Step::All,
            };
            let mut way: Vec<Step> = path.iter().map(step).collect();
            // A key that is not there is missed in its object.
            if let Some((Subject { key: Some(key), .. }, FieldVerdict::Optional)) = remedy {
                way.push(Step::Child(key.as_str().to_owned()));
            }
            misfits.entry(Way(way).to_string()).or_insert_with(|| place_of(sample, path));
        }
        Ok(Self { model, old, new, misfits })
    }

    /// Where what breaks reading stands first.
    pub(crate) fn first_misfit(&self, finding: &Finding) -> Option<&str> {
        self.misfits.get(&finding.at.to_string()).map(String::as_str)
    }

    /// What changed.
    pub(crate) fn findings(&self) -> Vec<Finding> {
        let (old_sent, new_sent) = (self.old.sent(), self.new.sent());
        let (is_old, is_new) = (|id| old_sent.contains(&id), |id| new_sent.contains(&id));
        let (old_words, new_words) =
            (|field: &Subject| self.old.words(field), |field: &Subject| self.new.words(field));
        drift(
            Side {
                model: self.old.model(),
                is_complete: self.old.is_complete(),
                is_sent: &is_old,
                words: &old_words,
            },
            Side {
                model: self.new.model(),
                is_complete: self.new.is_complete(),
                is_sent: &is_new,
                words: &new_words,
            },
        )
    }
}

impl Half {
    /// A side that was read from the folder that we are in.
    pub(crate) fn new(gathered: Gathered, modelled: Inferred, selection: Selection) -> Outcome<Self> {
        Ok(Self { gathered, modelled, selection, home: here()? })
    }

    /// Its samples once more, one by one.
    fn samples(&self) -> Outcome<Vec<LocatedSample>> {
        // What came in by a pipe is gone, and of very many samples nobody waits for a place.
        let is_piped = self.selection.sources.iter().any(|one| one == "-");
        if self.gathered.samples == 0 || are_many(&self.gathered) || is_piped {
            return Ok(Vec::new());
        }
        within(&self.home, || located_samples(&self.selection))
    }

    pub(crate) fn model(&self) -> &Model {
        &self.modelled.settled.model
    }

    /// Whether what it does not have is not there: a document says it, samples show only what they show.
    fn is_complete(&self) -> bool {
        self.gathered.document.is_some() && self.gathered.samples == 0
    }

    fn words(&self, field: &Subject) -> Option<Vec<String>> {
        words_seen(&self.modelled.drafted, &self.modelled.settled, field)
    }

    /// The types that a client sends, as a document says it.
    fn sent(&self) -> BTreeSet<TypeId> {
        let Some(document) = &self.gathered.document else { return BTreeSet::new() };
        let slots = self.modelled.settled.slots_of(&document.draft);
        let taken = document.operations.iter().flat_map(|operation| &operation.takes);
        let slots: Vec<Slot> =
            taken.filter_map(|carried| carried.node).map(|node| slots.slot(node)).collect();
        let mut sent = BTreeSet::new();
        let mut pending: Vec<&Type> = slots.iter().map(|slot| &slot.ty).collect();
        while let Some(ty) = pending.pop() {
            for id in ty.named() {
                if sent.insert(id) {
                    pending.extend(self.model().get(id).definition.types());
                }
            }
        }
        sent
    }
}
