//! The root's name, from the names of the sources.

use jar_sprout_model::Words;

/// What a root is called when no source has a name that helps.
const NAMELESS: &str = "root";

/// The name that these file names (without folder and extension) have in common: `hive-1`, `hive-2` give `hive`.
/// Numbers, dates and ids are not part of a name.
///
/// Several names with nothing in common are called after their folder, if that says something.
pub fn root_name<'n>(file_names: impl IntoIterator<Item = &'n str>, folder: Option<&str>) -> Words {
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
    let common = [shared(false), shared(true)].into_iter().find(|words| !words.is_empty());
    let folder = || folder.filter(|_| names.len() > 1).map(telling_words).filter(|words| !is_noise(words));
    let words = without_noise(common.or_else(folder).unwrap_or(first));
    Words::split(if words.is_empty() { NAMELESS.to_owned() } else { words.join(" ") }.as_str())
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
    ];
    words.is_empty() || words.iter().all(|word| FOLDERS.contains(&word.as_str()))
}

/// Words that say what a file is to its owner, not what stands in it; one word is always left.
fn without_noise(mut words: Vec<String>) -> Vec<String> {
    const BEFORE: &[&str] = &["get", "fetch", "sample", "example", "test"];
    const BEHIND: &[&str] =
        &["json", "array", "response", "sample", "samples", "example", "examples", "result", "results"];
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
    Words::split(name).iter().filter(|word| !is_number_or_id(word)).map(str::to_owned).collect()
}

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
        assert_eq!(root_name(names.iter().copied(), Some("samples")).to_string(), expected, "{names:?}");
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
        assert_eq!(root_name(["north", "south"], Some("hives")).to_string(), "hives");
        assert_eq!(root_name(["north"], Some("hives")).to_string(), "north");
    }
}
