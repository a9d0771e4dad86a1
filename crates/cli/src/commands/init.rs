//! `jar-sprout init`: a jar, or one more model, sample or language in the jar that is there.

use std::collections::BTreeMap;
use std::fs;
use std::path::{Path, PathBuf};

use jar_sprout_fetch::Endpoint;
use jar_sprout_model::Problem;

use crate::args::InitArgs;
use crate::exit::Exit;
use crate::failure::{Failure, Outcome, reason};
use crate::files::{NewFile, Over, write_all};
use crate::input;
use crate::jar::{
    FILE, Jar, NewLanguage, NewModel, SAMPLES, add_languages, add_sources, model_name, new_jar,
    no_such_model, parse_jar, read_text, set_policies, source_of, write_jar,
};
use crate::lock::lock_jar;
use crate::recordings::{Recording, is_recording};
use crate::reference::schema;
use crate::report;
use crate::request::Selection;
use crate::settings::{language, taken_apart, typed_settings};
use crate::sources::{files_of, gather, no_recording, split_part};
use crate::unpacking::{TakenOut, models_of, take_out};
use crate::wording::{counted, quoted_with};

pub(crate) fn init(args: &InitArgs) -> Outcome<Exit> {
    if args.schema {
        report::result(&format!("{:#}\n", schema()))?;
        return Ok(Exit::Well);
    }
    let _lock = lock_jar()?;
    let is_new = !Path::new(FILE).exists();
    let policies = &args.policies.typed;
    if !is_new
        && args.sources.is_empty()
        && args.add.is_empty()
        && args.into.is_empty()
        && policies.is_empty()
    {
        let problem = Failure::path("a jar is here already", Path::new(FILE));
        let help = "name samples to add a model to it, `--add` one to a model, or `--into` a language";
        return Err(problem.with_help(help).into());
    }
    let mut text = if is_new { new_jar() } else { read_text(Path::new(""))? };
    let mut jar = parse_jar(&text)?;
    let mut copies = Vec::new();
    let mut taken_out = Vec::new();
    let mut done = Vec::new();
    let mut joining = Vec::new();
    if !args.sources.is_empty() {
        let new = match recording_among(args, &args.sources)? {
            Some((recording, endpoints)) => of_recording(args, &jar, &recording, &endpoints, &mut taken_out)?,
            None => vec![(name_of_model(args)?, sources(&args.sources, &mut copies)?, None)],
        };
        for (model, sources, root) in new {
            if jar.models.iter().any(|one| one.name == model) {
                return Err(has_model(&model, args).into());
            }
            let new = NewModel {
                is_lenient: args.lenient,
                name: &model,
                sources: &sources,
                at: args.at.as_deref(),
                root: args.name.as_deref().or(root.as_deref()),
            };
            text = jar.with_model(&text, &new);
            done.push(format!("model `{model}`"));
            joining.extend((!jar.models.is_empty()).then_some(model));
        }
        jar = parse_jar(&text)?;
    }
    if !args.add.is_empty() {
        let model = model_to_add_to(&jar, args)?;
        let more = match recording_among(args, &args.add)? {
            Some((recording, endpoints)) => {
                let endpoint = recording.one(one_endpoint(&endpoints)?)?;
                taken_out.push(take_out(&recording, &[endpoint], std::slice::from_ref(&model))?);
                vec![source_of(&model, "json")]
            }
            None => sources(&args.add, &mut copies)?,
        };
        text = add_sources(&text, &model, &more);
        done.push(format!("samples of `{model}`"));
    }
    if !policies.is_empty() {
        // Of a model that joins others they are its own.
        if joining.is_empty() {
            text = set_policies(&text, None, policies);
        }
        text = joining.iter().fold(text, |text, model| set_policies(&text, Some(model), policies));
        done.push("policies".to_owned());
    }
    let languages = languages(&jar, args)?;
    text = add_languages(&text, &languages);
    done.extend(languages.iter().map(|language| format!("language `{}`", language.key)));
    // What would not be read back is not written.
    let has_languages = !parse_jar(&text)?.languages.is_empty();
    write_all(copies, Over::Nothing)?;
    let counts: Vec<usize> = taken_out.iter().flat_map(|taken| taken.counts.clone()).collect();
    taken_out.into_iter().try_for_each(TakenOut::put)?;
    write_jar(&text)?;
    report::note(&if is_new {
        format!("made {FILE}")
    } else {
        format!("added to {FILE}: {}", done.join(", "))
    });
    if !counts.is_empty() {
        let samples = counted(counts.iter().sum(), "sample");
        report::note(&format!(
            "took {samples} of {} out of the recording, and no header with them",
            counted(counts.len(), "endpoint")
        ));
    }
    report::note(match has_languages {
        true if !is_new => "`jar-sprout grow` makes it so",
        true => "now `jar-sprout look` and `jar-sprout grow` need no arguments here",
        false => {
            "now `jar-sprout look` needs no arguments here; `jar-sprout init --into kotlin` says what to grow"
        }
    });
    Ok(Exit::Well)
}

