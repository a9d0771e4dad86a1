//! What Gson needs where reflection alone does not do: open enums and unions.

use jar_sprout_layout::{Doc, braces, cat, comma_list, group, line, lines, members, nest, soft, text};
use jar_sprout_model::{Slot, Type, WireName};

use super::Sheet;
use super::unions::{UNKNOWN, holder, permitted, sealed, shared_parts};
use super::{constants, names, types};
use crate::plan::{CaseKind, Ident, PlannedCase, PlannedType, PlannedUnion, PlannedUnionCase, ToldCase};
use crate::spell::Helper;

const TEXT_ADAPTER: Helper = Helper { name: "TextAdapter", text: include_str!("gson/TextAdapter.java") };
const UNION_ADAPTER: Helper = Helper { name: "UnionAdapter", text: include_str!("gson/UnionAdapter.java") };

/// A text of its own type; one that is not known yet is kept as it is.
pub(super) fn enumeration(sheet: &mut Sheet<'_>, ident: &Ident, cases: &[PlannedCase<'_>]) -> Doc {
    sheet.needs.imports.insert("com.google.gson.annotations.JsonAdapter");
    sheet.needs.helpers.insert(TEXT_ADAPTER);
    let adapter = members(
        text(format!("static final class Adapter extends TextAdapter<{ident}>")),
        [braces(
            text("Adapter()"),
            [call("super(", [format!("{ident}::new"), format!("{ident}::value")], ");")],
        )],
    );
    let record = members(
        text(format!("public record {ident}(String value)")),
        [constants(ident, cases, sheet.options), adapter],
    );
    lines([text(format!("@JsonAdapter({ident}.Adapter.class)")), record])
}

/// A sealed interface, and the adapter that chooses among its cases.
pub(super) fn union(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, union: &PlannedUnion<'_>) -> Doc {
    let ident = &ty.ident;
    sheet.needs.imports.extend([
        "com.google.gson.JsonDeserializationContext",
        "com.google.gson.JsonElement",
        "com.google.gson.annotations.JsonAdapter",
    ]);
    sheet.needs.helpers.insert(UNION_ADAPTER);
    let is_direct = sheet.plan.has_direct_cases(union);
    let mut inside = shared_parts(sheet, ty);
    if !is_direct {
        inside.push(text("Object value();"));
        for case in &union.cases {
            let ty = types::boxed(sheet, case.slot);
            inside.push(case_record(ident, case.ident.as_str(), &ty));
        }
    }
    if union.tag.is_some() {
        let record = case_record(ident, UNKNOWN, "JsonElement");
        inside.push(lines([text("/** A kind that is not known yet. */"), record]));
    }
    let chosen = match union.tag {
        Some(tag) => by_tag(sheet, tag, union, is_direct),
        None => by_kind(sheet, ident, union),
    };
    let content = if is_direct {
        format!("return value instanceof {UNKNOWN} unknown ? unknown.value() : value;")
    } else {
        "return value.value();".to_owned()
    };
    inside.push(adapter(ident, chosen, content));
    let permitted = permitted(sheet.plan, ident, union);
    lines([text(format!("@JsonAdapter({ident}.Adapter.class)")), sealed(ident, permitted, inside)])
}

/// A record around what a case holds; the library asks for the adapter of the class that it meets.
fn case_record(union: &Ident, name: &str, ty: &str) -> Doc {
    lines([text("@JsonAdapter(Adapter.class)"), holder(union, name, ty)])
}

fn adapter(ident: &Ident, chosen: Vec<Doc>, content: String) -> Doc {
    let parameters = nest(nest(cat([soft(), text("JsonElement json, JsonDeserializationContext context)")])));
    let read = braces(group(cat([text(format!("protected {ident} read(")), parameters])), chosen);
    let content = braces(text(format!("protected Object content({ident} value)")), [text(content)]);
    members(
        text(format!("final class Adapter extends UnionAdapter<{ident}>")),
        [read, content].map(|method| lines([text("@Override"), method])),
    )
}

fn by_tag(sheet: &mut Sheet<'_>, tag: &WireName, union: &PlannedUnion<'_>, is_direct: bool) -> Vec<Doc> {
    let branch = |case: &PlannedUnionCase<'_>| {
        let tag = names::LITERAL.of(case.tag.map_or("", WireName::as_str));
        let read = read(sheet, case.slot);
        let made = if is_direct {
            cat([read, text(";")])
        } else {
            cat([text(format!("new {}(", case.ident)), read, text(");")])
        };
        group(cat([text(format!("case {tag} ->")), nest(nest(cat([line(), made])))]))
    };
    let mut branches: Vec<Doc> = union.cases.iter().map(branch).collect();
    branches.push(text(format!("default -> new {UNKNOWN}(json);")));
    let key = names::LITERAL.of(tag.as_str());
    vec![cat([braces(text(format!("return switch (tag(json, {key}))")), branches), text(";")])]
}

fn by_kind(sheet: &mut Sheet<'_>, ident: &Ident, union: &PlannedUnion<'_>) -> Vec<Doc> {
    let mut body = Vec::new();
    let mut is_open = true;
    for ToldCase { kind, key, case } in sheet.plan.by_kind(union) {
        let made = cat([
            text(format!("return new {}(", case.ident)),
            nest(nest(cat([soft(), read(sheet, case.slot), text(");")]))),
        ]);
        let test = match kind {
            CaseKind::Object => "json.isJsonObject()",
            CaseKind::List => "json.isJsonArray()",
            CaseKind::Text => "json.isJsonPrimitive() && json.getAsJsonPrimitive().isString()",
            CaseKind::Boolean => "json.isJsonPrimitive() && json.getAsJsonPrimitive().isBoolean()",
            CaseKind::Integer => "json.isJsonPrimitive() && isInteger(json)",
            CaseKind::Number => "json.isJsonPrimitive() && json.getAsJsonPrimitive().isNumber()",
            CaseKind::Any => {
                is_open = false;
                body.push(group(made));
                continue;
            }
        };
        let has_key = key
            .map(|key| format!("json.getAsJsonObject().has({})", names::LITERAL.of(key.as_str())))
            .map(|has_key| cat([nest(nest(cat([line(), text("&& "), text(has_key)])))]));
        let test = group(cat([text(format!("if ({test}")), has_key.unwrap_or(Doc::Nil), text(")")]));
        body.push(braces(test, [group(made)]));
    }
    if is_open {
        sheet.needs.imports.insert("com.google.gson.JsonParseException");
        body.push(text(format!("throw new JsonParseException(\"unexpected kind of {ident}\");")));
    }
    body
}

/// `context.deserialize(json, Queen.class)`
fn read(sheet: &mut Sheet<'_>, slot: &Slot) -> Doc {
    let ty = types::boxed(sheet, slot);
    let token = match &slot.ty {
        Type::List(_) | Type::Map(_) | Type::Tuple(_) => {
            sheet.needs.imports.insert("com.google.gson.reflect.TypeToken");
            format!("new TypeToken<{ty}>() {{}}.getType()")
        }
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Named(_) => format!("{ty}.class"),
    };
    call("context.deserialize(", ["json".to_owned(), token], ")")
}

/// Arguments on the same line, on one of their own, or one a line.
fn call(open: &'static str, arguments: [String; 2], close: &'static str) -> Doc {
    let arguments = comma_list(arguments.map(text));
    group(cat([text(open), nest(nest(cat([soft(), group(arguments), text(close)])))]))
}
