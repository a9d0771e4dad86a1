//! Documents among the sources: telling them from samples, and handing over the files that they refer to.

use std::fs;
use std::path::{Component, Path, PathBuf};

use jar_sprout_document::{Drafted, Fault, Files, Library, draft_document, recognise_text};
use jar_sprout_model::{Problem, Severity, Spot, Words};
use percent_encoding::percent_decode_str;

use crate::failure::{Failure, Outcome, reason};
use crate::input;
use crate::report;
use crate::source_names::SourceNames;

/// How much of a file is looked at to tell whether it may be a document.
const HEAD: u64 = 1 << 16;

/// The longest file that may be a document, in bytes.
const LONGEST: u64 = 1 << 26;

/// What stands in the head of every document.
const SIGNS: &[&str] = &[
    "openapi",
    "swagger",
    "json-schema.org",
    "$defs",
    "definitions",
    "properties",
    "$ref",
    "allOf",
    "oneOf",
];

/// Whether a file is a schema or an API description, by what stands in it.
pub(crate) fn is_document(path: &Path) -> bool {
    let has_signs = || input::head(path, HEAD).is_ok_and(|head| SIGNS.iter().any(|sign| head.contains(sign)));
    let is_short = fs::metadata(path).is_ok_and(|file| file.len() <= LONGEST);
    if !is_short || !has_signs() {
        return false;
    }
    // Lines of samples are no document, and fail to be read as one.
    let text = input::read_text(path).unwrap_or_default();
    recognise_text(&text).is_some() || says_that_it_is_one(&text)
}

/// Whether a text that cannot be read says that it is an API description, so that its fault is told as one.
fn says_that_it_is_one(text: &str) -> bool {
    let mut lines = text.lines().take(20).map(str::trim_start);
    lines.any(|line| {
        line.starts_with("openapi:") || line.starts_with("swagger:") || line.starts_with("\"openapi\":")
    })
}

/// Whether a sample is YAML: JSON's own ending says nothing of the kind.
pub(crate) fn is_yaml(path: &Path) -> bool {
    path.extension().is_some_and(|extension| extension == "yaml" || extension == "yml")
}

/// A YAML sample as JSON.
pub(crate) fn yaml_as_json(path: &Path) -> Result<String, Box<Problem>> {
    let text = input::read_text(path).map_err(|error| Box::new(Failure::path(reason(&error), path)))?;
    jar_sprout_document::yaml_as_json(&text).map_err(|fault| Box::new(problem_of(&fault, path)))
}

/// What a document says, or parts of it.
pub(crate) fn read(path: &Path, parts: &[&str], refs_from: Option<&Path>) -> Outcome<Drafted> {
    let text = input::read_text(path).map_err(|error| Failure::path(reason(&error), path))?;
    let source = path.display().to_string();
    let (folder, name) = home(path, refs_from)?;
    let library = match Library::gather(&name, &text, &FilesBeside { folder }) {
        Ok(library) => library,
        Err(fault) => return Err(problem_of(&fault, path).into()),
    };
    let stem = path.file_stem().map(|stem| stem.to_string_lossy().into_owned()).unwrap_or_default();
    let name = Words::split(stem.trim_end_matches(".schema").trim_end_matches(".openapi"));
    // A fragment stands in a URI, where odd letters are written as `%7B`.
    let decoded = |pointer: &str| percent_decode_str(pointer).decode_utf8_lossy().into_owned();
    let parts: Vec<String> = parts.iter().map(|part| decoded(part)).collect();
    draft(&library, &source, &parts, &name)
}

