//! The class that reads and writes whole responses in C#.

use jar_sprout_layout::{Doc, text};

use super::Sheet;
use super::{arrow, call, members, read, result, types, write};
use crate::plan::PlannedRoot;

pub(super) fn class(sheet: &mut Sheet<'_>) -> Doc {
    let mut inside = Vec::new();
    for (root, [decode, encode]) in sheet.plan.entries() {
        let asked = types::slot(sheet, root.slot());
        let ty = result(asked.clone(), sheet.options);
        let (read, write) = match root {
            PlannedRoot::Alias { ident, .. } => {
                (call(format!("{ident}.FromJson"), &["text"]), call(format!("{ident}.ToJson"), &["value"]))
            }
            PlannedRoot::Named { .. } => {
                (read(sheet, &asked, "text"), call(write(sheet.options), &["value"]))
            }
        };
        inside.push(arrow(call(format!("public static {ty} {decode}"), &["string text"]), read));
        let value = format!("{ty} value");
        inside.push(arrow(call(format!("public static string {encode}"), &[&value]), write));
    }
    members(text(format!("{} static class {}", sheet.options.access, sheet.plan.entry_home())), inside)
}
