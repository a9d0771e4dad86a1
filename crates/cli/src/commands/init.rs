//! `jar-sprout init`: a jar, or one more model in the jar that is there.

use std::fs;
use std::path::{Path, PathBuf};

use jar_sprout_model::Problem;

use crate::args::InitArgs;
use crate::exit::Exit;
use crate::failure::{Failure, Outcome, reason};
use crate::files::{NewFile, Over, write_all};
use crate::jar::{
    FILE, HERE, JarModel, NewModel, add_languages, add_model, new_jar, parse_jar, read_text, say_folder,
    write_jar,
};
use crate::lock::lock_jar;
use crate::reference::schema;
use crate::report;
use crate::request::Selection;
use crate::settings::language;
use crate::sources::{files_of, gather};

/// The folder that samples from elsewhere are copied into.
const SAMPLES: &str = "samples";

pub(crate) fn init(args: &InitArgs) -> Outcome<Exit> {
    if args.schema {
        report::result(&format!("{:#}\n", schema()))?;
        return Ok(Exit::Well);
    }
    let _lock = lock_jar()?;
    let is_new = !Path::new(FILE).exists();
    if !is_new && args.sources.is_empty() {
        let problem = Failure::path("a jar is here already", Path::new(FILE));
        return Err(problem.with_help("name samples to add a model to it").into());
    }
    let mut text = if is_new { new_jar() } else { read_text(Path::new(""))? };
    let languages = languages(args)?;
    let mut copies = Vec::new();
    if !args.sources.is_empty() {
        let model = model_name(args)?;
        if !is_new {
            let jar = parse_jar(&text)?;
            if jar.models.iter().any(|one| one.name == model) {
                let problem = Failure::argument(format!("the jar has a model `{model}` already"), FILE);
                return Err(problem.with_help("choose another name: `--model NAME`").into());
            }
            // Where there was one model, its code stays where it is.
            if let [JarModel { name, folder: None, .. }] = &jar.models[..] {
                text = say_folder(&text, name, HERE);
            }
        }
        let sources = sources(args, &mut copies)?;
        let new =
            NewModel { name: &model, sources: &sources, at: args.at.as_deref(), root: args.name.as_deref() };
        text = add_model(&text, &new);
    }
    text = add_languages(&text, &languages);
    // What would not be read back is not written.
    parse_jar(&text)?;
    write_all(copies, Over::Nothing)?;
    write_jar(&text)?;
    let what = if is_new { "made" } else { "added a model to" };
    report::note(&format!(
        "{what} {FILE}; now `jar-sprout look` and `jar-sprout grow` need no arguments here"
    ));
    Ok(Exit::Well)
}

/// Each language with its folder.
fn languages(args: &InitArgs) -> Result<Vec<(&'static str, String)>, Problem> {
    let InitArgs { into, dir, .. } = args;
    let folder = |key: &str| {
        let dir = if into.len() > 1 { dir.join(key) } else { dir.clone() };
        dir.to_string_lossy().replace('\\', "/")
    };
    let one = |typed: &String| {
        let key = language(typed, format!("--into {typed}"))?.key();
        Ok((key, folder(key)))
    };
    into.iter().map(one).collect()
}

/// What the jar calls the model: as typed, else after the samples.
fn model_name(args: &InitArgs) -> Outcome<String> {
    if let Some(name) = &args.model {
        return Ok(name.clone());
    }
    let gathered =
        gather(&Selection { sources: args.sources.clone(), at: args.at.clone(), refs_from: None })?;
    let words = gathered.root_name();
    let plain =
        |word: &str| word.to_lowercase().chars().filter(char::is_ascii_alphanumeric).collect::<String>();
    let name: Vec<String> = words.iter().map(plain).filter(|word| !word.is_empty()).collect();
    let name = name.join("-");
    Ok(if name.starts_with(|c: char| c.is_ascii_lowercase()) { name } else { format!("model-{name}") })
}

/// The sources as the jar has them: those in its folder as they are, others as copies.
fn sources(args: &InitArgs, copies: &mut Vec<NewFile>) -> Outcome<Vec<String>> {
    let here =
        Path::new(".").canonicalize().map_err(|error| Failure::path(reason(&error), Path::new(".")))?;
    let mut sources = Vec::new();
    for typed in &args.sources {
        if typed == "-" {
            let problem = Failure::argument("a jar reads its samples again and again", "-");
            return Err(problem.with_help("save standard input to a file first").into());
        }
        let files = files_of(typed)?;
        let relative =
            |path: &PathBuf| path.canonicalize().ok()?.strip_prefix(&here).ok().map(Path::to_path_buf);
        let inside: Option<Vec<PathBuf>> = files.iter().map(relative).collect();
        match inside {
            // A glob stays one, so that a new sample is found.
            Some(_) if files.len() > 1 && Path::new(typed).is_relative() => {
                sources.push(typed.replace('\\', "/"));
            }
            Some(inside) => {
                sources.extend(inside.iter().map(|path| path.to_string_lossy().replace('\\', "/")));
            }
            None => {
                for file in files {
                    let name =
                        file.file_name().map(|name| name.to_string_lossy().into_owned()).unwrap_or_default();
                    let path = Path::new(SAMPLES).join(name);
                    let text =
                        fs::read_to_string(&file).map_err(|error| Failure::path(reason(&error), &file))?;
                    sources.push(path.to_string_lossy().replace('\\', "/"));
                    copies.push(NewFile { path, text });
                }
            }
        }
    }
    Ok(sources)
}
