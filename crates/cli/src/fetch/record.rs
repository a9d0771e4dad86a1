//! From a recipe to records: what it asks, page by page, written down together at the end.

use std::fs;
use std::path::{Path, PathBuf};
use std::time::Duration;

use jar_sprout_fetch::{
    Answer, NoSample, Paging, Secrets, Timestamp, answer, next_page, shown, stem, stem_of_page, time_stamp,
};
use jar_sprout_model::Problem;
use url::Url;

use super::addresses::{SourcesOfModels, addresses};
use super::order::{Order, order, values};
use super::send::{Client, Limits, Reply};
use crate::failure::{Failure, Outcome, reason};
use crate::files::{NewFile, overwrite_all};
use crate::progress::Progress;
use crate::recipe::Recipe;
use crate::records::asked;
use crate::report;
use crate::scrubbing::without_values;

/// How long a whole answer may take where nothing is said.
const SECONDS: u64 = 60;

/// The most bytes of an answer where nothing is said.
const MOST_BYTES: u64 = 64_000_000;

/// How many seconds to wait between two requests where nothing is said.
const PAUSE: f64 = 0.2;

/// What came of a recipe.
pub(crate) struct Recorded {
    /// The records that were written.
    pub(crate) new: Vec<PathBuf>,
    /// The records that say the same as what came now: it is no new evidence, and not written again.
    pub(crate) same: Vec<PathBuf>,
}

/// Asks what a recipe says, and writes all answers into a folder, or none of them.
pub(crate) fn record(recipe: &Recipe, dir: &Path, models: &SourcesOfModels<'_>) -> Outcome<Recorded> {
    let mut secrets = Secrets::default();
    let addresses = addresses(recipe, models)?;
    let names = values(recipe.env_file.as_deref())?;
    let orders = addresses.iter().map(|url| order(recipe, url, &names, &mut secrets));
    let orders: Vec<Order> = orders.collect::<Result<_, _>>()?;
    let limits = Limits {
        timeout: Duration::from_secs(recipe.timeout.unwrap_or(SECONDS)),
        bytes: recipe.most_bytes.unwrap_or(MOST_BYTES),
    };
    let client = Client::new(limits, recipe.ca_file.as_deref())?;
    let paging = paging(recipe)?;
    let seconds = recipe.pause.unwrap_or(PAUSE);
    let pause = Duration::try_from_secs_f64(seconds)
        .map_err(|error| Failure::argument(error.to_string(), format!("--pause {seconds}")))?;
    let pages = recipe.pages.unwrap_or(1);
    let most = orders.len().saturating_mul(usize::try_from(pages).unwrap_or(usize::MAX));
    let progress = Progress::of_things("asking", most);
    let mut files: Vec<NewFile> = Vec::new();
    for mut order in orders {
        for page in 1..=pages {
            if !files.is_empty() {
                // So that no two records are of the same millisecond.
                std::thread::sleep(pause.max(Duration::from_millis(1)));
            }
            let reply = client.ask(&order, &secrets)?;
            if let Some(from) = &reply.from {
                report::note(&format!("answered by {from}, which was not told the headers"));
            }
            let (text, ending) = sample(recipe, &order, &reply, &secrets)?;
            let name = format!("{}.{}.{ending}", name(&order, page, &secrets), time_stamp(Timestamp::now()));
            files.push(NewFile { path: dir.join(name), text });
            progress.step();
            let body = String::from_utf8_lossy(&reply.bytes);
            let Some((next, how)) = next_page(&paging, &order.url, &reply.link, &body) else { break };
            if pages == 1 && paging == Paging::AsShown {
                report::note(&format!("there is a next page, found {how}: `--pages 5` takes as many"));
            } else if page == pages {
                report::note(&format!("there are more pages than {page}; `--pages` bounds them"));
            }
            order.url = next;
        }
    }
    drop(progress);
    let (mut new, mut same) = (Vec::new(), Vec::new());
    files.retain(|file| match records_of(&file.path).pop().filter(|last| says(last, &file.text)) {
        Some(last) => {
            same.push(last);
            false
        }
        None => {
            new.push(file.path.clone());
            true
        }
    });
    overwrite_all(files)?;
    if let Some(most) = recipe.keep {
        new.iter().chain(&same).try_for_each(|path| keep_last(path, most))?;
    }
    Ok(Recorded { new, same })
}

