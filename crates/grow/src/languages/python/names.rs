//! Python's names: casing, keywords, and what is taken.

use std::collections::{BTreeMap, BTreeSet};

use jar_sprout_layout::{Doc, cat, group, if_broken, join, last_comma, line, nest, soft, text};

use crate::plan::{
    NamePlace, Naming, NothingNames, OwnName, PlannedField, UnionCaseKind, pascal_case, screaming_case,
    small_words, snake_case,
};
use crate::spell::renaming::{RenameRule, Renaming, in_camel_case, in_pascal_case, snake_words};
use crate::spell::{self, Borrowed, Literal};

pub(super) const NAMING: Naming = Naming {
    type_case: pascal_case,
    member_case: Some(snake_case),
    keeps_capitals: false,
    case_case: screaming_case,
    cases: NamePlace::Type,
    union_case: pascal_case,
    union_cases: NamePlace::Type,
    reserved_types: TAKEN_TYPES,
    reserved_members: TAKEN_MEMBERS,
    reserved_cases: &[],
    reserved_union_cases: &[],
    unshared: None,
    union_case_kind: UnionCaseKind::Type,
    own_name: OwnName::Free,
    nothing: NothingNames::ByWords,
    escape,
    function_case: snake_case,
};

/// The keywords of the Python reference, and those that are so in places.
const KEYWORDS: &[&str] = &[
    "and", "as", "assert", "async", "await", "break", "class", "continue", "def", "del", "elif", "else",
    "except", "False", "finally", "for", "from", "global", "if", "import", "in", "is", "lambda", "None",
    "nonlocal", "not", "or", "pass", "raise", "return", "True", "try", "while", "with", "yield",
];

/// Built-in classes, and what grown code stands on.
const TAKEN_TYPES: &[&str] = &[
    "Annotated",
    "Any",
    "ArithmeticError",
    "AssertionError",
    "AttributeError",
    "BaseException",
    "BaseModel",
    "BeforeValidator",
    "BooleanText",
    "ConfigDict",
    "CoreSchema",
    "DateTime",
    "Decimal",
    "DecimalNumber",
    "Discriminator",
    "Ellipsis",
    "EpochMilliseconds",
    "EpochSeconds",
    "Exception",
    "False",
    "Field",
    "FloatText",
    "GetCoreSchemaHandler",
    "I",
    "ImportError",
    "IndexError",
    "IntegerText",
    "JsonText",
    "JsonValue",
    "KeyError",
    "Literal",
    "LocalDateTime",
    "LocalTime",
    "LookupError",
    "MemoryError",
    "NameError",
    "None",
    "NotImplemented",
    "NotRequired",
    "O",
    "OSError",
    "OpenEnum",
    "OrNothing",
    "PlainSerializer",
    "RuntimeError",
    "RuntimeWarning",
    "Self",
    "SerializerFunctionWrapHandler",
    "StopIteration",
    "StrEnum",
    "SyntaxError",
    "SystemError",
    "SystemExit",
    "T",
    "Tag",
    "TaggedModel",
    "TextEnum",
    "TimeoutError",
    "True",
    "TypeAdapter",
    "TypeError",
    "TypeVar",
    "TypedDict",
    "Unset",
    "UserWarning",
    "ValueError",
    "Warning",
    "WrapSerializer",
];

/// Members of every model, and names that the types of other fields are written with.
const TAKEN_MEMBERS: &[&str] = &[
    "bool",
    "construct",
    "copy",
    "dict",
    "dt",
    "float",
    "from_dict",
    "from_orm",
    "int",
    "json",
    "l",
    "list",
    "model_computed_fields",
    "model_config",
    "model_construct",
    "model_copy",
    "model_dump",
    "model_dump_json",
    "model_extra",
    "model_fields",
    "model_fields_set",
    "model_json_schema",
    "model_parametrized_name",
    "model_post_init",
    "model_rebuild",
    "model_validate",
    "model_validate_json",
    "model_validate_strings",
    "parse_file",
    "parse_obj",
    "parse_raw",
    "schema",
    "schema_json",
    "str",
    "to_dict",
    "tuple",
    "update_forward_refs",
    "validate",
    "MRO",
];

fn escape(name: String) -> String {
    if KEYWORDS.contains(&name.as_str()) { name + "_" } else { name }
}

/// Whether a key can stand in code as it is.
pub(super) fn is_identifier(key: &str) -> bool {
    let mut chars = key.chars();
    let is_start = |c: char| c == '_' || c.is_ascii_alphabetic();
    chars.next().is_some_and(is_start)
        && chars.all(|c| is_start(c) || c.is_ascii_digit())
        && !KEYWORDS.contains(&key)
}

const ESCAPES: &[(char, &str)] =
    &[('\\', "\\\\"), ('\n', "\\n"), ('\r', "\\r"), ('\t', "\\t"), ('"', "\\\""), ('\u{8}', "\\b")];

