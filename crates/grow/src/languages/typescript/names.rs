//! TypeScript's names: casing, property keys, and what is taken.

use std::borrow::Cow;

use crate::plan::{NamePlace, Naming, NothingNames, OwnName, UnionCaseKind, camel_case, pascal_case};
use crate::spell::{Literal, backslash_u};

pub(super) const NAMING: Naming = Naming {
    type_case: pascal_case,
    // The types describe the JSON as it is: its keys are the properties.
    member_case: None,
    keeps_capitals: false,
    case_case: pascal_case,
    cases: NamePlace::Type,
    union_case: pascal_case,
    union_cases: NamePlace::Type,
    reserved_types: TAKEN_TYPES,
    reserved_members: &[],
    reserved_cases: &[],
    reserved_union_cases: &[],
    unshared: None,
    union_case_kind: UnionCaseKind::Type,
    own_name: OwnName::Free,
    nothing: NothingNames::ByWords,
    escape: std::convert::identity,
    function_case: camel_case,
};

/// A text in the quotes that leave it fewer escapes, double ones where it is the same.
pub(super) fn literal(text: &str) -> String {
    let count = |quote: char| text.matches(quote).count();
    let is_single = count('"') > count('\'');
    let (quote, escapes) = if is_single { ('\'', SINGLE_ESCAPES) } else { ('"', ESCAPES) };
    Literal { quote, escapes, character: backslash_u }.of(text)
}

const ESCAPES: &[(char, &str)] =
    &[('"', "\\\""), ('\\', "\\\\"), ('\n', "\\n"), ('\r', "\\r"), ('\t', "\\t")];

const SINGLE_ESCAPES: &[(char, &str)] =
    &[('\'', "\\'"), ('\\', "\\\\"), ('\n', "\\n"), ('\r', "\\r"), ('\t', "\\t")];

/// Global types that grown code uses, or whose name a reader would take for them.
const TAKEN_TYPES: &[&str] = &[
    "Array",
    "ArrayBuffer",
    "BigInt",
    "Boolean",
    "Date",
    "Error",
    "ExactDate",
    "Exclude",
    "Extract",
    "Function",
    "Infinity",
    "Intl",
    "Iterable",
    "Iterator",
    "JSON",
    "Limits",
    "Map",
    "Math",
    "NaN",
    "NonNullable",
    "Number",
    "Object",
    "Omit",
    "Parameters",
    "Partial",
    "Pick",
    "Promise",
    "Proxy",
    "Read",
    "Readonly",
    "Record",
    "Reflect",
    "RegExp",
    "Required",
    "ReturnType",
    "Set",
    "String",
    "Symbol",
    "Uint8Array",
    "WeakMap",
    "WeakSet",
];

/// A key as a property: quoted where it is no identifier.
pub(super) fn property_key(key: &str) -> Cow<'_, str> {
    let is_start = |c: char| c == '_' || c == '$' || unicode_ident::is_xid_start(c);
    let is_inside = |c: char| c == '_' || c == '$' || unicode_ident::is_xid_continue(c);
    let mut chars = key.chars();
    let is_identifier = chars.next().is_some_and(is_start) && chars.all(is_inside);
    if is_identifier { Cow::Borrowed(key) } else { Cow::Owned(literal(key)) }
}

/// `wire.honey_kg`, `wire["honey-kg"]`
pub(super) fn access(object: &str, wire: &str) -> String {
    let key = property_key(wire);
    if key.starts_with(['"', '\'']) { format!("{object}[{key}]") } else { format!("{object}.{key}") }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn keys_are_quoted_where_they_must_be() {
        let check = |key: &str, expected: &str| assert_eq!(property_key(key), expected);
        check("honey_kg", "honey_kg");
        check("$ref", "$ref");
        check("größe", "größe");
        check("class", "class");
        check("honey-kg", "\"honey-kg\"");
        check("1st", "\"1st\"");
        check("", "\"\"");
        check("a\"b\u{2028}", "'a\"b\\u2028'");
    }
}
