//! Unions in Dart: sealed classes.

use jar_sprout_layout::{Doc, cat, group, hard, line, lines, members, nest, paragraphs, text};
use jar_sprout_model::{Type, WireName};

use super::Sheet;
use super::types::Json;
use super::values::equality;
use super::{names, types};
use crate::plan::{
    CaseKind, Ident, Plan, PlannedField, PlannedType, PlannedUnion, PlannedUnionCase, ToldCase,
};

/// What a union is read from, once a pattern or a parameter has told its type.
const KNOWN: Json<'static> = Json { text: "json", is_cast: true };

pub(super) fn union(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, union: &PlannedUnion<'_>) -> Doc {
    let ident = &ty.ident;
    let mut declarations = vec![match &union.tag {
        Some(tag) => by_tag(sheet, ty, tag, union),
        None => by_kind(sheet.plan, ident, union),
    }];
    let is_direct = sheet.plan.has_direct_cases(union);
    for case in union.cases.iter().filter(|_| !is_direct) {
        declarations.push(holder(sheet, ident, case, union.tag.is_some()));
    }
    if let Some(unknown) = &union.unknown {
        let held = Held { ty: "Map<String, dynamic>", is: &Type::Any, written: text("value") };
        let class = value_class(sheet, ident, unknown, held, "Map<String, dynamic>");
        declarations.push(lines([text("/// A kind that is not known yet."), class]));
    }
    paragraphs(declarations)
}

fn by_tag(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, tag: &WireName, union: &PlannedUnion<'_>) -> Doc {
    let (plan, ident) = (sheet.plan, &ty.ident);
    let is_direct = plan.has_direct_cases(union);
    let mut branches: Vec<Doc> = Vec::new();
    for case in &union.cases {
        let tag = names::LITERAL.of(case.tag.map_or("", WireName::as_str));
        let value = types::read(plan, &case.slot.ty, false, KNOWN, 0);
        let value = if is_direct { value } else { wrapped(&case.ident, &case.slot.ty, value) };
        branches.push(branch(&tag, value));
    }
    let unknown = union.unknown.as_ref().map_or_else(String::new, ToString::to_string);
    branches.push(branch("_", text(format!("{unknown}(json)"))));
    let key = names::LITERAL.of(tag.as_str());
    // Of a kind that is not known yet, nothing is known.
    let getter = |field: &PlannedField<'_>| {
        let ty = types::or_null(&field.slot.ty, types::non_null(sheet, &field.slot.ty));
        text(format!("{ty} get {} => null;", field.ident))
    };
    let shared: Vec<Doc> = plan.shared_fields(ty.id).into_iter().map(getter).collect();
    let subject = format!("json[{key}]");
    sealed(ident, "Map<String, dynamic> json", &subject, branches, "Map<String, dynamic>", shared)
}

fn by_kind(plan: &Plan<'_>, ident: &Ident, union: &PlannedUnion<'_>) -> Doc {
    let cases = plan.by_kind(union);
    let mut branches = Vec::new();
    for ToldCase { kind, key, case } in &cases {
        let pattern = match kind {
            CaseKind::Object => "Map<String, dynamic>()",
            CaseKind::List => "List<dynamic>()",
            CaseKind::Text => "String()",
            CaseKind::Boolean => "bool()",
            CaseKind::Integer => "int()",
            CaseKind::Number => "num()",
            CaseKind::Any => "_",
        };
        let pattern = match key {
            Some(key) => format!("{pattern} when json.containsKey({})", names::LITERAL.of(key.as_str())),
            None => pattern.to_owned(),
        };
        let value = types::read(plan, &case.slot.ty, false, KNOWN, 0);
        branches.push(branch(&pattern, wrapped(&case.ident, &case.slot.ty, value)));
    }
    if cases.iter().all(|told| told.kind != CaseKind::Any) {
        branches
            .push(branch("_", text(format!("throw FormatException('unexpected kind of {ident}', json)"))));
    }
    sealed(ident, "Object? json", "json", branches, "Object?", Vec::new())
}

/// A value in the class of its case.
fn wrapped(case: &Ident, ty: &Type, value: Doc) -> Doc {
    if types::opens_itself(ty) {
        return cat([text(format!("{case}(")), value, text(")")]);
    }
    types::call(case.to_string(), value)
}

fn branch(pattern: &str, value: Doc) -> Doc {
    cat([text(format!("{pattern} => ")), value, text(",")])
}

fn sealed(
    ident: &Ident,
    parameter: &str,
    subject: &str,
    branches: Vec<Doc>,
    result: &str,
    shared: Vec<Doc>,
) -> Doc {
    let branches = nest(cat(branches.into_iter().map(|branch| cat([hard(), branch]))));
    let head = text(format!("factory {ident}.fromJson({parameter}) => switch ({subject}) {{"));
    members(
        format!("sealed class {ident}"),
        [text(format!("const {ident}();")), cat([head, branches, hard(), text("};")])]
            .into_iter()
            .chain((!shared.is_empty()).then(|| lines(shared)))
            .chain([text(format!("{result} toJson();"))]),
    )
}

/// What stands around the value of a case.
fn holder(sheet: &mut Sheet<'_>, union: &Ident, case: &PlannedUnionCase<'_>, is_tagged: bool) -> Doc {
    let ty = types::slot(sheet, case.slot);
    let written = types::write(sheet.plan, &case.slot.ty, "value", 0).unwrap_or_else(|| text("value"));
    let held = Held { ty: &ty, is: &case.slot.ty, written };
    let result = if is_tagged { "Map<String, dynamic>" } else { "Object?" };
    value_class(sheet, union, &case.ident, held, result)
}

/// The value that stands in a class of its own.
struct Held<'h> {
    /// Its type as it is spelled.
    ty: &'h str,
    is: &'h Type,
    /// What is written of it.
    written: Doc,
}

fn value_class(sheet: &mut Sheet<'_>, union: &Ident, name: &Ident, held: Held<'_>, result: &str) -> Doc {
    let Held { ty, is, written } = held;
    let to_json =
        group(cat([text(format!("{result} toJson() =>")), nest(nest(cat([line(), written, text(";")])))]));
    let mut inside = vec![
        text(format!("const {name}(this.value);")),
        text(format!("final {ty} value;")),
        lines([text("@override"), to_json]),
    ];
    if sheet.options.has_equality {
        inside.extend(equality(sheet.options, name.as_str(), &[("value", is)], sheet.needs));
    }
    members(format!("final class {name} extends {union}"), inside)
}
