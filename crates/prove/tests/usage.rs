//! How grown code is used: what `use` shows is compiled, by the same compilers and judges as the code itself, and
//! run; what it prints is the sample that it reads. The versions that it names are those that the proofs are made with.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]

mod skip;

use std::fs;
use std::path::Path;

use jar_sprout_grow::{Dependency, LANGUAGES, Place, Settings, find_language, prepare, usage};
use jar_sprout_model::{Model, SourceId, Words};
use jar_sprout_prove::{Missing, Order, Sample, Tools, prove_usage};
use jar_sprout_settle::{Policies, RootName, infer};
use jar_sprout_shape::{Shape, observe};
use skip::skip;

/// A sample of the demo, and what is made of it.
fn sample(name: &str) -> (Sample, Model) {
    let path = Path::new(env!("JAR_SPROUT_ROOT")).join("crates/cli/demo").join(name);
    let text = fs::read_to_string(path).unwrap();
    let mut shape = Shape::default();
    observe(text.as_bytes(), SourceId(0), &mut shape).unwrap();
    let words = Words::split(name.split_once('.').unwrap().0);
    let inferred = infer(&shape, &RootName { words, is_given: false }, &Policies::default());
    // No shell, no module and no text of a program stumbles over it.
    (Sample { name: "it's $a \\ sample.json".to_owned(), text }, inferred.settled.model)
}

#[track_caller]
fn check(key: &str, variants: &[&[(&str, &str)]]) {
    let language = find_language(key).unwrap();
    for (at, settings) in variants.iter().enumerate() {
        let mut given = Settings::default();
        for (key, value) in *settings {
            language.set(&mut given, key, value).unwrap();
        }
        // A record, and a type that is none: a map.
        let name = ["hives.json", "readings.json"][at % 2];
        let (sample, model) = sample(name);
        let order = Order { language, settings: &given, with_judges: true, is_shared: false, memory: None };
        let used = match prove_usage(&order, &model, &sample, &Tools::of_this_machine()).unwrap() {
            Err(Missing { what, install }) => return skip(key, &what, &install),
            Ok(used) => used.expect("something reads it"),
        };
        let said: Vec<String> =
            used.objections.iter().map(|said| format!("{}: {}", said.tool, said.text)).collect();
        assert!(said.is_empty(), "{key} {settings:?}: {}", said.join("\n"));
        assert!(used.is_run, "{key} {settings:?} is run");
    }
}

const AS_IT_IS: &[(&str, &str)] = &[];
const WITH_FUNCTIONS: &[(&str, &str)] = &[("entry", "functions")];

#[test]
fn csharp() {
    let seven = &[("level", "7.3"), ("library", "newtonsoft")];
    check("csharp", &[AS_IT_IS, WITH_FUNCTIONS, &[("library", "newtonsoft")], seven]);
}

#[test]
fn dart() {
    check("dart", &[AS_IT_IS, WITH_FUNCTIONS]);
}

#[test]
fn go() {
    check("go", &[AS_IT_IS, WITH_FUNCTIONS]);
}

#[test]
fn java() {
    check("java", &[AS_IT_IS, WITH_FUNCTIONS, &[("library", "gson")]]);
}

#[test]
fn kotlin() {
    check("kotlin", &[AS_IT_IS, WITH_FUNCTIONS, &[("library", "moshi"), ("package", "coop.fennimarsh")]]);
    check("kotlin", &[&[("library", "gson")], &[("library", "jackson")]]);
}

#[test]
fn python() {
    check("python", &[AS_IT_IS, WITH_FUNCTIONS, &[("types", "dataclasses")], &[("types", "typed-dicts")]]);
}

#[test]
fn rust() {
    check("rust", &[AS_IT_IS, WITH_FUNCTIONS, &[("dates", "time")], &[("dates", "jiff")]]);
}

#[test]
fn swift() {
    check("swift", &[AS_IT_IS, WITH_FUNCTIONS, &[("namespace", "Coop")]]);
}

#[test]
fn typescript() {
    check("typescript", &[AS_IT_IS, &[("parse", "checked")], &[("parse", "dated")]]);
}

/// What nothing reads has no program, and what it needs is said all the same.
#[test]
fn plain_classes_have_no_program() {
    let kotlin = find_language("kotlin").unwrap();
    let mut settings = Settings::default();
    kotlin.set(&mut settings, "library", "none").unwrap();
    let dialect = kotlin.dialect(&settings);
    let (sample, model) = sample("hives.json");
    let usage = usage(&*dialect, &prepare(&*dialect, &model), Place { sample: &sample.name, code: None });
    assert!(usage.program.is_none());
    assert!(usage.project[0].text.contains("kotlin(\"jvm\")"));
}

/// Not proven: what writes the other half of its code is in no registry here.
const UNPROVEN: &[&str] = &["json_annotation"];

/// Proven where somebody left the SDK, which brings it along.
const OF_SDK: &[&str] = &["Newtonsoft.Json"];

#[test]
fn versions_are_those_of_the_proofs() {
    let root = Path::new(env!("JAR_SPROUT_ROOT")).join("toolchains");
    let read = |name: &str| fs::read_to_string(root.join(name)).unwrap();
    let (install, jars, crates) = (read("install"), read("jars/pom.xml"), read("rust/Cargo.toml"));
    let is_proven = |name: &str, version: &str| {
        let artifact = name.rsplit(':').next().unwrap();
        let of_maven =
            |artifact: &str| format!("<artifactId>{artifact}</artifactId><version>{version}</version>");
        jars.contains(&of_maven(artifact))
            || jars.contains(&of_maven(&format!("{artifact}-jvm")))
            || install.contains(&format!("{name} {version}"))
            || crates.contains(&format!("{name} = \"{version}\""))
            || crates.contains(&format!("{name} = {{ version = \"{version}\""))
    };
    let mut seen = Vec::new();
    for language in LANGUAGES {
        for setting in language.settings() {
            for value in setting.values().examples() {
                let mut settings = Settings::default();
                language.set(&mut settings, setting.key(), value).unwrap();
                let abilities = language.dialect(&settings).abilities();
                for Dependency(name, version) in abilities.foundation.libraries {
                    seen.push(name);
                    let is_known = UNPROVEN.contains(&name) || OF_SDK.contains(&name);
                    assert!(is_known || is_proven(name, version), "{name} {version}");
                }
            }
        }
    }
    assert!(seen.contains(&"pydantic") && seen.contains(&"com.google.code.gson:gson"));
    for (language, file) in [("kotlin", "build.gradle.kts"), ("typescript", "package.json")] {
        let compiler =
            install.lines().find(|line| line.starts_with(&format!("npm_package {language} "))).unwrap();
        let version = compiler.rsplit(' ').next().unwrap();
        let dialect = find_language(language).unwrap().dialect(&Settings::default());
        let (sample, model) = sample("hives.json");
        let project =
            usage(&*dialect, &prepare(&*dialect, &model), Place { sample: &sample.name, code: None }).project;
        let file = project.iter().find(|one| one.name == file).unwrap();
        assert!(file.text.contains(&format!("\"{version}\"")), "{}", file.text);
    }
}
