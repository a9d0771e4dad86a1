//! Converters of dates and times, for System.Text.Json.

use std::sync::LazyLock;

use jar_sprout_model::{Fraction, Scalar, TimeForm, ZeroOffset};

use crate::plan::Plan;
use crate::prepare::suffix;
use crate::spell::Helper;
use crate::spell::swap;
use crate::spell::{HelpersByTime, TimeHelpers};

const RFC_3339: &str = include_str!("Rfc3339Converter.cs");
const DATE_TIME: &str = include_str!("DateTimeConverter.cs");
const TIME_ONLY: &str = include_str!("TimeOnlyConverter.cs");

/// The usual way, with its offset; the library's own forgets that `Z` was written so.
const RFC_3339_CONVERTER: Helper = Helper { name: "Rfc3339Converter", text: RFC_3339 };
/// The usual way; the library's own writes seven digits.
const TIME_ONLY_CONVERTER: Helper = Helper { name: "TimeOnlyConverter", text: TIME_ONLY };

/// Converters for all ways but the usual one.
static SPECIAL: LazyLock<HelpersByTime> = LazyLock::new(|| {
    HelpersByTime(
        [("Rfc3339", RFC_3339), ("DateTime", DATE_TIME), ("TimeOnly", TIME_ONLY)]
            .map(|(name, text)| special(name, text)),
    )
});

/// The converter that a property of this type needs.
pub(super) fn converter(plan: &Plan<'_>, scalar: Scalar) -> Option<Helper> {
    let usual = if let Scalar::DateTime(_) = scalar {
        Some(RFC_3339_CONVERTER)
    } else if let Scalar::Time(forms) = scalar {
        (!forms.has(WHOLE)).then_some(TIME_ONLY_CONVERTER)
    } else {
        None
    };
    SPECIAL.special(plan, scalar).or(usual)
}

/// What whole seconds can be taken for.
const WHOLE: TimeForm = TimeForm { fraction: Fraction::NoneOr(3), zero: ZeroOffset::Letter };

/// Converters for all ways but the usual one: another layout, and what is done with it where one is not enough.
fn special(name: &str, text: &str) -> TimeHelpers {
    let converter = format!("{name}Converter");
    let constant = text.lines().find(|line| line.contains("const string Local")).expect("there is a layout");
    let (head, write) = text.rsplit_once("    {\n").expect("a converter writes");
    let layout = |name: &str, fraction: &str| {
        swap(&swap(constant, " Local", &format!(" {name}")), ".FFFFFFF", fraction)
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
        let code = format!("{}    {{\n{write}", swap(head, constant, &constants));
        (special.clone(), swap(&code, &converter, &special))
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

#[cfg(test)]
mod tests {
    use super::*;

    fn code(name: &str, text: &str, fraction: Fraction, zero: ZeroOffset) -> String {
        let helpers = Box::leak(Box::new(special(name, text)));
        helpers.get(TimeForm { fraction, zero }).text.to_owned()
    }

    #[test]
    fn a_converter_differs_in_its_layout() {
        let millis = code("DateTime", DATE_TIME, Fraction::Exactly(3), ZeroOffset::Letter);
        assert!(millis.contains("class DateTimeMillisConverter : JsonConverter<DateTime>"), "{millis}");
        assert!(millis.contains("const string Local = \"yyyy-MM-dd'T'HH:mm:ss.fff\""), "{millis}");
        let optional = code("TimeOnly", TIME_ONLY, Fraction::NoneOr(6), ZeroOffset::Letter);
        assert!(optional.contains("const string Whole = \"HH:mm:ss\""), "{optional}");
        assert!(optional.contains("const string Fractional = \"HH:mm:ss.ffffff\""), "{optional}");
        assert!(optional.contains("value.ToString(local, CultureInfo"), "{optional}");
    }

    #[test]
    fn an_offset_of_zero_in_digits_is_no_letter() {
        for fraction in [Fraction::Exactly(3), Fraction::NoneOr(3), Fraction::Shortest] {
            let digits = code("Rfc3339", RFC_3339, fraction, ZeroOffset::Digits);
            assert!(!digits.contains("'Z'") && digits.contains("\"zzz\""), "{digits}");
            let letter = code("Rfc3339", RFC_3339, fraction, ZeroOffset::Letter);
            assert!(letter.contains("'Z'"), "{letter}");
        }
    }
}
