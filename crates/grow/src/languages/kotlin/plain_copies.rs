//! Plain classes beside those of the wire.

use jar_sprout_layout::{Doc, cat, hard, lines, members, nest, paragraphs, text};
use jar_sprout_model::Slot;

use super::Sheet;
use super::unions::{UNKNOWN, interface, when};
use super::{ABOUT, nothing, supertypes, types};
use crate::plan::{Ident, Plan, PlannedField, PlannedType, PlannedUnion};
use crate::spell::Needs;
use crate::spell::plain_copies::{
    self as copies, Both, Conversion, Sides, conversion, is_collection, may_be_null,
};

/// The declaration of a plain type with those inside, and the function that makes it; among what stands outside of
/// all types, the place of that function if it is one of them.
pub(super) fn declare(
    sheet: &mut Sheet<'_>,
    copy: &PlannedType<'_>,
    wire: &PlannedType<'_>,
    (nested, place): (Vec<Doc>, usize),
) -> Doc {
    let (declaration, made) = match copies::sides(copy, wire) {
        Sides::Records(both) => {
            (record(sheet, copy, both.copy, nested), construction(sheet.plan, copy, &both))
        }
        Sides::Unions(both) => (union(sheet, copy, both.copy), choice(sheet.plan, copy, wire, &both)),
    };
    let plan = sheet.plan;
    let head = format!("fun {}.{}()", plan.path(wire), function(copy));
    let result = format!("{head}: {} =", plan.path(copy));
    // What calls itself must say what it gives; of the rest, the line below says it.
    let is_said =
        result.chars().count() <= ABOUT.style.width || plan.holds(copy.id, |id| id == copy.id, false);
    let result = text(if is_said { result } else { format!("{head} =") });
    let suppressed = copies::uses_deprecated(wire).then(|| text("@Suppress(\"DEPRECATION\")"));
    let function = cat([result, nest(cat([hard(), made]))]);
    let function = lines(suppressed.into_iter().chain([function]));
    if plan.is_nested(copy) {
        // Inside a class, it would be that class's alone.
        sheet.needs.outside.insert(place, function);
        return declaration;
    }
    paragraphs([declaration, function])
}

/// `toHive`
fn function(copy: &PlannedType<'_>) -> String {
    match copy.ident.as_str().strip_prefix('`') {
        Some(name) => format!("`to{name}"),
        None => format!("to{}", copy.ident),
    }
}

fn record(
    sheet: &mut Sheet<'_>,
    copy: &PlannedType<'_>,
    fields: &[PlannedField<'_>],
    nested: Vec<Doc>,
) -> Doc {
    let plain = sheet.options.plain();
    let supers = supertypes(&mut sheet.with(&plain), copy);
    if fields.is_empty() {
        return cat([text(format!("class {}", copy.ident)), supers]);
    }
    let field = |field: &PlannedField<'_>, sheet: &mut Sheet<'_>| {
        let mut own = Needs::default();
        // As the wire has it, without what tells the library how.
        let ty = match nothing::annotated(&mut sheet.noting(&mut own), field) {
            Some((_, ty)) => ty,
            None => types::non_null(&mut sheet.noting(&mut own), field.slot),
        };
        copies::import_plain(&own, sheet.needs);
        let mark = if field.slot.nullable { "?," } else { "," };
        let property = cat([text(format!("{} {}: ", sheet.options.property, field.ident)), ty, text(mark)]);
        cat([
            hard(),
            lines(ABOUT.comment.of(field.docs, sheet.options.indent + 4).into_iter().chain([property])),
        ])
    };
    let fields: Vec<Doc> = fields.iter().map(|one| field(one, sheet)).collect();
    let head =
        cat([text(format!("data class {}(", copy.ident)), nest(cat(fields)), hard(), text(")"), supers]);
    if nested.is_empty() { head } else { members(head, nested) }
}

fn construction(plan: &Plan<'_>, copy: &PlannedType<'_>, both: &Both<'_, [PlannedField<'_>]>) -> Doc {
    let arguments = both.pairs().map(|(field, source)| {
        let name = source.ident.as_str();
        let conversion = conversion(plan, &source.slot.ty);
        let value = if is_collection(source) && may_be_null(source) {
            made(&conversion, &format!("{name}.orEmpty()"), false)
        } else {
            made(&conversion, name, may_be_null(source))
        };
        cat([hard(), text(format!("{} = {value},", field.ident))])
    });
    let arguments: Vec<Doc> = arguments.collect();
    if arguments.is_empty() {
        return text(format!("{}()", plan.path(copy)));
    }
    cat([text(format!("{}(", plan.path(copy))), nest(cat(arguments)), hard(), text(")")])
}

/// The expression for what a value of the wire becomes.
fn made(conversion: &Conversion<'_>, value: &str, may_be_null: bool) -> String {
    let mark = if may_be_null { "?" } else { "" };
    match conversion {
        Conversion::AsIs => value.to_owned(),
        Conversion::Made(copy) => format!("{value}{mark}.{}()", function(copy)),
        Conversion::Items(item, is_null) => format!("{value}{mark}.map {{ {} }}", made(item, "it", *is_null)),
        Conversion::Values(held, is_null) => {
            format!("{value}{mark}.mapValues {{ {} }}", made(held, "it.value", *is_null))
        }
    }
}

fn union(sheet: &mut Sheet<'_>, copy: &PlannedType<'_>, union: &PlannedUnion<'_>) -> Doc {
    let plain = sheet.options.plain();
    let mut inside = Vec::new();
    if union.tag.is_some() {
        inside.push(held(UNKNOWN, text("Any"), &copy.ident));
    } else {
        for case in &union.cases {
            let mut own = Needs::default();
            let ty = types::slot(&mut sheet.noting(&mut own), case.slot);
            copies::import_plain(&own, sheet.needs);
            inside.push(held(case.ident.as_str(), ty, &copy.ident));
        }
    }
    interface(&mut sheet.with(&plain), &copy.ident, paragraphs(inside))
}

fn held(name: &str, ty: Doc, union: &Ident) -> Doc {
    let value = nest(cat([hard(), text("val value: "), ty, text(",")]));
    cat([text(format!("data class {name}(")), value, hard(), text(format!(") : {union}"))])
}

fn choice(
    plan: &Plan<'_>,
    copy: &PlannedType<'_>,
    wire: &PlannedType<'_>,
    both: &Both<'_, PlannedUnion<'_>>,
) -> Doc {
    let Both { copy: union, wire: source } = *both;
    let (from_path, to_path) = (plan.path(wire), plan.path(copy));
    let case_of = |ident: &Ident, slot: &Slot, to: &Ident| {
        let value = made(&conversion(plan, &slot.ty), "value", slot.nullable);
        (format!("is {from_path}.{ident}"), text(format!("{to_path}.{to}({value})")))
    };
    let branches = match source.tag {
        None => {
            let pairs = source.cases.iter().zip(&union.cases);
            pairs.map(|(from, to)| case_of(&from.ident, from.slot, &to.ident)).collect()
        }
        Some(_) => {
            let known = source.cases.iter().flat_map(|case| case.slot.ty.named()).map(|id| {
                let class = plan.path(plan.get(id));
                let made = plan
                    .copy_of(id)
                    .map_or_else(|| "this".to_owned(), |copy| format!("{}()", function(copy)));
                (format!("is {class}"), text(made))
            });
            let unknown = (format!("is {from_path}.{UNKNOWN}"), text(format!("{to_path}.{UNKNOWN}(value)")));
            known.chain([unknown]).collect()
        }
    };
    when("this", branches, 4)
}
