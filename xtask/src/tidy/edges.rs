//! Which crate uses which, and which libraries: as ARCHITECTURE.md says.

use std::collections::BTreeSet;
use std::fs;
use std::path::Path;

use anyhow::{Context, Result};
use toml_edit::DocumentMut;

use super::rows;

/// What the names of our own crates start with.
const OURS: &str = "jar-sprout-";

/// Where the document and the manifests differ.
pub(super) fn complaints(root: &Path, architecture: &str) -> Result<Vec<String>> {
    let mut complaints = Vec::new();
    let edges = rows(architecture, "### Who uses whom");
    for row in &edges {
        let [name, said, ..] = &row[..] else { continue };
        let name = name.trim_matches('`');
        let folder = if name == "xtask" { root.join(name) } else { root.join("crates").join(name) };
        let manifest = read(&folder.join("Cargo.toml"))?;
        let uses: BTreeSet<&str> =
            keys(&manifest, "dependencies").into_iter().filter_map(|name| name.strip_prefix(OURS)).collect();
        let said: BTreeSet<&str> = said
            .split(',')
            .map(|name| name.trim().trim_matches('`'))
            .filter(|name| !name.is_empty())
            .collect();
        if uses != said {
            complaints.push(format!("`{name}` uses {uses:?}, ARCHITECTURE.md says {said:?}"));
        }
    }
    let crates = fs::read_dir(root.join("crates"))?.count() + 1;
    if edges.len() != crates {
        complaints.push(format!("{} crates in *Who uses whom*, {crates} in the workspace", edges.len()));
    }
    let workspace = read(&root.join("Cargo.toml"))?;
    let libraries = workspace["workspace"]["dependencies"].as_table_like().context("a table")?;
    let libraries: BTreeSet<&str> =
        libraries.iter().map(|(name, _)| name).filter(|name| !name.starts_with(OURS)).collect();
    let said = rows(architecture, "## Libraries");
    let said: BTreeSet<&str> =
        said.iter().filter_map(|row| row.first()).flat_map(|names| names.split(", ")).collect();
    complaints.extend(libraries.difference(&said).map(|name| format!("`{name}` has no line in *Libraries*")));
    complaints.extend(said.difference(&libraries).map(|name| format!("`{name}` of *Libraries* is not used")));
    Ok(complaints)
}

fn read(manifest: &Path) -> Result<DocumentMut> {
    Ok(fs::read_to_string(manifest).with_context(|| manifest.display().to_string())?.parse()?)
}

fn keys<'m>(manifest: &'m DocumentMut, table: &str) -> Vec<&'m str> {
    let table = manifest.get(table).and_then(|table| table.as_table_like());
    table.into_iter().flat_map(|table| table.iter()).map(|(name, _)| name).collect()
}
