//! The functions that read and write whole responses in Swift.

use jar_sprout_layout::{Doc, braces, text};

use super::Sheet;
use super::types;

pub(super) fn functions(sheet: &mut Sheet<'_>) -> Vec<Doc> {
    sheet.needs.imports.insert("Foundation");
    let head = format!("{}{}func", sheet.options.access, sheet.options.function);
    let functions = sheet.plan.entries().flat_map(|(root, [decode, encode])| {
        let ty = sheet.plan.root_type(root, |slot| types::slot(sheet, slot));
        let decode = braces(
            format!("{head} {decode}(from data: Data) throws -> {ty}"),
            [text(format!("try JSONDecoder().decode({ty}.self, from: data)"))],
        );
        let encode = braces(
            format!("{head} {encode}(_ value: {ty}) throws -> Data"),
            [text("try JSONEncoder().encode(value)")],
        );
        [decode].into_iter().chain(sheet.options.is_encoded.then_some(encode))
    });
    functions.collect()
}
