//! The files that documents speak of: each is there.

use std::collections::BTreeSet;
use std::fs;
use std::path::Path;

use anyhow::Result;

use super::{files_in, name_of};

/// What the names of files of the project end in.
const ENDINGS: &[&str] = &[".rs", ".md", ".toml", ".json", ".png", ".count", ".pardoned"];

/// Names of files in documents that are not there.
pub(super) fn complaints(root: &Path) -> Result<Vec<String>> {
    let mut complaints = Vec::new();
    let sources: Vec<String> = files_in(&[root.join("crates"), root.join("xtask")], "rs")
        .iter()
        .map(|file| name_of(root, file))
        .collect();
    for document in ["ARCHITECTURE.md", "CONTRIBUTING.md"] {
        let text = fs::read_to_string(root.join(document))?;
        for name in named(&text) {
            let is_there = root.join(&name).exists()
                || sources.iter().any(|file| file.ends_with(&format!("/{name}")))
                || !name.contains('/') && !name.ends_with(".rs");
            if !is_there {
                complaints.push(format!("{document}: there is no `{name}`"));
            }
        }
    }
    Ok(complaints)
}

/// What stands between backticks and is called like a file or a folder of the project.
fn named(text: &str) -> BTreeSet<String> {
    let is_file = |word: &&str| {
        let is_plain = word.chars().all(|c| c.is_ascii_alphanumeric() || "/._-".contains(c));
        is_plain
            && (ENDINGS.iter().any(|ending| word.ends_with(ending))
                || ["crates/", "xtask/", "docs/", "toolchains/", ".ci/"]
                    .iter()
                    .any(|start| word.starts_with(start)))
    };
    text.split('`').skip(1).step_by(2).filter(is_file).map(str::to_owned).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn files_are_found_in_prose() {
        let text = "See `draft.rs` and `crates/grow`, not `Draft::of` or `<language>/mod.rs`; `a.b`.";
        assert_eq!(named(text).into_iter().collect::<Vec<_>>(), ["crates/grow", "draft.rs"]);
    }
}
