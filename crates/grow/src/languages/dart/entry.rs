//! The functions that read and write whole responses in Dart.

use jar_sprout_layout::{Doc, cat, text};

use super::Sheet;
use super::types::Json;
use super::{arrow, function_name, types};
use crate::plan::PlannedRoot;

pub(super) fn functions(sheet: &mut Sheet<'_>) -> Vec<Doc> {
    sheet.needs.imports.insert("dart:convert");
    let functions = sheet.plan.entries().flat_map(|(root, [decode, encode])| {
        let ty = sheet.plan.root_type(root, |slot| types::slot(sheet, slot));
        let (read, written) = match root {
            PlannedRoot::Named { slot, .. } => (
                types::read(sheet.plan, &slot.ty, slot.nullable, Json::dynamic("jsonDecode(text)"), 0),
                types::write(sheet.plan, &slot.ty, if slot.nullable { "value?" } else { "value" }, 0),
            ),
            PlannedRoot::Alias { ident, .. } => {
                let function = function_name(ident.as_str());
                (
                    text(format!("{function}FromJson(jsonDecode(text))")),
                    Some(text(format!("{function}ToJson(value)"))),
                )
            }
        };
        let written = cat([text("jsonEncode("), written.unwrap_or_else(|| text("value")), text(")")]);
        [
            arrow(format!("{ty} {decode}(String text)"), read, false),
            arrow(format!("String {encode}({ty} value)"), written, false),
        ]
    });
    functions.collect()
}
