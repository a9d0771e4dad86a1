//! Forms of text: what a text looks like, judged by its letters alone.

/// The one form a text has. What no form fits is [`Form::Plain`].
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Form {
    /// Empty, or nothing but white space.
    Blank,
    /// `2026-05-01T12:30:00.5Z`: RFC 3339, section 5.6, with its offset.
    DateTime,
    /// `2026-05-01T12:30:00`: the same without an offset, the `T` perhaps a space.
    LocalDateTime,
    /// `2026-05-01`: RFC 3339's full-date, a day that exists.
    Date,
    /// `12:30:00.5`: RFC 3339's partial-time
    Time,
    /// `2026-05-01 12:30`, `2026-05-01t12:30:00z`: a date and a time, written as RFC 3339 and its readers do not.
    LooseDateTime,
    /// `12:30`
    HourAndMinute,
    /// `6f1c0a52-8d0e-4c0f-9d5e-0c7f3a1b2d4e`: RFC 9562, section 4.
    Uuid,
    /// `https://honey.example/hives`: an absolute URI with an authority, RFC 3986.
    Uri,
    /// `ada@honey.example`
    Email,
    /// `192.0.2.7` or `2001:db8::7`
    Ip,
    /// `17`: no leading zero, no plus sign.
    Whole,
    /// `12.50`
    Decimal,
    /// `1,234,567.5`: thousands apart.
    Grouped,
    /// `142 min`, `40%`: a number, and a short word behind it.
    Quantity,
    /// `true`, `no`
    BooleanWord,
    /// Anything else.
    Plain,
}

impl Form {
    /// All forms, in the order of their numbers.
    pub const ALL: [Self; 17] = [
        Self::Blank,
        Self::DateTime,
        Self::LocalDateTime,
        Self::Date,
        Self::Time,
        Self::LooseDateTime,
        Self::HourAndMinute,
        Self::Uuid,
        Self::Uri,
        Self::Email,
        Self::Ip,
        Self::Whole,
        Self::Decimal,
        Self::Grouped,
        Self::Quantity,
        Self::BooleanWord,
        Self::Plain,
    ];

    /// The form's name, as `look` shows it.
    pub fn name(self) -> &'static str {
        match self {
            Self::Blank => "blank",
            Self::DateTime => "date-time",
            Self::LocalDateTime => "local date-time",
            Self::Date => "date",
            Self::Time => "time",
            Self::LooseDateTime => "loose date-time",
            Self::HourAndMinute => "hour and minute",
            Self::Uuid => "uuid",
            Self::Uri => "uri",
            Self::Email => "email",
            Self::Ip => "ip address",
            Self::Whole => "whole number",
            Self::Decimal => "decimal number",
            Self::Grouped => "grouped number",
            Self::Quantity => "quantity",
            Self::BooleanWord => "boolean word",
            Self::Plain => "plain",
        }
    }

    /// Whether a text of this form has a time of day that every platform can read.
    pub(crate) fn is_time(self) -> bool {
        matches!(self, Self::DateTime | Self::LocalDateTime | Self::Time)
    }

    /// The form of a text. The first byte decides which forms are worth a look.
    pub fn of(text: &[u8]) -> Self {
        let Some(&first) = text.first() else { return Self::Blank };
        let form = match first {
            b'0'..=b'9' => by_digits(text),
            b'-' => number(text),
            b'a'..=b'z' | b'A'..=b'Z' => by_letters(text),
            b' ' | b'\t' | b'\r' | b'\n' if text.iter().all(u8::is_ascii_whitespace) => Some(Self::Blank),
            b':' => ip_v6(text),
            _ => None,
        };
        form.or_else(|| email(text)).unwrap_or(Self::Plain)
    }
}

fn by_digits(text: &[u8]) -> Option<Form> {
    match (text.get(4), text.get(2)) {
        (Some(b'-'), _) if text.len() >= 10 => date_or_date_time(text),
        (_, Some(b':')) if time(text) == Some(text.len()) => match text.len() {
            5 => Some(Form::HourAndMinute),
            SECONDS..=LONGEST_TIME if digits(text, 6, 2) != Some(60) => Some(Form::Time),
            _ => None,
        },
        _ => None,
    }
    .or_else(|| number(text))
    .or_else(|| uuid(text))
    .or_else(|| ip_v4(text))
    .or_else(|| ip_v6(text))
}

