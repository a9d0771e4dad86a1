//! `jar-sprout scrub`: samples that make the same model and hold none of the values.

use std::collections::BTreeSet;
use std::hash::RandomState;
use std::path::{Path, PathBuf};

use indexmap::IndexMap;
use jar_sprout_model::{Definition, Model, Problem, SourceId, TypeId, WireName, Words};
use jar_sprout_scrub::Scrubber;
use jar_sprout_settle::{Policies, RootName, Subject, infer, root_name};
use jar_sprout_shape::{Shape, observe};
use serde_json::value::RawValue;

use crate::args::ScrubArgs;
use crate::exit::Exit;
use crate::failure::{Failure, Outcome};
use crate::files::{NewFile, overwrite_all};
use crate::modelling::not_found;
use crate::report;
use crate::request::Selection;
use crate::sources::{LocatedSample, gather, located_samples};
use crate::wording::counted;

/// With so many keys it is tried whether what comes out makes the same model.
const TRIES: usize = 4;

pub(crate) fn scrub(args: &ScrubArgs) -> Outcome<Exit> {
    let selection =
        Selection { sources: args.samples.clone(), is_lenient: args.lenient, ..Selection::default() };
    // What comes in by a pipe can be read once.
    let is_piped = args.samples.iter().any(|sample| sample == "-");
    let words = if is_piped { root_name([], None, false) } else { checked(args, &selection)? };
    let name = RootName { words, is_given: false };
    let samples = located_samples(&selection)?;
    let texts: Vec<&str> = samples.iter().map(LocatedSample::text).collect();
    let Some((scrubbed, words)) = scrubbed(&texts, &name, args.into(), &asked(args))? else {
        let message = "what came out would make another model; nothing was written";
        let help =
            "leave out `--scrub-words`, or keep the values that the model turns on with `--keep-values`";
        return Err(Failure::argument(message, asked(args)).with_help(help).into());
    };
    write(args, &samples, scrubbed)?;
    tell(samples.len(), &words);
    Ok(Exit::Well)
}

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
struct Exceptions<'a> {
    keep_values: &'a [String],
    scrub_words: &'a [String],
}

impl<'a> From<&'a ScrubArgs> for Exceptions<'a> {
    fn from(args: &'a ScrubArgs) -> Self {
        Self { keep_values: &args.keep_values, scrub_words: &args.scrub_words }
    }
}

/// Samples with other values, and the words that stayed.
type Scrubbed = (Vec<String>, BTreeSet<String>);

/// Samples with other values, and the words that stayed; none where no key is found with which the model is the same.
fn scrubbed(
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

/// Reads the files as every command does, with its faults and warnings; what their root is called.
fn checked(args: &ScrubArgs, selection: &Selection) -> Outcome<Words> {
    let gathered = gather(selection)?;
    if gathered.document.is_some() {
        let problem = Failure::argument("a document holds no values", asked(args));
        return Err(problem.with_help("name samples: it is they that hold people's data").into());
    }
    gathered.show_warnings();
    Ok(gathered.root_name())
}

/// What was typed.
fn asked(args: &ScrubArgs) -> String {
    format!("scrub {}", args.samples.join(" "))
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
fn model_of<'t>(samples: impl Iterator<Item = &'t str>, name: &RootName) -> Option<Model> {
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

fn write(args: &ScrubArgs, samples: &[LocatedSample], scrubbed: Vec<String>) -> Outcome<()> {
    let mut files: IndexMap<&Path, Vec<String>> = IndexMap::new();
    for (sample, text) in samples.iter().zip(scrubbed) {
        files.entry(Path::new(&sample.file)).or_default().push(text);
    }
    let Some(dir) = &args.dir else {
        if files.len() > 1 {
            let problem = Failure::argument("several samples need a folder", asked(args));
            return Err(problem.with_help("add `--dir FOLDER`").into());
        }
        let texts = files.into_values().next().unwrap_or_default();
        return Ok(report::result(&joined(&texts))?);
    };
    // Files of one name in several folders keep so much of their way that they stay apart.
    let folders: Vec<PathBuf> = files.keys().filter_map(|file| file.parent()).map(Path::to_owned).collect();
    let is_above = |folder: &&Path| folders.iter().all(|other| other.starts_with(folder));
    let shared = folders.first().and_then(|first| first.ancestors().find(is_above)).unwrap_or(Path::new(""));
    let file = |(name, texts): (&Path, Vec<String>)| {
        let is_json = name.extension().is_some_and(|end| {
            ["json", "ndjson", "jsonl"].iter().any(|known| end.eq_ignore_ascii_case(known))
        });
        let end = if texts.len() == 1 { "json" } else { "ndjson" };
        let name = if is_json { name.to_owned() } else { name.with_extension(end) };
        NewFile { path: dir.join(name.strip_prefix(shared).unwrap_or(&name)), text: joined(&texts) }
    };
    let files: Vec<NewFile> = files.into_iter().map(file).collect();
    if let Some(there) = files.iter().find(|file| !args.overwrite && file.path.exists()) {
        let problem = Failure::path("a file stands here, and it stays; nothing was written", &there.path);
        return Err(problem.with_help("choose another folder, or `--overwrite` it").into());
    }
    Ok(overwrite_all(files)?)
}

/// One value, or one a line.
fn joined(texts: &[String]) -> String {
    texts.iter().map(|text| format!("{text}\n")).collect()
}

/// Says what stayed.
fn tell(count: usize, words: &BTreeSet<String>) {
    const MOST: usize = 12;
    let shown: Vec<String> = words.iter().take(MOST).map(|word| format!("`{word}`")).collect();
    let more = words.len().saturating_sub(MOST);
    let more = if more > 0 { format!(" and {more} more") } else { String::new() };
    let stayed = if shown.is_empty() {
        String::new()
    } else {
        format!("; words of its enums stayed: {}{more}", shown.join(", "))
    };
    report::note(&format!("{} scrubbed, for the same model{stayed}", counted(count, "sample")));
}
