//! The samples of a recording, taken out into files of their own.

use std::collections::{BTreeMap, BTreeSet};
use std::hash::{DefaultHasher, Hash as _, Hasher as _};
use std::path::{Path, PathBuf};
use std::time::Duration;

use jar_sprout_fetch::{Endpoint, Exchange, Timestamp, stem, time_stamp};
use url::Url;

use crate::failure::Outcome;
use crate::files::{cannot_write, make_folder};
use crate::jar::{model_name, samples_of};
use crate::progress::Progress;
use crate::recordings::Recording;
use crate::stage::{Stage, sweep};

/// Samples that are ready to take their places.
pub(crate) struct TakenOut {
    stage: Stage,
    /// How many each model has.
    pub(crate) counts: Vec<usize>,
}

/// What each endpoint's model is called: by what it is about, and otherwise than those that are there.
pub(crate) fn models_of(endpoints: &[&Endpoint], mut taken: BTreeSet<String>) -> Vec<String> {
    let mut names = Vec::new();
    for endpoint in endpoints {
        let best = model_name(&endpoint.model_name());
        let others = endpoint.other_names(endpoints);
        let numbered = (2..).map(|number| format!("{best}-{number}"));
        let mut all = [best.clone()].into_iter().chain(others.iter().map(model_name)).chain(numbered);
        let name = all.find(|name| !taken.contains(name)).unwrap_or_default();
        taken.insert(name.clone());
        names.push(name);
    }
    names
}

/// Writes the samples of endpoints beside the folders of these models, one body after the other; what is the same twice
/// is taken once.
pub(crate) fn take_out(
    recording: &Recording,
    endpoints: &[&Endpoint],
    models: &[String],
) -> Outcome<TakenOut> {
    let mut stage = Stage::default();
    let mut counts = vec![0; endpoints.len()];
    let mut seen: BTreeSet<(usize, u64)> = BTreeSet::new();
    let mut names: BTreeMap<PathBuf, usize> = BTreeMap::new();
    for model in models {
        let folder = samples_of(model);
        make_folder(&folder)?;
        sweep(&folder);
    }
    recording.samples(endpoints, &mut |at, exchange, text| {
        let mut hasher = DefaultHasher::new();
        text.hash(&mut hasher);
        if seen.insert((at, hasher.finish())) {
            let path = free_path(recording, exchange, &samples_of(&models[at]), &mut names);
            stage.add(&path, &text).map_err(cannot_write)?;
            counts[at] += 1;
        }
        Ok(())
    })?;
    Ok(TakenOut { stage, counts })
}

impl TakenOut {
    /// Puts them in their places.
    pub(crate) fn put(self) -> Outcome<()> {
        let count = self.counts.iter().sum();
        Ok(self.stage.put(&[], &Progress::of_things("writing", count)).map_err(cannot_write)?)
    }
}

/// The file of a sample, which says what was asked and when, and is no other one's.
fn free_path(
    recording: &Recording,
    exchange: &Exchange,
    folder: &Path,
    names: &mut BTreeMap<PathBuf, usize>,
) -> PathBuf {
    let shown = recording.survey.secrets.masked(exchange.url.as_str());
    let stem = stem(&Url::parse(&shown).unwrap_or_else(|_| exchange.url.clone()));
    let when: Timestamp = exchange.started.parse().unwrap_or(Timestamp::UNIX_EPOCH);
    let path = |later: usize| {
        let when = when.checked_add(Duration::from_millis(later as u64)).unwrap_or(when);
        folder.join(format!("{stem}.{}.json", time_stamp(when)))
    };
    // What went out in the same millisecond is a little later here.
    let later = names.entry(path(0)).or_default();
    let free = path(*later);
    *later += 1;
    free
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn models_have_names_of_their_own() {
        let endpoint = |host: &str, method: &str, path: &str| Endpoint {
            host: host.to_owned(),
            method: method.to_owned(),
            path: path.to_owned(),
            operation: None,
            side: jar_sprout_fetch::Side::Answer,
            statuses: BTreeMap::new(),
            shortest: 0,
            longest: 0,
            exchanges: BTreeSet::new(),
        };
        let all = [
            endpoint("a.example", "GET", "/hives"),
            endpoint("a.example", "GET", "/hives/{id}"),
            endpoint("a.example", "GET", "/apiaries/{id}/hives"),
            endpoint("b.example", "GET", "/hives"),
            endpoint("a.example", "GET", "/search"),
            endpoint("a.example", "POST", "/search"),
        ];
        let all: Vec<&Endpoint> = all.iter().collect();
        let taken = BTreeSet::from(["hive".to_owned()]);
        let names = models_of(&all, taken);
        assert_eq!(
            names,
            ["hives", "a-example-hive", "apiary-hives", "b-example-hives", "search", "search-post"]
        );
    }
}
