//! Java's names: casing, keywords, and what is taken.

use std::borrow::Cow;

use crate::plan::{
    NamePlace, Naming, NothingNames, OwnName, UnionCaseKind, camel_case, pascal_case, screaming_case,
};
use crate::spell::{self, Literal, backslash_u};

pub(super) const NAMING: Naming = Naming {
    type_case: pascal_case,
    member_case: Some(camel_case),
    keeps_capitals: false,
    case_case: screaming_case,
    cases: NamePlace::Type,
    union_case: pascal_case,
    union_cases: NamePlace::Type,
    reserved_types: TAKEN_TYPES,
    // What every object has, which no record component may be called.
    reserved_members: &[
        "clone",
        "finalize",
        "getClass",
        "hashCode",
        "notify",
        "notifyAll",
        "toString",
        "wait",
    ],
    reserved_cases: &[],
    reserved_union_cases: TAKEN_TYPES,
    unshared: Some(&["value"]),
    union_case_kind: UnionCaseKind::Type,
    own_name: OwnName::Free,
    nothing: NothingNames::ByType,
    escape,
    function_case: camel_case,
};

/// Java undoes `\u` escapes before it looks for literals (JLS 3.3), so that what ends a line or a literal must not
/// be written in that way.
pub(super) const LITERAL: Literal = Literal {
    quote: '"',
    escapes: &[('"', "\\\""), ('\\', "\\\\"), ('\n', "\\n"), ('\r', "\\r"), ('\t', "\\t")],
    character: |character| {
        if u32::from(character) <= 0xFF {
            format!("\\{:03o}", u32::from(character))
        } else {
            backslash_u(character)
        }
    },
};

/// Keywords, reserved and contextual, and literals (JLS 3.9, 3.10).
pub(super) const KEYWORDS: &[&str] = &[
    "abstract",
    "assert",
    "boolean",
    "break",
    "byte",
    "case",
    "catch",
    "char",
    "class",
    "const",
    "continue",
    "default",
    "do",
    "double",
    "else",
    "enum",
    "extends",
    "false",
    "final",
    "finally",
    "float",
    "for",
    "goto",
    "if",
    "implements",
    "import",
    "instanceof",
    "int",
    "interface",
    "long",
    "native",
    "new",
    "null",
    "package",
    "private",
    "protected",
    "public",
    "record",
    "return",
    "sealed",
    "short",
    "static",
    "strictfp",
    "super",
    "switch",
    "synchronized",
    "this",
    "throw",
    "throws",
    "transient",
    "true",
    "try",
    "var",
    "void",
    "volatile",
    "while",
    "yield",
    "permits",
];

/// Types of `java.lang`, and what grown code imports or declares.
const TAKEN_TYPES: &[&str] = &[
    "Adapter",
    "AutoCloseable",
    "BeanProperty",
    "BigDecimal",
    "BigDecimalInLettersAdapter",
    "BigInteger",
    "Boolean",
    "BooleanInLettersAdapter",
    "Byte",
    "CharSequence",
    "Character",
    "Class",
    "ClassLoader",
    "Cloneable",
    "Comparable",
    "Compiler",
    "ContextualDeserializer",
    "Deprecated",
    "DeserializationContext",
    "DeserializationFeature",
    "Deserializer",
    "Double",
    "DoubleInLettersAdapter",
    "Enum",
    "EpochMillisecondsAdapter",
    "EpochSecondsAdapter",
    "Error",
    "Exception",
    "Float",
    "FunctionalInterface",
    "Gson",
    "GsonBuilder",
    "IOException",
    "Instant",
    "Integer",
    "Iterable",
    "JacksonAnnotationsInside",
    "JavaType",
    "JsonAdapter",
    "JsonArray",
    "JsonCreator",
    "JsonDeserializationContext",
    "JsonDeserialize",
    "JsonDeserializer",
    "JsonElement",
    "JsonEpochMilliseconds",
    "JsonEpochSeconds",
    "JsonFormat",
    "JsonGenerator",
    "JsonInText",
    "JsonInTextAdapter",
    "JsonInclude",
    "JsonLocalDate",
    "JsonLocalDateTime",
    "JsonLocalTime",
    "JsonNode",
    "JsonObject",
    "JsonOffsetDateTime",
    "JsonParseException",
    "JsonParser",
    "JsonProcessingException",
    "JsonNaming",
    "JsonProperty",
    "JsonReader",
    "JsonSerialize",
    "JsonSerializer",
    "JsonSubTypes",
    "JsonToken",
    "JsonTypeInfo",
    "JsonValue",
    "JsonWriter",
    "List",
    "LocalDate",
    "LocalDateAdapter",
    "LocalDateTime",
    "LocalDateTimeAdapter",
    "LocalTime",
    "LocalTimeAdapter",
    "Long",
    "LongInLettersAdapter",
    "Map",
    "Math",
    "Maybe",
    "Module",
    "Number",
    "Object",
    "ObjectCodec",
    "ObjectMapper",
    "OffsetDateTime",
    "OrNothing",
    "OrNothingAdapter",
    "OffsetDateTimeAdapter",
    "Override",
    "Package",
    "Process",
    "Readable",
    "Record",
    "Runnable",
    "Runtime",
    "SafeVarargs",
    "SerializedName",
    "Serializer",
    "SerializerProvider",
    "Short",
    "StackWalker",
    "StrictMath",
    "String",
    "StringBuffer",
    "StringBuilder",
    "StringWriter",
    "SuppressWarnings",
    "System",
    "TextAdapter",
    "Thread",
    "ThreadLocal",
    "Throwable",
    "TypeAdapter",
    "TypeAdapterFactory",
    "TypeReference",
    "TypeToken",
    "UnionAdapter",
    "Unknown",
    "Void",
];

/// Keywords take a `_`.
fn escape(name: String) -> String {
    if KEYWORDS.contains(&name.as_str()) { format!("{name}Value") } else { name }
}

/// What a line of helper code declares.
pub(super) fn declared(line: &'static str) -> Option<&'static str> {
    spell::declared(line, &["class", "record", "@interface"])
}

/// A line of helper code, as it stands in a package of its own: types, constructors, and what belongs to no object are
/// public, as far as nothing is said of them.
pub(super) fn opened(line: &'static str) -> Cow<'static, str> {
    let code = line.trim_start();
    let margin = &line[..line.len() - code.len()];
    let is_type = margin.is_empty() && declared(line).is_some();
    let is_constructor = || {
        let name = code.split('(').next().unwrap_or_default();
        matches!(margin.len(), 2 | 4)
            && code.ends_with('{')
            && name.len() < code.len()
            && name.starts_with(|c: char| c.is_ascii_uppercase())
            && name.chars().all(|c| c.is_ascii_alphanumeric())
    };
    let is_hidden =
        !code.starts_with("public ") && (is_type || code.starts_with("static ") || is_constructor());
    if is_hidden { Cow::Owned(format!("{margin}public {code}")) } else { Cow::Borrowed(line) }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn keywords_are_values() {
        for keyword in KEYWORDS {
            assert_eq!(escape((*keyword).to_owned()), format!("{keyword}Value"));
        }
        assert_eq!(escape("größe".to_owned()), "größe");
    }

    #[test]
    fn no_literal_has_an_escape_that_java_undoes_too_early() {
        assert_eq!(LITERAL.of("a\"\\u0022\n\0\u{85}"), r#""a\"\\u0022\n\000\205""#);
        assert_eq!(LITERAL.of("\u{2028}🐝"), "\"\\u2028🐝\"");
    }
}
