//! `jar-sprout decide`: one decision, written into the jar.

use std::path::Path;

use jar_sprout_model::{Problem, Spot};
use jar_sprout_settle::Subject;

use crate::args::DecideArgs;
use crate::exit::Exit;
use crate::failure::{Failure, Outcome};
use crate::jar::{
    Jar, JarModel, enter_jar_alone, no_such_model, open_models, parse_jar, read_text, write_decision,
    write_jar,
};
use crate::report;
use crate::wording::quoted_with;

pub(crate) fn decide(args: &DecideArgs) -> Outcome<Exit> {
    let (_lock, jar) = enter_jar_alone("jar-sprout decide")?;
    let DecideArgs { subject, what, only } = args;
    let keys = what.keys()?;
    let home = home(&jar, subject, only.as_deref())?;
    let text = write_decision(&read_text(Path::new(""))?, home, subject, &keys);
    // What would not be read back, or matches nothing, is not written.
    let decided = parse_jar(&text).map_err(|failure| as_typed(failure, subject))?;
    look_through(&decided, subject, home, what.undo)?;
    write_jar(&text)?;
    let place = home.map_or_else(String::new, |model| format!(" for {model}"));
    let done = if what.undo { "taken back" } else { "decided" };
    report::note(&format!("{done}{place}: {subject}; `jar-sprout grow` makes it so"));
    Ok(Exit::Well)
}

/// What is wrong with a jar that was right before: not a line of it, but what was typed.
fn as_typed(failure: Failure, subject: &str) -> Failure {
    match failure {
        Failure::Problem(problem, _) => {
            Problem { spot: Spot::Argument(subject.to_owned()), excerpt: None, ..*problem }.into()
        }
        output => output,
    }
}

/// Whether the decision matches something in the jar that it is going to be.
fn look_through(jar: &Jar, subject: &str, home: Option<&str>, is_undone: bool) -> Outcome<()> {
    if is_undone {
        return Ok(());
    }
    let only: Vec<String> = home.map(str::to_owned).into_iter().collect();
    let mut models = open_models(jar, &only)?;
    if let Some((_, failure)) = models.failures.pop() {
        return Err(failure);
    }
    let asked = Subject::parse(subject);
    match models.unmatched_of(&asked) {
        Some(problem) => Err(problem.into()),
        None => Ok(()),
    }
}

/// The model whose decision it is; none where it is for all, or there is just one.
fn home<'j>(jar: &'j Jar, subject: &str, only: Option<&str>) -> Outcome<Option<&'j str>> {
    if let Some(name) = only {
        let found = jar.models.iter().find(|model| model.name == name);
        return match found {
            Some(model) => Ok(Some(&model.name)),
            None => Err(no_such_model(jar, name).into()),
        };
    }
    if jar.models.len() < 2 || subject.contains('*') {
        return Ok(None);
    }
    // The one model that has such a type.
    let type_name = Subject::parse(subject).type_name;
    let models = open_models(jar, &[])?;
    let has_type = |model: &&JarModel| {
        models.opened.iter().any(|one| {
            one.model.name == model.name
                && one.modelled.settled.model.types().any(|(_, ty)| ty.name.in_capitals() == type_name)
        })
    };
    let with_type: Vec<&JarModel> = jar.models.iter().filter(has_type).collect();
    match &with_type[..] {
        [one] => Ok(Some(&one.name)),
        several => {
            let all: Vec<&JarModel> = jar.models.iter().collect();
            let candidates = if several.is_empty() { &all[..] } else { several };
            let names: Vec<&str> = candidates.iter().map(|model| model.name.as_str()).collect();
            let problem = Failure::argument(format!("which model's `{type_name}`?"), subject);
            Err(problem
                .with_help(format!(
                    "`--only` one of {}; a `*` in its name means all",
                    quoted_with("and", &names)
                ))
                .into())
        }
    }
}
