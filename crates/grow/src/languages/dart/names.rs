//! Dart's names: casing, keywords, and what is taken. Its identifiers are ASCII alone.

use crate::plan::{
    NamePlace, Naming, NothingNames, OwnName, UnionCaseKind, camel_case, in_ascii, pascal_case,
};
use crate::spell::{self, Literal};

pub(super) const NAMING: Naming = Naming {
    type_case: |words| pascal_case(&in_ascii(words)),
    member_case: Some(|words| camel_case(&in_ascii(words))),
    keeps_capitals: false,
    case_case: |words| camel_case(&in_ascii(words)),
    cases: NamePlace::Type,
    union_case: |words| pascal_case(&in_ascii(words)),
    // Dart has no types inside types.
    union_cases: NamePlace::Package,
    reserved_types: TAKEN_TYPES,
    reserved_members: TAKEN_MEMBERS,
    reserved_cases: &["value"],
    reserved_union_cases: &[],
    unshared: Some(&["toJson", "value"]),
    union_case_kind: UnionCaseKind::Type,
    own_name: OwnName::Taken,
    nothing: NothingNames::ByWords,
    escape: std::convert::identity,
    function_case: |words| camel_case(&in_ascii(words)),
};

/// In single quotes, where `$` is special.
pub(super) const LITERAL: Literal = Literal {
    quote: '\'',
    escapes: &[('\'', "\\'"), ('\\', "\\\\"), ('$', "\\$"), ('\n', "\\n"), ('\r', "\\r"), ('\t', "\\t")],
    character: |character| format!("\\u{{{:x}}}", u32::from(character)),
};

/// Keywords that may not be names, or read badly as such; what every object has, the types in small letters, and what
/// grown classes have of their own.
const TAKEN_MEMBERS: &[&str] = &[
    "abstract",
    "as",
    "assert",
    "async",
    "await",
    "bool",
    "break",
    "case",
    "catch",
    "class",
    "const",
    "continue",
    "copyWith",
    "covariant",
    "deepEquals",
    "deepHash",
    "default",
    "deferred",
    "do",
    "double",
    "dynamic",
    "else",
    "enum",
    "extends",
    "extension",
    "external",
    "factory",
    "false",
    "final",
    "finally",
    "for",
    "fromJson",
    "hashCode",
    "if",
    "implements",
    "in",
    "int",
    "is",
    "late",
    "mixin",
    "new",
    "noSuchMethod",
    "null",
    "num",
    "operator",
    "override",
    "required",
    "rethrow",
    "return",
    "runtimeType",
    "sealed",
    "static",
    "super",
    "switch",
    "this",
    "throw",
    "toJson",
    "toString",
    "true",
    "try",
    "typedef",
    "var",
    "void",
    "while",
    "with",
    "yield",
];

/// Types of `dart:core`, and what grown code declares.
const TAKEN_TYPES: &[&str] = &[
    "ArgumentError",
    "AssertionError",
    "BigInt",
    "Comparable",
    "ConcurrentModificationError",
    "DateTime",
    "Deprecated",
    "Duration",
    "Enum",
    "EpochMilliseconds",
    "EpochSeconds",
    "Error",
    "Exception",
    "Expando",
    "Finalizer",
    "FormatException",
    "Function",
    "Future",
    "FutureOr",
    "IndexError",
    "Invocation",
    "IsoDate",
    "Iterable",
    "Iterator",
    "JsonEnum",
    "List",
    "Map",
    "MapEntry",
    "Match",
    "Maybe",
    "Never",
    "NoSuchMethodError",
    "Null",
    "Object",
    "Pattern",
    "RangeError",
    "Record",
    "RegExp",
    "RegExpMatch",
    "RuneIterator",
    "Runes",
    "Set",
    "Sink",
    "StackOverflowError",
    "StackTrace",
    "StateError",
    "Stopwatch",
    "Stream",
    "String",
    "StringBuffer",
    "StringSink",
    "Symbol",
    "Type",
    "TypeError",
    "UnimplementedError",
    "UnsupportedError",
    "Uri",
    "UriData",
    "WeakReference",
];

/// The folder of a file itself, as the way to another one.
pub(super) const HERE: &str = ".";

/// `import '../shared/iso_date.dart';`
pub(super) fn import(way: &str, file: &str) -> String {
    if way == HERE { format!("import '{file}';") } else { format!("import '{way}/{file}';") }
}

/// What a line of helper code declares.
pub(super) fn declared(line: &'static str) -> Option<&'static str> {
    spell::declared(line, &["class", "bool", "int"])
}

#[cfg(test)]
mod tests {
    use jar_sprout_model::Words;

    use super::*;

    #[test]
    fn names_are_ascii() {
        let check = |name: &str, expected: &str| {
            assert_eq!(camel_case(&in_ascii(&Words::split(name))), expected);
        };
        check("größe_cm", "grosseCm");
        check("honey_kg", "honeyKg");
        check("🍯", "u1f36f");
    }

    #[test]
    fn nothing_is_put_into_a_literal() {
        assert_eq!(LITERAL.of("a'$b${c}\\\n\u{202E}"), r"'a\'\$b\${c}\\\n\u{202e}'");
    }
}
