//! Dates and times that move by a length that nobody knows: all by the same, so that their order stays.

use std::hash::BuildHasher;

use crate::letters::Letters;

/// Days of the longest move, some nine years.
const FARTHEST: i64 = 3_300;

/// How far dates and times move.
pub(crate) struct Move {
    days: i64,
    months: i64,
    minutes: u32,
    seconds: u32,
}

impl Move {
    pub(crate) fn new(random: &impl BuildHasher) -> Self {
        let upto = |what: &str, most: u64| random.hash_one(("move", what)) % most;
        let signed = |what: &str, most: i64| {
            let length = 1 + i64::try_from(upto(what, most.unsigned_abs())).unwrap_or_default();
            if upto(what, 2) == 0 { -length } else { length }
        };
        let small = |what: &str, most: u64| 1 + u32::try_from(upto(what, most - 1)).unwrap_or_default();
        Self {
            days: signed("days", FARTHEST),
            months: signed("months", 90),
            minutes: small("minutes", 1_440),
            seconds: small("seconds", 60),
        }
    }

    /// Seconds since 1970, moved by as many days.
    pub(crate) fn seconds(&self) -> i64 {
        self.days * 86_400 + i64::from(self.minutes) * 60 + i64::from(self.seconds)
    }

    /// `2026-05-01`, and what stands behind it as it is; none where it is no date.
    pub(crate) fn date<S: BuildHasher>(&self, text: &str, letters: &mut Letters<'_, S>) -> Option<String> {
        let (date, rest) = text.split_at_checked(10)?;
        let moved = days_of(date)? + self.days;
        let (year, month, day) = civil(moved);
        if !(1..=9999).contains(&year) {
            return None;
        }
        let mut out = format!("{year:04}-{month:02}-{day:02}");
        match rest.split_at_checked(1) {
            None => {}
            Some((mark, time)) => {
                out.push_str(mark);
                out.push_str(&self.time(time, letters)?);
            }
        }
        Some(out)
    }

    /// `2026-05`
    pub(crate) fn month(&self, text: &str) -> Option<String> {
        let (year, month) = text.split_once('-')?;
        let months = year.parse::<i64>().ok()? * 12 + month.parse::<i64>().ok()? - 1 + self.months;
        Some(format!("{:04}-{:02}", months.div_euclid(12), months.rem_euclid(12) + 1))
    }

    /// `10:30:00.120+02:00`: the offset stays.
    pub(crate) fn time<S: BuildHasher>(&self, text: &str, letters: &mut Letters<'_, S>) -> Option<String> {
        let number = |at: usize| text.get(at..at + 2)?.parse::<u32>().ok();
        let minutes = (number(0)? * 60 + number(3)? + self.minutes) % 1_440;
        let mut out = format!("{:02}:{:02}", minutes / 60, minutes % 60);
        let mut rest = text.get(5..)?;
        if rest.starts_with(':') {
            let seconds = number(6)?;
            // A leap second stays one.
            let seconds = if seconds == 60 { 60 } else { (seconds + self.seconds) % 60 };
            out.push_str(&format!(":{seconds:02}"));
            rest = text.get(8..)?;
        }
        if let Some(fraction) = rest.strip_prefix('.') {
            let end = fraction.find(|c: char| !c.is_ascii_digit()).unwrap_or(fraction.len());
            out.push('.');
            out.extend(fraction[..end].chars().map(|digit| letters.next(digit)));
            rest = &fraction[end..];
        }
        out.push_str(rest);
        Some(out)
    }
}

/// The days of a date since 1 March of the year 0.
fn days_of(date: &str) -> Option<i64> {
    let mut parts = date.split('-').map(|part| part.parse::<i64>().ok());
    let (year, month, day) = (parts.next()??, parts.next()??, parts.next()??);
    // Years begin in March, so that the odd day comes last.
    let year = if month <= 2 { year - 1 } else { year };
    let (era, of_era) = (year.div_euclid(400), year.rem_euclid(400));
    let of_year = (153 * ((month + 9) % 12) + 2) / 5 + day - 1;
    Some(era * 146_097 + of_era * 365 + of_era / 4 - of_era / 100 + of_year)
}

/// The date so many days after 1 March of the year 0.
fn civil(days: i64) -> (i64, i64, i64) {
    let (era, of_era) = (days.div_euclid(146_097), days.rem_euclid(146_097));
    let year = (of_era - of_era / 1_460 + of_era / 36_524 - of_era / 146_096) / 365;
    let of_year = of_era - (365 * year + year / 4 - year / 100);
    let month = (5 * of_year + 2) / 153;
    let day = of_year - (153 * month + 2) / 5 + 1;
    let month = if month < 10 { month + 3 } else { month - 9 };
    (era * 400 + year + i64::from(month <= 2), month, day)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn days_and_dates_are_each_others_opposite() {
        for (date, days) in [("0000-03-01", 0), ("1970-01-01", 719_468), ("2024-02-29", 739_250)] {
            assert_eq!(days_of(date), Some(days), "{date}");
        }
        for days in 730_000..740_000 {
            let (year, month, day) = civil(days);
            assert!((1..=12).contains(&month) && (1..=31).contains(&day), "{year}-{month}-{day}");
            assert_eq!(days_of(&format!("{year:04}-{month:02}-{day:02}")), Some(days));
        }
    }
}
