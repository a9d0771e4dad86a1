//! Parts of a path that say which one, not what.

/// Whether a part of a path tells which of several things is meant: a number, a UUID (RFC 9562, section 4), letters and
/// digits as no word has them.
pub fn is_id(segment: &str) -> bool {
    let is_number = !segment.is_empty() && segment.bytes().all(|byte| byte.is_ascii_digit());
    is_number || is_uuid(segment) || is_key(segment)
}

fn is_uuid(text: &str) -> bool {
    let fits = |(at, byte): (usize, u8)| match at {
        8 | 13 | 18 | 23 => byte == b'-',
        _ => byte.is_ascii_hexdigit(),
    };
    text.len() == 36 && text.bytes().enumerate().all(fits)
}

/// `6f1c0a52d9e8`, `01HZY3K8QW`, `hv_8Kd02mX1`
fn is_key(text: &str) -> bool {
    let plain = text.bytes().all(|byte| byte.is_ascii_alphanumeric() || byte == b'_');
    let is_run = |run: &&str| run.starts_with(|c: char| c.is_ascii_digit());
    // A word has one number in it, if any: `base64url`.
    let runs = text.split(|c: char| !c.is_ascii_digit()).filter(is_run).count();
    plain && text.len() >= 8 && runs >= 2
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn ids_are_told_from_words() {
        for id in
            ["17", "0", "6f1c0a52-8d0e-4c0f-9d5e-0c7f3a1b2d4e", "6f1c0a52d9e8", "01HZY3K8QWX2", "hv_8Kd02mX1"]
        {
            assert!(is_id(id), "{id}");
        }
        for word in
            ["", "hives", "v2", "top-bar", "2026-05-01", "honey_kg", "hives2026", "oauth2", "p2", "base64url"]
        {
            assert!(!is_id(word), "{word}");
        }
    }
}
