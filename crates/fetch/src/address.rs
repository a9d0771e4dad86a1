//! The addresses that are asked.

use url::Url;

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

#[cfg(test)]
mod tests {
    use super::*;

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
