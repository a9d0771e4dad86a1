//! Plain classes beside those of the wire.

use jar_sprout_layout::{Doc, cat, group, hard, line, lines, members, nest, paragraphs, text};
use jar_sprout_model::{Slot, Type};

use super::Sheet;
use super::{ABOUT, constructor, listed, types, values};
use crate::plan::{Ident, Plan, PlannedField, PlannedType, PlannedUnion};
use crate::spell::docs;
use crate::spell::plain_copies::{
    self as copies, Both, Conversion, Sides, conversion, is_collection, may_be_null,
};

/// The declaration of a plain type, with the factory that makes it.
pub(super) fn declare(sheet: &mut Sheet<'_>, copy: &PlannedType<'_>, wire: &PlannedType<'_>) -> Doc {
    match copies::sides(copy, wire) {
        Sides::Records(both) => record(sheet, copy, wire, &both),
        Sides::Unions(both) => union(sheet, copy, wire, &both),
    }
}

fn record(
    sheet: &mut Sheet<'_>,
    copy: &PlannedType<'_>,
    wire: &PlannedType<'_>,
    both: &Both<'_, [PlannedField<'_>]>,
) -> Doc {
    let fields = both.copy;
    let ident = &copy.ident;
    let head = match sheet.plan.union_of(copy.id) {
        Some(union) => format!("final class {ident} extends {}", union.ident),
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
    let arguments = both.pairs().map(|(field, source)| {
        let value = format!("wire.{}", source.ident);
        let made = of_field(sheet.plan, source, &value);
        cat([text(format!("{}: ", field.ident)), made])
    });
    let factory = text(format!("factory {ident}.fromWire({} wire) => ", wire.ident));
    let factory = cat([factory, listed(format!("{ident}("), arguments, ");")]);
    let mut inside =
        vec![constructor(sheet.plan, copy, &fields.iter().collect::<Vec<_>>()), factory, declared];
    if sheet.options.has_copy_with {
        inside.extend(values::copy_with(sheet, copy, fields));
    }
    if sheet.options.has_equality {
        let parts: Vec<(&str, &Type)> =
            fields.iter().map(|field| (field.ident.as_str(), &field.slot.ty)).collect();
        inside.extend(values::equality(sheet.options, ident.as_str(), &parts, sheet.needs));
    }
    members(head, inside)
}

/// What a field of a copy is made of.
fn of_field(plan: &Plan<'_>, source: &PlannedField<'_>, value: &str) -> Doc {
    let conversion = conversion(plan, &source.slot.ty);
    match (may_be_null(source), is_collection(source)) {
        (true, true) => {
            let nothing = if matches!(source.slot.ty, Type::Map(_)) { "const {}" } else { "const []" };
            match conversion {
                Conversion::AsIs => text(format!("{value} ?? {nothing}")),
                Conversion::Made(_) | Conversion::Items(..) => {
                    made(&conversion, &format!("{value} ?? {nothing}"), 0)
                }
                Conversion::Values(..) => made(&conversion, &format!("({value} ?? {nothing})"), 0),
            }
        }
        (true, false) => or_null(&conversion, value, 0),
        (false, _) => made(&conversion, value, 0),
    }
}

fn or_null(conversion: &Conversion<'_>, value: &str, depth: usize) -> Doc {
    if let Conversion::AsIs = conversion {
        return text(value.to_owned());
    }
    // A variable of the loop is known not to be null once it was asked.
    let sure = if value.contains('.') { format!("{value}!") } else { value.to_owned() };
    let choice = cat([line(), text("? null"), line(), text(": "), made(conversion, &sure, depth)]);
    group(cat([text(format!("{value} == null")), nest(nest(choice))]))
}

/// The expression for what a value of the wire becomes, which is not null.
fn made(conversion: &Conversion<'_>, value: &str, depth: usize) -> Doc {
    let held = |conversion: &Conversion<'_>, is_null: bool, value: &str| {
        if is_null { or_null(conversion, value, depth + 1) } else { made(conversion, value, depth + 1) }
    };
    match conversion {
        Conversion::AsIs => text(value.to_owned()),
        Conversion::Made(copy) => types::call(format!("{}.fromWire", copy.ident), text(value.to_owned())),
        Conversion::Items(item, is_null) => {
            let name = types::numbered("item", depth);
            let item = held(item, *is_null, &name);
            types::collected("[", format!("for (final {name} in {value})"), item, "]")
        }
        Conversion::Values(of, is_null) => {
            let name = types::numbered("entry", depth);
            let of = held(of, *is_null, &format!("{name}.value"));
            let entry = cat([text(format!("{name}.key: ")), of]);
            types::collected("{", format!("for (final {name} in {value}.entries)"), entry, "}")
        }
    }
}

fn union(
    sheet: &mut Sheet<'_>,
    copy: &PlannedType<'_>,
    wire: &PlannedType<'_>,
    both: &Both<'_, PlannedUnion<'_>>,
) -> Doc {
    let Both { copy: union, wire: source } = *both;
    let is_direct = sheet.plan.has_direct_cases(union);
    let ident = &copy.ident;
    let mut classes = Vec::new();
    let mut branches = Vec::new();
    for (case, from) in union.cases.iter().zip(&source.cases) {
        let conversion = conversion(sheet.plan, &from.slot.ty);
        if is_direct {
            let class = from.slot.ty.named().map(|id| sheet.plan.ident(id).to_string()).collect::<String>();
            branches.push(branch(&format!("{class}()"), made(&conversion, "wire", 0)));
            continue;
        }
        let value =
            if from.slot.nullable { or_null(&conversion, "value", 0) } else { made(&conversion, "value", 0) };
        let value = types::call(case.ident.to_string(), value);
        branches.push(branch(&format!("{}(:final value)", from.ident), value));
        classes.push(holder(sheet, ident, &case.ident, case.slot));
    }
    if let (Some(unknown), Some(from)) = (&union.unknown, &source.unknown) {
        branches.push(branch(&format!("{from}(:final value)"), text(format!("{unknown}(value)"))));
        let inside =
            [text(format!("const {unknown}(this.value);")), text("final Map<String, dynamic> value;")];
        let class = members(format!("final class {unknown} extends {ident}"), inside);
        classes.push(lines([text("/// A kind that is not known yet."), class]));
    }
    let branches = nest(cat(branches.into_iter().map(|branch| cat([hard(), branch]))));
    let head = text(format!("factory {ident}.fromWire({} wire) => switch (wire) {{", wire.ident));
    let factory = cat([head, branches, hard(), text("};")]);
    let sealed = members(format!("sealed class {ident}"), [text(format!("const {ident}();")), factory]);
    paragraphs([sealed].into_iter().chain(classes))
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
        inside.extend(values::equality(sheet.options, case.as_str(), &[("value", &slot.ty)], sheet.needs));
    }
    members(format!("final class {case} extends {union}"), inside)
}
