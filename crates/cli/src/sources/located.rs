//! Samples one by one, each with where it stands.

use std::io::Read as _;
use std::ops::Range;
use std::path::Path;
use std::rc::Rc;

use indexmap::IndexMap;
use jar_sprout_model::Problem;
use jar_sprout_prove::Sample;
use jar_sprout_settle::Part;
use jar_sprout_shape::Step;
use serde_json::value::RawValue;

use super::find::{Source, find_sources};
use crate::failure::{Failure, Outcome, reason};
use crate::recordings::Recording;
use crate::request::Selection;
use crate::source_names::SourceNames;

/// The part of each sample that is taken: `$.data.items`; `data.items` means the same.
pub(super) fn part(selection: &Selection) -> Result<jar_sprout_shape::Path, Problem> {
    let typed = selection.at.as_deref().unwrap_or("$");
    let path = match typed.chars().next() {
        Some('$') | None => typed.to_owned(),
        Some('.' | '[') => format!("${typed}"),
        Some(_) => format!("$.{typed}"),
    };
    jar_sprout_shape::Path::parse(&path)
        .map_err(|error| Failure::argument(error.to_string(), format!("--at {}", error.path)))
}

/// One sample, and where it stands.
pub(crate) struct LocatedSample {
    pub(crate) file: String,
    /// The text of the whole file.
    whole: Rc<str>,
    /// Where in it the sample stands.
    range: Range<usize>,
}

impl LocatedSample {
    pub(crate) fn text(&self) -> &str {
        &self.whole[self.range.clone()]
    }

    /// The line in the file, from 1, of what a path in the sample leads to.
    pub(crate) fn line_of(&self, path: &[Part]) -> usize {
        let mut value = self.text();
        for part in path {
            let inner = match part {
                Part::Key(key) => serde_json::from_str::<IndexMap<String, &RawValue>>(value)
                    .ok()
                    .and_then(|object| object.get(key).copied()),
                Part::Item(index) => serde_json::from_str::<Vec<&RawValue>>(value)
                    .ok()
                    .and_then(|items| items.get(*index).copied()),
            };
            let Some(inner) = inner else { break };
            value = inner.get();
        }
        let start = value.as_ptr() as usize - self.whole.as_ptr() as usize;
        self.whole[..start].matches('\n').count() + 1
    }
}

/// The samples one by one, as they were written; a null at the root is none.
pub(crate) fn read_samples(selection: &Selection) -> Outcome<Vec<Sample>> {
    let samples = located_samples(selection)?;
    let number = |(at, sample): (usize, &LocatedSample)| Sample {
        name: format!("{}:{}", sample.file, at + 1),
        text: sample.text().to_owned(),
    };
    Ok(samples.iter().enumerate().map(number).filter(|sample| sample.text.trim() != "null").collect())
}

/// The samples one by one, each with where it stands.
pub(crate) fn located_samples(selection: &Selection) -> Outcome<Vec<LocatedSample>> {
    let at = part(selection)?;
    let mut samples = Vec::new();
    for source in find_sources(selection)? {
        match &source {
            Source::Document(..) => {}
            Source::Recording(path, endpoint) => {
                let recording = Recording::open(path)?;
                let endpoint = recording.one(endpoint.as_deref())?;
                let mut names = recording.sample_names(endpoint);
                recording.samples(&[endpoint], &mut |_, _, text| {
                    locate(&at, &names.next().unwrap_or_default(), &text, &mut samples)
                })?;
            }
            Source::File(_) | Source::StandardInput => {
                let name = source.name();
                let mut text = String::new();
                let mut reader = source
                    .open(selection.is_lenient)
                    .map_err(|problem| Failure::Problem(problem, SourceNames::default()))?;
                reader
                    .read_to_string(&mut text)
                    .map_err(|error| Failure::path(reason(&error), Path::new(&name)))?;
                locate(&at, &name, text.trim_start_matches('\u{FEFF}'), &mut samples)?;
            }
        }
    }
    Ok(samples)
}

/// Adds the samples of a text to others.
fn locate(
    at: &jar_sprout_shape::Path,
    name: &str,
    text: &str,
    samples: &mut Vec<LocatedSample>,
) -> Outcome<()> {
    let whole: Rc<str> = text.into();
    for value in serde_json::Deserializer::from_str(&whole).into_iter::<&RawValue>() {
        let value = value.map_err(|error| Failure::path(error.to_string(), Path::new(name)))?;
        parts_at(&at.0, value.get(), &mut |part| {
            let start = part.as_ptr() as usize - whole.as_ptr() as usize;
            let range = start..start + part.len();
            samples.push(LocatedSample { file: name.to_owned(), whole: Rc::clone(&whole), range });
        });
    }
    Ok(())
}

/// Calls back with each part of a value that a path leads to, as it was written.
fn parts_at(steps: &[Step], value: &str, take: &mut dyn FnMut(&str)) {
    let Some((step, rest)) = steps.split_first() else { return take(value) };
    let object = || serde_json::from_str::<IndexMap<String, &RawValue>>(value).unwrap_or_default();
    match step {
        Step::Child(key) => {
            if let Some(part) = object().get(key) {
                parts_at(rest, part.get(), take);
            }
        }
        Step::All => {
            let items = serde_json::from_str::<Vec<&RawValue>>(value);
            let parts = items.unwrap_or_else(|_| object().into_values().collect());
            parts.iter().for_each(|part| parts_at(rest, part.get(), take));
        }
    }
}
