//! What Moshi, Gson and Jackson need where reflection alone does not do: open enums, unions, odd keys.

use jar_sprout_layout::{
    Doc, braces, cat, comma_list, group, hard, last_comma, line, lines, members, nest, paragraphs, soft, text,
};
use jar_sprout_model::{Type, WireName};

use super::Sheet;
use super::settings::Library;
use super::unions::{Branch, UNKNOWN, interface, shared_properties, when};
use super::{names, parcels, types};
use crate::languages::jvm::naming;
use crate::plan::{
    CaseKind, Ident, Plan, PlannedField, PlannedType, PlannedUnion, PlannedUnionCase, ToldCase,
};
use crate::spell::renaming::Renaming;
use crate::spell::{Helper, Needs};

const GSON_TEXT: Helper = Helper { name: "TextAdapter", text: include_str!("gson/TextAdapter.kt") };
const GSON_UNION: Helper = Helper { name: "UnionAdapter", text: include_str!("gson/UnionAdapter.kt") };
const MOSHI_TEXT: Helper = Helper { name: "TextAdapter", text: include_str!("moshi/TextAdapter.kt") };
/// What tells a union's cases apart: their tag, or a key that only one of them has.
const GSON_TAG: Helper = Helper { name: "UnionTag", text: include_str!("gson/UnionTag.kt") };
const MOSHI_TAG: Helper = Helper { name: "UnionTag", text: include_str!("moshi/UnionTag.kt") };
const MOSHI_KEY: Helper = Helper { name: "UnionKey", text: include_str!("moshi/UnionKey.kt") };

const MOSHI_UNION: Helper = Helper { name: "UnionAdapter", text: include_str!("moshi/UnionAdapter.kt") };

const JACKSON_READ: Helper = Helper { name: "Read", text: include_str!("jackson/Read.kt") };

/// What is said of a record for Moshi, whose code generation takes only what is marked.
pub(super) fn of_moshi(needs: &mut Needs) -> Vec<String> {
    needs.imports.insert("com.squareup.moshi.JsonClass");
    vec!["@JsonClass(generateAdapter = true)".to_owned()]
}

/// What is said of a type that has an adapter of its own, which Moshi finds by its name.
fn with_moshi_adapter(needs: &mut Needs) -> String {
    needs.imports.insert("com.squareup.moshi.JsonClass");
    "@JsonClass(generateAdapter = true, generator = \"none\")".to_owned()
}

