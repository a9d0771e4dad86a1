//! Keys beyond the fields of a class.

use jar_sprout_layout::{Doc, cat, group, join, line, nest, text};

use super::{names, types};
use crate::plan::{Plan, PlannedExtras, PlannedField};

/// ```dart
/// additionalProperties: {
///   for (final entry in json.entries)
///     if (!const {'total'}.contains(entry.key)) entry.key: entry.value as int,
/// }
/// ```
pub(super) fn read(plan: &Plan<'_>, fields: &[PlannedField<'_>], extras: &PlannedExtras<'_>) -> Doc {
    let known: Vec<String> = fields.iter().map(|field| names::LITERAL.of(field.wire.as_str())).collect();
    let known =
        super::listed("if (!const {".to_owned(), known.into_iter().map(text), "}.contains(entry.key))");
    let value = types::read_slot(plan, &extras.map.ty, "entry.value", 0);
    let element = cat([known, nest(cat([line(), text("entry.key: "), value]))]);
    let each = "for (final entry in json.entries)".to_owned();
    cat([text(format!("{}: ", extras.ident)), types::collected("{", each, group(element), "}")])
}

/// `...additionalProperties`
pub(super) fn written(plan: &Plan<'_>, extras: &PlannedExtras<'_>) -> Doc {
    let name = &extras.ident;
    match types::write_slot(plan, &extras.map.ty, "entry.value", 0) {
        None => text(format!("...{name}")),
        Some(written) => {
            let value = cat([text("entry.key: "), written]);
            group(join(&nest(line()), [text(format!("for (final entry in {name}.entries)")), value]))
        }
    }
}
