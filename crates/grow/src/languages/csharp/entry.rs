//! The class that reads and writes whole responses in C#.

use jar_sprout_layout::{Doc, text};

use super::Sheet;
use super::settings::Library;
use super::{arrow, call, members, metadata, read, result, types, write};
use crate::plan::PlannedRoot;

/// `var response = JsonSerializer.Deserialize<HivePage>(text);`
pub(super) fn reading(sheet: &mut Sheet<'_>, root: &PlannedRoot<'_>) -> String {
    let read = match (root, sheet.options.library) {
        (PlannedRoot::Alias { ident, slot: _ }, _) => format!("{ident}.FromJson(text)"),
        (PlannedRoot::Named { id, .. }, Library::SystemTextJson) if sheet.options.has_context => {
            let known = metadata::of_root(sheet, sheet.plan.ident(*id));
            format!("JsonSerializer.Deserialize(text, {known})")
        }
        (PlannedRoot::Named { slot, .. }, Library::SystemTextJson) => {
            format!("JsonSerializer.Deserialize<{}>(text)", types::slot(sheet, slot))
        }
        (PlannedRoot::Named { slot, .. }, Library::Newtonsoft) => {
            format!("JsonConvert.DeserializeObject<{}>(text, Json.Settings)", types::slot(sheet, slot))
        }
    };
    format!("var response = {read};")
}

pub(super) fn class(sheet: &mut Sheet<'_>) -> Doc {
    let mut inside = Vec::new();
    for (root, [decode, encode]) in sheet.plan.entries() {
        let asked = types::slot(sheet, root.slot());
        let ty = result(asked.clone(), sheet.options);
        let (read, write) = match root {
            PlannedRoot::Alias { ident, .. } => {
                (call(format!("{ident}.FromJson"), &["text"]), call(format!("{ident}.ToJson"), &["value"]))
            }
            PlannedRoot::Named { id, .. } => {
                let ident = sheet.plan.ident(*id);
                (read(sheet, ident, &asked, "text"), write(sheet, ident))
            }
        };
        inside.push(arrow(call(format!("public static {ty} {decode}"), &["string text"]), read));
        let value = format!("{ty} value");
        inside.push(arrow(call(format!("public static string {encode}"), &[&value]), write));
    }
    members(text(format!("{} static class {}", sheet.options.access, sheet.plan.entry_home())), inside)
}
