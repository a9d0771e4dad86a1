//! Every language carries the demo's samples, all cases of inference, and data made to be awkward.
//!
//! `toolchains/install` gets the compilers. Without one the proof says so and passes; where `CI` is set it fails.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]

mod bad;
mod common;
mod known;
#[path = "../../document/tests/made_up/mod.rs"]
mod made_up;
mod skip;

use std::fs;
use std::path::{Path, PathBuf};
use std::sync::LazyLock;

use common::proofs;
use jar_sprout_document::{DocumentKind, Drafted, Library, NoFiles, draft_document};
use jar_sprout_grow::{Settings, find_language};
use jar_sprout_model::{Definition, Field, Scalar, Words};
use jar_sprout_prove::{Memory, Miss, Missing, Order, Proof, Sample, ToolOutput, Tools, prove};
use jar_sprout_settle::{Policies, settle_document};
use known::{KNOWN, Known};
use proptest::strategy::{Strategy as _, ValueTree as _};
use proptest::test_runner::TestRunner;
use serde_json::{Map, Value, json};
use skip::skip;

/// What the names of proofs start with whose own names no linter likes.
const ODD: &[&str] = &["odd-", "torture-", "names-foreign"];

/// Proves a language as it is, in one call of its compiler: with all there is.
#[track_caller]
fn check_all(key: &str) {
    prove_order(key, &[], Asked::WithBadData, &proofs());
}

/// Proves a language with these settings: without the cases of inference, whose types the data made for languages has
/// as well, and without what is said of things, which no setting changes.
#[track_caller]
fn check(key: &str, settings: &[(&str, &str)]) {
    prove_order(key, settings, Asked::WithBadData, &made_for_languages(&["documented-", "torture-docs-"]));
}

/// The same for settings that do not bear on enums: without the proofs that differ in that alone.
#[track_caller]
fn check_plain(key: &str, settings: &[(&str, &str)]) {
    let differ = ["documented-", "torture-docs-", "closed-", "torture-closed-"];
    check_some(key, settings, &made_for_languages(&differ));
}

/// The same for settings that bear on times alone: with the proofs that have some.
#[track_caller]
fn check_times(key: &str, settings: &[(&str, &str)]) {
    let is_time = |scalar: Scalar| scalar == Scalar::Date || scalar.time_forms().is_some();
    let mut timed = made_for_languages(&["documented-", "torture-docs-", "closed-", "torture-closed-"]);
    timed.retain(|proof| proof.model.scalars().any(is_time));
    assert!(timed.len() >= 10, "the times were found");
    check_some(key, settings, &timed);
}

/// Proves a language whose library makes keys of names: with the proofs that have such keys.
#[track_caller]
fn check_keys(key: &str, settings: &[(&str, &str)]) {
    let is_made = |field: &Field| field.wire.as_str().contains('_');
    let mut made = made_for_languages(&["documented-", "torture-docs-", "closed-", "torture-closed-"]);
    made.retain(|proof| {
        proof.model.types().any(|(_, ty)| match &ty.definition {
            Definition::Record(record) => record.fields.iter().filter(|field| is_made(field)).count() > 1,
            Definition::Enumeration(_) | Definition::Union(_) => false,
        })
    });
    assert!(made.len() >= 10, "the keys were found");
    check_some(key, &[settings, &[("keys", "rule")]].concat(), &made);
}

/// The same where the compiler is slow: without names that are made to be awkward, which no setting changes.
#[track_caller]
fn check_few(key: &str, settings: &[(&str, &str)]) {
    let awkward = ["documented-", "torture-", "closed-"];
    check_some(key, settings, &made_for_languages(&awkward));
}

/// The same where helpers stand once for all: with the proofs that need some.
#[track_caller]
fn check_shared(key: &str, settings: &[(&str, &str)]) {
    let differ = ["documented-", "torture-", "odd-", "closed-", "union-", "inside-"];
    prove_order(key, settings, Asked::Shared, &made_for_languages(&differ));
}

/// All proofs but the cases of inference, and but those whose names start so.
fn made_for_languages(without: &[&str]) -> Vec<Proof> {
    let cases = Path::new(env!("JAR_SPROUT_ROOT")).join("crates/settle/tests/cases");
    let is_case = |proof: &Proof| cases.join(format!("{}.case", proof.name)).exists();
    let mut made = proofs();
    made.retain(|proof| !is_case(proof) && !without.iter().any(|start| proof.name.starts_with(start)));
    made
}

