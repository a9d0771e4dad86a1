//! The root's name, from the names of the sources.

use jar_sprout_model::Words;

use crate::singular::singular;

/// What a root is called when no source has a name that helps.
const NAMELESS: &str = "root";

/// The name that these file names (without folder and extension) have in common: `hive-1`, `hive-2` give `hive`.
/// Numbers, dates and ids are not part of a name.
///
/// Several names with nothing in common are called after their folder, if that says something; `of_one` says that each
/// file holds one thing, and no list.
pub fn root_name<'n>(
    file_names: impl IntoIterator<Item = &'n str>,
    folder: Option<&str>,
    of_one: bool,
) -> Words {
    let names: Vec<Vec<String>> = file_names.into_iter().map(telling_words).collect();
    let first = names.first().cloned().unwrap_or_default();
    let shared = |from_end: bool| {
        names.iter().fold(first.clone(), |common, name| {
            let at = |words: &[String], n: usize| {
                if from_end {
                    words.len().checked_sub(n + 1).map(|at| words[at].clone())
                } else {
                    words.get(n).cloned()
                }
            };
            let length = (0..common.len()).take_while(|n| at(&common, *n) == at(name, *n)).count();
            if from_end { common[common.len() - length..].to_vec() } else { common[..length].to_vec() }
        })
    };
    let common = [shared(false), shared(true)].map(without_noise);
    let common = common.into_iter().find(|words| !is_noise(words));
    let folder = || folder.filter(|_| names.len() > 1).map(telling_words).filter(|words| !is_noise(words));
    let is_folder = common.is_none() && folder().is_some();
    let words = without_noise(common.or_else(folder).unwrap_or(first));
    let words = Words::split(if words.is_empty() { NAMELESS.to_owned() } else { words.join(" ") }.as_str());
    // A folder holds many of what each of its files is one of.
    if is_folder && of_one { singular(&words) } else { words }
}

/// Folders that are called after what everybody keeps in folders.
fn is_noise(words: &[String]) -> bool {
    const FOLDERS: &[&str] = &[
        "samples",
        "sample",
        "examples",
        "data",
        "json",
        "responses",
        "tests",
        "fixtures",
        "tmp",
        "docs",
        "downloads",
        "latest",
        "current",
        "old",
        "new",
        "index",
        "response",
        "result",
        "results",
        "page",
    ];
    words.is_empty() || words.iter().all(|word| FOLDERS.contains(&word.as_str()))
}

/// Words that say what a file is to its owner, not what stands in it; one word is always left.
fn without_noise(mut words: Vec<String>) -> Vec<String> {
    const BEFORE: &[&str] =
        &["get", "fetch", "sample", "example", "test", "latest", "current", "old", "new", "all"];
    const BEHIND: &[&str] = &[
        "json", "array", "response", "sample", "samples", "example", "examples", "result", "results",
        "latest", "current", "old", "new", "page",
    ];
    while words.len() > 1 && words.last().is_some_and(|word| BEHIND.contains(&word.as_str())) {
        words.pop();
    }
    while words.len() > 1 && BEFORE.contains(&words[0].as_str()) {
        words.remove(0);
    }
    words
}

/// The words of a file name that say what it holds.
fn telling_words(name: &str) -> Vec<String> {
    let words: Vec<String> = Words::split(name).iter().map(str::to_owned).collect();
    let is_telling = |word: &&String| !is_number_or_id(word) && !ORDINALS.contains(&word.as_str());
    let telling: Vec<String> = words.iter().filter(is_telling).cloned().collect();
    if telling.is_empty() {
        words.into_iter().filter(|word| !is_number_or_id(word)).collect()
    } else {
        telling
    }
}

/// Which one of several a file is.
const ORDINALS: &[&str] = &["first", "second", "third", "fourth", "fifth"];

/// `17`, `p2`, `6f1c0a52`
fn is_number_or_id(word: &str) -> bool {
    let digits = word.chars().filter(char::is_ascii_digit).count();
    digits > 0 && (digits * 2 >= word.len() || word.len() >= 8 && word.chars().all(|c| c.is_ascii_hexdigit()))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[track_caller]
    fn check(names: &[&str], expected: &str) {
        assert_eq!(
            root_name(names.iter().copied(), Some("samples"), false).to_string(),
            expected,
            "{names:?}"
        );
    }

    #[test]
    fn one_source() {
        check(&["hives"], "hives");
        check(&["hive-1"], "hive");
        check(&["2026-05-01-harvests"], "harvests");
        check(&["hive-6f1c0a52-8d0e-4c0f-9d5e-0c7f3a1b2d4e"], "hive");
        check(&["17"], "root");
        check(&["get-hives-response"], "hives");
        check(&["response"], "response");
        check(&["hive.sample"], "hive");
        check(&["lastInspection"], "last inspection");
    }

    #[test]
    fn several_sources() {
        check(&["hive-1", "hive-2"], "hive");
        check(&["hives-north", "hives-south"], "hives");
        check(&["hives", "queens"], "hives");
        check(&["north-hives", "south-hives"], "hives");
        check(&["hives", "1"], "hives");
        check(&[], "root");
        assert_eq!(root_name(["north", "south"], Some("hives"), false).to_string(), "hives");
        assert_eq!(root_name(["north", "south"], Some("hive-records"), true).to_string(), "hive record");
        assert_eq!(root_name(["01_first_queen", "03_swarm"], Some("queens"), true).to_string(), "queen");
        assert_eq!(root_name(["latest", "current"], Some("hives"), false).to_string(), "hives");
        assert_eq!(root_name(["north"], Some("hives"), true).to_string(), "north");
    }
}
