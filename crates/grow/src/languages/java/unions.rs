//! Unions in Java: sealed interfaces.

use jar_sprout_layout::{Doc, braces, cat, comma_list, group, hard, join, line, lines, nest, soft, text};
use jar_sprout_model::{Slot, Type, WireName};

use super::Sheet;
use super::{names, types};
use crate::plan::{CaseKind, Ident, Plan, PlannedType, PlannedUnion, PlannedUnionCase, ToldCase};
use crate::spell::Needs;
use crate::spell::plain_copies::import_plain;

/// The name of the case for a tag that no sample had.
pub(super) const UNKNOWN: &str = "Unknown";

pub(super) fn union(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, union: &PlannedUnion<'_>) -> Doc {
    let ident = &ty.ident;
    match &union.tag {
        Some(tag) if sheet.plan.has_direct_cases(union) => by_type_info(sheet, ty, tag, union),
        Some(tag) => by_tag(sheet, ident, tag, &union.cases),
        None => by_kind(sheet, ident, union),
    }
}

/// The library reads the tag, which is a part of each case.
fn by_type_info(
    sheet: &mut Sheet<'_>,
    ty: &PlannedType<'_>,
    tag: &WireName,
    union: &PlannedUnion<'_>,
) -> Doc {
    let ident = &ty.ident;
    sheet.needs.imports.extend([
        "com.fasterxml.jackson.annotation.JsonSubTypes",
        "com.fasterxml.jackson.annotation.JsonTypeInfo",
    ]);
    let arguments = [
        "use = JsonTypeInfo.Id.NAME".to_owned(),
        "include = JsonTypeInfo.As.EXISTING_PROPERTY".to_owned(),
        format!("property = {}", names::LITERAL.of(tag.as_str())),
        "visible = true".to_owned(),
        format!("defaultImpl = {ident}.{UNKNOWN}.class"),
    ];
    let case_name = |case: &PlannedUnionCase<'_>| {
        sheet.plan.direct_case(case).expect("all cases are records of their own").ident.to_string()
    };
    let sub_type = |case: &PlannedUnionCase<'_>| {
        let tag = names::LITERAL.of(case.tag.map_or("", WireName::as_str));
        text(format!("@JsonSubTypes.Type(value = {}.class, name = {tag})", case_name(case)))
    };
    let between = cat([text(","), hard()]);
    let sub_types = nest(cat([hard(), join(&between, union.cases.iter().map(sub_type))]));
    let permitted = permitted(sheet.plan, ident, union);
    lines([
        annotation("@JsonTypeInfo", arguments.map(text)),
        cat([text("@JsonSubTypes({"), sub_types, hard(), text("})")]),
        sealed(
            ident,
            permitted,
            shared_parts(sheet, ty).into_iter().chain([unknown(ident, "ObjectNode", sheet.needs)]),
        ),
    ])
}

/// What all cases have, which records answer: of a kind that is not known yet, nothing is known. A component that is no
/// object cannot be null, and so is not among them.
pub(super) fn shared_parts(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>) -> Vec<Doc> {
    if sheet.options.has_beans {
        return Vec::new();
    }
    let mut parts = Vec::new();
    for field in sheet.plan.shared_fields(ty.id) {
        if types::is_primitive(&field.slot.ty) {
            continue;
        }
        let mut own = Needs::default();
        let ty = types::field(&mut sheet.noting(&mut own), field).ty;
        import_plain(&own, sheet.needs);
        let ty = types::or_null(sheet, ty);
        let head = text(format!("default {ty} {}()", field.ident));
        parts.push(braces(head, [text("return null;")]));
    }
    parts
}

/// A deserializer reads the tag; what each case holds stands in a record around it.
fn by_tag(sheet: &mut Sheet<'_>, ident: &Ident, tag: &WireName, cases: &[PlannedUnionCase<'_>]) -> Doc {
    sheet.needs.imports.insert("com.fasterxml.jackson.databind.JsonNode");
    let branch = |case: &PlannedUnionCase<'_>, sheet: &mut Sheet<'_>| {
        let tag = names::LITERAL.of(case.tag.map_or("", WireName::as_str));
        let ty = types::boxed(sheet, case.slot);
        let read = text(format!("context.readTreeAsValue(node, {ty}.class));"));
        let read = nest(nest(cat([soft(), read])));
        let made = group(cat([text(format!("new {}(", case.ident)), read]));
        group(cat([text(format!("case {tag} ->")), nest(nest(cat([line(), made])))]))
    };
    let mut branches: Vec<Doc> = cases.iter().map(|case| branch(case, sheet)).collect();
    branches.push(text(format!("default -> new {UNKNOWN}(node);")));
    let key = names::LITERAL.of(tag.as_str());
    let body = [
        text("JsonNode node = context.readTree(parser);"),
        cat([braces(text(format!("return switch (node.path({key}).asText())")), branches), text(";")]),
    ];
    let mut inside: Vec<Doc> = cases.iter().map(|case| wrapper(sheet, ident, case)).collect();
    inside.push(unknown(ident, "JsonNode", sheet.needs));
    inside.push(deserializer(ident, body, sheet.needs));
    lines([
        text(format!("@JsonDeserialize(using = {ident}.Deserializer.class)")),
        sealed(ident, Vec::new(), inside),
    ])
}

