//! Numbers: other digits, as many of them, on the same side of every border that types have.

use std::hash::BuildHasher;
use std::ops::RangeInclusive;

use crate::letters::Letters;
use crate::texts::TRIES;
use crate::times::Move;

/// Seconds since 1970 that somebody may mean: from 1990 to 2100.
const SECONDS: RangeInclusive<i64> = 631_152_000..=4_102_444_799;

/// A number as JSON has it: other digits, zeros where there were zeros.
pub(crate) fn scrubbed<S: BuildHasher>(literal: &str, random: &S, moved: &Move) -> String {
    if let Some(moved) = since_1970(literal, moved) {
        return moved;
    }
    let wanted = class(literal);
    let mut tries = (0..TRIES).map(|salt| turned(literal, random, salt));
    tries.find(|new| class(new) == wanted).unwrap_or_else(|| literal.to_owned())
}

/// Digits, but for those of an exponent.
fn turned<S: BuildHasher>(literal: &str, random: &S, salt: u64) -> String {
    let mut letters = Letters::new(random, salt);
    let end = literal.find(['e', 'E']).unwrap_or(literal.len());
    literal[..end].chars().map(|c| letters.next(c)).chain(literal[end..].chars()).collect()
}

/// A point in time as a number, moved as dates are.
fn since_1970(literal: &str, moved: &Move) -> Option<String> {
    let value: i64 = literal.parse().ok()?;
    for unit in [1, 1_000] {
        let start = value.div_euclid(unit);
        let new = start.saturating_add(moved.seconds());
        if SECONDS.contains(&start) && SECONDS.contains(&new) {
            let new = (new * unit + value.rem_euclid(unit)).to_string();
            return Some(new).filter(|new| class(new) == class(literal));
        }
    }
    None
}

/// What types tell of a number: whether it is whole, and how wide.
fn class(literal: &str) -> (usize, bool, bool, bool, bool, bool) {
    const EXACT: i64 = 1 << 53;
    let integer = literal.parse::<i64>().ok();
    (
        literal.len(),
        integer.is_some(),
        integer.is_some_and(|value| i32::try_from(value).is_ok()),
        integer.is_some_and(|value| (-EXACT..=EXACT).contains(&value)),
        literal.parse::<u64>().is_ok(),
        literal.parse::<f64>().is_ok_and(|value| value.fract() == 0.0),
    )
}
