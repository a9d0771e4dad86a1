//! Functions that parse a response and check it, value by value.

use std::borrow::Cow;
use std::collections::BTreeSet;
use std::sync::LazyLock;

use jar_sprout_layout::{
    Doc, Style, braces, cat, comma_list, group, hard, join, last_comma, line, lines, nest, paragraphs, print,
    soft, text,
};
use jar_sprout_model::{Coding, Scalar, ScalarKind, Slot, Type, WireName};

use super::Sheet;
use super::{ABOUT, Reading, bounds, names, types};
use crate::plan::{
    CaseKind, DefaultSpelling, Fate, Ident, PlannedCase, PlannedDefinition, PlannedField, PlannedRoot,
    PlannedType, PlannedUnion, ToldCase,
};
use crate::spell::{self, Borrowed, Helper, Needs};

/// The functions that readers are made of, each in a paragraph that declares one thing.
const READ: &str = include_str!("read.ts");

/// One of them, and all that it stands on.
struct Part {
    helper: Helper,
    needs: BTreeSet<Helper>,
}

static PARTS: LazyLock<Vec<Part>> = LazyLock::new(|| {
    let helpers: Vec<Helper> =
        declarations().into_iter().map(|text| Helper { name: declared(text), text }).collect();
    let direct = |helper: &Helper| -> BTreeSet<Helper> {
        let words: BTreeSet<&str> = helper.text.split(|c: char| !c.is_ascii_alphanumeric()).collect();
        helpers.iter().filter(|other| words.contains(other.name)).copied().collect()
    };
    let all = |helper: &Helper| {
        let mut needs = BTreeSet::from([*helper]);
        let mut open = vec![*helper];
        while let Some(one) = open.pop() {
            open.extend(direct(&one).into_iter().filter(|other| needs.insert(*other)));
        }
        needs
    };
    helpers.iter().map(|helper| Part { helper: *helper, needs: all(helper) }).collect()
});

/// The texts of the declarations: each starts at the margin, with its comment.
fn declarations() -> Vec<&'static str> {
    let mut found = Vec::new();
    let mut rest = READ.trim_end();
    while let Some(end) =
        rest.match_indices("\n\n").map(|(at, _)| at).find(|at| !rest[at + 2..].starts_with([' ', '}']))
    {
        found.push(&rest[..end]);
        rest = &rest[end + 2..];
    }
    found.push(rest);
    found
}

