//! Times that are written otherwise than chrono does.

use std::sync::LazyLock;

use jar_sprout_model::{Coding, Fraction, Scalar, TimeForm, Type, ZeroOffset};

use super::Sheet;
use super::settings::Dates;
use crate::plan::{PlannedField, small_words};
use crate::prepare::suffix;
use crate::spell::Helper;
use crate::spell::{HelpersByTime, TimeHelpers};

/// A type of chrono, and how its values are written.
#[derive(Clone, Copy)]
struct CaseKind {
    /// What the function that writes them is called after.
    name: &'static str,
    ty: &'static str,
    imports: &'static [&'static str],
    /// The format of whole seconds; none for a time with its offset, which has a method of its own.
    format: Option<&'static str>,
    /// The length of a time with microseconds, without its offset.
    length: usize,
}

/// The functions that write times.
static WRITERS: LazyLock<HelpersByTime> =
    LazyLock::new(|| HelpersByTime([DATE_TIME, LOCAL_DATE_TIME, LOCAL_TIME].map(special)));

const DATE_TIME: CaseKind = CaseKind {
    name: "Rfc3339",
    ty: "DateTime<FixedOffset>",
    imports: &["chrono::DateTime", "chrono::FixedOffset", "chrono::SecondsFormat"],
    format: None,
    length: 26,
};

const LOCAL_DATE_TIME: CaseKind = CaseKind {
    name: "LocalDateTime",
    ty: "NaiveDateTime",
    imports: &["chrono::NaiveDateTime"],
    format: Some("%Y-%m-%dT%H:%M:%S"),
    length: 26,
};

const LOCAL_TIME: CaseKind = CaseKind {
    name: "LocalTime",
    ty: "NaiveTime",
    imports: &["chrono::NaiveTime"],
    format: Some("%H:%M:%S"),
    length: 15,
};

/// The module that reads and writes a point in time as a number since 1970.
pub(super) fn epoch(dates: Dates, coding: Coding, is_option: bool) -> String {
    let is_whole = coding == Coding::EpochSeconds;
    match dates {
        Dates::Chrono => {
            let unit = if is_whole { "seconds" } else { "milliseconds" };
            format!("chrono::serde::ts_{unit}{}", if is_option { "_option" } else { "" })
        }
        Dates::Time => {
            let unit = if is_whole { "" } else { "::milliseconds" };
            format!("time::serde::timestamp{unit}{}", if is_option { "::option" } else { "" })
        }
        Dates::Jiff => {
            let unit = if is_whole { "second" } else { "millisecond" };
            let presence = if is_option { "optional" } else { "required" };
            format!("jiff::fmt::serde::timestamp::{unit}::{presence}")
        }
    }
}

/// Whether only an attribute of a field can say how a time is read and written.
pub(super) fn needs_attribute(sheet: &Sheet<'_>, scalar: Scalar) -> bool {
    scalar.time_forms().is_some_and(|forms| {
        let is_special = sheet.plan.times.special_form(scalar).is_some();
        let is_moment = matches!(scalar, Scalar::DateTime(_));
        match sheet.options.dates {
            Dates::Chrono => is_special,
            Dates::Time => is_special || is_moment,
            // It keeps the moment and forgets the offset.
            Dates::Jiff => is_special || is_moment && !forms.are_in_utc(),
        }
    })
}

/// What a field's attribute may say of its time.
pub(super) enum Attribute {
    /// A function of ours writes it.
    Written(Helper),
    /// A module of the library reads and writes it.
    With,
}

/// What a field's attribute says of its time.
pub(super) fn attribute(sheet: &Sheet<'_>, field: &PlannedField<'_>) -> Option<Attribute> {
    match (sheet.options.dates, &field.slot.ty) {
        (Dates::Chrono, Type::Scalar(scalar)) => WRITERS.special(sheet.plan, *scalar).map(Attribute::Written),
        (Dates::Time, Type::Scalar(scalar @ Scalar::DateTime(forms))) => {
            // The library writes another offset than that of UTC as UTC.
            let is_native = sheet.plan.times.special_form(*scalar).is_none() && forms.are_in_utc();
            is_native.then_some(Attribute::With)
        }
        _ => None,
    }
}