#[track_caller]
fn check_some(key: &str, settings: &[(&str, &str)], proofs: &[Proof]) {
    prove_order(key, settings, Asked::Plain, proofs);
}

/// What is asked beside that samples come back.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Asked {
    Plain,
    /// What is said of bad data, where that is held.
    WithBadData,
    /// That helpers stand once for all.
    Shared,
}

#[track_caller]
fn prove_order(key: &str, settings: &[(&str, &str)], asked: Asked, proofs: &[Proof]) {
    let language = find_language(key).unwrap();
    let mut given = Settings::default();
    for (key, value) in settings {
        language.set(&mut given, key, value).unwrap();
    }
    // With settings, the words of other languages show nothing that the usual code has not shown.
    let is_foreign = |proof: &&Proof| {
        let words = proof.name.strip_prefix("torture-words-").filter(|_| !settings.is_empty());
        words.is_some_and(|of| of != key)
    };
    let mut proofs: Vec<Proof> = proofs.iter().filter(|proof| !is_foreign(proof)).cloned().collect();
    let values = settings.iter().map(|(key, value)| format!(" {key}={value}"));
    let of = format!("{key}{}", values.collect::<String>());
    let with_bad = asked == Asked::WithBadData && bad::is_told(&of);
    proofs.extend(with_bad.then(bad::proof));
    // Names that no one would choose are compiled, but their lines are not judged for beauty.
    let is_odd = |proof: &String| ODD.iter().any(|odd| proof.starts_with(odd));
    let judged = |proofs: &[String]| proofs.iter().any(|proof| !is_odd(proof));
    let order = Order {
        language,
        settings: &given,
        with_judges: true,
        is_shared: asked == Asked::Shared,
        memory: Some(&MEMORY),
    };
    match prove(&order, &proofs, &Tools::of_this_machine()).unwrap() {
        Err(Missing { what, install }) => skip(key, &what, &install),
        Ok(mut report) => {
            let is_heard = |said: &&ToolOutput| said.proofs.is_empty() || judged(&said.proofs);
            let said = report.compiler.iter().chain(report.judges.iter().filter(is_heard));
            let said: Vec<String> = said
                .map(|said| format!("{} of {}:\n{}", said.tool, said.proofs.join(", "), said.text))
                .collect();
            assert!(said.is_empty(), "{}", said.join("\n\n"));
            MEMORY.remember(&report.proven).unwrap();
            if with_bad {
                bad::check(&of, &mut report.misses);
            }
            check_misses(&of, &proofs, report.misses);
            assert!(report.samples > 0);
        }
    }
}

/// Holds the samples that did not come back against those of which it is known.
#[track_caller]
fn check_misses(of: &str, proofs: &[Proof], mut misses: Vec<Miss>) {
    let is_here =
        |known: &&Known| known.of.contains(&of) && proofs.iter().any(|proof| proof.name == known.proof);
    for Known { of: _, proof, text, count } in KNOWN.iter().filter(is_here) {
        let before = misses.len();
        misses.retain(|miss| miss.proof != *proof || !miss.text.contains(text));
        let there = before - misses.len();
        assert_eq!(there, *count, "`{text}` of {proof}, in {of}: what is known of it is not so");
    }
    assert!(misses.is_empty(), "{of}: {misses:#?}");
}

/// What was proven before, by the code that compares samples now and with these toolchains.
static MEMORY: LazyLock<Memory> = LazyLock::new(|| {
    let root = Path::new(env!("JAR_SPROUT_ROOT"));
    let mut basis = Vec::new();
    for folder in
        ["crates/prove/src", "crates/settle/src/check", "crates/shape/src", "crates/model/src", "toolchains"]
    {
        collect_files(&root.join(folder), &mut basis);
    }
    Memory::at(Path::new(env!("CARGO_TARGET_TMPDIR")).join("proofs"), &basis)
});

fn collect_files(folder: &Path, texts: &mut Vec<String>) {
    let mut paths: Vec<PathBuf> = fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path()).collect();
    paths.sort();
    for path in paths {
        if path.is_dir() {
            collect_files(&path, texts);
        } else {
            texts.push(fs::read_to_string(&path).unwrap());
        }
    }
}

/// The model of a schema, with samples of it.
fn of_document(name: &str, schema: &Value, samples: &[Value]) -> Proof {
    let library = Library::of(name, DocumentKind::Schema, schema.clone(), &NoFiles);
    let Drafted { draft, roots, title, .. } = draft_document(&library, name, &[], &Words::split(name));
    let model = settle_document(&draft, &roots, title.as_ref(), &Policies::default()).model;
    let sample = |(number, value): (usize, &Value)| Sample {
        name: format!("{name}-{number}"),
        text: value.to_string(),
    };
    Proof { model, samples: samples.iter().enumerate().map(sample).collect(), name: name.to_owned() }
}

