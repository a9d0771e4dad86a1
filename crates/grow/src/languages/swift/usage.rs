//! How grown Swift is used.

use jar_sprout_layout::{braces, cat, lines, paragraphs, text};

use super::Sheet;
use super::settings::SwiftOptions;
use super::{names, types};
use crate::prepare::Level;
use crate::settings::Entry;
use crate::spell::{Body, GrownFile, Place, Program};

/// The level of the language; the code stands on Foundation alone.
pub(super) fn project(options: &SwiftOptions) -> Vec<GrownFile> {
    let Level(major, minor) = options.abilities().foundation.level;
    let package = format!(
        "// swift-tools-version: {major}.{minor}\nimport PackageDescription\n\nlet package = Package(\n    name: \"app\",\n    platforms: [.iOS(.v15), .macOS(.v12)],\n    targets: [\n        .executableTarget(name: \"app\", path: \"Sources\")\n    ]\n)\n"
    );
    vec![GrownFile::new("Package.swift", package)]
}

/// ```swift
/// @main
/// enum ReadHivePage {
///     static func main() throws {
///         let data = try Data(contentsOf: URL(fileURLWithPath: "hives.json"))
///         …
///     }
/// }
/// ```
pub(super) fn program(sheet: &mut Sheet<'_>, place: Place<'_>) -> Option<Program> {
    let plan = sheet.plan;
    let (root, [decode, encode]) = plan.first_entry();
    let name = plan.root_ident(root);
    let inside = sheet.options.namespace.as_ref().map(|name| format!("{name}.")).unwrap_or_default();
    let ty = plan.root_type(root, |slot| types::slot(sheet, slot));
    let (reading, written) = if sheet.options.entry == Entry::Functions {
        (
            format!("let response = try {inside}{decode}(from: data)"),
            format!("try {inside}{encode}(response)"),
        )
    } else {
        (
            format!("let response = try JSONDecoder().decode({inside}{ty}.self, from: data)"),
            "try JSONEncoder().encode(response)".to_owned(),
        )
    };
    let written = if sheet.options.is_encoded {
        format!("print(String(decoding: {written}, as: UTF8.self))")
    } else {
        "print(response)".to_owned()
    };
    let read =
        format!("let data = try Data(contentsOf: URL(fileURLWithPath: {}))", names::LITERAL.of(place.sample));
    let name = name.as_str().trim_matches('`');
    let tried = cat([
        braces("do", [text(reading.clone()), text(written)]),
        text(" "),
        braces(
            "catch let error as DecodingError",
            [text(format!("print(\"does not fit {name}: \\(error)\")"))],
        ),
    ]);
    let main = braces("static func main() throws", [text(read), tried]);
    // It stands beside the namespace of the types, if they have one.
    let program = braces(format!("enum {}", plan.program()), [main]);
    let file = format!("{}.swift", plan.program());
    Some(Program {
        body: Body::Whole(
            file.clone(),
            paragraphs([text("import Foundation"), lines([text("@main"), program])]),
        ),
        folder: None,
        run: file,
        reading,
    })
}
