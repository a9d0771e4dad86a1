//! `jar-sprout fetch`: records what an API answers, as samples.

use std::fs;
use std::path::{self, PathBuf};
use std::time::{Duration, SystemTime};

use jar_sprout_fetch::{
    Answer, Copied, NoSample, Paging, Secrets, answer, copied, is_secret_name, next_page, stem,
};
use jar_sprout_model::Problem;
use jar_sprout_shape::Path;
use url::Url;

use crate::args::FetchArgs;
use crate::commands::scrub::without_values;
use crate::exit::Exit;
use crate::failure::{Failure, Outcome};
use crate::fetch::{Client, Limits, Order, Reply, addresses, order, values};
use crate::files::{NewFile, overwrite_all};
use crate::progress::Progress;
use crate::report;

pub(crate) fn fetch(args: &FetchArgs) -> Outcome<Exit> {
    let args = &with_copied(args)?;
    let mut secrets = Secrets::default();
    let addresses = addresses(args)?;
    let names = values(args.env_file.as_deref())?;
    let orders = addresses.iter().map(|url| order(args, url, &names, &mut secrets));
    let orders: Vec<Order> = orders.collect::<Result<_, _>>()?;
    warn_of_literals(args);
    let limits = Limits { timeout: Duration::from_secs(args.timeout), bytes: args.most_bytes };
    let client = Client::new(limits, args.ca_file.as_deref())?;
    let paging = paging(args)?;
    let pause = Duration::try_from_secs_f64(args.pause)
        .map_err(|error| Failure::argument(error.to_string(), format!("--pause {}", args.pause)))?;
    let progress = Progress::of_things("asking", orders.len().saturating_mul(args.pages));
    let mut files: Vec<NewFile> = Vec::new();
    for mut order in orders {
        for page in 1..=args.pages.max(1) {
            if !files.is_empty() {
                // So that no two records are of the same millisecond.
                std::thread::sleep(pause.max(Duration::from_millis(1)));
            }
            let reply = client.ask(&order, &secrets)?;
            if let Some(from) = &reply.from {
                report::note(&format!("answered by {from}, which was not told the headers"));
            }
            let file = recorded(args, &order, &reply, &secrets)?;
            progress.step();
            let body = String::from_utf8_lossy(&reply.bytes);
            let next = next_page(&paging, &order.url, &reply.link, &body);
            files.push(file);
            let Some((next, how)) = next else { break };
            if args.pages == 1 && paging == Paging::AsShown {
                report::note(&format!("there is a next page, found {how}: `--pages 5` takes as many"));
            } else if page == args.pages {
                report::note(&format!("there are more pages than {page}; `--pages` bounds them"));
            }
            order.url = next;
        }
    }
    drop(progress);
    let paths: Vec<PathBuf> = files.iter().map(|file| file.path.clone()).collect();
    overwrite_all(files)?;
    if let Some(most) = args.keep {
        paths.iter().try_for_each(|path| keep_last(path, most))?;
    }
    let told: Vec<String> = paths.iter().map(|path| path.display().to_string()).collect();
    told.iter().for_each(|path| report::note(&format!("recorded {path}")));
    report::note(&format!("`jar-sprout look {}` shows what is in it", told.join(" ")));
    Ok(Exit::Well)
}

/// What was typed, with what a command line asks for beside it; what was typed itself holds.
fn with_copied(args: &FetchArgs) -> Result<FetchArgs, Problem> {
    let Some(line) = &args.curl else { return Ok(args.clone()) };
    let copied = copied(line).map_err(|why| {
        let problem = Failure::argument(why.to_string(), "--curl");
        problem.with_help("such as `--curl \"$(cat command.txt)\"`; data goes into `--body`")
    })?;
    let Copied { urls, method, headers, query, body, unheard } = copied;
    if !unheard.is_empty() {
        report::note(&format!(
            "not heard: {}; certificates and addresses are as they are",
            unheard.join(", ")
        ));
    }
    Ok(FetchArgs {
        urls: [urls, args.urls.clone()].concat(),
        header: [headers, args.header.clone()].concat(),
        query: [query, args.query.clone()].concat(),
        method: args.method.clone().or(method),
        body: args.body.clone().or(body),
        ..args.clone()
    })
}

