//! Requests: what was asked for, by arguments or by a jar, with all of it resolved.

use std::path::PathBuf;

use jar_sprout_model::Problem;
use jar_sprout_settle::{Decision, FIELD_WORDS, FieldVerdict, Policies, Subject, TypeVerdict, Verdict};

use crate::args::{ModelArgs, SourceArgs};
use crate::failure::Failure;

/// What is read.
#[derive(Debug, Clone, Default)]
pub(crate) struct Selection {
    /// Paths, globs, `-`, or a document with the part of it that is meant.
    pub(crate) sources: Vec<String>,
    /// The endpoint of a recording whose bodies are the samples.
    pub(crate) endpoint: Option<String>,
    /// The part of each sample that is taken, as JSONPath.
    pub(crate) at: Option<String>,
    /// The folder in which a document may refer to other files.
    pub(crate) refs_from: Option<PathBuf>,
    /// Whether comments and needless commas are read past.
    pub(crate) is_lenient: bool,
}

/// What a model is made of, and how.
#[derive(Debug, Clone, Default)]
pub(crate) struct Request {
    pub(crate) selection: Selection,
    /// The name of the root type, where it was given.
    pub(crate) name: Option<String>,
    pub(crate) policies: Policies,
    pub(crate) decisions: Vec<Decision>,
}

impl From<&SourceArgs> for Selection {
    fn from(args: &SourceArgs) -> Self {
        let SourceArgs { sources, endpoint, at, refs_from, lenient } = args.clone();
        Self { sources, endpoint, at, refs_from, is_lenient: lenient }
    }
}

/// Refuses what is said of samples that were not named: in a jar, `jar.toml` says it.
pub(crate) fn refuse_beside_jar(source: &SourceArgs, model: &ModelArgs) -> Result<(), Problem> {
    let SourceArgs { sources: _, endpoint, at, refs_from, lenient } = source;
    let ModelArgs { name, policies, decisions, renames, questions: _ } = model;
    let refuse = |option: String, help: String| Err(said_by_jar(option, &help));
    if let Some(endpoint) = endpoint {
        let help = "a source of its model, such as `session.har#GET /hives`";
        return refuse(format!("--endpoint '{endpoint}'"), help.to_owned());
    }
    if let Some(at) = at {
        return refuse(format!("--at {at}"), format!("`at = \"{at}\"` under its model"));
    }
    if *lenient {
        return refuse("--lenient".to_owned(), "`lenient = true` under its model".to_owned());
    }
    if let Some(folder) = refs_from {
        let folder = folder.display();
        return refuse(
            format!("--refs-from {folder}"),
            format!("`refs-from = \"{folder}\"` under its model"),
        );
    }
    if let Some(name) = name {
        return refuse(format!("--name {name}"), format!("`root = \"{name}\"` under its model"));
    }
    if let Some((key, value)) = policies.typed.first() {
        let value = value.to_string();
        return refuse(format!("--{key}"), format!("`{key} = {}` under [policies]", value.trim()));
    }
    match (decisions.first(), renames.first()) {
        (Some(decision), _) => {
            refuse(format!("--decide {decision}"), "`jar-sprout decide` writes decisions there".to_owned())
        }
        (None, Some(rename)) => {
            refuse(format!("--rename {rename}"), "`jar-sprout decide --rename` writes it there".to_owned())
        }
        (None, None) => Ok(()),
    }
}

/// The problem of an option that is for sources, where there are none.
pub(crate) fn said_by_jar(option: String, help: &str) -> Problem {
    let message = "without a source this command is about the jar, and jar.toml says this";
    Failure::argument(message, option).with_help(format!("{help}; or name a source"))
}

/// The problem of a setting that was typed, where the jar has the language.
pub(crate) fn setting_of_jar(typed: &str) -> Problem {
    let (key, value) = typed.split_once('=').unwrap_or((typed, ""));
    said_by_jar(format!("--with {typed}"), &format!("`{key} = \"{value}\"` under its language"))
}

impl Request {
    /// What was asked for by arguments.
    pub(crate) fn of(source: &SourceArgs, model: &ModelArgs) -> Result<Self, Problem> {
        let ModelArgs { name, policies, decisions, renames, questions: _ } = model;
        let decisions = decisions.iter().map(|text| decision(text));
        let renames = renames.iter().map(|text| rename(text));
        Ok(Self {
            selection: source.into(),
            name: name.clone(),
            policies: policies.policies.clone(),
            decisions: decisions.chain(renames).collect::<Result<_, _>>()?,
        })
    }
}

/// `Hive.img=imageUrl`; the key may have a `=` of its own.
fn rename(text: &str) -> Result<Decision, Problem> {
    let Some((subject, name)) = text.rsplit_once('=').filter(|(_, name)| !name.is_empty()) else {
        let problem = Failure::argument("another name is `TYPE.KEY=NAME`", format!("--rename {text}"));
        return Err(problem.with_help("such as `--rename Hive.img=imageUrl`"));
    };
    let (subject, name) = (Subject::parse(subject), name.to_owned());
    let verdict = match subject.key {
        Some(_) => FieldVerdict::Rename(name).into(),
        None => TypeVerdict::Rename(name).into(),
    };
    Ok(Decision { subject, verdict })
}

/// `Hive.honey_kg=float`; the key may have a `=` of its own.
fn decision(text: &str) -> Result<Decision, Problem> {
    let argument = || format!("--decide {text}");
    let Some((subject, word)) = text.rsplit_once('=') else {
        return Err(Failure::argument("a decision is `TYPE.KEY=WHAT`", argument())
            .with_help("such as `--decide Hive.honey_kg=float`"));
    };
    let subject = Subject::parse(subject);
    let Some(verdict) = Verdict::parse(&subject, word) else {
        if subject.key.is_none() {
            let message = format!("`{word}` is nothing that a type can be");
            return Err(Failure::argument(message, argument())
                .with_help("a type can be one with another, `--decide BillingAddress=Address`; its objects can be a `map`, a `record`, or told apart `by KEY`"));
        }
        let words: Vec<String> = FIELD_WORDS.iter().map(|(word, _)| format!("`{word}`")).collect();
        return Err(Failure::argument(format!("`{word}` is nothing that a field can be"), argument())
            .with_help(format!(
                "there are {}, `[text]` for a list, `{{text}}` for a map, and `by KEY` for objects of several kinds",
                words.join(", ")
            )));
    };
    Ok(Decision { subject, verdict })
}
