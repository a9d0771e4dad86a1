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

/// `library=moshi`, taken apart.
pub(crate) fn typed_setting(typed: &str) -> Option<(String, String)> {
    typed.split_once('=').map(|(key, value)| (key.to_owned(), value.to_owned()))
}

pub(crate) fn set(
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
        SettingError::Choice { known } => Failure::argument(format!("`{key}` cannot be `{value}`"), argument)
            .with_help(format!("it can be {}", quoted_with("or", &known))),
    }
}
