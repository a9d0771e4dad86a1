//! C#'s names: casing, keywords, and what is taken.

use crate::plan::{NamePlace, Naming, NothingNames, OwnName, PlannedField, UnionCaseKind, pascal_case};
use crate::spell::renaming::{
    RenameRule, Renaming, camel_words, in_camel_case, in_kebab_case, in_snake_case,
};
use crate::spell::{self, Literal, backslash_u};

pub(super) const NAMING: Naming = Naming {
    type_case: pascal_case,
    member_case: Some(pascal_case),
    keeps_capitals: false,
    case_case: pascal_case,
    cases: NamePlace::Type,
    union_case: pascal_case,
    union_cases: NamePlace::Type,
    reserved_types: TAKEN_TYPES,
    // What every object has, what every record has, and what grown types have of their own.
    reserved_members: &[
        "Clone",
        "Converter",
        "Deconstruct",
        "EqualityContract",
        "Equals",
        "Finalize",
        "GetHashCode",
        "GetType",
        "MemberwiseClone",
        "PrintMembers",
        "ReferenceEquals",
        "ToString",
    ],
    reserved_cases: &["Value"],
    reserved_union_cases: TAKEN_TYPES,
    unshared: None,
    union_case_kind: UnionCaseKind::Type,
    // The compiler would take it for a constructor (CS0542).
    own_name: OwnName::Taken,
    nothing: NothingNames::ByWords,
    escape,
    function_case: pascal_case,
};

pub(super) const LITERAL: Literal = Literal {
    quote: '"',
    escapes: &[('"', "\\\""), ('\\', "\\\\"), ('\n', "\\n"), ('\r', "\\r"), ('\t', "\\t")],
    character: backslash_u,
};

/// The keywords of the C# language, none of which may stand in a namespace.
pub(super) const KEYWORDS: &[&str] = &[
    "abstract",
    "as",
    "base",
    "bool",
    "break",
    "byte",
    "case",
    "catch",
    "char",
    "checked",
    "class",
    "const",
    "continue",
    "decimal",
    "default",
    "delegate",
    "do",
    "double",
    "else",
    "enum",
    "event",
    "explicit",
    "extern",
    "false",
    "finally",
    "fixed",
    "float",
    "for",
    "foreach",
    "goto",
    "if",
    "implicit",
    "in",
    "int",
    "interface",
    "internal",
    "is",
    "lock",
    "long",
    "namespace",
    "new",
    "null",
    "object",
    "operator",
    "out",
    "override",
    "params",
    "private",
    "protected",
    "public",
    "readonly",
    "ref",
    "return",
    "sbyte",
    "sealed",
    "short",
    "sizeof",
    "stackalloc",
    "static",
    "string",
    "struct",
    "switch",
    "this",
    "throw",
    "true",
    "try",
    "typeof",
    "uint",
    "ulong",
    "unchecked",
    "unsafe",
    "ushort",
    "using",
    "virtual",
    "void",
    "volatile",
    "while",
];

