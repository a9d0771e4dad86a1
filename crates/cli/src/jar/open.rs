//! Opening a jar's models: samples read, decisions applied, what no longer matches told.

use std::path::{Path, PathBuf};

use jar_sprout_model::Problem;
use jar_sprout_settle::{Inferred, Lack, Miss, Subject};

use super::{FILE, Jar, JarDecision, JarModel, nearest_jar, read_jar};
use crate::failure::{Failure, Outcome, reason};
use crate::lock::{Lock, lock_jar};
use crate::modelling::{decided_model, not_found, unmatched_problem};
use crate::report;
use crate::source_names::SourceNames;
use crate::sources::{Gathered, gather};
use crate::wording::did_you_mean;

/// The most decisions without a match that are told one by one.
const FEW_UNMATCHED: usize = 20;

/// A model of a jar, made from its samples.
pub(crate) struct Opened<'j> {
    pub(crate) model: &'j JarModel,
    pub(crate) gathered: Gathered,
    pub(crate) modelled: Inferred,
    /// What its decisions asked for and did not find.
    unmatched: Vec<Miss>,
}

/// The models of a jar: those that could be made, and why others could not.
pub(crate) struct Models<'j> {
    pub(crate) opened: Vec<Opened<'j>>,
    pub(crate) failures: Vec<(&'j JarModel, Failure)>,
}

/// Goes to the nearest jar's folder and reads it; what is said of files is said from there.
pub(crate) fn enter_jar(command: &str) -> Outcome<Jar> {
    go_to_jar(command)?;
    read_jar(Path::new(""))
}

/// The same, alone: nobody else writes in the jar or grows from it until the lock goes.
pub(crate) fn enter_jar_alone(command: &str) -> Outcome<(Option<Lock>, Jar)> {
    go_to_jar(command)?;
    let lock = lock_jar()?;
    Ok((lock, read_jar(Path::new(""))?))
}

/// Goes to the nearest jar's folder, if there is one.
pub(crate) fn go_to_jar_there_is() -> Outcome<bool> {
    let Some(folder) = nearest_jar() else { return Ok(false) };
    std::env::set_current_dir(&folder).map_err(|error| Failure::path(reason(&error), &folder))?;
    Ok(true)
}

fn go_to_jar(command: &str) -> Outcome<()> {
    if !go_to_jar_there_is()? {
        let problem = Failure::argument("no source, and no jar.toml here or above", command);
        let help = "name a file, or make a jar: `jar-sprout init hives.json --into kotlin`";
        return Err(problem.with_help(help).into());
    }
    Ok(())
}

/// What was typed here, as it is called from any folder; standard input is that everywhere.
pub(crate) fn from_anywhere(typed: &str) -> PathBuf {
    let path = if typed == "-" { None } else { std::path::absolute(typed).ok() };
    path.unwrap_or_else(|| PathBuf::from(typed))
}

/// The same from the jar's folder, which we have entered.
pub(crate) fn from_jar(path: &Path) -> String {
    let here = std::env::current_dir().unwrap_or_default();
    path.strip_prefix(here).unwrap_or(path).to_string_lossy().into_owned()
}

/// The models of a jar, or those of these names; one that cannot be made does not hide the others.
pub(crate) fn open_models<'j>(jar: &'j Jar, only: &[String]) -> Outcome<Models<'j>> {
    let mut models = Models { opened: Vec::new(), failures: Vec::new() };
    for model in jar.named(only)? {
        match open(model) {
            Ok(opened) => models.opened.push(opened),
            Err(failure) => models.failures.push((model, failure)),
        }
    }
    Ok(models)
}

/// The problem of a name that no model of the jar has.
pub(crate) fn no_such_model(jar: &Jar, unknown: &str) -> Problem {
    let names: Vec<&str> = jar.models.iter().map(|model| model.name.as_str()).collect();
    Failure::argument(format!("the jar has no model `{unknown}`"), format!("--only {unknown}"))
        .with_help(did_you_mean(unknown, &names))
}

