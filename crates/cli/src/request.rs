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
    /// The part of each sample that is taken, as JSONPath.
    pub(crate) at: Option<String>,
    /// The folder in which a document may refer to other files.
    pub(crate) refs_from: Option<PathBuf>,
}

/// What a model is made of, and how.
#[derive(Debug, Clone)]
pub(crate) struct Request {
    pub(crate) selection: Selection,
    /// The name of the root type, where it was given.
    pub(crate) name: Option<String>,
    pub(crate) policies: Policies,
    pub(crate) decisions: Vec<Decision>,
}

impl From<&SourceArgs> for Selection {
    fn from(args: &SourceArgs) -> Self {
        let SourceArgs { sources, at, refs_from } = args.clone();
        Self { sources, at, refs_from }
    }
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
            policies: policies.0.clone(),
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
                .with_help("a type can be one with another: `--decide BillingAddress=Address`"));
        }
        let words: Vec<String> = FIELD_WORDS.iter().map(|(word, _)| format!("`{word}`")).collect();
        return Err(Failure::argument(format!("`{word}` is nothing that a field can be"), argument())
            .with_help(format!("there are {}, and `[text]` for a list", words.join(", "))));
    };
    Ok(Decision { subject, verdict })
}
