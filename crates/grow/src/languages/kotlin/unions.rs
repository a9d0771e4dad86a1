//! Unions in Kotlin: sealed interfaces, with a serializer that looks at the JSON to choose the case.

use jar_sprout_layout::{
    Doc, braces, cat, flat_length, group, hard, join, last_comma, line, lines, nest, paragraphs, soft, text,
};
use jar_sprout_model::{Type, WireName};

use super::Sheet;
use super::settings::Library;
use super::{names, parcels, types, value_class};
use crate::plan::{CaseKind, Ident, PlannedField, PlannedType, PlannedUnion, PlannedUnionCase, ToldCase};
use crate::spell::Needs;
use crate::spell::plain_copies::import_plain;

/// The name of the case for a tag that no sample had.
pub(super) const UNKNOWN: &str = "Unknown";

pub(super) fn union(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, union: &PlannedUnion<'_>) -> Doc {
    let ident = &ty.ident;
    let PlannedUnion { tag, cases, unknown: _ } = union;
    let inside = match tag {
        Some(_) => paragraphs(shared_properties(sheet, ty).into_iter().chain([unknown_case(sheet, ident)])),
        None => wrapper_cases(sheet, ident, cases),
    };
    let interface = interface(sheet, ident, inside);
    if sheet.options.library == Library::None {
        return interface;
    }
    sheet.needs.imports.extend([
        "kotlinx.serialization.DeserializationStrategy",
        "kotlinx.serialization.Serializable",
        "kotlinx.serialization.json.JsonContentPolymorphicSerializer",
        "kotlinx.serialization.json.JsonElement",
    ]);
    let choice = match tag {
        Some(tag) => choose_by_tag(sheet, ident, tag, cases),
        None => choose_by_kind(sheet, ident, union),
    };
    let interface = lines([text(format!("@Serializable(with = {ident}Serializer::class)")), interface]);
    paragraphs([interface, braces(serializer_header(ident), [choice])])
}

/// `sealed interface Event { … }`
pub(super) fn interface(sheet: &mut Sheet<'_>, ident: &Ident, inside: Doc) -> Doc {
    let supertype = parcels::supertype(sheet);
    braces(format!("sealed interface {ident}{supertype}"), [inside])
}

/// `val id: String? get() = null`, for what all cases have: of a kind that is not known yet, nothing is known.
pub(super) fn shared_properties(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>) -> Option<Doc> {
    let plan = sheet.plan;
    let property = |field: &PlannedField<'_>| {
        let mut own = Needs::default();
        let ty = types::non_null(&mut sheet.noting(&mut own), field.slot);
        import_plain(&own, sheet.needs);
        cat([text(format!("val {}: ", field.ident)), ty, text("? get() = null")])
    };
    let shared: Vec<Doc> = plan.shared_fields(ty.id).into_iter().map(property).collect();
    (!shared.is_empty()).then(|| lines(shared))
}

/// `object QueenSerializer : JsonContentPolymorphicSerializer<Queen>(Queen::class)`
fn serializer_header(ident: &Ident) -> Doc {
    let class = cat([soft(), text(format!("{ident}::class")), last_comma()]);
    let open = text(format!("JsonContentPolymorphicSerializer<{ident}>("));
    let base = nest(cat([line(), group(cat([open, nest(class), soft(), text(")")]))]));
    group(cat([text(format!("object {ident}Serializer :")), base]))
}

/// Holds the whole object of a tag that is not known yet.
fn unknown_case(sheet: &mut Sheet<'_>, ident: &Ident) -> Doc {
    let rest = text(format!(" : {ident}"));
    let parcels = parcels::annotations_of_unknown(sheet);
    if sheet.options.library == Library::None {
        return value_class(UNKNOWN, types::any_object(sheet), rest, parcels, sheet.options);
    }
    sheet.needs.imports.insert("kotlinx.serialization.json.JsonObject");
    value_class(UNKNOWN, text("JsonObject"), rest, parcels, sheet.options)
}

/// Each kind of value in a class of its own, which is not there at run time.
fn wrapper_cases(sheet: &mut Sheet<'_>, ident: &Ident, cases: &[PlannedUnionCase<'_>]) -> Doc {
    let wrappers = cases.iter().map(|PlannedUnionCase { ident: case, tag: _, key: _, slot }| {
        let parcels = parcels::annotations(sheet, [&slot.ty]);
        let ty = types::slot(sheet, slot);
        value_class(case.as_str(), ty, text(format!(" : {ident}")), parcels, sheet.options)
    });
    let wrappers: Vec<Doc> = wrappers.collect();
    paragraphs(wrappers)
}

