//! Dataclasses with `from_dict` and `to_dict`, which need nothing but the standard library.

use jar_sprout_layout::{Doc, cat, group, hard, join, last_comma, line, lines, nest, paragraphs, soft, text};
use jar_sprout_model::{Slot, Type, WireName};

use super::Sheet;
use super::converting::{Converter, Direction, function_name, listed};
use super::settings::{Level, Types};
use super::{
    ABOUT, DEFAULTS, alternatives, assigned, call, docstring, documented, in_parentheses, names, types,
};
use crate::plan::{
    CaseKind, Fate, Ident, Plan, PlannedDefault, PlannedDefinition, PlannedExtras, PlannedField, PlannedRoot,
    PlannedType, PlannedUnion, ToldCase,
};
use crate::spell::{Helper, Needs};

/// Tells null from nothing.
const UNSET: Helper = Helper { name: "unset", text: include_str!("unset.py") };

/// The type of a root that is no class, and what reads and writes it.
pub(super) fn alias(sheet: &mut Sheet<'_>, ident: &Ident, slot: &Slot) -> Doc {
    let alias = cat([text(format!("{ident} = ")), types::slot(sheet, slot, Types::Dataclasses)]);
    let read = Converter { plan: sheet.plan, way: Direction::In(sheet.options.level) }
        .of(slot, text("data"), sheet.needs)
        .unwrap_or_else(|| {
            if slot.ty == Type::Any {
                return text("data");
            }
            sheet.needs.imports.insert("from typing import cast");
            text(format!("cast(\"{ident}\", data)"))
        });
    let read = cat([text("return "), read]);
    let write = returned(
        Converter { plan: sheet.plan, way: Direction::Out }.of(slot, text("value"), sheet.needs),
        "value",
    );
    functions(alias, ident, read, write, sheet.needs)
}

/// How a whole response is read from a text, and written.
pub(super) fn entry(sheet: &mut Sheet<'_>, root: &PlannedRoot<'_>) -> (Doc, Doc) {
    let loaded = || text("json.loads(text)");
    let (read, value) = match root {
        PlannedRoot::Named { slot, .. } => (
            Converter { plan: sheet.plan, way: Direction::In(sheet.options.level) }
                .of(slot, loaded(), sheet.needs)
                .unwrap_or_else(loaded),
            Converter { plan: sheet.plan, way: Direction::Out }.of(slot, text("value"), sheet.needs),
        ),
        PlannedRoot::Alias { ident, .. } => {
            let [read, write] = functions_of(ident);
            (cat([text(format!("{read}(")), loaded(), text(")")]), Some(text(format!("{write}(value)"))))
        }
    };
    (read, cat([text("json.dumps("), value.unwrap_or_else(|| text("value")), text(")")]))
}

fn returned(converted: Option<Doc>, as_it_is: &'static str) -> Doc {
    cat([text("return "), converted.unwrap_or_else(|| text(as_it_is))])
}

/// A name for a type, and the functions that read and write its values.
fn functions(alias: Doc, ident: &Ident, read: Doc, write: Doc, needs: &mut Needs) -> Doc {
    needs.imports.insert("from typing import Any");
    let name = function_name(ident);
    let head = |does: &str, parameter: String, result: String| {
        let parameter = nest(cat([soft(), text(parameter), last_comma()]));
        group(cat([text(format!("def {name}_{does}(")), parameter, soft(), text(format!(") -> {result}:"))]))
    };
    let read = cat([head("from_json", "data: Any".to_owned(), ident.to_string()), nest(cat([hard(), read]))]);
    let write =
        cat([head("to_json", format!("value: {ident}"), "Any".to_owned()), nest(cat([hard(), write]))]);
    join(&cat([hard(), hard(), hard()]), [alias, read, write])
}

