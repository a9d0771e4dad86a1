//! Scrubbing: samples of which the model of what comes out is compared with the original's.

use std::collections::BTreeSet;
use std::hash::RandomState;

use jar_sprout_model::{Definition, Model, Problem, SourceId, TypeId, WireName, Words};
use jar_sprout_scrub::Scrubber;
use jar_sprout_settle::{Policies, RootName, Subject, infer, root_name};
use jar_sprout_shape::{Shape, observe};
use serde_json::value::RawValue;

use crate::failure::Failure;
use crate::modelling::not_found;

/// With so many keys it is tried whether what comes out makes the same model.
const TRIES: usize = 4;

/// One text of samples, scrubbed.
pub(crate) fn without_values(text: &str) -> Result<String, Problem> {
    let name = RootName { words: root_name([], None, false), is_given: false };
    let values = serde_json::Deserializer::from_str(text).into_iter::<&RawValue>();
    let samples: Result<Vec<&str>, _> = values.map(|value| value.map(RawValue::get)).collect();
    let samples = samples.map_err(|error| Failure::argument(error.to_string(), "--scrub"))?;
    match scrubbed(&samples, &name, Exceptions::default(), "--scrub")? {
        Some((scrubbed, _)) => Ok(joined(&scrubbed)),
        None => {
            let message = "what came out would make another model; nothing was written";
            Err(Failure::argument(message, "--scrub").with_help("record it as it is, and `scrub` it later"))
        }
    }
}

/// The fields that are scrubbed otherwise than the rest.
#[derive(Clone, Copy, Default)]
pub(crate) struct Exceptions<'a> {
    pub(crate) keep_values: &'a [String],
    pub(crate) scrub_words: &'a [String],
}

/// Samples with other values, and the words that stayed.
pub(crate) type Scrubbed = (Vec<String>, BTreeSet<String>);

/// Samples with other values, and the words that stayed; none where no key is found with which the model is the same.
pub(crate) fn scrubbed(
    samples: &[&str],
    name: &RootName,
    exceptions: Exceptions<'_>,
    asked: &str,
) -> Result<Option<Scrubbed>, Problem> {
    let model = model_of(samples.iter().copied(), name);
    let model = model.ok_or_else(|| Failure::argument("no sample was found", asked))?;
    for _ in 0..TRIES {
        let scrubber = scrubber(&model, exceptions)?;
        let scrubbed: Result<Vec<String>, _> = samples.iter().map(|sample| scrubber.scrub(sample)).collect();
        let scrubbed = scrubbed.map_err(|error| Failure::argument(error.to_string(), asked))?;
        let again = model_of(scrubbed.iter().map(String::as_str), name);
        let is_same = again.as_ref() == Some(&model)
            || !exceptions.scrub_words.is_empty()
                && again.map(without_words) == Some(without_words(model.clone()));
        if is_same {
            let words = scrubber.words().into_iter().map(str::to_owned).collect();
            return Ok(Some((scrubbed, words)));
        }
    }
    Ok(None)
}

/// One with a key of its own, which goes when it does.
fn scrubber<'m>(model: &'m Model, args: Exceptions<'_>) -> Result<Scrubber<'m, RandomState>, Problem> {
    let mut scrubber = Scrubber::new(model, RandomState::new());
    for typed in args.keep_values {
        let kept = scrubber.keep(&Subject::parse(typed));
        kept.map_err(|miss| not_found(&miss, format!("--keep-values {typed}")))?;
    }
    for typed in args.scrub_words {
        let scrubbed = scrubber.scrub_words(&Subject::parse(typed));
        scrubbed.map_err(|miss| not_found(&miss, format!("--scrub-words {typed}")))?;
    }
    Ok(scrubber)
}

/// The model of samples; none where there is none, or one is no JSON.
pub(crate) fn model_of<'t>(samples: impl Iterator<Item = &'t str>, name: &RootName) -> Option<Model> {
    let mut shape = Shape::default();
    let mut count = 0;
    for (source, sample) in (0..).map(SourceId).zip(samples) {
        observe(sample.as_bytes(), source, &mut shape).ok()?;
        count += 1;
    }
    (count > 0).then(|| infer(&shape, name, &Policies::default()).settled.model)
}

/// The model, its enums without their words: as many, in the same order.
fn without_words(mut model: Model) -> Model {
    let all: Vec<TypeId> = model.types().map(|(id, _)| id).collect();
    for id in all {
        if let Definition::Enumeration(known) = &mut model.get_mut(id).definition {
            for (at, case) in known.cases.iter_mut().enumerate() {
                let word = format!("word {at}");
                (case.wire, case.name) = (WireName::new(&word), Words::split(&word));
            }
        }
    }
    model
}

/// One value, or one a line.
pub(crate) fn joined(texts: &[String]) -> String {
    texts.iter().map(|text| format!("{text}\n")).collect()
}
