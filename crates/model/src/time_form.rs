//! How times are written: their fraction of a second, and an offset of zero.

/// How the fraction of a second is written, of RFC 3339, section 5.6.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum Fraction {
    /// No zero at the end: `12:30:00`, `12:30:00.5`, `12:30:00.25`.
    Shortest,
    /// So many digits, 1 to 6: `12:30:00.500`.
    Exactly(u8),
    /// Nothing for a whole second, else so many digits, 3 or 6: `12:30:00`, `12:30:00.500`.
    NoneOr(u8),
    /// As many threes of digits as it takes: `12:30:00`, `12:30:00.500`, `12:30:00.000250`.
    Threes,
}

/// How an offset of zero is written.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub enum ZeroOffset {
    /// `Z`
    Letter,
    /// `+00:00`
    Digits,
}

/// One way to write times.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub struct TimeForm {
    /// The fraction of a second.
    pub fraction: Fraction,
    /// An offset of zero.
    pub zero: ZeroOffset,
}

/// The ways to write times that give back every text of a place as it was.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub struct TimeForms(u16);

/// All fractions, in the order of their bits.
const FRACTIONS: [Fraction; 10] = [
    Fraction::Shortest,
    Fraction::Exactly(1),
    Fraction::Exactly(2),
    Fraction::Exactly(3),
    Fraction::Exactly(4),
    Fraction::Exactly(5),
    Fraction::Exactly(6),
    Fraction::NoneOr(3),
    Fraction::NoneOr(6),
    Fraction::Threes,
];

const ZEROS: [ZeroOffset; 2] = [ZeroOffset::Letter, ZeroOffset::Digits];

impl TimeForms {
    /// Every way, where no text was seen.
    pub const ALL: Self = Self((1 << (FRACTIONS.len() + ZEROS.len() + 1)) - 1);

    /// That no text had another offset than `Z`.
    const IN_UTC: u16 = 1 << (FRACTIONS.len() + ZEROS.len());

    /// The ways that write this RFC 3339 date-time or time as it is.
    pub fn of(text: &str) -> Self {
        let (_, behind) = text.split_once('.').unwrap_or(("", ""));
        let digits = behind.split(|c: char| !c.is_ascii_digit()).next().unwrap_or_default();
        let is_whole = digits.bytes().all(|digit| digit == b'0');
        let ends_in = |zeros: &str| digits.ends_with(zeros);
        let writes = |fraction: &Fraction| match *fraction {
            Fraction::Shortest => !ends_in("0"),
            Fraction::Exactly(count) => digits.len() == usize::from(count),
            Fraction::NoneOr(count) => digits.is_empty() || digits.len() == usize::from(count) && !is_whole,
            Fraction::Threes => match digits.len() {
                0 => true,
                3 | 6 => !ends_in("000"),
                _ => false,
            },
        };
        let zero = |zero: &ZeroOffset| match zero {
            ZeroOffset::Letter => !text.ends_with("+00:00"),
            ZeroOffset::Digits => !text.ends_with('Z'),
        };
        let ways = FRACTIONS.iter().map(writes).chain(ZEROS.iter().map(zero)).chain([text.ends_with('Z')]);
        Self(ways.enumerate().fold(0, |bits, (at, writes)| bits | (u16::from(writes) << at)))
    }

    /// The ways that both have.
    #[must_use]
    pub fn and(self, other: Self) -> Self {
        Self(self.0 & other.0)
    }

    /// Whether every text was in UTC, and said so by a `Z`.
    pub fn are_in_utc(self) -> bool {
        self.0 & Self::IN_UTC != 0
    }

    /// Whether a form writes every text back.
    pub fn has(self, form: TimeForm) -> bool {
        let fraction = FRACTIONS.iter().position(|one| *one == form.fraction);
        let zero = ZEROS.iter().position(|one| *one == form.zero).map(|at| at + FRACTIONS.len());
        [fraction, zero].into_iter().flatten().all(|at| self.0 & (1 << at) != 0)
    }
}

impl Default for TimeForms {
    fn default() -> Self {
        Self::ALL
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn all(texts: &[&str]) -> TimeForms {
        texts.iter().fold(TimeForms::ALL, |forms, text| forms.and(TimeForms::of(text)))
    }

    #[track_caller]
    fn check(texts: &[&str], fractions: &[Fraction], zeros: &[ZeroOffset]) {
        let forms = all(texts);
        for fraction in FRACTIONS {
            for zero in ZEROS {
                let expected = fractions.contains(&fraction) && zeros.contains(&zero);
                assert_eq!(
                    forms.has(TimeForm { fraction, zero }),
                    expected,
                    "{texts:?} {fraction:?} {zero:?}"
                );
            }
        }
    }

    #[test]
    fn an_offset_is_not_utc() {
        assert!(all(&[]).are_in_utc());
        assert!(all(&["2026-05-01T12:30:00Z"]).are_in_utc());
        assert!(!all(&["2026-05-01T12:30:00Z", "2026-05-01T12:30:00+02:00"]).are_in_utc());
    }

    #[test]
    fn a_text_leaves_the_ways_that_write_it() {
        use Fraction::{Exactly, NoneOr, Shortest, Threes};
        use ZeroOffset::{Digits, Letter};
        check(&[], &FRACTIONS, &ZEROS);
        check(&["12:30:00"], &[Shortest, NoneOr(3), NoneOr(6), Threes], &ZEROS);
        check(&["2026-05-01T12:30:00.5Z"], &[Shortest, Exactly(1)], &[Letter]);
        check(&["2026-05-01T12:30:00.120Z"], &[Exactly(3), NoneOr(3), Threes], &[Letter]);
        check(&["2026-05-01T12:30:00.000Z"], &[Exactly(3)], &[Letter]);
        check(&["2026-05-01T12:30:00.123+00:00"], &[Shortest, Exactly(3), NoneOr(3), Threes], &[Digits]);
        check(&["2026-05-01T12:30:00.120000+02:00"], &[Exactly(6), NoneOr(6)], &ZEROS);
        check(&["12:30:00.120", "12:30:00", "12:30:00.000250"], &[Threes], &ZEROS);
        check(&["12:30:00.120", "12:30:00.5"], &[], &ZEROS);
        check(
            &["2026-05-01T12:30:00Z", "2026-05-01T12:30:00+00:00"],
            &[Shortest, NoneOr(3), NoneOr(6), Threes],
            &[],
        );
    }
}
