//! `jar-sprout scrub`: samples that make the same model and hold none of the values.

use std::collections::BTreeSet;
use std::path::{Path, PathBuf};

use indexmap::IndexMap;
use jar_sprout_model::Words;
use jar_sprout_settle::{RootName, root_name};

use crate::args::ScrubArgs;
use crate::exit::Exit;
use crate::failure::{Failure, Outcome};
use crate::files::{NewFile, overwrite_all};
use crate::recordings::is_recording;
use crate::report;
use crate::request::Selection;
use crate::scrubbing::{Exceptions, joined, scrubbed};
use crate::sources::{LocatedSample, gather, located_samples, split_part};
use crate::wording::{counted, first_few};

pub(crate) fn scrub(args: &ScrubArgs) -> Outcome<Exit> {
    let selection =
        Selection { sources: args.samples.clone(), is_lenient: args.lenient, ..Selection::default() };
    if let Some(recorded) = args.samples.iter().find(|typed| is_recording(Path::new(split_part(typed).0))) {
        let problem = Failure::argument("a recording holds more than samples", recorded.clone());
        let help = format!("`jar-sprout init {}` takes its samples out", split_part(recorded).0);
        return Err(problem.with_help(help).into());
    }
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

impl<'a> From<&'a ScrubArgs> for Exceptions<'a> {
    fn from(args: &'a ScrubArgs) -> Self {
        Self { keep_values: &args.keep_values, scrub_words: &args.scrub_words }
    }
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

/// Says what stayed.
fn tell(count: usize, words: &BTreeSet<String>) {
    const MOST: usize = 12;
    let all: Vec<String> = words.iter().map(|word| format!("`{word}`")).collect();
    let stayed = match first_few(&all, MOST) {
        few if few.is_empty() => few,
        few => format!("; words of its enums stayed: {few}"),
    };
    report::note(&format!("{} scrubbed, for the same model{stayed}", counted(count, "sample")));
}
