//! The functions that read and write whole responses in Rust.

use jar_sprout_layout::{Doc, braces, cat, group, last_comma, lines, nest, print, soft, text};

use super::Sheet;
use super::{ABOUT, types};

pub(super) fn functions(sheet: &mut Sheet<'_>) -> Vec<Doc> {
    let functions = sheet.plan.entries().flat_map(|(root, [decode, encode])| {
        let ty = sheet.plan.root_type(root, |slot| print(&types::slot(sheet, None, slot), &ABOUT.style));
        let name = sheet.plan.root_ident(root);
        [
            function(
                &[
                    format!("/// Reads the JSON text of a response as [`{name}`]."),
                    errors("Text that is no JSON, or not of this type."),
                ],
                format!("pub fn {decode}("),
                "text: &str".to_owned(),
                &format!("serde_json::Result<{ty}>"),
                "serde_json::from_str(text)",
            ),
            function(
                &[format!("/// Writes [`{name}`] as JSON text."), errors("A value that JSON cannot hold.")],
                format!("pub fn {encode}("),
                format!("value: &{ty}"),
                "serde_json::Result<String>",
                "serde_json::to_string(value)",
            ),
        ]
    });
    functions.collect()
}

/// What its linter wants said of a function that can fail.
fn errors(what: &str) -> String {
    format!("///\n/// # Errors\n/// {what}")
}

fn function(comment: &[String; 2], head: String, parameter: String, result: &str, body: &'static str) -> Doc {
    let parameter = nest(cat([soft(), text(parameter), last_comma()]));
    let head = group(cat([text(head), parameter, soft(), text(format!(") -> {result}"))]));
    let comment = comment.iter().flat_map(|part| part.lines()).map(|line| text(line.to_owned()));
    lines(comment.chain([braces(head, [text(body)])]))
}