/// Whether a file holds this text.
fn says(file: &Path, text: &str) -> bool {
    let is_as_long = fs::metadata(file).is_ok_and(|about| about.len() == text.len() as u64);
    is_as_long && fs::read(file).is_ok_and(|bytes| bytes == text.as_bytes())
}

/// The records of what a file is a record of, the last one last.
fn records_of(path: &Path) -> Vec<PathBuf> {
    let (Some(folder), Some(wanted)) = (path.parent(), asked(path)) else { return Vec::new() };
    let entries = fs::read_dir(folder).into_iter().flatten().flatten().map(|entry| entry.path());
    let mut records: Vec<PathBuf> =
        entries.filter(|path| asked(path).is_some_and(|asked| asked == wanted)).collect();
    records.sort();
    records
}

/// How pages follow each other.
fn paging(recipe: &Recipe) -> Result<Paging, Problem> {
    let path = |text: &String| {
        jar_sprout_shape::Path::parse(text)
            .map_err(|error| Failure::argument(error.to_string(), format!("--next {text}")))
    };
    Ok(match (recipe.next.as_ref().map(path).transpose()?, recipe.page_by.clone()) {
        (None, None) => Paging::AsShown,
        (Some(path), None) => Paging::Link(path),
        (None, Some(parameter)) => Paging::Counter(parameter),
        (Some(path), Some(parameter)) => Paging::Cursor { path, parameter },
    })
}

/// The text of an answer, and what a file of it ends in.
fn sample(
    recipe: &Recipe,
    order: &Order,
    reply: &Reply,
    secrets: &Secrets,
) -> Result<(String, &'static str), Problem> {
    let Answer { text, ending } = answer(&reply.content_type, &reply.bytes).map_err(|why| {
        let help = match why {
            NoSample::Empty => "this address answers with nothing; another one may have the data",
            NoSample::Other { .. } => {
                "is it the page for people? `--header 'Accept: application/json'` asks for data"
            }
            NoSample::Broken { .. } | NoSample::Letters { .. } => "tell those who run the server",
        };
        let message = format!("{}, with status {}", secrets.masked(&why.to_string()), reply.status);
        Failure::argument(message, shown(&order.url, secrets)).with_help(help)
    })?;
    if recipe.scrub && ending == "yaml" {
        let problem = Failure::argument("an answer in YAML is not scrubbed on the way", "--scrub");
        return Err(problem.with_help("record it without `--scrub`; `jar-sprout scrub` reads it then"));
    }
    // Some servers say again what they were told.
    let text = secrets.masked(&text);
    Ok((if recipe.scrub { without_values(&text)? } else { text }, ending))
}

/// What an answer is called: what was asked, without what nobody may see.
fn name(order: &Order, page: u64, secrets: &Secrets) -> String {
    let shown = |url: &Url| Url::parse(&shown(url, secrets)).unwrap_or_else(|_| url.clone());
    match page {
        1 => stem(&shown(&order.url)),
        page => stem_of_page(&shown(&order.home), &shown(&order.url), page),
    }
}

/// Removes all but the last records of what was asked.
fn keep_last(path: &Path, most: u64) -> Result<(), Problem> {
    let most = usize::try_from(most).unwrap_or(usize::MAX);
    for old in records_of(path).iter().rev().skip(most) {
        fs::remove_file(old).map_err(|error| Failure::path(reason(&error), old))?;
    }
    Ok(())
}
