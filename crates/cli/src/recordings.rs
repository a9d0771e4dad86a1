//! Recorded traffic among the sources: telling it from samples, and choosing an endpoint of it.

use std::cell::OnceCell;
use std::io::{self, BufReader, Read};
use std::path::{Path, PathBuf};

use jar_sprout_fetch::{Endpoint, Exchange, Survey, Surveyor, read_recording};
use jar_sprout_model::{Problem, Spot};

use crate::failure::{Failure, Outcome, reason};
use crate::input;
use crate::wording::{first_few, nearest};

/// How much of a file is looked at to tell whether it is a recording.
const HEAD: u64 = 1 << 12;

/// How much of a recording is read at a time.
const BLOCK: usize = 1 << 16;

/// The most endpoints that a message names.
const MOST_NAMED: usize = 8;

/// Recorded traffic: an HTTP Archive (HAR 1.2).
pub(crate) struct Recording {
    pub(crate) path: PathBuf,
    pub(crate) survey: Survey,
}

/// Whether a file is a recording, by its ending or its first lines.
pub(crate) fn is_recording(path: &Path) -> bool {
    path.extension().is_some_and(|ending| ending.eq_ignore_ascii_case("har"))
        || input::head(path, HEAD).is_ok_and(|head| starts_as_one(&head))
}

/// A recording says its version and who made it first (HAR 1.2, `log`).
fn starts_as_one(head: &str) -> bool {
    let signs: String = head.trim_start_matches('\u{FEFF}').chars().filter(|c| !c.is_whitespace()).collect();
    signs.starts_with("{\"log\":{") && signs.contains("\"version\":\"1.") && signs.contains("\"creator\":{")
}

impl Recording {
    /// Reads it once, to see what is in it.
    pub(crate) fn open(path: &Path) -> Outcome<Self> {
        let mut surveyor = Surveyor::default();
        read(path, &mut |number, exchange| {
            surveyor.add(number, &exchange);
            true
        })?;
        Ok(Self { path: path.to_owned(), survey: surveyor.finish() })
    }

    /// What it is called in messages.
    pub(crate) fn name(&self) -> String {
        self.path.display().to_string()
    }

    /// The endpoints that a pattern means: `GET /hives/{id}`, `/hives*`; all of them where there is none.
    pub(crate) fn chosen(&self, typed: Option<&str>) -> Result<Vec<&Endpoint>, Problem> {
        let all = &self.survey.endpoints;
        if all.is_empty() {
            let problem = Failure::path("nothing in this recording answered with JSON", &self.path);
            let help = "record it with the bodies: browsers save them with \"all content\"";
            return Err(problem.with_help(help));
        }
        let Some(typed) = typed else { return Ok(all.iter().collect()) };
        let exact: Vec<&Endpoint> =
            all.iter().filter(|one| names(one).iter().any(|name| name == typed)).collect();
        if !exact.is_empty() {
            return Ok(exact);
        }
        let pattern = glob::Pattern::new(typed).ok();
        let is_meant = |one: &&Endpoint| {
            pattern.as_ref().is_some_and(|pattern| names(one).iter().any(|name| pattern.matches(name)))
        };
        let matched: Vec<&Endpoint> = all.iter().filter(is_meant).collect();
        if !matched.is_empty() {
            return Ok(matched);
        }
        let problem = Failure::argument("no such endpoint is recorded", format!("--endpoint '{typed}'"));
        Err(problem.with_help(match nearest(typed, all.iter().flat_map(names)) {
            Some(near) => format!("did you mean `{near}`?"),
            None => format!("`jar-sprout look {}` lists them", self.name()),
        }))
    }

    /// The one endpoint that a model is made of.
    pub(crate) fn one(&self, typed: Option<&str>) -> Result<&Endpoint, Problem> {
        match &self.chosen(typed)?[..] {
            [one] => Ok(one),
            several => {
                let all: Vec<String> =
                    several.iter().map(|one| format!("`{}`", self.shortest_name(one))).collect();
                let message = format!("{} endpoints are recorded here, and a model is of one", several.len());
                let help = format!("`--endpoint` one of {}", first_few(&all, MOST_NAMED));
                Err(Failure::path(message, &self.path).with_help(help))
            }
        }
    }

