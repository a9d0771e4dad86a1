//! `jar-sprout look`: the shape as a tree.

use std::io::Write as _;

use jar_sprout_document::Drafted;
use jar_sprout_settle::Inferred;
use jar_sprout_shape::Step;
use owo_colors::OwoColorize;
use serde_json::Value;

use crate::args::{Format, LookArgs};
use crate::exit::Exit;
use crate::failure::Outcome;
use crate::jar::{Opened, enter_jar, open_models};
use crate::look::{document, json, recording, text};
use crate::modelling::{Home, model, show_contradictions, show_questions};
use crate::recordings::Recording;
use crate::request::{Request, Selection, refuse_beside_jar};
use crate::sources::{Named, gather_or_list};
use crate::{report, screen};

pub(crate) fn look(args: &LookArgs) -> Outcome<Exit> {
    if args.source.sources.is_empty() {
        return look_at_jar(args);
    }
    let request = Request::of(&args.source, &args.model)?;
    let gathered = match gather_or_list(&request.selection)? {
        Named::Recording(recording) => return look_at_recording(&recording, args.format),
        Named::Samples(gathered) => gathered,
    };
    gathered.show_warnings();
    if let (Some(drafted), 0) = (&gathered.document, gathered.samples) {
        let modelled = model(&gathered, &request)?;
        look_at_document(drafted, &modelled, args.format)?;
        return Ok(Exit::Well);
    }
    let modelled = model(&gathered, &request)?;
    match args.format {
        Format::Text => {
            let is_decided = !request.decisions.is_empty();
            show_contradictions(&modelled, &gathered, &request.selection, is_decided, Home::Arguments)?;
            text(&gathered, &modelled.settled.model, &mut anstream::stdout().lock(), screen::width())?;
            show_page(&modelled, &request.selection);
            show_questions(&modelled, &gathered, args.model.questions, Home::Arguments);
        }
        Format::Json => report::result(&json(&gathered, &modelled, Home::Arguments))?,
    }
    Ok(Exit::Well)
}

/// The endpoints of a recording, of which one can be looked at.
fn look_at_recording(recording: &Recording, format: Format) -> Outcome<Exit> {
    // Where there is none, that is told.
    let all = recording.chosen(None)?;
    match format {
        Format::Text => {
            recording::text(recording, &mut anstream::stdout().lock(), screen::width())?;
            let most = all.iter().rev().max_by_key(|one| one.exchanges.len());
            let (name, shown) = (recording.name(), most.map(|one| recording.shortest_name(one)));
            report::note(&format!(
                "\n`--endpoint '{}'` looks at one; `jar-sprout init {name}` makes a model of each",
                shown.unwrap_or_default()
            ));
        }
        Format::Json => report::result(&format!("{:#}\n", recording::json(recording)))?,
    }
    Ok(Exit::Well)
}

fn look_at_document(drafted: &Drafted, modelled: &Inferred, format: Format) -> Outcome<()> {
    let settled = &modelled.settled;
    match format {
        Format::Text => document::text(drafted, settled, &mut anstream::stdout().lock(), screen::width())?,
        Format::Json => report::result(&format!("{:#}\n", document::json(drafted, settled)))?,
    }
    Ok(())
}

/// Each model of the jar, one below the other.
fn look_at_jar(args: &LookArgs) -> Outcome<Exit> {
    refuse_beside_jar(&args.source, &args.model)?;
    let jar = enter_jar("jar-sprout look")?;
    let models = open_models(&jar, &args.only.only)?;
    let mut all = Vec::new();
    models.tell_troubles(&jar);
    for Opened { model, gathered, modelled, .. } in &models.opened {
        gathered.show_warnings();
        match args.format {
            Format::Text => {
                let mut out = anstream::stdout().lock();
                if jar.models.len() > 1 {
                    writeln!(out, "\n{}", model.name.bold())?;
                }
                if let (Some(drafted), 0) = (&gathered.document, gathered.samples) {
                    look_at_document(drafted, modelled, args.format)?;
                    continue;
                }
                let (home, is_decided) = (jar.home(model), !model.decisions.is_empty());
                show_contradictions(modelled, gathered, &model.request.selection, is_decided, home)?;
                text(gathered, &modelled.settled.model, &mut out, screen::width())?;
                show_questions(modelled, gathered, args.model.questions, home);
            }
            Format::Json => {
                let look = match (&gathered.document, gathered.samples) {
                    (Some(drafted), 0) => document::json(drafted, &modelled.settled),
                    _ => serde_json::from_str(&json(gathered, modelled, jar.home(model)))
                        .expect("it was just written"),
                };
                all.push(serde_json::json!({"model": model.name, "look": look}));
            }
        }
    }
    if args.format == Format::Json {
        report::result(&format!("{:#}\n", Value::from(all)))?;
    }
    Ok(if models.failures.is_empty() { Exit::Well } else { Exit::Unusable })
}

/// Says how to take only the items of a page.
fn show_page(modelled: &Inferred, selection: &Selection) {
    let Some(way) = &modelled.settled.page_of else { return };
    let above = selection.at.as_deref().unwrap_or("$");
    let keys = way.iter().map(|key| Step::Child(key.as_str().to_owned()));
    let path: String = keys.chain([Step::All]).map(|step| step.to_string()).collect();
    report::note(&format!("\na page: --at '{above}{path}' takes its items without the envelope"));
}
