//! Jar Sprout on the command line: arguments, files, the terminal and exit statuses.
//!
//! This crate computes nothing; it reads bytes, hands them on, and shows what came of them.

mod args;
mod commands;
mod decisions;
mod demo_data;
mod documents;
mod drift;
mod exit;
mod failure;
mod fetch;
mod files;
mod grown;
mod input;
mod interrupt;
mod jar;
mod keys;
mod lock;
mod look;
mod modelling;
mod policies;
mod progress;
mod recipe;
mod recordings;
mod records;
mod reference;
mod report;
mod request;
mod revision;
mod screen;
mod scrubbing;
mod settings;
mod source_names;
mod sources;
mod stage;
mod stand_in;
mod unpacking;
mod wording;

use std::ffi::OsString;
use std::path::Path;
use std::process::ExitCode;

use clap::Parser;

use crate::args::{Args, Command};

/// Models and code are many small things, which it makes and frees in less than half the time of the platform's own.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

/// A file alone is looked at.
fn with_look(mut args: Vec<OsString>) -> Vec<OsString> {
    if args.get(1).is_some_and(|first| first == "-" || Path::new(first).is_file()) {
        args.insert(1, "look".into());
    }
    args
}

fn main() -> ExitCode {
    let args = Args::parse_from(with_look(std::env::args_os().collect()));
    report::set_up(args.color, args.quiet);
    let done = match &args.command {
        Command::Look(args) => commands::look(args),
        Command::Why(args) => commands::why(args),
        Command::Grow(args) => commands::grow(args),
        Command::Prove(args) => commands::prove(args),
        Command::Init(args) => commands::init(args),
        Command::Decide(args) => commands::decide(args),
        Command::Check(args) => commands::check(args),
        Command::Drift(args) => commands::drift(args),
        Command::Fetch(args) => commands::fetch(args),
        Command::Scrub(args) => commands::scrub(args),
        Command::StandIn(args) => commands::stand_in(args),
        Command::Use(args) => commands::usage(args),
        Command::Languages(args) => commands::languages(args),
        Command::Demo(args) => commands::demo(args),
        Command::Completions(args) => commands::completions(args),
        Command::Manual(args) => commands::manual(args),
    };
    let exit = done.unwrap_or_else(|failure| report::failure(&failure));
    exit.into()
}
