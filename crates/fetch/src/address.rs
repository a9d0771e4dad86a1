//! The addresses that are asked, and what their samples are called.

use url::Url;

use crate::secrets::is_secret_name;

/// The most characters of a file's name that tell what was asked.
const LONGEST: usize = 100;

/// The address of a URL with these parameters added to its query.
///
/// # Errors
/// It is no absolute address of the web.
pub fn address(typed: &str, query: &[(String, String)]) -> Result<Url, String> {
    let mut url = Url::parse(typed).map_err(|error| error.to_string())?;
    if !matches!(url.scheme(), "http" | "https") || url.host().is_none() {
        return Err("an API is asked by http or https".to_owned());
    }
    if !query.is_empty() {
        url.query_pairs_mut().extend_pairs(query);
    }
    Ok(url)
}

/// Whether what was meant for one address may be shown to another: the same scheme, host and port (RFC 6454, section 4).
pub fn is_same_origin(one: &Url, other: &Url) -> bool {
    one.origin() == other.origin()
}

/// What a sample is called that an address answered with: the end of its path, and its parameters but for secrets.
/// `hives-17.page_size-50`
pub fn stem(url: &Url) -> String {
    let segments = url.path_segments().into_iter().flatten().filter(|segment| !segment.is_empty());
    // The ending of a file says nothing of the thing in it.
    let segments = segments.map(|segment| segment.strip_suffix(".json").unwrap_or(segment));
    let words: Vec<String> = segments.map(plain).filter(|word| !word.is_empty()).collect();
    // What stands before the last thing that is called by a word says of what it is one.
    let is_word = |word: &String| word.starts_with(|c: char| c.is_alphabetic());
    let start = words.iter().rposition(is_word).unwrap_or(0);
    let mut stem = words[start..].join("-");
    if stem.is_empty() {
        stem = plain(url.host_str().unwrap_or("response"));
    }
    for (key, value) in url.query_pairs().filter(|(key, _)| !is_secret_name(key)) {
        stem.push('.');
        stem.push_str(&format!("{}-{}", plain(&key), plain(&value)));
    }
    stem.chars().take(LONGEST).collect()
}

/// What a recorded file is named after, without its parameters and when that was: `hives-17` of
/// `hives-17.page_size-50.20261201T023000.120Z`; the name as it is of any other file.
pub fn subject(stem: &str) -> &str {
    let is = |text: &str, form: &str| {
        let fits = |(c, wanted): (char, char)| if wanted == '0' { c.is_ascii_digit() } else { c == wanted };
        text.len() == form.len() && text.chars().zip(form.chars()).all(fits)
    };
    let mut parts = stem.rsplitn(3, '.');
    match (parts.next(), parts.next(), parts.next()) {
        (Some(millis), Some(time), Some(asked)) if is(millis, "000Z") && is(time, "00000000T000000") => {
            asked.split('.').next().unwrap_or(asked)
        }
        _ => stem,
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

    #[track_caller]
    fn check(typed: &str, expected: &str) {
        assert_eq!(stem(&address(typed, &[]).expect("it is one")), expected);
    }

    #[test]
    fn samples_are_called_by_what_was_asked() {
        check("https://honey.example/api/v2/hives", "hives");
        check("https://honey.example/api/hives/17", "hives-17");
        check("https://honey.example/api/hives/17/visits/2026-05-01", "visits-2026-05-01");
        check("https://honey.example/hives?page_size=50&token=b33s", "hives.page_size-50");
        check("https://honey.example/", "honey-example");
        check("https://honey.example/v2/hives.json?page=2", "hives.page-2");
        check("https://honey.example/a%2F..%2Fb", "a----b");
        check("http://127.0.0.1:8000/..%2f..%2fetc", "etc");
    }

    #[test]
    fn a_record_is_named_after_what_was_asked() {
        assert_eq!(subject("hives-17.page_size-50.20261201T023000.120Z"), "hives-17");
        assert_eq!(subject("hives.20261201T023000.120Z"), "hives");
        for other in ["hives", "hives.v2", "hives.20261201.120Z", "a.b.c", "x.20261201T02300é.120Z"] {
            assert_eq!(subject(other), other);
        }
    }

    #[test]
    fn parameters_are_added() {
        let query = [("page size".to_owned(), "5&0".to_owned())];
        let url = address("https://honey.example/hives?a=1", &query).expect("it is one");
        assert_eq!(url.as_str(), "https://honey.example/hives?a=1&page+size=5%260");
        for typed in ["hives", "ftp://honey.example/", "file:///etc/passwd", "http://"] {
            assert!(address(typed, &[]).is_err(), "{typed}");
        }
    }

    #[test]
    fn credentials_are_for_one_origin() {
        let url = |text: &str| Url::parse(text).expect("it is one");
        let home = url("https://honey.example/hives");
        assert!(is_same_origin(&home, &url("https://honey.example/other")));
        for other in ["http://honey.example/hives", "https://honey.example:8443/", "https://x.honey.example/"]
        {
            assert!(!is_same_origin(&home, &url(other)), "{other}");
        }
    }
}
