//! Unions in Kotlin: sealed interfaces, with a serializer that looks at the JSON to choose the case.

use jar_sprout_layout::{Doc, cat, hard, join, lines, nest, text};
use jar_sprout_model::{Scalar, Slot, Type, WireName};

use super::{names, types};
use crate::code::Needs;
use crate::plan::{Ident, Plan, PlannedUnion, PlannedUnionCase};

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
        None => (wrapper_cases(plan, ident, cases, needs), choose_by_kind(ident, cases, needs)),
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
    wrapper(ident, &text(UNKNOWN), text("JsonObject"))
}

/// Each kind of value in a class of its own, which is not there at run time.
fn wrapper_cases(plan: &Plan<'_>, ident: &Ident, cases: &[PlannedUnionCase<'_>], needs: &mut Needs) -> Doc {
    let wrappers = cases.iter().map(|PlannedUnionCase { ident: case, tag: _, slot }| {
        wrapper(ident, &text(case.to_string()), types::slot(plan, slot, needs))
    });
    let wrappers: Vec<Doc> = wrappers.collect();
    join(&cat([hard(), hard()]), wrappers)
}

fn wrapper(union: &Ident, case: &Doc, ty: Doc) -> Doc {
    let class =
        cat([text("value class "), case.clone(), text("(val value: "), ty, text(format!(") : {union}"))]);
    lines([text("@Serializable"), text("@JvmInline"), class])
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
            Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::List(_) | Type::Map(_) => {
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

fn choose_by_kind(ident: &Ident, cases: &[PlannedUnionCase<'_>], needs: &mut Needs) -> Doc {
    let last = cases.len().saturating_sub(1);
    let branches = cases.iter().enumerate().map(|(at, PlannedUnionCase { ident: case, tag: _, slot })| {
        let condition = if at == last { "else" } else { condition(slot, needs) };
        text(format!("{condition} -> {ident}.{case}.serializer()"))
    });
    let branches = branches.collect();
    selection(ident, "when {", branches)
}

/// What tells a kind of value from the others.
fn condition(slot: &Slot, needs: &mut Needs) -> &'static str {
    let (import, condition) = match &slot.ty {
        Type::Any => return "true",
        Type::Scalar(Scalar::Text) | Type::Constant(_) => {
            ("kotlinx.serialization.json.JsonPrimitive", "element is JsonPrimitive && element.isString")
        }
        Type::Scalar(Scalar::Boolean) => {
            needs.imports.insert("kotlinx.serialization.json.booleanOrNull");
            (
                "kotlinx.serialization.json.JsonPrimitive",
                "element is JsonPrimitive && element.booleanOrNull != null",
            )
        }
        Type::Scalar(Scalar::Integer(_)) => {
            needs.imports.insert("kotlinx.serialization.json.longOrNull");
            (
                "kotlinx.serialization.json.JsonPrimitive",
                "element is JsonPrimitive && element.longOrNull != null",
            )
        }
        Type::Scalar(Scalar::Float) => {
            needs.imports.insert("kotlinx.serialization.json.doubleOrNull");
            (
                "kotlinx.serialization.json.JsonPrimitive",
                "element is JsonPrimitive && element.doubleOrNull != null",
            )
        }
        Type::List(_) => ("kotlinx.serialization.json.JsonArray", "element is JsonArray"),
        Type::Map(_) | Type::Named(_) => ("kotlinx.serialization.json.JsonObject", "element is JsonObject"),
    };
    needs.imports.insert(import);
    condition
}

fn selection(ident: &Ident, subject: &str, branches: Vec<Doc>) -> Doc {
    let header =
        format!("override fun selectDeserializer(element: JsonElement): DeserializationStrategy<{ident}> =");
    let branches = cat(branches.into_iter().map(|branch| cat([hard(), branch])));
    let choice = cat([text(subject.to_owned()), nest(branches), hard(), text("}")]);
    cat([text(header), nest(cat([hard(), choice]))])
}