/// So many documents are made up for each language that reads them.
const MADE_UP: usize = 60;

/// What was made to fit a document is read and written by what is grown from it.
#[test]
fn made_up_documents() {
    // The same in every run: what fails can be looked at.
    let mut runner = TestRunner::deterministic();
    let proofs: Vec<Proof> = (0..MADE_UP)
        .map(|number| {
            let made = made_up::documents().new_tree(&mut runner).unwrap().current();
            of_document(&format!("made-up-{number}"), &made.document, &made.instances)
        })
        .collect();
    check_some("typescript", &[("parse", "checked")], &proofs);
    check_some("python", &[], &proofs);
}

/// A class of the JVM takes 254 fields at most, and has more here.
#[test]
fn wide_records() {
    let fields = || (0..300).map(|number| format!("cell{number}"));
    let properties: Map<String, Value> = fields()
        .enumerate()
        .map(|(at, key)| (key, json!({"type": if at % 2 == 0 { "integer" } else { "string" }})))
        .collect();
    let required: Vec<String> = fields().skip(250).collect();
    let schema = json!({
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Comb",
        "type": "object",
        "properties": properties,
        "required": required,
    });
    let value = |at: usize| if at.is_multiple_of(2) { json!(at) } else { json!("capped") };
    let all: Value = fields().enumerate().map(|(at, key)| (key, value(at))).collect();
    let few: Value = fields().enumerate().skip(250).map(|(at, key)| (key, value(at))).collect();
    let proofs = [of_document("wide", &schema, &[all, few])];
    check_some("java", &[], &proofs);
    check_some("kotlin", &[], &proofs);
}

/// UUIDs and URIs with types of the platform.
#[test]
fn identifiers() {
    let is_identifier = |scalar: Scalar| matches!(scalar, Scalar::Uuid | Scalar::Uri);
    let mut named = made_for_languages(&["documented-", "torture-docs-", "closed-", "torture-closed-"]);
    named.retain(|proof| proof.model.scalars().any(is_identifier));
    assert!(named.len() >= 5, "they were found");
    let typed = [("uuids", "typed"), ("uris", "typed")];
    let with = |one| [&typed[..], &[one]].concat();
    check_some("csharp", &typed, &named);
    check_some("csharp", &with(("library", "newtonsoft")), &named);
    check_some("java", &typed, &named);
    check_some("java", &with(("library", "gson")), &named);
    check_some("kotlin", &typed, &named);
    check_some("kotlin", &with(("library", "gson")), &named);
    check_some("kotlin", &with(("library", "jackson")), &named);
    check_some("python", &typed[..1], &named);
    check_some("swift", &typed, &named);
}

