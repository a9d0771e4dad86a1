//! Unions in Swift: enums whose cases hold what they stand for.

use jar_sprout_layout::{Doc, braces, cat, hard, lines, members, text};
use jar_sprout_model::{Type, WireName};

use super::Sheet;
use super::settings::SwiftOptions;
use super::{names, types};
use crate::plan::{CaseKind, PlannedType, PlannedUnion, PlannedUnionCase, ToldCase};

pub(super) fn union(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, union: &PlannedUnion<'_>) -> Doc {
    let ident = &ty.ident;
    let mut cases: Vec<Doc> = Vec::new();
    for case in &union.cases {
        cases.push(text(format!("case {}({})", case.ident, types::slot(sheet, case.slot))));
    }
    if union.tag.is_some() {
        cases.push(text("/// A kind that is not known yet."));
        cases.push(text(format!("case unknown({})", types::any(sheet))));
    }
    let mut inside = vec![lines(cases)];
    match &union.tag {
        Some(tag) => {
            let key = format!("case tag = {}", names::LITERAL.of(tag.as_str()));
            inside.push(braces("private enum TagKey: String, CodingKey", [text(key)]));
            inside.push(decode_by_tag(sheet, union));
        }
        None => {
            inside.extend(telling_keys(sheet, union));
            inside.push(decode_by_kind(sheet, union));
        }
    }
    if sheet.options.is_encoded {
        inside.push(encode(union, sheet.options));
    }
    inside.extend(shared_properties(sheet, ty, union));
    // An enum that holds itself with no list or map between.
    let holds_itself = union.cases.iter().any(|case| match &case.slot.ty {
        Type::Named(id) => !sheet.options.is_class && sheet.plan.contains_inline(*id, ty.id),
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::List(_) | Type::Map(_) | Type::Tuple(_) => {
            false
        }
    });
    let indirect = if holds_itself { "indirect " } else { "" };
    members(
        format!("{}{indirect}enum {ident}: {}", sheet.options.access, sheet.options.protocols(false)),
        inside,
    )
}

fn initializer(options: &SwiftOptions, body: impl IntoIterator<Item = Doc>) -> Doc {
    braces(format!("{}init(from decoder: any Decoder) throws", options.access), body)
}

fn decode_by_tag(sheet: &mut Sheet<'_>, union: &PlannedUnion<'_>) -> Doc {
    let mut branches = Vec::new();
    for case in &union.cases {
        let tag = names::LITERAL.of(case.tag.map_or("", WireName::as_str));
        let ty = types::non_null(sheet, &case.slot.ty);
        branches.push(text(format!("case {tag}:")));
        branches.push(text(format!("    self = .{}(try {ty}(from: decoder))", case.ident)));
    }
    branches.push(text("default:"));
    branches.push(text(format!("    self = .unknown(try {}(from: decoder))", types::any(sheet))));
    initializer(
        sheet.options,
        [
            text("let container = try decoder.container(keyedBy: TagKey.self)"),
            text("let tag = try container.decodeIfPresent(String.self, forKey: .tag)"),
            switch("tag", branches),
        ],
    )
}

/// The keys that tell objects apart: each is called as the case that it tells.
fn telling_keys(sheet: &Sheet<'_>, union: &PlannedUnion<'_>) -> Option<Doc> {
    let keys = sheet.plan.by_kind(union).into_iter().filter_map(|told| {
        let key = names::LITERAL.of(told.key?.as_str());
        Some(text(format!("case {} = {key}", told.case.ident)))
    });
    let keys: Vec<Doc> = keys.collect();
    (!keys.is_empty()).then(|| braces("private enum TellingKey: String, CodingKey", keys))
}

