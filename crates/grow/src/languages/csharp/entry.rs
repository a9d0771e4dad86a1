//! The class that reads and writes whole responses in C#.

use jar_sprout_layout::{Doc, text};

use super::settings::Form;
use super::{arrow, call, members, read, result, types, write};
use crate::code::Needs;
use crate::plan::{Plan, PlannedRoot};

pub(super) fn class(plan: &Plan<'_>, form: &Form<'_>, needs: &mut Needs) -> Doc {
    let mut inside = Vec::new();
    for (root, [decode, encode]) in plan.entries() {
        let asked = types::slot(plan, form, root.slot(), needs);
        let ty = result(asked.clone(), form);
        let (read, write) = match root {
            PlannedRoot::Alias { ident, .. } => {
                (call(format!("{ident}.FromJson"), &["text"]), call(format!("{ident}.ToJson"), &["value"]))
            }
            PlannedRoot::Named { .. } => (read(&asked, form, "text", needs), call(write(form), &["value"])),
        };
        inside.push(arrow(call(format!("public static {ty} {decode}"), &["string text"]), read));
        let value = format!("{ty} value");
        inside.push(arrow(call(format!("public static string {encode}"), &[&value]), write));
    }
    members(text(format!("{} static class {}", form.access, plan.entry_home())), inside)
}
