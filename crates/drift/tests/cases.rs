//! Pairs of models and what changed between them, as data.
//!
//! A case is a file below `tests/cases`: a line `# what it shows`, a line with the name of the root, the old samples, one a
//! line, or `schema` and a JSON Schema; a line `---` and the new ones; a line `=>`, and what changed.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]

#[path = "../../settle/tests/by_case/mod.rs"]
mod by_case;
mod sides;

use std::collections::BTreeSet;
use std::fs;
use std::path::Path;
use std::process::ExitCode;

use by_case::{compare, run_cases};
use sides::{Made, drifted, line, made};

fn read(path: &Path) -> (Made, Made, String, String) {
    let text = fs::read_to_string(path).unwrap();
    let (given, expected) = text.split_once("\n=>\n").expect("a line `=>`");
    let mut lines = given.splitn(3, '\n');
    assert!(lines.next().is_some_and(|line| line.starts_with("# ")), "what does it show?");
    let name = lines.next().expect("a name");
    let (old, new) = lines.next().and_then(|rest| rest.split_once("\n---\n")).expect("a line `---`");
    (made(old, name), made(new, name), format!("{given}\n=>\n"), expected.to_owned())
}

fn finds_what_is_expected(path: &Path) -> Result<(), String> {
    let (old, new, head, expected) = read(path);
    let came: String = drifted(&old, &new).iter().map(|one| line(one, &old.model, &new.model)).collect();
    compare(path, &head, &expected, &came)
}

/// Back, the same places have changed.
fn names_the_same_places_back(path: &Path) -> Result<(), String> {
    let (old, new, _, _) = read(path);
    let places = |old: &Made, new: &Made| -> BTreeSet<String> {
        drifted(old, new).iter().map(|finding| finding.at.to_string()).collect()
    };
    let (forth, back) = (places(&old, &new), places(&new, &old));
    if forth == back { Ok(()) } else { Err(format!("forth\n{forth:?}\nback\n{back:?}")) }
}

/// Nothing changed from a model to itself.
fn finds_nothing_in_itself(path: &Path) -> Result<(), String> {
    let (old, new, _, _) = read(path);
    for side in [&old, &new] {
        let found = drifted(side, side);
        if !found.is_empty() {
            return Err(format!("{found:?}"));
        }
    }
    Ok(())
}

fn main() -> ExitCode {
    run_cases(
        &Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/cases"),
        &[
            ("", finds_what_is_expected),
            ("back_", names_the_same_places_back),
            ("itself_", finds_nothing_in_itself),
        ],
    )
}