fn by_letters(text: &[u8]) -> Option<Form> {
    let with_colon = || {
        memchr::memchr(b':', text)?;
        uri(text).or_else(|| ip_v6(text))
    };
    boolean_word(text).or_else(|| uuid(text)).or_else(with_colon)
}

fn boolean_word(text: &[u8]) -> Option<Form> {
    const WORDS: [&[u8]; 4] = [b"true", b"false", b"yes", b"no"];
    (text.len() <= 5 && WORDS.iter().any(|word| text.eq_ignore_ascii_case(word))).then_some(Form::BooleanWord)
}

/// A number, or one with a unit behind it.
fn number(text: &[u8]) -> Option<Form> {
    plain_number(text).or_else(|| grouped_number(text)).or_else(|| measured(text))
}

/// `-?[0-9]{1,3}(,[0-9]{3})+(\.[0-9]+)?`
fn grouped_number(text: &[u8]) -> Option<Form> {
    let (whole, fraction) = match memchr::memchr(b'.', text) {
        Some(at) => (&text[..at], Some(&text[at + 1..])),
        None => (text, None),
    };
    let mut groups = whole.strip_prefix(b"-").unwrap_or(whole).split(|b| *b == b',');
    let first = groups.next()?;
    let are_digits = |text: &[u8]| !text.is_empty() && text.iter().all(u8::is_ascii_digit);
    let mut rest = groups.clone();
    let is_grouped = are_digits(first)
        && first.len() <= 3
        && first[0] != b'0'
        && groups.next().is_some()
        && rest.all(|group| group.len() == 3 && are_digits(group));
    (is_grouped && fraction.is_none_or(are_digits)).then_some(Form::Grouped)
}

/// The most letters of a unit.
const LONGEST_UNIT: usize = 8;

/// A number, a blank and a short word; or a number with a sign of its own right behind it.
fn measured(text: &[u8]) -> Option<Form> {
    let length = text.iter().take_while(|b| b.is_ascii_digit() || matches!(b, b'-' | b'.' | b',')).count();
    let (number, unit) = text.split_at(length);
    let unit = str::from_utf8(unit).ok().filter(|unit| unit.len() <= 2 * LONGEST_UNIT)?;
    let is_sign = |c: char| matches!(c, '%' | '‰' | '°');
    let is_unit = match unit.strip_prefix(' ') {
        Some(word) => {
            !word.is_empty()
                && word.chars().count() <= LONGEST_UNIT
                && word.chars().all(|c| c.is_alphabetic() || is_sign(c) || matches!(c, '/' | '²' | '³'))
        }
        None => unit.starts_with(is_sign) && unit.chars().all(|c| c.is_alphabetic() || is_sign(c)),
    };
    let is_number = || plain_number(number).or_else(|| grouped_number(number)).is_some();
    (is_unit && is_number()).then_some(Form::Quantity)
}

/// `-?(0|[1-9][0-9]*)(\.[0-9]+)?`: what a JSON number without exponent may be.
fn plain_number(text: &[u8]) -> Option<Form> {
    let digits = text.strip_prefix(b"-").unwrap_or(text);
    let whole = digits.iter().take_while(|b| b.is_ascii_digit()).count();
    if whole == 0 || (digits[0] == b'0' && whole > 1) {
        return None;
    }
    match digits[whole..].split_first() {
        // No integer is written `-0`.
        None => (text != b"-0").then_some(Form::Whole),
        Some((b'.', fraction)) if !fraction.is_empty() && fraction.iter().all(u8::is_ascii_digit) => {
            Some(Form::Decimal)
        }
        Some(_) => None,
    }
}

fn date_or_date_time(text: &[u8]) -> Option<Form> {
    let year = digits(text, 0, 4)?;
    let (month, day) = (digits(text, 5, 2)?, digits(text, 8, 2)?);
    // Many platforms know no year 0.
    if year == 0
        || text[7] != b'-'
        || !(1..=12).contains(&month)
        || !(1..=days_in(year, month)).contains(&day)
    {
        return None;
    }
    let (mark, rest) = match text[10..].split_first() {
        None => return Some(Form::Date),
        Some((mark, rest)) => (mark, rest),
    };
    if !matches!(mark, b'T' | b't' | b' ') {
        return None;
    }
    let end = time(rest)?;
    // RFC 3339 asks for seconds, and most readers for capitals, a `T`, and no more than they can keep.
    let strict = *mark == b'T'
        && (SECONDS..=LONGEST_TIME).contains(&end)
        && !rest.contains(&b'z')
        && digits(rest, 6, 2) != Some(60);
    match &rest[end..] {
        [] if strict => Some(Form::LocalDateTime),
        // `-00:00` says that the offset is not known (RFC 3339, section 4.3), which platforms forget.
        offset if is_offset(offset) && strict && offset != b"-00:00" => Some(Form::DateTime),
        offset if offset.is_empty() || is_offset(offset) => Some(Form::LooseDateTime),
        _ => None,
    }
}

