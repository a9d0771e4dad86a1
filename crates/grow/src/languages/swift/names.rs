//! Swift's names: casing, keywords, and what is taken.

use crate::plan::{
    NamePlace, Naming, NothingNames, OwnName, UnionCaseKind, camel_case_with_initialisms, pascal_case,
};
use crate::spell::Literal;

pub(super) const NAMING: Naming = Naming {
    type_case: pascal_case,
    member_case: Some(camel_case_with_initialisms),
    keeps_capitals: false,
    case_case: camel_case_with_initialisms,
    cases: NamePlace::Type,
    union_case: camel_case_with_initialisms,
    union_cases: NamePlace::Type,
    reserved_types: TAKEN_TYPES,
    reserved_members: TAKEN_MEMBERS,
    reserved_cases: &[],
    reserved_union_cases: TAKEN_CASES,
    unshared: Some(&["unknown"]),
    union_case_kind: UnionCaseKind::Value,
    own_name: OwnName::Free,
    nothing: NothingNames::ByWords,
    escape,
    function_case: camel_case_with_initialisms,
};

pub(super) const LITERAL: Literal = Literal {
    quote: '"',
    escapes: &[('"', "\\\""), ('\\', "\\\\"), ('\n', "\\n"), ('\r', "\\r"), ('\t', "\\t"), ('\0', "\\0")],
    character: |character| format!("\\u{{{:x}}}", u32::from(character)),
};

/// The keywords of "The Swift Programming Language" that a name may only have in backticks.
const KEYWORDS: &[&str] = &[
    "Any",
    "as",
    "associatedtype",
    "await",
    "break",
    "case",
    "catch",
    "class",
    "continue",
    "default",
    "defer",
    "deinit",
    "do",
    "else",
    "enum",
    "extension",
    "fallthrough",
    "false",
    "fileprivate",
    "for",
    "func",
    "guard",
    "if",
    "import",
    "in",
    "inout",
    "internal",
    "is",
    "let",
    "nil",
    "operator",
    "precedencegroup",
    "private",
    "protocol",
    "public",
    "repeat",
    "rethrows",
    "return",
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

/// Names that stand for something else behind a dot, and what grown types have of their own.
const TAKEN_MEMBERS: &[&str] = &[
    "Protocol",
    "Self",
    "Type",
    "hashValue",
    "init",
    "intValue",
    "none",
    "rawValue",
    "self",
    "some",
    "stringValue",
];

/// The same for the cases of an enum.
const TAKEN_CASES: &[&str] =
    &["Protocol", "Self", "Type", "hashValue", "init", "none", "self", "some", "unknown"];

/// Whether a type of this name would hide one that files see.
pub(super) fn is_taken_type(name: &str) -> bool {
    TAKEN_TYPES.contains(&name) || KEYWORDS.contains(&name)
}

/// Types of the standard library and of Foundation, views that many files import, and what grown code declares.
const TAKEN_TYPES: &[&str] = &[
    "Actor",
    "Any",
    "AnyHashable",
    "AnyObject",
    "Array",
    "Binding",
    "Bool",
    "BooleanText",
    "Box",
    "Bundle",
    "Button",
    "Calendar",
    "CaseIterable",
    "Character",
    "Clock",
    "Codable",
    "CodingKey",
    "CodingKeys",
    "Collection",
    "Color",
    "Comparable",
    "Data",
    "Date",
    "DateComponents",
    "DateInterval",
    "Decimal",
    "DecimalText",
    "Decodable",
    "Decoder",
    "DecodingError",
    "Dictionary",
    "Double",
    "DoubleText",
    "Duration",
    "Encodable",
    "Encoder",
    "EncodingError",
    "Environment",
    "EpochMilliseconds",
    "EpochSeconds",
    "Equatable",
    "Error",
    "Float",
    "Font",
    "Form",
    "Foundation",
    "Group",
    "Hashable",
    "Hasher",
    "ISODate",
    "Identifiable",
    "Image",
    "IndexPath",
    "IndexSet",
    "Int",
    "Int16",
    "Int32",
    "Int64",
    "Int8",
    "IntegerText",
    "Iterator",
    "JSONDecoder",
    "JSONEncoder",
    "JSONText",
    "JSONValue",
    "Label",
    "Link",
    "List",
    "Locale",
    "MainActor",
    "Maybe",
    "Measurement",
    "Menu",
    "Mirror",
    "Never",
    "NothingWords",
    "Notification",
    "NotificationCenter",
    "Numeric",
    "Operation",
    "OptionSet",
    "Optional",
    "OtherKey",
    "Path",
    "Process",
    "ProcessInfo",
    "Progress",
    "Protocol",
    "Range",
    "RawRepresentable",
    "Regex",
    "Result",
    "Scanner",
    "Section",
    "Selector",
    "Self",
    "Sendable",
    "Sequence",
    "Set",
    "Shape",
    "State",
    "Stream",
    "String",
    "Substring",
    "Swift",
    "Tab",
    "TagKey",
    "Task",
    "Text",
    "Thread",
    "TimeInterval",
    "TimeZone",
    "Timer",
    "Toggle",
    "Type",
    "UInt",
    "UInt16",
    "UInt32",
    "UInt64",
    "UInt8",
    "URL",
    "URLComponents",
    "URLRequest",
    "URLSession",
    "UUID",
    "Unit",
    "UserDefaults",
    "View",
    "Void",
    "Window",
];

fn escape(name: String) -> String {
    if KEYWORDS.contains(&name.as_str()) { format!("`{name}`") } else { name }
}

/// A name before the colon of an argument or behind a dot, where only these are still read as what they are elsewhere.
pub(super) fn label(name: &str) -> &str {
    let bare = name.trim_matches('`');
    if matches!(bare, "inout" | "let" | "var" | "init" | "self" | "Self" | "Type" | "Protocol") {
        name
    } else {
        bare
    }
}

#[cfg(test)]
mod tests {
    use jar_sprout_model::Words;

    use super::*;

    #[test]
    fn keywords_take_backticks() {
        for keyword in KEYWORDS {
            assert_eq!(escape((*keyword).to_owned()), format!("`{keyword}`"));
        }
        assert_eq!(escape("größe".to_owned()), "größe");
        assert_eq!(["`class`", "`let`", "hive"].map(label), ["class", "`let`", "hive"]);
    }

    #[test]
    fn initialisms_keep_their_capitals_but_at_the_start() {
        let check = |name: &str, expected: &str| {
            assert_eq!(camel_case_with_initialisms(&Words::split(name)), expected);
        };
        check("image_url", "imageURL");
        check("url_list", "urlList");
        check("sensorIDs", "sensorIDs");
        check("id", "id");
        check("24h", "value24h");
        check("a½", "aubd");
    }

    #[test]
    fn nothing_is_put_into_a_literal() {
        assert_eq!(LITERAL.of("a\"\\(b)\n\u{202E}"), r#""a\"\\(b)\n\u{202e}""#);
    }
}
