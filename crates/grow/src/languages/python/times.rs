//! Times that are written otherwise than pydantic does.

use std::sync::LazyLock;

use jar_sprout_layout::{print, text};
use jar_sprout_model::{Fraction, Scalar, TimeForm, ZeroOffset};

use super::{STYLE, call};
use crate::plan::{Plan, small_words};
use crate::prepare::suffix;
use crate::spell::Helper;
use crate::spell::{HelpersByTime, TimeHelpers};

/// The types of times that are written in a way of their own.
pub(super) static TYPES: LazyLock<HelpersByTime> =
    LazyLock::new(|| HelpersByTime(KINDS.map(|(kind, ty, length)| special(kind, ty, length))));

/// The functions that write times.
static WRITERS: LazyLock<HelpersByTime> =
    LazyLock::new(|| HelpersByTime(KINDS.map(|(kind, ty, length)| writers(kind, ty, length))));

/// What a kind of time is called, its type, and the length of one with microseconds, without its offset.
const KINDS: [(&str, &str, usize); 3] =
    [("DateTime", "dt.datetime", 26), ("LocalDateTime", "dt.datetime", 26), ("LocalTime", "dt.time", 15)];

/// The function that writes a time; none where the platform's own does.
pub(super) fn writer(plan: &Plan<'_>, scalar: Scalar) -> Option<Helper> {
    // The platform has no `Z`.
    let native = TimeForm { fraction: Fraction::NoneOr(6), zero: ZeroOffset::Letter };
    let of_offset = matches!(scalar, Scalar::DateTime(_)).then_some(native);
    WRITERS.get(scalar, plan.times.special_form(scalar).or(of_offset)?)
}

/// Functions that write a time.
fn writers(kind: &str, ty: &str, length: usize) -> TimeHelpers {
    TimeHelpers::new(|form| {
        let name = format!("_{}", small_words(&format!("{kind}{}", suffix(form)), "_"));
        let code = format!("import datetime as dt\n\n\n{}", function(&name, kind, ty, length, form));
        (name, code)
    })
}

fn function(name: &str, kind: &str, ty: &str, length: usize, form: TimeForm) -> String {
    let body = body(form, length, kind == "DateTime");
    format!("def {name}(value: {ty}) -> str:\n{body}\n")
}

/// `length` is that of a time with microseconds, without its offset.
fn special(kind: &str, ty: &str, length: usize) -> TimeHelpers {
    TimeHelpers::new(|form| {
        let name = format!("{kind}{}", suffix(form));
        let function = format!("_{}", small_words(&name, "_"));
        let serializer = format!("PlainSerializer({function}, when_used=\"json\")");
        let annotated = call("Annotated[", [ty.to_owned(), serializer].map(text).into_iter(), "]");
        let alias = print(&jar_sprout_layout::cat([text(format!("{name} = ")), annotated]), &STYLE);
        let written = self::function(&function, kind, ty, length, form);
        let imports =
            "import datetime as dt\nfrom pydantic import PlainSerializer\nfrom typing import Annotated\n";
        let code = format!("{imports}\n\n{written}\n\n{alias}\n");
        (name, code)
    })
}

/// The lines that write a time.
fn body(form: TimeForm, length: usize, has_offset: bool) -> String {
    let seconds = |digits: u8| if digits == 3 { "milliseconds" } else { "microseconds" };
    let in_zero = match form.zero {
        ZeroOffset::Letter if has_offset => ".replace(\"+00:00\", \"Z\")",
        ZeroOffset::Letter | ZeroOffset::Digits => "",
    };
    let of_spec = |spec: &str| format!("value.isoformat(timespec={spec}){in_zero}");
    let whole = format!("    text = {}\n", of_spec("\"microseconds\""));
    // What stands behind the fraction.
    let rest = |kept: String| if has_offset { format!("{kept} + text[{length}:]") } else { kept };
    match form.fraction {
        Fraction::Exactly(digits @ (3 | 6)) => {
            format!("    return {}", of_spec(&format!("\"{}\"", seconds(digits))))
        }
        Fraction::Exactly(digits) => {
            format!("{whole}    return {}", rest(format!("text[:{}]", length - 6 + usize::from(digits))))
        }
        Fraction::NoneOr(digits) => format!(
            "    timespec = \"{}\" if value.microsecond else \"seconds\"\n    return {}",
            seconds(digits),
            of_spec("timespec")
        ),
        Fraction::Shortest | Fraction::Threes => {
            let kept = if has_offset { format!("text[:{length}]") } else { "text".to_owned() };
            format!("{whole}    return {}", rest(format!("{kept}.rstrip(\"0\").rstrip(\".\")")))
        }
    }
}
