//! `jar-sprout decide`: decisions, written into the jar.

use std::path::Path;

use jar_sprout_model::{Problem, Spot};
use jar_sprout_settle::{Misfit, Subject};
use toml_edit::Value;

use crate::args::DecideArgs;
use crate::exit::Exit;
use crate::failure::{Failure, Outcome};
use crate::jar::{
    Jar, Models, decided_in, enter_jar_alone, no_such_model, open_models, parse_jar, read_text,
    write_decision, write_jar,
};
use crate::modelling::{are_many, compared, show_misfits};
use crate::report;
use crate::sources::located_samples;
use crate::wording::{did_you_mean, quoted_with};

/// What a decision sets, and takes back where it says nothing.
type Keys = [(&'static str, Option<Value>)];

pub(crate) fn decide(args: &DecideArgs) -> Outcome<Exit> {
    let (_lock, jar) = enter_jar_alone("jar-sprout decide")?;
    let DecideArgs { subjects, what, only } = args;
    if let Some(unknown) = only.as_ref().filter(|only| jar.models.iter().all(|model| model.name != **only)) {
        return Err(no_such_model(&jar, unknown).into());
    }
    let keys = what.keys()?;
    let old = read_text(Path::new(""))?;
    if what.undo {
        return take_back(&old, subjects, &keys, only.as_deref());
    }
    // Samples are read for what the decision needs, and no more: they may be many.
    let several = if jar.models.len() > 1 && only.is_none() { Some(open_models(&jar, &[])?) } else { None };
    let mut text = old.clone();
    let mut homes = Vec::new();
    for subject in subjects {
        let home = match &several {
            Some(models) => home(&jar, models, subject)?,
            None => only.as_deref(),
        };
        text = write_decision(&text, home, subject, &keys);
        homes.push((subject, home));
    }
    // What would not be read back, or matches nothing, is not written.
    let decided = parse_jar(&text).map_err(|failure| as_typed(failure, &subjects.join(" ")))?;
    let mut after = open_models(&decided, only.as_slice())?;
    if let Some((_, failure)) = after.failures.pop() {
        return Err(failure);
    }
    for (subject, home) in &homes {
        if let Some(problem) = after.unmatched_of(&Subject::parse(subject), *home) {
            return Err(problem.into());
        }
    }
    write_jar(&text)?;
    for (subject, home) in homes {
        let place = home.map_or_else(String::new, |model| format!(" for {model}"));
        report::note(&format!("decided{place}: {subject}; `jar-sprout grow` makes it so"));
    }
    tell_kept_keys(&decided, subjects, &keys);
    tell_contradictions(&jar, &decided, &after)?;
    Ok(Exit::Well)
}

/// Says where another name of a field changes nothing.
fn tell_kept_keys(jar: &Jar, subjects: &[String], keys: &Keys) {
    let is_renamed = keys.iter().any(|(key, _)| *key == "rename")
        && subjects.iter().any(|subject| Subject::parse(subject).key.is_some());
    let languages = jar.languages.iter().filter(|one| is_renamed && one.language.keeps_keys());
    for language in languages {
        report::note(&format!("  {} keeps the keys of the wire as names", language.language.title()));
    }
}

/// Takes back all that was decided of these subjects, each where it stands.
fn take_back(old: &str, subjects: &[String], keys: &Keys, only: Option<&str>) -> Outcome<Exit> {
    let mut text = old.to_owned();
    let mut done = Vec::new();
    for subject in subjects {
        let places: Vec<_> =
            decided_in(&text).into_iter().filter(|(_, decided)| decided == subject).collect();
        let is_meant = |home: &Option<String>| only.is_none_or(|only| home.as_deref() == Some(only));
        let home = match &places
            .iter()
            .map(|(home, _)| home)
            .filter(|home| is_meant(home))
            .collect::<Vec<_>>()[..]
        {
            [] if !places.is_empty() => {
                let elsewhere = places.iter().filter_map(|(home, _)| home.as_deref()).collect::<Vec<_>>();
                let help = match elsewhere.is_empty() {
                    true => "it was decided for all models: leave out `--only`".to_owned(),
                    false => format!("it was decided for {}", quoted_with("and", &elsewhere)),
                };
                return Err(Failure::argument("nothing was decided of it there", subject)
                    .with_help(help)
                    .into());
            }
            [] => {
                let known: Vec<String> = decided_in(&text).into_iter().map(|(_, decided)| decided).collect();
                let problem = Failure::argument("nothing was decided of it", subject);
                return Err(match known.is_empty() {
                    true => problem.with_help("the jar has no decisions"),
                    false => problem.with_help(did_you_mean(
                        subject,
                        &known.iter().map(String::as_str).collect::<Vec<_>>(),
                    )),
                }
                .into());
            }
            // What is for all stands there once; what is for one, under its name.
            [home] => (*home).clone(),
            several if several.contains(&&None) => None,
            several => {
                let names: Vec<&str> = several.iter().filter_map(|home| home.as_deref()).collect();
                let help = format!("`--only` one of {}", quoted_with("and", &names));
                let problem = Failure::argument("it was decided for more than one model", subject);
                return Err(problem.with_help(help).into());
            }
        };
        text = write_decision(&text, home.as_deref(), subject, keys);
        done.push((subject, home));
    }
    parse_jar(&text).map_err(|failure| as_typed(failure, &subjects.join(" ")))?;
    write_jar(&text)?;
    for (subject, home) in done {
        let place = home.map_or_else(String::new, |model| format!(" for {model}"));
        report::note(&format!("taken back{place}: {subject}; `jar-sprout grow` makes it so"));
    }
    Ok(Exit::Well)
}

/// Says what samples contradict now, and did not before.
fn tell_contradictions(old: &Jar, new: &Jar, after: &Models<'_>) -> Outcome<()> {
    for opened in after.opened.iter().filter(|opened| !are_many(&opened.gathered)) {
        let samples = located_samples(&opened.model.request.selection)?;
        let (mut misfits, _) = compared(&opened.modelled, &samples);
        if misfits.is_empty() {
            continue;
        }
        let before = open_models(old, std::slice::from_ref(&opened.model.name))?;
        let known = before.opened.iter().flat_map(|one| compared(&one.modelled, &samples).0);
        let known: Vec<Misfit> = known.map(|(_, misfit)| misfit).collect();
        misfits.retain(|(_, misfit)| !known.contains(misfit));
        show_misfits(&misfits, new.home(opened.model));
    }
    Ok(())
}

/// What is wrong with a jar that was right before: not a line of it, but what was typed.
fn as_typed(failure: Failure, typed: &str) -> Failure {
    match failure {
        Failure::Problem(problem, _) => {
            Problem { spot: Spot::Argument(typed.to_owned()), excerpt: None, ..*problem }.into()
        }
        output => output,
    }
}

/// The one of several models whose decision it is; none where it is for all.
fn home<'j>(jar: &'j Jar, models: &Models<'j>, subject: &str) -> Result<Option<&'j str>, Problem> {
    if subject.contains('*') {
        return Ok(None);
    }
    // The one model that has such a type.
    let type_name = Subject::parse(subject).type_name;
    let has_type = models
        .opened
        .iter()
        .filter(|one| one.modelled.settled.model.types().any(|(_, ty)| ty.name.in_capitals() == type_name));
    let with_type: Vec<&str> = has_type.map(|one| one.model.name.as_str()).collect();
    if let [one] = with_type[..] {
        return Ok(Some(one));
    }
    let all = || jar.models.iter().map(|model| model.name.as_str()).collect();
    let names = if with_type.is_empty() { all() } else { with_type };
    let problem = Failure::argument(format!("which model's `{type_name}`?"), subject);
    let help = format!("`--only` one of {}; a `*` in its name means all", quoted_with("and", &names));
    Err(problem.with_help(help))
}