/// What is said of a record for Jackson.
pub(super) fn of_jackson(
    sheet: &mut Sheet<'_>,
    ty: &PlannedType<'_>,
    fields: &[PlannedField<'_>],
    renaming: &Renaming,
) -> Vec<String> {
    let mut annotations = Vec::new();
    annotations.extend(naming::annotation(renaming, "::class", sheet.needs));
    if fields.is_empty() {
        // Without an annotation of its own, the library does not write what has no parts.
        sheet.needs.imports.insert("com.fasterxml.jackson.databind.annotation.JsonSerialize");
        annotations.push("@JsonSerialize".to_owned());
    }
    let id = ty.id;
    if sheet.plan.unions_of(id).next().is_some() && sheet.plan.union_of(id).is_none() {
        // Else it would have the deserializer of its union, which comes back to it.
        sheet.needs.imports.extend([
            "com.fasterxml.jackson.databind.JsonDeserializer",
            "com.fasterxml.jackson.databind.annotation.JsonDeserialize",
        ]);
        annotations.push("@JsonDeserialize(using = JsonDeserializer.None::class)".to_owned());
    }
    if fields.iter().any(|field| !field.fate.is_always_there()) {
        sheet.needs.imports.insert("com.fasterxml.jackson.annotation.JsonInclude");
        annotations.push("@JsonInclude(JsonInclude.Include.NON_NULL)".to_owned());
    }
    if fields.iter().any(|field| field.wire.as_str().is_empty()) {
        sheet.needs.imports.insert("com.fasterxml.jackson.databind.annotation.JsonNaming");
        annotations.push(format!("@JsonNaming({}.Naming::class)", ty.ident));
    }
    annotations
}

/// Whether Jackson's guess at the property of a getter goes wrong: that of `aB` is `getAB`, which is `ab` to it.
pub(super) fn has_misread_getter(name: &str) -> bool {
    let is_upper = |at: usize| name.chars().nth(at).is_some_and(char::is_uppercase);
    is_upper(0) || is_upper(1) || (name.starts_with("is") && is_upper(2))
}

/// Jackson takes an annotation with the empty key for one without a key.
pub(super) fn naming_of_empty_key(fields: &[&PlannedField<'_>], needs: &mut Needs) -> Option<Doc> {
    let field = fields.iter().find(|field| field.wire.as_str().is_empty())?;
    needs.imports.insert("com.fasterxml.jackson.databind.PropertyNamingStrategies");
    let name = names::LITERAL.of(field.ident.as_str().trim_matches('`'));
    let body = format!("override fun translate(name: String) = if (name == {name}) \"\" else name");
    let class = block("class Naming : PropertyNamingStrategies.NamingBase()", [text(body)]);
    let comment = text("/** Gives one property the empty key, which no annotation can. */");
    Some(lines([comment, class]))
}

/// A class around a text, which a value that the server adds later fits as well.
pub(super) fn enumeration(sheet: &mut Sheet<'_>, ident: &Ident, cases: Doc) -> Doc {
    match sheet.options.library {
        Library::Gson => {
            sheet.needs.imports.insert("com.google.gson.annotations.JsonAdapter");
            sheet.needs.helpers.insert(GSON_TEXT);
            let adapter = text_adapter("internal class Adapter", ident);
            let inside = paragraphs([companion([cases]), adapter]);
            let class = text_class(sheet, ident, "", inside);
            lines([text(format!("@JsonAdapter({ident}.Adapter::class)")), class])
        }
        Library::Moshi => {
            sheet.needs.helpers.insert(MOSHI_TEXT);
            let class = lines([
                text(with_moshi_adapter(sheet.needs)),
                text_class(sheet, ident, "", companion([cases])),
            ]);
            let adapter = text_adapter(&format!("class {ident}JsonAdapter"), ident);
            paragraphs([class, adapter])
        }
        Library::Jackson | Library::Kotlinx | Library::None => {
            sheet.needs.imports.extend([
                "com.fasterxml.jackson.annotation.JsonCreator",
                "com.fasterxml.jackson.annotation.JsonValue",
            ]);
            let factory = text(format!("fun of(value: String) = {ident}(value)"));
            let factory = lines([text("@JvmStatic"), text("@JsonCreator"), factory]);
            text_class(sheet, ident, "@get:JsonValue ", companion([cases, factory]))
        }
    }
}

/// `class Adapter : TextAdapter<Hive>(::Hive, Hive::value)`
fn text_adapter(class: &str, ident: &Ident) -> Doc {
    let arguments = [text(format!("::{ident}")), text(format!("{ident}::value"))];
    let arguments = cat([soft(), comma_list(arguments), last_comma()]);
    let call = cat([text(format!("TextAdapter<{ident}>(")), nest(arguments), soft(), text(")")]);
    group(cat([text(format!("{class} :")), nest(cat([line(), group(call)]))]))
}

fn companion(parts: impl IntoIterator<Item = Doc>) -> Doc {
    block("companion object", [paragraphs(parts)])
}

fn text_class(sheet: &mut Sheet<'_>, ident: &Ident, annotation: &str, inside: Doc) -> Doc {
    let value = nest(cat([hard(), text(format!("{annotation}val value: String,"))]));
    let body = braces(Doc::Nil, [inside]);
    let supertype = parcels::supertype(sheet);
    let class =
        cat([text(format!("data class {ident}(")), value, hard(), text(format!("){supertype}")), body]);
    lines(parcels::annotations(sheet, []).into_iter().chain([class]))
}

/// A sealed interface, and what reads and writes it.
pub(super) fn union(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, union: &PlannedUnion<'_>) -> Doc {
    let ident = &ty.ident;
    let inside = match &union.tag {
        Some(_) => {
            let parcels = parcels::annotations_of_unknown(sheet);
            let unknown = unknown_type(sheet);
            let wrapper = wrapper(sheet, UNKNOWN, unknown, ident);
            let unknown = lines(parcels.into_iter().chain([wrapper]));
            paragraphs(shared_properties(sheet, ty).into_iter().chain([unknown]))
        }
        None => {
            let wrapper = |case: &PlannedUnionCase<'_>| {
                let ty = types::slot(sheet, case.slot);
                let parcels = parcels::annotations(sheet, [&case.slot.ty]);
                let wrapper = wrapper(sheet, case.ident.as_str(), ty, ident);
                lines(parcels.into_iter().chain([wrapper]))
            };
            let wrappers: Vec<Doc> = union.cases.iter().map(wrapper).collect();
            paragraphs(wrappers)
        }
    };
    let interface = interface(sheet, ident, inside);
    let (annotations, adapter) = match sheet.options.library {
        Library::Gson => of_gson(sheet, ident, union),
        Library::Moshi => of_moshi_union(sheet, ident, union),
        Library::Jackson | Library::Kotlinx | Library::None => of_jackson_union(sheet, ident, union),
    };
    let interface = lines(annotations.into_iter().chain([interface]));
    paragraphs([interface].into_iter().chain(adapter))
}

/// A class around what a case holds.
fn wrapper(sheet: &mut Sheet<'_>, name: &str, ty: Doc, union: &Ident) -> Doc {
    let annotation = if sheet.options.library == Library::Jackson {
        sheet.needs.imports.insert("com.fasterxml.jackson.annotation.JsonValue");
        "@get:JsonValue "
    } else {
        ""
    };
    let value = nest(cat([hard(), text(format!("{annotation}val value: ")), ty, text(",")]));
    let rest = text(format!(") : {union}"));
    let mut class = vec![text(format!("data class {name}(")), value, hard(), rest];
    if name == UNKNOWN && sheet.options.library == Library::Jackson {
        sheet.needs.imports.insert("com.fasterxml.jackson.annotation.JsonCreator");
        // A scalar is no kind, and could not be written again.
        sheet.needs.imports.insert("com.fasterxml.jackson.databind.node.ObjectNode");
        let factory = text(format!("fun of(value: ObjectNode) = {UNKNOWN}(value)"));
        let factory = lines([text("@JvmStatic"), text("@JsonCreator"), factory]);
        class.push(braces(Doc::Nil, [companion([factory])]));
    }
    cat(class)
}

/// What holds the whole object of a tag that is not known yet.
fn unknown_type(sheet: &mut Sheet<'_>) -> Doc {
    match sheet.options.library {
        Library::Gson => {
            sheet.needs.imports.insert("com.google.gson.JsonElement");
            text("JsonElement")
        }
        Library::Jackson => {
            sheet.needs.imports.insert("com.fasterxml.jackson.databind.JsonNode");
            text("JsonNode")
        }
        Library::Moshi | Library::Kotlinx | Library::None => types::any_object(sheet),
    }
}

/// What is written of each case: what a wrapper holds, by the type that it is declared with; of a class that is a case
/// itself, the whole by its own.
fn written(ident: &Ident, union: &PlannedUnion<'_>, wrapped: &str, whole: &str) -> Doc {
    let unwrapped = |case: &str| (format!("is {ident}.{case}"), text(wrapped.to_owned()));
    let branches: Vec<Branch> = match &union.tag {
        Some(_) => vec![unwrapped(UNKNOWN), ("else".to_owned(), text(whole.to_owned()))],
        None => union.cases.iter().map(|case| unwrapped(case.ident.as_str())).collect(),
    };
    when("value", branches, 8)
}

fn of_gson(sheet: &mut Sheet<'_>, ident: &Ident, union: &PlannedUnion<'_>) -> (Vec<Doc>, Option<Doc>) {
    sheet.needs.imports.extend([
        "com.google.gson.JsonDeserializationContext",
        "com.google.gson.JsonElement",
        "com.google.gson.JsonSerializationContext",
        "com.google.gson.annotations.JsonAdapter",
    ]);
    sheet.needs.helpers.insert(GSON_UNION);
    let read = |ty: Doc| cat([text("context.read<"), ty, text(">(json)")]);
    let chosen = match &union.tag {
        Some(tag) => {
            let unknown = text(format!("{ident}.{UNKNOWN}(json)"));
            sheet.needs.helpers.insert(GSON_TAG);
            let subject = format!("json.tag({})", names::LITERAL.of(tag.as_str()));
            by_tag(sheet.plan, &subject, union, &read, unknown)
        }
        None => {
            let condition = |kind| -> String {
                match kind {
                    CaseKind::Object => "json.isJsonObject",
                    CaseKind::List => "json.isJsonArray",
                    CaseKind::Text => "json.asJsonPrimitive.isString",
                    CaseKind::Boolean => "json.asJsonPrimitive.isBoolean",
                    CaseKind::Integer => "json.asString.toBigIntegerOrNull() != null",
                    CaseKind::Number => "json.asJsonPrimitive.isNumber",
                    CaseKind::Any => "true",
                }
                .to_owned()
            };
            let has_key =
                |key: &WireName| format!("json.asJsonObject.has({})", names::LITERAL.of(key.as_str()));
            by_kind(sheet.plan, ident, union, "", &condition, &has_key, "context.read(json)")
        }
    };
    let parameters = [("json", "JsonElement"), ("context", "JsonDeserializationContext")];
    let read = method("read", &parameters, ident.as_str(), chosen);
    let parameters = [("value", ident.as_str()), ("context", "JsonSerializationContext")];
    let write = written(ident, union, "context.write(value.value)", "context.serialize(value)");
    let write = method("write", &parameters, "JsonElement", write);
    let adapter =
        block(&format!("class {ident}Adapter : UnionAdapter<{ident}>()"), [paragraphs([read, write])]);
    (vec![text(format!("@JsonAdapter({ident}Adapter::class)"))], Some(adapter))
}

fn of_moshi_union(sheet: &mut Sheet<'_>, ident: &Ident, union: &PlannedUnion<'_>) -> (Vec<Doc>, Option<Doc>) {
    sheet.needs.imports.extend([
        "com.squareup.moshi.JsonReader",
        "com.squareup.moshi.JsonWriter",
        "com.squareup.moshi.Moshi",
    ]);
    sheet.needs.helpers.insert(MOSHI_UNION);
    let read = |ty: Doc| cat([text("moshi.read<"), ty, text(">(reader)")]);
    let chosen = match &union.tag {
        Some(tag) => {
            let unknown = text(format!("{ident}.{UNKNOWN}(moshi.read(reader))"));
            sheet.needs.helpers.insert(MOSHI_TAG);
            let subject = format!("reader.tag({})", names::LITERAL.of(tag.as_str()));
            by_tag(sheet.plan, &subject, union, &read, unknown)
        }
        None => {
            // A condition that asks for keys leaves no room for a subject.
            let is_keyed = sheet.plan.is_told_by_keys(union);
            sheet.needs.helpers.extend(is_keyed.then_some(MOSHI_KEY));
            let condition = |kind| {
                let token = match kind {
                    CaseKind::Object => "JsonReader.Token.BEGIN_OBJECT",
                    CaseKind::List => "JsonReader.Token.BEGIN_ARRAY",
                    CaseKind::Text => "JsonReader.Token.STRING",
                    CaseKind::Boolean => "JsonReader.Token.BOOLEAN",
                    CaseKind::Integer | CaseKind::Number => "JsonReader.Token.NUMBER",
                    CaseKind::Any => "else",
                };
                if is_keyed && kind != CaseKind::Any {
                    format!("reader.peek() == {token}")
                } else {
                    token.to_owned()
                }
            };
            let subject = if is_keyed { "" } else { "reader.peek()" };
            let has_key = |key: &WireName| format!("reader.has({})", names::LITERAL.of(key.as_str()));
            by_kind(sheet.plan, ident, union, subject, &condition, &has_key, "moshi.read(reader)")
        }
    };
    let read = method("read", &[("reader", "JsonReader")], ident.as_str(), chosen);
    let constructor = nest(cat([hard(), text("moshi: Moshi,")]));
    let head = cat([
        text(format!("class {ident}JsonAdapter(")),
        constructor,
        hard(),
        text(format!(") : UnionAdapter<{ident}>(moshi)")),
    ]);
    let parameters = [("writer", "JsonWriter"), ("value", ident.as_str())];
    let whole = "moshi.adapter(Any::class.java).toJson(writer, value)";
    let write = written(ident, union, "moshi.write(writer, value.value)", whole);
    let adapter = members(head, [read, method("write", &parameters, "Unit", write)]);
    (vec![text(with_moshi_adapter(sheet.needs))], Some(adapter))
}

fn of_jackson_union(
    sheet: &mut Sheet<'_>,
    ident: &Ident,
    union: &PlannedUnion<'_>,
) -> (Vec<Doc>, Option<Doc>) {
    let direct = union.tag.filter(|_| sheet.plan.has_direct_cases(union));
    if let Some(tag) = direct {
        return (type_info(sheet, ident, tag, &union.cases), None);
    }
    sheet.needs.imports.extend([
        "com.fasterxml.jackson.core.JsonParser",
        "com.fasterxml.jackson.databind.DeserializationContext",
        "com.fasterxml.jackson.databind.JsonDeserializer",
        "com.fasterxml.jackson.databind.annotation.JsonDeserialize",
    ]);
    let parameters = [("parser", "JsonParser"), ("context", "DeserializationContext")];
    let deserialize = match &union.tag {
        Some(tag) => {
            let read = |ty: Doc| cat([text("context.readTreeAsValue(node, "), ty, text("::class.java)")]);
            let unknown = text(format!("{ident}.{UNKNOWN}(node)"));
            let subject = format!("node.path({}).asText()", names::LITERAL.of(tag.as_str()));
            let chosen = by_tag(sheet.plan, &subject, union, &read, unknown);
            let body = [text("val node = context.readTree(parser)"), cat([text("return "), chosen])];
            braces(header("deserialize", &parameters, ident.as_str()), body)
        }
        None => {
            sheet.needs.helpers.insert(JACKSON_READ);
            sheet.needs.imports.insert("com.fasterxml.jackson.core.JsonToken");
            let condition = |kind| match kind {
                CaseKind::Object => "JsonToken.START_OBJECT",
                CaseKind::List => "JsonToken.START_ARRAY",
                CaseKind::Text => "JsonToken.VALUE_STRING",
                CaseKind::Boolean => "JsonToken.VALUE_TRUE, JsonToken.VALUE_FALSE",
                CaseKind::Integer => "JsonToken.VALUE_NUMBER_INT",
                CaseKind::Number => "JsonToken.VALUE_NUMBER_INT, JsonToken.VALUE_NUMBER_FLOAT",
                CaseKind::Any => "else",
            };
            if sheet.plan.is_told_by_keys(union) {
                by_keys_of_jackson(sheet, ident, union, &parameters, &condition)
            } else {
                let subject = "parser.currentToken()";
                let condition = |kind| condition(kind).to_owned();
                let no_key = |_: &WireName| String::new();
                let chosen = by_kind(sheet.plan, ident, union, subject, &condition, &no_key, "parser.read()");
                method("deserialize", &parameters, ident.as_str(), chosen)
            }
        }
    };
    let class = block(&format!("class {ident}Deserializer : JsonDeserializer<{ident}>()"), [deserialize]);
    (vec![text(format!("@JsonDeserialize(using = {ident}Deserializer::class)"))], Some(class))
}

/// What has a key is asked of the whole object, once it was read.
fn by_keys_of_jackson(
    sheet: &mut Sheet<'_>,
    ident: &Ident,
    union: &PlannedUnion<'_>,
    parameters: &[(&str, &str)],
    condition: &dyn Fn(CaseKind) -> &'static str,
) -> Doc {
    let (objects, others): (Vec<ToldCase<'_, '_>>, Vec<_>) =
        sheet.plan.by_kind(union).into_iter().partition(|told| told.kind == CaseKind::Object);
    let mut body = Vec::new();
    if !others.is_empty() {
        let branch = |ToldCase { kind, case, .. }: &ToldCase<'_, '_>| {
            (condition(*kind).to_owned(), text(format!("return {ident}.{}(parser.read())", case.ident)))
        };
        let mut branches: Vec<Branch> = others.iter().map(branch).collect();
        branches.push(("else".to_owned(), text("Unit")));
        body.push(when("parser.currentToken()", branches, 8));
    }
    body.push(text("val node = context.readTree(parser)"));
    let branch = |ToldCase { key, case, .. }: &ToldCase<'_, '_>, sheet: &mut Sheet<'_>| {
        let condition = key.map_or_else(
            || "else".to_owned(),
            |key| format!("node.has({})", names::LITERAL.of(key.as_str())),
        );
        let made = format!("{ident}.{}(", case.ident);
        let read = match &case.slot.ty {
            // A class says nothing of what a list or a map holds.
            Type::List(_) | Type::Map(_) | Type::Tuple(_) => {
                vec![text("node.traverse(parser.codec).read())")]
            }
            Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Named(_) => {
                let ty = types::non_null(sheet, case.slot);
                vec![text("context.readTreeAsValue(node, "), ty, text("::class.java))")]
            }
        };
        (condition, cat([text(made)].into_iter().chain(read)))
    };
    let branches = objects.iter().map(|told| branch(told, sheet)).collect();
    body.push(cat([text("return "), when("", branches, 8)]));
    braces(header("deserialize", parameters, ident.as_str()), body)
}

