//! Model types as Go types, with the imports and helpers they need.

use jar_sprout_layout::{Doc, braces, lines, paragraphs, text};
use jar_sprout_model::{Coding, Scalar, ScalarKind, Slot, Type, TypeId, Width};

use super::Sheet;
use super::names::{LITERAL, tag_name};
use super::times::{LOCAL_DATE_TIME, LOCAL_TIME, TIMES};
use crate::plan::{Fate, PlannedField, PlannedNothing};
use crate::spell::{EpochHelpers, Helper, Needs};

const DATE: Helper = Helper { name: "Date", text: include_str!("date.go") };
static EPOCHS: EpochHelpers = EpochHelpers::new(
    Helper { name: "EpochSeconds", text: include_str!("epoch_seconds.go") },
    &[
        ("EpochSeconds", "EpochMilliseconds"),
        ("the seconds", "the milliseconds"),
        ("t.Unix()", "t.UnixMilli()"),
        ("time.Unix(number, 0)", "time.UnixMilli(number)"),
    ],
);
const JSON_TEXT: Helper = Helper { name: "JSONText", text: include_str!("json_text.go") };
const WORDS: Helper = Helper { name: "Words", text: include_str!("words.go") };
const OR_NOTHING: Helper = Helper { name: "OrNothing", text: include_str!("or_nothing.go") };
const LETTERS_OR_NOTHING: Helper =
    Helper { name: "LettersOrNothing", text: include_str!("letters_or_nothing.go") };
const MAYBE: Helper = Helper { name: "Maybe", text: include_str!("maybe.go") };

/// The type of a record's field, and whether its tag says that it may be left out.
pub(super) fn field(
    sheet: &mut Sheet<'_>,
    owner: TypeId,
    field: &PlannedField<'_>,
) -> (String, &'static str) {
    let PlannedField { ident: _, wire, slot, encoding: _, docs: _, fate } = field;
    if field.is_json_in_text() {
        return json_text(sheet, field);
    }
    if let Some((index, PlannedNothing { ident, .. })) = sheet.plan.nothing_of(field) {
        sheet.needs.nothings.insert(index);
        let left_out = if fate.is_left_out() { ",omitzero" } else { "" };
        return (format!("{}, {ident}]", or_nothing(sheet, field)), left_out);
    }
    let in_letters = |coding: &Coding| coding.kind() == ScalarKind::Text && tag_name(wire.as_str()).is_some();
    let coding = field.coding().filter(in_letters);
    match (fate, coding) {
        (Fate::Apart, _) => {
            let maybe = sheet.help(MAYBE);
            (format!("{maybe}[{}]", non_null(sheet, slot)), ",omitzero")
        }
        (_, Some(coding)) => self::in_letters(coding, *fate, sheet.needs),
        (Fate::Defaulted(_), None) => (non_null(sheet, slot), ""),
        // `omitempty` would leave out an empty list as well.
        (Fate::Optional | Fate::Either, None) if has_nil(&slot.ty) && slot.ty != Type::Any => {
            (non_null(sheet, slot), ",omitzero")
        }
        (Fate::Optional | Fate::Either, None) => (pointer(sheet, slot), ",omitempty"),
        (Fate::Tag(_) | Fate::Required | Fate::Nullable, None) => match &slot.ty {
            // Go does not let a struct hold itself.
            Type::Named(id) if sheet.plan.contains_inline(*id, owner) => (pointer(sheet, slot), ""),
            Type::Named(_)
            | Type::Any
            | Type::Scalar(_)
            | Type::Constant(_)
            | Type::List(_)
            | Type::Map(_)
            | Type::Tuple(_) => (self::slot(sheet, slot), ""),
        },
    }
}

/// What holds a value in whose place words stand for nothing, up to the words: `OrNothing[float64`.
fn or_nothing(sheet: &mut Sheet<'_>, field: &PlannedField<'_>) -> String {
    sheet.needs.helpers.insert(WORDS);
    let letters = field.coding().filter(|coding| coding.kind() == ScalarKind::Text);
    let (helper, ty) = match letters {
        Some(coding) => (LETTERS_OR_NOTHING, decoded(coding, sheet.needs).to_owned()),
        None => (OR_NOTHING, non_null(sheet, field.slot)),
    };
    format!("{}[{ty}", sheet.help(helper))
}

/// The words that stand for nothing, as a type of their own.
pub(super) fn words(nothing: &PlannedNothing<'_>) -> Doc {
    let PlannedNothing { ident, slot: _, words } = nothing;
    let literals: Vec<String> = words.iter().map(|word| LITERAL.of(word.as_str())).collect();
    let method = braces(
        format!("func ({ident}) Words() []string"),
        [text(format!("return []string{{{}}}", literals.join(", ")))],
    );
    let doc = text(format!("// {ident} has words that stand where there is no value."));
    paragraphs([lines([doc, text(format!("type {ident} struct{{}}"))]), method])
}

