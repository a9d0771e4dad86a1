//! `jar-sprout completions` and `jar-sprout manual`: what the arguments say of themselves, for shells and for `man`.

use clap::{Command, CommandFactory as _};
use clap_mangen::Man;

use crate::args::{Args, CompletionsArgs, ManualArgs};
use crate::exit::Exit;
use crate::failure::{Failure, Outcome};
use crate::files::{NewFile, Over, write_all};
use crate::report;
use crate::wording::did_you_mean;

pub(crate) fn completions(args: &CompletionsArgs) -> Outcome<Exit> {
    let mut command = Args::command();
    let name = command.get_name().to_owned();
    let mut script = Vec::new();
    clap_complete::generate(args.shell, &mut command, name, &mut script);
    report::result(&String::from_utf8_lossy(&script))?;
    Ok(Exit::Well)
}

pub(crate) fn manual(args: &ManualArgs) -> Outcome<Exit> {
    let mut whole = Args::command();
    whole.build();
    let Some(dir) = &args.dir else {
        let page = match &args.command {
            None => page(&whole)?,
            Some(name) => page(command(&whole, name)?)?,
        };
        report::result(&page)?;
        return Ok(Exit::Well);
    };
    let mut files = vec![NewFile { path: dir.join("jar-sprout.1"), text: page(&whole)? }];
    for command in whole.get_subcommands().filter(|command| command.get_name() != "help") {
        let path = dir.join(format!("jar-sprout-{}.1", command.get_name()));
        files.push(NewFile { path, text: page(command)? });
    }
    let count = files.len();
    write_all(files, Over::Nothing)?;
    report::note(&format!("{count} pages in {}", dir.display()));
    Ok(Exit::Well)
}

fn command<'c>(whole: &'c Command, name: &str) -> Outcome<&'c Command> {
    whole.find_subcommand(name).ok_or_else(|| {
        let known: Vec<&str> = whole.get_subcommands().map(Command::get_name).collect();
        let problem = Failure::argument("there is no such command", format!("manual {name}"));
        problem.with_help(did_you_mean(name, &known)).into()
    })
}

/// A page in the form that `man` reads. It names no day: the same program prints the same.
fn page(command: &Command) -> Outcome<String> {
    let mut page = Vec::new();
    Man::new(command.clone()).date("").render(&mut page)?;
    Ok(String::from_utf8_lossy(&page).into_owned())
}
