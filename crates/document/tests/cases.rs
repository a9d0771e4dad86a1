//! Documents and the models that a careful engineer expects of them, as data.
//!
//! A case is a file below `tests/cases`: a line `# what it shows`, the document, a line `=>`, the model in the words of
//! `sketch`, and the warnings with their places.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]

#[path = "../../settle/tests/by_case/mod.rs"]
mod by_case;
#[path = "../../settle/tests/sketch/model.rs"]
mod sketch;

use std::fs;
use std::path::Path;
use std::process::ExitCode;

use by_case::{compare, run_cases};

use jar_sprout_document::{Drafted, Library, NoFiles, draft_document};
use jar_sprout_model::{Problem, Spot, Words};
use jar_sprout_settle::{Policies, settle_document};
use sketch::sketch;

/// What comes of a document: its model, and a line for each warning.
fn outcome(text: &str) -> String {
    let library = match Library::gather("hive.yaml", text, &NoFiles) {
        Ok(library) => library,
        Err(fault) => return format!("error: {}\n", fault.message),
    };
    let Drafted { draft, roots, title, problems, .. } =
        draft_document(&library, "", &[], &Words::split("hive"));
    if roots.is_empty() {
        return "nothing\n".to_owned();
    }
    let model = settle_document(&draft, &roots, title.as_ref(), &Policies::default()).model;
    let line = |Problem { message, spot, .. }: &Problem| {
        let Spot::Path(place) = spot else { panic!("a warning has a place") };
        format!("{place} {message}\n")
    };
    sketch(&model) + &problems.iter().map(line).collect::<String>()
}

fn gives_the_expected_model(path: &Path) -> Result<(), String> {
    let text = fs::read_to_string(path).unwrap();
    let (given, expected) = text.split_once("\n=>\n").expect("a line `=>`");
    assert!(given.starts_with("# "), "what does it show?");
    compare(path, &format!("{given}\n=>\n"), expected, &outcome(given))
}

fn main() -> ExitCode {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/cases");
    run_cases(&folder, &[("", gives_the_expected_model)])
}
