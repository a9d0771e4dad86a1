//! Plain structs beside those of the wire.

use jar_sprout_layout::{Doc, braces, cat, comma_list, group, members, nest, soft, text};
use jar_sprout_model::{Slot, Type};

use super::Sheet;
use super::settings::SwiftOptions;
use super::{ABOUT, initializer, names, types, unions};
use crate::plan::{Ident, Plan, PlannedDefinition, PlannedField, PlannedType, PlannedUnion};
use crate::spell::docs;
use crate::spell::plain_copies::{
    self as copies, Both, Conversion, Sides, conversion, is_collection, may_be_null,
};

/// The declaration of a plain type; one that contains itself is a class.
pub(super) fn declare(
    sheet: &mut Sheet<'_>,
    copy: &PlannedType<'_>,
    wire: &PlannedType<'_>,
    nested: Vec<Doc>,
) -> Doc {
    match copies::sides(copy, wire) {
        Sides::Records(both) => record(sheet, copy, wire, &both, nested),
        Sides::Unions(both) => union(sheet, copy, wire, &both),
    }
}

fn record(
    sheet: &mut Sheet<'_>,
    copy: &PlannedType<'_>,
    wire: &PlannedType<'_>,
    both: &Both<'_, [PlannedField<'_>]>,
    nested: Vec<Doc>,
) -> Doc {
    let fields = both.copy;
    let SwiftOptions { access, property, indent, .. } = *sheet.options;
    let typed: Vec<(&PlannedField<'_>, String)> =
        fields.iter().map(|field| (field, types::slot(sheet, field.slot))).collect();
    let properties = typed.iter().map(|(field, ty)| {
        let declaration = text(format!("{access}{property} {}: {ty}", field.ident));
        (ABOUT.comment.of(field.docs, indent + 4), declaration)
    });
    let is_class = sheet.options.is_class || holds_itself(sheet.plan, copy);
    let mut inside = Vec::new();
    if !fields.is_empty() {
        inside.push(docs::spaced(properties));
    }
    inside.push(initializer(sheet, &typed, None));
    inside.push(from_wire(sheet, wire, &both.pairs().collect::<Vec<_>>(), is_class));
    inside.extend(nested);
    let (kind, protocols) = match (is_class, property) {
        (true, "let") => ("final class", ": Sendable"),
        (true, _) => ("final class", ""),
        // What holds an object is not compared by what that holds.
        (false, _) if sheet.options.is_class || holds_object(sheet.plan, copy) => ("struct", ": Sendable"),
        (false, _) => ("struct", ": Hashable, Sendable"),
    };
    members(format!("{access}{kind} {}{protocols}", copy.ident), inside)
}

/// Whether a type is a part of itself, with no list or map between.
fn holds_itself(plan: &Plan<'_>, copy: &PlannedType<'_>) -> bool {
    plan.holds(copy.id, |id| id == copy.id, true)
}

/// Whether a type that is a part of itself is anywhere in this one.
fn holds_object(plan: &Plan<'_>, copy: &PlannedType<'_>) -> bool {
    plan.holds(copy.id, |id| is_object(plan, plan.get(id)), false)
}

fn is_object(plan: &Plan<'_>, ty: &PlannedType<'_>) -> bool {
    matches!(ty.definition, PlannedDefinition::Record(_)) && holds_itself(plan, ty)
}

/// `init(_ wire: HiveDto)`
fn from_wire(
    sheet: &Sheet<'_>,
    wire: &PlannedType<'_>,
    pairs: &[(&PlannedField<'_>, &PlannedField<'_>)],
    is_class: bool,
) -> Doc {
    let head = format!(
        "{}{}init(_ wire: {})",
        sheet.options.access,
        if is_class { "convenience " } else { "" },
        sheet.plan.path(wire)
    );
    let argument = |(field, source): &(&PlannedField<'_>, &PlannedField<'_>)| {
        // What the wire holds apart stands in a box.
        let is_boxed = matches!(source.slot.ty, Type::Named(id) if !sheet.options.is_class && sheet.plan.contains_inline(id, wire.id));
        let value = format!("wire.{}", source.ident);
        let conversion = conversion(sheet.plan, &source.slot.ty);
        let may_be_null = may_be_null(source) && source.slot.ty != Type::Any;
        let made = if is_boxed {
            let unboxed = if may_be_null { "$0.value".to_owned() } else { format!("{value}.value") };
            let made = made(&conversion, &unboxed, false);
            if may_be_null { format!("{value}.map {{ {made} }}") } else { made }
        } else if is_collection(source) && may_be_null {
            let nothing = if matches!(source.slot.ty, Type::Map(_)) { "[:]" } else { "[]" };
            match conversion {
                Conversion::AsIs => format!("{value} ?? {nothing}"),
                conversion @ (Conversion::Made(_) | Conversion::Items(..) | Conversion::Values(..)) => {
                    made(&conversion, &format!("({value} ?? {nothing})"), false)
                }
            }
        } else if may_be_null_any(source) {
            format!("{value} ?? .null")
        } else {
            made(&conversion, &value, may_be_null)
        };
        text(format!("{}: {made}", names::label(field.ident.as_str())))
    };
    let arguments = comma_list(pairs.iter().map(argument));
    let call = group(cat([text("self.init("), nest(cat([soft(), arguments])), soft(), text(")")]));
    braces(head, [call])
}

/// Any value that may be missing is null for the copy.
fn may_be_null_any(source: &PlannedField<'_>) -> bool {
    source.slot.ty == Type::Any && !source.fate.is_always_there()
}

/// The expression for what a value of the wire becomes.
fn made(conversion: &Conversion<'_>, value: &str, may_be_null: bool) -> String {
    match (conversion, may_be_null) {
        (Conversion::AsIs, _) => value.to_owned(),
        (Conversion::Made(copy), false) => format!("{}({value})", copy.ident),
        (_, true) => format!("{value}.map {{ {} }}", made(conversion, "$0", false)),
        (Conversion::Items(item, is_null), false) => {
            format!("{value}.map {{ {} }}", made(item, "$0", *is_null))
        }
        (Conversion::Values(held, is_null), false) => {
            format!("{value}.mapValues {{ {} }}", made(held, "$0", *is_null))
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
    let mut cases = Vec::new();
    let mut branches = Vec::new();
    let mut branch = |name: &Ident, from: &Ident, slot: &Slot| {
        let value = made(&conversion(sheet.plan, &slot.ty), "value", types::may_be_nil(slot));
        branches.extend([
            text(format!("case .{from}(let value):")),
            text(format!("    self = .{name}({value})")),
        ]);
    };
    for (case, from) in union.cases.iter().zip(&source.cases) {
        cases.push(text(format!("case {}({})", case.ident, types::slot(sheet, case.slot))));
        branch(&case.ident, &from.ident, from.slot);
    }
    if union.tag.is_some() {
        cases.push(text("/// A kind that is not known yet."));
        cases.push(text(format!("case unknown({})", types::any(sheet))));
        branches.extend([text("case .unknown(let value):"), text("    self = .unknown(value)")]);
    }
    let head = format!("{}init(_ wire: {})", sheet.options.access, sheet.plan.path(wire));
    let made = braces(head, [unions::switch("wire", branches)]);
    let is_plain = sheet.options.is_class || holds_object(sheet.plan, copy);
    let protocols = if is_plain { "Sendable" } else { "Hashable, Sendable" };
    let indirect = if holds_itself(sheet.plan, copy) { "indirect " } else { "" };
    members(
        format!("{}{indirect}enum {}: {protocols}", sheet.options.access, copy.ident),
        [jar_sprout_layout::lines(cases), made],
    )
}