    /// What an endpoint is called here: with its host only where that tells it from another one.
    pub(crate) fn shortest_name(&self, endpoint: &Endpoint) -> String {
        let name = endpoint.name();
        let same = self.survey.endpoints.iter().filter(|one| one.name() == name).count();
        if same > 1 { endpoint.name_with_host() } else { name }
    }

    /// What the samples of an endpoint are called in messages.
    pub(crate) fn sample_names(&self, endpoint: &Endpoint) -> impl Iterator<Item = String> {
        let name = self.name();
        endpoint.exchanges.iter().map(move |number| format!("{name}, entry {number}"))
    }

    /// Calls back with each sample of these endpoints, in the order of the recording, without what is secret.
    pub(crate) fn samples(
        &self,
        endpoints: &[&Endpoint],
        take: &mut dyn FnMut(usize, &Exchange, String) -> Outcome<()>,
    ) -> Outcome<()> {
        let fault = OnceCell::new();
        let last = endpoints.iter().filter_map(|one| one.exchanges.last()).max().copied().unwrap_or_default();
        read(&self.path, &mut |number, exchange| {
            for (at, endpoint) in endpoints.iter().enumerate() {
                if !endpoint.exchanges.contains(&number) {
                    continue;
                }
                let Some(text) = exchange.harmless_sample(endpoint.side) else { continue };
                if let Err(failure) = take(at, &exchange, self.survey.secrets.masked(&text)) {
                    drop(fault.set(failure));
                    return false;
                }
            }
            number < last
        })?;
        fault.into_inner().map_or(Ok(()), Err)
    }
}

/// All that an endpoint can be called by.
fn names(endpoint: &Endpoint) -> Vec<String> {
    let (name, with_host) = (endpoint.name(), endpoint.name_with_host());
    let mut names = vec![name.clone(), with_host.clone()];
    // Without the method; of an operation, its name alone.
    names.extend([name, with_host].iter().filter_map(|name| Some(name.split_once(' ')?.1.to_owned())));
    names.extend(endpoint.operation.clone());
    names
}

fn read(path: &Path, take: &mut dyn FnMut(u64, Exchange) -> bool) -> Outcome<()> {
    let file = input::open(path, false).map_err(|error| Failure::path(reason(&error), path))?;
    let mut reader = BufReader::with_capacity(BLOCK, file);
    skip_mark(&mut reader).map_err(|error| Failure::path(reason(&error), path))?;
    let done = read_recording(reader, take);
    Ok(done.map_err(|error| {
        let place = format!("{}:{}:{}", path.display(), error.line(), error.column());
        let text = error.to_string();
        let message = text.split(" at line ").next().unwrap_or(&text);
        let message = format!("this recording cannot be read: {message}");
        let help = "is it whole? a browser saves one with \"Save all as HAR\"";
        Problem::error(message, Spot::Path(place)).with_help(help)
    })?)
}

/// Skips the mark that some editors put before a text in UTF-8.
fn skip_mark(reader: &mut BufReader<Box<dyn Read>>) -> io::Result<()> {
    use std::io::BufRead as _;
    if reader.fill_buf()?.starts_with("\u{FEFF}".as_bytes()) {
        reader.consume(3);
    }
    Ok(())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn recordings_are_told_from_samples() {
        for head in [
            "{\"log\":{\"version\":\"1.2\",\"creator\":{\"name\":\"x\"}",
            "\u{FEFF}{\n  \"log\" : {\n    \"creator\": {},\n    \"version\": \"1.1\"",
        ] {
            assert!(starts_as_one(head), "{head}");
        }
        for head in [
            "{\"log\": {\"entries\": []}}",
            "[{\"log\": {}}]",
            "",
            "{\"log\": {\"version\": 2, \"creator\": {}}}",
        ] {
            assert!(!starts_as_one(head), "{head}");
        }
    }
}
