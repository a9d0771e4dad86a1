//! Times of kotlinx-datetime, for code that runs on more than the JVM.

use std::sync::LazyLock;

use jar_sprout_model::{Coding, Fraction, Scalar, TimeForm};

use super::foreign::Foreign;
use crate::prepare::suffix;
use crate::spell::{EpochHelpers, Helper, TimeHelpers, swap};

/// How a type of the library is written in a special way.
struct FormatStyle {
    /// The type.
    ty: &'static str,
    /// The format of the library that writes it in the usual way.
    usual: &'static str,
    /// What a format of its own is made with.
    builder: &'static str,
    /// What stands in it before the hours, and behind the seconds.
    around: [&'static [&'static str]; 2],
    /// Names that it takes beside.
    imports: &'static [&'static str],
    /// The property with the fraction of a second.
    fraction: &'static str,
}

const DATE: &[&str] = &["date(LocalDate.Formats.ISO)", "char('T')"];

const INSTANT_STYLE: FormatStyle = FormatStyle {
    ty: "Instant",
    usual: "DateTimeComponents.Formats.ISO_DATE_TIME_OFFSET",
    builder: "DateTimeComponents.Format",
    around: [DATE, &["offset(UtcOffset.Formats.ISO)"]],
    imports: &["kotlinx.datetime.LocalDate", "kotlinx.datetime.UtcOffset"],
    fraction: "nanosecondsOfSecond",
};

const LOCAL_DATE_TIME_STYLE: FormatStyle = FormatStyle {
    ty: "LocalDateTime",
    usual: "LocalDateTime.Formats.ISO",
    builder: "LocalDateTime.Format",
    around: [DATE, &[]],
    imports: &["kotlinx.datetime.LocalDate"],
    fraction: "nanosecond",
};

const LOCAL_TIME_STYLE: FormatStyle = FormatStyle {
    ty: "LocalTime",
    usual: "LocalTime.Formats.ISO",
    builder: "LocalTime.Format",
    around: [&[], &[]],
    imports: &[],
    fraction: "nanosecond",
};

macro_rules! of_library {
    ($import:literal, $name:literal, $serializer:literal, $special:expr) => {
        Foreign {
            name: $name,
            import: $import,
            serializer: Helper {
                name: $serializer,
                text: include_str!(concat!("kotlinx/datetime/", $serializer, ".kt")),
            },
            special: LazyLock::new(|| {
                let text = include_str!(concat!("kotlinx/datetime/", $serializer, ".kt"));
                let special: fn(&str, TimeForm) -> (String, String) = $special;
                TimeHelpers::new(|form| special(text, form))
            }),
        }
    };
}

static INSTANT: Foreign = of_library!("kotlin.time.Instant", "Instant", "InstantSerializer", |text, form| {
    in_form(text, &INSTANT_STYLE, form)
});
static LOCAL_DATE_TIME: Foreign = of_library!(
    "kotlinx.datetime.LocalDateTime",
    "LocalDateTime",
    "LocalDateTimeSerializer",
    |text, form| in_form(text, &LOCAL_DATE_TIME_STYLE, form)
);
static LOCAL_TIME: Foreign =
    of_library!("kotlinx.datetime.LocalTime", "LocalTime", "LocalTimeSerializer", |text, form| {
        in_form(text, &LOCAL_TIME_STYLE, form)
    });
static LOCAL_DATE: Foreign =
    of_library!("kotlinx.datetime.LocalDate", "LocalDate", "LocalDateSerializer", |text, _| {
        ("LocalDateSerializer".to_owned(), text.to_owned())
    });

/// The library's type for a scalar. It has none for a time with another offset than that of UTC.
pub(super) fn foreign(scalar: Scalar) -> Option<&'static Foreign> {
    match scalar {
        Scalar::DateTime(_) => Some(&INSTANT),
        Scalar::LocalDateTime(_) => Some(&LOCAL_DATE_TIME),
        Scalar::Date => Some(&LOCAL_DATE),
        Scalar::Time(_) => Some(&LOCAL_TIME),
        Scalar::Boolean
        | Scalar::Always(_)
        | Scalar::Integer(_)
        | Scalar::Float
        | Scalar::Text
        | Scalar::Uuid
        | Scalar::Uri
        | Scalar::Decimal
        | Scalar::Coded(_) => None,
    }
}

/// What reads and writes points in time that are numbers.
pub(super) fn of_epoch(coding: Coding) -> Helper {
    static SERIALIZERS: EpochHelpers = EpochHelpers::new(
        Helper {
            name: "EpochSecondsSerializer",
            text: include_str!("kotlinx/datetime/EpochSecondsSerializer.kt"),
        },
        &[
            ("EpochSeconds", "EpochMilliseconds"),
            ("as the seconds", "as the milliseconds"),
            ("value.epochSeconds", "value.toEpochMilliseconds()"),
        ],
    );
    SERIALIZERS.get(coding)
}

/// The serializer that writes times in a way of its own: its name and its code.
fn in_form(text: &str, style: &FormatStyle, form: TimeForm) -> (String, String) {
    let usual_name = format!("{}Serializer", style.ty);
    let name = format!("{}{}Serializer", style.ty, suffix(form));
    let digits = match form.fraction {
        Fraction::Exactly(digits) | Fraction::NoneOr(digits) => digits,
        Fraction::Shortest | Fraction::Threes => return (name.clone(), swap(text, &usual_name, &name)),
    };
    let is_whole_apart = matches!(form.fraction, Fraction::NoneOr(_));
    let [before, behind] = style.around;
    let format = |name: &str, digits: Option<u8>| {
        let seconds = ["hour()", "char(':')", "minute()", "char(':')", "second()"];
        let fraction = digits.map(|digits| ["char('.')".to_owned(), format!("secondFraction({digits})")]);
        let lines = before.iter().chain(&seconds).map(|line| (*line).to_owned());
        let lines = lines.chain(fraction.into_iter().flatten());
        let lines = lines.chain(behind.iter().map(|line| (*line).to_owned()));
        let lines: String = lines.map(|line| format!("            {line}\n")).collect();
        format!("    private val {name} =\n        {} {{\n{lines}        }}\n\n", style.builder)
    };
    let whole = if is_whole_apart { format("whole", None) } else { String::new() };
    let formats = whole + &format("format", Some(digits));
    let chosen = if is_whole_apart {
        format!("if (value.{} == 0) whole else format", style.fraction)
    } else {
        "format".to_owned()
    };
    let imports: String = style
        .imports
        .iter()
        .chain(&["kotlinx.datetime.format.char"])
        .map(|name| format!("import {name}\n"))
        .collect();
    let text = swap(text, &usual_name, &name);
    let head = format!("KSerializer<{}> {{\n", style.ty);
    let text = swap(&text, &head, &format!("{head}{formats}"));
    let text = swap(&text, &format!("value.format({})", style.usual), &format!("value.format({chosen})"));
    (name, imports + &text)
}
