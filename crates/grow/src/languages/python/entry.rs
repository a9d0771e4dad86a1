//! The functions that read and write whole responses in Python.

use jar_sprout_layout::{Doc, cat, group, hard, last_comma, lines, nest, print, soft, text};

use super::Sheet;
use super::settings::Types;
use super::{ABOUT, dataclasses, typed_dicts, types};
use crate::plan::{Ident, PlannedDefinition, PlannedRoot, small_words};

pub(super) fn functions(sheet: &mut Sheet<'_>, kind: Types) -> Vec<Doc> {
    let mut made = Vec::new();
    let mut adapters = Vec::new();
    for (root, [decode, encode]) in sheet.plan.entries() {
        let ty = type_of(sheet, root, kind);
        let (read, write) = match kind {
            Types::Pydantic => {
                sheet.needs.imports.insert("from pydantic import TypeAdapter");
                let adapter = adapter_name(sheet.plan.root_ident(root));
                adapters.push(declared(&adapter, &ty));
                (
                    text(format!("{adapter}.validate_json(text)")),
                    call(
                        format!("{adapter}.dump_json("),
                        "value, by_alias=True, exclude_unset=True".to_owned(),
                        ").decode()",
                    ),
                )
            }
            Types::Dataclasses => {
                sheet.needs.imports.insert("import json");
                dataclasses::entry(sheet, root)
            }
            Types::TypedDicts => {
                sheet.needs.imports.extend(["import json", "from typing import cast"]);
                (text(format!("cast(\"{ty}\", json.loads(text))")), text("json.dumps(value)"))
            }
        };
        made.push(function(format!("def {decode}("), "text: str".to_owned(), &ty, read));
        made.push(function(format!("def {encode}("), format!("value: {ty}"), "str", write));
    }
    let adapters = (!adapters.is_empty()).then(|| lines(adapters));
    adapters.into_iter().chain(made).collect()
}

/// The type of a root.
fn type_of(sheet: &mut Sheet<'_>, root: &PlannedRoot<'_>, kind: Types) -> String {
    sheet.plan.root_type(root, |slot| match kind {
        Types::TypedDicts => typed_dicts::slot(sheet, slot),
        Types::Pydantic | Types::Dataclasses => print(&types::slot(sheet, slot, kind), &ABOUT.style),
    })
}

/// `HivePage.model_validate_json(text)`
pub(super) fn reading(sheet: &mut Sheet<'_>, root: &PlannedRoot<'_>, kind: Types) -> String {
    let ty = type_of(sheet, root, kind);
    match (kind, root) {
        (Types::Pydantic, PlannedRoot::Named { id, slot })
            if !slot.nullable && matches!(sheet.plan.get(*id).definition, PlannedDefinition::Record(_)) =>
        {
            format!("{ty}.model_validate_json(text)")
        }
        (Types::Pydantic, _) => format!("TypeAdapter({ty}).validate_json(text)"),
        (Types::Dataclasses, _) => print(&dataclasses::entry(sheet, root).0, &ABOUT.style),
        (Types::TypedDicts, _) => format!("cast(\"{ty}\", json.loads(text))"),
    }
}

/// `_HIVES: TypeAdapter[Hives] = TypeAdapter(Hives)`, broken where its formatter breaks it: inside the call, before it, or
/// inside the type.
fn declared(adapter: &str, ty: &str) -> Doc {
    let head = format!("{adapter}: TypeAdapter[{ty}] =");
    let fits = |behind: &str| head.chars().count() + behind.len() <= ABOUT.style.width;
    if fits(" TypeAdapter(") {
        call(format!("{head} TypeAdapter("), ty.to_owned(), ")")
    } else if fits(" (") {
        let made = nest(cat([hard(), text(format!("TypeAdapter({ty})"))]));
        cat([text(format!("{head} (")), made, hard(), text(")")])
    } else {
        let inside = nest(cat([hard(), text(ty.to_owned())]));
        let made = text(format!("] = TypeAdapter({ty})"));
        cat([text(format!("{adapter}: TypeAdapter[")), inside, hard(), made])
    }
}

/// A call, with what it is given in a line of its own where all does not fit.
fn call(head: String, arguments: String, end: &'static str) -> Doc {
    group(cat([text(head), nest(cat([soft(), text(arguments)])), soft(), text(end)]))
}

/// `_HIVES`
fn adapter_name(ident: &Ident) -> String {
    format!("_{}", small_words(ident.as_str(), "_").to_uppercase())
}

fn function(head: String, parameter: String, result: &str, body: Doc) -> Doc {
    let parameter = nest(cat([soft(), text(parameter), last_comma()]));
    let head = group(cat([text(head), parameter, soft(), text(format!(") -> {result}:"))]));
    cat([head, nest(cat([hard(), text("return "), body]))])
}
