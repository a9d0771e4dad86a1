//! Grown code judged by grammars of its language, whether its compiler is at hand or not.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]

mod common;

use jar_sprout_grow::{Arrangement, Settings, find_language, grow};
use tree_sitter::{Language, Node, Parser};

/// Grows all that every language must carry, and lets a grammar read it.
#[track_caller]
fn check(key: &str, grammar: &Language, settings: &[(&str, &str)]) {
    let language = find_language(key).unwrap();
    let mut given = Settings::default();
    for (key, value) in settings {
        language.set(&mut given, key, value).unwrap();
    }
    let mut parser = Parser::new();
    parser.set_language(grammar).unwrap();
    let mut complaints = Vec::new();
    for proof in common::proofs() {
        for file in grow(&*language.dialect(&given), &proof.model, Arrangement::AsUsual) {
            let tree = parser.parse(&file.text, None).unwrap();
            complaints.extend(
                errors_in(tree.root_node(), &file.text)
                    .into_iter()
                    .map(|one| format!("{} {}: {one}", proof.name, file.name)),
            );
        }
    }
    assert!(complaints.is_empty(), "{}", complaints.join("\n"));
}

/// The places that the grammar cannot read.
fn errors_in(node: Node<'_>, text: &str) -> Vec<String> {
    if !node.has_error() {
        return Vec::new();
    }
    if node.is_error() || node.is_missing() {
        let place = node.start_position();
        let line = text.lines().nth(place.row).unwrap_or_default();
        return vec![format!("line {}: {line}", place.row + 1)];
    }
    let mut cursor = node.walk();
    node.children(&mut cursor).flat_map(|child| errors_in(child, text)).collect()
}

/// Reserved words of Swift, which its grammar takes for names.
const RESERVED: &[&str] = &[
    "Any",
    "as",
    "break",
    "case",
    "catch",
    "class",
    "continue",
    "default",
    "defer",
    "do",
    "else",
    "enum",
    "false",
    "for",
    "func",
    "guard",
    "if",
    "import",
    "in",
    "init",
    "inout",
    "is",
    "let",
    "nil",
    "operator",
    "private",
    "protocol",
    "public",
    "repeat",
    "rethrows",
    "return",
    "self",
    "Self",
    "static",
    "struct",
    "subscript",
    "super",
    "switch",
    "throw",
    "throws",
    "true",
    "try",
    "typealias",
    "var",
    "where",
    "while",
];

#[test]
fn no_name_in_swift_is_a_reserved_word() {
    let swift = find_language("swift").unwrap();
    let mut met = 0;
    for proof in common::proofs() {
        for file in grow(&*swift.dialect(&Settings::default()), &proof.model, Arrangement::AsUsual) {
            for line in file.text.lines().map(str::trim) {
                let name = ["let ", "case ", "static let "].iter().find_map(|head| line.strip_prefix(head));
                let Some(name) = name else { continue };
                let name: String =
                    name.chars().take_while(|c| c.is_alphanumeric() || "_`".contains(*c)).collect();
                assert!(!RESERVED.contains(&name.as_str()), "{}: {line}", proof.name);
                met += 1;
            }
        }
    }
    assert!(met > 100, "names were met");
}

#[test]
fn swift() {
    check("swift", &tree_sitter_swift::LANGUAGE.into(), &[]);
    check("swift", &tree_sitter_swift::LANGUAGE.into(), &[("absent", "apart")]);
    let inside = [("namespace", "Hives"), ("absent", "apart"), ("entry", "functions"), ("access", "public")];
    check("swift", &tree_sitter_swift::LANGUAGE.into(), &inside);
    check("swift", &tree_sitter_swift::LANGUAGE.into(), &[("twins", "Dto")]);
    check("swift", &tree_sitter_swift::LANGUAGE.into(), &[("access", "public"), ("types", "classes")]);
    check("swift", &tree_sitter_swift::LANGUAGE.into(), &[("coding", "decode"), ("properties", "var")]);
}

#[test]
fn csharp() {
    check("csharp", &tree_sitter_c_sharp::LANGUAGE.into(), &[]);
    check(
        "csharp",
        &tree_sitter_c_sharp::LANGUAGE.into(),
        &[("library", "newtonsoft"), ("types", "classes")],
    );
    check("csharp", &tree_sitter_c_sharp::LANGUAGE.into(), &[("level", "7.3"), ("library", "newtonsoft")]);
}

#[test]
fn dart() {
    check("dart", &tree_sitter_dart::LANGUAGE.into(), &[]);
    let all = [("json", "json_annotation"), ("copy-with", "yes"), ("equality", "values")];
    check("dart", &tree_sitter_dart::LANGUAGE.into(), &all);
}
