//! The modules of a crate: no two that stand side by side use each other, by whatever way.

use std::collections::{BTreeMap, BTreeSet};
use std::fs;
use std::path::Path;

use anyhow::Result;

use super::files_in;

/// A module by its path in its crate: `["plan", "fate"]`.
type Module = Vec<String>;

/// What each of the modules of a folder uses of the others.
type Uses = BTreeMap<String, BTreeSet<String>>;

/// Circles among the modules of each crate, and of each folder of a crate.
pub(super) fn complaints(root: &Path) -> Result<Vec<String>> {
    let mut folders: Vec<_> = fs::read_dir(root.join("crates"))?
        .map(|entry| entry.map(|entry| entry.path()))
        .collect::<Result<_, _>>()?;
    folders.push(root.join("xtask"));
    folders.sort();
    let mut complaints = Vec::new();
    for folder in folders {
        let modules = modules_of(&folder.join("src"))?;
        let holders: BTreeSet<&[String]> =
            modules.keys().flat_map(|module| (0..module.len()).map(|end| &module[..end])).collect();
        for holder in holders {
            for circle in circles(&uses_within(&modules, holder)) {
                let name = folder.file_name().unwrap_or_default().to_string_lossy();
                complaints.push(format!(
                    "{name}, {}: {} use each other",
                    holder.join("::"),
                    circle.join(", ")
                ));
            }
        }
    }
    Ok(complaints)
}

/// The text of each module of a crate, without its tests.
fn modules_of(source: &Path) -> Result<BTreeMap<Module, String>> {
    let mut modules = BTreeMap::new();
    for file in files_in(&[source.to_owned()], "rs") {
        let path = file.strip_prefix(source)?.with_extension("");
        let mut module: Module = path.iter().map(|part| part.to_string_lossy().into_owned()).collect();
        let is_whole = module.last().is_some_and(|last| ["mod", "lib", "main"].contains(&last.as_str()));
        if is_whole {
            module.pop();
        }
        if module.iter().any(|part| part == "tests") {
            continue;
        }
        let text = fs::read_to_string(&file)?;
        let code = text.split("#[cfg(test)]\nmod tests").next().unwrap_or_default();
        let lines = code.lines().map(|line| line.split("//").next().unwrap_or_default());
        modules.insert(module, lines.collect::<Vec<_>>().join("\n"));
    }
    Ok(modules)
}

/// What the modules in a folder, with all below them, use of each other.
fn uses_within(modules: &BTreeMap<Module, String>, holder: &[String]) -> Uses {
    let child = |module: &[String]| module.strip_prefix(holder)?.first().cloned();
    let children: BTreeSet<String> = modules.keys().filter_map(|module| child(module)).collect();
    let mut uses = Uses::new();
    for (module, text) in modules {
        let Some(from) = child(module) else { continue };
        let used = paths_in(text, module).into_iter().filter_map(|path| child(&path));
        uses.entry(from.clone()).or_default().extend(used.filter(|to| *to != from && children.contains(to)));
    }
    uses
}

/// The paths from the crate's root that a module names by `crate` or `super`.
fn paths_in(text: &str, module: &[String]) -> Vec<Module> {
    let is_word = |c: char| c.is_alphanumeric() || c == '_';
    let mut paths = Vec::new();
    for root in ["crate::", "super::"] {
        for (at, _) in text.match_indices(root) {
            let before = &text[..at];
            if before.ends_with(is_word) || before.ends_with("::") {
                continue;
            }
            let mut rest = &text[at..];
            let mut path = module.to_vec();
            loop {
                if let Some(after) = rest.strip_prefix("super::") {
                    path.pop();
                    rest = after;
                } else if let Some(after) = rest.strip_prefix("crate::") {
                    path.clear();
                    rest = after;
                } else {
                    break;
                }
            }
            while let Some((word, after)) =
                rest.split_once("::").filter(|(word, _)| word.chars().all(is_word))
            {
                path.push(word.to_owned());
                rest = after;
            }
            let names = match rest.strip_prefix('{') {
                Some(group) => outer_names(group),
                None => vec![rest.split(|c| !is_word(c)).next().unwrap_or_default()],
            };
            paths.extend(
                names.into_iter().map(|name| path.iter().cloned().chain([name.to_owned()]).collect()),
            );
        }
    }
    paths
}

/// The first word of each item of a group: of `a, b::{c, d}}` they are `a` and `b`.
fn outer_names(group: &str) -> Vec<&str> {
    let mut depth = 1;
    let mut names = Vec::new();
    let mut is_first = true;
    for word in group.split_inclusive(|c: char| !(c.is_alphanumeric() || c == '_')) {
        let name = word.trim_end_matches(|c: char| !(c.is_alphanumeric() || c == '_'));
        if depth == 1 && is_first && !name.is_empty() {
            names.push(name);
            is_first = false;
        }
        match word.chars().last() {
            Some('{') => depth += 1,
            Some('}') => depth -= 1,
            Some(',') if depth == 1 => is_first = true,
            _ => {}
        }
        if depth == 0 {
            break;
        }
    }
    names
}

/// The modules that lead back to themselves, those of one circle together.
fn circles(uses: &Uses) -> Vec<Vec<String>> {
    let reached: BTreeMap<&String, BTreeSet<&String>> = uses
        .keys()
        .map(|from| {
            let mut reached = BTreeSet::new();
            let mut open: Vec<&String> = uses[from].iter().collect();
            while let Some(next) = open.pop() {
                if reached.insert(next) {
                    open.extend(uses.get(next).into_iter().flatten());
                }
            }
            (from, reached)
        })
        .collect();
    let circle = |of: &String| -> Vec<String> {
        let both = reached[of].iter().filter(|to| reached.get(**to).is_some_and(|back| back.contains(of)));
        both.map(|name| (*name).clone()).collect()
    };
    let all: BTreeSet<Vec<String>> = uses.keys().map(circle).filter(|circle| !circle.is_empty()).collect();
    all.into_iter().collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    fn modules(texts: &[(&str, &str)]) -> BTreeMap<Module, String> {
        let module = |path: &str| path.split("::").map(str::to_owned).collect();
        texts.iter().map(|(path, text)| (module(path), (*text).to_owned())).collect()
    }

    #[test]
    fn circles_are_found_at_every_depth() {
        let crate_of = modules(&[
            ("a", "use crate::b::c::{X, Y};"),
            ("b::c", "use super::d::Z;"),
            ("b::d", "fn f() -> super::super::e::T {}"),
            ("e", "use crate::{f, a::{self, Q}};"),
            ("f", ""),
        ]);
        assert_eq!(circles(&uses_within(&crate_of, &[])), [["a", "b", "e"]]);
        assert!(circles(&uses_within(&crate_of, &["b".to_owned()])).is_empty());
    }

    #[test]
    fn paths_are_read_from_the_root() {
        let module = ["plan".to_owned(), "fate".to_owned()];
        let of = |text: &str| paths_in(text, &module).iter().map(|path| path.join("::")).collect::<Vec<_>>();
        assert_eq!(
            of("use super::{Plan, kind::{A, B}, scope};"),
            ["plan::Plan", "plan::kind", "plan::scope"]
        );
        assert_eq!(of("crate::spell::docs::of(x)"), ["spell::docs::of"]);
        assert_eq!(of("supercrate::x"), Vec::<String>::new());
    }
}
