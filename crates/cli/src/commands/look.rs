//! `jar-sprout look`: the shape as a tree.

use crate::args::{Format, LookArgs};
use crate::exit::Exit;
use crate::failure::Outcome;
use crate::look::{json, text};
use crate::sources::gather;
use crate::{report, screen};

pub(crate) fn look(args: &LookArgs) -> Outcome<Exit> {
    let gathered = gather(&args.source)?;
    for warning in &gathered.warnings {
        report::problem(warning, &gathered.names);
    }
    match args.format {
        Format::Text => text(&gathered, &mut anstream::stdout().lock(), screen::width())?,
        Format::Json => report::result(&json(&gathered))?,
    }
    Ok(Exit::Well)
}