fn choose_by_tag(
    sheet: &mut Sheet<'_>,
    ident: &Ident,
    tag: &WireName,
    cases: &[PlannedUnionCase<'_>],
) -> Doc {
    sheet.needs.imports.extend([
        "kotlinx.serialization.json.contentOrNull",
        "kotlinx.serialization.json.jsonObject",
        "kotlinx.serialization.json.jsonPrimitive",
    ]);
    let branches = cases.iter().map(|case| {
        let tag = names::LITERAL.of(case.tag.map_or("", WireName::as_str));
        let class = match &case.slot.ty {
            Type::Named(id) => sheet.plan.ident(*id).to_string(),
            Type::Any
            | Type::Scalar(_)
            | Type::Constant(_)
            | Type::List(_)
            | Type::Map(_)
            | Type::Tuple(_) => {
                format!("{ident}.{UNKNOWN}")
            }
        };
        serializer(&tag, &class)
    });
    let unknown = serializer("else", &format!("{ident}.{UNKNOWN}"));
    let key = names::LITERAL.of(tag.as_str());
    let subject = format!("element.jsonObject[{key}]?.jsonPrimitive?.contentOrNull");
    selection(ident, &subject, branches.chain([unknown]).collect())
}

fn choose_by_kind(sheet: &mut Sheet<'_>, ident: &Ident, union: &PlannedUnion<'_>) -> Doc {
    let cases = sheet.plan.by_kind(union);
    let last = cases.len().saturating_sub(1);
    let is_type = |kind: CaseKind| matches!(kind, CaseKind::Object | CaseKind::List);
    let asks_types =
        !sheet.plan.is_told_by_keys(union) && cases.iter().take(last).all(|told| is_type(told.kind));
    // Where only types are asked for, they are asked of a subject.
    let (subject, given) = if asks_types { ("element", "element ") } else { ("", "") };
    let branches = cases.iter().enumerate().map(|(at, ToldCase { kind, key, case })| {
        let condition = match key {
            Some(key) => {
                let condition = condition(*kind, sheet.needs);
                format!("{condition} && {} in element", names::LITERAL.of(key.as_str()))
            }
            None if at == last => "else".to_owned(),
            None => {
                let condition = condition(*kind, sheet.needs);
                condition.strip_prefix(given).unwrap_or(condition).to_owned()
            }
        };
        serializer(&condition, &format!("{ident}.{}", case.ident))
    });
    let branches = branches.collect();
    selection(ident, subject, branches)
}

/// What tells a kind of value from those that come after it.
fn condition(kind: CaseKind, needs: &mut Needs) -> &'static str {
    let (imports, condition): (&[&'static str], _) = match kind {
        CaseKind::Object => (&["kotlinx.serialization.json.JsonObject"], "element is JsonObject"),
        CaseKind::List => (&["kotlinx.serialization.json.JsonArray"], "element is JsonArray"),
        CaseKind::Text => (&["kotlinx.serialization.json.jsonPrimitive"], "element.jsonPrimitive.isString"),
        CaseKind::Boolean => (
            &["kotlinx.serialization.json.booleanOrNull", "kotlinx.serialization.json.jsonPrimitive"],
            "element.jsonPrimitive.booleanOrNull != null",
        ),
        CaseKind::Integer => (
            &["kotlinx.serialization.json.jsonPrimitive", "kotlinx.serialization.json.longOrNull"],
            "element.jsonPrimitive.longOrNull != null",
        ),
        CaseKind::Number => (
            &["kotlinx.serialization.json.doubleOrNull", "kotlinx.serialization.json.jsonPrimitive"],
            "element.jsonPrimitive.doubleOrNull != null",
        ),
        CaseKind::Any => (&[], "true"),
    };
    needs.imports.extend(imports);
    condition
}

/// One branch of a `when`: its condition, and what is chosen.
pub(super) type Branch = (String, Doc);

/// A `when` so many columns from the left. Where one branch needs braces, its linter wants them on all.
pub(super) fn when(subject: &str, branches: Vec<Branch>, indent: usize) -> Doc {
    let open = if subject.is_empty() { "when".to_owned() } else { format!("when ({subject})") };
    let inside = indent + INDENT;
    let width = |(condition, chosen): &Branch| {
        inside + condition.chars().count() + " -> ".len() + flat_length(chosen)
    };
    let needs_braces = branches.iter().any(|branch| width(branch) > super::ABOUT.style.width);
    let branch = |(condition, chosen): Branch| {
        if needs_braces {
            braces(format!("{condition} ->"), [chosen])
        } else {
            cat([text(format!("{condition} -> ")), chosen])
        }
    };
    let between = if needs_braces { cat([hard(), hard()]) } else { hard() };
    let branches = join(&between, branches.into_iter().map(branch));
    braces(open, [branches])
}

/// Columns of one level.
const INDENT: usize = 4;

fn serializer(condition: &str, class: &str) -> Branch {
    (condition.to_owned(), text(format!("{class}.serializer()")))
}

fn selection(ident: &Ident, subject: &str, branches: Vec<Branch>) -> Doc {
    let parameter = nest(cat([soft(), text("element: JsonElement"), last_comma()]));
    let header = group(cat([
        text("override fun selectDeserializer("),
        parameter,
        soft(),
        text(format!("): DeserializationStrategy<{ident}> =")),
    ]));
    cat([header, nest(cat([hard(), when(subject, branches, 2 * INDENT)]))])
}
