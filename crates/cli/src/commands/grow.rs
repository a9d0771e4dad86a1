//! `jar-sprout grow`: from samples to code.

use std::path::Path;

use jar_sprout_grow::{
    Arrangement, GrownFile, LANGUAGES, Language, SettingError, Settings, find_language, nearest_language,
};
use jar_sprout_model::Problem;

use crate::args::GrowArgs;
use crate::commands::demo::listed;
use crate::exit::Exit;
use crate::failure::{Failure, Outcome};
use crate::files::{NewFile, Over, write_all};
use crate::modelling::{model, show_questions};
use crate::report;
use crate::sources::gather;

pub(crate) fn grow(args: &GrowArgs) -> Outcome<Exit> {
    let language = language(&args.into)?;
    let settings = settings(language, args.package.as_deref())?;
    let gathered = gather(&args.source)?;
    for warning in &gathered.warnings {
        report::problem(warning, &gathered.names);
    }
    let modelled = model(&gathered, &args.model)?;
    let model = &modelled.settled.model;
    match &args.dir {
        None => {
            let files = jar_sprout_grow::grow(language, model, &settings, Arrangement::Together);
            for GrownFile { name: _, text } in files {
                report::result(&text)?;
            }
        }
        Some(dir) => {
            let files = jar_sprout_grow::grow(language, model, &settings, Arrangement::AsUsual);
            write_grown(dir, &files)?;
            let names: Vec<&str> = files.iter().map(|file| file.name.as_str()).collect();
            report::note(&format!("grown into {}: {}", dir.display(), names.join(", ")));
        }
    }
    show_questions(&modelled, &gathered, args.model.questions);
    Ok(Exit::Well)
}

pub(crate) fn write_grown(dir: &Path, files: &[GrownFile]) -> Result<(), Problem> {
    let files: Vec<NewFile<'_>> =
        files.iter().map(|GrownFile { name, text }| NewFile { name, text }).collect();
    write_all(dir, &files, Over::Grown)
}

fn language(key: &str) -> Result<&'static dyn Language, Problem> {
    find_language(key).ok_or_else(|| {
        let known: Vec<String> = LANGUAGES.iter().map(|language| format!("`{}`", language.key())).collect();
        let known: Vec<&str> = known.iter().map(String::as_str).collect();
        let known = format!("there are {}", listed(&known));
        let help = match nearest_language(key) {
            Some(near) => format!("did you mean `{}`? {known}", near.key()),
            None => known,
        };
        Failure::argument("no such language", format!("--into {key}")).with_help(help)
    })
}

fn settings(language: &dyn Language, package: Option<&str>) -> Result<Settings, Problem> {
    let mut settings = Settings::default();
    if let Some(package) = package {
        settings.set(language, "package", package).map_err(|error| {
            let argument = format!("--package {package}");
            match error {
                SettingError::Unknown { .. } => {
                    Failure::argument(format!("{} has no packages", language.title()), argument)
                        .with_help("leave it out")
                }
                SettingError::Value { reason, example } => {
                    Failure::argument(reason, argument).with_help(format!("such as `{example}`"))
                }
            }
        })?;
    }
    Ok(settings)
}
