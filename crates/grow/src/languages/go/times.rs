//! Times that are written otherwise than `encoding/json` and the usual helpers do.

use std::sync::LazyLock;

use jar_sprout_model::{Fraction, ZeroOffset};

use crate::prepare::suffix;
use crate::spell::Helper;
use crate::spell::swap;
use crate::spell::{HelpersByTime, TimeHelpers};

/// A time with its offset; the platform's own type writes it in the usual way.
const TIME: Helper = Helper { name: "Time", text: include_str!("time.go") };

pub(super) const LOCAL_DATE_TIME: Helper =
    Helper { name: "LocalDateTime", text: include_str!("local_date_time.go") };
pub(super) const LOCAL_TIME: Helper = Helper { name: "LocalTime", text: include_str!("local_time.go") };

/// The type of a time that is written in a way of its own.
pub(super) static TIMES: LazyLock<HelpersByTime> =
    LazyLock::new(|| HelpersByTime([TIME, LOCAL_DATE_TIME, LOCAL_TIME].map(special)));

/// Types that differ from the usual one in the layout they write.
fn special(usual: Helper) -> TimeHelpers {
    TimeHelpers::new(|form| {
        let name = format!("{}{}", usual.name, suffix(form));
        let text = [("// ", " is"), ("type ", " struct"), ("(t ", ")"), ("(t *", ")")].iter().fold(
            usual.text.to_owned(),
            |text, (before, behind)| {
                text.replace(&format!("{before}{}{behind}", usual.name), &format!("{before}{name}{behind}"))
            },
        );
        assert!(text.contains(&format!("type {name} struct")), "{text}");
        let write = text.lines().find(|line| line.contains("t.Format(")).expect("it is written");
        let in_layout = |fraction: &str| {
            let line = swap(write, ".999999999", fraction);
            match form.zero {
                ZeroOffset::Letter => line,
                ZeroOffset::Digits => line.replace("Z07:00", "-07:00"),
            }
        };
        let digits = |count: u8| format!(".{}", "0".repeat(usize::from(count)));
        let written = match form.fraction {
            Fraction::Shortest | Fraction::Threes => in_layout(".999999999"),
            Fraction::Exactly(count) => in_layout(&digits(count)),
            Fraction::NoneOr(count) => {
                let whole = in_layout("");
                format!("\tif t.Nanosecond() == 0 {{\n\t{whole}\n\t}}\n{}", in_layout(&digits(count)))
            }
        };
        let text = swap(&text, write, &written);
        (name, text)
    })
}
