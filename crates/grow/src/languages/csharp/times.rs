//! Converters of dates and times, for System.Text.Json.

use std::sync::LazyLock;

use jar_sprout_model::{Fraction, Scalar, TimeForm, ZeroOffset};

use crate::code::Helper;
use crate::plan::Plan;
use crate::times::{TimeHelpers, suffix};

const RFC_3339: &str = include_str!("Rfc3339Converter.cs");
const DATE_TIME: &str = include_str!("DateTimeConverter.cs");
const TIME_ONLY: &str = include_str!("TimeOnlyConverter.cs");

/// The usual way, with its offset; the library's own forgets that `Z` was written so.
const RFC_3339_CONVERTER: Helper = Helper { name: "Rfc3339Converter", text: RFC_3339 };
/// The usual way; the library's own writes seven digits.
const TIME_ONLY_CONVERTER: Helper = Helper { name: "TimeOnlyConverter", text: TIME_ONLY };

static SPECIAL_RFC_3339: LazyLock<TimeHelpers> = LazyLock::new(|| special("Rfc3339", RFC_3339));
static SPECIAL_DATE_TIME: LazyLock<TimeHelpers> = LazyLock::new(|| special("DateTime", DATE_TIME));
static SPECIAL_TIME_ONLY: LazyLock<TimeHelpers> = LazyLock::new(|| special("TimeOnly", TIME_ONLY));

/// The converter that a property of this type needs.
pub(super) fn converter(plan: &Plan<'_>, scalar: Scalar) -> Option<Helper> {
    let special = scalar.time_forms().and_then(|forms| plan.times.special_form(forms));
    let has_fraction = |scalar: Scalar| scalar.time_forms().is_some_and(|forms| !forms.has(WHOLE));
    match (scalar, special) {
        (Scalar::DateTime(_), None) => Some(RFC_3339_CONVERTER),
        (Scalar::DateTime(_), Some(form)) => Some(SPECIAL_RFC_3339.get(form)),
        (Scalar::LocalDateTime(_), Some(form)) => Some(SPECIAL_DATE_TIME.get(form)),
        (Scalar::Time(_), None) if has_fraction(scalar) => Some(TIME_ONLY_CONVERTER),
        (Scalar::Time(_), Some(form)) => Some(SPECIAL_TIME_ONLY.get(form)),
        _ => None,
    }
}

/// What whole seconds can be taken for.
const WHOLE: TimeForm = TimeForm { fraction: Fraction::NoneOr(3), zero: ZeroOffset::Letter };

/// Converters for all ways but the usual one: another layout, and what is done with it where one is not enough.
fn special(name: &str, text: &str) -> TimeHelpers {
    let converter = format!("{name}Converter");
    let constant = text.lines().find(|line| line.contains("const string Local")).expect("there is a layout");
    let (head, write) = text.rsplit_once("    {\n").expect("a converter writes");
    let layout = |name: &str, fraction: &str| {
        constant.replacen(" Local", &format!(" {name}"), 1).replacen(".FFFFFFF", fraction, 1)
    };
    TimeHelpers::new(|form| {
        let digits = |count: u8| format!(".{}", "f".repeat(usize::from(count)));
        let (constants, choice) = match form.fraction {
            Fraction::Shortest | Fraction::Threes => (constant.to_owned(), None),
            Fraction::Exactly(count) => (layout("Local", &digits(count)), None),
            Fraction::NoneOr(count) => {
                let constants = [layout("Whole", ""), layout("Fractional", &digits(count))].join("\n");
                (constants, Some(if name == "TimeOnly" { CHOICE_OF_TIME } else { CHOICE }))
            }
        };
        let write = match choice {
            Some(choice) => {
                format!("{choice}{}", write.replace("(Local,", "(local,").replace(" Local +", " local +"))
            }
            None => write.to_owned(),
        };
        let write = match form.zero {
            ZeroOffset::Letter => write,
            ZeroOffset::Digits => DIGITS.iter().fold(write, |write, (from, to)| write.replace(from, to)),
        };
        let special = format!("{name}{}Converter", suffix(form));
        let code = format!("{}    {{\n{write}", head.replacen(constant, &constants, 1));
        (special.clone(), code.replace(&converter, &special))
    })
}

const CHOICE: &str = "        var local = value.Ticks % TimeSpan.TicksPerSecond == 0 ? Whole : Fractional;\n";

/// A time tells its ticks to newer run-times alone.
const CHOICE_OF_TIME: &str = "        var local =\n            value.ToString(\"FFFFFFF\", CultureInfo.InvariantCulture).Length == 0\n                ? Whole\n                : Fractional;\n";

/// An offset of zero in digits is written as any other.
const DIGITS: [(&str, &str); 2] = [
    ("value.Offset == TimeSpan.Zero ? Local + \"'Z'\" : Local + \"zzz\"", "Local + \"zzz\""),
    ("value.Offset == TimeSpan.Zero ? local + \"'Z'\" : local + \"zzz\"", "local + \"zzz\""),
];
