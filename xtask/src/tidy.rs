//! The house's rules that no compiler checks.

use std::fs;
use std::path::{Path, PathBuf};

use anyhow::{Result, bail};

/// Checks every Rust file of the project.
pub(crate) fn tidy(root: &Path) -> Result<()> {
    let mut complaints = Vec::new();
    for file in rust_files(root) {
        let text = fs::read_to_string(&file)?;
        let name = file.strip_prefix(root)?.display().to_string().replace("../", "");
        complaints.extend(complaints_about(&text).into_iter().map(|what| format!("{name}: {what}")));
    }
    if complaints.is_empty() { Ok(()) } else { bail!("{}", complaints.join("\n")) }
}

fn rust_files(root: &Path) -> Vec<PathBuf> {
    let mut files = Vec::new();
    let mut folders = vec![root.join("crates"), root.join("xtask")];
    while let Some(folder) = folders.pop() {
        for entry in fs::read_dir(folder).into_iter().flatten().flatten() {
            let path = entry.path();
            if path.is_dir() {
                folders.push(path);
            } else if path.extension().is_some_and(|extension| extension == "rs") {
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

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_project_is_tidy() {
        let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("..");
        assert!(rust_files(&root).len() > 30);
        tidy(&root).unwrap();
    }

    #[test]
    fn complaints_are_made() {
        assert_eq!(complaints_about("fn main() {}"), ["does not open with `//!`"]);
        assert_eq!(complaints_about("//! Fine.\n"), Vec::<&str>::new());
    }
}
