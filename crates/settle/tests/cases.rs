//! Samples and the models that a careful engineer expects of them, as data.
//!
//! A case is a file below `tests/cases`: a line `# what it shows`, a line with the name of the file the samples came
//! from, the samples (one a line, or one between blank lines), a line `=>`, and the model in the words of `sketch`.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]

mod sketch;

use std::fs;
use std::path::{Path, PathBuf};

use sketch::{settled, shape_of, sketch};

struct Case {
    path: PathBuf,
    file: String,
    samples: Vec<String>,
    /// What stands before the expected model.
    head: String,
    expected: String,
}

fn cases() -> Vec<Case> {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/cases");
    let mut paths: Vec<PathBuf> = fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path()).collect();
    paths.sort();
    assert!(paths.len() >= 60, "the cases were found");
    paths.into_iter().map(read).collect()
}

fn read(path: PathBuf) -> Case {
    let text = fs::read_to_string(&path).unwrap();
    let (given, expected) = text.split_once("\n=>\n").expect("a line `=>`");
    let mut lines = given.lines();
    assert!(
        lines.next().is_some_and(|line| line.starts_with("# ")),
        "{}: what does it show?",
        path.display()
    );
    let file = lines.next().expect("a file name").to_owned();
    let samples = lines.filter(|line| !line.trim().is_empty()).map(str::to_owned).collect();
    Case { file, samples, head: format!("{given}\n=>\n"), expected: expected.to_owned(), path }
}

#[test]
fn every_case_gives_the_expected_model() {
    let mut failures = Vec::new();
    for Case { path, file, samples, head, expected } in cases() {
        let came = sketch(&settled(&shape_of(samples.iter().map(String::as_str)), &file).model);
        if std::env::var_os("BLESS").is_some() {
            fs::write(&path, head + &came).unwrap();
        } else if came != expected {
            failures.push(format!("{}\nexpected\n{expected}came\n{came}", path.display()));
        }
    }
    assert!(failures.is_empty(), "{}", failures.join("\n"));
}

#[test]
fn the_order_of_samples_changes_nothing_but_the_order_of_keys() {
    if std::env::var_os("BLESS").is_some() {
        // The cases are being written.
        return;
    }
    for Case { path, file, samples, .. } in cases() {
        let sorted = |text: &str| {
            let mut words: Vec<String> =
                text.split([',', ' ', '\n', '|', '(', ')', '[', ']', '{', '}']).map(str::to_owned).collect();
            words.sort();
            words
        };
        let forth = sketch(&settled(&shape_of(samples.iter().map(String::as_str)), &file).model);
        let back = sketch(&settled(&shape_of(samples.iter().rev().map(String::as_str)), &file).model);
        assert_eq!(sorted(&forth), sorted(&back), "{}", path.display());
    }
}