/// `12:30:00`
const SECONDS: usize = 8;

/// `12:30:00.123456`: many platforms keep no more than microseconds, and would lose what is beyond.
const LONGEST_TIME: usize = 15;

/// The farthest that all platforms take an offset to be, in hours.
const FARTHEST: u32 = 14;

fn is_offset(text: &[u8]) -> bool {
    match text {
        [b'Z' | b'z'] => true,
        [b'+' | b'-', rest @ ..] if rest.len() == 5 && rest[2] == b':' => {
            digits(rest, 0, 2).is_some_and(|h| h <= FARTHEST) && digits(rest, 3, 2).is_some_and(|m| m < 60)
        }
        _ => false,
    }
}

/// The length of the `hh:mm[:ss[.fraction]]` that a text starts with.
fn time(text: &[u8]) -> Option<usize> {
    let valid = digits(text, 0, 2)? < 24 && text.get(2) == Some(&b':') && digits(text, 3, 2)? < 60;
    if !valid {
        return None;
    }
    if text.get(5) != Some(&b':') {
        return Some(5);
    }
    // 60 is a leap second.
    if digits(text, 6, 2)? > 60 {
        return None;
    }
    if text.get(8) != Some(&b'.') {
        return Some(8);
    }
    let fraction = text[9..].iter().take_while(|b| b.is_ascii_digit()).count();
    (fraction > 0).then_some(9 + fraction)
}

fn digits(text: &[u8], at: usize, count: usize) -> Option<u32> {
    let digits = text.get(at..at + count)?;
    digits.iter().try_fold(0, |sum, b| b.is_ascii_digit().then(|| sum * 10 + u32::from(b - b'0')))
}

fn days_in(year: u32, month: u32) -> u32 {
    match month {
        2 if year.is_multiple_of(4) && (!year.is_multiple_of(100) || year.is_multiple_of(400)) => 29,
        2 => 28,
        4 | 6 | 9 | 11 => 30,
        _ => 31,
    }
}

fn uuid(text: &[u8]) -> Option<Form> {
    let is_uuid = text.len() == 36
        && text.iter().enumerate().all(|(at, b)| match at {
            8 | 13 | 18 | 23 => *b == b'-',
            _ => b.is_ascii_hexdigit(),
        });
    is_uuid.then_some(Form::Uuid)
}

fn uri(text: &[u8]) -> Option<Form> {
    let scheme =
        text.iter().take_while(|b| b.is_ascii_alphanumeric() || matches!(b, b'+' | b'-' | b'.')).count();
    let rest = text[scheme..].strip_prefix(b"://")?;
    let unclean =
        memchr::memchr3(b' ', b'\n', b'"', rest).or_else(|| memchr::memchr3(b'<', b'>', b'\t', rest));
    (!rest.is_empty() && unclean.is_none()).then_some(Form::Uri)
}

fn email(text: &[u8]) -> Option<Form> {
    if text.len() > 254 {
        return None;
    }
    let at = memchr::memchr(b'@', text)?;
    let (name, host) = (&text[..at], &text[at + 1..]);
    let letter = |b: &u8| b.is_ascii_alphanumeric() || matches!(b, b'.' | b'-' | b'_' | b'+');
    let clean = !name.is_empty() && name.iter().all(letter) && host.iter().all(letter);
    let dotted = host.split(|b| *b == b'.').count() > 1 && host.split(|b| *b == b'.').all(|l| !l.is_empty());
    (clean && dotted).then_some(Form::Email)
}

fn ip_v4(text: &[u8]) -> Option<Form> {
    let is_octet = |part: &[u8]| {
        part.len() <= 3
            && (part.len() == 1 || part.first() != Some(&b'0'))
            && digits(part, 0, part.len()).is_some_and(|n| n < 256)
    };
    let parts = text.split(|b| *b == b'.');
    (text.len() <= 15
        && parts.clone().count() == 4
        && parts.into_iter().all(|p| !p.is_empty() && is_octet(p)))
    .then_some(Form::Ip)
}

