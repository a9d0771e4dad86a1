//! Plain types beside those of the wire, with names as the language has them.

use jar_sprout_layout::{
    Doc, braces, cat, group, hard, last_comma, line, lines, nest, paragraphs, soft, text,
};
use jar_sprout_model::{Slot, Type, WireName};

use super::Sheet;
use super::{ABOUT, Reading, names, types, union};
use crate::plan::{CaseKind, Plan, PlannedField, PlannedType, PlannedUnion, ToldCase};
use crate::spell::plain_copies::{
    self as copies, Both, Conversion, Sides, conversion, is_collection, may_be_null,
};

/// The declaration of a plain type, and the function that makes it.
pub(super) fn declare(sheet: &mut Sheet<'_>, copy: &PlannedType<'_>, wire: &PlannedType<'_>) -> Doc {
    let (declaration, body) = match copies::sides(copy, wire) {
        Sides::Records(both) => (record(sheet, copy, both.copy), construction(sheet.plan, both.pairs())),
        Sides::Unions(Both { copy: of, wire: source }) => {
            let body = match source.tag {
                Some(tag) => by_tag(sheet, tag, source),
                None => by_kind(sheet.plan, source),
            };
            (union(sheet, &copy.ident, of), body)
        }
    };
    let head = group(cat([
        text(format!("export function {}(", function(copy))),
        nest(cat([soft(), text(format!("wire: {}", wire.ident)), last_comma()])),
        soft(),
        text(format!("): {}", copy.ident)),
    ]));
    paragraphs([declaration, braces(head, body)])
}

fn function(copy: &PlannedType<'_>) -> String {
    format!("to{}", copy.ident)
}

fn record(sheet: &Sheet<'_>, copy: &PlannedType<'_>, fields: &[PlannedField<'_>]) -> Doc {
    if fields.is_empty() {
        return text(format!("export type {} = Record<string, never>;", copy.ident));
    }
    let field = |field: &PlannedField<'_>| {
        let (hold, ty) = (sheet.options.hold.property(), types::slot(sheet, field.slot));
        let property = text(format!("{hold}{}: {ty};", field.ident));
        lines(ABOUT.comment.of(field.docs, 2).into_iter().chain([property]))
    };
    braces(format!("export interface {}", copy.ident), fields.iter().map(field))
}

fn construction<'f, 'm: 'f>(
    plan: &Plan<'_>,
    pairs: impl Iterator<Item = (&'f PlannedField<'m>, &'f PlannedField<'m>)>,
) -> Vec<Doc> {
    let entries: Vec<Doc> = pairs
        .map(|(field, source)| {
            let value = names::access("wire", source.wire.as_str());
            let conversion = conversion(plan, &source.slot.ty);
            let made = match (may_be_null(source) && source.slot.ty != Type::Any, is_collection(source)) {
                (true, true) => {
                    let nothing = if matches!(source.slot.ty, Type::Map(_)) { "{}" } else { "[]" };
                    match conversion {
                        Conversion::AsIs => format!("{value} ?? {nothing}"),
                        conversion @ (Conversion::Made(_)
                        | Conversion::Items(..)
                        | Conversion::Values(..)) => made(&conversion, &format!("({value} ?? {nothing})"), 0),
                    }
                }
                (true, false) => match conversion {
                    Conversion::AsIs => format!("{value} ?? null"),
                    conversion @ (Conversion::Made(_) | Conversion::Items(..) | Conversion::Values(..)) => {
                        or_null(&conversion, &value, 0)
                    }
                },
                (false, _) => made(&conversion, &value, 0),
            };
            cat([hard(), text(format!("{}: ", field.ident)), arrow(&made), text(",")])
        })
        .collect();
    if entries.is_empty() {
        return vec![text("void wire;"), text("return {};")];
    }
    vec![cat([text("return {"), nest(cat(entries)), hard(), text("};")])]
}

/// A call with a function, whose body goes onto a line of its own where it must.
fn arrow(value: &str) -> Doc {
    let Some((head, body)) = value.split_once(" => ").filter(|_| value.ends_with(')')) else {
        return text(value.to_owned());
    };
    let body = body.strip_suffix(')').unwrap_or(body);
    let body = cat([nest(cat([line(), text(body.to_owned()), last_comma()])), soft()]);
    group(cat([text(format!("{head} =>")), body, text(")")]))
}

fn or_null(conversion: &Conversion<'_>, value: &str, depth: usize) -> String {
    match conversion {
        Conversion::AsIs => value.to_owned(),
        conversion @ (Conversion::Made(_) | Conversion::Items(..) | Conversion::Values(..)) => {
            format!("{value} == null ? null : {}", made(conversion, value, depth))
        }
    }
}

