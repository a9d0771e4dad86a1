//! Plain classes beside those of the wire.

use jar_sprout_layout::{Doc, cat, group, hard, join, line, lines, nest, text};
use jar_sprout_model::{Slot, Type};

use super::Sheet;
use super::{ABOUT, constructor, listed, members, types, values};
use crate::plan::{Ident, Plan, PlannedField, PlannedType, PlannedUnion};
use crate::spell::docs;
use crate::spell::plain_copies::{self as twins, Sides, Turn, is_collection, may_be_null, turn};

/// The declaration of a plain type, with the factory that makes it.
pub(super) fn declare(sheet: &mut Sheet<'_>, twin: &PlannedType<'_>, wire: &PlannedType<'_>) -> Doc {
    match twins::sides(twin, wire) {
        Sides::Records(fields, sources) => record(sheet, twin, wire, (fields, sources)),
        Sides::Unions(union, source) => self::union(sheet, twin, wire, (union, source)),
    }
}

fn record(
    sheet: &mut Sheet<'_>,
    twin: &PlannedType<'_>,
    wire: &PlannedType<'_>,
    (fields, sources): (&[PlannedField<'_>], &[PlannedField<'_>]),
) -> Doc {
    let ident = &twin.ident;
    let head = match sheet.plan.union_of(twin.id) {
        Some(union) => format!("class {ident} extends {}", union.ident),
        None => format!("class {ident}"),
    };
    if fields.is_empty() {
        let made = text(format!("const {ident}.fromWire({} _);", wire.ident));
        return members(head, [text(format!("const {ident}();")), made]);
    }
    let declared = fields.iter().map(|field| {
        let declaration = text(format!("final {} {};", types::slot(sheet, field.slot), field.ident));
        (ABOUT.comment.of(field.docs, 2), declaration)
    });
    let declared = docs::spaced(declared.collect::<Vec<_>>());
    let arguments = twins::pairs(fields, sources).map(|(field, source)| {
        let value = format!("wire.{}", source.ident);
        let made = of_field(sheet.plan, source, &value);
        cat([text(format!("{}: ", field.ident)), made])
    });
    let factory = text(format!("factory {ident}.fromWire({} wire) => ", wire.ident));
    let factory = cat([factory, listed(format!("{ident}("), arguments, ");")]);
    let mut inside = vec![constructor(sheet.plan, twin, fields), factory, declared];
    if sheet.options.has_copy_with {
        inside.extend(values::copy_with(sheet, twin, fields));
    }
    if sheet.options.has_equality {
        let parts: Vec<(&str, &Type)> =
            fields.iter().map(|field| (field.ident.as_str(), &field.slot.ty)).collect();
        inside.extend(values::equality(ident.as_str(), &parts, sheet.needs));
    }
    members(head, inside)
}

/// What a field of a twin is made of.
fn of_field(plan: &Plan<'_>, source: &PlannedField<'_>, value: &str) -> Doc {
    let turn = turn(plan, &source.slot.ty);
    match (may_be_null(source), is_collection(source)) {
        (true, true) => {
            let nothing = if matches!(source.slot.ty, Type::Map(_)) { "const {}" } else { "const []" };
            match turn {
                Turn::AsIs => text(format!("{value} ?? {nothing}")),
                Turn::Made(_) | Turn::Items(..) => made(&turn, &format!("{value} ?? {nothing}"), 0),
                Turn::Values(..) => made(&turn, &format!("({value} ?? {nothing})"), 0),
            }
        }
        (true, false) => or_null(&turn, value, 0),
        (false, _) => made(&turn, value, 0),
    }
}

fn or_null(turn: &Turn<'_>, value: &str, depth: usize) -> Doc {
    if let Turn::AsIs = turn {
        return text(value.to_owned());
    }
    // A variable of the loop is known not to be null once it was asked.
    let sure = if value.contains('.') { format!("{value}!") } else { value.to_owned() };
    let choice = cat([line(), text("? null"), line(), text(": "), made(turn, &sure, depth)]);
    group(cat([text(format!("{value} == null")), nest(nest(choice))]))
}

/// The expression for what a value of the wire becomes, which is not null.
fn made(turn: &Turn<'_>, value: &str, depth: usize) -> Doc {
    let held = |turn: &Turn<'_>, is_null: bool, value: &str| {
        if is_null { or_null(turn, value, depth + 1) } else { made(turn, value, depth + 1) }
    };
    match turn {
        Turn::AsIs => text(value.to_owned()),
        Turn::Made(twin) => types::call(format!("{}.fromWire", twin.ident), text(value.to_owned())),
        Turn::Items(item, is_null) => {
            let name = types::numbered("item", depth);
            let item = held(item, *is_null, &name);
            types::collected("[", format!("for (final {name} in {value})"), item, "]")
        }
        Turn::Values(of, is_null) => {
            let name = types::numbered("entry", depth);
            let of = held(of, *is_null, &format!("{name}.value"));
            let entry = cat([text(format!("{name}.key: ")), of]);
            types::collected("{", format!("for (final {name} in {value}.entries)"), entry, "}")
        }
    }
}

fn union(
    sheet: &mut Sheet<'_>,
    twin: &PlannedType<'_>,
    wire: &PlannedType<'_>,
    (union, source): (&PlannedUnion<'_>, &PlannedUnion<'_>),
) -> Doc {
    let is_direct = sheet.plan.has_direct_cases(union);
    let ident = &twin.ident;
    let mut classes = Vec::new();
    let mut branches = Vec::new();
    for (case, from) in union.cases.iter().zip(&source.cases) {
        let turn = turn(sheet.plan, &from.slot.ty);
        if is_direct {
            let class = from.slot.ty.named().map(|id| sheet.plan.ident(id).to_string()).collect::<String>();
            branches.push(branch(&format!("{class}()"), made(&turn, "wire", 0)));
            continue;
        }
        let value = if from.slot.nullable { or_null(&turn, "value", 0) } else { made(&turn, "value", 0) };
        let value = types::call(case.ident.to_string(), value);
        branches.push(branch(&format!("{}(:final value)", from.ident), value));
        classes.push(holder(sheet, ident, &case.ident, case.slot));
    }
    if let (Some(unknown), Some(from)) = (&union.unknown, &source.unknown) {
        branches.push(branch(&format!("{from}(:final value)"), text(format!("{unknown}(value)"))));
        let inside =
            [text(format!("const {unknown}(this.value);")), text("final Map<String, dynamic> value;")];
        let class = members(format!("class {unknown} extends {ident}"), inside);
        classes.push(lines([text("/// A kind that is not known yet."), class]));
    }
    let branches = nest(cat(branches.into_iter().map(|branch| cat([hard(), branch]))));
    let head = text(format!("factory {ident}.fromWire({} wire) => switch (wire) {{", wire.ident));
    let factory = cat([head, branches, hard(), text("};")]);
    let sealed = members(format!("sealed class {ident}"), [text(format!("const {ident}();")), factory]);
    join(&cat([hard(), hard()]), [sealed].into_iter().chain(classes))
}

fn branch(pattern: &str, value: Doc) -> Doc {
    cat([text(format!("{pattern} => ")), value, text(",")])
}

fn holder(sheet: &mut Sheet<'_>, union: &Ident, case: &Ident, slot: &Slot) -> Doc {
    let mut inside = vec![
        text(format!("const {case}(this.value);")),
        text(format!("final {} value;", types::slot(sheet, slot))),
    ];
    if sheet.options.has_equality {
        inside.extend(values::equality(case.as_str(), &[("value", &slot.ty)], sheet.needs));
    }
    members(format!("class {case} extends {union}"), inside)
}
