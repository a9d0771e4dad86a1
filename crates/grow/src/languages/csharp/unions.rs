//! Unions in C#: a type without values of its own, and a converter that chooses the case.

use jar_sprout_layout::{Doc, cat, group, hard, join, line, lines, nest, soft, text};
use jar_sprout_model::{Slot, TypeId, WireName};

use super::Sheet;
use super::settings::{CSharpOptions, Level, Library, Types};
use super::{arrow, block, call, members, metadata, names, text_types, types};
use crate::plan::{
    CaseKind, Ident, Plan, PlannedDefinition, PlannedField, PlannedUnion, PlannedUnionCase, ToldCase,
};

/// The name of the case for a tag that no sample had.
pub(super) const UNKNOWN: &str = "Unknown";

pub(super) fn union(sheet: &mut Sheet<'_>, id: TypeId, ident: &Ident, union: &PlannedUnion<'_>) -> Doc {
    sheet.needs.imports.extend(["System", "System.Text.Json", "System.Text.Json.Serialization"]);
    if sheet.options.library == Library::Newtonsoft {
        sheet.needs.imports.retain(|import| !import.starts_with("System.Text"));
        sheet.needs.imports.insert("Newtonsoft.Json");
    }
    let mut inside: Vec<Doc> = union
        .cases
        .iter()
        .filter_map(|case| {
            if is_direct(sheet, union, case) {
                return None;
            }
            let ty = types::slot(sheet, case.slot);
            Some(text_types::case(ident, case.ident.as_str(), &ty, sheet.options))
        })
        .collect();
    let tag = abstract_tag(sheet, union);
    if union.tag.is_some() {
        let any = types::any(sheet).name;
        let unknown = match &tag {
            Some((tag, name)) => unknown_with_tag(ident, &any, tag, name, sheet.options),
            None => text_types::case(ident, UNKNOWN, &any, sheet.options),
        };
        inside.push(lines([text("/// <summary>A kind that is not known yet.</summary>"), unknown]));
    }
    if let Some((tag, name)) = &tag {
        // Without the same key here, the library would write it twice.
        let key = (name.as_str() != tag.as_str())
            .then(|| text(format!("[JsonPropertyName({})]", names::LITERAL.of(tag.as_str()))));
        let declared = text(format!("public abstract string {name} {{ get; }}"));
        inside.insert(0, lines(key.into_iter().chain([declared])));
    }
    let read = match &union.tag {
        Some(tag) => read_by_tag(sheet, tag, union),
        None => read_by_kind(sheet, ident, union),
    };
    let converter = match sheet.options.library {
        Library::SystemTextJson => converter(ident, read, write(sheet, union)),
        Library::Newtonsoft => {
            let refuses_null = refuses_null(sheet.plan, id, union);
            newtonsoft_converter(ident, sheet.options, refuses_null, read, write(sheet, union))
        }
    };
    inside.push(converter);
    let kind = match (sheet.options.level, sheet.options.types) {
        (Level::Twelve, Types::Records) => "abstract record",
        (Level::Twelve, Types::Classes) | (Level::Seven, _) => "abstract class",
    };
    lines([
        text(format!("[JsonConverter(typeof({ident}.Converter))]")),
        members(text(format!("{} {kind} {ident}", sheet.options.access)), inside),
    ])
}

/// Whether a case is a record that derives from the union. Newtonsoft's converters hold for what derives as well,
/// so that there the record stands in a case of its own.
pub(super) fn is_direct(sheet: &Sheet<'_>, union: &PlannedUnion<'_>, case: &PlannedUnionCase<'_>) -> bool {
    sheet.options.library == Library::SystemTextJson
        && sheet.plan.has_direct_cases(union)
        && sheet.plan.direct_case(case).is_some()
}

/// What a union has of itself.
const TAKEN: &[&str] = &["Converter", UNKNOWN, "Value"];

/// The key of a union's tag and what it is called in all cases, which override it with what it always is.
fn abstract_tag<'p>(sheet: &Sheet<'p>, union: &PlannedUnion<'p>) -> Option<(&'p WireName, &'p Ident)> {
    let mut name = None;
    for case in &union.cases {
        let record = sheet.plan.direct_case(case).filter(|_| is_direct(sheet, union, case))?;
        let tag = record.tag_field()?;
        if *name.get_or_insert(&tag.ident) != &tag.ident {
            return None;
        }
    }
    union.tag.zip(name).filter(|(_, name)| !TAKEN.contains(&name.as_str()))
}

/// Whether a field is the tag that a case's union has as well.
pub(super) fn overrides_tag(sheet: &Sheet<'_>, id: TypeId, field: &PlannedField<'_>) -> bool {
    let union = sheet.plan.union_of(id).map(|union| &union.definition);
    match union {
        Some(PlannedDefinition::Union(union)) if field.fate.tag().is_some() => {
            abstract_tag(sheet, union).is_some()
        }
        _ => false,
    }
}

