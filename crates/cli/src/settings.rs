//! Languages and their settings, as they were typed.

use jar_sprout_grow::{LANGUAGES, Language, SettingError, Settings, find_language, nearest_language};
use jar_sprout_model::{Problem, Spot};

use crate::failure::Failure;
use crate::wording::quoted_with;

/// The language of a key.
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

/// Each `--with` as it was typed.
fn set_all(settings: &mut Settings, language: &dyn Language, typed: &[String]) -> Result<(), Problem> {
    for setting in typed {
        let argument = format!("--with {setting}");
        let Some((key, value)) = setting.split_once('=') else {
            return Err(Failure::argument("a setting is `KEY=VALUE`", argument));
        };
        set(settings, language, key, value, argument)?;
    }
    Ok(())
}

/// The settings as they were typed: `--package` first, then each `--with`.
pub(crate) fn typed_settings(
    language: &dyn Language,
    package: Option<&String>,
    typed: &[String],
) -> Result<Settings, Problem> {
    let mut settings = Settings::default();
    if let Some(package) = package {
        let key = language.package_setting().unwrap_or("package");
        set(&mut settings, language, key, package, format!("--package {package}"))?;
    }
    set_all(&mut settings, language, typed)?;
    Ok(settings)
}

/// The languages that were named, with what was said of the one where there is just one.
pub(crate) fn named_languages(
    into: &[String],
    package: Option<&String>,
    typed: &[String],
) -> Result<Vec<(&'static dyn Language, Settings)>, Problem> {
    if let (Some(setting), false) = (typed.first(), into.len() == 1) {
        return Err(Failure::argument("a setting is for one language", format!("--with {setting}"))
            .with_help("name it: `--into kotlin`"));
    }
    let with_settings = |key: &String| {
        let language = language(key, format!("--into {key}"))?;
        Ok((language, typed_settings(language, package, typed)?))
    };
    into.iter().map(with_settings).collect()
}

/// The same settings by key and value, as a jar has them.
pub(crate) fn taken_apart(
    language: &dyn Language,
    package: Option<&String>,
    typed: &[String],
) -> Vec<(String, String)> {
    let package = package.map(|package| (language.package_setting().unwrap_or("package"), package.as_str()));
    let typed = typed.iter().filter_map(|setting| setting.split_once('='));
    package.into_iter().chain(typed).map(|(key, value)| (key.to_owned(), value.to_owned())).collect()
}

fn set(
    settings: &mut Settings,
    language: &dyn Language,
    key: &str,
    value: &str,
    argument: String,
) -> Result<(), Problem> {
    language.set(settings, key, value).map_err(|error| {
        let problem = setting_problem(language, key, value, error);
        Problem { spot: Spot::Argument(argument), ..problem }
    })
}

/// A setting that a language does not take.
pub(crate) fn setting_problem(
    language: &dyn Language,
    key: &str,
    value: &str,
    error: SettingError,
) -> Problem {
    let argument = format!("{key} = {value}");
    match error {
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
        SettingError::Beside { other, reason } => {
            Failure::argument(format!("`{key}` does not go together with `{other}`"), argument)
                .with_help(format!("{reason}: leave one of the two out"))
        }
        SettingError::Choice { known } => Failure::argument(format!("`{key}` cannot be `{value}`"), argument)
            .with_help(format!("it can be {}", quoted_with("or", &known))),
    }
}
