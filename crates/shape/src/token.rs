//! Tokens within a run of bytes: where a text ends, what a number is, which key comes next.

/// Bytes that are expected to come next, such as `"key"`; made so that a miss is seen by one comparison.
#[derive(Debug, Clone)]
pub(crate) struct Expected {
    bytes: Box<[u8]>,
    /// The first eight bytes, and which of them count.
    head: u64,
    mask: u64,
}

impl Expected {
    pub(crate) fn new(text: String) -> Self {
        let bytes: Box<[u8]> = text.into_bytes().into();
        let mut head = [0; 8];
        let length = bytes.len().min(8);
        head[..length].copy_from_slice(&bytes[..length]);
        let mask = if length == 8 { u64::MAX } else { (1 << (length * 8)) - 1 };
        Self { bytes, head: u64::from_le_bytes(head), mask }
    }

    /// How many bytes they are.
    #[inline]
    pub(crate) fn length(&self) -> usize {
        self.bytes.len()
    }

    #[inline]
    pub(crate) fn starts(&self, input: &[u8]) -> bool {
        let Some(head) = input.first_chunk::<8>() else { return input.starts_with(&self.bytes) };
        if (u64::from_le_bytes(*head) ^ self.head) & self.mask != 0 {
            return false;
        }
        self.bytes.len() <= 8 || input.get(8..).is_some_and(|rest| rest.starts_with(&self.bytes[8..]))
    }
}

/// A number on the wire.
pub(crate) struct Number<'i> {
    pub(crate) literal: &'i [u8],
    pub(crate) written: Written,
}

/// How a number is written.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Written {
    /// `8`
    Integer,
    /// `8.0`, `8e0`
    Fraction,
}

/// The length of the run before a quote, a backslash or a control character, and whether it leaves ASCII.
#[inline]
pub(crate) fn plain_run(bytes: &[u8]) -> (usize, bool) {
    const ONES: u64 = 0x0101_0101_0101_0101;
    const HIGHS: u64 = 0x8080_8080_8080_8080;
    let mut high = 0;
    let mut at = 0;
    while let Some(chunk) = bytes.get(at..at + 8) {
        let word = u64::from_le_bytes(chunk.try_into().expect("eight bytes"));
        let quote = word ^ (ONES * 0x22);
        let backslash = word ^ (ONES * 0x5C);
        // A byte's high bit is set where it is zero (quote, backslash) or below 0x20; bits above the
        // lowest one may be false, the lowest never is.
        let stop = (quote.wrapping_sub(ONES) & !quote)
            | (backslash.wrapping_sub(ONES) & !backslash)
            | (word.wrapping_sub(ONES * 0x20) & !word);
        let stop = stop & HIGHS;
        if stop != 0 {
            let length = (stop.trailing_zeros() / 8) as usize;
            high |= word & HIGHS & ((1_u64 << (length * 8)) - 1);
            return (at + length, high != 0);
        }
        high |= word & HIGHS;
        at += 8;
    }
    while let Some(&byte) = bytes.get(at) {
        if byte == b'"' || byte == b'\\' || byte < 0x20 {
            break;
        }
        high |= u64::from(byte & 0x80);
        at += 1;
    }
    (at, high != 0)
}

pub(crate) fn is_number_byte(byte: u8) -> bool {
    matches!(byte, b'0'..=b'9' | b'-' | b'+' | b'.' | b'e' | b'E')
}

/// How a number is written, if it is one: RFC 8259, section 6.
pub(crate) fn written(bytes: &[u8]) -> Option<Written> {
    let digits = |bytes: &[u8]| bytes.iter().take_while(|b| b.is_ascii_digit()).count();
    let mut rest = bytes.strip_prefix(b"-").unwrap_or(bytes);
    let whole = digits(rest);
    if whole == 0 || (whole > 1 && rest[0] == b'0') {
        return None;
    }
    rest = &rest[whole..];
    if rest.is_empty() {
        return Some(Written::Integer);
    }
    if let [b'.', fraction @ ..] = rest {
        let count = digits(fraction);
        if count == 0 {
            return None;
        }
        rest = &fraction[count..];
    }
    if let [b'e' | b'E', exponent @ ..] = rest {
        let exponent = match exponent {
            [b'+' | b'-', digits @ ..] => digits,
            digits => digits,
        };
        let count = digits(exponent);
        if count == 0 {
            return None;
        }
        rest = &exponent[count..];
    }
    rest.is_empty().then_some(Written::Fraction)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn plain_run_stops_at_the_first_special_byte() {
        for length in 0..20 {
            for special in [b'"', b'\\', b'\n', 0, 0x1F] {
                let mut bytes = vec![b'a'; length];
                bytes.push(special);
                bytes.extend_from_slice(b"\"\"tail of the text");
                assert_eq!(plain_run(&bytes), (length, false), "{special:#x} at {length}");
            }
        }
        assert_eq!(plain_run("größe\"".as_bytes()), (7, true));
        assert_eq!(plain_run(b"ascii only!\"\xC3\xA9"), (11, false));
    }

    #[test]
    fn numbers_follow_the_grammar() {
        for good in ["0", "-0", "10", "1.5", "-0.25e+10", "1E5", "1e-05"] {
            assert!(written(good.as_bytes()).is_some(), "{good}");
        }
        for bad in ["", "-", "01", "1.", ".5", "1e", "1e+", "--1", "1.2.3", "1-2", "+1"] {
            assert!(written(bad.as_bytes()).is_none(), "{bad}");
        }
    }
}