/// ```csharp
/// public sealed record Unknown(JsonElement Value) : Event
/// {
///     public override string Kind => Value.TryGetProperty("kind", out var tag) ? tag.ToString() : "";
/// }
/// ```
fn unknown_with_tag(ident: &Ident, any: &str, tag: &WireName, name: &Ident, options: &CSharpOptions) -> Doc {
    let key = names::LITERAL.of(tag.as_str());
    let (kind, parameter) = match options.types {
        Types::Records => ("record", "Value"),
        Types::Classes => ("class", "value"),
    };
    let value =
        (options.types == Types::Classes).then(|| text(format!("public {any} Value {{ get; }} = value;")));
    let choice = cat([
        text(format!("Value.TryGetProperty({key}, out var tag)")),
        nest(cat([line(), text("? tag.ToString()"), line(), text(": \"\";")])),
    ]);
    let read =
        cat([text(format!("public override string {name} =>")), group(nest(cat([line(), group(choice)])))]);
    let head = text(format!("public sealed {kind} {UNKNOWN}({any} {parameter}) : {ident}"));
    members(head, value.into_iter().chain([read]))
}

/// Whether a record derives from a union.
pub(super) fn base<'p>(sheet: &Sheet<'p>, id: jar_sprout_model::TypeId) -> Option<&'p Ident> {
    match sheet.options.library {
        Library::SystemTextJson => sheet.plan.union_of(id).map(|union| &union.ident),
        Library::Newtonsoft => None,
    }
}

fn read_by_tag(sheet: &mut Sheet<'_>, tag: &WireName, union: &PlannedUnion<'_>) -> Vec<Doc> {
    let key = names::LITERAL.of(tag.as_str());
    let (mut body, subject) = match sheet.options.library {
        Library::SystemTextJson => {
            let reads = "var element = JsonElement.ParseValue(ref reader);";
            let tag = group(cat([
                text(format!("var tag = element.TryGetProperty({key}, out var kind)")),
                nest(cat([line(), text("? kind.GetString()"), line(), text(": null;")])),
            ]));
            (vec![text(reads), tag], "tag".to_owned())
        }
        Library::Newtonsoft => {
            sheet.needs.imports.insert("Newtonsoft.Json.Linq");
            (
                vec![text("var token = JObject.Load(reader);")],
                format!(
                    "(string{})token[{key}]",
                    if sheet.options.level >= Level::Twelve { "?" } else { "" }
                ),
            )
        }
    };
    let (mut branches, mut arms) = (Vec::new(), Vec::new());
    let mut are_short = true;
    for case in &union.cases {
        let ty = types::slot(sheet, case.slot);
        let sure = types::sure(sheet, case.slot);
        let value = match sheet.options.library {
            Library::SystemTextJson => cat([metadata::from_element(sheet, &ty), text(sure)]),
            Library::Newtonsoft => text(format!("token.ToObject<{ty}>(serializer){sure}")),
        };
        let is_direct = is_direct(sheet, union, case);
        are_short &= is_direct;
        let value = if is_direct {
            value
        } else {
            let argument = cat([nest(cat([soft(), value])), soft(), text(")")]);
            cat([text(format!("new {}(", case.ident)), group(argument)])
        };
        let tag = names::LITERAL.of(case.tag.map_or("", WireName::as_str));
        arms.push(cat([text(format!("{tag} => ")), value.clone(), text(",")]));
        branches.push(branch(&format!("case {tag}:"), value));
    }
    let whole = match sheet.options.library {
        Library::SystemTextJson => "element",
        Library::Newtonsoft => "token",
    };
    if sheet.options.level >= Level::Twelve && are_short {
        arms.push(text(format!("_ => new {UNKNOWN}({whole}),")));
        body.push(cat([block(text(format!("return {subject} switch")), arms), text(";")]));
        return body;
    }
    branches.push(branch("default:", text(format!("new {UNKNOWN}({whole})"))));
    body.push(block(text(format!("switch ({subject})")), branches));
    body
}

