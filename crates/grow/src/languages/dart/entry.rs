//! The functions that read and write whole responses in Dart.

use jar_sprout_layout::{Doc, cat, text};

use super::Sheet;
use super::types::Json;
use super::{arrow, function_name, types};
use crate::plan::PlannedRoot;

/// `HivePage.fromJson(jsonDecode(text) as Map<String, dynamic>)`
pub(super) fn read(sheet: &Sheet<'_>, root: &PlannedRoot<'_>) -> Doc {
    match root {
        PlannedRoot::Named { slot, .. } => {
            types::read(sheet.plan, &slot.ty, slot.nullable, Json::dynamic("jsonDecode(text)"), 0)
        }
        PlannedRoot::Alias { ident, .. } => {
            text(format!("{}FromJson(jsonDecode(text))", function_name(ident.as_str())))
        }
    }
}

pub(super) fn functions(sheet: &mut Sheet<'_>) -> Vec<Doc> {
    sheet.needs.imports.insert("dart:convert");
    let functions = sheet.plan.entries().flat_map(|(root, [decode, encode])| {
        let ty = sheet.plan.root_type(root, |slot| types::slot(sheet, slot));
        let written = match root {
            PlannedRoot::Named { slot, .. } => {
                types::write(sheet.plan, &slot.ty, if slot.nullable { "value?" } else { "value" }, 0)
            }
            PlannedRoot::Alias { ident, .. } => {
                Some(text(format!("{}ToJson(value)", function_name(ident.as_str()))))
            }
        };
        let written = cat([text("jsonEncode("), written.unwrap_or_else(|| text("value")), text(")")]);
        [
            arrow(format!("{ty} {decode}(String text)"), read(sheet, root), false),
            arrow(format!("String {encode}({ty} value)"), written, false),
        ]
    });
    functions.collect()
}
