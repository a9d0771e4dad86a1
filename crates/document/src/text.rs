//! Texts of a document. Those that documents say all the time are numbers: they take no room of their own, and are
//! told apart without a look at their letters.

use std::borrow::Cow;
use std::fmt;
use std::ops::Deref;
use std::sync::LazyLock;

use foldhash::HashMap as FastMap;

/// A key, or a value that is text.
#[derive(Clone, PartialEq, Eq, Hash)]
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

/// What a word does in a schema.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Role {
    /// It says something of a schema, not what fits it: `title`, `default`.
    Annotation,
    /// It names a schema, or holds others for references to lead to: `$id`, `$defs`.
    Address,
    /// It leads to another schema: `$ref`.
    Reference,
    /// It says what kind of value fits: `type`, `format`.
    Kind,
    /// It says what parts a value has, or which values there are: `properties`, `enum`.
    Structure,
    /// It bounds a value, which is documentation: `minimum`.
    Bound,
    /// It says what fits, but bears on no type; that is told: `not`.
    Untyped,
    /// It means nothing without another keyword: `if`.
    Companion,
    /// It is no keyword, but stands under one: `array`.
    Value,
}

macro_rules! words {
    ($($name:ident $text:literal $role:ident)*) => {
        /// What documents say all the time: keywords of JSON Schema and of OpenAPI, and what stands under them.
        #[allow(missing_docs, reason = "each is the text it stands for")]
        #[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
        pub enum Word { $($name,)* }

        impl Word {
            const ALL: &[(&str, Self)] = &[$(($text, Self::$name),)*];
            const TEXTS: &[&str] = &[$($text,)*];
            const ROLES: &[Role] = &[$(Role::$role,)*];
        }
    };
}

// Every keyword with what it does: whoever adds one says so here, and `flat.rs` and `docs.rs` go by it.
words! {
    AdditionalItems "additionalItems" Structure
    AdditionalProperties "additionalProperties" Structure
    AllOf "allOf" Structure
    Anchor "$anchor" Address
    AnyOf "anyOf" Structure
    Array "array" Value
    Boolean "boolean" Value
    Comment "$comment" Annotation
    Const "const" Structure
    Contains "contains" Untyped
    ContentEncoding "contentEncoding" Untyped
    ContentMediaType "contentMediaType" Untyped
    ContentSchema "contentSchema" Untyped
    Date "date" Value
    DateTime "date-time" Value
    Default "default" Annotation
    Definitions "definitions" Address
    Defs "$defs" Address
    Dependencies "dependencies" Structure
    DependentRequired "dependentRequired" Untyped
    DependentSchemas "dependentSchemas" Structure
    Deprecated "deprecated" Annotation
    Description "description" Annotation
    Discriminator "discriminator" Structure
    Double "double" Value
    DynamicAnchor "$dynamicAnchor" Address
    DynamicRef "$dynamicRef" Reference
    Else "else" Structure
    Enum "enum" Structure
    Example "example" Annotation
    Examples "examples" Annotation
    ExclusiveMaximum "exclusiveMaximum" Bound
    ExclusiveMinimum "exclusiveMinimum" Bound
    ExternalDocs "externalDocs" Annotation
    Float "float" Value
    Format "format" Kind
    Id "$id" Address
    If "if" Companion
    Int32 "int32" Value
    Int64 "int64" Value
    Integer "integer" Value
    Items "items" Structure
    MaxContains "maxContains" Untyped
    MaxItems "maxItems" Bound
    MaxLength "maxLength" Bound
    MaxProperties "maxProperties" Untyped
    Maximum "maximum" Bound
    MinContains "minContains" Untyped
    MinItems "minItems" Bound
    MinLength "minLength" Bound
    MinProperties "minProperties" Untyped
    Minimum "minimum" Bound
    MultipleOf "multipleOf" Bound
    Not "not" Untyped
    Null "null" Value
    Nullable "nullable" Annotation
    Number "number" Value
    Object "object" Value
    OldId "id" Address
    OneOf "oneOf" Structure
    Pattern "pattern" Bound
    PatternProperties "patternProperties" Structure
    PrefixItems "prefixItems" Structure
    Properties "properties" Structure
    PropertyNames "propertyNames" Untyped
    ReadOnly "readOnly" Annotation
    RecursiveAnchor "$recursiveAnchor" Address
    RecursiveRef "$recursiveRef" Reference
    Ref "$ref" Reference
    Required "required" Structure
    Schema "$schema" Address
    String "string" Value
    Summary "summary" Annotation
    Then "then" Structure
    Title "title" Annotation
    Type "type" Kind
    UnevaluatedItems "unevaluatedItems" Untyped
    UnevaluatedProperties "unevaluatedProperties" Structure
    UniqueItems "uniqueItems" Bound
    Uri "uri" Value
    Uuid "uuid" Value
    Vocabulary "$vocabulary" Address
    WriteOnly "writeOnly" Annotation
    XDeprecated "x-deprecated" Annotation
    XNullable "x-nullable" Annotation
    Xml "xml" Annotation
}

impl Word {
    /// The word of a text.
    fn of(text: &str) -> Option<Self> {
        const LONGEST: usize = "unevaluatedProperties".len();
        static WORDS: LazyLock<FastMap<&str, Word>> = LazyLock::new(|| Word::ALL.iter().copied().collect());
        if text.len() > LONGEST { None } else { WORDS.get(text).copied() }
    }

    /// Its text.
    #[inline]
    pub(crate) fn as_str(self) -> &'static str {
        Self::TEXTS[self as usize]
    }

    /// What it does in a schema.
    #[inline]
    pub(crate) fn role(self) -> Role {
        Self::ROLES[self as usize]
    }

    /// Whether the text under it refers to another schema.
    #[inline]
    pub(crate) fn is_reference(self) -> bool {
        self.role() == Role::Reference
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

    /// The keywords of JSON Schema, draft 4 to 2020-12, and those that OpenAPI adds to them.
    #[test]
    fn every_keyword_of_the_standards_has_a_role() {
        const CORE: &str = "$schema $id id $anchor $dynamicAnchor $recursiveAnchor $ref $dynamicRef $recursiveRef $defs \
                            definitions $comment $vocabulary";
        const APPLICATOR: &str = "allOf anyOf oneOf not if then else dependentSchemas dependencies prefixItems items \
                                  additionalItems contains properties patternProperties additionalProperties \
                                  propertyNames unevaluatedItems unevaluatedProperties";
        const VALIDATION: &str = "type enum const multipleOf maximum exclusiveMaximum minimum exclusiveMinimum maxLength \
                                  minLength pattern maxItems minItems uniqueItems maxContains minContains \
                                  maxProperties minProperties required dependentRequired format";
        const REST: &str = "contentEncoding contentMediaType contentSchema title description default deprecated \
                            readOnly writeOnly examples nullable discriminator xml externalDocs example";
        for keyword in [CORE, APPLICATOR, VALIDATION, REST].iter().flat_map(|all| all.split_whitespace()) {
            let role = Word::of(keyword).map(Word::role);
            assert!(role.is_some_and(|role| role != Role::Value), "{keyword}: {role:?}");
        }
    }
}
