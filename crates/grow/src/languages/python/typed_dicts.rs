//! Typed dictionaries: what `json.loads` gives, with names for a type checker. Nothing of it is there at run time.

use jar_sprout_layout::{
    Doc, Style, cat, comma_list, group, hard, last_comma, lines, nest, print, soft, text,
};
use jar_sprout_model::{Scalar, ScalarKind, Slot, Type};

use super::Sheet;
use super::settings::Level;
use super::types::platform_scalar;
use super::{ABOUT, alternatives, docstring, documented, names};
use crate::plan::{PlannedCase, PlannedField, PlannedType, PlannedUnion};
use crate::spell::Needs;

/// What annotations are written with, and letters that its linters take for digits.
const BUILT_IN: &[&str] = &[
    "I",
    "O",
    "l",
    "Literal",
    "NotRequired",
    "TypedDict",
    "bool",
    "dict",
    "float",
    "int",
    "list",
    "object",
    "str",
];

/// The type of a place for a value: `Queen | None`
pub(super) fn slot(sheet: &mut Sheet<'_>, slot: &Slot) -> String {
    let ty = non_null(sheet, &slot.ty);
    if slot.nullable && slot.ty != Type::Any { format!("{ty} | None") } else { ty }
}

fn non_null(sheet: &mut Sheet<'_>, ty: &Type) -> String {
    match ty {
        Type::Any => "object".to_owned(),
        // A date stays the text it is on the wire.
        Type::Scalar(scalar @ Scalar::Always(_)) => platform_scalar(*scalar, sheet.needs).to_owned(),
        Type::Scalar(scalar) => match scalar.kind() {
            ScalarKind::Boolean => "bool",
            ScalarKind::Integer => "int",
            ScalarKind::Number => "float",
            ScalarKind::Text => "str",
        }
        .to_owned(),
        Type::Constant(constant) => {
            sheet.needs.imports.insert("from typing import Literal");
            format!("Literal[{}]", names::literal(constant.as_str()))
        }
        Type::List(items) => format!("list[{}]", slot(sheet, items)),
        Type::Map(values) => format!("dict[str, {}]", slot(sheet, values)),
        // A list of JSON is a list, however many items it has.
        Type::Tuple(items) => {
            let mut kinds: Vec<String> = items.iter().map(|item| slot(sheet, item)).collect();
            kinds.sort();
            kinds.dedup();
            format!("list[{}]", kinds.join(" | "))
        }
        Type::Named(id) => sheet.plan.ident(*id).to_string(),
    }
}

/// `float | Literal["N/A"] | None`, where words stand for nothing that are not texts among others.
fn or_words(sheet: &mut Sheet<'_>, field: &PlannedField<'_>, ty: String) -> String {
    let (value, null) = ty.strip_suffix(" | None").map_or((&*ty, ""), |value| (value, " | None"));
    let Some(words) = field.nothing_words().filter(|_| value != "str" && value != "object") else {
        return ty;
    };
    sheet.needs.imports.insert("from typing import Literal");
    let words: Vec<String> = words.iter().map(|word| names::literal(word.as_str())).collect();
    format!("{value} | Literal[{}]{null}", words.join(", "))
}

/// A class where every key is an identifier, else a call with the keys as text.
pub(super) fn record(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, fields: &[PlannedField<'_>]) -> Doc {
    sheet.needs.imports.insert("from typing import TypedDict");
    let is_plain = |field: &PlannedField<'_>| {
        let key = field.wire.as_str();
        // Two underscores in front are mangled inside a class, where the name of a type would hide the type.
        let hides = BUILT_IN.contains(&key) || sheet.plan.find(key).is_some();
        names::is_identifier(key) && !key.starts_with("__") && !hides
    };
    let typed = |field: &PlannedField<'_>, sheet: &mut Sheet<'_>| {
        let ty = slot(sheet, field.slot);
        let ty = or_words(sheet, field, ty);
        if field.fate.is_always_there() {
            return text(ty);
        }
        sheet.needs.imports.insert(match sheet.options.level {
            Level::Ten => "from typing_extensions import NotRequired",
            Level::Eleven => "from typing import NotRequired",
        });
        group(cat([text("NotRequired["), nest(cat([soft(), text(ty)])), soft(), text("]")]))
    };
    let ident = &ty.ident;
    if fields.iter().all(is_plain) {
        let members: Vec<Doc> = fields
            .iter()
            .map(|field| {
                let member = cat([text(format!("{}: ", field.wire)), typed(field, sheet)]);
                cat([hard(), documented(member, field.docs)])
            })
            .collect();
        let comment = docstring(ty.docs);
        let body = match (members.is_empty(), &comment) {
            (true, None) => cat([hard(), text("pass")]),
            _ => cat(members),
        };
        let body = cat(comment.into_iter().chain([body]));
        return cat([text(format!("class {ident}(TypedDict):")), nest(body)]);
    }
    let flat = Style { width: usize::MAX, ..ABOUT.style };
    let entries: Vec<Doc> = fields
        .iter()
        .map(|field| {
            let key = names::literal(field.wire.as_str());
            // Quoted: a type may need itself, or one that comes later.
            cat([hard(), text(format!("{key}: {},", names::literal(&print(&typed(field, sheet), &flat))))])
        })
        .collect();
    let open = text(format!("{ident} = TypedDict("));
    let entries = cat([text("{"), nest(cat(entries)), hard(), text("},")]);
    let arguments = nest(cat([hard(), text(format!("\"{ident}\",")), hard(), entries]));
    let call = cat([open, arguments, hard(), text(")")]);
    jar_sprout_layout::lines([call].into_iter().chain(ABOUT.comment.of(ty.docs, 0)))
}

/// A text; which ones are known is for people.
pub(super) fn enumeration(ty: &PlannedType<'_>, cases: &[PlannedCase<'_>], needs: &mut Needs) -> Doc {
    let known: Vec<String> = cases.iter().map(|case| names::literal(case.wire.as_str())).collect();
    if ty.is_closed {
        needs.imports.insert("from typing import Literal");
        let known = comma_list(known.into_iter().map(text));
        let known = cat([text("Literal["), nest(cat([soft(), known, last_comma()])), soft(), text("]")]);
        let alias = cat([text(format!("{} = ", ty.ident)), group(known)]);
        return lines([alias].into_iter().chain(ABOUT.comment.of(ty.docs, 0)));
    }
    let known = format!("One of {}; more may come.", known.join(", "));
    let said = if ty.docs.text().is_empty() { known } else { format!("{}\n\n{known}", ty.docs.text()) };
    let docs = ty.docs.with_text(&said);
    let alias = text(format!("{} = str", ty.ident));
    lines([alias].into_iter().chain(ABOUT.comment.of(&docs, 0)))
}

pub(super) fn union(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, union: &PlannedUnion<'_>) -> Doc {
    let ident = &ty.ident;
    let cases: Vec<String> = union.cases.iter().map(|case| slot(sheet, case.slot)).collect();
    if sheet.plan.names_itself(ty.id) {
        sheet.needs.imports.insert("from typing import TypeAlias");
        return text(format!("{ident}: TypeAlias = \"{}\"", cases.join(" | ")));
    }
    alternatives(ident, cases.into_iter().map(text))
}
