//! Sources: from what was typed to one merged shape.

mod find;
mod located;

use std::io::Read;
use std::path::{Path, PathBuf};

use jar_sprout_document::Drafted;
use jar_sprout_fetch::Endpoint;
use jar_sprout_model::{Kind, Problem, SourceId, Spot, Words};
use jar_sprout_settle::{root_name, singular};
use jar_sprout_shape::{NoMatch, Shape, Step, observe};

use self::find::{Source, find_sources, shared_folder};
use self::located::part;
use crate::documents;
use crate::failure::{Failure, Outcome};
use crate::recordings::Recording;
use crate::report;
use crate::request::Selection;
use crate::source_names::SourceNames;
use crate::wording::{first_few, nearest};

pub(crate) use self::find::{files_of, no_recording, split_part};
pub(crate) use self::located::{LocatedSample, located_samples, read_samples};

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
    /// What the endpoint of a recording is called, where its samples do not say it.
    recorded: Option<Words>,
    /// Whether each file is a record of one of several things.
    are_records_of_one: bool,
    at: jar_sprout_shape::Path,
    /// What a document says, where one was named.
    pub(crate) document: Option<Drafted>,
}

/// What was named, where that may be a recording to be listed.
pub(crate) enum Named {
    /// The only source, of which no endpoint is asked for.
    Recording(Recording),
    Samples(Box<Gathered>),
}

/// Reads every source that was named, or opens the recording that is the only one.
pub(crate) fn gather_or_list(selection: &Selection) -> Outcome<Named> {
    let sources = find_sources(selection)?;
    match &sources[..] {
        [Source::Recording(path, None)] => Ok(Named::Recording(Recording::open(path)?)),
        _ => Ok(Named::Samples(Box::new(gather_from(&sources, selection)?))),
    }
}

/// Reads every source that was named, in the order of their names, so that the order of arguments changes nothing.
pub(crate) fn gather(selection: &Selection) -> Outcome<Gathered> {
    gather_from(&find_sources(selection)?, selection)
}

fn gather_from(sources: &[Source], selection: &Selection) -> Outcome<Gathered> {
    let at = part(selection)?;
    let opened: Vec<Opened<'_>> = sources.iter().map(Opened::of).collect::<Outcome<_>>()?;
    let names = SourceNames::of(opened.iter().flat_map(Opened::names).collect());
    // Samples beside a document are called by themselves.
    let is_sample = |opened: &&Opened<'_>| !matches!(opened, Opened::File(Source::Document(..)));
    let has_samples = opened.iter().any(|one| is_sample(&one));
    let named = opened.iter().filter(|one| !has_samples || is_sample(one));
    let stems = named.filter_map(Opened::stem).collect();
    let folder = shared_folder(sources);
    let mut gathered = Gathered {
        shape: Shape::default(),
        names,
        samples: 0,
        bytes: 0,
        warnings: Vec::new(),
        stems,
        folder,
        recorded: opened.iter().find_map(Opened::root_name),
        are_records_of_one: opened.iter().all(Opened::is_record_of_one),
        at,
        document: read_document(sources, selection.refs_from.as_deref())?,
    };
    let mut id = SourceId(0);
    for one in &opened {
        one.read_into(&mut gathered, id, selection.is_lenient)?;
        id = SourceId(id.0 + one.count());
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

/// A source, of which it is known what is in it.
enum Opened<'s> {
    File(&'s Source),
    /// Recorded traffic, and its endpoint.
    Recording(Box<Recording>, Endpoint),
}

impl<'s> Opened<'s> {
    fn of(source: &'s Source) -> Outcome<Self> {
        match source {
            Source::File(_) | Source::Document(..) | Source::StandardInput => Ok(Self::File(source)),
            Source::Recording(path, endpoint) => {
                let recording = Recording::open(path)?;
                let endpoint = recording.one(endpoint.as_deref())?.clone();
                Ok(Self::Recording(Box::new(recording), endpoint))
            }
        }
    }

    /// How many samples have names of their own.
    fn count(&self) -> u32 {
        match self {
            Self::File(_) => 1,
            Self::Recording(_, endpoint) => endpoint.exchanges.len() as u32,
        }
    }

    /// What its samples are called in messages.
    fn names(&self) -> Vec<String> {
        match self {
            Self::File(source) => vec![source.name()],
            Self::Recording(recording, endpoint) => recording.sample_names(endpoint).collect(),
        }
    }

    fn stem(&self) -> Option<String> {
        match self {
            Self::File(source) => source.stem(),
            Self::Recording(_, endpoint) => Some(endpoint.model_name().to_string()),
        }
    }

    /// What its root is called, where its samples do not say it.
    fn root_name(&self) -> Option<Words> {
        match self {
            Self::File(_) => None,
            Self::Recording(_, endpoint) => endpoint.root_name(),
        }
    }

    /// Whether it is a record of one of several things, by what was asked: `/hives/17`.
    fn is_record_of_one(&self) -> bool {
        match self {
            Self::File(source) => source.is_record_of_one(),
            // Its name is that of one already.
            Self::Recording(..) => false,
        }
    }

    /// Reads what it holds, `id` being that of its first sample.
    fn read_into(&self, gathered: &mut Gathered, id: SourceId, is_lenient: bool) -> Outcome<()> {
        let told = |problem: Box<Problem>, names: &SourceNames| Failure::Problem(problem, names.clone());
        match self {
            Self::File(Source::Document(..)) => Ok(()),
            Self::File(source) => {
                let read = source.open(is_lenient).and_then(|reader| gathered.read(reader, id));
                read.map_err(|problem| told(Box::new(source.with_lenience(*problem)), &gathered.names))
            }
            Self::Recording(recording, endpoint) => {
                let mut ids = (id.0..).map(SourceId);
                recording.samples(&[endpoint], &mut |_, _, text| {
                    let id = ids.next().unwrap_or(id);
                    let read = gathered.read(text.as_bytes(), id);
                    read.map_err(|problem| told(problem, &gathered.names))
                })
            }
        }
    }
}

impl Gathered {
    fn read(&mut self, reader: impl Read, id: SourceId) -> Result<(), Box<Problem>> {
        let observed = observe(reader, id, &mut self.shape)?;
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
        let name = match (last_key.map(|at| &steps[at]), &self.recorded) {
            (Some(Step::Child(key)), _) => Words::split(key),
            (Some(Step::All) | None, Some(recorded)) => recorded.clone(),
            (Some(Step::All) | None, None) => {
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

/// What the one document among the sources says.
fn read_document(sources: &[Source], refs_from: Option<&Path>) -> Outcome<Option<Drafted>> {
    let documents = sources.iter().filter_map(|source| match source {
        Source::Document(path, pointer) => Some((path, pointer)),
        Source::File(_) | Source::Recording(..) | Source::StandardInput => None,
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
            let all: Vec<String> = keys.iter().map(|key| format!("`{key}`")).collect();
            format!("`{matched}` has {}", first_few(&all, MAX_KEYS_SHOWN))
        }
    };
    if let Step::Child(key) = step
        && let Some(near) = nearest(key, keys.iter().cloned())
    {
        help = format!("did you mean `{matched}{}`? {help}", Step::Child(near));
    }
    problem.with_help(help)
}