/// How pages follow each other.
fn paging(args: &FetchArgs) -> Result<Paging, Problem> {
    let path = |text: &String| {
        Path::parse(text).map_err(|error| Failure::argument(error.to_string(), format!("--next {text}")))
    };
    Ok(match (args.next.as_ref().map(path).transpose()?, args.page_by.clone()) {
        (None, None) => Paging::AsShown,
        (Some(path), None) => Paging::Link(path),
        (None, Some(parameter)) => Paging::Counter(parameter),
        (Some(path), Some(parameter)) => Paging::Cursor { path, parameter },
    })
}

/// The sample of an answer, in a file that says what was asked and when.
fn recorded(args: &FetchArgs, order: &Order, reply: &Reply, secrets: &Secrets) -> Result<NewFile, Problem> {
    let asked = secrets.masked(order.url.as_str());
    let Answer { text, ending } = answer(&reply.content_type, &reply.bytes).map_err(|why| {
        let help = match why {
            NoSample::Empty => "this address answers with nothing; another one may have the data",
            NoSample::Other { .. } => {
                "is it the page for people? `--header 'Accept: application/json'` asks for data"
            }
            NoSample::Broken { .. } | NoSample::Letters { .. } => "tell those who run the server",
        };
        let message = format!("{}, with status {}", secrets.masked(&why.to_string()), reply.status);
        Failure::argument(message, asked.clone()).with_help(help)
    })?;
    if args.scrub && ending == "yaml" {
        let problem = Failure::argument("an answer in YAML is not scrubbed on the way", "--scrub");
        return Err(problem.with_help("record it without `--scrub`; `jar-sprout scrub` reads it then"));
    }
    // Some servers say again what they were told.
    let text = secrets.masked(&text);
    let text = if args.scrub { without_values(&text)? } else { text };
    let shown = Url::parse(&asked).unwrap_or_else(|_| order.url.clone());
    let name = format!("{}.{}.{ending}", stem(&shown), time_stamp());
    Ok(NewFile { path: args.dir.join(name), text })
}

/// `20261201T023000.120Z`: to the millisecond, so that what is asked twice has two names.
fn time_stamp() -> String {
    humantime::format_rfc3339_millis(SystemTime::now()).to_string().replace(['-', ':'], "")
}

/// Removes all but the last records of what was asked.
fn keep_last(path: &path::Path, most: usize) -> Result<(), Problem> {
    let asked = |path: &path::Path| -> Option<String> {
        let name = path.file_name()?.to_str()?;
        // The time, its milliseconds and the ending stand behind what was asked.
        Some(name.rsplitn(4, '.').nth(3)?.to_owned())
    };
    let (Some(folder), Some(wanted)) = (path.parent(), asked(path)) else { return Ok(()) };
    let mut records: Vec<PathBuf> = fs::read_dir(folder)
        .into_iter()
        .flatten()
        .flatten()
        .map(|entry| entry.path())
        .filter(|path| asked(path).is_some_and(|asked| asked == wanted))
        .collect();
    records.sort();
    for old in records.iter().rev().skip(most.max(1)) {
        fs::remove_file(old).map_err(|error| Failure::path(crate::failure::reason(&error), old))?;
    }
    Ok(())
}

/// Says of a secret that was typed as it is that it should not be.
fn warn_of_literals(args: &FetchArgs) {
    let names = args.header.iter().filter_map(|text| text.split_once(':'));
    let names = names.chain(args.query.iter().filter_map(|text| text.split_once('=')));
    for (name, _) in names.filter(|(name, value)| is_secret_name(name) && !value.contains("${")) {
        let name = name.trim();
        report::note(&format!(
            "`{name}` looks like a secret: nothing of it is written down; `${{NAME}}` keeps it out of the shell's history, too"
        ));
    }
}
