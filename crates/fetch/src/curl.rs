//! A request as documentation and browsers give it: a `curl` command line.

use base64::prelude::{BASE64_STANDARD, Engine as _};
use thiserror::Error;

/// What a command line asks for.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct Copied {
    /// The addresses.
    pub urls: Vec<String>,
    /// The method, where it is said.
    pub method: Option<String>,
    /// Headers, each `Name: value`.
    pub headers: Vec<String>,
    /// Parameters of the query, each `name=value`, with what stands for other characters decoded.
    pub query: Vec<String>,
    /// The body.
    pub body: Option<String>,
    /// Options that change how an answer is checked or read, which are not followed.
    pub unheard: Vec<String>,
}

/// Why a command line is not understood.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
pub enum NoCommand {
    /// A quote that nothing closes.
    #[error("a quote is not closed")]
    OpenQuote,
    /// Another program.
    #[error("this is no `curl` command")]
    OtherProgram,
    /// No address stands in it.
    #[error("no address stands in it")]
    NoAddress,
    /// An option without what it needs.
    #[error("`{0}` needs a value")]
    NoValue(String),
    /// Data that stands in a file.
    #[error("`{0}` reads a file, which is not read here")]
    File(String),
}

/// What an option takes, and what is made of it.
#[derive(Clone, Copy)]
enum Meaning {
    Method,
    Header,
    /// A header of this name.
    HeaderOf(&'static str),
    Data,
    /// Data of which nothing is a file.
    RawData,
    EncodedData,
    Json,
    User,
    Bearer,
    Url,
    /// The data is the query.
    Get,
    Head,
    /// It changes nothing here; whether it has a value.
    Nothing(bool),
    /// It would change something, and does not here.
    Unheard(bool),
}

const OPTIONS: &[(&str, &str, Meaning)] = &[
    ("-X", "--request", Meaning::Method),
    ("-H", "--header", Meaning::Header),
    ("-A", "--user-agent", Meaning::HeaderOf("User-Agent")),
    ("-b", "--cookie", Meaning::HeaderOf("Cookie")),
    ("-e", "--referer", Meaning::HeaderOf("Referer")),
    ("-d", "--data", Meaning::Data),
    ("", "--data-ascii", Meaning::Data),
    ("", "--data-binary", Meaning::Data),
    ("", "--data-raw", Meaning::RawData),
    ("", "--data-urlencode", Meaning::EncodedData),
    ("", "--json", Meaning::Json),
    ("-u", "--user", Meaning::User),
    ("", "--oauth2-bearer", Meaning::Bearer),
    ("", "--url", Meaning::Url),
    ("-G", "--get", Meaning::Get),
    ("-I", "--head", Meaning::Head),
    ("-s", "--silent", Meaning::Nothing(false)),
    ("-S", "--show-error", Meaning::Nothing(false)),
    ("-f", "--fail", Meaning::Nothing(false)),
    ("-i", "--include", Meaning::Nothing(false)),
    ("-v", "--verbose", Meaning::Nothing(false)),
    ("-L", "--location", Meaning::Nothing(false)),
    ("-g", "--globoff", Meaning::Nothing(false)),
    ("-N", "--no-buffer", Meaning::Nothing(false)),
    ("", "--compressed", Meaning::Nothing(false)),
    ("", "--http1.1", Meaning::Nothing(false)),
    ("", "--http2", Meaning::Nothing(false)),
    ("-o", "--output", Meaning::Nothing(true)),
    ("-w", "--write-out", Meaning::Nothing(true)),
    ("-m", "--max-time", Meaning::Nothing(true)),
    ("", "--connect-timeout", Meaning::Nothing(true)),
    ("-k", "--insecure", Meaning::Unheard(false)),
    ("-x", "--proxy", Meaning::Unheard(true)),
    ("-F", "--form", Meaning::Unheard(true)),
    ("-T", "--upload-file", Meaning::Unheard(true)),
    ("", "--cacert", Meaning::Unheard(true)),
    ("-E", "--cert", Meaning::Unheard(true)),
    ("", "--resolve", Meaning::Unheard(true)),
];

/// Reads a command line as a shell would take it apart.
///
/// # Errors
/// It is no such command, or asks for what a file holds.
pub fn copied(line: &str) -> Result<Copied, NoCommand> {
    let mut words = words(line)?.into_iter().skip_while(|word| word == "$");
    let program = words.next().unwrap_or_default();
    if !["curl", "curl.exe"].contains(&program.rsplit(['/', '\\']).next().unwrap_or_default()) {
        return Err(NoCommand::OtherProgram);
    }
    let mut copied = Copied::default();
    let mut data: Vec<String> = Vec::new();
    let mut is_query = false;
    while let Some(word) = words.next() {
        let Some((name, meaning, mut own)) = option(&word) else {
            if word.starts_with('-') && word.len() > 1 {
                copied.unheard.push(word);
            } else {
                copied.urls.push(word);
            }
            continue;
        };
        let mut value =
            || own.take().or_else(|| words.next()).ok_or_else(|| NoCommand::NoValue(name.clone()));
        match meaning {
            Meaning::Method => copied.method = Some(value()?),
            Meaning::Header => copied.headers.push(value()?),
            Meaning::HeaderOf(header) => copied.headers.push(format!("{header}: {}", value()?)),
            Meaning::Data => data.push(no_file(value()?, &name)?),
            Meaning::RawData => data.push(value()?),
            Meaning::EncodedData => data.push(encoded(&no_file(value()?, &name)?)),
            Meaning::Json => {
                data.push(no_file(value()?, &name)?);
                copied
                    .headers
                    .extend(["Content-Type", "Accept"].map(|one| format!("{one}: application/json")));
            }
            Meaning::User => {
                copied.headers.push(format!("Authorization: Basic {}", BASE64_STANDARD.encode(value()?)));
            }
            Meaning::Bearer => copied.headers.push(format!("Authorization: Bearer {}", value()?)),
            Meaning::Url => copied.urls.push(value()?),
            Meaning::Get => is_query = true,
            Meaning::Head => copied.method = Some("HEAD".to_owned()),
            Meaning::Nothing(takes) | Meaning::Unheard(takes) => {
                if matches!(meaning, Meaning::Unheard(_)) {
                    copied.unheard.push(name.clone());
                }
                if takes {
                    value()?;
                }
            }
        }
    }
    if copied.urls.is_empty() {
        return Err(NoCommand::NoAddress);
    }
    let has_kind =
        copied.headers.iter().any(|header| header.to_ascii_lowercase().starts_with("content-type:"));
    if is_query {
        let pairs = data.iter().flat_map(|data| url::form_urlencoded::parse(data.as_bytes()));
        copied.query = pairs.map(|(name, value)| format!("{name}={value}")).collect();
    } else if !data.is_empty() {
        if !has_kind {
            copied.headers.push("Content-Type: application/x-www-form-urlencoded".to_owned());
        }
        copied.body = Some(data.join("&"));
    }
    Ok(copied)
}

/// An option by its name, with what it means and the value that is written with it: `-XPOST`, `--request=POST`.
fn option(word: &str) -> Option<(String, Meaning, Option<String>)> {
    if let Some((name, value)) = word.split_once('=').filter(|_| word.starts_with("--")) {
        let (_, _, meaning) = OPTIONS.iter().find(|(_, long, _)| *long == name)?;
        return Some((name.to_owned(), *meaning, Some(value.to_owned())));
    }
    if let Some((_, _, meaning)) = OPTIONS.iter().find(|(short, long, _)| *long == word || *short == word) {
        return Some((word.to_owned(), *meaning, None));
    }
    let (short, value) =
        word.split_at_checked(2).filter(|_| word.starts_with('-') && !word.starts_with("--"))?;
    let (_, _, meaning) = OPTIONS.iter().find(|(name, _, _)| *name == short)?;
    match meaning {
        // `-sSL`: what has no value stands with others.
        Meaning::Nothing(false) | Meaning::Unheard(false) | Meaning::Get | Meaning::Head => {
            let rest = option(&format!("-{value}"))?;
            Some(if matches!(meaning, Meaning::Nothing(false)) {
                rest
            } else {
                (short.to_owned(), *meaning, None)
            })
        }
        _ => Some((short.to_owned(), *meaning, Some(value.to_owned()))),
    }
}

fn no_file(value: String, option: &str) -> Result<String, NoCommand> {
    if value.starts_with('@') { Err(NoCommand::File(option.to_owned())) } else { Ok(value) }
}

/// `name=content` with the content as a form has it.
fn encoded(data: &str) -> String {
    let encode = |text: &str| url::form_urlencoded::byte_serialize(text.as_bytes()).collect::<String>();
    match data.split_once('=') {
        Some(("", content)) => encode(content),
        Some((name, content)) => format!("{name}={}", encode(content)),
        None => encode(data),
    }
}

/// The words of a line as a POSIX shell has them, with `$'…'`; nothing is expanded.
fn words(line: &str) -> Result<Vec<String>, NoCommand> {
    let mut words = Vec::new();
    let mut word: Option<String> = None;
    let mut chars = line.chars().peekable();
    while let Some(c) = chars.next() {
        match c {
            c if c.is_whitespace() => words.extend(word.take()),
            '\'' => {
                let word = word.get_or_insert_default();
                loop {
                    match chars.next().ok_or(NoCommand::OpenQuote)? {
                        '\'' => break,
                        c => word.push(c),
                    }
                }
            }
            '"' => {
                let word = word.get_or_insert_default();
                loop {
                    match chars.next().ok_or(NoCommand::OpenQuote)? {
                        '"' => break,
                        '\\' => match chars.next().ok_or(NoCommand::OpenQuote)? {
                            '\n' => {}
                            c @ ('"' | '\\' | '$' | '`') => word.push(c),
                            c => word.extend(['\\', c]),
                        },
                        c => word.push(c),
                    }
                }
            }
            '$' if chars.peek() == Some(&'\'') => {
                chars.next();
                let word = word.get_or_insert_default();
                loop {
                    match chars.next().ok_or(NoCommand::OpenQuote)? {
                        '\'' => break,
                        '\\' => word.push(escaped(&mut chars)?),
                        c => word.push(c),
                    }
                }
            }
            // A line that goes on.
            '\\' => match chars.next() {
                Some('\r') => drop(chars.next_if_eq(&'\n')),
                Some('\n') | None => {}
                Some(c) => word.get_or_insert_default().push(c),
            },
            c => word.get_or_insert_default().push(c),
        }
    }
    words.extend(word);
    Ok(words)
}

/// What stands behind a backslash in `$'…'`.
fn escaped(chars: &mut std::iter::Peekable<std::str::Chars<'_>>) -> Result<char, NoCommand> {
    Ok(match chars.next().ok_or(NoCommand::OpenQuote)? {
        'n' => '\n',
        'r' => '\r',
        't' => '\t',
        'u' => hexadecimal(chars, 4),
        'x' => hexadecimal(chars, 2),
        c => c,
    })
}

/// A character by its number.
fn hexadecimal(chars: &mut std::iter::Peekable<std::str::Chars<'_>>, most: usize) -> char {
    let mut value = 0;
    for _ in 0..most {
        let Some(digit) = chars.peek().and_then(|c| c.to_digit(16)) else { break };
        value = value * 16 + digit;
        chars.next();
    }
    char::from_u32(value).unwrap_or(char::REPLACEMENT_CHARACTER)
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    fn read(line: &str) -> Copied {
        copied(line).expect("it is one")
    }

    #[test]
    fn what_documentation_shows_is_understood() {
        let copied = read(
            "$ curl -sSL -X POST https://honey.example/hives \\\n  -H 'Accept: application/json' \\\r\n  -d '{\"name\": \"Alder Bank\"}'",
        );
        assert_eq!(copied.urls, ["https://honey.example/hives"]);
        assert_eq!(copied.method.as_deref(), Some("POST"));
        assert_eq!(copied.headers[0], "Accept: application/json");
        assert_eq!(copied.body.as_deref(), Some("{\"name\": \"Alder Bank\"}"));
        assert!(copied.unheard.is_empty());
    }

    #[test]
    fn what_browsers_copy_is_understood() {
        let copied = read(
            "curl 'https://honey.example/hives?page=2' --compressed -H $'X-Said: it\\'s \\u00fc' --data-raw $'a\\n@b' -k",
        );
        assert_eq!(copied.headers[0], "X-Said: it's ü");
        assert_eq!(copied.body.as_deref(), Some("a\n@b"));
        assert_eq!(copied.unheard, ["-k"]);
    }

    #[test]
    fn data_is_the_query_where_that_is_said() {
        let copied =
            read("curl -G https://honey.example/hives -d size=5 --data-urlencode 'q=top bar & more'");
        assert_eq!(copied.query, ["size=5", "q=top bar & more"]);
        assert_eq!((copied.body, copied.headers.len()), (None, 0));
        let copied = read("curl https://honey.example/ -d a=1 -d b=2");
        assert_eq!(copied.body.as_deref(), Some("a=1&b=2"));
        assert_eq!(copied.headers, ["Content-Type: application/x-www-form-urlencoded"]);
        let copied = read("curl --json '{}' --url=https://honey.example/ -XPUT");
        assert_eq!((copied.body.as_deref(), copied.method.as_deref()), (Some("{}"), Some("PUT")));
        assert!(copied.headers.contains(&"Content-Type: application/json".to_owned()));
    }

    #[test]
    fn credentials_are_headers() {
        assert_eq!(
            read("curl -u ada:honey https://honey.example/").headers,
            ["Authorization: Basic YWRhOmhvbmV5"]
        );
        assert_eq!(read("curl -u ada: https://honey.example/").headers, ["Authorization: Basic YWRhOg=="]);
        assert_eq!(
            read("curl --oauth2-bearer b33s https://honey.example/").headers,
            ["Authorization: Bearer b33s"]
        );
        assert_eq!(read("curl -b sid=1 https://honey.example/").headers, ["Cookie: sid=1"]);
    }

    #[test]
    fn what_is_not_understood_is_told() {
        assert_eq!(copied("wget https://honey.example/"), Err(NoCommand::OtherProgram));
        assert_eq!(copied(""), Err(NoCommand::OtherProgram));
        assert_eq!(copied("curl -s"), Err(NoCommand::NoAddress));
        assert_eq!(copied("curl https://honey.example/ -H"), Err(NoCommand::NoValue("-H".to_owned())));
        assert_eq!(copied("curl 'https://honey.example/"), Err(NoCommand::OpenQuote));
        assert_eq!(copied("curl x -d @body.json"), Err(NoCommand::File("-d".to_owned())));
        assert_eq!(read("curl x --unknown").unheard, ["--unknown"]);
    }

    proptest! {
        #[test]
        fn any_line_is_read_or_refused(line in "(curl )?[-a-zA-Z'\"$\\\\ @=:/{}\n]{0,60}") {
            drop(copied(&line));
        }

        #[test]
        fn a_quoted_word_is_what_it_says(text in "[^'\u{0}]{0,40}") {
            let line = format!("curl x -H '{text}'");
            prop_assert_eq!(read(&line).headers, [text]);
        }
    }
}
