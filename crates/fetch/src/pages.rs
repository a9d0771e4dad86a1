//! The next page: where an answer says it is, or where it must be.

use jar_sprout_shape::{Path, Step};
use serde_json::Value;
use url::Url;

/// How the pages of an answer follow each other.
#[derive(Debug, Clone, PartialEq)]
pub enum Paging {
    /// As the answer shows it plainly: by a `Link` header, or by an address that is called `next`.
    AsShown,
    /// The body has the address of the next one.
    Link(Path),
    /// A parameter counts them.
    Counter(String),
    /// The body has what a parameter must say for the next one.
    Cursor {
        /// Where it stands.
        path: Path,
        /// The parameter.
        parameter: String,
    },
}

/// Where the next page is, with the words that tell how it was found; none behind the last one. `link` is the answer's `Link`
/// header.
pub fn next_page(paging: &Paging, url: &Url, link: &str, body: &str) -> Option<(Url, &'static str)> {
    let value: Value = serde_json::from_str(body).ok()?;
    let (next, how) = match paging {
        Paging::AsShown => shown(url, link, &value)?,
        Paging::Link(path) => (joined(url, at(&value, path)?.as_str()?)?, "as `--next` says"),
        Paging::Counter(parameter) if has_items(&value) => {
            let page = url.query_pairs().find(|(name, _)| name == parameter);
            let page: u64 = page.map_or(Some(1), |(_, value)| value.parse().ok())?;
            (with_parameter(url, parameter, &page.checked_add(1)?.to_string()), "by its number")
        }
        Paging::Counter(_) => return None,
        Paging::Cursor { path, parameter } => {
            let cursor = match at(&value, path)? {
                Value::String(text) if !text.is_empty() => text.clone(),
                Value::Number(number) => number.to_string(),
                _ => return None,
            };
            (with_parameter(url, parameter, &cursor), "by its cursor")
        }
    };
    // A page that leads to itself would never end.
    (next != *url).then_some((next, how))
}

/// Where the usual signs say it is.
fn shown(url: &Url, link: &str, value: &Value) -> Option<(Url, &'static str)> {
    if let Some(next) = rel_next(link) {
        return Some((joined(url, next)?, "by the `Link` header"));
    }
    let places = [
        &["next"][..],
        &["links", "next"],
        &["_links", "next", "href"],
        &["paging", "next"],
        &["meta", "next"],
    ];
    let text = places.iter().find_map(|keys| {
        let place = keys.iter().try_fold(value, |value, key| value.get(key))?;
        place.as_str().filter(|text| text.starts_with("http") || text.starts_with('/'))
    })?;
    Some((joined(url, text)?, "by its `next`"))
}

/// The address in a `Link` header whose relation is `next` (RFC 8288, section 3).
fn rel_next(header: &str) -> Option<&str> {
    let mut rest = header;
    while let Some(start) = rest.find('<') {
        let (address, behind) = rest[start + 1..].split_once('>')?;
        let end = end_of_link(behind);
        let is_next = behind[..end].split(';').any(|parameter| {
            let (name, value) = parameter.split_once('=').unwrap_or_default();
            let mut relations = value.trim().trim_matches('"').split_ascii_whitespace();
            name.trim().eq_ignore_ascii_case("rel") && relations.any(|one| one.eq_ignore_ascii_case("next"))
        });
        if is_next {
            return Some(address);
        }
        rest = &behind[end..];
    }
    None
}

/// Where the parameters of a link end: at a comma that stands in no quotes.
fn end_of_link(text: &str) -> usize {
    let mut is_quoted = false;
    let end = text.find(|c: char| {
        is_quoted ^= c == '"';
        c == ',' && !is_quoted
    });
    end.unwrap_or(text.len())
}

fn joined(url: &Url, address: &str) -> Option<Url> {
    url.join(address).ok().filter(|next| matches!(next.scheme(), "http" | "https"))
}

fn at<'v>(value: &'v Value, path: &Path) -> Option<&'v Value> {
    path.0.iter().try_fold(value, |value, step| match step {
        Step::Child(key) => value.get(key),
        Step::All => None,
    })
}

