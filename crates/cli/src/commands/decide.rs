//! `jar-sprout decide`: one decision, written into the jar.

use std::path::Path;

use jar_sprout_model::Problem;
use jar_sprout_settle::{Subject, VERDICTS, Verdict};
use toml_edit::{Array, InlineTable, Value};

use crate::args::{DecideArgs, DecisionArgs};
use crate::exit::Exit;
use crate::failure::{Failure, Outcome};
use crate::jar::{
    FILE, Jar, JarModel, enter_jar, no_such_model, open_models, parse_jar, read_text, write_decision,
    write_jar,
};
use crate::report;
use crate::wording::quoted_with;

pub(crate) fn decide(args: &DecideArgs) -> Outcome<Exit> {
    let jar = enter_jar("jar-sprout decide")?;
    let DecideArgs { subject, what, only } = args;
    let keys = keys(what)?;
    let home = home(&jar, subject, only.as_deref())?;
    let text = write_decision(&read_text(Path::new(""))?, home, subject, &keys);
    // What would not be read back, or matches nothing, is not written.
    look_through(&parse_jar(&text)?, subject, home, what.undo)?;
    write_jar(&text)?;
    let place = home.map_or_else(String::new, |model| format!(" for {model}"));
    let done = if what.undo { "taken back" } else { "decided" };
    report::note(&format!("{done}{place}: {subject}; `jar-sprout grow` makes it so"));
    Ok(Exit::Well)
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

/// The keys of the decision with what they are set to; all of them without anything where it is taken back.
fn keys(what: &DecisionArgs) -> Result<Vec<(&'static str, Option<Value>)>, Problem> {
    let DecisionArgs {
        rename,
        ty,
        required,
        optional,
        nullable,
        never_null,
        default_value,
        leave_out,
        keep,
        same_as,
        split,
        create,
        update,
        server_made,
        cases,
        closed,
        describe,
        deprecated,
        undo,
    } = what;
    if *undo {
        return Ok(crate::jar::decision_keys().map(|key| (key, None)).collect());
    }
    let mut keys: Vec<(&'static str, Option<Value>)> = Vec::new();
    let mut set = |key, value: Option<Value>| keys.extend(value.map(|value| (key, Some(value))));
    let text = |text: &Option<String>| text.as_deref().map(Value::from);
    set("type", ty.as_deref().map(type_value).transpose()?);
    set("presence", (*required || *optional).then(|| if *required { "required" } else { "optional" }.into()));
    set("null", (*nullable || *never_null).then(|| (*nullable).into()));
    set("default", default_value.as_deref().map(default_of));
    set("leave-out", leave_out.then(|| true.into()));
    set("keep", (!keep.is_empty()).then(|| keep.iter().collect::<Array>().into()));
    set("same-as", text(same_as));
    set("split", text(split));
    set("create", text(create));
    set("update", text(update));
    set("server-made", (!server_made.is_empty()).then(|| server_made.iter().collect::<Array>().into()));
    set("cases", (!cases.is_empty()).then(|| case_names(cases)).transpose()?);
    set("closed", closed.then(|| true.into()));
    set("describe", text(describe));
    set("deprecated", deprecated.then(|| true.into()));
    set("rename", text(rename));
    Ok(keys)
}

/// A truth or a number where the text is one; a text in quotes is always a text.
fn default_of(typed: &str) -> Value {
    match serde_json::from_str::<serde_json::Value>(typed) {
        Ok(serde_json::Value::Bool(flag)) => flag.into(),
        Ok(serde_json::Value::Number(number)) => match (number.as_i64(), number.as_f64()) {
            (Some(whole), _) => whole.into(),
            (None, Some(float)) => float.into(),
            (None, None) => typed.into(),
        },
        Ok(serde_json::Value::String(text)) => text.into(),
        Ok(_) | Err(_) => typed.into(),
    }
}

/// A word for what a field is, or the values of an enum.
fn type_value(typed: &str) -> Result<Value, Problem> {
    if typed.contains(',') {
        return Ok(typed.split(',').map(str::trim).collect::<Array>().into());
    }
    if Verdict::parse(typed).is_some() {
        return Ok(typed.into());
    }
    let words: Vec<&str> = VERDICTS.iter().map(|(word, _)| *word).collect();
    Err(Failure::argument(format!("`{typed}` is nothing that a field can be"), format!("--type {typed}"))
        .with_help(format!(
            "there are {}; `[text]` for a list, `laying,caged` for an enum",
            quoted_with("and", &words)
        )))
}

fn case_names(cases: &[String]) -> Result<Value, Problem> {
    let mut table = InlineTable::new();
    for case in cases {
        let Some((value, name)) = case.rsplit_once('=') else {
            let problem = Failure::argument("a case is `VALUE=NAME`", format!("--case {case}"));
            return Err(problem.with_help(format!("such as `--case w=white`, in {FILE}")));
        };
        table.insert(value, name.into());
    }
    Ok(table.into())
}
