//! Rust's names: casing, keywords, what is taken, and serde's rules for renaming.

use std::collections::{BTreeMap, BTreeSet};

use jar_sprout_model::Words;

use crate::plan::{
    NamePlace, Naming, NothingNames, OwnName, UnionCaseKind, in_ascii, pascal_case, snake_case,
};
use crate::spell::Literal;
use crate::spell::renaming::{
    RenameRule, Renaming, in_camel_case, in_kebab_case, in_pascal_case, in_screaming_case, in_snake_case,
};

pub(super) const NAMING: Naming = Naming {
    type_case: |words| pascal_case(&in_latin(words)),
    member_case: Some(|words| snake_case(&in_latin(words))),
    keeps_capitals: false,
    case_case: |words| pascal_case(&in_latin(words)),
    cases: NamePlace::Type,
    union_case: |words| pascal_case(&in_latin(words)),
    union_cases: NamePlace::Type,
    reserved_types: TAKEN_TYPES,
    // Variants; fields are never in capitals.
    reserved_members: &["Other", "Self"],
    reserved_cases: &[],
    reserved_union_cases: &["Other", "Self"],
    unshared: None,
    union_case_kind: UnionCaseKind::Value,
    own_name: OwnName::Free,
    nothing: NothingNames::ByWords,
    escape,
    function_case: |words| snake_case(&in_latin(words)),
};

pub(super) const LITERAL: Literal = Literal {
    quote: '"',
    escapes: &[('"', "\\\""), ('\\', "\\\\"), ('\n', "\\n"), ('\r', "\\r"), ('\t', "\\t"), ('\0', "\\0")],
    character: |character| format!("\\u{{{:x}}}", u32::from(character)),
};

/// The keywords of the Rust reference, strict and reserved, in edition 2024.
const KEYWORDS: &[&str] = &[
    "abstract", "as", "async", "await", "become", "box", "break", "const", "continue", "do", "dyn", "else",
    "enum", "extern", "false", "final", "fn", "for", "gen", "if", "impl", "in", "let", "loop", "macro",
    "match", "mod", "move", "mut", "override", "priv", "pub", "ref", "return", "static", "struct", "trait",
    "true", "try", "type", "typeof", "unsafe", "unsized", "use", "virtual", "where", "while", "yield",
];

/// Keywords that may not be written raw.
const NEVER_RAW: &[&str] = &["crate", "self", "super"];

/// What the prelude has, and what grown code stands on.
const TAKEN_TYPES: &[&str] = &[
    "AsMut",
    "AsRef",
    "BTreeMap",
    "Box",
    "Clone",
    "Copy",
    "DateTime",
    "Debug",
    "Default",
    "Deserialize",
    "DoubleEndedIterator",
    "Drop",
    "Eq",
    "Err",
    "Error",
    "ExactSizeIterator",
    "Extend",
    "FixedOffset",
    "Fn",
    "FnMut",
    "FnOnce",
    "From",
    "FromIterator",
    "Future",
    "Hash",
    "Into",
    "IntoFuture",
    "IntoIterator",
    "Iterator",
    "NaiveDate",
    "NaiveDateTime",
    "NaiveTime",
    "None",
    "Ok",
    "Option",
    "Ord",
    "PartialEq",
    "PartialOrd",
    "Result",
    "Self",
    "Send",
    "Serialize",
    "Sized",
    "Some",
    "String",
    "Sync",
    "ToOwned",
    "ToString",
    "TryFrom",
    "TryInto",
    "Unpin",
    "Vec",
];

/// Words of other scripts in ASCII: the compiler warns of letters that look like those of another script.
fn in_latin(words: &Words) -> Words {
    let is_latin = |c: char| u32::from(c) < 0x250;
    if words.iter().all(|word| word.chars().all(is_latin)) { words.clone() } else { in_ascii(words) }
}

fn escape(name: String) -> String {
    if KEYWORDS.contains(&name.as_str()) {
        format!("r#{name}")
    } else if NEVER_RAW.contains(&name.as_str()) {
        format!("{name}_")
    } else {
        name
    }
}

/// An identifier as serde sees it: without the mark of a raw one.
pub(super) fn bare(ident: &str) -> &str {
    ident.strip_prefix("r#").unwrap_or(ident)
}