/// Jackson reads the tag, which is a part of each case.
fn type_info(
    sheet: &mut Sheet<'_>,
    ident: &Ident,
    tag: &WireName,
    cases: &[PlannedUnionCase<'_>],
) -> Vec<Doc> {
    sheet.needs.imports.extend([
        "com.fasterxml.jackson.annotation.JsonSubTypes",
        "com.fasterxml.jackson.annotation.JsonTypeInfo",
    ]);
    let arguments = [
        "use = JsonTypeInfo.Id.NAME".to_owned(),
        "include = JsonTypeInfo.As.EXISTING_PROPERTY".to_owned(),
        format!("property = {}", names::LITERAL.of(tag.as_str())),
        "visible = true".to_owned(),
        format!("defaultImpl = {ident}.{UNKNOWN}::class"),
    ];
    let sub_type = |case: &PlannedUnionCase<'_>| {
        let class =
            sheet.plan.direct_case(case).expect("all cases are records of their own").ident.to_string();
        let tag = names::LITERAL.of(case.tag.map_or("", WireName::as_str));
        format!("JsonSubTypes.Type(value = {class}::class, name = {tag})")
    };
    let listed = |name: &'static str, arguments: Vec<String>| {
        let arguments = arguments.into_iter().map(|argument| cat([hard(), text(argument), text(",")]));
        cat([text(name), text("("), nest(cat(arguments)), hard(), text(")")])
    };
    vec![
        listed("@JsonTypeInfo", arguments.to_vec()),
        listed("@JsonSubTypes", cases.iter().map(sub_type).collect()),
    ]
}

