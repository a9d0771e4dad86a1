//! Classes whose `fromJson` and `toJson` a tool writes, from annotations of `json_annotation`.

use jar_sprout_layout::{Doc, lines, text};

use super::{arrow, names};
use crate::plan::{Ident, PlannedField};
use crate::spell::Needs;
use crate::spell::renaming::{
    RenameRule, Renaming, camel_words, in_kebab_case, in_pascal_case, in_screaming_case, in_snake_case,
};

/// What the annotations come from.
pub(super) const LIBRARY: &str = "package:json_annotation/json_annotation.dart";

/// How the tool makes keys of names, if it is told.
const RULES: &[RenameRule] = &[
    RenameRule { name: "snake", apply: in_snake_case },
    RenameRule { name: "kebab", apply: in_kebab_case },
    RenameRule { name: "pascal", apply: in_pascal_case },
    RenameRule { name: "screamingSnake", apply: in_screaming_case },
];

/// What makes the keys of most fields of their names.
pub(super) fn rename_rule(fields: &[PlannedField<'_>]) -> Renaming {
    Renaming::of_fields(fields, RULES, camel_words)
}

/// A class, marked for the tool.
pub(super) fn class(class: Doc, renaming: &Renaming, needs: &mut Needs) -> Doc {
    needs.imports.insert(LIBRARY);
    let rename = renaming.name().map(|name| format!(", fieldRename: FieldRename.{name}")).unwrap_or_default();
    lines([text(format!("@JsonSerializable(explicitToJson: true{rename})")), class])
}

/// `factory Hive.fromJson(Map<String, dynamic> json) => _$HiveFromJson(json);`
pub(super) fn from_json(ident: &Ident) -> Doc {
    let body = text(format!("_${}FromJson(json)", tool_name(ident)));
    arrow(format!("factory {ident}.fromJson(Map<String, dynamic> json)"), body, false)
}

/// `Map<String, dynamic> toJson() => _$HiveToJson(this);`
pub(super) fn to_json(ident: &Ident) -> Doc {
    let body = text(format!("_${}ToJson(this)", tool_name(ident)));
    arrow("Map<String, dynamic> toJson()".to_owned(), body, false)
}

/// The tool calls a function after the class, without an underscore in front.
fn tool_name(ident: &Ident) -> &str {
    ident.as_str().trim_start_matches('_')
}

/// What the tool must be told of a field.
pub(super) fn key(field: &PlannedField<'_>, renaming: &Renaming) -> Option<Doc> {
    let mut arguments = Vec::new();
    if !renaming.makes(field.ident.as_str(), field.wire.as_str()) {
        arguments.push(format!("name: {}", names::LITERAL.of(field.wire.as_str())));
    }
    if !field.fate.is_always_there() {
        arguments.push("includeIfNull: false".to_owned());
    }
    (!arguments.is_empty()).then(|| text(format!("@JsonKey({})", arguments.join(", "))))
}

/// What the tool looks for in a type around a text.
pub(super) fn of_text(ident: &Ident) -> [Doc; 2] {
    let read = text(format!("{ident}(json)"));
    [arrow(format!("factory {ident}.fromJson(String json)"), read, false), text("String toJson() => value;")]
}

/// What is said of an enum, so that it is written as its text.
pub(super) fn of_enum(declaration: Doc, needs: &mut Needs) -> Doc {
    needs.imports.insert(LIBRARY);
    lines([text("@JsonEnum(valueField: 'value')"), declaration])
}
