//! Which sources were named: paths, globs, parts of documents, recordings, standard input.

use std::collections::BTreeSet;
use std::io::{self, Read};
use std::path::{Path, PathBuf};

use jar_sprout_fetch::Record;
use jar_sprout_model::{Problem, Spot};

use crate::documents;
use crate::failure::{Failure, Outcome, reason};
use crate::input;
use crate::recordings::is_recording;
use crate::report;
use crate::request::Selection;
use crate::source_names::SourceNames;
use crate::wording::nearest;

/// Where samples are read from.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord)]
pub(super) enum Source {
    File(PathBuf),
    /// A schema or an API description, and the part of it that is asked for.
    Document(PathBuf, Option<String>),
    /// Recorded traffic, and the endpoint that is asked for.
    Recording(PathBuf, Option<String>),
    StandardInput,
}

/// The name of the nearest folder that all files stand in, at any depth.
pub(super) fn shared_folder(sources: &[Source]) -> Option<String> {
    let folder = |source: &Source| match source {
        Source::File(path) | Source::Document(path, _) | Source::Recording(path, _) => {
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
pub(super) fn find_sources(selection: &Selection) -> Outcome<Vec<Source>> {
    let mut sources = Vec::new();
    for argument in &selection.sources {
        if argument == "-" {
            sources.push(Source::StandardInput);
        } else {
            sources.extend(named_sources(argument)?);
        }
    }
    if let Some(typed) = &selection.endpoint {
        let recordings = sources.iter_mut().filter_map(|source| match source {
            Source::Recording(_, endpoint) => Some(endpoint),
            Source::File(_) | Source::Document(..) | Source::StandardInput => None,
        });
        let recordings: Vec<_> = recordings.collect();
        if recordings.is_empty() {
            return Err(no_recording(typed).into());
        }
        recordings.into_iter().for_each(|endpoint| *endpoint = Some(typed.clone()));
    }
    sources.sort();
    sources.dedup();
    Ok(sources)
}

/// The problem of an endpoint where nothing was recorded.
pub(crate) fn no_recording(endpoint: &str) -> Problem {
    let problem = Failure::argument("no source is recorded traffic", format!("--endpoint '{endpoint}'"));
    problem.with_help("an HTTP Archive (HAR) has endpoints; browsers and proxies save one")
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
        let (path, part) = (PathBuf::from(path), Some(part.to_owned()));
        let is_recorded = is_recording(&path);
        return Ok(vec![if is_recorded {
            Source::Recording(path, part)
        } else {
            Source::Document(path, part)
        }]);
    }
    // All that a folder is taken for are documents.
    let is_folder = Path::new(argument).is_dir();
    let source = |path: PathBuf| {
        if !is_folder && is_recording(&path) {
            Source::Recording(path, None)
        } else if is_folder || documents::is_document(&path) {
            Source::Document(path, None)
        } else {
            Source::File(path)
        }
    };
    Ok(files_of(argument)?.into_iter().map(source).collect())
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
    pub(super) fn name(&self) -> String {
        match self {
            Self::File(path) | Self::Document(path, _) | Self::Recording(path, _) => {
                path.display().to_string()
            }
            Self::StandardInput => "standard input".to_owned(),
        }
    }

    pub(super) fn stem(&self) -> Option<String> {
        match self {
            Self::File(path) | Self::Document(path, _) | Self::Recording(path, _) => {
                let stem = path.file_stem()?.to_string_lossy();
                Some(Record::of(&stem).map_or(&*stem, |record| record.subject).to_owned())
            }
            Self::StandardInput => None,
        }
    }

    /// Whether it is a record of one of several things, by what was asked: `/hives/17`.
    pub(super) fn is_record_of_one(&self) -> bool {
        match self {
            Self::File(path) => {
                let stem = path.file_stem().map(|stem| stem.to_string_lossy());
                stem.is_some_and(|stem| Record::of(&stem).is_some_and(|record| record.is_one))
            }
            Self::Document(..) | Self::Recording(..) | Self::StandardInput => false,
        }
    }

    pub(super) fn open(&self, is_lenient: bool) -> Result<Box<dyn Read>, Box<Problem>> {
        let path = match self {
            Self::StandardInput => {
                let spot = Path::new("standard input");
                return input::standard_input(is_lenient)
                    .map_err(|error| Box::new(Failure::path(reason(&error), spot)));
            }
            Self::File(path) if documents::is_yaml(path) => {
                return Ok(Box::new(io::Cursor::new(documents::yaml_as_json(path)?)));
            }
            Self::File(path) | Self::Document(path, _) | Self::Recording(path, _) => path,
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
    pub(super) fn with_lenience(&self, problem: Problem) -> Problem {
        match self {
            Self::File(path) if input::is_json_with_extras(path) => {
                let help = problem.help.as_ref().map(|help| format!("{help}; or ")).unwrap_or_default();
                problem.with_help(format!("{help}`--lenient` reads past comments and needless commas"))
            }
            Self::File(_) | Self::Document(..) | Self::Recording(..) | Self::StandardInput => problem,
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