fn by_tag(
    plan: &Plan<'_>,
    subject: &str,
    union: &PlannedUnion<'_>,
    read: &dyn Fn(Doc) -> Doc,
    unknown: Doc,
) -> Doc {
    let mut branches = Vec::new();
    for PlannedUnionCase { ident: _, tag, key: _, slot } in &union.cases {
        if let Type::Named(id) = &slot.ty {
            let tag = names::LITERAL.of(tag.map_or("", WireName::as_str));
            branches.push((tag, read(text(plan.ident(*id).as_str().to_owned()))));
        }
    }
    branches.push(("else".to_owned(), unknown));
    when(subject, branches, 8)
}

fn by_kind(
    plan: &Plan<'_>,
    ident: &Ident,
    union: &PlannedUnion<'_>,
    subject: &str,
    condition: &dyn Fn(CaseKind) -> String,
    has_key: &dyn Fn(&WireName) -> String,
    read: &'static str,
) -> Doc {
    let cases = plan.by_kind(union);
    let last = cases.len().saturating_sub(1);
    let branches = cases.iter().enumerate().map(|(at, ToldCase { kind, key, case })| {
        let condition = match key {
            Some(key) => format!("{} && {}", condition(*kind), has_key(key)),
            None if at == last => "else".to_owned(),
            None => condition(*kind),
        };
        // Its parameter says of which type the value is.
        (condition, text(format!("{ident}.{}({read})", case.ident)))
    });
    let branches = branches.collect();
    when(subject, branches, 8)
}

/// A method of one expression.
fn method(name: &str, parameters: &[(&str, &str)], result: &str, body: Doc) -> Doc {
    cat([header(name, parameters, result), text(" ="), nest(cat([hard(), body]))])
}

fn header(name: &str, parameters: &[(&str, &str)], result: &str) -> Doc {
    let parameter = |(name, ty): &(&str, &str)| text(format!("{name}: {ty}"));
    let parameters: Vec<Doc> = parameters.iter().map(parameter).collect();
    let open = text(format!("override fun {name}("));
    let close = text(format!("): {result}"));
    if parameters.len() == 1 {
        let inside = nest(cat([soft(), cat(parameters), last_comma()]));
        return group(cat([open, inside, soft(), close]));
    }
    // Its linter wants several parameters on lines of their own.
    let inside = parameters.into_iter().map(|parameter| cat([hard(), parameter, text(",")]));
    cat([open, nest(cat(inside)), hard(), close])
}

/// A head with lines below it.
fn block(head: &str, inside: impl IntoIterator<Item = Doc>) -> Doc {
    braces(head.to_owned(), inside)
}
