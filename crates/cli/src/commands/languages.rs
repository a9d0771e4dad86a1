//! `jar-sprout languages`: the languages and their settings.

use jar_sprout_grow::{Choice, LANGUAGES, Language, Values};

use crate::args::LanguagesArgs;
use crate::exit::Exit;
use crate::failure::Outcome;
use crate::report;
use crate::settings::language;

pub(crate) fn languages(args: &LanguagesArgs) -> Outcome<Exit> {
    let text = match &args.language {
        Some(key) => in_full(language(key, key.clone())?),
        None => LANGUAGES.iter().map(|language| in_short(*language)).collect(),
    };
    report::result(&text)?;
    Ok(Exit::Well)
}

/// ```text
/// kotlin       data classes for kotlinx.serialization
///              settings: package, library, properties
/// ```
fn in_short(language: &dyn Language) -> String {
    let settings: Vec<&str> = language.settings().iter().map(|setting| setting.key()).collect();
    let mut text = format!("{:<12} {}\n", language.key(), language.grows());
    if !settings.is_empty() {
        text += &format!("{:<12}   settings: {}\n", "", settings.join(", "));
    }
    text
}

/// Each setting, and below it its values.
fn in_full(language: &dyn Language) -> String {
    let mut text = format!("{}: {}\n", language.title(), language.grows());
    for setting in language.settings() {
        text += &format!("\n--with {}=…   {}\n", setting.key(), setting.doc());
        match setting.values() {
            Values::Choice(choices) => {
                let width = choices.iter().map(|choice| choice.value.len()).max().unwrap_or(0);
                for (at, Choice { value, doc }) in choices.iter().enumerate() {
                    let mark = if at == 0 { '*' } else { ' ' };
                    text += &format!("  {mark} {value:<width$}   {doc}\n");
                }
            }
            Values::Text { default: Some(default), example, .. } => {
                text += &format!("  * {default}\n    or another, such as {example}\n");
            }
            Values::Text { default: None, example, .. } => {
                text += &format!("    none, unless given, such as {example}\n");
            }
        }
    }
    text + if language.settings().is_empty() {
        "\nno settings\n"
    } else {
        "\n* holds where nothing else is said\n"
    }
}