/// serde's `rename_all` rules.
const RULES: &[RenameRule] = &[
    RenameRule { name: "camelCase", apply: in_camel_case },
    RenameRule { name: "PascalCase", apply: in_pascal_case },
    RenameRule { name: "kebab-case", apply: in_kebab_case },
    RenameRule { name: "SCREAMING_SNAKE_CASE", apply: in_screaming_case },
    RenameRule { name: "SCREAMING-KEBAB-CASE", apply: |words| words.join("-").to_ascii_uppercase() },
];

const VARIANT_RULES: &[RenameRule] = &[
    RenameRule { name: "lowercase", apply: |words| words.concat() },
    RenameRule { name: "UPPERCASE", apply: |words| words.concat().to_ascii_uppercase() },
    RenameRule { name: "snake_case", apply: in_snake_case },
];

/// `rename_all = "camelCase"`
pub(super) fn rename_all(renaming: &Renaming) -> Option<String> {
    renaming.name().map(|name| format!("rename_all = \"{name}\""))
}

/// How keys are made of the identifiers of fields.
pub(super) fn rename_rule(fields: &[(&str, &str)]) -> Renaming {
    Renaming::of(fields, RULES.iter(), |ident| {
        // What ends so stands beside a keyword.
        let is_plain = ident.is_ascii() && !ident.ends_with('_');
        is_plain.then(|| ident.split('_').map(str::to_owned).collect())
    })
}

/// How texts are made of the identifiers of variants, which serde splits before each capital.
pub(super) fn variant_rule(variants: &[(&str, &str)]) -> Renaming {
    Renaming::of(variants, VARIANT_RULES.iter().chain(RULES), |ident| {
        let mut words: Vec<String> = Vec::new();
        for letter in ident.chars() {
            if letter.is_ascii_uppercase() || words.is_empty() {
                words.push(String::new());
            }
            words.last_mut().expect("one was pushed").push(letter.to_ascii_lowercase());
        }
        ident.is_ascii().then_some(words)
    })
}

/// `use chrono::{DateTime, FixedOffset};`, a line for each path.
pub(super) fn grouped_imports(imports: &BTreeSet<&'static str>) -> Vec<String> {
    let mut paths: BTreeMap<&str, Vec<&str>> = BTreeMap::new();
    for (path, name) in imports.iter().filter_map(|import| import.rsplit_once("::")) {
        paths.entry(path).or_default().push(name);
    }
    let line = |(path, names): (&str, Vec<&str>)| match &names[..] {
        [name] => format!("use {path}::{name};"),
        names => format!("use {path}::{{{}}};", names.join(", ")),
    };
    paths.into_iter().map(line).collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn keywords_are_raw_where_they_may_be() {
        assert_eq!(escape("type".to_owned()), "r#type");
        assert_eq!(escape("self".to_owned()), "self_");
        assert_eq!(escape("hive".to_owned()), "hive");
    }

    #[test]
    fn a_rule_renames_where_it_spares_more_than_it_costs() {
        let rule = |fields: &[(&str, &str)]| rename_rule(fields).name();
        assert_eq!(rule(&[("self_", "self"), ("hive", "hive")]), None);
        assert_eq!(rule(&[("honey_kg", "honeyKg"), ("id", "id")]), Some("camelCase"));
        assert_eq!(rule(&[("honey_kg", "honey-kg")]), Some("kebab-case"));
        assert_eq!(rule(&[("honey_kg", "honey_kg")]), None);
        assert_eq!(rule(&[("honey_kg", "honeyKg"), ("sensor_ids", "sensorIDs")]), None);
        let keys = [("honey_kg", "honeyKg"), ("hive_id", "hiveId"), ("wax", "the wax")];
        assert_eq!(rule(&keys), Some("camelCase"));
        assert_eq!(rule(&keys[1..]), None);
        let rule = |cases: &[(&str, &str)]| variant_rule(cases).name();
        assert_eq!(rule(&[("Laying", "laying"), ("Caged", "caged")]), Some("lowercase"));
        assert_eq!(rule(&[("TopBar", "top_bar"), ("National", "national")]), Some("snake_case"));
        assert_eq!(rule(&[("TopBar", "top bar")]), None);
    }

    #[test]
    fn a_literal_says_what_the_text_says() {
        assert_eq!(LITERAL.of("a\"\\\n\0\u{2028}🐝{}"), "\"a\\\"\\\\\\n\\0\\u{2028}🐝{}\"");
    }
}
