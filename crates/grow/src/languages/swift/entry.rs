//! The functions that read and write whole responses in Swift.

use jar_sprout_layout::{Doc, text};

use super::settings::Form;
use super::{block, types};
use crate::code::Needs;
use crate::plan::Plan;

pub(super) fn functions(plan: &Plan<'_>, form: &Form, needs: &mut Needs) -> Vec<Doc> {
    needs.imports.insert("Foundation");
    let head = format!("{}{}func", form.access, form.function);
    let functions = plan.entries().flat_map(|(root, [decode, encode])| {
        let ty = plan.root_type(root, |slot| types::slot(plan, slot, form, needs));
        let decode = block(
            &format!("{head} {decode}(from data: Data) throws -> {ty}"),
            [text(format!("try JSONDecoder().decode({ty}.self, from: data)"))],
        );
        let encode = block(
            &format!("{head} {encode}(_ value: {ty}) throws -> Data"),
            [text("try JSONEncoder().encode(value)")],
        );
        [decode].into_iter().chain(form.is_encoded.then_some(encode))
    });
    functions.collect()
}
