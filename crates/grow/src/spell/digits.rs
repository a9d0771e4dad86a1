//! Digits in groups, for languages whose literals have them.

/// `4_000_000.125`: a number as linters read it with ease.
pub(crate) fn in_groups(number: &str) -> String {
    const READ_AT_ONCE: usize = 5;
    let (sign, digits) = match number.strip_prefix('-') {
        Some(digits) => ("-", digits),
        None => ("", number),
    };
    let end = digits.find(['e', 'E']).unwrap_or(digits.len());
    let (digits, exponent) = digits.split_at(end);
    let (whole, fraction) =
        digits.split_once('.').map_or((digits, None), |(whole, rest)| (whole, Some(rest)));
    let grouped = |digits: &str, first: usize| -> String {
        if digits.len() <= READ_AT_ONCE {
            return digits.to_owned();
        }
        let mut out = String::new();
        for (at, digit) in digits.chars().enumerate() {
            if at > 0 && at % 3 == first % 3 {
                out.push('_');
            }
            out.push(digit);
        }
        out
    };
    let fraction = fraction.map(|fraction| format!(".{}", grouped(fraction, 0))).unwrap_or_default();
    format!("{sign}{}{fraction}{exponent}", grouped(whole, whole.len()))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn long_numbers_are_in_groups() {
        for (number, expected) in [
            ("3", "3"),
            ("12345", "12345"),
            ("-4000000000", "-4_000_000_000"),
            ("123456.5", "123_456.5"),
            ("0.12345678", "0.123_456_78"),
            ("1.5e300", "1.5e300"),
        ] {
            assert_eq!(in_groups(number), expected);
        }
    }
}