/// A text literal in double quotes, or in single ones where that spares an escape, as its formatters have it.
pub(super) fn literal(text: &str) -> String {
    let single = text.contains('"') && !text.contains('\'');
    let (quote, escapes) = if single { ('\'', SINGLE_ESCAPES) } else { ('"', ESCAPES) };
    Literal { quote, escapes, character }.of(text)
}

const SINGLE_ESCAPES: &[(char, &str)] =
    &[('\\', "\\\\"), ('\n', "\\n"), ('\r', "\\r"), ('\t', "\\t"), ('\u{8}', "\\b")];

fn character(character: char) -> String {
    match u32::from(character) {
        code @ 0..0x100 => format!("\\x{code:02x}"),
        code @ 0x100..0x1_0000 => format!("\\u{code:04x}"),
        code => format!("\\U{code:08x}"),
    }
}

/// The standard library, then the others: a line for each module, names in order.
pub(super) fn grouped_imports(imports: &BTreeSet<&'static str>) -> Vec<Vec<Doc>> {
    let mut whole: Vec<Doc> = Vec::new();
    let mut named: BTreeMap<&str, Vec<&str>> = BTreeMap::new();
    for import in imports {
        match import.strip_prefix("from ").and_then(|rest| rest.split_once(" import ")) {
            Some((module, name)) => named.entry(module).or_default().push(name),
            None => whole.push(text(*import)),
        }
    }
    let is_other = |module: &str| {
        let package = module.split('.').next().unwrap_or_default();
        ["pydantic", "pydantic_core", "typing_extensions"].contains(&package)
    };
    let (others, standard): (Vec<_>, Vec<_>) = named.into_iter().partition(|(module, _)| is_other(module));
    let import = |(module, names): (&str, Vec<&str>)| import(module, &names);
    let standard: Vec<Doc> = whole.into_iter().chain(standard.into_iter().map(import)).collect();
    let others: Vec<Doc> = others.into_iter().map(import).collect();
    [standard, others].into_iter().filter(|group| !group.is_empty()).collect()
}

/// `from typing import Any, Literal`; a line for each name where they are many.
fn import(module: &str, names: &[&str]) -> Doc {
    let names = join(&cat([text(","), line()]), names.iter().map(|name| text((*name).to_owned())));
    let inside = nest(cat([soft(), names, last_comma()]));
    let head = text(format!("from {module} import "));
    group(cat([head, if_broken("(", ""), inside, soft(), if_broken(")", "")]))
}

/// The package of a module itself.
pub(super) const HERE: &str = ".";

/// `from app.shared.open_enum import OpenEnum`
pub(super) fn borrowed(package: &str, borrowed: &BTreeSet<Borrowed>) -> Vec<Doc> {
    let mut by_module: BTreeMap<String, Vec<&str>> = BTreeMap::new();
    for Borrowed { file, name } in borrowed {
        by_module.entry(small_words(file, "_")).or_default().push(name);
    }
    let between = if package == HERE { "" } else { "." };
    let import =
        |(module, names): (String, Vec<&str>)| import(&format!("{package}{between}{module}"), &names);
    by_module.into_iter().map(import).collect()
}

/// What a line of helper code declares; what stands for any type is no other file's.
pub(super) fn declared(line: &'static str) -> Option<&'static str> {
    let is_code = line.starts_with(|c: char| c.is_ascii_alphabetic()) && !line.contains("TypeVar(");
    let assigned = || {
        let (name, _) = line.split_once(" = ").filter(|_| is_code)?;
        name.split(':').next()
    };
    spell::declared(line, &["class", "def"]).or_else(assigned)
}

/// pydantic's generators of aliases.
const ALIAS_RULES: &[RenameRule] = &[
    RenameRule { name: "to_camel", apply: in_camel_case },
    RenameRule { name: "to_pascal", apply: in_pascal_case },
];

/// What makes the keys of most fields of their names.
pub(super) fn alias_rule(fields: &[&PlannedField<'_>]) -> Renaming {
    Renaming::of_fields(fields.iter().copied(), ALIAS_RULES, snake_words)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn keywords_take_an_underscore() {
        assert_eq!(escape("class".to_owned()), "class_");
        assert_eq!(escape("hive".to_owned()), "hive");
    }

    #[test]
    fn a_literal_says_what_the_text_says() {
        assert_eq!(literal("a'b\\\n"), "\"a'b\\\\\\n\"");
        assert_eq!(literal("say \"hive\""), "'say \"hive\"'");
        assert_eq!(literal("\"it's\""), "\"\\\"it's\\\"\"");
        assert_eq!(literal("\0\u{2028}🐝\u{E0001}"), "\"\\x00\\u2028🐝\\U000e0001\"");
    }
}
