//! Kotlin's names: casing, keywords, and what is taken.

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
    // Its getter would be `getClass`, which every object has.
    reserved_members: &["class"],
    reserved_cases: &[],
    reserved_union_cases: TAKEN_TYPES,
    unshared: Some(&["value"]),
    union_case_kind: UnionCaseKind::Type,
    own_name: OwnName::Free,
    nothing: NothingNames::ByType,
    escape,
    function_case: camel_case,
};

/// Kotlin's string templates make `$` special.
pub(super) const LITERAL: Literal = Literal {
    quote: '"',
    escapes: &[
        ('"', "\\\""),
        ('\\', "\\\\"),
        ('$', "\\$"),
        ('\n', "\\n"),
        ('\r', "\\r"),
        ('\t', "\\t"),
        ('\u{8}', "\\b"),
    ],
    character: backslash_u,
};

/// The hard keywords of the Kotlin specification.
pub(super) const KEYWORDS: &[&str] = &[
    "as",
    "break",
    "class",
    "continue",
    "do",
    "else",
    "false",
    "for",
    "fun",
    "if",
    "in",
    "interface",
    "is",
    "null",
    "object",
    "package",
    "return",
    "super",
    "this",
    "throw",
    "true",
    "try",
    "typealias",
    "typeof",
    "val",
    "var",
    "when",
    "while",
];

/// What Kotlin imports by default, and what grown code stands on.
const TAKEN_TYPES: &[&str] = &[
    "Annotation",
    "Any",
    "Array",
    "BeanProperty",
    "BigDecimal",
    "BigDecimalInLettersAdapter",
    "BigDecimalInLettersSerializer",
    "BigDecimalSerializer",
    "BigInteger",
    "BigIntegerSerializer",
    "Boolean",
    "BooleanInLettersAdapter",
    "BooleanInLettersSerializer",
    "Byte",
    "Char",
    "CharSequence",
    "Class",
    "Collection",
    "Companion",
    "Comparable",
    "ContextualDeserializer",
    "Deprecated",
    "DeserializationContext",
    "DeserializationFeature",
    "DeserializationStrategy",
    "Double",
    "DoubleInLettersAdapter",
    "DoubleInLettersSerializer",
    "EncodeDefault",
    "Enum",
    "EpochMillisecondsAdapter",
    "EpochMillisecondsSerializer",
    "EpochSecondsAdapter",
    "EpochSecondsSerializer",
    "Error",
    "Exception",
    "ExperimentalSerializationApi",
    "ExperimentalStdlibApi",
    "Float",
    "Function",
    "Gson",
    "GsonBuilder",
    "Held",
    "Instant",
    "Int",
    "Iterable",
    "Iterator",
    "JacksonAnnotationsInside",
    "JavaType",
    "Json",
    "JsonAdapter",
    "JsonArray",
    "JsonClass",
    "JsonContentPolymorphicSerializer",
    "JsonCreator",
    "JsonDecoder",
    "JsonDeserializationContext",
    "JsonDeserialize",
    "JsonDeserializer",
    "JsonElement",
    "JsonElementParceler",
    "JsonEncoder",
    "JsonEpochMilliseconds",
    "JsonEpochSeconds",
    "JsonFormat",
    "JsonGenerator",
    "JsonInText",
    "JsonInTextAdapter",
    "JsonInclude",
    "JsonMapper",
    "JsonNaming",
    "JsonNode",
    "JsonNodeParceler",
    "JsonNull",
    "JsonObject",
    "JsonObjectParceler",
    "JsonParser",
    "JsonPrimitive",
    "JsonProperty",
    "JsonReader",
    "JsonSerializationContext",
    "JsonSerialize",
    "JsonSerializer",
    "JsonSubTypes",
    "JsonText",
    "JsonTextSerializer",
    "JsonToken",
    "JsonTypeInfo",
    "JsonValue",
    "JsonWriter",
    "JvmInline",
    "JvmStatic",
    "KSerializer",
    "KotlinJsonAdapterFactory",
    "Lazy",
    "List",
    "LocalDate",
    "LocalDateSerializer",
    "LocalDateTime",
    "LocalDateTimeSerializer",
    "LocalTime",
    "LocalTimeSerializer",
    "Long",
    "LongInLettersAdapter",
    "LongInLettersSerializer",
    "Map",
    "Maybe",
    "Moshi",
    "MutableList",
    "MutableMap",
    "Nothing",
    "Number",
    "Object",
    "OffsetDateTime",
    "OrNothing",
    "OrNothingAdapter",
    "OrNothingSerializer",
    "OffsetDateTimeSerializer",
    "OptIn",
    "OtherKeysSerializer",
    "Override",
    "Pair",
    "Parcel",
    "Parcelable",
    "Parceler",
    "Parcelize",
    "Process",
    "RawValue",
    "Record",
    "Regex",
    "Result",
    "Runtime",
    "Sequence",
    "SerialName",
    "Serializable",
    "SerializedName",
    "Serializer",
    "SerializerProvider",
    "Set",
    "Short",
    "String",
    "StringWriter",
    "Suppress",
    "System",
    "TextAdapter",
    "Thread",
    "Throwable",
    "Throws",
    "Triple",
    "TypeAdapter",
    "TypeAdapterFactory",
    "TypeParceler",
    "TypeToken",
    "UByte",
    "UInt",
    "ULong",
    "UShort",
    "UnionAdapter",
    "UnionKey",
    "UnionTag",
    "Unit",
    "UseSerializers",
    "Void",
];

/// Imports are sorted with these packages last, as the linter and the common editors have it.
pub(super) fn import_group(name: &str) -> usize {
    let last = ["java.", "javax.", "kotlin."];
    last.iter().position(|package| name.starts_with(package)).map_or(0, |at| at + 1)
}

/// Backticks for keywords, and for letters that Unicode allows in identifiers and Kotlin does not.
fn escape(name: String) -> String {
    let is_plain = |c: char| c.is_ascii_alphanumeric() || c == '_' || unicode_ident::is_xid_start(c);
    if KEYWORDS.contains(&name.as_str()) || !name.chars().all(is_plain) { format!("`{name}`") } else { name }
}

/// What a line of helper code declares that stands for others to use.
pub(super) fn declared(line: &'static str) -> Option<&'static str> {
    let is_private = line.starts_with("private ");
    spell::declared(line, &["class", "interface", "object", "fun", "typealias"]).filter(|_| !is_private)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn keywords_and_odd_letters_take_backticks() {
        for keyword in KEYWORDS {
            assert_eq!(escape((*keyword).to_owned()), format!("`{keyword}`"));
        }
        assert_eq!(escape("größe".to_owned()), "größe");
        assert_eq!(escape("का".to_owned()), "`का`");
    }

    #[test]
    fn a_literal_says_what_the_text_says() {
        assert_eq!(LITERAL.of("a\"$b${c}\\\n"), r#""a\"\$b\${c}\\\n""#);
        assert_eq!(LITERAL.of("\0\u{2028}\u{202E}🐝"), "\"\\u0000\\u2028\\u202e🐝\"");
    }
}