fn special(kind: CaseKind) -> TimeHelpers {
    TimeHelpers::new(|form| {
        let name = small_words(&format!("{}{}", kind.name, suffix(form)), "_").replace("rfc_3339", "rfc3339");
        let CaseKind { name: _, ty, imports, format: _, length: _ } = &kind;
        let mut imports: Vec<&str> = imports.iter().copied().chain(["serde::Serializer"]).collect();
        let arm = arm(&kind, form);
        if arm.contains(".nanosecond()") {
            imports.push("chrono::Timelike");
        }
        let imports: String = imports.iter().map(|path| format!("use {path};\n")).collect();
        let text = format!(
            "{imports}\nfn {name}<'a, S: Serializer>(\n    value: impl Into<Option<&'a {ty}>>,\n    serializer: S,\n) -> Result<S::Ok, S::Error> {{\n    match value.into() {{\n        Some(value) => {arm}\n        None => serializer.serialize_none(),\n    }}\n}}\n"
        );
        (name, text)
    })
}

/// What is done with a value.
fn arm(kind: &CaseKind, form: TimeForm) -> String {
    let is_letter = form.zero == ZeroOffset::Letter;
    let seconds = |digits: u8| if digits == 3 { "Millis" } else { "Micros" };
    let of_digits = |digits: u8| match kind.format {
        None => format!("value.to_rfc3339_opts(SecondsFormat::{}, {is_letter})", seconds(digits)),
        Some(format) => format!("value.format(\"{format}%.{digits}f\").to_string()"),
    };
    let length = kind.length;
    let cut = match form.fraction {
        Fraction::Exactly(digits @ (3 | 6)) => {
            let written = format!("serializer.serialize_str(&{})", of_digits(digits));
            // Its formatter has so long an arm on a line of its own.
            return match kind.format {
                None => format!("{{\n            {written}\n        }}"),
                Some(_) => format!("{written},"),
            };
        }
        Fraction::NoneOr(digits) => {
            let (test, whole, fraction, written) = match kind.format {
                None => (
                    "value.timestamp_subsec_nanos()",
                    "SecondsFormat::Secs".to_owned(),
                    format!("SecondsFormat::{}", seconds(digits)),
                    format!("value.to_rfc3339_opts(format, {is_letter})"),
                ),
                Some(format) => (
                    "value.nanosecond()",
                    format!("\"{format}\""),
                    format!("\"{format}%.{digits}f\""),
                    "value.format(format).to_string()".to_owned(),
                ),
            };
            return format!(
                "{{\n            let format = if {test} == 0 {{\n                {whole}\n            }} else {{\n                {fraction}\n            }};\n            serializer.serialize_str(&{written})\n        }}"
            );
        }
        Fraction::Exactly(digits) => format!("[..{}]", length - 6 + usize::from(digits)),
        Fraction::Shortest | Fraction::Threes => ".trim_end_matches('0').trim_end_matches('.')".to_owned(),
    };
    let text = of_digits(6);
    let borrow = if cut.starts_with('[') { "&" } else { "" };
    match kind.format {
        None => format!(
            "{{\n            let text = {text};\n            let (seconds, offset) = text.split_at({length});\n            let seconds = {borrow}seconds{cut};\n            serializer.serialize_str(&format!(\"{{seconds}}{{offset}}\"))\n        }}"
        ),
        Some(_) => format!(
            "{{\n            let text = {text};\n            serializer.serialize_str({borrow}text{cut})\n        }}"
        ),
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[track_caller]
    fn check(kind: &CaseKind, fraction: Fraction, expected: &str) {
        let arm = arm(kind, TimeForm { fraction, zero: ZeroOffset::Letter });
        assert!(arm.contains(expected), "{arm}");
    }

    #[test]
    fn what_the_library_can_write_it_writes() {
        check(&DATE_TIME, Fraction::Exactly(3), "value.to_rfc3339_opts(SecondsFormat::Millis, true)");
        check(&LOCAL_TIME, Fraction::Exactly(6), "value.format(\"%H:%M:%S%.6f\")");
        check(&DATE_TIME, Fraction::NoneOr(3), "if value.timestamp_subsec_nanos() == 0");
    }

    #[test]
    fn what_it_cannot_is_cut() {
        check(&DATE_TIME, Fraction::Exactly(1), "let seconds = &seconds[..21];");
        check(&LOCAL_TIME, Fraction::Exactly(2), "serializer.serialize_str(&text[..11])");
        check(&LOCAL_DATE_TIME, Fraction::Shortest, ".trim_end_matches('0').trim_end_matches('.')");
    }
}
