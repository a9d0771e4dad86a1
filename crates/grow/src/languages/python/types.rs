//! Model types as Python types, with the imports they need.

use jar_sprout_layout::{Doc, cat, join, text};
use jar_sprout_model::{Coding, NothingWords, Scalar, Slot, Type};

use super::names;
use super::settings::Types;
use super::times::TYPES;
use super::{Sheet, call};
use crate::spell::{EpochHelpers, Helper, Needs};

/// The type of a place for a value: `Queen | None`
pub(super) fn slot(sheet: &mut Sheet<'_>, slot: &Slot, types: Types) -> Doc {
    let ty = non_null(sheet, slot, types);
    if slot.nullable { or_none(ty, &slot.ty) } else { ty }
}

/// A type that may be `None`; any JSON value may be so as it is.
pub(super) fn or_none(doc: Doc, ty: &Type) -> Doc {
    if *ty == Type::Any { doc } else { cat([doc, text(" | None")]) }
}

/// The type of a value that is not null: `Queen`
pub(super) fn non_null(sheet: &mut Sheet<'_>, slot: &Slot, types: Types) -> Doc {
    match &slot.ty {
        Type::Any if types == Types::Dataclasses => {
            sheet.needs.imports.insert("from typing import Any");
            text("Any")
        }
        Type::Any => {
            sheet.needs.imports.insert("from pydantic import JsonValue");
            text("JsonValue")
        }
        // They are told how to write it by their own code.
        Type::Scalar(scalar) if types == Types::Dataclasses => text(platform_scalar(*scalar, sheet.needs)),
        Type::Scalar(scalar) => text(self::scalar(sheet, *scalar)),
        Type::Constant(constant) => {
            sheet.needs.imports.insert("from typing import Literal");
            text(format!("Literal[{}]", names::literal(constant.as_str())))
        }
        Type::List(items) => cat([text("list["), self::slot(sheet, items, types), text("]")]),
        Type::Map(values) => cat([text("dict[str, "), self::slot(sheet, values, types), text("]")]),
        Type::Tuple(items) => {
            let items: Vec<Doc> = items.iter().map(|item| self::slot(sheet, item, types)).collect();
            cat([text("tuple["), join(&text(", "), items), text("]")])
        }
        Type::Named(id) => text(sheet.plan.ident(*id).as_str().to_owned()),
    }
}

/// `JsonText[Queen]`, for what the wire has as JSON in a text
pub(super) fn json_text(sheet: &mut Sheet<'_>, slot: &Slot) -> Doc {
    sheet.needs.helpers.insert(JSON_TEXT);
    cat([text("JsonText["), non_null(sheet, slot, Types::Pydantic), text("]")])
}

/// `Annotated[float | None, OrNothing("N/A")]`
pub(super) fn or_nothing(sheet: &mut Sheet<'_>, slot: &Slot, words: &NothingWords) -> Doc {
    sheet.needs.imports.insert("from typing import Annotated");
    sheet.needs.helpers.insert(OR_NOTHING);
    let ty = or_none(non_null(sheet, slot, Types::Pydantic), &slot.ty);
    let words: Vec<String> = words.iter().map(|word| names::literal(word.as_str())).collect();
    let words = text(format!("{}({})", OR_NOTHING.name, words.join(", ")));
    call("Annotated[", [ty, words].into_iter(), "]")
}

const OR_NOTHING: Helper = Helper { name: "OrNothing", text: include_str!("or_nothing.py") };

const JSON_TEXT: Helper = Helper { name: "JsonText", text: include_str!("json_text.py") };

fn scalar(sheet: &mut Sheet<'_>, scalar: Scalar) -> &'static str {
    if let Some(special) = TYPES.special(sheet.plan, scalar) {
        sheet.needs.helpers.insert(special);
        return special.name;
    }
    if scalar == Scalar::Uuid && sheet.options.has_uuids {
        sheet.needs.imports.insert("from uuid import UUID");
        return "UUID";
    }
    // The library writes a decimal in letters as it is.
    let helpers = [
        (Scalar::Coded(Coding::IntegerText), INTEGER_TEXT),
        (Scalar::Coded(Coding::FloatText), FLOAT_TEXT),
        (Scalar::Coded(Coding::BooleanText), BOOLEAN_TEXT),
        (Scalar::Coded(Coding::EpochSeconds), EPOCHS.get(Coding::EpochSeconds)),
        (Scalar::Coded(Coding::EpochMilliseconds), EPOCHS.get(Coding::EpochMilliseconds)),
        (Scalar::Decimal, DECIMAL_NUMBER),
    ];
    match helpers.into_iter().find(|(of, _)| *of == scalar) {
        Some((_, helper)) => {
            sheet.needs.helpers.insert(helper);
            helper.name
        }
        None => platform_scalar(scalar, sheet.needs),
    }
}

/// Numbers that the library would write in another way than they came.
const INTEGER_TEXT: Helper = Helper { name: "IntegerText", text: include_str!("integer_text.py") };
const BOOLEAN_TEXT: Helper = Helper { name: "BooleanText", text: include_str!("boolean_text.py") };
static EPOCHS: EpochHelpers = EpochHelpers::new(
    Helper { name: "EpochSeconds", text: include_str!("epoch_seconds.py") },
    &[("seconds", "milliseconds"), ("EpochSeconds", "EpochMilliseconds")],
);
const FLOAT_TEXT: Helper = Helper { name: "FloatText", text: include_str!("float_text.py") };
const DECIMAL_NUMBER: Helper = Helper { name: "DecimalNumber", text: include_str!("decimal_number.py") };

/// The platform's own type.
pub(super) fn platform_scalar(scalar: Scalar, needs: &mut Needs) -> &'static str {
    // Not by their own names: a field called `date` would hide the type from the fields behind it.
    let of_datetime = |name, needs: &mut Needs| {
        needs.imports.insert("import datetime as dt");
        name
    };
    match scalar {
        Scalar::Boolean | Scalar::Coded(Coding::BooleanText) => "bool",
        Scalar::Always(truth) => {
            needs.imports.insert("from typing import Literal");
            if truth { "Literal[True]" } else { "Literal[False]" }
        }
        Scalar::Integer(_) | Scalar::Coded(Coding::IntegerText) => "int",
        Scalar::Float | Scalar::Coded(Coding::FloatText) => "float",
        Scalar::Decimal | Scalar::Coded(Coding::DecimalText) => {
            needs.imports.insert("from decimal import Decimal");
            "Decimal"
        }
        Scalar::Text | Scalar::Uuid | Scalar::Uri => "str",
        Scalar::DateTime(_)
        | Scalar::LocalDateTime(_)
        | Scalar::Coded(Coding::EpochSeconds | Coding::EpochMilliseconds) => {
            of_datetime("dt.datetime", needs)
        }
        Scalar::Date => of_datetime("dt.date", needs),
        Scalar::Time(_) => of_datetime("dt.time", needs),
    }
}
