//! What the strictest judges of each language say of code grown with every setting: nothing.
//!
//! `toolchains/install` gets them. Without one the test says so and passes; where `CI` is set it fails.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]

mod common;
mod skip;

use jar_sprout_grow::{Language, Settings, find_language};
use jar_sprout_prove::{Exhibit, Missing, Proof, ToolOutput, Tools, judge};
use skip::skip;

/// What the names of proofs start with whose own names no judge likes.
const ODD: &[&str] = &["odd-", "torture-", "names-foreign", "clashes", "shadows", "words", "limits"];

/// What is grown with each setting; with those that hold it is everything.
const FEW: &[&str] =
    &["bases", "closed-events", "documented-hives", "events", "json-in-text", "numbers", "told-by-keys"];

/// The code of all proofs as it is, and of a few with each other value of a setting.
fn exhibits(language: &dyn Language) -> Vec<Exhibit> {
    let proofs = common::proofs();
    let level = |settings: &Settings| language.dialect(settings).abilities().foundation.level;
    let mut exhibits = Vec::new();
    let mut show = |name: &str, proof: Proof, settings: &Settings| {
        exhibits.push(Exhibit {
            name: format!("{}{name}", proof.name),
            model: proof.model,
            settings: settings.clone(),
        });
    };
    for proof in proofs.iter().filter(|proof| !ODD.iter().any(|odd| proof.name.starts_with(odd))) {
        show("", proof.clone(), &Settings::default());
    }
    for setting in language.settings() {
        for value in setting.values().examples() {
            let mut settings = Settings::default();
            language.set(&mut settings, setting.key(), value).unwrap();
            // What is of another level has its judges in the matrix.
            if level(&settings) == level(&Settings::default()) {
                let name = format!(" {}={value}", setting.key());
                let few = proofs.iter().filter(|proof| FEW.contains(&proof.name.as_str()));
                few.for_each(|proof| show(&name, proof.clone(), &settings));
            }
        }
    }
    exhibits
}

#[track_caller]
fn check(key: &str) {
    let language = find_language(key).unwrap();
    let exhibits = exhibits(language);
    assert!(exhibits.len() > 150, "{} pieces of code", exhibits.len());
    match judge(language, &exhibits, &Tools::of_this_machine()).unwrap() {
        Err(Missing { what, install }) => skip(key, &what, &install),
        Ok(said) => {
            let said = said.expect("it has judges of its own");
            let of = |ToolOutput { tool, proofs, text }: &ToolOutput| {
                format!("{tool} of {}:\n{text}", proofs.join(", "))
            };
            assert!(said.is_empty(), "{}", said.iter().map(of).collect::<Vec<_>>().join("\n\n"));
        }
    }
}

#[test]
fn go() {
    check("go");
}

#[test]
fn java() {
    check("java");
}

#[test]
fn kotlin() {
    check("kotlin");
}

#[test]
fn python() {
    check("python");
}

#[test]
fn typescript() {
    check("typescript");
}
