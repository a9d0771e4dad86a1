//! Plain types beside those of the wire, with names as the language has them.

use jar_sprout_layout::{
    Doc, braces, cat, group, hard, last_comma, line, lines, nest, paragraphs, soft, text,
};
use jar_sprout_model::{Slot, Type, WireName};

use super::Sheet;
use super::reading::head;
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
            (union(sheet, copy, of), body)
        }
    };
    let wire = format!("wire: {}", wire.ident);
    let head = head(format!("export function {}", function(copy)), &[&wire], copy.ident.as_str());
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
        let name = text(format!("{}{}", sheet.options.hold.property(), field.ident));
        let property = cat([name, types::property_of(sheet, ":", field.slot)]);
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
            let may_be_null = may_be_null(source) && source.slot.ty != Type::Any;
            let is_as_it_is = matches!(conversion, Conversion::AsIs);
            let nothing = match (is_collection(source), &source.slot.ty) {
                (true, Type::Map(_)) => "{}",
                (true, _) => "[]",
                (false, _) => "null",
            };
            let value = if may_be_null && is_as_it_is {
                assigned(text(format!("{value} ?? {nothing}")))
            } else if may_be_null && is_collection(source) {
                let there = match conversion {
                    // An argument needs no parentheses.
                    Conversion::Values(..) => format!("{value} ?? {nothing}"),
                    Conversion::AsIs | Conversion::Made(_) | Conversion::Items(..) => {
                        format!("({value} ?? {nothing})")
                    }
                };
                cat([text(" "), made(&conversion, &there, 0)])
            } else if may_be_null {
                assigned(or_null(&conversion, &value, 0))
            } else {
                let opening = match &conversion {
                    Conversion::Made(made) => {
                        4 + field.ident.as_str().len() + ": (".len() + function(made).len()
                    }
                    Conversion::AsIs | Conversion::Items(..) | Conversion::Values(..) => 0,
                };
                let made = made(&conversion, &value, 0);
                if opening > ABOUT.style.width { assigned(made) } else { cat([text(" "), made]) }
            };
            cat([hard(), text(format!("{}:", field.ident)), value, text(",")])
        })
        .collect();
    if entries.is_empty() {
        return vec![text("void wire;"), text("return {};")];
    }
    vec![cat([text("return {"), nest(cat(entries)), hard(), text("};")])]
}

/// What stands behind a colon, or on the next line where it has no room there.
fn assigned(value: Doc) -> Doc {
    group(nest(cat([line(), value])))
}

/// A call with one argument.
fn call(function: String, argument: Doc) -> Doc {
    group(cat([text(function + "("), nest(cat([soft(), argument, last_comma()])), soft(), text(")")]))
}

fn or_null(conversion: &Conversion<'_>, value: &str, depth: usize) -> Doc {
    match conversion {
        Conversion::AsIs => text(value.to_owned()),
        conversion @ (Conversion::Made(_) | Conversion::Items(..) | Conversion::Values(..)) => {
            let made = made(conversion, value, depth);
            let choice = nest(cat([line(), text("? null"), line(), text(": "), nest(made)]));
            group(cat([text(format!("{value} == null")), choice]))
        }
    }
}

/// The expression for what a value of the wire becomes, which is not null.
fn made(conversion: &Conversion<'_>, value: &str, depth: usize) -> Doc {
    let held = |conversion: &Conversion<'_>, is_null: bool, name: &str| {
        if is_null { or_null(conversion, name, depth + 1) } else { made(conversion, name, depth + 1) }
    };
    match conversion {
        Conversion::AsIs => text(value.to_owned()),
        Conversion::Made(copy) => call(function(copy), text(value.to_owned())),
        Conversion::Items(item, is_null) => match (&**item, is_null) {
            (Conversion::Made(copy), false) => call(format!("{value}.map"), text(function(copy))),
            (item, _) => {
                let name = item_name(depth);
                let body = nest(cat([line(), held(item, *is_null, &name), last_comma()]));
                group(cat([text(format!("{value}.map(({name}) =>")), body, soft(), text(")")]))
            }
        },
        Conversion::Values(of, is_null) => {
            let of = held(of, *is_null, "held");
            let pair = nest(cat([soft(), text("key,"), line(), of, last_comma()]));
            let pair = group(cat([text("["), pair, soft(), text("]")]));
            let (entries, made) = (format!("Object.entries({value}).map"), text("([key, held]) => "));
            // Its formatter lets the pair open on the line only where that line has room for it.
            let opening = ENTRIES + entries.len() + "(([key, held]) => [".len();
            let entries = if opening <= ABOUT.style.width {
                cat([text(entries + "("), made, pair, text(")")])
            } else {
                call(entries, cat([made, pair]))
            };
            call("Object.fromEntries".to_owned(), entries)
        }
    }
}

/// The column at which the entries of a map stand that does not fit on a line.
const ENTRIES: usize = 6;

fn item_name(depth: usize) -> String {
    if depth == 0 { "item".to_owned() } else { format!("item{}", depth + 1) }
}

fn by_tag(sheet: &Sheet<'_>, tag: &WireName, source: &PlannedUnion<'_>) -> Vec<Doc> {
    let plan = sheet.plan;
    let mut branches = Vec::new();
    for case in &source.cases {
        let tag = names::literal(case.tag.map_or("", WireName::as_str));
        let value = made(&conversion(plan, &case.slot.ty), "wire", 0);
        let body = nest(cat([hard(), text("return "), value, text(";")]));
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
    if cases.iter().all(|told| held(plan, told.case.slot) == text("wire")) {
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
        let returned = cat([text("return "), value, text(";")]);
        // What is no object was told before.
        let has_key = key.map(|key| format!("{} in wire", names::literal(key.as_str())));
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

fn held(plan: &Plan<'_>, slot: &Slot) -> Doc {
    let conversion = conversion(plan, &slot.ty);
    if slot.nullable { or_null(&conversion, "wire", 0) } else { made(&conversion, "wire", 0) }
}