/// A deserializer looks at what kind of value it is.
fn by_kind(sheet: &mut Sheet<'_>, ident: &Ident, union: &PlannedUnion<'_>) -> Doc {
    let cases = sheet.plan.by_kind(union);
    let has_integers = cases.iter().any(|told| told.kind == CaseKind::Integer);
    let is_keyed = sheet.plan.is_told_by_keys(union);
    let branch = |ToldCase { kind, key: _, case }: &ToldCase<'_, '_>, sheet: &mut Sheet<'_>| {
        let tokens = match kind {
            CaseKind::Object => "case START_OBJECT",
            CaseKind::List => "case START_ARRAY",
            CaseKind::Text => "case VALUE_STRING",
            CaseKind::Boolean => "case VALUE_TRUE, VALUE_FALSE",
            CaseKind::Integer => "case VALUE_NUMBER_INT",
            CaseKind::Number if has_integers => "case VALUE_NUMBER_FLOAT",
            CaseKind::Number => "case VALUE_NUMBER_INT, VALUE_NUMBER_FLOAT",
            CaseKind::Any => "default",
        };
        let value = read(sheet, case.slot);
        let made = cat([soft(), value, text(");")]);
        let made = group(cat([text(format!("new {}(", case.ident)), nest(nest(made))]));
        group(cat([text(format!("{tokens} ->")), nest(nest(cat([line(), made])))]))
    };
    let (objects, others): (Vec<_>, Vec<_>) =
        cases.iter().partition(|told| is_keyed && told.kind == CaseKind::Object);
    let mut branches: Vec<Doc> = Vec::new();
    if !objects.is_empty() {
        branches.push(by_keys(sheet, &objects));
    }
    branches.extend(others.iter().map(|case| branch(case, sheet)));
    if cases.iter().all(|told| told.kind != CaseKind::Any) {
        let arguments = nest(nest(cat([soft(), text(format!("{ident}.class, parser);"))])));
        let call = group(cat([text("context.handleUnexpectedToken("), arguments]));
        let cast = group(cat([text(format!("({ident})")), nest(nest(cat([line(), call])))]));
        branches.push(group(cat([text("default ->"), nest(nest(cat([line(), cast])))])));
    }
    let body = [cat([braces(text("return switch (parser.currentToken())"), branches), text(";")])];
    let mut inside: Vec<Doc> = union.cases.iter().map(|case| wrapper(sheet, ident, case)).collect();
    inside.push(deserializer(ident, body, sheet.needs));
    lines([
        text(format!("@JsonDeserialize(using = {ident}.Deserializer.class)")),
        sealed(ident, Vec::new(), inside),
    ])
}

/// What has a key is asked of the whole object, once it was read.
fn by_keys(sheet: &mut Sheet<'_>, objects: &[&ToldCase<'_, '_>]) -> Doc {
    sheet.needs.imports.insert("com.fasterxml.jackson.databind.JsonNode");
    let mut body = vec![text("JsonNode node = context.readTree(parser);")];
    for ToldCase { key, case, .. } in objects {
        let ty = types::boxed(sheet, case.slot);
        let read = match &case.slot.ty {
            Type::List(_) | Type::Map(_) | Type::Tuple(_) => {
                sheet.needs.imports.insert("com.fasterxml.jackson.core.type.TypeReference");
                body.push(text(format!("TypeReference<{ty}> type = new TypeReference<>() {{}};")));
                text("node.traverse(parser.getCodec()).readValueAs(type));")
            }
            Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Named(_) => {
                text(format!("context.readTreeAsValue(node, {ty}.class));"))
            }
        };
        let made = group(cat([text(format!("yield new {}(", case.ident)), nest(nest(cat([soft(), read])))]));
        body.push(match key {
            Some(key) => braces(text(format!("if (node.has({}))", names::LITERAL.of(key.as_str()))), [made]),
            None => made,
        });
    }
    braces(text("case START_OBJECT ->"), body)
}

/// `context.readValue(parser, Queen.class)`
fn read(sheet: &mut Sheet<'_>, slot: &Slot) -> Doc {
    let ty = types::boxed(sheet, slot);
    match &slot.ty {
        Type::List(_) | Type::Map(_) | Type::Tuple(_) => {
            sheet.needs.imports.insert("com.fasterxml.jackson.core.type.TypeReference");
            let argument = nest(nest(cat([soft(), text(format!("new TypeReference<{ty}>() {{}})"))])));
            group(cat([text("parser.readValueAs("), argument]))
        }
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Named(_) => {
            text(format!("context.readValue(parser, {ty}.class)"))
        }
    }
}

