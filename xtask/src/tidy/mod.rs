//! The house's rules that no compiler checks.

mod documents;
mod edges;
mod modules;

use std::fs;
use std::path::{Path, PathBuf};

use anyhow::{Result, bail};

/// Checks the project against what it promises of itself.
pub(crate) fn tidy(root: &Path) -> Result<()> {
    let mut complaints = Vec::new();
    for file in files_in(&[root.join("crates"), root.join("xtask")], "rs") {
        let text = fs::read_to_string(&file)?;
        let name = name_of(root, &file);
        complaints.extend(complaints_about(&text).into_iter().map(|what| format!("{name}: {what}")));
        if !name.ends_with(HIDDEN) && has_table_of_hidden(&text) {
            complaints.push(format!("{name}: a table of hidden characters beside that in `{HIDDEN}`"));
        }
    }
    let architecture = fs::read_to_string(root.join("ARCHITECTURE.md"))?;
    complaints.extend(edges::complaints(root, &architecture)?);
    complaints.extend(modules::complaints(root)?);
    complaints.extend(documents::complaints(root)?);
    if complaints.is_empty() { Ok(()) } else { bail!("{}", complaints.join("\n")) }
}

/// Where the one table of hidden characters is.
const HIDDEN: &str = "crates/model/src/hidden.rs";

fn name_of(root: &Path, file: &Path) -> String {
    file.strip_prefix(root).unwrap_or(file).display().to_string()
}

/// All files of an ending in folders and below, but for what is built there.
fn files_in(folders: &[PathBuf], ending: &str) -> Vec<PathBuf> {
    let mut files = Vec::new();
    let mut folders = folders.to_vec();
    while let Some(folder) = folders.pop() {
        for entry in fs::read_dir(folder).into_iter().flatten().flatten() {
            let path = entry.path();
            if path.is_dir() && !path.ends_with("target") {
                folders.push(path);
            } else if path.extension().is_some_and(|extension| extension == ending) {
                files.push(path);
            }
        }
    }
    files.sort();
    files
}

/// What is not as the house has it.
fn complaints_about(text: &str) -> Vec<&'static str> {
    let mut complaints = Vec::new();
    if !text.starts_with("//!") {
        complaints.push("does not open with `//!`");
    }
    if text.lines().count() > 600 {
        complaints.push("has more than 600 lines");
    }
    complaints
}

/// Whether there is a range that ends among the characters that turn directions.
fn has_table_of_hidden(text: &str) -> bool {
    ["202", "206"].iter().any(|block| text.contains(&format!("..='\\u{{{block}")))
}

/// The cells of the rows of a table of Markdown, below the heading whose line this is.
fn rows(text: &str, heading: &str) -> Vec<Vec<String>> {
    let section = text.lines().skip_while(|line| *line != heading).skip(1);
    let section = section.take_while(|line| !line.starts_with('#'));
    let rows = section.filter(|line| line.starts_with('|')).skip(2);
    rows.map(|row| row.trim_matches('|').split('|').map(|cell| cell.trim().to_owned()).collect()).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_project_is_tidy() {
        let root = crate::root();
        assert!(files_in(&[root.join("crates")], "rs").len() > 100);
        tidy(&root).unwrap();
    }

    #[test]
    fn complaints_are_made() {
        assert_eq!(complaints_about("fn main() {}"), ["does not open with `//!`"]);
        assert_eq!(complaints_about("//! Fine.\n"), Vec::<&str>::new());
        assert!(has_table_of_hidden(concat!("matches!(c, '\\u{202A}'..=", "'\\u{202E}')")));
        assert!(!has_table_of_hidden("'\\u{202E}'"));
    }

    #[test]
    fn tables_are_read() {
        let text = "# A\n| not | this |\n|---|---|\n| x | y |\n## B\n\n| crate | why |\n|---|---|\n| a, b | c |\n## C";
        assert_eq!(rows(text, "## B"), [["a, b", "c"]]);
    }
}
