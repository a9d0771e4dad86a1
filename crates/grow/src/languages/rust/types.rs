//! Model types as Rust types, with the imports they need.

use jar_sprout_layout::{Doc, cat, join, text};
use jar_sprout_model::{Coding, Scalar, ScalarKind, Slot, Type, TypeId, Width};

use super::Sheet;
use super::settings::Dates;
use super::times;

/// The type of a place for a value: `Option<Queen>`. `owner` is the type that the place is a direct part of.
pub(super) fn slot(sheet: &mut Sheet<'_>, owner: Option<TypeId>, slot: &Slot) -> Doc {
    let ty = non_null(sheet, owner, slot);
    // `Value` takes null as it is.
    if slot.nullable && slot.ty != Type::Any { cat([text("Option<"), ty, text(">")]) } else { ty }
}

/// The type of a value that is not null: `Queen`
pub(super) fn non_null(sheet: &mut Sheet<'_>, owner: Option<TypeId>, slot: &Slot) -> Doc {
    match &slot.ty {
        Type::Any => text("serde_json::Value"),
        // What no attribute reaches stays what it is on the wire.
        Type::Scalar(scalar) if times::needs_attribute(sheet, *scalar) => text("String"),
        Type::Scalar(scalar) => text(self::scalar(sheet, *scalar)),
        Type::Constant(_) => text("String"),
        // What stands in a list or a map has a size of its own.
        Type::List(items) => cat([text("Vec<"), self::slot(sheet, None, items), text(">")]),
        Type::Map(values) => {
            sheet.needs.imports.insert("std::collections::BTreeMap");
            cat([text("BTreeMap<String, "), self::slot(sheet, None, values), text(">")])
        }
        Type::Tuple(items) => {
            let items: Vec<Doc> = items.iter().map(|item| self::slot(sheet, owner, item)).collect();
            cat([text("("), join(&text(", "), items), text(")")])
        }
        Type::Named(id) => {
            let ident = sheet.plan.ident(*id);
            let is_cycle = owner.is_some_and(|owner| sheet.plan.contains_inline(*id, owner));
            text(match owner {
                Some(owner) if is_cycle && owner == *id => "Box<Self>".to_owned(),
                Some(_) | None if is_cycle => format!("Box<{ident}>"),
                Some(_) | None => ident.to_string(),
            })
        }
    }
}

pub(super) fn scalar(sheet: &mut Sheet<'_>, scalar: Scalar) -> &'static str {
    match scalar {
        Scalar::Boolean | Scalar::Always(_) => "bool",
        Scalar::Integer(Width::Narrow) => "i32",
        Scalar::Integer(Width::Wide | Width::Exact) => "i64",
        Scalar::Integer(Width::Big) | Scalar::Decimal => "serde_json::Number",
        Scalar::Float => "f64",
        // No attribute reaches into a list.
        Scalar::Coded(coding) if coding.kind() == ScalarKind::Integer => "i64",
        Scalar::Text | Scalar::Uuid | Scalar::Uri | Scalar::Coded(_) => "String",
        Scalar::DateTime(_) | Scalar::LocalDateTime(_) | Scalar::Date | Scalar::Time(_) => {
            let (name, imports) = date(scalar, sheet.options.dates);
            sheet.needs.imports.extend(imports);
            name
        }
    }
}

/// The type of what the wire writes as something else.
pub(super) fn decoded(sheet: &mut Sheet<'_>, coding: Coding) -> &'static str {
    match (coding, sheet.options.dates) {
        (Coding::IntegerText, _) => "i64",
        (Coding::FloatText | Coding::DecimalText, _) => "f64",
        (Coding::BooleanText, _) => "bool",
        (Coding::EpochSeconds | Coding::EpochMilliseconds, Dates::Chrono) => {
            sheet.needs.imports.extend(["chrono::DateTime", "chrono::Utc"]);
            "DateTime<Utc>"
        }
        (Coding::EpochSeconds | Coding::EpochMilliseconds, Dates::Time) => "time::OffsetDateTime",
        (Coding::EpochSeconds | Coding::EpochMilliseconds, Dates::Jiff) => "jiff::Timestamp",
    }
}

/// The type of a date or a time, and what it imports; by its whole path where its name is one that a model may have.
fn date(scalar: Scalar, dates: Dates) -> (&'static str, &'static [&'static str]) {
    match (dates, scalar) {
        (Dates::Chrono, Scalar::DateTime(forms)) if times::are_seen_in_utc(forms) => {
            ("DateTime<Utc>", &["chrono::DateTime", "chrono::Utc"])
        }
        (Dates::Chrono, Scalar::DateTime(_)) => {
            ("DateTime<FixedOffset>", &["chrono::DateTime", "chrono::FixedOffset"])
        }
        (Dates::Chrono, Scalar::LocalDateTime(_)) => ("NaiveDateTime", &["chrono::NaiveDateTime"]),
        (Dates::Chrono, Scalar::Date) => ("NaiveDate", &["chrono::NaiveDate"]),
        (Dates::Chrono, _) => ("NaiveTime", &["chrono::NaiveTime"]),
        (Dates::Time, Scalar::DateTime(_)) => ("time::OffsetDateTime", &[]),
        (Dates::Time, Scalar::Date) => ("time::Date", &[]),
        // It writes a fraction always, and a space before the time.
        (Dates::Time, _) => ("String", &[]),
        (Dates::Jiff, Scalar::DateTime(_)) => ("jiff::Timestamp", &[]),
        (Dates::Jiff, Scalar::LocalDateTime(_)) => ("jiff::civil::DateTime", &[]),
        (Dates::Jiff, Scalar::Date) => ("jiff::civil::Date", &[]),
        (Dates::Jiff, _) => ("jiff::civil::Time", &[]),
    }
}
