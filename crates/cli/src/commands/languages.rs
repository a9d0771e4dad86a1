//! `jar-sprout languages`: the languages and their settings.

use jar_sprout_grow::{LANGUAGES, Language, Setting};

use crate::args::LanguagesArgs;
use crate::commands::grow::language;
use crate::exit::Exit;
use crate::failure::Outcome;
use crate::report;

pub(crate) fn languages(args: &LanguagesArgs) -> Outcome<Exit> {
    let text = match &args.language {
        Some(key) => in_full(language(key, key.clone())?),
        None => LANGUAGES.iter().map(|language| in_short(*language)).collect(),
    };
    report::result(&text)?;
    Ok(Exit::Well)
}

/// `kotlin       Kotlin: data classes for kotlinx.serialization   package`
fn in_short(language: &dyn Language) -> String {
    let settings: Vec<&str> = language.settings().iter().map(|setting| setting.key).collect();
    let line = format!(
        "{:<12} {:<12} {:<52} {}",
        language.key(),
        language.title(),
        language.grows(),
        settings.join(", ")
    );
    format!("{}\n", line.trim_end())
}

fn in_full(language: &dyn Language) -> String {
    let files = if language.has_file_per_type() { "one a type" } else { "one for all types" };
    let mut text = format!("{}: {}\n\n  files     {files}\n", language.title(), language.grows());
    if language.settings().is_empty() {
        text += "  settings  none\n";
    }
    for Setting { key, doc, example, check: _ } in language.settings() {
        text += &format!("  --with {key}=…\n            {doc}, such as `{example}`; none without it\n");
    }
    text
}
