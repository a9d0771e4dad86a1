//! How grown Python is used.

use jar_sprout_layout::{Doc, cat, hard, lines, nest, paragraphs, text};

use super::Sheet;
use super::settings::{PythonOptions, Types};
use super::{below_imports, dataclasses, entry, names};
use crate::plan::PlannedRoot;
use crate::prepare::{Dependency, Level};
use crate::settings::Entry;
use crate::spell::{Body, Dialect as _, GrownFile, Place, Program};

/// The level of the language, and the libraries of a project.
pub(super) fn project(options: &PythonOptions) -> Vec<GrownFile> {
    let foundation = options.abilities().foundation;
    let Level(major, minor) = foundation.level;
    let mut text = format!("[project]\nrequires-python = \">={major}.{minor}\"\n");
    let libraries = foundation.libraries.iter();
    let libraries: Vec<String> =
        libraries.map(|Dependency(name, version)| format!("\"{name}>={version}\"")).collect();
    if !libraries.is_empty() {
        text += &format!("dependencies = [{}]\n", libraries.join(", "));
    }
    vec![GrownFile::new("pyproject.toml", text)]
}

/// ```python
/// with open("hives.json", encoding="utf-8") as file:
///     text = file.read()
/// ```
pub(super) fn program(sheet: &mut Sheet<'_>, place: Place<'_>) -> Option<Program> {
    let kind = sheet.options.types;
    let comes_along = sheet.options.entry == Entry::Functions;
    let functions = if comes_along { Vec::new() } else { entry::functions(sheet, kind) };
    let plan = sheet.plan;
    let (root, [decode, encode]) = plan.first_entry();
    let name = plan.root_ident(root);
    let faults = match kind {
        Types::Pydantic => {
            sheet.needs.imports.insert("from pydantic import ValidationError");
            "ValidationError"
        }
        // A key that is not there, a value of another kind, a text that is none of a number or of JSON.
        Types::Dataclasses => "(KeyError, TypeError, ValueError)",
        Types::TypedDicts => "ValueError",
    };
    let mut named =
        if comes_along { vec![decode.to_string(), encode.to_string()] } else { vec![name.to_string()] };
    if let (false, Types::Dataclasses, PlannedRoot::Alias { ident, slot: _ }) = (comes_along, kind, root) {
        named.extend(dataclasses::functions_of(ident));
    }
    // In capitals first, as its linter has them.
    named.sort_by_key(|name| (!name.starts_with(char::is_uppercase), name.clone()));
    let file = sheet.options.file_name(plan.title());
    let module = format!("from {} import {}", file.trim_end_matches(".py"), named.join(", "));
    let groups = names::grouped_imports(&sheet.needs.imports);
    let groups = groups.into_iter().map(lines);
    let head = [text("from __future__ import annotations")].into_iter();
    let head = paragraphs(head.chain(groups).chain([text(module)]));
    let read = block(
        format!("with open({}, encoding=\"utf-8\") as file:", names::literal(place.sample)),
        [text("text = file.read()")],
    );
    let tried = [text(format!("response = {decode}(text)")), text(format!("print({encode}(response))"))];
    let told = text(format!("print(f\"does not fit {name}: {{error!r}}\")"));
    let main =
        lines([read, block("try:".to_owned(), tried), block(format!("except {faults} as error:"), [told])]);
    let run = sheet.options.file_name(plan.program().as_str());
    let reading = if comes_along {
        format!("response = {decode}(text)")
    } else {
        format!("response = {}", entry::reading(sheet, root, kind))
    };
    let whole = below_imports(head, functions.into_iter().chain([main]).collect());
    Some(Program { body: Body::Whole(run.clone(), whole), folder: None, run, reading })
}

/// Lines below a head that ends in a colon.
fn block(head: String, inside: impl IntoIterator<Item = Doc>) -> Doc {
    let inside = inside.into_iter().map(|line| cat([hard(), line]));
    cat([text(head), nest(cat(inside))])
}
