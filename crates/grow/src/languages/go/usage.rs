//! How grown Go is used.

use jar_sprout_layout::{braces, cat, hard, lines, nest, paragraphs, text};

use super::Sheet;
use super::settings::GoOptions;
use super::{names, types};
use crate::prepare::Level;
use crate::settings::Entry;
use crate::spell::{Body, GrownFile, Place, Program};

/// The module of the program: yours has another name.
const MODULE: &str = "example.com/app";

/// The level of the language; the code stands on the standard library alone.
pub(super) fn project(options: &GoOptions) -> Vec<GrownFile> {
    let Level(major, minor) = options.abilities().foundation.level;
    vec![GrownFile::new("go.mod", format!("module {MODULE}\n\ngo {major}.{minor}\n"))]
}

/// ```go
/// func main() {
///     data, err := os.ReadFile("hives.json")
///     …
/// }
/// ```
pub(super) fn program(sheet: &mut Sheet<'_>, place: Place<'_>) -> Option<Program> {
    let plan = sheet.plan;
    let package = &sheet.options.package;
    let (root, [decode, encode]) = plan.first_entry();
    let name = plan.root_ident(root);
    let is_path = |c: char| c.is_ascii_alphanumeric() || "-_/.".contains(c);
    let folder = place.code.filter(|folder| !folder.contains("..") && folder.chars().all(is_path));
    let folder = folder.unwrap_or(package).trim_matches('/');
    let comes_along = sheet.options.entry == Entry::Functions;
    // A pointer, where it may be null.
    let ty = plan.root_type(root, |slot| types::slot(sheet, slot));
    let pointer = "*".repeat(ty.len() - ty.trim_start_matches('*').len());
    let (read, reading, written) = if comes_along {
        let read = format!("response, err := {package}.{decode}(data)");
        (vec![read.clone()], read, format!("{package}.{encode}(response)"))
    } else {
        let declared = format!("var response {pointer}{package}.{name}");
        let read = "json.Unmarshal(data, &response)";
        let reading = format!("{declared}; err := {read}");
        (vec![declared, format!("err = {read}")], reading, "json.Marshal(response)".to_owned())
    };
    let of_errors = |told: String| braces("if err != nil", [text(told)]);
    let fatal = || of_errors("log.Fatal(err)".to_owned());
    let mut body =
        vec![text(format!("data, err := os.ReadFile({})", names::LITERAL.of(place.sample))), fatal()];
    body.extend(read.into_iter().map(text));
    body.push(of_errors(format!("log.Fatalf(\"does not fit {name}: %v\", err)")));
    body.extend([text(format!("written, err := {written}")), fatal(), text("fmt.Println(string(written))")]);
    let json = (!comes_along).then_some("encoding/json");
    let standard = json.into_iter().chain(["fmt", "log", "os"]);
    let standard = lines(standard.map(|path| text(format!("\"{path}\""))));
    let imports = paragraphs([standard, text(format!("\"{MODULE}/{folder}\""))]);
    let imports = cat([text("import ("), nest(cat([hard(), imports])), hard(), text(")")]);
    Some(Program {
        body: Body::Whole(
            "main.go".to_owned(),
            paragraphs([text("package main"), imports, braces("func main()", body)]),
        ),
        folder: Some(folder.to_owned()),
        run: "main.go".to_owned(),
        reading,
    })
}
