//! How Jackson is told of all keys of a type at once.

use crate::plan::PlannedField;
use crate::spell::Needs;
use crate::spell::renaming::{
    RenameRule, Renaming, camel_words, in_kebab_case, in_pascal_case, in_screaming_case, in_snake_case,
};

/// The strategies that come with the library.
const STRATEGIES: &[RenameRule] = &[
    RenameRule { name: "SnakeCaseStrategy", apply: in_snake_case },
    RenameRule { name: "UpperCamelCaseStrategy", apply: in_pascal_case },
    RenameRule { name: "KebabCaseStrategy", apply: in_kebab_case },
    RenameRule { name: "UpperSnakeCaseStrategy", apply: in_screaming_case },
];

/// What makes the keys of most fields of their names.
pub(crate) fn renaming(fields: &[PlannedField<'_>]) -> Renaming {
    // The library is told of an empty key by a strategy of its own.
    if fields.iter().any(|field| field.wire.as_str().is_empty()) {
        return Renaming::none();
    }
    Renaming::of_fields(fields, STRATEGIES, camel_words)
}

/// `@JsonNaming(PropertyNamingStrategies.SnakeCaseStrategy.class)`, with what the language has behind a class to speak of it.
pub(crate) fn annotation(renaming: &Renaming, class: &str, needs: &mut Needs) -> Option<String> {
    let strategy = renaming.name()?;
    needs.imports.extend([
        "com.fasterxml.jackson.databind.PropertyNamingStrategies",
        "com.fasterxml.jackson.databind.annotation.JsonNaming",
    ]);
    Some(format!("@JsonNaming(PropertyNamingStrategies.{strategy}{class})"))
}