/// The recording that was named, if one was, with its endpoints that are meant; it stands alone.
fn recording_among(args: &InitArgs, typed: &[String]) -> Outcome<Option<(Recording, Vec<String>)>> {
    let is_recorded = |typed: &&String| is_recording(Path::new(split_part(typed).0));
    match (typed.iter().find(is_recorded), typed) {
        (None, _) => match args.endpoint.first() {
            Some(endpoint) => Err(no_recording(endpoint).into()),
            None => Ok(None),
        },
        (Some(_), [one]) => {
            let (file, part) = split_part(one);
            let endpoints = part.into_iter().map(str::to_owned).chain(args.endpoint.iter().cloned());
            Ok(Some((Recording::open(Path::new(file))?, endpoints.collect())))
        }
        (Some(one), _) => {
            let problem = Failure::argument("a recording makes models of its own", one.clone());
            Err(problem.with_help("name it alone").into())
        }
    }
}

/// A model to be made: its name, its sources, and the name of its root.
type ToMake = (String, Vec<String>, Option<String>);

/// The model of each endpoint that is meant; their samples are ready beside their places.
fn of_recording(
    args: &InitArgs,
    jar: &Jar,
    recording: &Recording,
    meant: &[String],
    taken_out: &mut Vec<TakenOut>,
) -> Outcome<Vec<ToMake>> {
    let mut endpoints: Vec<&Endpoint> = Vec::new();
    for typed in meant {
        let more = recording.chosen(Some(typed))?;
        endpoints.extend(more.into_iter().filter(|one| !endpoints.contains(one)).collect::<Vec<_>>());
    }
    if meant.is_empty() {
        endpoints = recording.chosen(None)?;
    }
    let of_one = [("--model", &args.model), ("--at", &args.at), ("--name", &args.name)];
    if let Some((option, Some(typed))) =
        of_one.into_iter().find(|(_, typed)| typed.is_some() && endpoints.len() > 1)
    {
        let message = format!("{} endpoints are {} models", endpoints.len(), endpoints.len());
        let problem = Failure::argument(message, format!("{option} {typed}"));
        return Err(problem.with_help("choose one with `--endpoint`").into());
    }
    let known = jar.models.iter().map(|model| model.name.clone()).collect();
    let models = match &args.model {
        Some(model) => vec![model.clone()],
        None => models_of(&endpoints, known),
    };
    taken_out.push(take_out(recording, &endpoints, &models)?);
    let width = models.iter().map(String::len).max().unwrap_or_default();
    for (model, endpoint) in models.iter().zip(&endpoints) {
        report::note(&format!("  {model:<width$}  {}", recording.shortest_name(endpoint)));
    }
    let root = |endpoint: &Endpoint| endpoint.root_name().map(|words| words.in_capitals());
    let made = models.into_iter().zip(&endpoints);
    Ok(made
        .map(|(model, endpoint)| (model.clone(), vec![source_of(&model, "json")], root(endpoint)))
        .collect())
}

/// The endpoint that was typed, if just one was.
fn one_endpoint(meant: &[String]) -> Result<Option<&str>, Problem> {
    match meant {
        [] => Ok(None),
        [one] => Ok(Some(one)),
        [_, other, ..] => {
            let problem = Failure::argument(
                "a model takes the samples of one endpoint",
                format!("--endpoint '{other}'"),
            );
            Err(problem.with_help("add them one after the other"))
        }
    }
}

fn has_model(model: &str, args: &InitArgs) -> Problem {
    let problem = Failure::argument(format!("the jar has a model `{model}` already"), FILE);
    let more = args.sources.join(" ");
    problem.with_help(format!(
        "`jar-sprout init --add {more} --model {model}` gives it more samples; `--model NAME` makes another one"
    ))
}

/// The model that samples are added to: the one that was named, or the only one.
fn model_to_add_to(jar: &Jar, args: &InitArgs) -> Result<String, Problem> {
    let names: Vec<&str> = jar.models.iter().map(|model| model.name.as_str()).collect();
    match (&args.model, &names[..]) {
        (Some(name), names) if names.contains(&name.as_str()) => Ok(name.clone()),
        (Some(name), _) => Err(no_such_model(jar, name)),
        (None, [one]) => Ok((*one).to_owned()),
        (None, []) => Err(Failure::argument("the jar has no model yet", FILE)
            .with_help("name samples without `--add` to make one")),
        (None, names) => Err(Failure::argument("samples of which model?", "--add")
            .with_help(format!("`--model` one of {}", quoted_with("and", names)))),
    }
}

