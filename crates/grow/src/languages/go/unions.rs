//! Unions in Go: a struct with a pointer for each case, one of which is set, and methods that choose it.

use jar_sprout_layout::{Doc, braces, cat, hard, lines, nest, paragraphs, table, text};
use jar_sprout_model::{Slot, Type, WireName, Words};

use super::Sheet;
use super::{method, names, types};
use crate::plan::{CaseKind, Ident, Plan, PlannedUnion, PlannedUnionCase, ToldCase, small_words};

pub(super) fn union(sheet: &mut Sheet<'_>, ident: &Ident, union: &PlannedUnion<'_>) -> Doc {
    sheet.needs.imports.insert("encoding/json");
    let PlannedUnion { tag, cases, unknown: _ } = union;
    let parts = match tag {
        Some(tag) => {
            sheet.needs.imports.insert("fmt");
            [
                declaration(sheet, ident, cases, Some(tag)),
                decode_by_tag(ident, tag, cases),
                encode(sheet.plan, ident, cases, Some("Other")),
            ]
        }
        None => [
            declaration(sheet, ident, cases, None),
            decode_by_kind(sheet, ident, union),
            encode(sheet.plan, ident, cases, None),
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
    let name = small_words(ident.as_str(), " ");
    let failing = |call: &str| {
        let wrapped = format!("return fmt.Errorf(\"{name}: %w\", err)");
        braces(format!("if err := {call}; err != nil"), [text(wrapped)])
    };
    let kind = match names::tag_name(tag.as_str()) {
        Some(key) => {
            let field = (names::NAMING.type_case)(&Words::split(tag.as_str()));
            body.push(braces("type tagged struct", [text(format!("{field} string `json:\"{key}\"`"))]));
            body.push(text("var tag tagged"));
            body.push(failing("json.Unmarshal(data, &tag)"));
            format!("tag.{field}")
        }
        None => {
            body.push(text("var keys map[string]json.RawMessage"));
            body.push(failing("json.Unmarshal(data, &keys)"));
            body.push(text("var tag string"));
            body.push(failing(&format!("json.Unmarshal(keys[{key}], &tag)")));
            "tag".to_owned()
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
            body.push(braces("if data[0] == '{'", [failing("json.Unmarshal(data, &keys)")]));
        }
    }
    let cases = sheet.plan.by_kind(union);
    let last = cases.len().saturating_sub(1);
    let told: Vec<(Told, String)> = cases
        .into_iter()
        .enumerate()
        .map(|(at, ToldCase { kind, key, case: PlannedUnionCase { ident: case, .. } })| {
            let told = match key {
                Some(key) => Told::Key(names::LITERAL.of(key.as_str())),
                None if at == last => Told::Otherwise,
                None => told(kind),
            };
            (told, format!("return json.Unmarshal(data, &{receiver}.{case})"))
        })
        .collect();
    if told.iter().any(|(told, _)| matches!(told, Told::Whole)) {
        sheet.needs.imports.insert("bytes");
    }
    body.extend(choices(told));
    let doc = if sheet.plan.is_told_by_keys(union) {
        "UnmarshalJSON chooses the case by the keys that are there."
    } else {
        "UnmarshalJSON chooses the case by the kind of value."
    };
    method(doc, &format!("({receiver} *{ident}) UnmarshalJSON(data []byte) error"), body)
}

/// What tells a kind of value from those that come after it.
enum Told {
    /// How it starts.
    Start(&'static [&'static str]),
    /// A key that it has.
    Key(String),
    /// That it is a number with no fraction.
    Whole,
    Otherwise,
}

fn told(kind: CaseKind) -> Told {
    match kind {
        CaseKind::Object => Told::Start(&["'{'"]),
        CaseKind::List => Told::Start(&["'['"]),
        CaseKind::Text => Told::Start(&["'\"'"]),
        CaseKind::Boolean => Told::Start(&["'t'", "'f'"]),
        CaseKind::Integer => Told::Whole,
        CaseKind::Number | CaseKind::Any => Told::Otherwise,
    }
}

/// One of two by a condition, one of several by a switch.
fn choices(told: Vec<(Told, String)>) -> Vec<Doc> {
    let starts = |start: &&str| format!("data[0] == {start}");
    let condition = |told: &Told| match told {
        Told::Start(signs) => signs.iter().map(starts).collect::<Vec<_>>().join(" || "),
        Told::Key(key) => format!("keys[{key}] != nil"),
        Told::Whole => "!bytes.ContainsAny(data, \".eE\")".to_owned(),
        Told::Otherwise => String::new(),
    };
    if let [(first, then), (Told::Otherwise, otherwise)] = &told[..] {
        let first = braces(format!("if {}", condition(first)), [text(then.clone())]);
        return vec![first, text(otherwise.clone())];
    }
    let by_start = told.iter().all(|(told, _)| matches!(told, Told::Start(_) | Told::Otherwise));
    let mut body = vec![text(if by_start { "switch data[0] {" } else { "switch {" })];
    for (told, then) in told {
        let head = match &told {
            Told::Otherwise => "default:".to_owned(),
            Told::Start(signs) if by_start => format!("case {}:", signs.join(", ")),
            told @ (Told::Start(_) | Told::Key(_) | Told::Whole) => format!("case {}:", condition(told)),
        };
        body.push(branch(&head, [then]));
    }
    body.push(text("}"));
    body
}

/// Encodes the case that is set, with the tag that it has.
fn encode(plan: &Plan<'_>, ident: &Ident, cases: &[PlannedUnionCase<'_>], unknown: Option<&str>) -> Doc {
    let receiver = names::receiver(ident.as_str());
    let mut branches: Vec<(String, Vec<String>)> = cases
        .iter()
        .map(|case| {
            let held = format!("{receiver}.{}", case.ident);
            let write = match tag_to_set(plan, cases, case) {
                Some((field, tag)) => vec![
                    format!("tagged := *{held}"),
                    format!("tagged.{field} = {}", names::LITERAL.of(tag.as_str())),
                    "return json.Marshal(tagged)".to_owned(),
                ],
                None => vec![format!("return json.Marshal({held})")],
            };
            (held, write)
        })
        .collect();
    let last = match unknown {
        Some(unknown) => vec![format!("return json.Marshal({receiver}.{unknown})")],
        None => branches.pop().map(|(_, write)| write).unwrap_or_default(),
    };
    let body = if let [(held, write)] = &branches[..] {
        let write = write.iter().map(|line| text(line.clone()));
        let first = braces(format!("if {held} != nil"), write);
        [first].into_iter().chain(last.into_iter().map(text)).collect()
    } else {
        let branches =
            branches.into_iter().map(|(held, write)| branch(&format!("case {held} != nil:"), write));
        let open = text("switch {");
        [open].into_iter().chain(branches).chain([branch("default:", last), text("}")]).collect()
    };
    method(
        "MarshalJSON writes the case that is set.",
        &format!("({receiver} {ident}) MarshalJSON() ([]byte, error)"),
        body,
    )
}

/// The field of a case that holds its tag, and the tag; none where several tags lead to the same type.
fn tag_to_set<'p>(
    plan: &'p Plan<'_>,
    cases: &[PlannedUnionCase<'_>],
    case: &PlannedUnionCase<'p>,
) -> Option<(&'p Ident, &'p WireName)> {
    let Type::Named(id) = case.slot.ty else { return None };
    let field = plan.get(id).tag_field()?;
    let is_alone = cases.iter().filter(|other| other.slot.ty == case.slot.ty).count() == 1;
    case.tag.filter(|_| is_alone).map(|tag| (&field.ident, tag))
}

fn branch(condition: &str, body: impl IntoIterator<Item = String>) -> Doc {
    let body = body.into_iter().map(|line| cat([hard(), text(line)]));
    cat([text(condition.to_owned()), nest(cat(body))])
}

/// `if err := …; err != nil { return err }`
pub(super) fn failing(call: &str) -> Doc {
    braces(format!("if err := {call}; err != nil"), [text("return err")])
}