/// Types of `System` and of what grown code uses or declares.
const TAKEN_TYPES: &[&str] = &[
    "Action",
    "Activator",
    "Array",
    "Attribute",
    "BigInteger",
    "BigIntegerConverter",
    "BindingFlags",
    "Boolean",
    "BooleanInLettersConverter",
    "Buffer",
    "Byte",
    "CamelCaseNamingStrategy",
    "Char",
    "Clone",
    "Console",
    "Convert",
    "Converter",
    "CultureInfo",
    "DateOnly",
    "DateTime",
    "DateTimeConverter",
    "DateTimeKind",
    "DateTimeOffset",
    "Decimal",
    "DecimalInLettersConverter",
    "Deconstruct",
    "Delegate",
    "Dictionary",
    "Double",
    "DoubleInLettersConverter",
    "Enum",
    "EnumMember",
    "EnumMemberAttribute",
    "EnumMemberConverter",
    "Enumerable",
    "Environment",
    "EpochMillisecondsConverter",
    "EpochSecondsConverter",
    "EqualityContract",
    "Equals",
    "Exception",
    "Finalize",
    "Func",
    "GC",
    "GetHashCode",
    "GetType",
    "Guid",
    "Half",
    "IList",
    "IReadOnlyDictionary",
    "IReadOnlyList",
    "InLettersConverter",
    "Index",
    "Int128",
    "Int16",
    "Int32",
    "Int64",
    "JArray",
    "JObject",
    "JToken",
    "JValue",
    "Json",
    "JsonConvert",
    "JsonConverter",
    "JsonDocument",
    "JsonElement",
    "JsonException",
    "JsonIgnore",
    "JsonIgnoreCondition",
    "JsonObject",
    "JsonProperty",
    "JsonPropertyName",
    "JsonReader",
    "JsonSerializationException",
    "JsonSerializer",
    "JsonSerializerOptions",
    "JsonTextConverter",
    "JsonTextReader",
    "JsonToken",
    "JsonTokenType",
    "JsonWriter",
    "KebabCaseNamingStrategy",
    "KeyValuePair",
    "Lazy",
    "List",
    "LongInLettersConverter",
    "Math",
    "Maybe",
    "MemberwiseClone",
    "Memory",
    "NullValueHandling",
    "Nullable",
    "NumberStyles",
    "Object",
    "OrNothing",
    "OrNothingAttribute",
    "Predicate",
    "PrintMembers",
    "Progress",
    "Random",
    "Range",
    "ReferenceEquals",
    "Required",
    "Rfc3339Converter",
    "SByte",
    "Single",
    "SnakeCaseNamingStrategy",
    "Span",
    "String",
    "StringComparer",
    "StringEnumConverter",
    "StringReader",
    "StringWriter",
    "System",
    "Task",
    "TextConverter",
    "Thread",
    "TimeOnly",
    "TimeOnlyConverter",
    "TimeSpan",
    "TimeZone",
    "ToString",
    "Tuple",
    "Type",
    "UInt128",
    "UInt16",
    "UInt32",
    "UInt64",
    "Unknown",
    "Uri",
    "Utf8JsonReader",
    "Utf8JsonWriter",
    "Value",
    "ValueTuple",
    "ValueType",
    "Version",
    "Void",
    "WholeNumberConverter",
];

/// Names are in capitals, so that none is a keyword; characters beyond 16 bits stand in no identifier of C#.
fn escape(name: String) -> String {
    let is_plain = name.chars().all(|c| u32::from(c) <= 0xFFFF);
    let letter = |c: char| if u32::from(c) > 0xFFFF { format!("U{:x}", u32::from(c)) } else { c.to_string() };
    let name = if is_plain { name } else { name.chars().map(letter).collect() };
    if KEYWORDS.contains(&name.as_str()) { format!("@{name}") } else { name }
}

/// What a line of helper code declares.
pub(super) fn declared(line: &'static str) -> Option<&'static str> {
    spell::declared(line, &["class", "struct"])
}

/// The naming strategies of Newtonsoft.Json.
const STRATEGIES: &[RenameRule] = &[
    RenameRule { name: "SnakeCaseNamingStrategy", apply: in_snake_case },
    RenameRule { name: "CamelCaseNamingStrategy", apply: in_camel_case },
    RenameRule { name: "KebabCaseNamingStrategy", apply: in_kebab_case },
];

/// What makes the keys of most properties of their names.
pub(super) fn rename_rule(fields: &[&PlannedField<'_>]) -> Renaming {
    Renaming::of_fields(fields.iter().copied(), STRATEGIES, camel_words)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn odd_letters_are_spelled_out() {
        assert_eq!(escape("Größe".to_owned()), "Größe");
        assert_eq!(escape("A𠮷".to_owned()), "AU20bb7");
        assert_eq!(escape("this".to_owned()), "@this");
    }

    #[test]
    fn a_literal_says_what_the_text_says() {
        assert_eq!(LITERAL.of("a\"{b}\\\0\u{2028}"), r#""a\"{b}\\\u0000\u2028""#);
    }
}