/// Bounds of a document become checks, which what fits passes; where a library reads by them, nothing else does.
#[test]
fn bounds() {
    let schema = json!({
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Jar",
        "type": "object",
        "required": ["grams", "label", "price"],
        "properties": {
            "grams": {"type": "integer", "minimum": 0, "maximum": 5_000_000_000_i64, "multipleOf": 5},
            "least": {"type": ["integer", "null"], "exclusiveMinimum": -3},
            "label": {"type": "string", "minLength": 1, "maxLength": 9},
            "price": {"type": "number", "exclusiveMinimum": 0, "maximum": 99.5},
            "tags": {"type": "array", "items": {"type": "string"}, "minItems": 1, "maxItems": 2},
            "seal": {"type": "object", "properties": {"wax": {"type": "number", "minimum": 1e-3}}}
        }
    });
    let good = json!({"grams": 455, "least": -2, "label": "Lime", "price": 6.5, "tags": ["set"], "seal": {"wax": 0.5}});
    let spare = json!({"grams": 0, "label": "L", "price": 99.5, "tags": ["set", "raw"]});
    let proof = of_document("bounds", &schema, &[good.clone(), spare]);
    let checked = [("bounds", "checked")];
    for settings in [&checked[..], &[checked[0], ("library", "newtonsoft")], &[checked[0], ("level", "13")]] {
        check_some("csharp", settings, std::slice::from_ref(&proof));
    }
    for settings in [&checked[..], &[checked[0], ("library", "gson")], &[checked[0], ("types", "beans")]] {
        check_some("java", settings, std::slice::from_ref(&proof));
    }
    check_some("python", &checked, std::slice::from_ref(&proof));
    check_some("typescript", &[checked[0], ("parse", "checked")], std::slice::from_ref(&proof));
    let broken = [
        ("grams", json!(-5), ["type=greater_than_equal", "expected at least 0, found -5"]),
        ("grams", json!(456), ["type=multiple_of", "expected a multiple of 5, found 456"]),
        ("least", json!(-3), ["type=greater_than", "expected above -3, found -3"]),
        ("label", json!(""), ["type=string_too_short", "expected a length of at least 1, found 0"]),
        (
            "label",
            json!("Lime blossom"),
            ["type=string_too_long", "expected a length of at most 9, found 12"],
        ),
        ("price", json!(0), ["type=greater_than", "expected above 0, found 0"]),
        ("price", json!(99.6), ["type=less_than_equal", "expected at most 99.5, found 99.6"]),
        ("tags", json!([]), ["type=too_short", "expected a length of at least 1, found 0"]),
        ("tags", json!(["a", "b", "c"]), ["type=too_long", "expected a length of at most 2, found 3"]),
        (
            "seal",
            json!({"wax": 0.0001}),
            ["type=greater_than_equal", "expected at least 0.001, found 0.0001"],
        ),
    ];
    let samples = broken.clone().map(|(key, value, _)| {
        let mut sample = good.clone();
        sample[key] = value;
        sample
    });
    let proof = of_document("bounds", &schema, &samples);
    for (at, key) in ["python", "typescript"].into_iter().enumerate() {
        let language = find_language(key).unwrap();
        let mut settings = Settings::default();
        language.set(&mut settings, "bounds", "checked").unwrap();
        if key == "typescript" {
            language.set(&mut settings, "parse", "checked").unwrap();
        }
        let order =
            Order { language, settings: &settings, with_judges: false, is_shared: false, memory: None };
        let report = match prove(&order, std::slice::from_ref(&proof), &Tools::of_this_machine()).unwrap() {
            Err(Missing { what, install }) => {
                skip(key, &what, &install);
                continue;
            }
            Ok(report) => report,
        };
        assert_eq!(report.misses.len(), broken.len(), "{:#?}", report.misses);
        for (miss, (field, _, said)) in report.misses.iter().zip(&broken) {
            assert!(miss.text.contains(said[at]), "{field}: {}", miss.text);
        }
    }
}

/// What models of one jar share is found where it stands, and reaches all that it is for.
#[test]
fn shared() {
    check_shared("csharp", &[]);
    check_shared("dart", &[("equality", "values")]);
    check_shared("go", &[("absent", "apart")]);
    check_shared("java", &[]);
    check_shared("kotlin", &[]);
    check_shared("python", &[]);
    check_shared("python", &[("types", "dataclasses"), ("absent", "apart")]);
    check_shared("swift", &[("access", "public")]);
    check_shared("typescript", &[("parse", "checked")]);
}

#[test]
fn csharp() {
    check_all("csharp");
}

#[test]
fn csharp_with_newtonsoft() {
    check("csharp", &[("library", "newtonsoft")]);
}

#[test]
fn csharp_of_level_seven() {
    check("csharp", &[("library", "newtonsoft"), ("level", "7.3")]);
}

/// With null told from nothing, and types inside each other where the language has that.
#[test]
fn absence() {
    for (key, settings) in [
        ("kotlin", &[("absent", "apart"), ("place", "nested")][..]),
        ("java", &[("absent", "apart"), ("place", "nested")]),
        ("java", &[("absent", "apart"), ("types", "beans"), ("place", "nested")]),
        ("dart", &[("absent", "apart"), ("equality", "values")]),
        ("python", &[("absent", "apart"), ("types", "dataclasses"), ("level", "3.10")]),
        ("go", &[("absent", "apart")]),
        ("csharp", &[("absent", "apart")]),
        ("rust", &[("absent", "apart")]),
    ] {
        check_plain(key, settings);
    }
}

/// With keys that a library makes of names.
#[test]
fn keys_by_rule() {
    for (key, settings) in [
        ("java", &[][..]),
        ("java", &[("types", "beans")]),
        ("kotlin", &[("library", "jackson")]),
        // What judges the older level has a library from before its naming strategies.
        ("csharp", &[("library", "newtonsoft")]),
    ] {
        check_keys(key, settings);
    }
}

