//! `jar-sprout use`: what a build file needs for the code, and a program that reads a response with it.

use std::fmt::Write as _;
use std::io::{IsTerminal as _, Write as _};

use jar_sprout_grow::{Dialect, GrownFile, Language, Place, Usage, UsingProgram, prepare};
use jar_sprout_model::Model;
use owo_colors::OwoColorize;
use serde_json::{Value, json};
use unicode_width::UnicodeWidthStr;

use crate::args::{Format, UseArgs};
use crate::exit::Exit;
use crate::failure::{Failure, Outcome};
use crate::jar::{enter_jar, open_models};
use crate::modelling::model;
use crate::report;
use crate::request::{Request, refuse_beside_jar, setting_of_jar};
use crate::screen::visible;
use crate::settings::named_languages;
use crate::sources::gather;

/// The use of one model in one language.
struct Shown {
    language: &'static dyn Language,
    /// What the jar calls the model.
    model: Option<String>,
    /// Where its code stands.
    dir: Option<String>,
    usage: Usage,
}

pub(crate) fn usage(args: &UseArgs) -> Outcome<Exit> {
    let shown = if args.source.sources.is_empty() { of_jar(args)? } else { of_sources(args)? };
    match args.format {
        Format::Text => write!(anstream::stdout(), "{}", text(&shown))?,
        Format::Json => {
            let all: Vec<Value> = shown.iter().map(as_json).collect();
            report::result(&format!("{:#}\n", Value::from(all)))?;
        }
    }
    Ok(Exit::Well)
}

fn of_sources(args: &UseArgs) -> Outcome<Vec<Shown>> {
    let named = named_languages(&args.into, args.code.package.as_ref(), &args.code.settings)?;
    if named.is_empty() {
        let problem = Failure::argument("in which language?", "jar-sprout use");
        return Err(problem.with_help("`--into kotlin`; `jar-sprout languages` lists them").into());
    }
    let request = Request::of(&args.source, &args.model)?;
    let gathered = gather(&request.selection)?;
    gathered.show_warnings();
    let modelled = model(&gathered, &request)?;
    let (model, file) = (&modelled.settled.model, gathered.response_file());
    let show = |(language, settings)| {
        let language: &dyn Language = language;
        let usage = used(&*language.dialect(&settings), model, &file, None);
        Shown { language, model: None, dir: None, usage }
    };
    Ok(named.into_iter().map(show).collect())
}

/// All models of the jar, or those that were named, in each of its languages.
fn of_jar(args: &UseArgs) -> Outcome<Vec<Shown>> {
    refuse_beside_jar(&args.source, &args.model)?;
    let package = args.code.package.iter().map(|package| format!("package={package}"));
    if let Some(setting) = package.chain(args.code.settings.iter().cloned()).next() {
        return Err(setting_of_jar(&setting).into());
    }
    let jar = enter_jar("jar-sprout use")?;
    let models = open_models(&jar, &args.only.only)?;
    models.tell_troubles(&jar);
    let named = args.into.iter().map(|key| jar.languages(Some(key)));
    let named = named.collect::<Result<Vec<_>, _>>()?.concat();
    let chosen = if named.is_empty() { jar.languages(None)? } else { named };
    let mut shown = Vec::new();
    for language in chosen {
        for one in &models.opened {
            let crate::jar::Place { dir, dialect } = jar.place(language, one.model);
            let dir = dir.to_string_lossy().replace('\\', "/");
            let (model, sample) = (&one.modelled.settled.model, one.gathered.response_file());
            let usage = used(&*dialect, model, &sample, Some(&dir));
            let (language, model) = (language.language, Some(one.model.name.clone()));
            shown.push(Shown { language, model, dir: Some(dir), usage });
        }
    }
    Ok(shown)
}

fn used(dialect: &dyn Dialect, model: &Model, sample: &str, code: Option<&str>) -> Usage {
    jar_sprout_grow::usage(dialect, &prepare(dialect, model), Place { sample, code })
}

/// Says at a terminal how code that was just grown reads a response; the rest comes by the command.
pub(crate) fn tell_use(alone: Option<(&dyn Dialect, &Model)>, command: &str) {
    if !std::io::stderr().is_terminal() {
        return;
    }
    if let Some((dialect, model)) = alone
        && let Some(UsingProgram { reading, .. }) = used(dialect, model, "response.json", None).program
    {
        report::note(&format!("read a response with it: {reading}"));
    }
    report::note(&format!("`{command}` shows what the build file needs, and a program that reads one"));
}

/// What the build file needs, once for each language; then the programs.
fn text(shown: &[Shown]) -> String {
    let mut out = String::new();
    let mut told: Option<(&str, &[GrownFile])> = None;
    for Shown { language, model, dir, usage: Usage { project, program } } in shown {
        if told != Some((language.key(), project)) {
            for GrownFile { name, text } in project {
                section(&mut out, &format!("{}: {name}", language.title()), text);
            }
            told = Some((language.key(), project));
        }
        let of =
            language.title().to_owned() + &model.iter().map(|name| format!(", {name}")).collect::<String>();
        match program {
            None => section(&mut out, &of, "Nothing reads these types, and they need nothing."),
            Some(UsingProgram { file: GrownFile { name, text }, folder, run: _, reading: _ }) => {
                let place = place(folder.as_deref(), dir.as_deref());
                section(&mut out, &format!("{of}: {name}{place}"), text);
            }
        }
    }
    out
}

/// Where the program stands: beside the code, or above it.
fn place(folder: Option<&str>, dir: Option<&str>) -> String {
    match (folder, dir) {
        (None, None) => ", beside the code".to_owned(),
        (None, Some(dir)) => format!(", beside the code in {dir}"),
        (Some(folder), None) => format!(", with the code in the folder {folder}"),
        (Some(folder), Some(dir)) if folder == dir => ", beside jar.toml".to_owned(),
        (Some(folder), Some(dir)) => format!(", with the code of {dir} in the folder {folder}"),
    }
}

/// A title with a rule below it, and what is to be copied.
fn section(out: &mut String, title: &str, text: &str) {
    let title = visible(title);
    let before = if out.is_empty() { "" } else { "\n" };
    let _ = writeln!(out, "{before}{}\n{}\n\n{}", title.bold(), "─".repeat(title.width()), text.trim_end());
}

fn as_json(Shown { language, model, dir, usage: Usage { project, program } }: &Shown) -> Value {
    let file = |GrownFile { name, text }: &GrownFile| json!({"file": name, "text": text});
    let program = program.as_ref().map(|UsingProgram { file: GrownFile { name, text }, folder, run, reading }| {
        json!({"file": name, "text": text, "code-in": folder, "run": run, "reading": reading})
    });
    json!({
        "language": language.key(),
        "model": model,
        "dir": dir,
        "project": project.iter().map(file).collect::<Vec<_>>(),
        "program": program,
    })
}
