//! The official test suite of JSON Schema as a source of documents: every schema of it becomes a model that compiles,
//! and what the suite calls valid can be read, or a warning says why not.
//!
//! `toolchains/install` gets it. Without it the test says so and passes; where `CI` is set it fails.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]

mod skip;

use std::fmt::Write as _;
use std::fs;
use std::path::{Path, PathBuf};

use jar_sprout_document::{Drafted, Library, NoFiles, draft_document};
use jar_sprout_grow::{Settings, find_language};
use jar_sprout_model::{Model, Words};
use jar_sprout_prove::{Missing, Order, Proof, Report, Tools, prove};
use jar_sprout_settle::{Policies, misfits, settle_document};
use serde_json::Value;
use skip::skip;

/// The folders of the suite, and what a schema of each says that it is.
const DRAFTS: &[(&str, &str)] = &[
    ("draft4", "http://json-schema.org/draft-04/schema#"),
    ("draft6", "http://json-schema.org/draft-06/schema#"),
    ("draft7", "http://json-schema.org/draft-07/schema#"),
    ("draft2019-09", "https://json-schema.org/draft/2019-09/schema"),
    ("draft2020-12", "https://json-schema.org/draft/2020-12/schema"),
];

/// What a model does not claim to cover, by the test's description or its group's, and why.
const BEYOND: &[(&str, &str)] = &[
    ("ignores", "a schema that says `properties` and no `type` is taken for one of objects"),
    ("ignore ", "a schema that says `format` and no `type` is taken for one of texts"),
    (
        "JavaScript pseudo-array is valid",
        "a schema that says `items` and no `type` is taken for one of lists",
    ),
    ("root pointer ref", "the same, one level deeper"),
    ("simple URN base URI with $ref via the URN", "the same"),
    ("a float with zero fractional part is an integer", "`1.0` is no integer to a language's integer type"),
    ("float zero is valid", "the same"),
    ("float one is valid", "the same"),
    ("float is valid", "the same"),
    ("dynamic-ref-leaving-dynamic-scope", "what a scope left behind is still in force"),
    ("after leaving a dynamic scope", "the same"),
    ("$ref prevents a sibling", "an `id` beside a reference is heard before 2019-09 as well"),
    (
        "$recursiveRef",
        "a schema that says `properties` and no `type`, or another that a user may put in its place",
    ),
    ("is only an annotation by default", "`format` is heard: a text without it is not decoded"),
];

/// Schemas that say nothing of JSON: they refer to a vocabulary that says what they mean.
const NOT_DESCRIBING: &[&str] = &["vocabulary"];

/// One schema of the suite.
struct Case {
    name: String,
    model: Model,
    /// What the suite calls valid.
    valid: Vec<(String, Value)>,
    /// Whether a warning says that not all of it is heard.
    is_warned: bool,
}

fn home() -> PathBuf {
    Tools::of_this_machine().home().join("json-schema/tests")
}

fn cases() -> Vec<Case> {
    let mut cases = Vec::new();
    for (draft, uri) in DRAFTS {
        let files = fs::read_dir(home().join(draft)).unwrap().map(|file| file.unwrap().path());
        let mut files: Vec<PathBuf> = files.filter(|path| path.is_file()).collect();
        files.sort();
        for file in files {
            let stem = file.file_stem().unwrap().to_str().unwrap().to_owned();
            let groups: Vec<Value> = serde_json::from_str(&fs::read_to_string(&file).unwrap()).unwrap();
            let case = |(at, group): (usize, &Value)| case(&format!("{draft} {stem} {at}"), uri, group);
            cases.extend(groups.iter().enumerate().filter_map(case));
        }
    }
    cases
}

fn case(name: &str, uri: &str, group: &Value) -> Option<Case> {
    let mut schema = group["schema"].clone();
    if let Some(object) = schema.as_object_mut() {
        object.entry("$schema").or_insert_with(|| uri.into());
    }
    let said = group["description"].as_str().unwrap();
    let Ok(library) = Library::gather("case.json", &schema.to_string(), &NoFiles) else {
        assert!(NOT_DESCRIBING.iter().any(|known| name.contains(known)), "{name} {said} is no document");
        return None;
    };
    let Drafted { draft, roots, title, problems, .. } =
        draft_document(&library, "case.json", &[], &Words::split("case"));
    let model = settle_document(&draft, &roots, title.as_ref(), &Policies::default()).model;
    let tests = group["tests"].as_array().unwrap().iter().filter(|test| test["valid"] == true);
    let valid = tests
        .map(|test| (format!("{said}: {}", test["description"].as_str().unwrap()), test["data"].clone()));
    Some(Case { name: name.to_owned(), model, valid: valid.collect(), is_warned: !problems.is_empty() })
}

#[test]
fn what_is_valid_fits() {
    if !home().exists() {
        return skip("json-schema", "the test suite of JSON Schema", "toolchains/install");
    }
    let mut wrong = Vec::new();
    let mut pardoned = String::new();
    let (mut fitting, mut beyond) = (0, 0);
    for Case { name, model, valid, is_warned } in cases() {
        for (said, value) in valid {
            let found = misfits(&model, &value);
            match found.first() {
                None => fitting += 1,
                Some(_) if BEYOND.iter().any(|(known, _)| said.contains(known)) => beyond += 1,
                Some(_) if is_warned => {
                    beyond += 1;
                    writeln!(pardoned, "{name}, {said}").unwrap();
                }
                Some(misfit) => wrong.push(format!("{name}, {said}: {value} -> {misfit:?}")),
            }
        }
    }
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
    assert!(fitting > 2000 && beyond * 3 < fitting, "{fitting} fit, {beyond} are beyond the models");
    // A warning pardons what is listed, and nothing else.
    let list = Path::new(env!("JAR_SPROUT_ROOT")).join("crates/prove/tests/suite.pardoned");
    if std::env::var_os("BLESS").is_some() {
        fs::write(&list, &pardoned).unwrap();
    }
    let expected = fs::read_to_string(&list).unwrap();
    let differs: Vec<&str> = pardoned
        .lines()
        .filter(|line| expected.lines().all(|known| known != *line))
        .chain(expected.lines().filter(|known| pardoned.lines().all(|line| line != *known)))
        .collect();
    assert!(
        differs.is_empty(),
        "pardoned and not listed, or listed and not pardoned:\n{}",
        differs.join("\n")
    );
}

/// Compiles the models of all schemas in a language, in one call.
#[track_caller]
fn compiles(key: &str) {
    if !home().exists() {
        return skip("json-schema", "the test suite of JSON Schema", "toolchains/install");
    }
    let language = find_language(key).unwrap();
    let proof = |case: Case| Proof { name: case.name, model: case.model, samples: Vec::new() };
    let proofs: Vec<Proof> = cases().into_iter().map(proof).collect();
    assert!(proofs.len() > 1300, "the suite was found");
    let settings = Settings::default();
    let order = Order { language, settings: &settings, with_judges: false, is_shared: false, memory: None };
    match prove(&order, &proofs, &Tools::of_this_machine()).unwrap() {
        Err(Missing { what, install }) => skip(key, &what, &install),
        Ok(Report { compiler, .. }) => {
            let said: Vec<&str> = compiler.iter().map(|said| said.text.as_str()).collect();
            assert!(said.is_empty(), "{}", said.join("\n"));
        }
    }
}

#[test]
fn every_schema_compiles_in_typescript() {
    compiles("typescript");
}

#[test]
fn every_schema_compiles_in_go() {
    compiles("go");
}

#[test]
fn every_schema_compiles_in_java() {
    compiles("java");
}
