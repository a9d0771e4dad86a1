//! Times that are written otherwise than the library of dates does.

use std::sync::LazyLock;

use jar_sprout_layout::{Doc, braces, cat, comma_list, group, last_comma, lines, nest, print, soft, text};
use jar_sprout_model::{Coding, Fraction, Scalar, TimeForm, TimeForms, Type, ZeroOffset};

use super::settings::Dates;
use super::{ABOUT, Sheet};
use crate::plan::{PlannedField, small_words};
use crate::prepare::suffix;
use crate::spell::{HelpersByTime, TimeHelpers};

/// A type of a library of dates, and how its values are written.
#[derive(Clone, Copy)]
struct CaseKind {
    /// What the function that writes them is called after.
    name: &'static str,
    ty: &'static str,
    imports: &'static [&'static str],
    style: WritingStyle,
}

/// How a library writes a time with a fraction of so many digits.
#[derive(Clone, Copy)]
enum WritingStyle {
    /// By a method of its own, with the zero offset in a letter or in digits. The length is that of a text with
    /// microseconds, without its offset.
    Rfc3339 { length: usize },
    /// By a pattern, which for whole seconds is this. The length is that of a text with microseconds.
    Pattern { whole: &'static str, length: usize },
    /// By the precision of the formatting macros.
    Precision,
    /// By a description of the format in a macro; whole seconds by a format that is well known.
    Description,
}

/// The functions that write times.
struct Writers {
    /// Those for a value that is there.
    plain: HelpersByTime,
    /// Those for an option, each made on the one for a value.
    optional: HelpersByTime,
}

impl Writers {
    fn new(kinds: [CaseKind; 3]) -> Self {
        Self {
            plain: HelpersByTime(kinds.map(|kind| TimeHelpers::new(|form| writer(kind, form)))),
            optional: HelpersByTime(kinds.map(|kind| TimeHelpers::new(|form| optional_writer(kind, form)))),
        }
    }
}

static CHRONO: LazyLock<Writers> = LazyLock::new(|| Writers::new([DATE_TIME, LOCAL_DATE_TIME, LOCAL_TIME]));
static CHRONO_UTC: LazyLock<Writers> =
    LazyLock::new(|| Writers::new([UTC_DATE_TIME, LOCAL_DATE_TIME, LOCAL_TIME]));
static JIFF: LazyLock<Writers> = LazyLock::new(|| Writers::new([JIFF_TIMESTAMP, JIFF_DATE_TIME, JIFF_TIME]));
/// Local times are texts with it.
static TIME: LazyLock<Writers> = LazyLock::new(|| Writers::new([TIME_DATE_TIME; 3]));

const DATE_TIME: CaseKind = CaseKind {
    name: "Rfc3339",
    ty: "DateTime<FixedOffset>",
    imports: &["chrono::DateTime", "chrono::FixedOffset", "chrono::SecondsFormat"],
    style: WritingStyle::Rfc3339 { length: 26 },
};

const UTC_DATE_TIME: CaseKind = CaseKind {
    name: "Utc",
    ty: "DateTime<Utc>",
    imports: &["chrono::DateTime", "chrono::SecondsFormat", "chrono::Utc"],
    style: WritingStyle::Rfc3339 { length: 26 },
};

const LOCAL_DATE_TIME: CaseKind = CaseKind {
    name: "LocalDateTime",
    ty: "NaiveDateTime",
    imports: &["chrono::NaiveDateTime"],
    style: WritingStyle::Pattern { whole: "%Y-%m-%dT%H:%M:%S", length: 26 },
};

const LOCAL_TIME: CaseKind = CaseKind {
    name: "LocalTime",
    ty: "NaiveTime",
    imports: &["chrono::NaiveTime"],
    style: WritingStyle::Pattern { whole: "%H:%M:%S", length: 15 },
};

const JIFF_TIMESTAMP: CaseKind =
    CaseKind { name: "Timestamp", ty: "jiff::Timestamp", imports: &[], style: WritingStyle::Precision };

const JIFF_DATE_TIME: CaseKind = CaseKind {
    name: "LocalDateTime",
    ty: "jiff::civil::DateTime",
    imports: &[],
    style: WritingStyle::Precision,
};

const JIFF_TIME: CaseKind =
    CaseKind { name: "LocalTime", ty: "jiff::civil::Time", imports: &[], style: WritingStyle::Precision };

const TIME_DATE_TIME: CaseKind =
    CaseKind { name: "Rfc3339", ty: "time::OffsetDateTime", imports: &[], style: WritingStyle::Description };

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

/// Whether every text of a place was seen in UTC: nothing is lost then by a type that knows no other offset.
pub(super) fn are_seen_in_utc(forms: TimeForms) -> bool {
    forms != TimeForms::ALL && forms.are_in_utc()
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

/// What a field's attribute says of its time, if it says anything.
pub(super) fn attribute(
    sheet: &mut Sheet<'_>,
    field: &PlannedField<'_>,
    is_option: bool,
) -> Option<Vec<String>> {
    let Type::Scalar(scalar) = field.slot.ty else { return None };
    let forms = scalar.time_forms()?;
    let form = sheet.plan.times.special_form(scalar);
    let writers = match (sheet.options.dates, scalar) {
        (Dates::Chrono, Scalar::DateTime(_)) if are_seen_in_utc(forms) => &CHRONO_UTC,
        (Dates::Chrono, _) => &CHRONO,
        (Dates::Jiff, Scalar::DateTime(_)) if !forms.are_in_utc() => return None,
        (Dates::Jiff, _) => &JIFF,
        // The library writes another offset than that of UTC as UTC.
        (Dates::Time, Scalar::DateTime(_)) if forms.are_in_utc() => &TIME,
        (Dates::Time, _) => return None,
    };
    let of_library = format!("time::serde::rfc3339{}", if is_option { "::option" } else { "" });
    let is_of_time = sheet.options.dates == Dates::Time;
    let absent = (is_of_time && field.fate.is_left_out()).then(|| "default".to_owned());
    let Some(form) = form else {
        return is_of_time.then(|| absent.into_iter().chain([format!("with = \"{of_library}\"")]).collect());
    };
    let plain = writers.plain.get(scalar, form)?;
    sheet.needs.helpers.insert(plain);
    let writer = if is_option { writers.optional.get(scalar, form)? } else { plain };
    sheet.needs.helpers.insert(writer);
    let read = is_of_time.then(|| format!("deserialize_with = \"{of_library}::deserialize\""));
    let write = format!("serialize_with = \"{}\"", writer.name);
    Some(absent.into_iter().chain(read).chain([write]).collect())
}

fn writer_name(kind: CaseKind, form: TimeForm) -> String {
    small_words(&format!("{}{}", kind.name, suffix(form)), "_").replace("rfc_3339", "rfc3339")
}

/// The function that writes a value in this form, with its imports.
fn writer(kind: CaseKind, form: TimeForm) -> (String, String) {
    let name = writer_name(kind, form);
    let body = body(kind.style, form).join("\n");
    let mut imports = [kind.imports, &["serde::Serializer"]].concat();
    // A trait has what a pattern's times are asked for.
    if matches!(kind.style, WritingStyle::Pattern { .. }) && body.contains(".nanosecond()") {
        imports.push("chrono::Timelike");
    }
    let text = function(&name, kind.ty, &imports, lines(body.lines().map(|line| text(line.to_owned()))));
    (name, text)
}

/// The function that writes a value if there is one.
fn optional_writer(kind: CaseKind, form: TimeForm) -> (String, String) {
    let plain = writer_name(kind, form);
    let arms = [
        format!("Some(value) => {plain}(value, serializer),"),
        "None => serializer.serialize_none(),".to_owned(),
    ];
    let imports: Vec<&str> = kind
        .imports
        .iter()
        .copied()
        .filter(|path| !path.ends_with("::SecondsFormat"))
        .chain(["serde::Serializer"])
        .collect();
    let name = format!("{plain}_option");
    let ty = format!("Option<{}>", kind.ty);
    let text = function(&name, &ty, &imports, braces("match value", arms.map(text)));
    (name, text)
}

fn function(name: &str, ty: &str, imports: &[&str], body: Doc) -> String {
    let imports: String = imports.iter().map(|path| format!("use {path};\n")).collect();
    let parameters = comma_list([text(format!("value: &{ty}")), text("serializer: S")]);
    let head = cat([
        text(format!("fn {name}<S: Serializer>(")),
        nest(cat([soft(), parameters, last_comma()])),
        soft(),
        text(") -> Result<S::Ok, S::Error>"),
    ]);
    format!("{imports}\n{}\n", print(&braces(group(head), [body]), &ABOUT.style))
}

/// The statements that write a value.
fn body(style: WritingStyle, form: TimeForm) -> Vec<String> {
    match style {
        WritingStyle::Rfc3339 { length } => {
            let is_letter = form.zero == ZeroOffset::Letter;
            let written = |format: &str| format!("value.to_rfc3339_opts({format}, {is_letter})");
            let whole = |text: &str| format!("serializer.serialize_str(&{text})");
            match form.fraction {
                Fraction::Exactly(3) => vec![whole(&written("SecondsFormat::Millis"))],
                Fraction::Exactly(6) => vec![whole(&written("SecondsFormat::Micros"))],
                Fraction::NoneOr(digits) => {
                    let digits = if digits == 3 { "SecondsFormat::Millis" } else { "SecondsFormat::Micros" };
                    let test = "value.timestamp_subsec_nanos() == 0";
                    let mut body = either("format", test, ["SecondsFormat::Secs", digits]);
                    body.push(whole(&written("format")));
                    body
                }
                Fraction::Exactly(_) | Fraction::Shortest | Fraction::Threes => {
                    let micros = written("SecondsFormat::Micros");
                    let (borrow, cut) = cut(form.fraction, length);
                    [
                        format!("let text = {micros};"),
                        format!("let (seconds, offset) = text.split_at({length});"),
                        format!("let seconds = {borrow}seconds{cut};"),
                        "serializer.serialize_str(&format!(\"{seconds}{offset}\"))".to_owned(),
                    ]
                    .into()
                }
            }
        }
        WritingStyle::Pattern { whole, length } => match form.fraction {
            Fraction::Exactly(digits @ (3 | 6)) => {
                vec![format!("serializer.collect_str(&value.format(\"{whole}%.{digits}f\"))")]
            }
            Fraction::NoneOr(digits) => {
                let formats = [format!("\"{whole}\""), format!("\"{whole}%.{digits}f\"")];
                let mut body =
                    either("format", "value.nanosecond() == 0", formats.each_ref().map(String::as_str));
                body.push("serializer.collect_str(&value.format(format))".to_owned());
                body
            }
            Fraction::Exactly(_) | Fraction::Shortest | Fraction::Threes => {
                let (borrow, cut) = cut(form.fraction, length);
                vec![
                    format!("let text = value.format(\"{whole}%.6f\").to_string();"),
                    format!("serializer.serialize_str({borrow}text{cut})"),
                ]
            }
        },
        WritingStyle::Precision => {
            let with_digits =
                |digits: u8| format!("serializer.collect_str(&format_args!(\"{{value:.{digits}}}\"))");
            match form.fraction {
                Fraction::Exactly(digits) => vec![with_digits(digits)],
                Fraction::NoneOr(digits) => {
                    let fraction = indented(&with_digits(digits));
                    vec![format!(
                        "if value.subsec_nanosecond() == 0 {{\n    serializer.collect_str(value)\n}} else {{\n{fraction}\n}}"
                    )]
                }
                Fraction::Shortest | Fraction::Threes => vec!["serializer.collect_str(value)".to_owned()],
            }
        }
        WritingStyle::Description => {
            let in_utc = "value.to_offset(time::UtcOffset::UTC)";
            let well_known = "value.format(&time::format_description::well_known::Rfc3339)";
            let described = |digits: u8| {
                let seconds = "[year]-[month]-[day]T[hour]:[minute]:[second]";
                format!(
                    "time::macros::format_description!(\n    \"{seconds}.[subsecond digits:{digits}]Z\"\n)"
                )
            };
            let written = "serializer.serialize_str(&text.map_err(serde::ser::Error::custom)?)";
            let mut body = vec![format!("let value = {in_utc};")];
            match form.fraction {
                Fraction::Exactly(digits) => {
                    body.push(format!("let format = {};", described(digits)));
                    body.push("let text = value.format(format);".to_owned());
                }
                Fraction::NoneOr(digits) => {
                    let fraction = format!("value.format({})", described(digits));
                    body.extend(either("text", "value.nanosecond() == 0", [well_known, &fraction]));
                }
                Fraction::Shortest | Fraction::Threes => body.push(format!("let text = {well_known};")),
            }
            body.push(written.to_owned());
            body
        }
    }
}

/// What cuts a text of this length with microseconds down to a fraction.
fn cut(fraction: Fraction, length: usize) -> (&'static str, String) {
    match fraction {
        Fraction::Exactly(digits) => ("&", format!("[..{}]", length - 6 + usize::from(digits))),
        Fraction::NoneOr(_) | Fraction::Shortest | Fraction::Threes => {
            ("", ".trim_end_matches('0').trim_end_matches('.')".to_owned())
        }
    }
}

/// A value that depends on whether there is a fraction.
fn either(name: &str, test: &str, [whole, fraction]: [&str; 2]) -> Vec<String> {
    vec![format!("let {name} = if {test} {{\n{}\n}} else {{\n{}\n}};", indented(whole), indented(fraction))]
}

fn indented(code: &str) -> String {
    code.lines().map(|line| format!("    {line}")).collect::<Vec<_>>().join("\n")
}
#[cfg(test)]
mod tests {
    use super::*;

    #[track_caller]
    fn check(kind: CaseKind, fraction: Fraction, expected: &str) {
        let (_, text) = writer(kind, TimeForm { fraction, zero: ZeroOffset::Letter });
        assert!(text.contains(expected), "{text}");
    }

    #[test]
    fn what_the_library_can_write_it_writes() {
        check(DATE_TIME, Fraction::Exactly(3), "value.to_rfc3339_opts(SecondsFormat::Millis, true)");
        check(LOCAL_TIME, Fraction::Exactly(6), "value.format(\"%H:%M:%S%.6f\")");
        check(DATE_TIME, Fraction::NoneOr(3), "if value.timestamp_subsec_nanos() == 0");
        check(JIFF_TIME, Fraction::Exactly(2), "format_args!(\"{value:.2}\")");
        check(TIME_DATE_TIME, Fraction::Exactly(3), ".[subsecond digits:3]Z\"");
    }

    #[test]
    fn what_it_cannot_is_cut() {
        check(DATE_TIME, Fraction::Exactly(1), "let seconds = &seconds[..21];");
        check(LOCAL_TIME, Fraction::Exactly(2), "serializer.serialize_str(&text[..11])");
        check(LOCAL_DATE_TIME, Fraction::Shortest, ".trim_end_matches('0').trim_end_matches('.')");
    }

    #[test]
    fn an_option_is_written_by_the_function_for_a_value() {
        let form = TimeForm { fraction: Fraction::Exactly(3), zero: ZeroOffset::Letter };
        let (name, text) = optional_writer(UTC_DATE_TIME, form);
        assert_eq!(name, "utc_millis_option");
        assert!(text.contains("Some(value) => utc_millis(value, serializer),"), "{text}");
        assert!(!text.contains("SecondsFormat"), "{text}");
    }
}