/// What reads and writes a type that is no class: `hives_from_json`, `hives_to_json`.
pub(super) fn functions_of(ident: &Ident) -> [String; 2] {
    ["from", "to"].map(|way| format!("{}_{way}_json", function_name(ident)))
}

/// ```text
/// @dataclass(kw_only=True)
/// class Hive:
///     id: int
/// ```
pub(super) fn record(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, fields: &[PlannedField<'_>]) -> Doc {
    sheet.needs.imports.extend(["from dataclasses import dataclass", "from typing import Any"]);
    let own = match sheet.options.level {
        Level::Ten => ty.ident.as_str(),
        Level::Eleven => {
            sheet.needs.imports.insert("from typing import Self");
            "Self"
        }
    };
    let members = fields.iter().map(|one| cat([hard(), documented(field(sheet, one), one.docs)]));
    let mut members: Vec<Doc> = members.collect();
    members.extend(ty.extras.as_ref().map(|extras| cat([hard(), extras_member(sheet, fields, extras)])));
    let read = cat([
        text("@classmethod"),
        hard(),
        text(format!(
            "def from_dict(cls, {}: dict[str, Any]) -> {own}:",
            if fields.is_empty() { "_" } else { "data" }
        )),
        nest(cat([hard(), cat([text("return "), constructed(sheet, ty, fields)])])),
    ]);
    let write =
        cat([text("def to_dict(self) -> dict[str, Any]:"), nest(cat([hard(), written(sheet, ty, fields)]))]);
    let head: Vec<Doc> =
        docstring(ty.docs).into_iter().chain([cat(members)]).chain((!fields.is_empty()).then(hard)).collect();
    let methods = paragraphs([read, write]);
    let body = nest(cat(head.into_iter().chain([hard(), methods])));
    lines([text("@dataclass(kw_only=True)"), cat([text(format!("class {}:", ty.ident)), body])])
}

/// `note: str | None = None`
fn field(sheet: &mut Sheet<'_>, field: &PlannedField<'_>) -> Doc {
    let PlannedField { ident, wire: _, slot, encoding: _, docs: _, fate } = field;
    let (ty, default) = match fate {
        Fate::Tag(tag) => {
            sheet.needs.imports.insert("from typing import Literal");
            let value = names::literal(tag.as_str());
            (text(format!("Literal[{value}]")), Some(value))
        }
        Fate::Defaulted(default) => {
            let ty = types::non_null(sheet, slot, Types::Dataclasses);
            (ty, Some(sheet.plan.default_code(*default, &DEFAULTS)))
        }
        Fate::Apart => {
            sheet.needs.helpers.insert(UNSET);
            let ty = cat([types::non_null(sheet, slot, Types::Dataclasses), text(" | Unset")]);
            (types::or_none(ty, &slot.ty), Some("UNSET".to_owned()))
        }
        Fate::Required | Fate::Nullable => (types::slot(sheet, slot, Types::Dataclasses), None),
        Fate::Optional | Fate::Either => {
            let ty = types::or_none(types::non_null(sheet, slot, Types::Dataclasses), &slot.ty);
            (ty, Some("None".to_owned()))
        }
    };
    match default {
        Some(default) => assigned(ident, ty, default.chars().count(), text(default)),
        None => cat([text(format!("{ident}: ")), ty]),
    }
}

/// `additional_properties: dict[str, int] = field(default_factory=dict)`
fn extras_member(sheet: &mut Sheet<'_>, fields: &[PlannedField<'_>], extras: &PlannedExtras<'_>) -> Doc {
    // A field of that name would be called in its place.
    let function = if fields.iter().any(|field| field.ident.as_str() == "field") {
        sheet.needs.imports.insert("import dataclasses");
        "dataclasses.field"
    } else {
        sheet.needs.imports.insert("from dataclasses import field");
        "field"
    };
    let map = types::slot(sheet, &extras.map, Types::Dataclasses);
    let call = [
        text(format!(" = {function}(")),
        nest(cat([soft(), text("default_factory=dict")])),
        soft(),
        text(")"),
    ];
    cat([text(format!("{}: ", extras.ident)), map, group(cat(call))])
}