/// The kinds in an order in which one that is not there fails at once. What has parts is told by its container, so that
/// an error in them says where it is.
fn decode_by_kind(sheet: &mut Sheet<'_>, union: &PlannedUnion<'_>) -> Doc {
    let order = |kind: CaseKind| match kind {
        CaseKind::Text => 0,
        CaseKind::Boolean => 1,
        CaseKind::Integer => 2,
        CaseKind::Number => 3,
        CaseKind::List => 4,
        CaseKind::Object => 5,
        CaseKind::Any => 6,
    };
    let mut cases = sheet.plan.by_kind(union);
    cases.sort_by_key(|told| order(told.kind));
    let last = cases.len().saturating_sub(1);
    let mut chain = Vec::new();
    let has_keys = sheet.plan.is_told_by_keys(union);
    for (at, ToldCase { kind, key, case }) in cases.iter().enumerate() {
        let ty = types::slot(sheet, case.slot);
        let otherwise = if at == 0 { "" } else { "} else " };
        let decode = format!("self = .{}(try container.decode({ty}.self))", case.ident);
        let condition = match (kind, key) {
            _ if at == last => {
                if at == 0 {
                    chain.push(text(decode));
                } else {
                    chain.extend([text("} else {"), text(format!("    {decode}")), text("}")]);
                }
                continue;
            }
            (_, Some(_)) => format!("keys?.contains(.{}) == true", names::label(case.ident.as_str())),
            (CaseKind::List, None) => "(try? decoder.unkeyedContainer()) != nil".to_owned(),
            (CaseKind::Object, None) if has_keys => "keys != nil".to_owned(),
            (_, None) => {
                chain.push(text(format!("{otherwise}if let value = try? container.decode({ty}.self) {{")));
                chain.push(text(format!("    self = .{}(value)", case.ident)));
                continue;
            }
        };
        chain.push(text(format!("{otherwise}if {condition} {{")));
        chain.push(text(format!("    {decode}")));
    }
    let container = text("let container = try decoder.singleValueContainer()");
    let keys = has_keys.then(|| text("let keys = try? decoder.container(keyedBy: TellingKey.self)"));
    initializer(sheet.options, [container].into_iter().chain(keys).chain(chain))
}

/// So many branches are read at a glance.
const MOST_BRANCHES: usize = 12;

/// What all cases have, told without telling them apart; of a kind that is not known yet, nothing is known.
fn shared_properties(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, union: &PlannedUnion<'_>) -> Vec<Doc> {
    if union.cases.len() > MOST_BRANCHES {
        return Vec::new();
    }
    let plan = sheet.plan;
    let mut properties = Vec::new();
    for field in plan.shared_fields(ty.id) {
        let is_boxed = |case: &PlannedUnionCase<'_>| {
            let holder = case.slot.ty.named().next();
            matches!((&field.slot.ty, holder), (Type::Named(id), Some(holder))
                if !sheet.options.is_class && plan.contains_inline(*id, holder))
        };
        if union.cases.iter().any(is_boxed) {
            continue;
        }
        let name = &field.ident;
        let member = names::label(name.as_str());
        let known = union.cases.iter().flat_map(|case| {
            let head = text(format!("case .{}(let value):", case.ident));
            [head, text(format!("    value.{member}"))]
        });
        let branches = known.chain([text("case .unknown:"), text("    nil")]);
        let held = types::non_null(sheet, &field.slot.ty);
        let head = format!("{}var {name}: {held}?", sheet.options.access);
        properties.push(braces(head, [switch("self", branches)]));
    }
    properties
}

fn encode(union: &PlannedUnion<'_>, options: &SwiftOptions) -> Doc {
    let is_tagged = union.tag.is_some();
    let call = if is_tagged { "try value.encode(to: encoder)" } else { "try container.encode(value)" };
    let names = union.cases.iter().map(|case| case.ident.to_string());
    let names = names.chain(is_tagged.then(|| "unknown".to_owned()));
    let branches =
        names.flat_map(|name| [text(format!("case .{name}(let value):")), text(format!("    {call}"))]);
    let switch = switch("self", branches);
    let container = (!is_tagged).then(|| text("var container = encoder.singleValueContainer()"));
    braces(
        format!("{}func encode(to encoder: any Encoder) throws", options.access),
        container.into_iter().chain([switch]),
    )
}

/// Its branches stand where it stands itself.
pub(super) fn switch(subject: &str, branches: impl IntoIterator<Item = Doc>) -> Doc {
    let branches = branches.into_iter().map(|branch| cat([hard(), branch]));
    cat([text(format!("switch {subject} {{")), cat(branches), hard(), text("}")])
}
