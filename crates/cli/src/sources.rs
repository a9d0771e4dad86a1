//! Sources: from what was typed to one merged shape.

use std::collections::BTreeSet;
use std::io::{self, Read};
use std::ops::Range;
use std::path::{Path, PathBuf};
use std::rc::Rc;

use indexmap::IndexMap;
use jar_sprout_document::Drafted;
use jar_sprout_fetch::Record;
use jar_sprout_model::{Kind, Problem, SourceId, Spot, Words};
use jar_sprout_prove::Sample;
use jar_sprout_settle::{Part, root_name, singular};
use jar_sprout_shape::{NoMatch, Shape, Step, observe};
use serde_json::value::RawValue;

use crate::documents;
use crate::failure::{Failure, Outcome, reason};
use crate::input;
use crate::report;
use crate::request::Selection;
use crate::source_names::SourceNames;
use crate::wording::nearest;

/// Where samples are read from.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
enum Source {
    File(PathBuf),
    /// A schema or an API description, and the part of it that is asked for.
    Document(PathBuf, Option<String>),
    StandardInput,
}

/// All samples, merged.
pub(crate) struct Gathered {
    pub(crate) shape: Shape,
    pub(crate) names: SourceNames,
    /// How many values were read.
    pub(crate) samples: u64,
    /// Their length.
    pub(crate) bytes: u64,
    pub(crate) warnings: Vec<Problem>,
    /// What the files are called, without folder and extension.
    stems: Vec<String>,
    /// What the folder is called that all files stand in.
    folder: Option<String>,
    /// Whether each file is a record of one of several things.
    are_records_of_one: bool,
    at: jar_sprout_shape::Path,
    /// What a document says, where one was named.
    pub(crate) document: Option<Drafted>,
}

/// Reads every source that was named, in the order of their names, so that the order of arguments changes nothing.
pub(crate) fn gather(selection: &Selection) -> Outcome<Gathered> {
    let at = part(selection)?;
    let sources = find_sources(&selection.sources)?;
    let names = SourceNames::of(sources.iter().map(Source::name).collect());
    // Samples beside a document are called by themselves.
    let is_sample = |source: &&Source| !matches!(source, Source::Document(..));
    let has_samples = sources.iter().any(|source| is_sample(&source));
    let named = sources.iter().filter(|source| !has_samples || is_sample(source));
    let stems = named.filter_map(Source::stem).collect();
    let folder = shared_folder(&sources);
    let mut gathered = Gathered {
        shape: Shape::default(),
        names,
        samples: 0,
        bytes: 0,
        warnings: Vec::new(),
        stems,
        folder,
        are_records_of_one: sources.iter().all(Source::is_record_of_one),
        at,
        document: read_document(&sources, selection.refs_from.as_deref())?,
    };
    for (id, source) in (0..).map(SourceId).zip(&sources) {
        if !matches!(source, Source::Document(..)) {
            gathered.read(source, id, selection.is_lenient).map_err(|problem| {
                Failure::Problem(Box::new(source.with_lenience(*problem)), gathered.names.clone())
            })?;
        }
    }
    if gathered.samples == 0 && gathered.document.is_some() {
        if let Some(at) = &selection.at {
            let message =
                "a path leads into samples; the part of a document that is meant stands behind a `#`";
            let problem = Failure::argument(message, format!("--at {at}"));
            return Err(problem.with_help("such as `api.yaml#Hive` or `'api.yaml#/hives/{id}'`").into());
        }
        return Ok(gathered);
    }
    let whole = std::mem::take(&mut gathered.shape);
    gathered.shape = select(&gathered.at, whole)?;
    Ok(gathered)
}

