//! The root's name, from the names of the sources.

use jar_sprout_model::Words;

/// What a root is called when no source has a name that helps.
const NAMELESS: &str = "root";

/// The name that these file names (without folder and extension) have in common: `hive-1`, `hive-2` give `hive`.
/// Numbers, dates and ids are not part of a name.
pub fn root_name<'n>(file_names: impl IntoIterator<Item = &'n str>) -> Words {
    let mut names = file_names.into_iter().map(telling_words);
    let first = names.next().unwrap_or_default();
    let common = names.fold(first.clone(), |common, name| {
        let shared = common.iter().zip(&name).take_while(|(a, b)| a == b).count();
        common[..shared].to_vec()
    });
    let chosen = if common.is_empty() { first } else { common };
    Words::split(if chosen.is_empty() { NAMELESS.to_owned() } else { chosen.join(" ") }.as_str())
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
        assert_eq!(root_name(names.iter().copied()).to_string(), expected, "{names:?}");
    }

    #[test]
    fn one_source() {
        check(&["hives"], "hives");
        check(&["hive-1"], "hive");
        check(&["2026-05-01-harvests"], "harvests");
        check(&["hive-6f1c0a52-8d0e-4c0f-9d5e-0c7f3a1b2d4e"], "hive");
        check(&["17"], "root");
        check(&["lastInspection"], "last inspection");
    }

    #[test]
    fn several_sources() {
        check(&["hive-1", "hive-2"], "hive");
        check(&["hives-north", "hives-south"], "hives");
        check(&["hives", "queens"], "hives");
        check(&["hives", "1"], "hives");
        check(&[], "root");
    }
}