fn read_by_kind(sheet: &mut Sheet<'_>, ident: &Ident, union: &PlannedUnion<'_>) -> Vec<Doc> {
    let cases = sheet.plan.by_kind(union);
    let has_integers = cases.iter().any(|told| told.kind == CaseKind::Integer);
    let is_keyed = sheet.plan.is_told_by_keys(union);
    let (objects, others): (Vec<_>, Vec<_>) =
        cases.iter().partition(|told| is_keyed && told.kind == CaseKind::Object);
    let mut branches = Vec::new();
    if !objects.is_empty() {
        branches.push(by_keys(sheet, &objects));
    }
    for ToldCase { kind, key: _, case } in others {
        let ty = types::slot(sheet, case.slot);
        let sure = types::sure(sheet, case.slot);
        let value = match sheet.options.library {
            Library::SystemTextJson => metadata::from_reader(sheet, &ty),
            Library::Newtonsoft => call(format!("serializer.Deserialize<{ty}>"), &["reader"]),
        };
        let value = cat([value, text(sure)]);
        let labels = tokens(*kind, has_integers, sheet.options.library);
        let labels = join(&hard(), labels.iter().map(|label| text(*label)));
        let value = group(cat([
            text(format!("return new {}(", case.ident)),
            nest(cat([soft(), value])),
            soft(),
            text(");"),
        ]));
        branches.push(cat([labels, nest(cat([hard(), value]))]));
    }
    if cases.iter().all(|told| told.kind != CaseKind::Any) {
        let throw = match sheet.options.library {
            Library::SystemTextJson => text("throw new JsonException();"),
            Library::Newtonsoft => {
                let message = format!("$\"not a {ident}: path '{{reader.Path}}'\"");
                cat([call("throw new JsonSerializationException", &[message.as_str()]), text(";")])
            }
        };
        branches.push(cat([text("default:"), nest(cat([hard(), throw]))]));
    }
    vec![block(text("switch (reader.TokenType)"), branches)]
}

/// What has a key is asked of the whole object, once it was read.
fn by_keys(sheet: &mut Sheet<'_>, objects: &[&ToldCase<'_, '_>]) -> Doc {
    let (label, load) = match sheet.options.library {
        Library::SystemTextJson => {
            ("case JsonTokenType.StartObject:", "var element = JsonElement.ParseValue(ref reader);")
        }
        Library::Newtonsoft => {
            sheet.needs.imports.insert("Newtonsoft.Json.Linq");
            ("case JsonToken.StartObject:", "var token = JObject.Load(reader);")
        }
    };
    let mut body = vec![text(load)];
    for ToldCase { key, case, .. } in objects {
        let ty = types::slot(sheet, case.slot);
        let sure = types::sure(sheet, case.slot);
        let value = match sheet.options.library {
            Library::SystemTextJson => cat([metadata::from_element(sheet, &ty), text(sure)]),
            Library::Newtonsoft => text(format!("token.ToObject<{ty}>(serializer){sure}")),
        };
        let made = group(cat([
            text(format!("return new {}(", case.ident)),
            nest(cat([soft(), value])),
            soft(),
            text(");"),
        ]));
        let has = |key: &WireName| {
            let key = names::LITERAL.of(key.as_str());
            match sheet.options.library {
                Library::SystemTextJson => format!("element.TryGetProperty({key}, out _)"),
                // The older ones have no other way to ask.
                Library::Newtonsoft => format!("token[{key}] != null"),
            }
        };
        body.push(match key {
            Some(key) => block(text(format!("if ({})", has(key))), [made]),
            None => made,
        });
    }
    let body = body.into_iter().map(|one| cat([hard(), one]));
    cat([text(label), nest(cat(body))])
}

fn tokens(kind: CaseKind, has_integers: bool, library: Library) -> &'static [&'static str] {
    match (library, kind) {
        (_, CaseKind::Any) => &["default:"],
        (Library::SystemTextJson, CaseKind::Object) => &["case JsonTokenType.StartObject:"],
        (Library::SystemTextJson, CaseKind::List) => &["case JsonTokenType.StartArray:"],
        (Library::SystemTextJson, CaseKind::Text) => &["case JsonTokenType.String:"],
        (Library::SystemTextJson, CaseKind::Boolean) => {
            &["case JsonTokenType.True:", "case JsonTokenType.False:"]
        }
        (Library::SystemTextJson, CaseKind::Integer) => {
            &["case JsonTokenType.Number when reader.TryGetInt64(out _):"]
        }
        (Library::SystemTextJson, CaseKind::Number) => &["case JsonTokenType.Number:"],
        (Library::Newtonsoft, CaseKind::Object) => &["case JsonToken.StartObject:"],
        (Library::Newtonsoft, CaseKind::List) => &["case JsonToken.StartArray:"],
        // Its reader takes texts that look like dates for dates.
        (Library::Newtonsoft, CaseKind::Text) => &["case JsonToken.String:", "case JsonToken.Date:"],
        (Library::Newtonsoft, CaseKind::Boolean) => &["case JsonToken.Boolean:"],
        (Library::Newtonsoft, CaseKind::Integer) => &["case JsonToken.Integer:"],
        (Library::Newtonsoft, CaseKind::Number) if has_integers => &["case JsonToken.Float:"],
        (Library::Newtonsoft, CaseKind::Number) => &["case JsonToken.Integer:", "case JsonToken.Float:"],
    }
}