/// Each new language with its folder and its settings.
fn languages(jar: &Jar, args: &InitArgs) -> Result<Vec<NewLanguage>, Problem> {
    let InitArgs { into, dir, package, settings, .. } = args;
    let folder = |key: &str| {
        let dir = if into.len() > 1 { dir.join(key) } else { dir.clone() };
        dir.to_string_lossy().replace('\\', "/")
    };
    let mut all = Vec::new();
    for typed in into {
        let language = language(typed, format!("--into {typed}"))?;
        let key = language.key();
        if jar.languages.iter().any(|known| known.name == key) {
            let problem = Failure::argument(format!("the jar grows {} already", language.title()), FILE);
            return Err(problem.with_help(format!("change it there, under [languages.{key}]")));
        }
        typed_settings(language, package.as_ref(), settings)?;
        let settings = taken_apart(language, package.as_ref(), settings);
        all.push(NewLanguage { key, dir: folder(key), settings });
    }
    Ok(all)
}

/// What the jar calls the model: as typed, else after the samples.
fn name_of_model(args: &InitArgs) -> Outcome<String> {
    if let Some(name) = &args.model {
        return Ok(name.clone());
    }
    let gathered = gather(&Selection {
        sources: args.sources.clone(),
        at: args.at.clone(),
        is_lenient: args.lenient,
        ..Selection::default()
    })?;
    Ok(model_name(&gathered.root_name()))
}

/// The sources as the jar has them: those in its folder as they are, others as copies.
fn sources(typed: &[String], copies: &mut Vec<NewFile>) -> Outcome<Vec<String>> {
    let here =
        Path::new(".").canonicalize().map_err(|error| Failure::path(reason(&error), Path::new(".")))?;
    let mut sources = Vec::new();
    let mut outside = Vec::new();
    for typed in typed {
        if typed == "-" {
            let problem = Failure::argument("a jar reads its samples again and again", "-");
            return Err(problem.with_help("save standard input to a file first").into());
        }
        let (file, part) = split_part(typed);
        let part = part.map(|part| format!("#{part}")).unwrap_or_default();
        let files = files_of(file)?;
        let relative =
            |path: &PathBuf| path.canonicalize().ok()?.strip_prefix(&here).ok().map(Path::to_path_buf);
        let inside: Option<Vec<PathBuf>> = files.iter().map(relative).collect();
        let said = |path: &Path| format!("{}{part}", path.to_string_lossy().replace('\\', "/"));
        match inside {
            // A glob stays one, so that a new sample is found.
            Some(_) if files.len() > 1 && Path::new(typed).is_relative() => {
                sources.push(typed.replace('\\', "/"));
            }
            Some(inside) => sources.extend(inside.iter().map(|path| said(path))),
            None => outside.extend(files.into_iter().map(|file| (file, part.clone()))),
        }
    }
    for (file, copy, part) in places(outside) {
        let text = input::read_text(&file).map_err(|error| Failure::path(reason(&error), &file))?;
        sources.push(format!("{}{part}", copy.to_string_lossy().replace('\\', "/")));
        copies.push(NewFile { path: copy, text });
    }
    Ok(sources)
}

/// Where copies go: files of one name keep the folder that tells them apart.
fn places(files: Vec<(PathBuf, String)>) -> Vec<(PathBuf, PathBuf, String)> {
    let name = |file: &Path| file.file_name().map(PathBuf::from).unwrap_or_default();
    let mut taken: BTreeMap<PathBuf, usize> = BTreeMap::new();
    for (file, _) in &files {
        *taken.entry(name(file)).or_default() += 1;
    }
    let is_free = |path: &Path, file: &Path| {
        fs::read(path).map_or(true, |there| fs::read(file).is_ok_and(|new| new == there))
    };
    let place = |(file, part): (PathBuf, String)| {
        let plain = Path::new(SAMPLES).join(name(&file));
        let folder = file.canonicalize().ok().and_then(|file| Some(file.parent()?.file_name()?.to_owned()));
        let copy = match folder {
            Some(folder) if taken[&name(&file)] > 1 || !is_free(&plain, &file) => {
                Path::new(SAMPLES).join(folder).join(name(&file))
            }
            Some(_) | None => plain,
        };
        (file, copy, part)
    };
    files.into_iter().map(place).collect()
}
