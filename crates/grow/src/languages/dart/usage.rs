//! How grown Dart is used.

use jar_sprout_layout::{braces, cat, lines, paragraphs, print, text};

use super::Sheet;
use super::settings::DartOptions;
use super::{ABOUT, entry, names};
use crate::prepare::{Dependency, Level};
use crate::settings::Entry;
use crate::spell::{Body, Dialect as _, GrownFile, Place, Program};

/// What its people call the tool that writes the other half of annotated code, with its runner.
const BUILDERS: &str = "dev_dependencies:\n  build_runner: any\n  json_serializable: any\n";

/// The level of the language, and the libraries of a package.
pub(super) fn project(options: &DartOptions) -> Vec<GrownFile> {
    let foundation = options.abilities().foundation;
    let Level(major, minor) = foundation.level;
    let mut text = format!("environment:\n  sdk: ^{major}.{minor}.0\n");
    if !foundation.libraries.is_empty() {
        text += "\ndependencies:\n";
        for Dependency(name, version) in foundation.libraries {
            text += &format!("  {name}: ^{version}\n");
        }
        text += &format!("\n{BUILDERS}");
    }
    vec![GrownFile::new("pubspec.yaml", text)]
}

/// ```dart
/// void main() {
///   final text = File('hives.json').readAsStringSync();
///   …
/// }
/// ```
pub(super) fn program(sheet: &mut Sheet<'_>, place: Place<'_>) -> Option<Program> {
    let comes_along = sheet.options.entry == Entry::Functions;
    let functions = if comes_along { Vec::new() } else { entry::functions(sheet) };
    let plan = sheet.plan;
    let (root, [decode, encode]) = plan.first_entry();
    let name = plan.root_ident(root);
    // A type of theirs would be taken for the system's.
    let (import, file) = match plan.find("File") {
        Some(_) => ("import 'dart:io' as io;", "io.File"),
        None => ("import 'dart:io';", "File"),
    };
    let convert = (!comes_along).then(|| text("import 'dart:convert';"));
    let platform = lines(convert.into_iter().chain([text(import)]));
    let module = text(format!("import '{}';", sheet.options.file_name(plan.title())));
    let tried =
        [text(format!("final response = {decode}(text);")), text(format!("print({encode}(response));"))];
    let told = text(format!("print('does not fit {name}: $error');"));
    let main = [
        text(format!("final text = {file}({}).readAsStringSync();", names::LITERAL.of(place.sample))),
        cat([braces("try", tried), text(" "), braces("on Object catch (error)", [told])]),
    ];
    let main = braces("void main()", main);
    let run = sheet.options.file_name(plan.program().as_str());
    let reading = if comes_along {
        format!("final response = {decode}(text);")
    } else {
        format!("final response = {};", print(&entry::read(sheet, root), &ABOUT.style))
    };
    Some(Program {
        body: Body::Whole(
            run.clone(),
            paragraphs([platform, module].into_iter().chain(functions).chain([main])),
        ),
        folder: None,
        run,
        reading,
    })
}
