//! `jar-sprout look`: the shape as a tree.

use jar_sprout_shape::Step;

use crate::args::{Format, LookArgs, SourceArgs};
use crate::exit::Exit;
use crate::failure::Outcome;
use crate::look::{json, text};
use crate::modelling::{Modelled, model, show_questions};
use crate::sources::gather;
use crate::{report, screen};

pub(crate) fn look(args: &LookArgs) -> Outcome<Exit> {
    let gathered = gather(&args.source)?;
    for warning in &gathered.warnings {
        report::problem(warning, &gathered.names);
    }
    match args.format {
        Format::Text => {
            let modelled = model(&gathered, &args.model)?;
            text(&gathered, &mut anstream::stdout().lock(), screen::width())?;
            show_page(&modelled, &args.source);
            show_questions(&modelled, &gathered, args.model.questions);
        }
        Format::Json => report::result(&json(&gathered))?,
    }
    Ok(Exit::Well)
}

/// Says how to take only the items of a page.
fn show_page(modelled: &Modelled, source: &SourceArgs) {
    let Some(key) = &modelled.settled.page_of else { return };
    let above = source.at.as_deref().unwrap_or("$");
    let items = [Step::Child(key.as_str().to_owned()), Step::All];
    let path: String = items.iter().map(ToString::to_string).collect();
    report::note(&format!("\na page: --at '{above}{path}' takes its items without the envelope"));
}
