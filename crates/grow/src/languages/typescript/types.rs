//! Model types as TypeScript types.

use jar_sprout_layout::{Doc, cat, comma_list, group, if_broken, join, last_comma, line, nest, soft, text};
use jar_sprout_model::{Coding, NothingWords, Scalar, ScalarKind, Slot, Type, WireName};

use super::Sheet;
use super::settings::TypeScriptOptions;
use super::{Hold, Reading, names};
use crate::plan::{Ident, PlannedDefinition, PlannedField};

/// What a property is declared as, with its colon: `: Queen | null;`
pub(super) fn property(sheet: &Sheet<'_>, mark: &'static str, field: &PlannedField<'_>) -> Doc {
    let words = words(sheet, field).map(|word| text(names::literal(word.as_str())));
    let words: Vec<Doc> = words.collect();
    declared(sheet, mark, field.slot, words)
}

/// The same of a place for a value.
pub(super) fn property_of(sheet: &Sheet<'_>, mark: &'static str, slot: &Slot) -> Doc {
    declared(sheet, mark, slot, Vec::new())
}

fn declared(sheet: &Sheet<'_>, mark: &'static str, slot: &Slot, words: Vec<Doc>) -> Doc {
    if words.is_empty() && (!is_union(slot) || is_hugged(&slot.ty)) {
        return cat([text(mark), text(" "), self::slot(sheet, slot), text(";")]);
    }
    let null = is_union(slot).then(|| text("null"));
    let all = [non_null(sheet, &slot.ty)].into_iter().chain(words).chain(null);
    cat([text(mark), one_of(all), text(";")])
}

/// `export type Hives = Hive[];`
pub(super) fn alias(sheet: &Sheet<'_>, ident: &Ident, slot: &Slot) -> Doc {
    let head = text(format!("export type {ident} ="));
    let ty = self::slot(sheet, slot);
    if breaks_inside(slot) {
        return cat([head, text(" "), ty, text(";")]);
    }
    group(cat([head, nest(cat([line(), ty])), text(";")]))
}

/// What stands behind `=` or `:`, as Prettier has it: all on that line, all on the next one, or one a line with `|`
/// before each.
pub(super) fn one_of(all: impl Iterator<Item = Doc>) -> Doc {
    let all = join(&cat([line(), text("| ")]), all.map(nest));
    group(nest(cat([line(), group(cat([if_broken("| ", ""), all]))])))
}

/// The type of a place for a value: `Queen | null`
pub(super) fn slot(sheet: &Sheet<'_>, slot: &Slot) -> Doc {
    let ty = non_null(sheet, &slot.ty);
    if is_union(slot) { cat([ty, text(" | null")]) } else { ty }
}

/// Whether `null` stands beside the type; `unknown` takes it as it is.
fn is_union(slot: &Slot) -> bool {
    slot.nullable && slot.ty != Type::Any
}

/// Whether a type and `null` beside it are never broken between them.
fn is_hugged(ty: &Type) -> bool {
    matches!(ty, Type::Named(_) | Type::Map(_))
}

/// Whether a type has a place inside where it can be broken.
fn breaks_inside(slot: &Slot) -> bool {
    match &slot.ty {
        Type::Map(_) => true,
        Type::Tuple(_) => !slot.nullable,
        Type::List(items) => {
            !slot.nullable && (is_union(items) && !is_hugged(&items.ty) || breaks_inside(items))
        }
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Named(_) => false,
    }
}

/// The words for nothing that are no texts among others in a field.
pub(super) fn words<'f>(
    sheet: &Sheet<'_>,
    field: &'f PlannedField<'_>,
) -> impl Iterator<Item = &'f WireName> {
    let takes_any_text = match &field.slot.ty {
        Type::Any => true,
        Type::Scalar(scalar) => self::scalar(*scalar, sheet.options) == "string",
        Type::Named(id) => {
            let ty = sheet.plan.get(*id);
            matches!(ty.definition, PlannedDefinition::Enumeration(_)) && !ty.is_closed
        }
        Type::Constant(_) | Type::List(_) | Type::Map(_) | Type::Tuple(_) => false,
    };
    field.nothing_words().filter(|_| !takes_any_text).into_iter().flat_map(NothingWords::iter)
}

fn non_null(sheet: &Sheet<'_>, ty: &Type) -> Doc {
    let hold = sheet.options.hold;
    match ty {
        Type::Any => text("unknown"),
        Type::Scalar(scalar) => text(self::scalar(*scalar, sheet.options)),
        Type::Constant(constant) => text(names::literal(constant.as_str())),
        Type::List(items) => {
            // A read-only list in a list is one word too many for `[]`.
            let is_read_only = hold == Hold::Readonly && matches!(items.ty, Type::List(_) | Type::Tuple(_));
            let inside = slot(sheet, items);
            let list = match is_union(items) {
                true if is_hugged(&items.ty) => cat([text("("), inside, text(")[]")]),
                true => group(cat([text("("), nest(cat([soft(), inside])), soft(), text(")[]")])),
                false if is_read_only => cat([text("("), inside, text(")[]")]),
                false => cat([inside, text("[]")]),
            };
            cat([text(hold.property()), list])
        }
        Type::Map(values) => {
            // `Record` is looked into at once, where the name is not known yet.
            if sheet.options.alias.is_some_and(|alias| sheet.plan.leads_through_maps(&values.ty, alias)) {
                let head = format!("{{ {}[key: string]: ", hold.property());
                return cat([text(head), slot(sheet, values), text(" }")]);
            }
            let inside = cat([soft(), text("string,"), line(), slot(sheet, values)]);
            let record = group(cat([text("Record<"), nest(inside), soft(), text(">")]));
            match hold {
                Hold::Mutable => record,
                Hold::Readonly => {
                    group(cat([text("Readonly<"), nest(cat([soft(), record])), soft(), text(">")]))
                }
            }
        }
        Type::Tuple(items) => {
            let items = comma_list(items.iter().map(|item| slot(sheet, item)));
            let inside = nest(cat([soft(), items, last_comma()]));
            cat([text(hold.property()), group(cat([text("["), inside, soft(), text("]")]))])
        }
        Type::Named(id) => text(sheet.plan.ident(*id).as_str().to_owned()),
    }
}

fn scalar(scalar: Scalar, options: &TypeScriptOptions) -> &'static str {
    if options.reading == Reading::Dated && matches!(scalar, Scalar::DateTime(_)) {
        return "Date";
    }
    if options.reading != Reading::None && scalar.leaves_doubles() {
        return "bigint";
    }
    if let Scalar::Coded(coding) = scalar
        && coding.kind() == ScalarKind::Text
    {
        return if coding == Coding::BooleanText { "`${boolean}`" } else { "`${number}`" };
    }
    if let Scalar::Always(truth) = scalar {
        return if truth { "true" } else { "false" };
    }
    // JSON's own types: a date stays the text it is on the wire.
    match scalar.kind() {
        ScalarKind::Boolean => "boolean",
        ScalarKind::Integer | ScalarKind::Number => "number",
        ScalarKind::Text => "string",
    }
}
