//! The functions that read and write whole responses in Go.

use jar_sprout_layout::{Doc, braces, lines, text};

use super::Sheet;
use super::types;

pub(super) fn functions(sheet: &mut Sheet<'_>) -> Vec<Doc> {
    sheet.needs.imports.insert("encoding/json");
    let mut made = Vec::new();
    for (root, [decode, encode]) in sheet.plan.entries() {
        let ty = sheet.plan.root_type(root, |slot| types::slot(sheet, slot));
        let name = sheet.plan.root_ident(root);
        made.push(function(
            format!("// {decode} reads the JSON text of a response as {name}."),
            format!("func {decode}(data []byte) ({ty}, error)"),
            vec![
                format!("var value {ty}"),
                "err := json.Unmarshal(data, &value)".to_owned(),
                "return value, err".to_owned(),
            ],
        ));
        made.push(function(
            format!("// {encode} writes {name} as JSON text."),
            format!("func {encode}(value {ty}) ([]byte, error)"),
            vec!["return json.Marshal(value)".to_owned()],
        ));
    }
    made
}

fn function(comment: String, head: String, body: Vec<String>) -> Doc {
    lines([text(comment), braces(head, body.into_iter().map(text))])
}