/// What a declaration declares.
fn declared(text: &'static str) -> &'static str {
    let line = text.lines().find(|line| !line.starts_with("/**")).unwrap_or_default();
    let mut words = line.split([' ', '<', '(']).skip_while(|word| ["export"].contains(word)).skip(1);
    words.next().unwrap_or_default()
}

/// The name of the file in which all models find them.
pub(super) const FILE: &str = "read";

/// All of them.
pub(super) fn all() -> BTreeSet<Helper> {
    PARTS.iter().map(|part| part.helper).collect()
}

/// What a line of them declares.
pub(super) fn declared_in(line: &'static str) -> Option<&'static str> {
    spell::declared(line, &["type", "interface", "function", "const", "class"])
}

/// A line of them where other files use what it declares.
pub(super) fn exported(line: &'static str) -> Cow<'static, str> {
    let is_own = declared_in(line).is_some() && !line.starts_with("export ");
    if is_own { Cow::Owned(format!("export {line}")) } else { Cow::Borrowed(line) }
}

/// `import { objectAt, type Read } from "../shared/read.js";`: with the ending that modules have when they run.
pub(super) fn import(way: &str, borrowed: &BTreeSet<Borrowed>) -> Doc {
    let is_type = |name: &str| {
        let lines = READ.lines().filter(|line| declared_in(line) == Some(name));
        lines.into_iter().any(|line| line.starts_with("type ") || line.starts_with("interface "))
    };
    let name = |one: &Borrowed| {
        text(if is_type(one.name) { format!("type {}", one.name) } else { one.name.to_owned() })
    };
    let names = join(&cat([text(","), line()]), borrowed.iter().map(name));
    let inner = nest(cat([line(), names, last_comma()]));
    group(cat([text("import {"), inner, line(), text(format!("}} from \"{way}/{FILE}.js\";"))]))
}

fn need(name: &str, needs: &mut Needs) {
    let part = PARTS.iter().find(|part| part.helper.name == name).expect("the helper is among the parts");
    needs.helpers.extend(&part.needs);
}

/// What reads a named type, and what parses it where it is a whole response; none where a text is enough.
pub(super) fn reader(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>) -> Vec<Doc> {
    let ident = &ty.ident;
    let body = match &ty.definition {
        PlannedDefinition::Record(fields) => Some(record(sheet, ty, fields)),
        PlannedDefinition::Enumeration(cases) => ty.is_closed.then(|| one_of(cases, sheet.needs)),
        PlannedDefinition::Union(union) => Some(match union.tag {
            Some(tag) => by_tag(sheet, tag, union),
            None => by_kind(sheet, ident, union),
        }),
    };
    let id = ty.id;
    let is_root = sheet
        .plan
        .roots
        .iter()
        .any(|root| matches!(root, PlannedRoot::Named { id: root, .. } if *root == id));
    let slot = Slot::of(Type::Named(id));
    let parse = is_root.then(|| parse(sheet, ident, &slot));
    let read = body.map(|body| {
        let parameters = &["value: unknown", "path: string"];
        braces(head(format!("function read{ident}"), parameters, ident.as_str()), body)
    });
    parse.into_iter().chain(read).collect()
}

/// `function readHive(value: unknown, path: string): Hive`
pub(super) fn head(name: String, parameters: &[&str], returned: &str) -> Doc {
    let parameters = comma_list(parameters.iter().map(|one| text((*one).to_owned())));
    let parameters = nest(cat([soft(), parameters, last_comma()]));
    group(cat([text(name + "("), parameters, soft(), text(format!("): {returned}"))]))
}

/// `export function parseHive(text: string): Hive {`, and what writes it again
pub(super) fn parse(sheet: &mut Sheet<'_>, ident: &Ident, slot: &Slot) -> Doc {
    let is_read = slot.ty != Type::Any;
    let read = if is_read { read(sheet, slot) } else { Doc::Nil };
    let json = if sheet.plan.leaves_doubles {
        need("parseExactly", sheet.needs);
        "parseExactly(text)"
    } else {
        "JSON.parse(text)"
    };
    // Where it is too long, its formatter breaks what is read, not what reads it.
    let read = print(&read, &Style { width: usize::MAX, ..ABOUT.style });
    let call = if is_read {
        cat([text("return "), self::call(read, [json, "\"$\""].map(text)), text(";")])
    } else {
        text(format!("return {json} as unknown;"))
    };
    let comment =
        text("/** Reads a whole response, or throws an error with the path that is not as expected. */");
    let parse =
        braces(head(format!("export function parse{ident}"), &["text: string"], ident.as_str()), [call]);
    let parse = lines([comment, parse]);
    let json = if sheet.plan.leaves_doubles {
        need("formatExactly", sheet.needs);
        "formatExactly"
    } else {
        "JSON.stringify"
    };
    let comment = text("/** Writes a whole response as it was read. */");
    let value = format!("value: {ident}");
    let head = head(format!("export function format{ident}"), &[&value], "string");
    let format = braces(head, [text(format!("return {json}(value);"))]);
    paragraphs([parse, lines([comment, format])])
}

/// What reads a value of a place.
fn read(sheet: &mut Sheet<'_>, slot: &Slot) -> Doc {
    read_within(sheet, slot, None)
}

/// The same of a value that keeps to limits.
fn read_within(sheet: &mut Sheet<'_>, slot: &Slot, limits: Option<String>) -> Doc {
    let plain = non_null(sheet, &slot.ty);
    let plain = match limits {
        None => plain,
        Some(limits) => {
            need("within", sheet.needs);
            call("within", [plain, text(limits)])
        }
    };
    if slot.nullable && slot.ty != Type::Any {
        need("nullOr", sheet.needs);
        return call("nullOr", [plain]);
    }
    plain
}

/// What reads a field, in which words may stand for nothing.
fn read_field(sheet: &mut Sheet<'_>, field: &PlannedField<'_>) -> Doc {
    let words: Vec<Doc> =
        types::words(sheet, field).map(|word| text(names::literal(word.as_str()))).collect();
    if words.is_empty() {
        let limits = if sheet.options.checks_bounds { bounds::limits(field) } else { None };
        return read_within(sheet, field.slot, limits);
    }
    need("orWord", sheet.needs);
    call("orWord", [read(sheet, field.slot)].into_iter().chain(words))
}

fn non_null(sheet: &mut Sheet<'_>, ty: &Type) -> Doc {
    let mut named = |name: &'static str| {
        need(name, sheet.needs);
        text(name)
    };
    match ty {
        Type::Any => named("unknownAt"),
        Type::Scalar(Scalar::DateTime(_)) if sheet.options.reading == Reading::Dated => named("dateAt"),
        Type::Scalar(scalar) if scalar.leaves_doubles() => named("bigintAt"),
        Type::Scalar(Scalar::Coded(Coding::BooleanText)) => named("booleanStringAt"),
        Type::Scalar(Scalar::Coded(coding)) if coding.kind() == ScalarKind::Text => named("numberStringAt"),
        Type::Scalar(Scalar::Always(truth)) => {
            need("constantOf", sheet.needs);
            call("constantOf", [text(truth.to_string())])
        }
        Type::Scalar(scalar) => named(match scalar.kind() {
            ScalarKind::Boolean => "booleanAt",
            ScalarKind::Integer | ScalarKind::Number if sheet.plan.leaves_doubles => "roundedAt",
            ScalarKind::Integer | ScalarKind::Number => "numberAt",
            ScalarKind::Text => "stringAt",
        }),
        Type::Constant(constant) => {
            need("constantOf", sheet.needs);
            call("constantOf", [text(names::literal(constant.as_str()))])
        }
        Type::List(items) => {
            need("arrayOf", sheet.needs);
            call("arrayOf", [read(sheet, items)])
        }
        Type::Map(values) => {
            need("mapOf", sheet.needs);
            call("mapOf", [read(sheet, values)])
        }
        Type::Tuple(items) => {
            need("tupleOf", sheet.needs);
            let items: Vec<Doc> = items.iter().map(|item| read(sheet, item)).collect();
            call("tupleOf", items)
        }
        Type::Named(id) => {
            let ty = sheet.plan.get(*id);
            match &ty.definition {
                PlannedDefinition::Enumeration(_) if !ty.is_closed => named("stringAt"),
                PlannedDefinition::Enumeration(_)
                | PlannedDefinition::Record(_)
                | PlannedDefinition::Union(_) => text(format!("read{}", ty.ident)),
            }
        }
    }
}

fn call(name: impl Into<Cow<'static, str>>, arguments: impl IntoIterator<Item = Doc>) -> Doc {
    let arguments = comma_list(arguments);
    group(cat([
        text(name.into()),
        text("("),
        nest(cat([soft(), arguments, last_comma()])),
        soft(),
        text(")"),
    ]))
}

fn record(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, fields: &[PlannedField<'_>]) -> Vec<Doc> {
    need("objectAt", sheet.needs);
    if fields.is_empty() {
        return vec![text("return objectAt(value, path);")];
    }
    let entry = |field: &PlannedField<'_>, sheet: &mut Sheet<'_>| {
        let key = text(names::literal(field.wire.as_str()));
        let read = read_field(sheet, field);
        let arguments = [text("object"), key, read, text("path")];
        match field.fate {
            Fate::Tag(_) | Fate::Required | Fate::Nullable => {
                need("field", sheet.needs);
                // By itself it would set what the object inherits from.
                let key = match field.wire.as_str() {
                    "__proto__" => "[\"__proto__\"]".into(),
                    key => names::property_key(key),
                };
                cat([hard(), text(format!("{key}: ")), call("field", arguments), text(",")])
            }
            Fate::Defaulted(default) => {
                need("fieldOr", sheet.needs);
                let is_exact = matches!(field.slot.ty, Type::Scalar(scalar) if scalar.leaves_doubles());
                let end = if is_exact { "n" } else { "" };
                let default = sheet.plan.default_code(default, &DEFAULTS) + end;
                let arguments = arguments.into_iter().chain([text(default)]);
                let key = names::property_key(field.wire.as_str());
                cat([hard(), text(format!("{key}: ")), call("fieldOr", arguments), text(",")])
            }
            Fate::Optional | Fate::Either | Fate::Apart => {
                need("optional", sheet.needs);
                cat([hard(), text("..."), call("optional", arguments), text(",")])
            }
        }
    };
    let mut entries: Vec<Doc> = fields.iter().map(|field| entry(field, sheet)).collect();
    if let Some(extras) = &ty.extras {
        need("others", sheet.needs);
        let known = fields.iter().map(|field| text(names::literal(field.wire.as_str())));
        let known = comma_list(known);
        let known = group(cat([text("["), nest(cat([soft(), known, last_comma()])), soft(), text("]")]));
        let arguments = [text("object"), known, read(sheet, extras.slot), text("path")];
        entries.insert(0, cat([hard(), text("..."), call("others", arguments), text(",")]));
    }
    vec![
        text("const object = objectAt(value, path);"),
        cat([text("return {"), nest(cat(entries)), hard(), text("};")]),
    ]
}

const DEFAULTS: DefaultSpelling = DefaultSpelling {
    truths: ["false", "true"],
    literal: |text| names::literal(text),
    case: |_, case| names::literal(case.wire.as_str()),
};

/// Reads one of the values that there are.
fn one_of(cases: &[PlannedCase<'_>], needs: &mut Needs) -> Vec<Doc> {
    need("oneOf", needs);
    let known = cases.iter().map(|case| text(names::literal(case.wire.as_str())));
    vec![cat([text("return "), call("oneOf", known), text("(value, path);")])]
}

fn by_tag(sheet: &mut Sheet<'_>, tag: &WireName, union: &PlannedUnion<'_>) -> Vec<Doc> {
    need("objectAt", sheet.needs);
    let mut branches = Vec::new();
    for case in &union.cases {
        let tag = names::literal(case.tag.map_or("", WireName::as_str));
        let read = cat([text("return "), read(sheet, case.slot), text("(value, path);")]);
        branches.push(cat([text(format!("case {tag}:")), nest(cat([hard(), read]))]));
    }
    branches.push(cat([text("default:"), nest(cat([hard(), text("return object;")]))]));
    let key = names::literal(tag.as_str());
    vec![text("const object = objectAt(value, path);"), braces(format!("switch (object[{key}])"), branches)]
}

fn by_kind(sheet: &mut Sheet<'_>, ident: &Ident, union: &PlannedUnion<'_>) -> Vec<Doc> {
    let mut body = Vec::new();
    let mut is_open = true;
    for ToldCase { kind, key, case } in sheet.plan.by_kind(union) {
        let test = match kind {
            CaseKind::Object => {
                Some("typeof value === \"object\" && value !== null && !Array.isArray(value)")
            }
            CaseKind::List => Some("Array.isArray(value)"),
            CaseKind::Text => Some("typeof value === \"string\""),
            CaseKind::Boolean => Some("typeof value === \"boolean\""),
            CaseKind::Integer if sheet.plan.leaves_doubles => {
                Some("typeof value === \"bigint\" || Number.isInteger(value)")
            }
            CaseKind::Integer => Some("Number.isInteger(value)"),
            CaseKind::Number if sheet.plan.leaves_doubles => {
                Some("typeof value === \"bigint\" || typeof value === \"number\"")
            }
            CaseKind::Number => Some("typeof value === \"number\""),
            CaseKind::Any => None,
        };
        let read = cat([text("return "), read(sheet, case.slot), text("(value, path);")]);
        match test {
            Some(test) => {
                let parts = test.split(" && ").map(str::to_owned);
                let has_key = key.map(|key| format!("{} in value", names::literal(key.as_str())));
                let between = cat([text(" &&"), line()]);
                let test = join(&between, parts.chain(has_key).map(text));
                let condition = group(cat([text("if ("), nest(cat([soft(), test])), soft(), text(") {")]));
                body.push(cat([condition, nest(cat([hard(), read])), hard(), text("}")]));
            }
            None => {
                is_open = false;
                body.push(read);
            }
        }
    }
    if is_open {
        need("failAt", sheet.needs);
        let arguments = [text("path"), text(format!("\"one of {ident}\"")), text("value")];
        body.push(cat([text("return "), call("failAt", arguments), text(";")]));
    }
    body
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_part_is_found_with_what_it_needs() {
        let names = |name: &str| -> Vec<&str> {
            let part = PARTS.iter().find(|part| part.helper.name == name);
            part.expect("it is there").needs.iter().map(|helper| helper.name).collect()
        };
        assert_eq!(names("failAt"), ["failAt"]);
        assert_eq!(names("dateAt"), ["ExactDate", "dateAt", "failAt", "stringAt"]);
        assert_eq!(names("tupleOf"), ["Read", "arrayOf", "failAt", "tupleOf", "unknownAt"]);
        assert_eq!(READ.matches("\nfunction ").count() + 4, PARTS.len());
    }
}
