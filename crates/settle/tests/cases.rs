//! Samples and the models that a careful engineer expects of them, as data.
//!
//! A case is a file below `tests/cases`: a line `# what it shows`, a line with the name of the file the samples came
//! from, the samples (one a line, or one between blank lines), a line `=>`, and the model in the words of `sketch`.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]

mod by_case;
mod sketch;

use std::fs;
use std::path::Path;
use std::process::ExitCode;

use by_case::{compare, is_blessing, run_cases};
use jar_sprout_settle::{Decision, Misfit, Settling, TypeVerdict, Verdict, misfits, open_questions};
use serde_json::Value;
use sketch::{decided, settled, settled_with_draft, shape_of, sketch};

struct Case {
    file: String,
    samples: Vec<String>,
    /// What stands before the expected model.
    head: String,
    expected: String,
}

fn read(path: &Path) -> Case {
    let text = fs::read_to_string(path).unwrap();
    let (given, expected) = text.split_once("\n=>\n").expect("a line `=>`");
    let mut lines = given.lines();
    assert!(lines.next().is_some_and(|line| line.starts_with("# ")), "what does it show?");
    let file = lines.next().expect("a file name").to_owned();
    let samples = lines.filter(|line| !line.trim().is_empty()).map(str::to_owned).collect();
    Case { file, samples, head: format!("{given}\n=>\n"), expected: expected.to_owned() }
}

fn model<'s>(samples: impl IntoIterator<Item = &'s String>, file: &str) -> String {
    sketch(&settled(&shape_of(samples.into_iter().map(String::as_str)), file).model)
}

fn gives_the_expected_model(path: &Path) -> Result<(), String> {
    let Case { file, samples, head, expected } = read(path);
    compare(path, &head, &expected, &model(&samples, &file))
}

/// The order of samples changes nothing but the order of keys.
fn is_the_same_in_any_order(path: &Path) -> Result<(), String> {
    if is_blessing() {
        // The cases are being written.
        return Ok(());
    }
    let Case { file, samples, .. } = read(path);
    let sorted = |text: &str| {
        let mut words: Vec<String> =
            text.split([',', ' ', '\n', '|', '(', ')', '[', ']', '{', '}']).map(str::to_owned).collect();
        words.sort();
        words
    };
    let (forth, back) = (model(&samples, &file), model(samples.iter().rev(), &file));
    if sorted(&forth) == sorted(&back) { Ok(()) } else { Err(format!("forth\n{forth}\nback\n{back}")) }
}

/// What is suggested fits what was seen, each suggestion alone and all of them together.
fn can_follow_all_suggestions(path: &Path) -> Result<(), String> {
    let Case { file, samples, .. } = read(path);
    let shape = shape_of(samples.iter().map(String::as_str));
    let (settled, drafted) = settled_with_draft(&shape, &file);
    let questions = open_questions(&drafted, &settled, samples.len() as u64);
    let all: Vec<Decision> = questions.iter().filter_map(|question| decision(&question.settle)).collect();
    let values: Vec<Value> = samples.iter().map(|sample| serde_json::from_str(sample).unwrap()).collect();
    all.chunks(1).chain([&all[..]]).try_for_each(|decisions| {
        let (settled, misses) = decided(&shape, &file, decisions);
        let misfits: Vec<Misfit> = values.iter().flat_map(|value| misfits(&settled.model, value)).collect();
        if misses.is_empty() && misfits.is_empty() {
            return Ok(());
        }
        Err(format!(
            "{decisions:#?}: {misses:#?} {}",
            misfits.iter().map(|one| format!("{one}\n")).collect::<String>()
        ))
    })
}

fn decision(settling: &Settling) -> Option<Decision> {
    match settling.clone() {
        Settling::TrustNothing => None,
        Settling::Field(subject, verdict) => Some(Decision { subject, verdict: Verdict::Field(verdict) }),
        Settling::Structure(subject, structure) => {
            Some(Decision { subject, verdict: Verdict::Type(TypeVerdict::Structure(structure)) })
        }
        Settling::SameAs(subject, other) => {
            Some(Decision { subject, verdict: Verdict::Type(TypeVerdict::SameAs(other)) })
        }
    }
}

fn main() -> ExitCode {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/cases");
    run_cases(
        &folder,
        &[
            ("", gives_the_expected_model),
            ("in_any_order_", is_the_same_in_any_order),
            ("suggestions_", can_follow_all_suggestions),
        ],
    )
}