/// What several schemas say, which may refer to each other.
pub(crate) fn read_schemas(paths: &[&PathBuf], refs_from: Option<&Path>) -> Outcome<Drafted> {
    let first = paths[0].parent().filter(|folder| !folder.as_os_str().is_empty());
    let mut shared = real(refs_from.or(first).unwrap_or(Path::new(".")))?;
    let mut all = Vec::with_capacity(paths.len());
    for path in paths {
        let real = real(path)?;
        while refs_from.is_none() && !real.starts_with(&shared) && shared.pop() {}
        all.push((real, input::read_text(path).map_err(|error| Failure::path(reason(&error), path))?));
    }
    let mut schemas = Vec::with_capacity(all.len());
    for ((real, text), path) in all.into_iter().zip(paths) {
        schemas.push((path_inside(&real, &shared, path)?, text));
    }
    let name = shared.file_name().map(|name| name.to_string_lossy().into_owned()).unwrap_or_default();
    let library = Library::gather_schemas(&schemas, &FilesBeside { folder: shared.clone() });
    match library {
        Ok(library) => draft(&library, &name, &[], &Words::split(&name)),
        Err((inside, fault)) => {
            let at = schemas.iter().position(|(path, _)| *path == inside).unwrap_or_default();
            Err(problem_of(&fault, paths[at]).into())
        }
    }
}

fn draft(library: &Library, source: &str, parts: &[String], name: &Words) -> Outcome<Drafted> {
    let mut drafted = draft_document(library, source, parts, name);
    if let Some(at) = drafted.problems.iter().position(|problem| problem.severity == Severity::Error) {
        let error = drafted.problems.remove(at);
        drafted.problems.iter().for_each(|problem| report::problem(problem, &SourceNames::default()));
        return Err(error.into());
    }
    Ok(drafted)
}

/// The folder in which files are read, and the path of the document from there.
fn home(path: &Path, refs_from: Option<&Path>) -> Outcome<(PathBuf, String)> {
    let Some(folder) = refs_from else {
        let name = path.file_name().map(|name| slashed(Path::new(name))).unwrap_or_default();
        return Ok((path.parent().unwrap_or(Path::new("")).to_path_buf(), name));
    };
    Ok((folder.to_path_buf(), path_inside(&real(path)?, &real(folder)?, path)?))
}

fn real(path: &Path) -> Outcome<PathBuf> {
    Ok(path.canonicalize().map_err(|error| Failure::path(reason(&error), path))?)
}

fn slashed(path: &Path) -> String {
    path.to_string_lossy().replace('\\', "/")
}

/// The path of a document, which was given as `path`, from the folder in which files are read.
fn path_inside(document: &Path, folder: &Path, path: &Path) -> Outcome<String> {
    match document.strip_prefix(folder) {
        Ok(inside) => Ok(slashed(inside)),
        Err(_) => {
            let problem = Failure::path("this document is not in the folder of `--refs-from`", path);
            Err(problem.with_help("name a folder above it").into())
        }
    }
}

fn problem_of(fault: &Fault, path: &Path) -> Problem {
    let Fault { message, place, help } = fault;
    let place = match place {
        Some((line, column)) => format!("{}:{line}:{column}", path.display()),
        None => path.display().to_string(),
    };
    let problem = Problem::error(message.clone(), Spot::Path(place));
    match help {
        Some(help) => problem.with_help(help.clone()),
        None => problem,
    }
}

/// The files beside a document, and below.
struct FilesBeside {
    folder: PathBuf,
}

impl Files for FilesBeside {
    fn read(&self, path: &str) -> Result<String, Fault> {
        let relative = Path::new(path);
        let is_inside =
            relative.components().all(|part| matches!(part, Component::Normal(_) | Component::CurDir));
        let whole = self.folder.join(relative);
        let leads_out = || {
            let help = "name a folder above both: `--refs-from FOLDER`".to_owned();
            Fault::new("this file is outside the folder of the document, where nothing is read")
                .with_way_out(Some(help))
        };
        let folder = if self.folder.as_os_str().is_empty() { Path::new(".") } else { &self.folder };
        let real = whole.canonicalize().map_err(|error| Fault::new(reason(&error)))?;
        let home = folder.canonicalize().map_err(|error| Fault::new(reason(&error)))?;
        if !is_inside || !real.starts_with(home) {
            return Err(leads_out());
        }
        input::read_text(&real).map_err(|error| Fault::new(reason(&error)))
    }
}
