//! `jar-sprout grow`: from samples to code.

use std::path::Path;

use jar_sprout_grow::{
    Arrangement, GrownFile, LANGUAGES, Language, SettingError, Settings, find_language, nearest_language,
};
use jar_sprout_model::{Problem, Words};
use jar_sprout_settle::{Drafted, Policies, RootName, Settled, draft_shape, settle};

use crate::args::GrowArgs;
use crate::exit::Exit;
use crate::failure::{Failure, Outcome};
use crate::files::{NewFile, Over, write_all};
use crate::report;
use crate::sources::{Gathered, gather};

pub(crate) fn grow(args: &GrowArgs) -> Outcome<Exit> {
    let language = language(&args.into)?;
    let settings = settings(language, args.package.as_deref())?;
    let gathered = gather(&args.source)?;
    for warning in &gathered.warnings {
        report::problem(warning, &gathered.names);
    }
    let policies = Policies::default();
    let modelled = model(&gathered, args.name.as_deref(), &policies);
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
    Ok(Exit::Well)
}

/// What was made of all samples.
pub(crate) struct Modelled {
    pub(crate) drafted: Drafted,
    pub(crate) settled: Settled,
}

/// The model of all samples; its root is called `name`, if that is given.
pub(crate) fn model(gathered: &Gathered, name: Option<&str>, policies: &Policies) -> Modelled {
    let words = name.map_or_else(|| gathered.root_name(), Words::split);
    let drafted = draft_shape(&gathered.shape, &words, policies);
    let name = RootName { words, is_given: name.is_some() };
    let settled = settle(&drafted.draft, drafted.root, &name, policies);
    Modelled { drafted, settled }
}

pub(crate) fn write_grown(dir: &Path, files: &[GrownFile]) -> Result<(), Problem> {
    let files: Vec<NewFile<'_>> =
        files.iter().map(|GrownFile { name, text }| NewFile { name, text }).collect();
    write_all(dir, &files, Over::Grown)
}

fn language(key: &str) -> Result<&'static dyn Language, Problem> {
    find_language(key).ok_or_else(|| {
        let known: Vec<String> = LANGUAGES.iter().map(|language| format!("`{}`", language.key())).collect();
        let known = format!("there are {}", known.join(" and "));
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