fn ip_v6(text: &[u8]) -> Option<Form> {
    let candidate = (3..=45).contains(&text.len())
        && text.iter().filter(|b| **b == b':').count() >= 2
        && text.iter().all(|b| b.is_ascii_hexdigit() || matches!(b, b':' | b'.'));
    let text = if candidate { str::from_utf8(text).ok()? } else { return None };
    text.parse::<std::net::Ipv6Addr>().is_ok().then_some(Form::Ip)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[track_caller]
    fn check(form: Form, texts: &[&str]) {
        for text in texts {
            assert_eq!(Form::of(text.as_bytes()), form, "{text:?}");
        }
    }

    #[test]
    fn dates_and_times() {
        check(
            Form::DateTime,
            &["2026-05-01T12:30:00Z", "2026-05-01T12:30:00.123456+02:00", "2026-05-01T12:30:00-08:00"],
        );
        check(Form::LocalDateTime, &["2026-05-01T12:30:00", "2026-05-01T12:30:00.5"]);
        check(
            Form::LooseDateTime,
            &[
                "2026-05-01 12:30",
                "2026-05-01T12:30Z",
                "2024-02-29t00:00:60z",
                "2024-02-29T00:00:60Z",
                "2026-05-01T12:30:00.1234567Z",
                "2026-05-01T12:30:00-00:00",
            ],
        );
        check(Form::HourAndMinute, &["12:30", "00:00"]);
        check(Form::Date, &["2026-05-01", "2024-02-29", "0001-01-01"]);
        check(Form::Time, &["00:00:00", "23:59:59.999"]);
    }

    #[test]
    fn near_misses_of_dates_are_plain() {
        check(
            Form::Plain,
            &[
                "2026-13-01",
                "0000-01-01",
                "2026-05-01T12:30:00+15:00",
                "12:30:00.1234567",
                "23:59:60",
                "2026-02-29",
                "2026-5-1",
                "01-05-2026",
                "2026-05-01T25:00:00Z",
                "2026-05-01T12:30:00.Z",
                "2026-05-01x",
                "24:00",
                "12:3",
                "2019-2021",
                "+12:30",
            ],
        );
    }

    #[test]
    fn numbers_in_text() {
        check(Form::Whole, &["0", "17", "-3", "2026", "99999999999999999999"]);
        check(Form::Decimal, &["12.50", "-0.5", "0.0"]);
        check(Form::Grouped, &["1,000", "1,000.00", "-12,345,678"]);
        check(
            Form::Quantity,
            &["142 min", "12.5 kg", "-3 °C", "40%", "21.5°C", "1,200 kcal", "80 km/h", "6 m²"],
        );
        check(Form::Plain, &["007", "+1", "1e3", "12.", ".5", "-", "00.5", "-0", "½"]);
        check(Form::Plain, &["1,00", "1,0000", "0,100", "1,000,", ",100", "1000,000", "1,000.", "1.000,5"]);
        check(Form::Plain, &["12kg", "12 ", "12 Main Street", "007 kg", "12 k9", "%", "1st", "12 extremely"]);
    }

    #[test]
    fn names_of_things() {
        check(Form::Uuid, &["6f1c0a52-8d0e-4c0f-9d5e-0c7f3a1b2d4e", "AAAAAAAA-0000-0000-0000-000000000000"]);
        check(Form::Uri, &["https://honey.example/hives?page=2", "ftp://x", "hive+app://open/17"]);
        check(Form::Email, &["ada@honey.example", "a.b+c@mail.honey.example", "7bees@honey.example"]);
        check(Form::Ip, &["192.0.2.7", "2001:db8::7", "::1", "fe80::1"]);
        check(Form::BooleanWord, &["true", "FALSE", "yes", "No"]);
        check(
            Form::Plain,
            &[
                "mailto:",
                "http://",
                "https://a b",
                "ada@localhost",
                "@ada",
                "ada@@x.y",
                "1.2.3",
                "256.1.1.1",
                "a::b::c",
                "nope",
                "6f1c0a52",
            ],
        );
    }

    #[test]
    fn blanks() {
        check(Form::Blank, &["", " ", "\t\n"]);
        check(Form::Plain, &[" x"]);
    }

    #[test]
    fn the_table_follows_the_numbers() {
        for (index, form) in Form::ALL.into_iter().enumerate() {
            assert_eq!(form as usize, index);
        }
    }
}