fn open(model: &JarModel) -> Outcome<Opened<'_>> {
    let gathered = gather(&model.request.selection)?;
    let decisions: Vec<_> = model.decisions.iter().map(|one| one.decision.clone()).collect();
    let (modelled, unmatched) = decided_model(&gathered, &model.request, &decisions);
    Ok(Opened { model, gathered, modelled, unmatched })
}

impl Models<'_> {
    /// Tells which models could not be made, and which decisions match nothing.
    pub(crate) fn tell_troubles(&self, jar: &Jar) {
        for (model, failure) in &self.failures {
            report::note(&format!("{}:", model.name));
            report::failure(failure);
        }
        let unmatched = self.unmatched(jar);
        for problem in unmatched.iter().take(FEW_UNMATCHED) {
            report::problem(problem, &SourceNames::default());
        }
        let more = unmatched.len().saturating_sub(FEW_UNMATCHED);
        if more > 0 {
            report::note(&format!(
                "and {more} more decisions that match nothing; `jar-sprout check` lists them"
            ));
        }
    }

    /// Whether a file grown for a model of this name, which nothing asks for now, is asked for no more: its model
    /// was made without it, or is not in the jar.
    pub(crate) fn is_over(&self, jar: &Jar, name: &str) -> bool {
        let is_made = self.opened.iter().any(|one| one.model.name == name);
        is_made || jar.models.iter().all(|model| model.name != name)
    }

    /// What is wrong with the decisions on one subject, if something is in every model, or in the one it is for.
    pub(crate) fn unmatched_of(&self, subject: &Subject, home: Option<&str>) -> Option<Problem> {
        let meant = self.opened.iter().filter(|one| home.is_none_or(|home| one.model.name == home));
        let misses = meant.map(|one| one.unmatched.iter().find(|miss| miss.subject == *subject));
        let misses: Option<Vec<&Miss>> = misses.collect();
        Some(not_found(&miss_of_all(&misses?)?, subject.to_string()))
    }

    /// The decisions that match nothing any more. One for all models must match something in one of them, which
    /// only shows when all of them are there.
    pub(crate) fn unmatched(&self, jar: &Jar) -> Vec<Problem> {
        let mut problems = Vec::new();
        for Opened { model, unmatched, .. } in &self.opened {
            for one in unmatched {
                if model.decisions.iter().any(|decision| !decision.is_shared && asks(decision, one)) {
                    problems
                        .push(unmatched_problem(one, format!("{FILE}, [models.{}.decisions]", model.name)));
                }
            }
        }
        let shared = self.opened.first().map_or(&[][..], |first| &first.model.decisions);
        for decision in shared.iter().filter(|one| one.is_shared) {
            let misses: Vec<&Miss> = self
                .opened
                .iter()
                .filter_map(|one| one.unmatched.iter().find(|unmatched| asks(decision, unmatched)))
                .collect();
            if let Some(miss) = miss_of_all(&misses).filter(|_| misses.len() == jar.models.len()) {
                problems.push(unmatched_problem(&miss, format!("{FILE}, [decisions]")));
            }
        }
        problems
    }
}

fn asks(decision: &JarDecision, miss: &Miss) -> bool {
    miss.subject == decision.decision.subject
}

/// What several models lack: the first one's word for it, with what there is in any.
fn miss_of_all(misses: &[&Miss]) -> Option<Miss> {
    let mut all = (*misses.first()?).clone();
    for miss in &misses[1..] {
        let more = match &miss.lack {
            Lack::Type { known, .. } | Lack::Field { known } | Lack::Part { known, .. } => known.clone(),
            Lack::Enum
            | Lack::Fields
            | Lack::Record { .. }
            | Lack::OneCase { .. }
            | Lack::Kinds
            | Lack::NamedType
            | Lack::Room { .. }
            | Lack::Rest
            | Lack::Evidence
            | Lack::Samples
            | Lack::Objects
            | Lack::JsonTexts
            | Lack::FewerKeys
            | Lack::Tag { .. } => Vec::new(),
        };
        if let Lack::Type { known, .. } | Lack::Field { known } | Lack::Part { known, .. } = &mut all.lack {
            known.extend(more);
        }
    }
    Some(all)
}
