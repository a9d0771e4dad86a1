//! Fingerprints of all that is grown: how a change of the code is held against what it must not change.

use std::collections::BTreeMap;
use std::fs;
use std::path::Path;

use anyhow::{Context, Result, bail};
use jar_sprout_grow::{Arrangement, GrownFile, LANGUAGES, Language, Settings, find_language, grow};
use jar_sprout_prove::Proof;

use crate::awkward;
use crate::sweep;

/// What is said where the arguments make no sense.
const USAGE: &str = "\
fingerprint FOLDER OUT                              write a line for each model, language and setting
fingerprint FOLDER OUT --against OLD                and tell which lines are others than in OLD
fingerprint FOLDER --show MODEL LANGUAGE [SETTING]  print the code behind one line
FOLDER holds an `index.json`; the word `own` stands for the data that every language must carry";

fn proofs(folder: &str) -> Result<Vec<Proof>> {
    if folder == "own" { Ok(awkward::proofs()) } else { sweep::proofs(Path::new(folder)) }
}

/// Grows every model of a folder in every language under every value of every setting, and notes what came out.
pub(crate) fn fingerprint(arguments: &[String]) -> Result<()> {
    let arguments: Vec<&str> = arguments.iter().map(String::as_str).collect();
    match arguments[..] {
        [folder, "--show", model, language, ref setting @ ..] => {
            show(folder, model, language, setting.first().copied().unwrap_or_default())
        }
        [folder, out] => record(folder, out).map(drop),
        [folder, out, "--against", old] => {
            let new = record(folder, out)?;
            let old = fs::read_to_string(old).with_context(|| old.to_owned())?;
            compare(&rows(&old), &rows(&new))
        }
        _ => bail!("{USAGE}"),
    }
}

/// Writes `MODEL LANGUAGE SETTING SUM`, a line each.
fn record(folder: &str, out: &str) -> Result<String> {
    let proofs = proofs(folder)?;
    let mut lines = String::new();
    for language in LANGUAGES {
        for (setting, settings) in variations(*language) {
            for proof in &proofs {
                let sum = crc32fast::hash(code(*language, proof, &settings).as_bytes());
                lines.push_str(&format!("{} {} {setting} {sum:08x}\n", proof.name, language.key()));
            }
        }
    }
    fs::write(out, &lines)?;
    println!("{} lines", lines.lines().count());
    Ok(lines)
}

fn compare(old: &BTreeMap<&str, &str>, new: &BTreeMap<&str, &str>) -> Result<()> {
    let mut differing = 0;
    for (row, sum) in new {
        let was = old.get(row);
        if was != Some(sum) {
            differing += 1;
            println!("{row}: {}", if was.is_some() { "differs" } else { "is new" });
        }
    }
    for row in old.keys().filter(|row| !new.contains_key(*row)) {
        differing += 1;
        println!("{row}: is gone");
    }
    if differing == 0 { Ok(()) } else { bail!("{differing} of {} differ", new.len()) }
}

fn rows(text: &str) -> BTreeMap<&str, &str> {
    text.lines().filter_map(|line| line.rsplit_once(' ')).collect()
}

fn show(folder: &str, model: &str, language: &str, setting: &str) -> Result<()> {
    let language = find_language(language).with_context(|| format!("no language `{language}`"))?;
    let proofs = proofs(folder)?;
    let proof = proofs.iter().find(|proof| proof.name == model).context("no such model")?;
    let (_, settings) =
        variations(language).into_iter().find(|(name, _)| name == setting).context("no such setting")?;
    print!("{}", code(language, proof, &settings));
    Ok(())
}

/// The settings of one run each, by what is set: nothing, each value of each setting, and each two of unlike keys.
fn variations(language: &dyn Language) -> Vec<(String, Settings)> {
    let single: Vec<(&str, &str)> = language
        .settings()
        .iter()
        .flat_map(|setting| {
            let values = setting.values();
            let usual = values.default();
            let others = values.examples().into_iter().filter(move |value| Some(*value) != usual);
            others.map(|value| (setting.key(), value))
        })
        .collect();
    let pairs = single.iter().enumerate().flat_map(|(at, first)| {
        single[at + 1..].iter().filter(|second| second.0 != first.0).map(|second| vec![*first, *second])
    });
    let all = [Vec::new()].into_iter().chain(single.iter().map(|one| vec![*one])).chain(pairs);
    // Some rule each other out.
    let settings = |given: Vec<(&str, &str)>| {
        let mut settings = Settings::default();
        for (key, value) in &given {
            language.set(&mut settings, key, value).ok()?;
        }
        let name: Vec<String> = given.iter().map(|(key, value)| format!("{key}={value}")).collect();
        Some((name.join(","), settings))
    };
    all.filter_map(settings).collect()
}

/// All files of a model, laid out both ways.
fn code(language: &dyn Language, proof: &Proof, settings: &Settings) -> String {
    let dialect = language.dialect(settings);
    let laid_out = |arrangement| grow(&*dialect, &proof.model, arrangement);
    let files = [Arrangement::AsUsual, Arrangement::Together].into_iter().flat_map(laid_out);
    files.map(|GrownFile { name, text }| format!("==> {name}\n{text}\n")).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_differs_is_told() {
        let old = rows("hives kotlin  0000000a\nhives go  0000000b\nhives go files=one 0000000c\n");
        assert!(compare(&old, &old).is_ok());
        let new = rows("hives kotlin  0000000f\nhives go  0000000b\nhives dart  0000000d\n");
        assert_eq!(compare(&old, &new).unwrap_err().to_string(), "3 of 3 differ");
    }

    #[test]
    fn every_value_of_every_setting_is_grown() {
        for language in LANGUAGES {
            let names: Vec<String> = variations(*language).into_iter().map(|(name, _)| name).collect();
            assert!(names.contains(&String::new()));
            for setting in language.settings() {
                assert!(
                    names.iter().any(|name| name.starts_with(setting.key())),
                    "{} {names:?}",
                    setting.key()
                );
            }
        }
    }
}