/// A value that stands as JSON in a text.
fn json_text(sheet: &mut Sheet<'_>, field: &PlannedField<'_>) -> (String, &'static str) {
    let json_text = sheet.help(JSON_TEXT);
    let ty = format!("{json_text}[{}]", non_null(sheet, field.slot));
    match field.fate {
        Fate::Optional | Fate::Either | Fate::Apart => (format!("*{ty}"), ",omitempty"),
        Fate::Nullable => (format!("*{ty}"), ""),
        Fate::Tag(_) | Fate::Required | Fate::Defaulted(_) => (ty, ""),
    }
}

/// A number in letters: its tag says so.
fn in_letters(coding: Coding, fate: Fate<'_>, needs: &mut Needs) -> (String, &'static str) {
    let ty = decoded(coding, needs);
    match fate {
        Fate::Optional | Fate::Either | Fate::Apart => (format!("*{ty}"), ",string,omitempty"),
        Fate::Nullable => (format!("*{ty}"), ",string"),
        Fate::Tag(_) | Fate::Required | Fate::Defaulted(_) => (ty.to_owned(), ",string"),
    }
}

/// The type of what the wire has in letters.
fn decoded(coding: Coding, needs: &mut Needs) -> &'static str {
    match coding {
        Coding::IntegerText => "int64",
        Coding::FloatText => "float64",
        Coding::DecimalText => number(needs),
        Coding::BooleanText => "bool",
        Coding::EpochSeconds | Coding::EpochMilliseconds => unreachable!("they are no letters"),
    }
}

/// A number with all its digits.
fn number(needs: &mut Needs) -> &'static str {
    needs.imports.insert("encoding/json");
    "json.Number"
}

/// The type of a place for a value: `*Queen` where it may be null.
pub(super) fn slot(sheet: &mut Sheet<'_>, slot: &Slot) -> String {
    if slot.nullable { pointer(sheet, slot) } else { non_null(sheet, slot) }
}

/// A type whose nil stands for null or for nothing.
fn pointer(sheet: &mut Sheet<'_>, slot: &Slot) -> String {
    let ty = non_null(sheet, slot);
    if has_nil(&slot.ty) { ty } else { format!("*{ty}") }
}

/// Whether the type's own nil is written as null.
pub(super) fn has_nil(ty: &Type) -> bool {
    match ty {
        Type::Any | Type::List(_) | Type::Map(_) | Type::Tuple(_) => true,
        Type::Scalar(scalar) => *scalar == Scalar::Integer(Width::Big),
        Type::Constant(_) | Type::Named(_) => false,
    }
}

/// The type of a value that is not null: `Queen`
pub(super) fn non_null(sheet: &mut Sheet<'_>, slot: &Slot) -> String {
    match &slot.ty {
        Type::Any => any(sheet.needs).to_owned(),
        Type::Scalar(scalar) => self::scalar(sheet, *scalar),
        Type::Constant(_) => "string".to_owned(),
        Type::List(items) => format!("[]{}", self::slot(sheet, items)),
        Type::Map(values) => format!("map[string]{}", self::slot(sheet, values)),
        // Go has no type for a list of unlike items.
        Type::Tuple(_) => format!("[]{}", any(sheet.needs)),
        Type::Named(id) => sheet.plan.ident(*id).to_string(),
    }
}

fn any(needs: &mut Needs) -> &'static str {
    needs.imports.insert("encoding/json");
    "json.RawMessage"
}

fn scalar(sheet: &mut Sheet<'_>, scalar: Scalar) -> String {
    if let Some(special) = TIMES.special(sheet.plan, scalar) {
        return sheet.help(special);
    }
    let own = match scalar {
        Scalar::Boolean | Scalar::Always(_) => "bool",
        Scalar::Integer(Width::Narrow) => "int",
        Scalar::Integer(Width::Wide | Width::Exact) => "int64",
        Scalar::Integer(Width::Big) => {
            sheet.needs.imports.insert("math/big");
            "*big.Int"
        }
        Scalar::Float => "float64",
        Scalar::Decimal => number(sheet.needs),
        Scalar::Coded(coding @ (Coding::EpochSeconds | Coding::EpochMilliseconds)) => {
            return sheet.help(EPOCHS.get(coding));
        }
        // No tag reaches into a list.
        Scalar::Coded(_) => "string",
        Scalar::Text | Scalar::Uuid | Scalar::Uri => "string",
        Scalar::DateTime(_) => {
            sheet.needs.imports.insert("time");
            "time.Time"
        }
        Scalar::LocalDateTime(_) => return sheet.help(LOCAL_DATE_TIME),
        Scalar::Date => return sheet.help(DATE),
        Scalar::Time(_) => return sheet.help(LOCAL_TIME),
    };
    own.to_owned()
}
