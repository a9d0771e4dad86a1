//! Unions in Go: a struct with a pointer for each case, one of which is set, and methods that choose it.

use jar_sprout_layout::{Doc, braces, cat, hard, lines, nest, paragraphs, table, text};
use jar_sprout_model::{Slot, WireName};

use super::Sheet;
use super::{method, names, types};
use crate::plan::{CaseKind, Ident, PlannedUnion, PlannedUnionCase, ToldCase};

pub(super) fn union(sheet: &mut Sheet<'_>, ident: &Ident, union: &PlannedUnion<'_>) -> Doc {
    sheet.needs.imports.insert("encoding/json");
    let PlannedUnion { tag, cases, unknown: _ } = union;
    let parts = match tag {
        Some(tag) => [
            declaration(sheet, ident, cases, Some(tag)),
            decode_by_tag(ident, tag, cases),
            encode(ident, cases, Some("Other")),
        ],
        None => [
            declaration(sheet, ident, cases, None),
            decode_by_kind(sheet, ident, union),
            encode(ident, cases, None),
        ],
    };
    paragraphs(parts)
}

fn declaration(
    sheet: &mut Sheet<'_>,
    ident: &Ident,
    cases: &[PlannedUnionCase<'_>],
    tag: Option<&WireName>,
) -> Doc {
    let field = |case: &PlannedUnionCase<'_>, sheet: &mut Sheet<'_>| {
        let PlannedUnionCase { ident, tag: _, key: _, slot } = case;
        vec![ident.to_string(), case_type(sheet, slot)]
    };
    let mut rows: Vec<Vec<String>> = cases.iter().map(|case| field(case, sheet)).collect();
    let doc = match tag {
        Some(_) => {
            rows.push(vec!["Other".to_owned(), "json.RawMessage".to_owned()]);
            format!("// {ident} has one of its fields set; a kind that is not known yet is kept in Other.")
        }
        None => format!("// {ident} has one of its fields set."),
    };
    lines([text(doc), braces(format!("type {ident} struct"), [table(rows)])])
}

/// A type whose nil says that the case is not this one.
fn case_type(sheet: &mut Sheet<'_>, slot: &Slot) -> String {
    let ty = types::non_null(sheet, slot);
    if types::has_nil(&slot.ty) { ty } else { format!("*{ty}") }
}

fn decode_by_tag(ident: &Ident, tag: &WireName, cases: &[PlannedUnionCase<'_>]) -> Doc {
    let receiver = names::receiver(ident.as_str());
    let mut body = vec![text(format!("*{receiver} = {ident}{{}}"))];
    let key = names::LITERAL.of(tag.as_str());
    let kind = match names::tag_name(tag.as_str()) {
        Some(name) => {
            body.push(braces("var kind struct", [text(format!("Value string `json:\"{name}\"`"))]));
            body.push(failing("json.Unmarshal(data, &kind)"));
            "kind.Value".to_owned()
        }
        None => {
            body.push(text("var keys map[string]json.RawMessage"));
            body.push(failing("json.Unmarshal(data, &keys)"));
            body.push(text("var kind string"));
            body.push(failing(&format!("json.Unmarshal(keys[{key}], &kind)")));
            "kind".to_owned()
        }
    };
    body.push(text(format!("switch {kind} {{")));
    for PlannedUnionCase { ident: case, tag, key: _, slot: _ } in cases {
        let tag = names::LITERAL.of(tag.map_or("", WireName::as_str));
        body.push(branch(
            &format!("case {tag}:"),
            [format!("return json.Unmarshal(data, &{receiver}.{case})")],
        ));
    }
    let keep = format!("return json.Unmarshal(data, &{receiver}.Other)");
    body.push(branch("default:", [keep]));
    body.push(text("}"));
    method(
        "UnmarshalJSON chooses the case by its tag.",
        &format!("({receiver} *{ident}) UnmarshalJSON(data []byte) error"),
        body,
    )
}

fn decode_by_kind(sheet: &mut Sheet<'_>, ident: &Ident, union: &PlannedUnion<'_>) -> Doc {
    let receiver = names::receiver(ident.as_str());
    let mut body = vec![text(format!("*{receiver} = {ident}{{}}"))];
    if sheet.plan.is_told_by_keys(union) {
        body.push(text("var keys map[string]json.RawMessage"));
        if union.cases.iter().all(|case| sheet.plan.kind(case.slot) == CaseKind::Object) {
            body.push(failing("json.Unmarshal(data, &keys)"));
        } else {
            body.push(braces(
                "if bytes.HasPrefix(data, []byte(\"{\"))",
                [failing("json.Unmarshal(data, &keys)")],
            ));
        }
    }
    body.push(text("switch {"));
    let cases = sheet.plan.by_kind(union);
    let last = cases.len().saturating_sub(1);
    let mut is_asked = false;
    for (at, ToldCase { kind, key, case: PlannedUnionCase { ident: case, .. } }) in
        cases.into_iter().enumerate()
    {
        let condition = match key {
            Some(key) => format!("case keys[{}] != nil:", names::LITERAL.of(key.as_str())),
            None if at == last => "default:".to_owned(),
            None => {
                is_asked = true;
                condition(kind)
            }
        };
        body.push(branch(&condition, [format!("return json.Unmarshal(data, &{receiver}.{case})")]));
    }
    body.push(text("}"));
    if is_asked {
        sheet.needs.imports.insert("bytes");
    }
    let doc = if sheet.plan.is_told_by_keys(union) {
        "UnmarshalJSON chooses the case by the keys that are there."
    } else {
        "UnmarshalJSON chooses the case by the kind of value."
    };
    method(doc, &format!("({receiver} *{ident}) UnmarshalJSON(data []byte) error"), body)
}

/// What tells a kind of value from those that come after it: how it starts.
fn condition(kind: CaseKind) -> String {
    let starts = |start: &str| format!("bytes.HasPrefix(data, []byte({}))", names::LITERAL.of(start));
    match kind {
        CaseKind::Object => format!("case {}:", starts("{")),
        CaseKind::List => format!("case {}:", starts("[")),
        CaseKind::Text => format!("case {}:", starts("\"")),
        CaseKind::Boolean => format!("case {}, {}:", starts("t"), starts("f")),
        CaseKind::Integer => "case !bytes.ContainsAny(data, \".eE\"):".to_owned(),
        CaseKind::Number | CaseKind::Any => "default:".to_owned(),
    }
}

/// Encodes the case that is set.
fn encode(ident: &Ident, cases: &[PlannedUnionCase<'_>], unknown: Option<&str>) -> Doc {
    let receiver = names::receiver(ident.as_str());
    let mut body = vec![text("switch {")];
    let mut names: Vec<&str> = cases.iter().map(|case| case.ident.as_str()).collect();
    let last = unknown.or_else(|| names.pop()).unwrap_or_default();
    for case in names {
        body.push(branch(
            &format!("case {receiver}.{case} != nil:"),
            [format!("return json.Marshal({receiver}.{case})")],
        ));
    }
    body.push(branch("default:", [format!("return json.Marshal({receiver}.{last})")]));
    body.push(text("}"));
    method(
        "MarshalJSON writes the case that is set.",
        &format!("({receiver} {ident}) MarshalJSON() ([]byte, error)"),
        body,
    )
}

fn branch(condition: &str, body: impl IntoIterator<Item = String>) -> Doc {
    let body = body.into_iter().map(|line| cat([hard(), text(line)]));
    cat([text(condition.to_owned()), nest(cat(body))])
}

/// `if err := …; err != nil { return err }`
pub(super) fn failing(call: &str) -> Doc {
    braces(format!("if err := {call}; err != nil"), [text("return err")])
}