/// What a union permits that does not stand inside it: the records that are its cases, if they are.
pub(super) fn permitted(plan: &Plan<'_>, ident: &Ident, union: &PlannedUnion<'_>) -> Vec<Doc> {
    if !plan.has_direct_cases(union) {
        return Vec::new();
    }
    let records = union.cases.iter().filter_map(|case| plan.direct_case(case));
    let names = records.map(|record| record.ident.to_string());
    names.chain([format!("{ident}.{UNKNOWN}")]).map(text).collect()
}

/// `record Text(String value) implements Price {}`
pub(super) fn holder(union: &Ident, name: &str, ty: &str) -> Doc {
    let supers = nest(nest(cat([line(), text(format!("implements {union}"))])));
    cat([group(cat([text(format!("record {name}({ty} value)")), supers])), text(" {}")])
}

/// `public sealed interface Event permits SwarmEvent, Event.Unknown {`
pub(super) fn sealed(ident: &Ident, permitted: Vec<Doc>, inside: impl IntoIterator<Item = Doc>) -> Doc {
    let permits = if permitted.is_empty() {
        Doc::Nil
    } else {
        let between = cat([text(","), line()]);
        let names = nest(nest(join(&between, permitted)));
        nest(nest(cat([line(), group(cat([text("permits "), names]))])))
    };
    let head = group(cat([text(format!("public sealed interface {ident}")), permits]));
    super::members(head, inside)
}

/// A record around what a case holds.
fn wrapper(sheet: &mut Sheet<'_>, union: &Ident, case: &PlannedUnionCase<'_>) -> Doc {
    sheet.needs.imports.insert("com.fasterxml.jackson.annotation.JsonValue");
    let ty = types::plain(sheet, case.slot);
    value_record(&format!("record {}", case.ident), &ty, &format!(" implements {union}"), [])
}

/// What holds a kind that is not known. Where an annotation chooses it, it must be an object: a scalar could not be
/// written again.
fn unknown(union: &Ident, ty: &'static str, needs: &mut Needs) -> Doc {
    needs.imports.extend([
        "com.fasterxml.jackson.annotation.JsonCreator",
        "com.fasterxml.jackson.annotation.JsonValue",
        if ty == "ObjectNode" {
            "com.fasterxml.jackson.databind.node.ObjectNode"
        } else {
            "com.fasterxml.jackson.databind.JsonNode"
        },
    ]);
    let record =
        value_record(&format!("record {UNKNOWN}"), ty, &format!(" implements {union}"), [creator(UNKNOWN)]);
    lines([text("/** A kind that is not known yet. */"), record])
}

/// The constructor takes the whole value, not its parts.
pub(super) fn creator(name: &str) -> Doc {
    lines([text("@JsonCreator(mode = JsonCreator.Mode.DELEGATING)"), text(format!("public {name} {{}}"))])
}

/// A record whose one component is all of its JSON.
pub(super) fn value_record(head: &str, ty: &str, supers: &str, more: impl IntoIterator<Item = Doc>) -> Doc {
    let supers = match supers.trim_start() {
        "" => Doc::Nil,
        supers => group(nest(nest(cat([line(), text(supers.to_owned())])))),
    };
    let component = nest(nest(cat([soft(), text(format!("@JsonValue {ty} value)"))])));
    let head = cat([text(format!("{head}(")), group(component), supers]);
    let more: Vec<Doc> = more.into_iter().collect();
    if more.is_empty() { cat([head, text(" {}")]) } else { super::members(head, more) }
}

fn deserializer(ident: &Ident, body: impl IntoIterator<Item = Doc>, needs: &mut Needs) -> Doc {
    needs.imports.extend([
        "com.fasterxml.jackson.core.JsonParser",
        "com.fasterxml.jackson.databind.DeserializationContext",
        "com.fasterxml.jackson.databind.JsonDeserializer",
        "com.fasterxml.jackson.databind.annotation.JsonDeserialize",
        "java.io.IOException",
    ]);
    let parameters = group(cat([
        text(format!("public {ident} deserialize(")),
        nest(nest(cat([soft(), text("JsonParser parser, DeserializationContext context)")]))),
    ]));
    let throws = group(nest(nest(cat([line(), text("throws IOException")]))));
    let head = cat([parameters, throws]);
    let method = lines([text("@Override"), braces(head, body)]);
    super::members(text(format!("final class Deserializer extends JsonDeserializer<{ident}>")), [method])
}

/// `@Name(a = 1, b = 2)`
pub(super) fn annotation(name: &'static str, arguments: impl IntoIterator<Item = Doc>) -> Doc {
    let arguments = comma_list(arguments);
    group(cat([text(name), text("("), nest(nest(cat([soft(), arguments, text(")")])))]))
}
