//! Numbers at one position: whole or not as written, and their range.

use jar_sprout_model::Place;

use crate::tally::{Example, Tally};
use crate::token::{Number, Written};

/// The most characters of a number kept as an example.
const EXAMPLE_LENGTH: usize = 40;

/// What numbers were seen. `8` and `8.0` differ in writing: only the first is an integer.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Numbers {
    /// Written without fraction or exponent.
    pub integers: Tally,
    /// Written with a fraction or an exponent.
    pub fractions: Tally,
    /// Of `fractions`: those that are whole all the same, such as `8.0`.
    pub whole_fractions: u64,
    /// The integers' range; those beyond 128 bits count as the nearest end.
    pub integer_range: Option<Range<i128>>,
    /// The fractions' range as 64-bit floats.
    pub fraction_range: Option<Range<f64>>,
    example: Option<Example>,
}

/// The least and the greatest value seen.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Range<T> {
    /// The least.
    pub least: T,
    /// The greatest.
    pub greatest: T,
}

impl Numbers {
    /// How many numbers were seen.
    pub fn count(&self) -> u64 {
        self.integers.count + self.fractions.count
    }

    /// Whether any number had a fraction or an exponent, which makes the position a float.
    pub fn has_fractions(&self) -> bool {
        self.fractions.count > 0
    }

    /// The first number seen, as it was written, cut if very long.
    pub fn example(&self) -> Option<&str> {
        self.example.as_ref().map(|e| e.text.as_str())
    }

    /// Counts one number.
    pub(crate) fn observe(&mut self, number: &Number<'_>, place: Place) {
        let Number { literal, written } = number;
        if self.example.is_none() {
            let text = ascii(&literal[..literal.len().min(EXAMPLE_LENGTH)]).to_owned();
            self.example = Some(Example { place, text });
        }
        match written {
            // Only floats have a zero below zero, and some parsers take it for one.
            Written::Integer if literal != b"-0" => {
                self.integers.add(place);
                Range::include(&mut self.integer_range, integer(literal));
            }
            Written::Integer | Written::Fraction => {
                self.fractions.add(place);
                let value: f64 = ascii(literal).parse().unwrap_or(f64::MAX);
                self.whole_fractions += u64::from(value.fract() == 0.0);
                Range::include(&mut self.fraction_range, value);
            }
        }
    }

    /// Adds what other numbers showed.
    pub fn merge(&mut self, other: Self) {
        let Self { integers, fractions, whole_fractions, integer_range, fraction_range, example } = other;
        self.integers.merge(integers);
        self.fractions.merge(fractions);
        self.whole_fractions += whole_fractions;
        Range::merge(&mut self.integer_range, integer_range);
        Range::merge(&mut self.fraction_range, fraction_range);
        Example::merge(&mut self.example, example);
    }
}

fn ascii(literal: &[u8]) -> &str {
    str::from_utf8(literal).expect("digits and signs are ASCII")
}

fn integer(literal: &[u8]) -> i128 {
    // 18 digits always fit 64 bits: the common case needs no check for overflow.
    if literal.len() <= 18 {
        let digits = literal.strip_prefix(b"-").unwrap_or(literal);
        let value = digits.iter().fold(0_i64, |sum, digit| sum * 10 + i64::from(digit - b'0'));
        return i128::from(if digits.len() < literal.len() { -value } else { value });
    }
    let limit = if literal.starts_with(b"-") { i128::MIN } else { i128::MAX };
    ascii(literal).parse().unwrap_or(limit)
}

impl<T: PartialOrd + Copy> Range<T> {
    #[inline]
    fn include(range: &mut Option<Self>, value: T) {
        match range {
            None => *range = Some(Self { least: value, greatest: value }),
            Some(range) if value < range.least => range.least = value,
            Some(range) if value > range.greatest => range.greatest = value,
            Some(_) => {}
        }
    }

    fn merge(mine: &mut Option<Self>, theirs: Option<Self>) {
        let Some(theirs) = theirs else { return };
        match mine {
            None => *mine = Some(theirs),
            Some(mine) => {
                if theirs.least < mine.least {
                    mine.least = theirs.least;
                }
                if theirs.greatest > mine.greatest {
                    mine.greatest = theirs.greatest;
                }
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn observe(literals: &[&str]) -> Numbers {
        let mut numbers = Numbers::default();
        for (offset, literal) in (0..).zip(literals) {
            let is_integer = literal.bytes().all(|b| b.is_ascii_digit() || b == b'-');
            let written = if is_integer { Written::Integer } else { Written::Fraction };
            let number = Number { literal: literal.as_bytes(), written };
            numbers.observe(&number, Place { offset, line: 1, ..PLACE });
        }
        numbers
    }

    const PLACE: Place = Place { source: jar_sprout_model::SourceId(0), offset: 0, line: 1 };

    #[test]
    fn writing_decides_between_integer_and_fraction() {
        let numbers = observe(&["8", "8.0", "8e0", "8.4"]);
        assert_eq!((numbers.integers.count, numbers.fractions.count, numbers.whole_fractions), (1, 3, 2));
        assert_eq!(numbers.example(), Some("8"));
    }

    #[test]
    fn range_holds_every_integer() {
        let range = |literals: &[&str]| observe(literals).integer_range.map(|r| (r.least, r.greatest));
        assert_eq!(range(&["-5", "7", "0"]), Some((-5, 7)));
        assert_eq!(range(&["9223372036854775808"]), Some((1 << 63, 1 << 63)));
        assert_eq!(range(&["-0"]), None);
        let huge = "9".repeat(60);
        assert_eq!(range(&[&huge, "1"]), Some((1, i128::MAX)));
        assert_eq!(range(&["8.5"]), None);
    }

    #[test]
    fn a_number_beyond_every_float_is_still_counted() {
        let numbers = observe(&["1e400", "-1e400"]);
        assert_eq!(numbers.fractions.count, 2);
    }
}