/// Whether there is no place where a line could be broken.
fn is_one_piece(doc: &Doc) -> bool {
    match doc {
        Doc::Nil | Doc::Text(_) => true,
        Doc::Cat(parts) => parts.iter().all(is_one_piece),
        Doc::Line(_) | Doc::Hard | Doc::IfBroken { .. } | Doc::Nest(_) | Doc::Group(..) | Doc::Table(_) => {
            false
        }
    }
}

/// `data.get("id")`
fn got(arguments: &str) -> Doc {
    group(cat([text("data.get("), nest(cat([soft(), text(arguments.to_owned())])), soft(), text(")")]))
}

/// `cls(id=data["id"])`
fn constructed(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, fields: &[PlannedField<'_>]) -> Doc {
    let converter = Converter { plan: sheet.plan, way: Direction::In(sheet.options.level) };
    let arguments = fields.iter().filter_map(|field| {
        let key = names::literal(field.wire.as_str());
        let value = match field.fate {
            // It is what it is.
            Fate::Tag(_) => return None,
            Fate::Defaulted(default) => {
                // A known value is written as it stands in JSON.
                let default = match default {
                    PlannedDefault::Case(_, text) => names::literal(text),
                    PlannedDefault::Boolean(_)
                    | PlannedDefault::Integer(_)
                    | PlannedDefault::Float(_)
                    | PlannedDefault::Text(_) => sheet.plan.default_code(default, &DEFAULTS),
                };
                let raw = || got(&format!("{key}, {default}"));
                converter.of(field.slot, raw(), sheet.needs).unwrap_or_else(raw)
            }
            Fate::Apart => match converter.slot_function(field.slot, sheet.needs) {
                Some(function) => call("given(", [function, text("data"), text(key)].into_iter(), ")"),
                None => got(&format!("{key}, UNSET")),
            },
            Fate::Required | Fate::Nullable => {
                let inside = || nest(cat([soft(), text(key.clone())]));
                let raw = || group(cat([text("data["), inside(), soft(), text("]")]));
                converter.of_field(field, field.slot, raw(), sheet.needs).unwrap_or_else(raw)
            }
            Fate::Optional | Fate::Either => {
                let slot = Slot { ty: field.slot.ty.clone(), nullable: true };
                let raw = || got(&key);
                converter.of_field(field, &slot, raw(), sheet.needs).unwrap_or_else(raw)
            }
        };
        Some(cat([text(format!("{}=", field.ident)), value]))
    });
    let mut arguments: Vec<Doc> = arguments.collect();
    if let Some(extras) = &ty.extras {
        let held = converter.of(extras.slot, text("value"), sheet.needs).unwrap_or_else(|| text("value"));
        let known = fields.iter().map(|field| text(names::literal(field.wire.as_str())));
        let known: Vec<Doc> = known.collect();
        let test = match &known[..] {
            [one] => cat([text("!= "), one.clone()]),
            _ => cat([text("not in "), listed("{", known, "}")]),
        };
        let parts = [
            cat([text("key: "), held]),
            text("for key, value in data.items()"),
            group(cat([text("if key"), line(), test])),
        ];
        let parts = group(join(&line(), parts));
        let others = cat([text("{"), nest(cat([soft(), parts])), soft(), text("}")]);
        arguments.push(cat([text(format!("{}=", extras.ident)), group(others)]));
    }
    if arguments.is_empty() { text("cls()") } else { listed("cls(", arguments, ")") }
}

/// What a method returns: a dictionary, to which are added the fields that are there.
fn written(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, fields: &[PlannedField<'_>]) -> Doc {
    let converter = Converter { plan: sheet.plan, way: Direction::Out };
    let value = |field: &PlannedField<'_>, slot: &Slot, sheet: &mut Sheet<'_>| {
        let raw = || text(format!("self.{}", field.ident));
        converter.of_field(field, slot, raw(), sheet.needs).unwrap_or_else(raw)
    };
    let (always, sometimes): (Vec<&PlannedField<'_>>, Vec<_>) =
        fields.iter().partition(|field| !field.fate.is_left_out());
    let mut entries: Vec<Doc> = always
        .iter()
        .map(|field| {
            let key = names::literal(field.wire.as_str());
            cat([text(format!("{key}: ")), value(field, field.slot, sheet)])
        })
        .collect();
    if let Some(extras) = &ty.extras {
        let own = || text(format!("self.{}", extras.ident));
        let others = converter.of(&extras.map, own(), sheet.needs).unwrap_or_else(own);
        entries.push(cat([text("**"), others]));
    }
    let dictionary = if entries.is_empty() { text("{}") } else { listed("{", entries, "}") };
    if sometimes.is_empty() {
        return cat([text("return "), dictionary]);
    }
    let mut body = vec![cat([text("data: dict[str, Any] = "), dictionary])];
    for field in sometimes {
        let slot = Slot { ty: field.slot.ty.clone(), nullable: field.fate.tells_null() };
        let key = names::literal(field.wire.as_str());
        let value = value(field, &slot, sheet);
        // Its formatter takes what cannot be broken into parentheses.
        let value = if is_one_piece(&value) { in_parentheses(value) } else { value };
        let assignment = cat([text(format!("data[{key}] = ")), value]);
        body.push(cat([
            text(if field.fate.tells_null() {
                format!("if not isinstance(self.{}, Unset):", field.ident)
            } else {
                format!("if self.{} is not None:", field.ident)
            }),
            nest(cat([hard(), assignment])),
        ]));
    }
    body.push(text("return data"));
    lines(body)
}

/// A name for all cases, and the functions that read and write them.
pub(super) fn union(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, union: &PlannedUnion<'_>) -> Doc {
    let ident = &ty.ident;
    let mut cases: Vec<Doc> =
        union.cases.iter().map(|case| types::slot(sheet, case.slot, Types::Dataclasses)).collect();
    if union.tag.is_some() {
        sheet.needs.imports.insert("from typing import Any");
        cases.push(text("dict[str, Any]"));
    }
    let alias = if sheet.plan.names_itself(ty.id) {
        sheet.needs.imports.insert("from typing import TypeAlias");
        let cases = jar_sprout_layout::print(&join(&text(" | "), cases), &ABOUT.style);
        text(format!("{ident}: TypeAlias = \"{cases}\""))
    } else {
        alternatives(ident, cases)
    };
    let alias = lines([alias].into_iter().chain(union_comment(sheet.plan, ident)));
    let (read, write) = match union.tag {
        Some(tag) => (read_by_tag(sheet, tag, union), text(WRITE_TAGGED)),
        None => (read_by_kind(sheet, ident, union), write_by_kind(sheet, union)),
    };
    functions(alias, ident, read, write, sheet.needs)
}

/// Cases are classes; a dictionary is one that is not known yet.
const WRITE_TAGGED: &str = "return value if isinstance(value, dict) else value.to_dict()";

fn union_comment(plan: &Plan<'_>, ident: &Ident) -> Option<Doc> {
    let docs = plan.find(ident.as_str())?.docs;
    ABOUT.comment.of(docs, 0)
}

fn read_by_tag(sheet: &mut Sheet<'_>, tag: &WireName, union: &PlannedUnion<'_>) -> Doc {
    let converter = Converter { plan: sheet.plan, way: Direction::In(sheet.options.level) };
    let mut branches: Vec<Doc> = Vec::new();
    for case in &union.cases {
        let tag = names::literal(case.tag.map_or("", WireName::as_str));
        let value = returned(converter.of(case.slot, text("data"), sheet.needs), "data");
        branches.push(cat([text(format!("case {tag}:")), nest(cat([hard(), value]))]));
    }
    sheet.needs.imports.insert("from typing import cast");
    branches.push(cat([text("case _:"), nest(cat([hard(), text("return cast(\"dict[str, Any]\", data)")]))]));
    let branches = nest(cat(branches.into_iter().map(|branch| cat([hard(), branch]))));
    cat([text(format!("match data[{}]:", names::literal(tag.as_str()))), branches])
}

/// What tells values of a kind, among those that `json.loads` gives.
fn test(kind: CaseKind, subject: &str) -> Option<String> {
    let class = match kind {
        CaseKind::Object => "dict",
        CaseKind::List => "list",
        CaseKind::Text => "str",
        CaseKind::Boolean => "bool",
        CaseKind::Integer => "int",
        CaseKind::Number => "int | float",
        CaseKind::Any => return None,
    };
    Some(format!("isinstance({subject}, {class})"))
}

fn read_by_kind(sheet: &mut Sheet<'_>, ident: &Ident, union: &PlannedUnion<'_>) -> Doc {
    let converter = Converter { plan: sheet.plan, way: Direction::In(sheet.options.level) };
    let mut body = Vec::new();
    let mut is_open = true;
    for ToldCase { kind, key, case } in sheet.plan.by_kind(union) {
        let value = returned(converter.of(case.slot, text("data"), sheet.needs), "data");
        let has_key = |test: String| match key {
            Some(key) => format!("{test} and {} in data", names::literal(key.as_str())),
            None => test,
        };
        match test(kind, "data").map(has_key) {
            Some(test) => body.push(cat([text(format!("if {test}:")), nest(cat([hard(), value]))])),
            None => {
                body.push(value);
                is_open = false;
            }
        }
    }
    if is_open {
        body.push(text(format!("msg = f\"unexpected kind of {ident}: {{data!r}}\"")));
        body.push(text("raise ValueError(msg)"));
    }
    lines(body)
}

/// Cases that stay as they are need no test, and the last of all needs none.
fn write_by_kind(sheet: &mut Sheet<'_>, union: &PlannedUnion<'_>) -> Doc {
    let converter = Converter { plan: sheet.plan, way: Direction::Out };
    let mut tested = Vec::new();
    let mut last = None;
    let mut all_convert = true;
    for ToldCase { case, .. } in sheet.plan.by_kind(union) {
        let Some(value) = converter.of(case.slot, text("value"), sheet.needs) else {
            all_convert = false;
            continue;
        };
        let value = cat([text("return "), value]);
        match class_of(sheet, &case.slot.ty) {
            Some(class) => tested.push((class, value)),
            // No class of its own tells it.
            None => last = Some(value),
        }
    }
    if all_convert && last.is_none() {
        last = tested.pop().map(|(_, value)| value);
    }
    let tests = tested.into_iter().map(|(class, value)| {
        cat([text(format!("if isinstance(value, {class}):")), nest(cat([hard(), value]))])
    });
    lines(tests.chain([last.unwrap_or_else(|| text("return value"))]))
}

/// The class that tells the values of a type.
fn class_of(sheet: &mut Sheet<'_>, ty: &Type) -> Option<String> {
    match ty {
        Type::Scalar(scalar) => Some(types::platform_scalar(*scalar, sheet.needs).to_owned()),
        Type::List(_) => Some("list".to_owned()),
        Type::Tuple(_) => Some("tuple".to_owned()),
        Type::Map(_) => Some("dict".to_owned()),
        Type::Named(id) => match &sheet.plan.get(*id).definition {
            PlannedDefinition::Record(_) | PlannedDefinition::Enumeration(_) => {
                Some(sheet.plan.ident(*id).to_string())
            }
            PlannedDefinition::Union(_) => None,
        },
        Type::Any | Type::Constant(_) => None,
    }
}
