//! Unions in Kotlin: sealed interfaces, with a serializer that looks at the JSON to choose the case.

use jar_sprout_layout::{Doc, cat, hard, join, lines, nest, text};
use jar_sprout_model::{Scalar, Slot, Type, WireName};

use super::{names, types, value_class};
use crate::code::Needs;
use crate::plan::{Ident, Plan, PlannedDefinition, PlannedUnion, PlannedUnionCase};

/// The name of the case for a tag that no sample had.
const UNKNOWN: &str = "Unknown";

pub(super) fn union(plan: &Plan<'_>, ident: &Ident, union: &PlannedUnion<'_>, needs: &mut Needs) -> Doc {
    needs.imports.extend([
        "kotlinx.serialization.DeserializationStrategy",
        "kotlinx.serialization.Serializable",
        "kotlinx.serialization.json.JsonContentPolymorphicSerializer",
        "kotlinx.serialization.json.JsonElement",
    ]);
    let PlannedUnion { tag, cases } = union;
    let (wrappers, choice) = match tag {
        Some(tag) => (unknown_case(ident, needs), choose_by_tag(plan, ident, tag, cases, needs)),
        None => (wrapper_cases(plan, ident, cases, needs), choose_by_kind(plan, ident, cases, needs)),
    };
    let interface = lines([
        text(format!("@Serializable(with = {ident}Serializer::class)")),
        cat([text(format!("sealed interface {ident} {{")), nest(cat([hard(), wrappers])), hard(), text("}")]),
    ]);
    let header =
        format!("object {ident}Serializer : JsonContentPolymorphicSerializer<{ident}>({ident}::class) {{");
    let serializer = cat([text(header), nest(cat([hard(), choice])), hard(), text("}")]);
    join(&cat([hard(), hard()]), [interface, serializer])
}

/// Holds the whole object of a tag that is not known yet.
fn unknown_case(ident: &Ident, needs: &mut Needs) -> Doc {
    needs.imports.insert("kotlinx.serialization.json.JsonObject");
    value_class(UNKNOWN, text("JsonObject"), text(format!(" : {ident}")))
}

/// Each kind of value in a class of its own, which is not there at run time.
fn wrapper_cases(plan: &Plan<'_>, ident: &Ident, cases: &[PlannedUnionCase<'_>], needs: &mut Needs) -> Doc {
    let wrappers = cases.iter().map(|PlannedUnionCase { ident: case, tag: _, slot }| {
        value_class(case.as_str(), types::slot(plan, slot, needs), text(format!(" : {ident}")))
    });
    let wrappers: Vec<Doc> = wrappers.collect();
    join(&cat([hard(), hard()]), wrappers)
}

fn choose_by_tag(
    plan: &Plan<'_>,
    ident: &Ident,
    tag: &WireName,
    cases: &[PlannedUnionCase<'_>],
    needs: &mut Needs,
) -> Doc {
    needs.imports.extend([
        "kotlinx.serialization.json.contentOrNull",
        "kotlinx.serialization.json.jsonObject",
        "kotlinx.serialization.json.jsonPrimitive",
    ]);
    let branches = cases.iter().map(|case| {
        let tag = names::LITERAL.of(case.tag.map_or("", WireName::as_str));
        let class = match &case.slot.ty {
            Type::Named(id) => plan.ident(*id).to_string(),
            Type::Any
            | Type::Scalar(_)
            | Type::Constant(_)
            | Type::List(_)
            | Type::Map(_)
            | Type::Tuple(_) => {
                format!("{ident}.{UNKNOWN}")
            }
        };
        text(format!("{tag} -> {class}.serializer()"))
    });
    let unknown = text(format!("else -> {ident}.{UNKNOWN}.serializer()"));
    let key = names::LITERAL.of(tag.as_str());
    let subject = format!("when (element.jsonObject[{key}]?.jsonPrimitive?.contentOrNull) {{");
    selection(ident, &subject, branches.chain([unknown]).collect())
}

fn choose_by_kind(plan: &Plan<'_>, ident: &Ident, cases: &[PlannedUnionCase<'_>], needs: &mut Needs) -> Doc {
    let last = cases.len().saturating_sub(1);
    let branches = cases.iter().enumerate().map(|(at, PlannedUnionCase { ident: case, tag: _, slot })| {
        let condition = if at == last { "else" } else { condition(plan, slot, needs) };
        text(format!("{condition} -> {ident}.{case}.serializer()"))
    });
    let branches = branches.collect();
    selection(ident, "when {", branches)
}

/// What tells a kind of value from the others.
fn condition(plan: &Plan<'_>, slot: &Slot, needs: &mut Needs) -> &'static str {
    let (imports, condition): (&[&'static str], _) = match &slot.ty {
        Type::Any => return "true",
        Type::Constant(_) => TEXT,
        Type::Scalar(scalar) => match scalar {
            Scalar::Boolean => BOOLEAN,
            Scalar::Integer(_) => INTEGER,
            Scalar::Float => NUMBER,
            Scalar::Text
            | Scalar::DateTime
            | Scalar::LocalDateTime
            | Scalar::Date
            | Scalar::Time
            | Scalar::Uuid
            | Scalar::Uri => TEXT,
        },
        Type::List(_) | Type::Tuple(_) => LIST,
        Type::Map(_) => OBJECT,
        Type::Named(id) => match &plan.get(*id).definition {
            PlannedDefinition::Enumeration(_) => TEXT,
            PlannedDefinition::Record(_) | PlannedDefinition::Union(_) => OBJECT,
        },
    };
    needs.imports.extend(imports);
    condition
}

/// What a condition imports, and how it is written.
type Condition = (&'static [&'static str], &'static str);

const TEXT: Condition =
    (&["kotlinx.serialization.json.JsonPrimitive"], "element is JsonPrimitive && element.isString");
const BOOLEAN: Condition = (
    &["kotlinx.serialization.json.JsonPrimitive", "kotlinx.serialization.json.booleanOrNull"],
    "element is JsonPrimitive && element.booleanOrNull != null",
);
const INTEGER: Condition = (
    &["kotlinx.serialization.json.JsonPrimitive", "kotlinx.serialization.json.longOrNull"],
    "element is JsonPrimitive && !element.isString && element.longOrNull != null",
);
const NUMBER: Condition = (
    &["kotlinx.serialization.json.JsonPrimitive", "kotlinx.serialization.json.doubleOrNull"],
    "element is JsonPrimitive && !element.isString && element.doubleOrNull != null",
);
const LIST: Condition = (&["kotlinx.serialization.json.JsonArray"], "element is JsonArray");
const OBJECT: Condition = (&["kotlinx.serialization.json.JsonObject"], "element is JsonObject");

fn selection(ident: &Ident, subject: &str, branches: Vec<Doc>) -> Doc {
    let header =
        format!("override fun selectDeserializer(element: JsonElement): DeserializationStrategy<{ident}> =");
    let branches = cat(branches.into_iter().map(|branch| cat([hard(), branch])));
    let choice = cat([text(subject.to_owned()), nest(branches), hard(), text("}")]);
    cat([text(header), nest(cat([hard(), choice]))])
}
