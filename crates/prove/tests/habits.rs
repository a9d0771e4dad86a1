//! What the languages' tables say of data that does not fit, held against what the real libraries said of it: the files
//! beside `bad`, which the matrix holds against the libraries themselves.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]

use std::collections::BTreeMap;
use std::fs;
use std::path::Path;

use jar_sprout_grow::{Habits, LANGUAGES, Reaction, Settings, find_language};

/// What a library said of each thing that was wrong, by that.
fn said(text: &str) -> BTreeMap<String, String> {
    let mut all: BTreeMap<String, String> = BTreeMap::new();
    let mut wrong = String::new();
    for line in text.lines() {
        match line.strip_prefix("    ") {
            Some(said) => drop(all.entry(wrong.clone()).or_insert_with(|| said.to_owned())),
            None => wrong = line.to_owned(),
        }
    }
    all
}

/// What that means.
fn reaction(said: &str) -> Reaction {
    match said {
        said if said.starts_with("passes") => Reaction::Keeps,
        said if said.contains("came back") => Reaction::Changes,
        _ => Reaction::Fails,
    }
}

#[test]
fn the_tables_say_what_the_libraries_do() {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/bad");
    let mut held = 0;
    for entry in fs::read_dir(folder).unwrap().flatten() {
        let path = entry.path();
        if path.extension().is_none_or(|ending| ending != "said") {
            continue;
        }
        let stem = path.file_stem().unwrap().to_str().unwrap().to_owned();
        let mut parts = stem.split('-');
        let language = find_language(parts.next().unwrap()).unwrap();
        let mut settings = Settings::default();
        while let (Some(key), Some(value)) = (parts.next(), parts.next()) {
            language.set(&mut settings, key, value).unwrap();
        }
        let said = said(&fs::read_to_string(&path).unwrap());
        let of = |wrong: &str| reaction(said.get(wrong).unwrap_or_else(|| panic!("{stem}: {wrong}")));
        let expected = Habits {
            missing: of("a required key is missing"),
            null: of("null, and there is no null"),
            other_kind: of("text for an integer"),
            fraction: of("a fraction for an integer"),
            number_for_text: of("an integer for text"),
            no_date: of("no date"),
            new_word: of("a word that an enum does not have"),
            new_case: of("a kind that is not known"),
        };
        assert_eq!(language.habits(&settings), expected, "{stem}");
        held += 1;
    }
    assert!(held >= 15, "{held} files were found");
    // Types without code that runs refuse nothing.
    let habits = |key: &str, set: &[(&str, &str)]| {
        let language = find_language(key).unwrap();
        let mut settings = Settings::default();
        set.iter().for_each(|(key, value)| language.set(&mut settings, key, value).unwrap());
        language.habits(&settings)
    };
    for habits in [habits("typescript", &[]), habits("python", &[("types", "typed-dicts")])] {
        assert_eq!((habits.missing, habits.other_kind), (Reaction::Keeps, Reaction::Keeps));
    }
    assert_eq!(LANGUAGES.len(), 9);
}