/// With a plain type beside each of the wire, and what makes one of the other.
#[test]
fn twins() {
    for (key, settings) in [
        ("kotlin", &[("twins", "Dto")][..]),
        ("java", &[("twins", "Dto")]),
        ("dart", &[("twins", "Dto"), ("equality", "values")]),
    ] {
        check_plain(key, settings);
    }
    // Awkward names are longer than a line where they stand in each other.
    for key in ["kotlin", "java"] {
        check_few(key, &[("twins", "Dto"), ("place", "nested")]);
    }
}

#[test]
fn twins_of_csharp_and_typescript() {
    for (key, settings) in [
        ("csharp", &[("twins", "Dto")][..]),
        ("csharp", &[("twins", "Dto"), ("library", "newtonsoft"), ("level", "7.3")]),
        ("typescript", &[("twins", "Dto"), ("parse", "checked")]),
    ] {
        check_plain(key, settings);
    }
}

#[test]
fn dart() {
    check_all("dart");
}

#[test]
fn dart_with_values() {
    check_plain("dart", &[("copy-with", "yes"), ("equality", "values")]);
}

#[test]
fn go() {
    check_all("go");
}

#[test]
fn go_with_files_and_plain_times() {
    check_plain("go", &[("files", "per-type"), ("times", "plain")]);
}

/// As code that is compiled ahead of time, whose analysers object to reflection.
#[test]
fn csharp_with_a_context() {
    check("csharp", &[("metadata", "generated"), ("absent", "apart"), ("level", "13")]);
}

#[test]
fn csharp_in_one_file() {
    let settings = [("files", "one"), ("types", "classes"), ("lists", "list"), ("level", "13")];
    check_plain("csharp", &settings);
}

#[test]
fn java() {
    check_all("java");
}

#[test]
fn java_with_gson() {
    check("java", &[("library", "gson")]);
}

#[test]
fn java_with_jspecify() {
    check_plain("java", &[("nulls", "jspecify"), ("place", "nested")]);
    check_plain("java", &[("nulls", "jspecify"), ("library", "gson"), ("types", "beans")]);
}

#[test]
fn java_with_the_module_for_dates() {
    check_times("java", &[("dates", "module")]);
}

#[test]
fn java_with_beans() {
    check("java", &[("library", "gson"), ("types", "beans")]);
    check("java", &[("types", "beans")]);
}

#[test]
fn kotlin() {
    check_all("kotlin");
}

#[test]
fn kotlin_with_moshi() {
    check("kotlin", &[("library", "moshi")]);
}

#[test]
fn kotlin_with_gson() {
    check("kotlin", &[("library", "gson"), ("parcelable", "yes")]);
}

#[test]
fn kotlin_with_jackson() {
    check("kotlin", &[("library", "jackson")]);
}

#[test]
fn kotlin_with_datetime() {
    check_times("kotlin", &[("dates", "kotlinx-datetime")]);
}

#[test]
fn kotlin_without_a_library() {
    check_plain("kotlin", &[("library", "none"), ("properties", "var"), ("parcelable", "yes")]);
}

#[test]
fn kotlin_with_parcels() {
    check_plain("kotlin", &[("parcelable", "yes"), ("files", "one")]);
}

#[test]
fn python() {
    check_all("python");
}

#[test]
fn python_without_pydantic() {
    check("python", &[("types", "dataclasses")]);
    check("python", &[("types", "typed-dicts")]);
}

#[test]
fn python_of_level_ten() {
    check("python", &[("level", "3.10")]);
    check("python", &[("level", "3.10"), ("types", "typed-dicts")]);
}

#[test]
fn rust() {
    check_all("rust");
}

#[test]
fn rust_with_time() {
    check_times("rust", &[("dates", "time")]);
}

#[test]
fn rust_with_jiff() {
    check_times("rust", &[("dates", "jiff")]);
}

/// Without the cases of inference: its compiler takes ten times as long as the others.
#[test]
fn swift() {
    prove_order("swift", &[], Asked::WithBadData, &made_for_languages(&[]));
}

#[test]
fn swift_with_settings() {
    for settings in [
        &[("place", "nested"), ("access", "public"), ("types", "classes")][..],
        &[("absent", "apart")],
        &[("coding", "decode"), ("properties", "var")],
        &[("twins", "Dto"), ("access", "public"), ("place", "nested")],
    ] {
        check_few("swift", settings);
    }
}

#[test]
fn typescript() {
    check_all("typescript");
}

#[test]
fn typescript_with_parse() {
    check("typescript", &[("parse", "checked")]);
}

#[test]
fn typescript_with_dates_and_read_only() {
    check("typescript", &[("parse", "dated"), ("properties", "readonly")]);
    check("typescript", &[("properties", "readonly")]);
}
