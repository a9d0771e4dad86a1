//! `jar-sprout why`: the evidence for one type or field.

use std::fmt::Write as _;

use jar_sprout_model::{Place, Presence, Problem};
use jar_sprout_settle::{Explanation, Subject, explain};
use serde_json::json;

use crate::args::{Format, WhyArgs};
use crate::exit::Exit;
use crate::failure::{Failure, Outcome};
use crate::jar::{Opened, enter_jar, open_models};
use crate::modelling::{model, not_found};
use crate::report;
use crate::request::Request;
use crate::screen::visible;
use crate::source_names::SourceNames;
use crate::sources::gather;
use jar_sprout_settle::Inferred;

pub(crate) fn why(args: &WhyArgs) -> Outcome<Exit> {
    let asked = match (&args.field, &args.type_name) {
        (Some(field), _) if field.contains('.') => field,
        (Some(field), _) => {
            let problem = Failure::argument("a field is `TYPE.KEY`", format!("--field {field}"));
            return Err(problem.with_help(format!("`--type {field}` asks for a type")).into());
        }
        (None, Some(ty)) => ty,
        (None, None) => {
            let problem = Failure::argument("why what?", "jar-sprout why");
            return Err(problem.with_help("ask for `--field Hive.name` or `--type Hive`").into());
        }
    };
    if args.source.sources.is_empty() {
        return why_in_jar(args, asked);
    }
    let request = Request::of(&args.source, &args.model)?;
    let gathered = gather(&request.selection)?;
    let modelled = model(&gathered, &request)?;
    let explanation = explained(&modelled, asked)?;
    report::result(&shown_as(args.format, &explanation, &gathered.names))?;
    Ok(Exit::Well)
}

fn explained(modelled: &Inferred, asked: &str) -> Result<Explanation, Problem> {
    explain(&modelled.drafted, &modelled.settled, &Subject::parse(asked))
        .map_err(|miss| not_found(&miss, asked.to_owned()))
}

fn shown_as(format: Format, explanation: &Explanation, names: &SourceNames) -> String {
    match format {
        Format::Text => text(explanation, names),
        Format::Json => json(explanation, names),
    }
}

/// The evidence in each model that has the type or field.
fn why_in_jar(args: &WhyArgs, asked: &str) -> Outcome<Exit> {
    let jar = enter_jar("jar-sprout why")?;
    let models = open_models(&jar, &args.only.only)?;
    let mut last = None;
    let mut is_found = false;
    for Opened { gathered, modelled, .. } in &models.opened {
        match explained(modelled, asked) {
            Ok(explanation) => {
                is_found = true;
                report::result(&shown_as(args.format, &explanation, &gathered.names))?;
            }
            Err(problem) => last = Some(problem),
        }
    }
    match (is_found, last, models.failures.into_iter().next()) {
        (false, Some(problem), None) => Err(problem.into()),
        (false, _, Some((_, failure))) => Err(failure),
        _ => Ok(Exit::Well),
    }
}

/// A few lines that a person reads in one go.
fn text(explanation: &Explanation, names: &SourceNames) -> String {
    let Explanation { subject, chosen, because, paths, seen, kinds, presence, values, instead } = explanation;
    let mut out = String::new();
    let mut line = |text: String| writeln!(out, "{}", visible(&text)).expect("a string takes everything");
    line(format!("{subject}: {chosen}, since {because}"));
    let places: Vec<String> = paths.iter().take(3).map(ToString::to_string).collect();
    let more = paths.len().saturating_sub(3);
    let more = if more > 0 { format!(" and {more} more") } else { String::new() };
    line(format!("  seen     {seen} {}, at {}{more}", plural(*seen, "time"), places.join(", ")));
    if let Some((presence, nullable)) = presence {
        let presence = match presence {
            Presence::Always => "its key is always there",
            Presence::Sometimes => "its key may be missing",
        };
        line(format!(
            "  there    {presence}, {}",
            if *nullable { "and it may be null" } else { "and it was never null" }
        ));
    }
    for kind in kinds {
        let first = kind.first.map(|place| format!(", first in {}", shown(place, names))).unwrap_or_default();
        line(format!("  {:<8} {}{first}", plural(kind.count, kind.what), kind.count));
    }
    if let Some(values) = values {
        line(format!("  values   {values}"));
    }
    for (what, lost) in instead {
        line(format!("  not      {what}: {lost}"));
    }
    out
}

fn plural(count: u64, word: &str) -> String {
    match (count, word) {
        (1, word) => word.to_owned(),
        (_, "null" | "true" | "false") => word.to_owned(),
        (_, word) => format!("{word}s"),
    }
}

fn shown(place: Place, names: &SourceNames) -> String {
    format!("{}:{}", names.get(place.source), place.line)
}

fn json(explanation: &Explanation, names: &SourceNames) -> String {
    let Explanation { subject, chosen, because, paths, seen, kinds, presence, values, instead } = explanation;
    let kinds: Vec<_> = kinds
        .iter()
        .map(|kind| json!({"kind": kind.what, "count": kind.count, "first": kind.first.map(|place| shown(place, names))}))
        .collect();
    let instead: Vec<_> = instead.iter().map(|(what, lost)| json!({"what": what, "lost": lost})).collect();
    let value = json!({
        "subject": subject.to_string(),
        "chosen": chosen,
        "because": because,
        "paths": paths.iter().map(ToString::to_string).collect::<Vec<_>>(),
        "seen": seen,
        "kinds": kinds,
        "alwaysThere": presence.map(|(presence, _)| presence == Presence::Always),
        "nullable": presence.map(|(_, nullable)| nullable),
        "values": values,
        "instead": instead,
    });
    format!("{value:#}\n")
}
