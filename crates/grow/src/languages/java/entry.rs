//! The class that reads and writes whole responses in Java.

use jar_sprout_layout::{Doc, braces, cat, comma_list, group, line, members, nest, soft, text};

use super::Sheet;
use super::settings::Library;
use super::types;
use crate::plan::PlannedRoot;

pub(super) fn class(sheet: &mut Sheet<'_>) -> Doc {
    let home = sheet.plan.entry_home();
    let (constant, set_up, may_fail) = match sheet.options.library {
        Library::Jackson => {
            sheet.needs.imports.extend([
                "com.fasterxml.jackson.core.JsonProcessingException",
                "com.fasterxml.jackson.databind.DeserializationFeature",
                "com.fasterxml.jackson.databind.ObjectMapper",
            ]);
            (
                "private static final ObjectMapper MAPPER =",
                "new ObjectMapper().disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES);",
                Some("throws JsonProcessingException"),
            )
        }
        Library::Gson => {
            sheet.needs.imports.extend(["com.google.gson.Gson", "com.google.gson.GsonBuilder"]);
            ("private static final Gson GSON =", "new GsonBuilder().serializeNulls().create();", None)
        }
    };
    let constant = group(cat([text(constant), nest(nest(cat([line(), text(set_up)])))]));
    let mut inside = vec![constant, text(format!("private {home}() {{}}"))];
    for (root, [decode, encode]) in sheet.plan.entries() {
        let (slot, token) = match root {
            PlannedRoot::Named { id, slot } => (slot, format!("{}.class", sheet.plan.ident(*id))),
            PlannedRoot::Alias { ident, slot } => (slot, format!("{ident}.TYPE")),
        };
        let ty = types::boxed(sheet, slot);
        let (read, write) = match (sheet.options.library, root) {
            (Library::Jackson, _) => (
                call("return MAPPER.readValue", &["text", &token]),
                call("return MAPPER.writeValueAsString", &["value"]),
            ),
            (Library::Gson, PlannedRoot::Named { .. }) => (
                call("return GSON.fromJson", &["text", &token]),
                call("return GSON.toJson", &["value", &token]),
            ),
            (Library::Gson, PlannedRoot::Alias { .. }) => (
                call("return GSON.fromJson", &["text", &token]),
                call("return GSON.toJson", &["value", &format!("{token}.getType()")]),
            ),
        };
        inside.push(braces(head(&format!("public static {ty} {decode}"), "String text", may_fail), [read]));
        inside.push(braces(
            head(&format!("public static String {encode}"), &format!("{ty} value"), may_fail),
            [write],
        ));
    }
    members(text(format!("public final class {home}")), inside)
}

fn head(start: &str, parameter: &str, may_fail: Option<&'static str>) -> Doc {
    let deeper = |doc| nest(nest(doc));
    let parameter = group(deeper(cat([soft(), text(parameter.to_owned())])));
    let fails = may_fail.map_or(Doc::Nil, |fails| deeper(cat([line(), text(fails)])));
    group(cat([text(format!("{start}(")), parameter, text(")"), fails]))
}

/// A call as a whole statement.
fn call(name: &str, arguments: &[&str]) -> Doc {
    let arguments = comma_list(arguments.iter().map(|one| text((*one).to_owned())));
    group(cat([text(format!("{name}(")), nest(nest(cat([soft(), group(arguments)]))), text(");")]))
}