/// The part of each sample that is taken: `$.data.items`; `data.items` means the same.
fn part(selection: &Selection) -> Result<jar_sprout_shape::Path, Problem> {
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
    for source in find_sources(&selection.sources)? {
        if matches!(source, Source::Document(..)) {
            continue;
        }
        let name = source.name();
        let mut text = String::new();
        let mut reader = source
            .open(selection.is_lenient)
            .map_err(|problem| Failure::Problem(problem, SourceNames::default()))?;
        reader.read_to_string(&mut text).map_err(|error| Failure::path(reason(&error), Path::new(&name)))?;
        let whole: Rc<str> = text.trim_start_matches('\u{FEFF}').into();
        for value in serde_json::Deserializer::from_str(&whole).into_iter::<&RawValue>() {
            let value = value.map_err(|error| Failure::path(error.to_string(), Path::new(&name)))?;
            parts_at(&at.0, value.get(), &mut |part| {
                let start = part.as_ptr() as usize - whole.as_ptr() as usize;
                let range = start..start + part.len();
                samples.push(LocatedSample { file: name.clone(), whole: Rc::clone(&whole), range });
            });
        }
    }
    Ok(samples)
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

impl Gathered {
    fn read(&mut self, source: &Source, id: SourceId, is_lenient: bool) -> Result<(), Box<Problem>> {
        let observed = observe(source.open(is_lenient)?, id, &mut self.shape)?;
        self.samples += observed.values;
        self.bytes += observed.bytes;
        self.warnings.extend(observed.warnings);
        if observed.more_warnings > 0 {
            let message = format!("{} more keys stand twice in one object", observed.more_warnings);
            self.warnings.push(Problem::warning(message, Spot::Source(id)));
        }
        Ok(())
    }

    /// Shows what was odd in the samples.
    pub(crate) fn show_warnings(&self) {
        self.warnings.iter().for_each(|warning| report::problem(warning, &self.names));
        let said = self.document.iter().flat_map(|document| &document.problems);
        said.for_each(|problem| report::problem(problem, &self.names));
    }

    /// What was read, in a word or two, without folders: `hives-1.json and 2 more`.
    pub(crate) fn title(&self) -> String {
        let more = match self.names.len() - 1 {
            0 => String::new(),
            more => format!(" and {more} more"),
        };
        let first = self.names.get(SourceId(0));
        let name = Path::new(first).file_name().map_or(first.into(), |name| name.to_string_lossy());
        format!("{name}{more}")
    }

    /// What a file is called that holds a whole response: a sample's own name, where that is one.
    pub(crate) fn response_file(&self) -> String {
        let is_whole = self.at.0.is_empty() && self.samples == self.names.len() as u64;
        let first = Path::new(self.names.get(SourceId(0)));
        let is_json = first.extension().is_some_and(|extension| extension.eq_ignore_ascii_case("json"));
        let name = first.file_name().filter(|_| is_whole && is_json && self.document.is_none());
        name.map_or_else(|| "response.json".to_owned(), |name| name.to_string_lossy().into_owned())
    }

    /// The root's name when the user gave none: the last key of the path, else what the files are called.
    pub(crate) fn root_name(&self) -> Words {
        let steps = &self.at.0;
        let last_key = steps.iter().rposition(|step| matches!(step, Step::Child(_)));
        let name = match last_key.map(|at| &steps[at]) {
            Some(Step::Child(key)) => Words::split(key),
            Some(Step::All) | None => {
                let is_object = self.shape.kinds().into_iter().all(|kind| kind == Kind::Object);
                let of_one = is_object && self.samples == self.names.len() as u64;
                let name = root_name(self.stems.iter().map(String::as_str), self.folder.as_deref(), of_one);
                if of_one && self.are_records_of_one { singular(&name) } else { name }
            }
        };
        // A file of many values, one a line, is named after them all, as a list is.
        let has_many = last_key.is_none() && self.samples > self.names.len() as u64;
        let is_item = steps.last() == Some(&Step::All) || has_many;
        if is_item { singular(&name) } else { name }
    }
}

/// The name of the nearest folder that all files stand in, at any depth.
fn shared_folder(sources: &[Source]) -> Option<String> {
    let folder = |source: &Source| match source {
        Source::File(path) | Source::Document(path, _) => {
            Some(path.canonicalize().ok()?.parent()?.to_owned())
        }
        Source::StandardInput => None,
    };
    let mut shared = folder(sources.first()?)?;
    for source in sources {
        let other = folder(source)?;
        while !other.starts_with(&shared) {
            shared = shared.parent()?.to_owned();
        }
    }
    shared.file_name().map(|name| name.to_string_lossy().into_owned())
}

/// The sources that the arguments name, each once, sorted; standard input comes last.
fn find_sources(arguments: &[String]) -> Outcome<Vec<Source>> {
    let mut sources = Vec::new();
    for argument in arguments {
        if argument == "-" {
            sources.push(Source::StandardInput);
        } else {
            sources.extend(named_sources(argument)?);
        }
    }
    sources.sort();
    sources.dedup();
    Ok(sources)
}

/// The file of an argument, and the part of it that is asked for, which stands behind a `#`.
pub(crate) fn split_part(argument: &str) -> (&str, Option<&str>) {
    match argument.split_once('#').filter(|_| !Path::new(argument).exists()) {
        Some((path, part)) => (path, Some(part)),
        None => (argument, None),
    }
}

/// The sources of one argument.
fn named_sources(argument: &str) -> Outcome<Vec<Source>> {
    if let (path, Some(part)) = split_part(argument) {
        return Ok(vec![Source::Document(PathBuf::from(path), Some(part.to_owned()))]);
    }
    // All that a folder is taken for are documents.
    let is_folder = Path::new(argument).is_dir();
    let source = |path: PathBuf| {
        if is_folder || documents::is_document(&path) {
            Source::Document(path, None)
        } else {
            Source::File(path)
        }
    };
    Ok(files_of(argument)?.into_iter().map(source).collect())
}

/// What the one document among the sources says.
fn read_document(sources: &[Source], refs_from: Option<&Path>) -> Outcome<Option<Drafted>> {
    let documents = sources.iter().filter_map(|source| match source {
        Source::Document(path, pointer) => Some((path, pointer)),
        Source::File(_) | Source::StandardInput => None,
    });
    let documents: Vec<_> = documents.collect();
    let Some((path, _)) = documents.first() else { return Ok(None) };
    if let Some((second, _)) = documents.iter().find(|(other, _)| other != path) {
        if documents.iter().any(|(_, part)| part.is_some()) {
            let problem = Failure::path("parts of one document at a time", second);
            let help = "a model comes from one document; several models make a jar";
            return Err(problem.with_help(help).into());
        }
        let paths: Vec<&PathBuf> = documents.iter().map(|(path, _)| *path).collect();
        return Ok(Some(documents::read_schemas(&paths, refs_from)?));
    }
    // Parts beside the whole are there already.
    let parts: Option<Vec<&str>> = documents.iter().map(|(_, part)| part.as_deref()).collect();
    Ok(Some(documents::read(path, &parts.unwrap_or_default(), refs_from)?))
}

/// The files that an argument means: itself, or what a glob matches.
pub(crate) fn files_of(argument: &str) -> Outcome<Vec<PathBuf>> {
    let path = Path::new(argument);
    if ["http://", "https://"].iter().any(|scheme| argument.starts_with(scheme)) {
        let help =
            format!("save what it answers, or hand it over: `curl -s '{argument}' | jar-sprout look -`");
        return Err(Failure::argument("this is an address, and a source is a file", argument)
            .with_help(help)
            .into());
    }
    if path.is_dir() {
        let schemas = schemas_in(path);
        if !schemas.is_empty() {
            return Ok(schemas);
        }
        let help = format!("name its files: `{}`", path.join("*.json").display());
        return Err(Failure::path("this is a folder", path).with_help(help).into());
    }
    if path.exists() || !argument.contains(['*', '?', '[']) {
        return Ok(vec![path.to_owned()]);
    }
    let matches = glob::glob(argument)
        .map_err(|error| Failure::argument(format!("not a glob: {}", error.msg), argument))?;
    let files: Vec<PathBuf> = matches.filter_map(Result::ok).filter(|path| path.is_file()).collect();
    tell_passed_over(&files);
    if files.is_empty() {
        return Err(Failure::argument("no file matches this glob", argument).into());
    }
    Ok(files)
}

/// The files in a folder, and below, if all of them that could be documents are.
fn schemas_in(folder: &Path) -> Vec<PathBuf> {
    const ENDINGS: &[&str] = &["json", "yaml", "yml"];
    let pattern = format!("{}/**/*", glob::Pattern::escape(&folder.to_string_lossy()));
    let files = glob::glob(&pattern).into_iter().flatten().filter_map(Result::ok);
    let mut files: Vec<PathBuf> = files
        .filter(|path| {
            let ending = path.extension().and_then(|ending| ending.to_str());
            ending.is_some_and(|ending| ENDINGS.contains(&ending)) && path.is_file()
        })
        .collect();
    if !files.iter().all(|path| documents::is_document(path)) {
        files.clear();
    }
    files
}

/// Says which files beside those that a glob matches it passes over: it reads names of UTF-8 alone.
fn tell_passed_over(files: &[PathBuf]) {
    let folders: BTreeSet<&Path> = files.iter().filter_map(|file| file.parent()).collect();
    for folder in folders {
        let here = if folder.as_os_str().is_empty() { Path::new(".") } else { folder };
        let entries = std::fs::read_dir(here).into_iter().flatten().flatten();
        for entry in entries.filter(|entry| entry.file_name().to_str().is_none()) {
            let spot = Spot::Path(folder.join(entry.file_name()).display().to_string());
            let problem = Problem::warning("the name is no UTF-8, and a glob passes it over", spot);
            report::problem(
                &problem.with_help("name the file itself, or give it another name"),
                &SourceNames::default(),
            );
        }
    }
}

impl Source {
    fn name(&self) -> String {
        match self {
            Self::File(path) | Self::Document(path, _) => path.display().to_string(),
            Self::StandardInput => "standard input".to_owned(),
        }
    }

    fn stem(&self) -> Option<String> {
        match self {
            Self::File(path) | Self::Document(path, _) => {
                let stem = path.file_stem()?.to_string_lossy();
                Some(Record::of(&stem).map_or(&*stem, |record| record.subject).to_owned())
            }
            Self::StandardInput => None,
        }
    }

    /// Whether it is a record of one of several things, by what was asked: `/hives/17`.
    fn is_record_of_one(&self) -> bool {
        match self {
            Self::File(path) => {
                let stem = path.file_stem().map(|stem| stem.to_string_lossy());
                stem.is_some_and(|stem| Record::of(&stem).is_some_and(|record| record.is_one))
            }
            Self::Document(..) | Self::StandardInput => false,
        }
    }

    fn open(&self, is_lenient: bool) -> Result<Box<dyn Read>, Box<Problem>> {
        let path = match self {
            Self::StandardInput => {
                let spot = Path::new("standard input");
                return input::standard_input(is_lenient)
                    .map_err(|error| Box::new(Failure::path(reason(&error), spot)));
            }
            Self::File(path) if documents::is_yaml(path) => {
                return Ok(Box::new(io::Cursor::new(documents::yaml_as_json(path)?)));
            }
            Self::File(path) | Self::Document(path, _) => path,
        };
        input::open(path, is_lenient).map_err(|error| {
            let problem = Failure::path(reason(&error), path);
            let near = (error.kind() == io::ErrorKind::NotFound).then(|| nearest_file(path)).flatten();
            Box::new(match near {
                Some(near) => problem.with_help(format!("did you mean `{}`?", near.display())),
                None => problem,
            })
        })
    }

    /// What is wrong with a sample, and that it would be read in spite of it.
    fn with_lenience(&self, problem: Problem) -> Problem {
        match self {
            Self::File(path) if input::is_json_with_extras(path) => {
                let help = problem.help.as_ref().map(|help| format!("{help}; or ")).unwrap_or_default();
                problem.with_help(format!("{help}`--lenient` reads past comments and needless commas"))
            }
            Self::File(_) | Self::Document(..) | Self::StandardInput => problem,
        }
    }
}

/// The file in the same folder whose name is most like the missing one.
fn nearest_file(path: &Path) -> Option<PathBuf> {
    let wanted = path.file_name()?.to_string_lossy().into_owned();
    let folder = path.parent().filter(|folder| *folder != Path::new(""));
    let entries = std::fs::read_dir(folder.unwrap_or(Path::new("."))).ok()?;
    let names = entries.filter_map(|entry| entry.ok()?.file_name().into_string().ok());
    let nearest = nearest(&wanted, names)?;
    Some(folder.map_or_else(|| PathBuf::from(&nearest), |folder| folder.join(&nearest)))
}

/// The most keys that a message lists.
const MAX_KEYS_SHOWN: usize = 12;

fn select(path: &jar_sprout_shape::Path, shape: Shape) -> Outcome<Shape> {
    let selected = path.select(shape).map_err(|miss| no_match(path, &miss))?;
    if selected.seen() == 0 {
        let message = "nothing stands there: every list or object above it is empty";
        return Err(Failure::argument(message, format!("--at {path}")).into());
    }
    Ok(selected)
}

fn no_match(path: &jar_sprout_shape::Path, miss: &NoMatch) -> Problem {
    let NoMatch { matched, step, keys, has_items } = miss;
    let problem = Failure::argument(format!("nothing stands at `{matched}{step}`"), format!("--at {path}"));
    let mut help = match (&keys[..], has_items) {
        ([], true) => format!("there are lists at `{matched}`: `{matched}[*]` takes their items"),
        ([], false) => format!("the values at `{matched}` have no parts"),
        (keys, _) => {
            let shown: Vec<String> = keys.iter().take(MAX_KEYS_SHOWN).map(|key| format!("`{key}`")).collect();
            let more = keys.len().saturating_sub(MAX_KEYS_SHOWN);
            let rest = if more > 0 { format!(" and {more} more") } else { String::new() };
            format!("`{matched}` has {}{rest}", shown.join(", "))
        }
    };
    if let Step::Child(key) = step
        && let Some(near) = nearest(key, keys.iter().cloned())
    {
        help = format!("did you mean `{matched}{}`? {help}", Step::Child(near));
    }
    problem.with_help(help)
}
