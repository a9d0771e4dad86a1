//! The class that reads and writes whole responses in Java.

use jar_sprout_layout::{Doc, braces, cat, comma_list, group, hard, line, members, nest, soft, text};

use super::settings::Library;
use super::types;
use super::{ABOUT, Sheet};
use crate::plan::{Ident, Plan, PlannedRoot};

pub(super) fn class(sheet: &mut Sheet<'_>) -> Doc {
    let home = sheet.plan.entry_home();
    let inside = inside(sheet, home);
    members(text(format!("public final class {home}")), inside)
}

/// The type of a root; no primitive one, which could not be null.
pub(super) fn type_of(sheet: &mut Sheet<'_>, root: &PlannedRoot<'_>) -> String {
    types::boxed(sheet, root.slot())
}

/// What stands for a type where it is read.
fn token(plan: &Plan<'_>, root: &PlannedRoot<'_>) -> String {
    match root {
        PlannedRoot::Named { id, slot: _ } => format!("{}.class", plan.ident(*id)),
        PlannedRoot::Alias { ident, slot: _ } => format!("{ident}.TYPE"),
    }
}

/// `HivePage response = MAPPER.readValue(text, HivePage.class);`
pub(super) fn reading(sheet: &mut Sheet<'_>, root: &PlannedRoot<'_>) -> String {
    let (ty, token) = (type_of(sheet, root), token(sheet.plan, root));
    let read = match sheet.options.library {
        Library::Jackson => "MAPPER.readValue",
        Library::Gson => "GSON.fromJson",
    };
    format!("{ty} response = {read}(text, {token});")
}

/// What a library is set up with, and what reads and writes each root with it, inside a class of this name.
pub(super) fn inside(sheet: &mut Sheet<'_>, home: &Ident) -> Vec<Doc> {
    let (constant, set_up, may_fail) = match sheet.options.library {
        Library::Jackson => {
            sheet.needs.imports.extend([
                "com.fasterxml.jackson.core.JsonProcessingException",
                "com.fasterxml.jackson.databind.DeserializationFeature",
                "com.fasterxml.jackson.databind.ObjectMapper",
            ]);
            let mut set_up = vec![
                "new ObjectMapper()",
                ".disable(DeserializationFeature.ACCEPT_FLOAT_AS_INT)",
                ".disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)",
                ".enable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)",
            ];
            if sheet.options.has_date_module {
                sheet.needs.imports.extend([
                    "com.fasterxml.jackson.databind.SerializationFeature",
                    "com.fasterxml.jackson.datatype.jsr310.JavaTimeModule",
                ]);
                set_up.extend([
                    ".registerModule(new JavaTimeModule())",
                    ".disable(SerializationFeature.WRITE_DATES_AS_TIMESTAMPS)",
                    ".disable(DeserializationFeature.ADJUST_DATES_TO_CONTEXT_TIME_ZONE)",
                ]);
            }
            ("private static final ObjectMapper MAPPER =", set_up, Some("throws JsonProcessingException"))
        }
        Library::Gson => {
            sheet.needs.imports.extend(["com.google.gson.Gson", "com.google.gson.GsonBuilder"]);
            ("private static final Gson GSON =", vec!["new GsonBuilder().serializeNulls().create()"], None)
        }
    };
    let mut set_up = set_up.into_iter().map(text);
    let new = set_up.next().unwrap_or(Doc::Nil);
    let calls = cat(set_up.map(|call| cat([soft(), call])));
    let set_up = group(cat([new, nest(nest(calls)), text(";")]));
    let constant = group(cat([text(constant), nest(nest(cat([line(), set_up])))]));
    let mut inside = vec![constant, text(format!("private {home}() {{}}"))];
    for (root, [decode, encode]) in sheet.plan.entries() {
        let (ty, token) = (type_of(sheet, root), token(sheet.plan, root));
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
        inside.push(braces(head(&ty, decode.as_str(), "String text", may_fail), [read]));
        inside.push(braces(head("String", encode.as_str(), &format!("{ty} value"), may_fail), [write]));
    }
    inside
}

/// How far functions stand inside their class.
const INDENT: usize = 2;

fn head(ty: &str, name: &str, parameter: &str, may_fail: Option<&'static str>) -> Doc {
    let deeper = |doc| nest(nest(doc));
    let parameter = group(deeper(cat([soft(), text(parameter.to_owned())])));
    let fails = may_fail.map_or(Doc::Nil, |fails| group(deeper(cat([line(), text(fails)]))));
    let start = format!("public static {ty}");
    let named = cat([text(format!("{name}(")), parameter, text(")"), fails]);
    if INDENT + start.chars().count() + name.chars().count() + 2 <= ABOUT.style.width {
        cat([text(start + " "), named])
    } else {
        cat([text(start), deeper(cat([hard(), named]))])
    }
}

/// A call as a whole statement.
fn call(name: &str, arguments: &[&str]) -> Doc {
    let arguments = comma_list(arguments.iter().map(|one| text((*one).to_owned())));
    group(cat([text(format!("{name}(")), nest(nest(cat([soft(), group(arguments)]))), text(");")]))
}
