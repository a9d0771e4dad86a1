//! `jar-sprout why`: the evidence for one type or field.

use std::fmt::Write as _;

use jar_sprout_model::{Definition, Field, Model, NamedType, Place, Presence, Problem, TypeId};
use jar_sprout_settle::{Explanation, Inferred, Miss, Settled, Subject, explain, locate};
use serde_json::json;

use crate::args::{Format, WhyArgs};
use crate::exit::Exit;
use crate::failure::{Failure, Outcome};
use crate::jar::{Opened, enter_jar, open_models};
use crate::look::document::slot_text;
use crate::modelling::{model, not_found};
use crate::report;
use crate::request::{Request, refuse_beside_jar};
use crate::screen::visible;
use crate::source_names::SourceNames;
use crate::sources::{Gathered, gather};
use crate::wording::counted;

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
    report::result(&explained(&gathered, &modelled, asked, args.format)?)?;
    Ok(Exit::Well)
}

/// What was seen of a type or a field, or what a document says of it.
fn explained(
    gathered: &Gathered,
    modelled: &Inferred,
    asked: &str,
    format: Format,
) -> Result<String, Problem> {
    let subject = Subject::parse(asked);
    let unknown = |miss| not_found(&miss, asked.to_owned());
    if gathered.document.is_some() {
        return said(&modelled.settled, &subject, format).map_err(unknown);
    }
    let explanation = explain(&modelled.drafted, &modelled.settled, &subject).map_err(unknown)?;
    Ok(match format {
        Format::Text => text(&explanation, &gathered.names),
        Format::Json => json(&explanation, &gathered.names),
    })
}

/// What a document says of a type or a field.
fn said(settled: &Settled, subject: &Subject, format: Format) -> Result<String, Miss> {
    let model = &settled.model;
    let (id, index) = locate(model, subject)?;
    let ty = model.get(id);
    let field = match (&ty.definition, index) {
        (Definition::Record(record), Some(index)) => record.fields.get(index),
        _ => None,
    };
    let docs = field.map_or(&ty.docs, |field| &field.docs);
    let what = match (field, &ty.definition) {
        (Some(field), _) => slot_text(model, &field.slot),
        (None, Definition::Record(record)) => counted(record.fields.len(), "field"),
        (None, Definition::Enumeration(_)) => "an enum".to_owned(),
        (None, Definition::Union(union)) => format!("one of {}", counted(union.cases.len(), "type")),
    };
    let since = if settled.decided.contains(subject) { "as decided" } else { "as the document says" };
    let values_of = |definition: &Definition| match definition {
        Definition::Enumeration(known) => {
            known.cases.iter().map(|case| format!("{:?}", case.wire.as_str())).collect()
        }
        Definition::Union(union) => union.cases.iter().map(|case| slot_text(model, &case.slot)).collect(),
        Definition::Record(_) => Vec::new(),
    };
    let inner = field.and_then(|field| field.slot.ty.named().next()).map(|id| &model.get(id).definition);
    let values: Vec<String> =
        if field.is_some() { inner.map(values_of) } else { Some(values_of(&ty.definition)) }
            .unwrap_or_default();
    let uses: Vec<String> = if field.is_some() { Vec::new() } else { uses(model, id) };
    let there = field.map(|field| there(field.presence, field.slot.nullable, "and it is never null"));
    if format == Format::Json {
        let value = json!({
            "subject": subject.to_string(),
            "chosen": what,
            "because": since,
            "alwaysThere": field.map(|field| field.presence == Presence::Always),
            "nullable": field.map(|field| field.slot.nullable),
            "values": values,
            "standsAt": uses,
            "said": docs.text(),
            "deprecated": docs.is_deprecated,
        });
        return Ok(format!("{value:#}\n"));
    }
    let mut out = format!("{subject}: {what}, {since}\n");
    let deprecated = docs.is_deprecated.then(|| "it should not be used any more".to_owned());
    let rows = [
        ("there", there.unwrap_or_default()),
        ("values", values.join(", ")),
        ("at", uses.join(", ")),
        ("said", docs.text().replace('\n', " ")),
        ("but", deprecated.unwrap_or_default()),
    ];
    for (title, row) in rows.into_iter().filter(|(_, row)| !row.is_empty()) {
        let _ = writeln!(out, "  {title:<8} {}", visible(&row));
    }
    Ok(out)
}

/// The fields that hold a type.
fn uses(model: &Model, id: TypeId) -> Vec<String> {
    let of = |ty: &NamedType| -> Vec<String> {
        let Definition::Record(record) = &ty.definition else { return Vec::new() };
        let holds = |field: &&Field| field.slot.ty.named().any(|named| named == id);
        let name = ty.name.in_capitals();
        record.fields.iter().filter(holds).map(|field| format!("{name}.{}", field.wire)).collect()
    };
    model.types().flat_map(|(_, ty)| of(ty)).collect()
}

/// When a field is there; `never` is said where it is not null.
fn there(presence: Presence, is_nullable: bool, never: &str) -> String {
    let presence = match presence {
        Presence::Always => "its key is always there",
        Presence::Sometimes => "its key may be missing",
    };
    format!("{presence}, {}", if is_nullable { "and it may be null" } else { never })
}

/// The evidence in each model that has the type or field.
fn why_in_jar(args: &WhyArgs, asked: &str) -> Outcome<Exit> {
    refuse_beside_jar(&args.source, &args.model)?;
    let jar = enter_jar("jar-sprout why")?;
    let models = open_models(&jar, &args.only.only)?;
    let mut last = None;
    let mut is_found = false;
    for Opened { gathered, modelled, .. } in &models.opened {
        match explained(gathered, modelled, asked, args.format) {
            Ok(explanation) => {
                is_found = true;
                report::result(&explanation)?;
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
    if let Some((presence, is_nullable)) = presence {
        line(format!("  there    {}", there(*presence, *is_nullable, "and it was never null")));
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
