//! What is grown is used: no helper comes along that nothing asks for.

use std::collections::{BTreeMap, BTreeSet};
use std::path::Path;

use jar_sprout_model::{Model, SourceId};
use jar_sprout_settle::{Policies, RootName, infer, root_name};
use jar_sprout_shape::{Shape, observe};

use crate::grow::{grow, plan, prepare};
use crate::language::Language;
use crate::languages::LANGUAGES;
use crate::plan::{Plan, PlannedDefinition};
use crate::settings::Settings;
use crate::spell::{Arrangement, declared};

/// Times in many ways, numbers in letters, values of several kinds, JSON in a text, and what may be absent.
const ODD: &str = r#"[
    {"kind": "a", "at": "2026-05-01T12:30:00.120Z", "on": "2026-05-01", "kg": "12.50", "n": 12345678901234567890, "v": 1},
    {"kind": "a", "at": "2026-05-01T12:30:00.000Z", "on": "2026-05-02", "kg": "13.50", "n": 2, "v": "one", "t": "10:30:00.500"},
    {"kind": "b", "at": "2026-05-01T12:30:00.120+02:00", "words": ["x y"], "more": {"deep": [[1.5]]}, "none": null},
    {"kind": "b", "at": "2026-05-01T12:30:00.000+02:00", "words": ["z y"], "more": {"deep": []}, "none": null}
]"#;

fn models() -> Vec<Model> {
    let demo = Path::new(env!("CARGO_MANIFEST_DIR")).join("../cli/demo");
    let names = ["apiaries", "events", "forecast", "harvests", "hives", "readings"];
    let demo = names.map(|name| {
        let text = std::fs::read_to_string(demo.join(format!("{name}.json"))).expect("the demo has it");
        (name, text)
    });
    let model = |(name, text): (&str, String)| {
        let mut shape = Shape::default();
        observe(text.as_bytes(), SourceId(0), &mut shape).expect("it is JSON");
        let words = root_name([name], None, false);
        infer(&shape, &RootName { words, is_given: false }, &Policies::default()).settled.model
    };
    demo.into_iter().chain([("odd", ODD.to_owned())]).map(model).collect()
}

/// The settings of a language: those that hold, and each other value of one.
fn each_setting(language: &dyn Language) -> Vec<Settings> {
    let mut all = vec![Settings::default()];
    for setting in language.settings() {
        for value in setting.values().examples() {
            let mut settings = Settings::default();
            language.set(&mut settings, setting.key(), value).expect("it takes its own values");
            all.push(settings);
        }
    }
    all
}

/// What comes along for those who use the code to call: how a library is set up, and a namespace.
const FOR_USERS: &[&str] = &["ModelsJsonContext", "withDates", "withDatesAndBigIntegers", "Hives"];

/// The names that a plan makes for those who use the code.
fn made_for_users(plan: &Plan<'_>) -> BTreeSet<String> {
    let mut names: BTreeSet<String> = plan.types.iter().map(|ty| ty.ident.to_string()).collect();
    names.extend(plan.roots.iter().map(|root| plan.root_ident(root).to_string()));
    names.extend(plan.entries().flat_map(|(_, functions)| functions.each_ref().map(ToString::to_string)));
    names.insert(plan.entry_home().to_string());
    for ty in &plan.types {
        if let PlannedDefinition::Union(union) = &ty.definition {
            names.extend(union.cases.iter().map(|case| case.ident.to_string()));
        }
    }
    names
}

/// What a line at the margin declares.
fn declared_in<'l>(language: &dyn Language, line: &'l str) -> Option<&'l str> {
    match language.key() {
        // What the compiler says of what is private, it says of helpers.
        "rust" => None,
        "swift" => declared(line, &["struct", "enum", "class", "protocol"]),
        "go" => declared(line, &["type", "func", "const", "var"]),
        "python" => declared(line, &["class", "def"]),
        "typescript" => declared(line, &["type", "interface", "function", "const", "class"]),
        "kotlin" => declared(line, &["class", "object", "interface", "fun", "typealias"]),
        _ => declared(line, &["class", "record", "interface", "enum", "struct", "@interface"]),
    }
}

/// The names that a model's code declares for itself, each with how often it is written.
fn own_names(language: &dyn Language, settings: &Settings, model: &Model) -> BTreeMap<String, usize> {
    let dialect = &*language.dialect(settings);
    let prepared = prepare(dialect, model);
    let for_users = made_for_users(&plan(dialect, &prepared));
    let is_for_users = |name: &str| {
        FOR_USERS.contains(&name)
            || for_users.iter().any(|known| name.contains(known.trim_matches(['`', '@'])))
            // What Python has for an alias.
            || ["_from_json", "_to_json"].iter().any(|end| name.ends_with(end))
    };
    let files = grow(dialect, model, Arrangement::Together);
    let lines = || files.iter().flat_map(|file| file.text.lines());
    let mut counts: BTreeMap<String, usize> = lines()
        .filter_map(|line| declared_in(language, line))
        .filter(|name| !is_for_users(name))
        .map(|name| (name.to_owned(), 0))
        .collect();
    for word in lines().flat_map(|line| line.split(|c: char| !(c.is_alphanumeric() || c == '_'))) {
        counts.entry(word.to_owned()).and_modify(|count| *count += 1);
    }
    counts
}

#[test]
fn what_is_declared_is_used() {
    let models = models();
    let mut unused = BTreeSet::new();
    let mut found = 0;
    for language in LANGUAGES {
        for settings in each_setting(*language) {
            for counts in models.iter().map(|model| own_names(*language, &settings, model)) {
                found += counts.len();
                let once = counts.into_iter().filter(|(_, count)| *count < 2);
                unused.extend(once.map(|(name, _)| format!("{}: {name}", language.key())));
            }
        }
    }
    assert!(found > 1000, "names were found: {found}");
    assert_eq!(unused, BTreeSet::new());
}
