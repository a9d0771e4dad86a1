//! `jar-sprout grow`: from samples to code.

use std::path::Path;

use jar_sprout_grow::{
    Arrangement, GrownFile, LANGUAGES, Language, SettingError, Settings, find_language, nearest_language,
};
use jar_sprout_model::Problem;

use crate::args::GrowArgs;
use crate::commands::demo::quoted_with;
use crate::exit::Exit;
use crate::failure::{Failure, Outcome};
use crate::files::{NewFile, Over, write_all};
use crate::modelling::{model, show_questions};
use crate::report;
use crate::sources::gather;

pub(crate) fn grow(args: &GrowArgs) -> Outcome<Exit> {
    let language = language(&args.into, format!("--into {}", args.into))?;
    let settings = settings(language, args)?;
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

pub(crate) fn language(key: &str, argument: String) -> Result<&'static dyn Language, Problem> {
    find_language(key).ok_or_else(|| {
        let known: Vec<&str> = LANGUAGES.iter().map(|language| language.key()).collect();
        let known = format!("there are {}", quoted_with("and", &known));
        let help = match nearest_language(key) {
            Some(near) => format!("did you mean `{}`? {known}", near.key()),
            None => known,
        };
        Failure::argument("no such language", argument).with_help(help)
    })
}

/// The settings as they were typed: `--package` first, then each `--with`.
fn settings(language: &dyn Language, args: &GrowArgs) -> Result<Settings, Problem> {
    let mut settings = Settings::default();
    if let Some(package) = &args.package {
        set(&mut settings, language, "package", package, format!("--package {package}"))?;
    }
    set_all(&mut settings, language, &args.settings)?;
    Ok(settings)
}

/// Each `--with` as it was typed.
pub(crate) fn set_all(
    settings: &mut Settings,
    language: &dyn Language,
    typed: &[String],
) -> Result<(), Problem> {
    for setting in typed {
        let argument = format!("--with {setting}");
        let Some((key, value)) = setting.split_once('=') else {
            return Err(Failure::argument("a setting is `KEY=VALUE`", argument));
        };
        set(settings, language, key, value, argument)?;
    }
    Ok(())
}

fn set(
    settings: &mut Settings,
    language: &dyn Language,
    key: &str,
    value: &str,
    argument: String,
) -> Result<(), Problem> {
    settings.set(language, key, value).map_err(|error| match error {
        SettingError::Unknown { known } => {
            let problem = Failure::argument(format!("{} has no setting `{key}`", language.title()), argument);
            problem.with_help(match &known[..] {
                [] => "it has none: leave it out".to_owned(),
                known => format!("it has {}", quoted_with("and", known)),
            })
        }
        SettingError::Text { reason, example } => {
            Failure::argument(reason, argument).with_help(format!("such as `{example}`"))
        }
        SettingError::Choice { known } => Failure::argument(format!("`{key}` cannot be `{value}`"), argument)
            .with_help(format!("it can be {}", quoted_with("or", &known))),
    })
}