fn branch(label: &str, value: Doc) -> Doc {
    let returned = cat([text("return "), value, text(";")]);
    cat([text(label.to_owned()), nest(cat([hard(), returned]))])
}

/// Writes what the case holds.
fn write(sheet: &mut Sheet<'_>, union: &PlannedUnion<'_>) -> Vec<Doc> {
    let CSharpOptions { library, level, has_context, .. } = *sheet.options;
    let is_any_direct = union.cases.iter().any(|case| is_direct(sheet, union, case));
    // None is what holds any value.
    let mut serialize = |value: &str, slot: Option<&Slot>| match (library, slot) {
        (Library::SystemTextJson, None) => text(format!("{value}.WriteTo(writer);")),
        (Library::SystemTextJson, Some(slot)) => {
            let ty = types::slot(sheet, slot);
            metadata::to_writer(sheet, value, &ty)
        }
        (Library::Newtonsoft, _) => text(format!("serializer.Serialize(writer, {value});")),
    };
    let unknown = union.tag.map(|_| (UNKNOWN, None));
    let cases = union.cases.iter().map(|case| (case.ident.as_str(), Some(case.slot)));
    let cases: Vec<(&str, Option<&Slot>)> = cases.chain(unknown).collect();
    if is_any_direct {
        let known =
            if has_context { "options.GetTypeInfo(value.GetType())" } else { "value.GetType(), options" };
        return vec![
            block(text(format!("if (value is {UNKNOWN} unknown)")), [serialize("unknown.Value", None)]),
            block(text("else"), [text(format!("JsonSerializer.Serialize(writer, value, {known});"))]),
        ];
    }
    match level {
        Level::Twelve => {
            let of_case = |(name, slot): (&str, Option<&Slot>)| {
                // A name that no keyword has, and no other variable of the method.
                let body = [serialize("held.Value", slot), text("break;")];
                let body = body.into_iter().map(|one| cat([hard(), one]));
                cat([text(format!("case {name} held:")), nest(cat(body))])
            };
            vec![block(text("switch (value)"), cases.into_iter().map(of_case))]
        }
        // Some compilers of that level have no patterns in `switch`.
        Level::Seven => {
            let of_case = |(at, (name, slot)): (usize, (&str, Option<&Slot>))| {
                let otherwise = if at == 0 { "" } else { "else " };
                let held = format!("(({name})value).Value");
                block(text(format!("{otherwise}if (value is {name})")), [serialize(&held, slot)])
            };
            cases.into_iter().enumerate().map(of_case).collect()
        }
    }
}

fn converter(ident: &Ident, read: Vec<Doc>, write: Vec<Doc>) -> Doc {
    let value = format!("{ident} value");
    members(
        text(format!("internal sealed class Converter : JsonConverter<{ident}>")),
        [
            block(
                call(
                    format!("public override {ident} Read"),
                    &["ref Utf8JsonReader reader", "Type typeToConvert", "JsonSerializerOptions options"],
                ),
                read,
            ),
            block(
                call(
                    "public override void Write",
                    &["Utf8JsonWriter writer", &value, "JsonSerializerOptions options"],
                ),
                write,
            ),
        ],
    )
}

/// Whether the converter for Newtonsoft refuses null: null stands nowhere in the place of the union, and an empty text
/// may, which the library would refuse in its place.
pub(super) fn refuses_null(plan: &Plan<'_>, id: TypeId, union: &PlannedUnion<'_>) -> bool {
    let may_be_text = plan.by_kind(union).iter().any(|told| told.kind == CaseKind::Text);
    union.tag.is_none() && may_be_text && !plan.is_ever_null(id)
}

fn newtonsoft_converter(
    ident: &Ident,
    options: &CSharpOptions,
    refuses_null: bool,
    read: Vec<Doc>,
    write: Vec<Doc>,
) -> Doc {
    let object = if options.level >= Level::Twelve { "object?" } else { "object" };
    let (existing, value) = (format!("{object} existingValue"), format!("{object} value"));
    let is_null =
        cat([block(text("if (reader.TokenType == JsonToken.Null)"), [text("return null;")]), hard()]);
    let read = (!refuses_null).then_some(is_null).into_iter().chain(read);
    members(
        text("internal sealed class Converter : JsonConverter"),
        [
            arrow(
                call("public override bool CanConvert", &["Type objectType"]),
                call(format!("typeof({ident}).IsAssignableFrom"), &["objectType"]),
            ),
            block(
                call(
                    format!("public override {object} ReadJson"),
                    &["JsonReader reader", "Type objectType", &existing, "JsonSerializer serializer"],
                ),
                read,
            ),
            block(
                call(
                    "public override void WriteJson",
                    &["JsonWriter writer", &value, "JsonSerializer serializer"],
                ),
                write,
            ),
        ],
    )
}
