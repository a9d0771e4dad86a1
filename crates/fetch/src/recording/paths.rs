//! Which parts of a path say which one is meant: ids, dates, and words in whose place others stand.

use jar_sprout_model::Words;
use jar_sprout_settle::singular;
use url::Url;

use crate::ids::is_id;

/// A part of a path.
#[derive(Debug, Clone, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub(super) enum Segment {
    Word(String),
    /// One of several: `17`, `2026-05-01`
    Which,
}

/// The parts of an address' path, with its ids recognised.
pub(super) fn segments(url: &Url) -> Vec<Segment> {
    let parts = url.path_segments().into_iter().flatten().filter(|part| !part.is_empty());
    let part = |part: &str| {
        let decoded = percent_encoding::percent_decode_str(part).decode_utf8_lossy();
        match is_id(&decoded) || is_date(&decoded) {
            true => Segment::Which,
            false => Segment::Word(part.to_owned()),
        }
    };
    parts.map(part).collect()
}

/// `2026-05-01`
fn is_date(text: &str) -> bool {
    let fits =
        |(at, byte): (usize, u8)| if matches!(at, 4 | 7) { byte == b'-' } else { byte.is_ascii_digit() };
    text.len() == 10 && text.bytes().enumerate().all(fits)
}

/// Whether what stands behind this part says which of several is meant: `hives`, but not `api`.
pub(super) fn holds_several(segment: &Segment) -> bool {
    match segment {
        Segment::Word(word) => {
            let words = Words::split(word);
            singular(&words) != words
        }
        Segment::Which => false,
    }
}

/// The path as a template (RFC 6570): `/apiaries/{apiary_id}/hives/{id}`.
pub(super) fn template(segments: &[Segment]) -> String {
    let last = segments.iter().rposition(|segment| *segment == Segment::Which);
    let mut path = String::new();
    for (at, segment) in segments.iter().enumerate() {
        path.push('/');
        match segment {
            Segment::Word(word) => path.push_str(word),
            Segment::Which if Some(at) == last => path.push_str("{id}"),
            Segment::Which => {
                let above = segments[..at].iter().rev().find_map(|segment| match segment {
                    Segment::Word(word) => {
                        Some(singular(&Words::split(word)).iter().collect::<Vec<_>>().join("_"))
                    }
                    Segment::Which => None,
                });
                path.push_str(&format!("{{{}_id}}", above.unwrap_or_else(|| "first".to_owned())));
            }
        }
    }
    if path.is_empty() { "/".to_owned() } else { path }
}

/// The path of an address or a template of one, as a template: `/hives/{id}` of `https://honey.example/hives/17?full=1`.
pub fn path_template(address: &str) -> String {
    let address = address.split("{?").next().unwrap_or(address);
    let address = address.split(['?', '#']).next().unwrap_or(address);
    let path = address
        .split_once("://")
        .map_or(address, |(_, rest)| rest.split_once('/').map_or("", |(_, path)| path));
    // A variable has its name already; what a placeholder stands for is one of several.
    let part = |part: &str| match !part.starts_with('{') && (part.contains('{') || is_id(part)) {
        true => Segment::Which,
        false => Segment::Word(part.to_owned()),
    };
    let parts: Vec<Segment> = path.split('/').filter(|part| !part.is_empty()).map(part).collect();
    template(&parts)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn ids_and_dates_say_which() {
        let check = |path: &str, expected: &str| {
            let url = Url::parse(&format!("https://honey.example{path}")).expect("it is one");
            assert_eq!(template(&segments(&url)), expected);
        };
        check("/hives/17", "/hives/{id}");
        check("/v2/apiaries/3/hives/17/", "/v2/apiaries/{apiary_id}/hives/{id}");
        check("/visits/2026-05-01", "/visits/{id}");
        check("/hives/6f1c0a52-8d0e-4c0f-9d5e-0c7f3a1b2d4e/queen", "/hives/{id}/queen");
        check("/", "/");
        check("/17/18", "/{first_id}/{id}");
        check("/honey%20kinds", "/honey%20kinds");
    }

    #[test]
    fn lists_hold_several() {
        for (word, expected) in
            [("hives", true), ("apiaries", true), ("api", false), ("v2", false), ("status", false)]
        {
            assert_eq!(holds_several(&Segment::Word(word.to_owned())), expected, "{word}");
        }
        assert!(!holds_several(&Segment::Which));
    }

    #[test]
    fn paths_are_those_of_templates() {
        let check = |address: &str, expected: &str| assert_eq!(path_template(address), expected);
        check("https://honey.example/v1/hives/{id}{?query*}", "/v1/hives/{id}");
        check("https://honey.example/hives/17/?full=1", "/hives/{id}");
        check("https://honey.example/keys/${KEY}/hives", "/keys/{id}/hives");
        check("https://honey.example/apiaries/3/hives/17", "/apiaries/{apiary_id}/hives/{id}");
        check("https://honey.example", "/");
    }
}
