//! Every language carries the demo's samples, all cases of inference, and data made to be awkward.
//!
//! `toolchains/install` gets the compilers. Without one the proof says so and passes; where `CI` is set it fails.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]

use std::fs;
use std::io::Write;
use std::path::{Path, PathBuf};

use jar_sprout_grow::{Settings, find_language};
use jar_sprout_model::{Model, SourceId, Words};
use jar_sprout_prove::{Missing, Order, Proof, Report, Said, Sample, Tools, prove};
use jar_sprout_settle::{Policies, RootName, draft_shape, root_name, settle};
use jar_sprout_shape::{Shape, observe};

fn here() -> &'static Path {
    Path::new(env!("CARGO_MANIFEST_DIR"))
}

/// All that every language must carry.
fn proofs() -> Vec<Proof> {
    let mut proofs = from_folder(&here().join("../cli/demo"));
    proofs.extend(from_folder(&here().join("tests/awkward")));
    let cases = from_cases(&here().join("../settle/tests/cases"));
    assert!(proofs.len() >= 15 && cases.len() >= 60, "the samples were found");
    proofs.extend(cases);
    proofs
}

fn files_of(folder: &Path) -> Vec<PathBuf> {
    let mut files: Vec<_> = fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path()).collect();
    files.sort();
    files
}

fn stem(path: &Path) -> String {
    path.file_stem().unwrap().to_str().unwrap().to_owned()
}

/// A model for each file; files that differ only in their number are samples of the same thing.
fn from_folder(folder: &Path) -> Vec<Proof> {
    let thing =
        |path: &Path| stem(path).trim_end_matches(|c: char| c.is_ascii_digit() || c == '-').to_owned();
    let of_group = |group: &[PathBuf]| {
        let lines = group[0].extension().is_some_and(|extension| extension == "ndjson");
        let split = |text: String| -> Vec<String> {
            if lines { text.lines().map(str::to_owned).collect() } else { vec![text] }
        };
        let samples: Vec<String> =
            group.iter().flat_map(|path| split(fs::read_to_string(path).unwrap())).collect();
        let stems: Vec<String> = group.iter().map(|path| stem(path)).collect();
        proof(&thing(&group[0]), samples, root_name(stems.iter().map(String::as_str), None))
    };
    files_of(folder).chunk_by(|a, b| thing(a) == thing(b)).map(of_group).collect()
}

/// The samples of the cases of inference: a line that says what a case shows, the name of its file, samples, `=>`.
fn from_cases(folder: &Path) -> Vec<Proof> {
    let of_case = |path: PathBuf| {
        let text = fs::read_to_string(&path).unwrap();
        let (given, _) = text.split_once("\n=>\n").unwrap();
        let mut lines = given.lines().skip(1).filter(|line| !line.trim().is_empty());
        let words = root_name([lines.next().unwrap()], None);
        proof(&stem(&path), lines.map(str::to_owned).collect(), words)
    };
    files_of(folder).into_iter().map(of_case).collect()
}

fn proof(name: &str, samples: Vec<String>, words: Words) -> Proof {
    let model = model(&samples, words);
    let sample = |(number, text)| Sample { name: format!("{name}-{number}"), text };
    // A null at the root is for whoever holds the value.
    let samples = samples.into_iter().filter(|text| text.trim() != "null");
    Proof { name: name.to_owned(), model, samples: samples.enumerate().map(sample).collect() }
}

fn model(samples: &[String], words: Words) -> Model {
    let mut shape = Shape::default();
    for (source, text) in (0..).map(SourceId).zip(samples) {
        observe(text.as_bytes(), source, &mut shape).expect("the sample is JSON");
    }
    let policies = Policies::default();
    let drafted = draft_shape(&shape, &words, &policies);
    settle(&drafted.draft, drafted.root, &RootName { words, is_given: false }, &policies).model
}

/// What the names of proofs start with whose own names no linter likes.
const ODD: &[&str] = &["odd-", "torture-", "names-foreign"];

/// Proves a language with these settings, in one call of its compiler.
#[track_caller]
fn check(key: &str, settings: &[(&str, &str)]) {
    let language = find_language(key).unwrap();
    let mut given = Settings::default();
    for (key, value) in settings {
        given.set(language, key, value).unwrap();
    }
    // Names that no one would choose are compiled, but their lines are not judged for beauty.
    let is_odd = |proof: &String| ODD.iter().any(|odd| proof.starts_with(odd));
    let judged = |proofs: &[String]| proofs.iter().any(|proof| !is_odd(proof));
    let order = Order { language, settings: &given, with_judges: true };
    match prove(&order, &proofs(), &Tools::of_this_machine()).unwrap() {
        Err(Missing { what, install }) => skip(key, &what, &install),
        Ok(Report { toolchain: _, compiler, samples, misses, judges }) => {
            let said = |said: &Said| format!("{} of {}:\n{}", said.tool, said.proofs.join(", "), said.text);
            let judges: Vec<&Said> =
                judges.iter().filter(|said| said.proofs.is_empty() || judged(&said.proofs)).collect();
            let said: Vec<String> = compiler.iter().chain(judges).map(said).collect();
            assert!(said.is_empty(), "{}", said.join("\n\n"));
            assert!(misses.is_empty(), "{misses:#?}");
            assert!(samples > 0);
        }
    }
}

/// Says that a proof was skipped, or fails where `CI` is set.
fn skip(key: &str, what: &str, install: &str) {
    let message = format!("no proof of {key}: {what} is missing; {install}");
    assert!(std::env::var_os("CI").is_none(), "{message}");
    // Not by a printing macro, whose output the test runner keeps to itself; and in one piece.
    let line = format!("\nPROOF SKIPPED: {message}\n\n");
    std::io::stderr().write_all(line.as_bytes()).expect("standard error takes a line");
}

#[test]
fn csharp() {
    check("csharp", &[]);
}

#[test]
fn csharp_with_newtonsoft() {
    check("csharp", &[("library", "newtonsoft")]);
}

#[test]
fn csharp_of_level_seven() {
    check("csharp", &[("library", "newtonsoft"), ("level", "7.3")]);
}

#[test]
fn dart() {
    check("dart", &[]);
}

#[test]
fn go() {
    check("go", &[]);
}

#[test]
fn java() {
    check("java", &[]);
}

#[test]
fn kotlin() {
    check("kotlin", &[]);
}

#[test]
fn python() {
    check("python", &[]);
}

#[test]
fn rust() {
    check("rust", &[]);
}

#[test]
fn typescript() {
    check("typescript", &[]);
}