/// The expression for what a value of the wire becomes, which is not null.
fn made(conversion: &Conversion<'_>, value: &str, depth: usize) -> String {
    let held = |conversion: &Conversion<'_>, is_null: bool, name: &str| {
        if is_null { or_null(conversion, name, depth + 1) } else { made(conversion, name, depth + 1) }
    };
    match conversion {
        Conversion::AsIs => value.to_owned(),
        Conversion::Made(copy) => format!("{}({value})", function(copy)),
        Conversion::Items(item, is_null) => match (&**item, is_null) {
            (Conversion::Made(copy), false) => format!("{value}.map({})", function(copy)),
            (item, _) => {
                let name = item_name(depth);
                format!("{value}.map(({name}) => {})", held(item, *is_null, &name))
            }
        },
        Conversion::Values(of, is_null) => {
            let of = held(of, *is_null, "held");
            format!("Object.fromEntries(Object.entries({value}).map(([key, held]) => [key, {of}]))")
        }
    }
}

fn item_name(depth: usize) -> String {
    if depth == 0 { "item".to_owned() } else { format!("item{}", depth + 1) }
}

fn by_tag(sheet: &Sheet<'_>, tag: &WireName, source: &PlannedUnion<'_>) -> Vec<Doc> {
    let plan = sheet.plan;
    let mut branches = Vec::new();
    for case in &source.cases {
        let tag = names::LITERAL.of(case.tag.map_or("", WireName::as_str));
        let value = made(&conversion(plan, &case.slot.ty), "wire", 0);
        let body = nest(cat([hard(), text(format!("return {value};"))]));
        branches.push(cat([text(format!("case {tag}:")), body]));
    }
    if sheet.options.reading != Reading::None {
        // A kind that is not known yet.
        branches.push(cat([text("default:"), nest(cat([hard(), text("return wire;")]))]));
    }
    let subject = names::access("wire", tag.as_str());
    vec![braces(format!("switch ({subject})"), branches)]
}

/// Values of a kind that stays as it is need no test where nothing else is of that kind.
fn by_kind(plan: &Plan<'_>, source: &PlannedUnion<'_>) -> Vec<Doc> {
    let mut cases = plan.by_kind(source);
    // What an array is told from is an object as well to the compiler: it comes last, and needs no test.
    cases.sort_by_key(|told| match told.kind {
        CaseKind::Text | CaseKind::Boolean | CaseKind::Integer | CaseKind::Number | CaseKind::List => 0,
        CaseKind::Object => 1,
        CaseKind::Any => 2,
    });
    let last = cases.len().saturating_sub(1);
    if cases.iter().all(|told| held(plan, told.case.slot) == "wire") {
        return vec![text("return wire;")];
    }
    let has_map = cases.iter().any(|told| matches!(told.case.slot.ty, Type::Map(_)));
    let mut body = Vec::new();
    for (at, ToldCase { kind, key, case }) in cases.iter().enumerate() {
        let value = match (&case.slot.ty, key) {
            // To the compiler, a map may have the key as well.
            (Type::Named(id), Some(_)) if has_map => {
                made(&conversion(plan, &case.slot.ty), &format!("wire as {}", plan.ident(*id)), 0)
            }
            _ => held(plan, case.slot),
        };
        let returned = text(format!("return {value};"));
        // What is no object was told before.
        let has_key = key.map(|key| format!("{} in wire", names::LITERAL.of(key.as_str())));
        let test = has_key.or_else(|| test(plan, *kind).map(str::to_owned));
        match test.filter(|_| at < last) {
            Some(test) => {
                body.push(cat([
                    text(format!("if ({test}) {{")),
                    nest(cat([hard(), returned])),
                    hard(),
                    text("}"),
                ]));
            }
            None => body.push(returned),
        }
    }
    body
}

/// What tells a kind from the others, so that the compiler knows it too.
fn test(plan: &Plan<'_>, kind: CaseKind) -> Option<&'static str> {
    match kind {
        CaseKind::Text => Some("typeof wire === \"string\""),
        CaseKind::Boolean => Some("typeof wire === \"boolean\""),
        CaseKind::Integer | CaseKind::Number if plan.leaves_doubles => {
            Some("typeof wire === \"number\" || typeof wire === \"bigint\"")
        }
        CaseKind::Integer | CaseKind::Number => Some("typeof wire === \"number\""),
        CaseKind::List => Some("Array.isArray(wire)"),
        CaseKind::Object => Some("typeof wire === \"object\" && wire !== null"),
        CaseKind::Any => None,
    }
}

fn held(plan: &Plan<'_>, slot: &Slot) -> String {
    let conversion = conversion(plan, &slot.ty);
    if slot.nullable { or_null(&conversion, "wire", 0) } else { made(&conversion, "wire", 0) }
}
