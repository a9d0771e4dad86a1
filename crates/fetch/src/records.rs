//! What records are called: after what was asked, and when.

use jiff::Timestamp;
use url::Url;

use crate::ids::is_id;
use crate::secrets::is_secret_name;

/// The most characters of a file's name that tell what was asked.
const LONGEST: usize = 100;

/// What a record is called, without its ending: `hives-17.page_size-50.20261201T023000.120Z`.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Record<'n> {
    /// What was asked: `hives-17.page_size-50`
    pub asked: &'n str,
    /// The end of its path: `hives-17`
    pub subject: &'n str,
    /// Whether that is one of several things: it ends in an id.
    pub is_one: bool,
}

impl<'n> Record<'n> {
    /// Reads the name of a file, without its ending; none where it is that of no record.
    pub fn of(stem: &'n str) -> Option<Self> {
        let is = |text: &str, form: &str| {
            let fits =
                |(c, wanted): (char, char)| if wanted == '0' { c.is_ascii_digit() } else { c == wanted };
            text.len() == form.len() && text.chars().zip(form.chars()).all(fits)
        };
        let mut parts = stem.rsplitn(3, '.');
        let (millis, time, asked) = (parts.next()?, parts.next()?, parts.next()?);
        if !is(millis, "000Z") || !is(time, "00000000T000000") {
            return None;
        }
        let subject = asked.split('.').next().unwrap_or(asked);
        let is_one = subject.match_indices('-').any(|(at, _)| is_id(&subject[at + 1..]));
        Some(Self { asked, subject, is_one })
    }
}

/// When a record was made, as its name has it: to the millisecond, so that what is asked twice has two names.
/// `20261201T023000.120Z`
pub fn time_stamp(when: Timestamp) -> String {
    when.strftime("%Y%m%dT%H%M%S%.3fZ").to_string()
}

/// What a sample is called that an address answered with: the end of its path, and its parameters but for secrets.
/// `hives-17.page_size-50`
pub fn stem(url: &Url) -> String {
    stem_with(url, &|_, _| true)
}

/// What the sample of a later page is called, whatever leads to it: what its address has in common with the first one's,
/// and its place. `hives.page_size-50.page-2`
pub fn stem_of_page(first: &Url, url: &Url, page: u64) -> String {
    let is_shared = |key: &str, value: &str| first.query_pairs().any(|(k, v)| k == key && v == value);
    // Another path is called by itself.
    let home = if first.path() == url.path() { url } else { first };
    let number = format!(".page-{page}");
    let stem = stem_with(home, &is_shared);
    stem.chars().take(LONGEST - number.len()).collect::<String>() + &number
}

fn stem_with(url: &Url, is_meant: &dyn Fn(&str, &str) -> bool) -> String {
    let segments = url.path_segments().into_iter().flatten();
    // The ending of a file says nothing of the thing in it.
    let segments = segments.map(|segment| segment.strip_suffix(".json").unwrap_or(segment));
    let words: Vec<String> = segments.map(plain).filter(|word| !word.is_empty()).collect();
    let mut stem = words[start_of_subject(&words)..].join("-");
    if stem.is_empty() {
        stem = plain(url.host_str().unwrap_or("response"));
    }
    let parameters = url.query_pairs().filter(|(key, value)| !is_secret_name(key) && is_meant(key, value));
    for (key, value) in parameters {
        stem.push('.');
        stem.push_str(&format!("{}-{}", plain(&key), plain(&value)));
    }
    stem.chars().take(LONGEST).collect()
}

/// The last part of a path that is called by a word: it says of what those behind it are one.
fn start_of_subject(words: &[String]) -> usize {
    let is_word = |word: &String| word.starts_with(|c: char| c.is_alphabetic()) && !is_id(word);
    words.iter().rposition(is_word).unwrap_or(0)
}

/// What an address or a template of one is about, and whether that is one of several: `hives` of `/hives`,
/// and one of them of `/hives/{id}` and `/hives/17`.
pub fn thing(address: &str) -> (String, bool) {
    let address = address.split("{?").next().unwrap_or(address);
    let address = address.split(['?', '#']).next().unwrap_or(address);
    let (host, path) = match address.split_once("://") {
        Some((_, rest)) => rest.split_once('/').unwrap_or((rest, "")),
        None => ("", address.trim_start_matches('/')),
    };
    let segments = path.split('/').map(|segment| segment.strip_suffix(".json").unwrap_or(segment));
    let is_variable = |segment: &str| segment.contains('{') || is_id(segment);
    let mut is_one = false;
    let mut words: Vec<String> = Vec::new();
    for segment in segments.filter(|segment| !segment.is_empty()) {
        is_one = is_variable(segment);
        if !is_one {
            words.push(plain(segment));
        }
    }
    match words.get(start_of_subject(&words)..).map(|words| words.join("-")) {
        Some(words) if !words.is_empty() => (words, is_one),
        Some(_) | None => (plain(host.split(':').next().unwrap_or(host)), false),
    }
}