/// Whether a page holds something: an item of a list at the root, or right below it.
fn has_items(value: &Value) -> bool {
    match value {
        Value::Array(items) => !items.is_empty(),
        Value::Object(object) => {
            object.values().any(|value| value.as_array().is_some_and(|items| !items.is_empty()))
        }
        _ => false,
    }
}

fn with_parameter(url: &Url, name: &str, value: &str) -> Url {
    let mut next = url.clone();
    let others: Vec<(String, String)> = url
        .query_pairs()
        .filter(|(other, _)| other != name)
        .map(|(name, value)| (name.into_owned(), value.into_owned()))
        .collect();
    next.query_pairs_mut().clear().extend_pairs(others).append_pair(name, value);
    next
}

#[cfg(test)]
mod tests {
    use super::*;

    #[track_caller]
    fn check(paging: &Paging, asked: &str, link: &str, body: &str, expected: Option<&str>) {
        let url = Url::parse(asked).expect("it is one");
        let next = next_page(paging, &url, link, body).map(|(next, _)| next.to_string());
        assert_eq!(next.as_deref(), expected, "{asked} {link} {body}");
    }

    fn path(text: &str) -> Path {
        Path::parse(text).expect("it is one")
    }

    const HIVES: &str = "https://honey.example/hives?size=5";

    #[test]
    fn the_next_page_is_where_the_answer_shows_it() {
        let there = Some("https://honey.example/hives?page=2");
        let link = "<https://honey.example/hives?page=1>; rel=\"prev\", <https://honey.example/hives?page=2>; rel=\"next\"";
        check(&Paging::AsShown, HIVES, link, "[]", there);
        check(&Paging::AsShown, HIVES, "</hives?page=2>; title=\"a, b\"; REL=next", "[]", there);
        check(&Paging::AsShown, HIVES, "<a>; rel=\"last\", <b", "[]", None);
        for body in [
            "{\"next\": \"https://honey.example/hives?page=2\"}",
            "{\"links\": {\"next\": \"/hives?page=2\"}}",
            "{\"_links\": {\"next\": {\"href\": \"/hives?page=2\"}}}",
        ] {
            check(&Paging::AsShown, HIVES, "", body, there);
        }
        for body in ["{\"next\": null}", "{\"next\": 2}", "{\"next\": \"b33s\"}", "[]", "no JSON"] {
            check(&Paging::AsShown, HIVES, "", body, None);
        }
        check(&Paging::AsShown, HIVES, "", "{\"next\": \"/hives?size=5\"}", None);
        check(&Paging::AsShown, HIVES, "<file:///etc/passwd>; rel=next", "{}", None);
    }

    #[test]
    fn the_next_page_is_where_it_is_said_to_be() {
        let link = Paging::Link(path("$.paging.forward"));
        check(&link, HIVES, "", "{\"paging\": {\"forward\": \"/more\"}}", Some("https://honey.example/more"));
        check(&link, HIVES, "", "{\"paging\": {\"forward\": null}}", None);
        let counter = Paging::Counter("page".to_owned());
        check(&counter, HIVES, "", "[1]", Some("https://honey.example/hives?size=5&page=2"));
        check(
            &counter,
            "https://honey.example/hives?page=7",
            "",
            "{\"n\": [1]}",
            Some("https://honey.example/hives?page=8"),
        );
        check(&counter, HIVES, "", "{\"n\": []}", None);
        check(&counter, "https://honey.example/hives?page=x", "", "[1]", None);
        let cursor = Paging::Cursor { path: path("$.cursor"), parameter: "after".to_owned() };
        check(
            &cursor,
            HIVES,
            "",
            "{\"cursor\": \"a b\"}",
            Some("https://honey.example/hives?size=5&after=a+b"),
        );
        check(&cursor, HIVES, "", "{\"cursor\": 17}", Some("https://honey.example/hives?size=5&after=17"));
        check(&cursor, "https://honey.example/hives?after=17", "", "{\"cursor\": 17}", None);
        check(&cursor, HIVES, "", "{\"cursor\": \"\"}", None);
    }
}
