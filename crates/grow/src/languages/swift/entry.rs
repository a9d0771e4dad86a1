//! The functions that read and write whole responses in Swift.

use jar_sprout_layout::{Doc, braces, cat, group, nest, soft, text};

use super::Sheet;
use super::types;
use crate::plan::Ident;

pub(super) fn functions(sheet: &mut Sheet<'_>) -> Vec<Doc> {
    sheet.needs.imports.insert("Foundation");
    let head = format!("{}{}func", sheet.options.access, sheet.options.function);
    let functions = sheet.plan.entries().flat_map(|(root, [decode, encode])| {
        let ty = sheet.plan.root_type(root, |slot| types::slot(sheet, slot));
        let signature = |name: &Ident, parameter: String, result: &str| {
            let parameter = nest(cat([soft(), text(parameter)]));
            group(cat([
                text(format!("{head} {name}(")),
                parameter,
                soft(),
                text(format!(") throws -> {result}")),
            ]))
        };
        let decode = braces(
            signature(decode, "from data: Data".to_owned(), &ty),
            [text(format!("try JSONDecoder().decode({ty}.self, from: data)"))],
        );
        let encode = braces(
            signature(encode, format!("_ value: {ty}"), "Data"),
            [text("try JSONEncoder().encode(value)")],
        );
        [decode].into_iter().chain(sheet.options.is_encoded.then_some(encode))
    });
    functions.collect()
}