/// Letters and digits, and `-` for what stands between; nothing that a file system takes for more than a name.
fn plain(text: &str) -> String {
    let text = percent_encoding::percent_decode_str(text).decode_utf8_lossy();
    let signs = |c: char| if c.is_alphanumeric() || c == '_' { c } else { '-' };
    text.chars().map(signs).collect::<String>().trim_matches('-').to_owned()
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::address::address;

    fn url(typed: &str) -> Url {
        address(typed, &[]).expect("it is one")
    }

    #[track_caller]
    fn check(typed: &str, expected: &str) {
        assert_eq!(stem(&url(typed)), expected);
    }

    #[test]
    fn samples_are_called_by_what_was_asked() {
        check("https://honey.example/api/v2/hives", "hives");
        check("https://honey.example/api/hives/17", "hives-17");
        check("https://honey.example/api/hives/17/visits/2026-05-01", "visits-2026-05-01");
        check("https://honey.example/hives/hv_8Kd02mX1", "hives-hv_8Kd02mX1");
        check("https://honey.example/hives?page_size=50&token=b33s", "hives.page_size-50");
        check("https://honey.example/", "honey-example");
        check("https://honey.example/v2/hives.json?page=2", "hives.page-2");
        check("https://honey.example/a%2F..%2Fb", "a----b");
        check("http://127.0.0.1:8000/..%2f..%2fetc", "etc");
    }

    #[test]
    fn times_are_to_the_millisecond() {
        let check = |text: &str, expected: &str| {
            assert_eq!(time_stamp(text.parse().expect("it is one")), expected);
        };
        check("2026-12-01T04:30:00.120+02:00", "20261201T023000.120Z");
        check("2026-12-01T02:30:00Z", "20261201T023000.000Z");
    }

    #[test]
    fn later_pages_are_called_by_their_place() {
        let check = |first: &str, next: &str, expected: &str| {
            assert_eq!(stem_of_page(&url(first), &url(next), 2), expected);
        };
        check(
            "https://x.example/hives?size=5",
            "https://x.example/hives?size=5&after=q8Zk",
            "hives.size-5.page-2",
        );
        check("https://x.example/hives?page=1", "https://x.example/hives?page=2", "hives.page-2");
        check("https://x.example/hives", "https://x.example/more/abc", "hives.page-2");
        let long = format!("https://x.example/{}", "a".repeat(300));
        assert_eq!(stem_of_page(&url(&long), &url(&long), 2).len(), LONGEST);
    }

    #[test]
    fn a_record_is_read_by_its_name() {
        let check = |stem: &str, asked: &str, subject: &str, is_one: bool| {
            assert_eq!(Record::of(stem), Some(Record { asked, subject, is_one }));
        };
        check("hives-17.page_size-50.20261201T023000.120Z", "hives-17.page_size-50", "hives-17", true);
        check("hives.20261201T023000.120Z", "hives", "hives", false);
        check("top-bar-hives.20261201T023000.120Z", "top-bar-hives", "top-bar-hives", false);
        let uuid = "hives-6f1c0a52-8d0e-4c0f-9d5e-0c7f3a1b2d4e";
        check(&format!("{uuid}.20261201T023000.120Z"), uuid, uuid, true);
        for other in ["hives", "hives.v2", "hives.20261201.120Z", "a.b.c", "x.20261201T02300e.120Z"] {
            assert_eq!(Record::of(other), None);
        }
    }

    #[test]
    fn a_thing_is_what_an_address_is_about() {
        let check = |address: &str, expected: &str, is_one: bool| {
            assert_eq!(thing(address), (expected.to_owned(), is_one), "{address}");
        };
        check("https://honey.example/v1/hives", "hives", false);
        check("https://honey.example/v1/hives/{id}", "hives", true);
        check("https://honey.example/hives{?query*}", "hives", false);
        check("https://honey.example/hives/17/visits/2026?x={y}", "visits", true);
        check("https://honey.example/${KEY}/hives/17/queen", "queen", false);
        check("https://honey.example:8000", "honey-example", false);
        check("https://honey.example/?a=/b", "honey-example", false);
        check("/hives/{id}", "hives", true);
    }
}
