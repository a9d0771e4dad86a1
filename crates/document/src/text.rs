//! Texts of a document. Those that documents say all the time are numbers: they take no room of their own, and are
//! told apart without a look at their letters.

use std::borrow::Cow;
use std::fmt;
use std::ops::Deref;
use std::sync::LazyLock;

use rustc_hash::FxHashMap;

/// A key, or a value that is text.
#[derive(Clone, PartialEq, Eq)]
pub enum Text {
    /// A word of JSON Schema or OpenAPI; never [`Text::Other`].
    Known(Word),
    /// Any other text.
    Other(Box<str>),
}

impl Text {
    /// The word that it is, if it is one.
    #[inline]
    pub(crate) fn word(&self) -> Option<Word> {
        if let Self::Known(word) = self { Some(*word) } else { None }
    }
}

impl From<&str> for Text {
    fn from(text: &str) -> Self {
        Word::of(text).map_or_else(|| Self::Other(text.into()), Self::Known)
    }
}

impl From<String> for Text {
    fn from(text: String) -> Self {
        Word::of(&text).map_or_else(|| Self::Other(text.into()), Self::Known)
    }
}

impl From<Cow<'_, str>> for Text {
    fn from(text: Cow<'_, str>) -> Self {
        match text {
            Cow::Borrowed(text) => text.into(),
            Cow::Owned(text) => text.into(),
        }
    }
}

impl Deref for Text {
    type Target = str;

    #[inline]
    fn deref(&self) -> &str {
        match self {
            Self::Known(word) => word.as_str(),
            Self::Other(text) => text,
        }
    }
}

impl fmt::Debug for Text {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        fmt::Debug::fmt(&**self, f)
    }
}

macro_rules! words {
    ($($name:ident $text:literal)*) => {
        /// What documents say all the time: keywords of JSON Schema and of OpenAPI, and what stands under them.
        #[allow(missing_docs, reason = "each is the text it stands for")]
        #[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
        pub enum Word { $($name,)* }

        impl Word {
            const ALL: &[(&str, Self)] = &[$(($text, Self::$name),)*];
            const TEXTS: &[&str] = &[$($text,)*];
        }
    };
}

words! {
    AdditionalItems "additionalItems"
    AdditionalProperties "additionalProperties"
    AllOf "allOf"
    Anchor "$anchor"
    AnyOf "anyOf"
    Array "array"
    Boolean "boolean"
    Comment "$comment"
    Const "const"
    Contains "contains"
    Date "date"
    DateTime "date-time"
    Default "default"
    Definitions "definitions"
    Defs "$defs"
    Dependencies "dependencies"
    DependentRequired "dependentRequired"
    DependentSchemas "dependentSchemas"
    Deprecated "deprecated"
    Description "description"
    Discriminator "discriminator"
    Double "double"
    DynamicAnchor "$dynamicAnchor"
    DynamicRef "$dynamicRef"
    Else "else"
    Enum "enum"
    Example "example"
    Examples "examples"
    ExclusiveMaximum "exclusiveMaximum"
    ExclusiveMinimum "exclusiveMinimum"
    ExternalDocs "externalDocs"
    Float "float"
    Format "format"
    Id "$id"
    If "if"
    Int32 "int32"
    Int64 "int64"
    Integer "integer"
    Items "items"
    MaxItems "maxItems"
    MaxLength "maxLength"
    Maximum "maximum"
    MinItems "minItems"
    MinLength "minLength"
    Minimum "minimum"
    MultipleOf "multipleOf"
    Not "not"
    Null "null"
    Nullable "nullable"
    Number "number"
    Object "object"
    OldId "id"
    OneOf "oneOf"
    Pattern "pattern"
    PatternProperties "patternProperties"
    PrefixItems "prefixItems"
    Properties "properties"
    PropertyNames "propertyNames"
    ReadOnly "readOnly"
    RecursiveRef "$recursiveRef"
    Ref "$ref"
    Required "required"
    Schema "$schema"
    String "string"
    Summary "summary"
    Then "then"
    Title "title"
    Type "type"
    UnevaluatedItems "unevaluatedItems"
    UnevaluatedProperties "unevaluatedProperties"
    UniqueItems "uniqueItems"
    Uri "uri"
    Uuid "uuid"
    WriteOnly "writeOnly"
    XDeprecated "x-deprecated"
    XNullable "x-nullable"
    Xml "xml"
}

impl Word {
    /// The word of a text.
    fn of(text: &str) -> Option<Self> {
        const LONGEST: usize = "unevaluatedProperties".len();
        static WORDS: LazyLock<FxHashMap<&str, Word>> = LazyLock::new(|| Word::ALL.iter().copied().collect());
        if text.len() > LONGEST { None } else { WORDS.get(text).copied() }
    }

    /// Its text.
    #[inline]
    pub(crate) fn as_str(self) -> &'static str {
        Self::TEXTS[self as usize]
    }

    /// Whether the text under it refers to another schema.
    pub(crate) fn is_reference(self) -> bool {
        matches!(self, Self::Ref | Self::DynamicRef | Self::RecursiveRef)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn words_are_found_by_their_texts() {
        for (text, word) in Word::ALL {
            assert_eq!((Word::of(text), word.as_str()), (Some(*word), *text));
            assert_eq!(Text::from(*text), Text::Known(*word), "the longest word is looked up as well");
        }
        assert_eq!(&*Text::from("hive"), "hive");
        assert_eq!(Text::from(String::from("hive")).word(), None);
    }
}
