//! Files as people have them, made into JSON that can be read: saved by a shell that writes UTF-16, with the headers
//! of the response on top, with a prefix against hijacking, with comments.
//!
//! What is no part of the JSON becomes blanks, so that everything else keeps its line and column.

use std::fs::File;
use std::io::{self, Cursor, Read};
use std::path::Path;

use encoding_rs_io::DecodeReaderBytesBuilder;

use crate::progress::{Progress, Watched};

/// The most bytes in which headers must end.
const MOST_HEADERS: usize = 1 << 16;

/// What services put before their JSON, so that no script can load it.
const PREFIXES: &[&[u8]] =
    &[b")]}',", b")]}'", b"while(1);", b"while (1);", b"for(;;);", b"for (;;);", b"{}&&", b"{} &&"];

/// A file, ready to be read as JSON.
pub(crate) fn open(path: &Path, is_lenient: bool) -> io::Result<Box<dyn Read>> {
    let file = File::open(path)?;
    let length = file.metadata().ok().map(|about| about.len());
    ready(Watched::new(file, Progress::of_bytes("reading", length)), is_lenient)
}

/// Standard input, ready to be read as JSON.
pub(crate) fn standard_input(is_lenient: bool) -> io::Result<Box<dyn Read>> {
    let progress = Progress::of_bytes("reading standard input", None);
    ready(Watched::new(io::stdin().lock(), progress), is_lenient)
}

/// The start of a file, of so many bytes; a letter may be cut at its end.
pub(crate) fn head(path: &Path, most: u64) -> io::Result<String> {
    let mut head = Vec::new();
    open(path, false)?.take(most).read_to_end(&mut head)?;
    Ok(String::from_utf8_lossy(&head).into_owned())
}

/// The whole text of a file.
pub(crate) fn read_text(path: &Path) -> io::Result<String> {
    let mut text = String::new();
    open(path, false)?.read_to_string(&mut text)?;
    Ok(text)
}

fn ready(reader: impl Read + 'static, is_lenient: bool) -> io::Result<Box<dyn Read>> {
    let (start, reader) = with_start(reader, 2)?;
    let reader: Box<dyn Read> = match start[..] {
        [0xFF, 0xFE] | [0xFE, 0xFF] => Box::new(DecodeReaderBytesBuilder::new().build(reader)),
        _ => Box::new(reader),
    };
    let (start, mut reader) = with_start(reader, 16)?;
    let is_prefixed = start.starts_with(b"HTTP/") || PREFIXES.iter().any(|prefix| start.starts_with(prefix));
    if is_lenient {
        let mut whole = Vec::new();
        reader.read_to_end(&mut whole)?;
        blank_head(&mut whole);
        blank_extras(&mut whole);
        return Ok(Box::new(Cursor::new(whole)));
    }
    if !is_prefixed {
        return Ok(Box::new(reader));
    }
    let (mut head, mut reader) = with_start(reader, MOST_HEADERS)?;
    let mut again = vec![0; head.len()];
    reader.read_exact(&mut again)?;
    blank_head(&mut head);
    Ok(Box::new(Cursor::new(head).chain(reader)))
}

/// A reader of which the start was read already.
type WithStart<R> = io::Chain<Cursor<Vec<u8>>, R>;

/// The first bytes of a reader, if it has so many, and a reader of all of it.
fn with_start<R: Read>(mut reader: R, most: usize) -> io::Result<(Vec<u8>, WithStart<R>)> {
    let mut start = Vec::new();
    (&mut reader).take(most as u64).read_to_end(&mut start)?;
    Ok((start.clone(), Cursor::new(start).chain(reader)))
}

/// Blanks what stands before the JSON of a response: its headers, several of them after redirects, and a prefix.
fn blank_head(text: &mut [u8]) {
    let mut at = 0;
    while text[at..].starts_with(b"HTTP/") {
        let Some(end) = end_of_headers(&text[at..]) else { return };
        blank(&mut text[at..at + end]);
        at += end;
    }
    let blanks = text[at..].iter().take_while(|byte| byte.is_ascii_whitespace()).count();
    at += blanks;
    if let Some(prefix) = PREFIXES.iter().find(|prefix| text[at..].starts_with(prefix)) {
        blank(&mut text[at..at + prefix.len()]);
    }
}

/// Behind the first blank line.
fn end_of_headers(text: &[u8]) -> Option<usize> {
    let mut start = 0;
    for (at, byte) in text.iter().enumerate() {
        if *byte == b'\n' {
            if matches!(text[start..at], [] | [b'\r']) {
                return Some(at + 1);
            }
            start = at + 1;
        }
    }
    None
}

/// Blanks comments, and commas with nothing behind them.
fn blank_extras(text: &mut [u8]) {
    let mut at = 0;
    let mut comma = None;
    while at < text.len() {
        let length = match text[at..] {
            [b'"', ..] => string_length(&text[at..]),
            [b'/', b'/', ..] => {
                let length = text[at..].iter().position(|byte| *byte == b'\n').unwrap_or(text.len() - at);
                blank(&mut text[at..at + length]);
                length
            }
            [b'/', b'*', ..] => {
                let end = text[at + 2..].windows(2).position(|two| two == b"*/");
                let length = end.map_or(text.len() - at, |end| end + 4);
                blank(&mut text[at..at + length]);
                length
            }
            _ => 1,
        };
        match text[at] {
            b',' => comma = Some(at),
            b'}' | b']' => {
                if let Some(comma) = comma.take() {
                    text[comma] = b' ';
                }
            }
            byte if byte.is_ascii_whitespace() => {}
            _ => comma = None,
        }
        at += length;
    }
}

/// The length of the string that starts a text, with its quotes.
fn string_length(text: &[u8]) -> usize {
    let mut is_escaped = false;
    for (at, byte) in text.iter().enumerate().skip(1) {
        match byte {
            _ if is_escaped => is_escaped = false,
            b'\\' => is_escaped = true,
            b'"' => return at + 1,
            _ => {}
        }
    }
    text.len()
}

/// A blank for each byte, a line for each line.
fn blank(text: &mut [u8]) {
    text.iter_mut().filter(|byte| !matches!(byte, b'\n' | b'\r')).for_each(|byte| *byte = b' ');
}

/// Whether a text that is no JSON is some but for its comments and commas.
pub(crate) fn is_json_with_extras(path: &Path) -> bool {
    const MOST: u64 = 1 << 26;
    let is_short = std::fs::metadata(path).is_ok_and(|about| about.len() <= MOST);
    let values = || {
        let reader = open(path, true).ok()?;
        let mut values = serde_json::Deserializer::from_reader(reader).into_iter::<serde::de::IgnoredAny>();
        Some(values.all(|value| value.is_ok()))
    };
    is_short && values() == Some(true)
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    #[track_caller]
    fn check(given: &[u8], is_lenient: bool, expected: &str) {
        let mut text = String::new();
        ready(Cursor::new(given.to_vec()), is_lenient).unwrap().read_to_string(&mut text).unwrap();
        assert_eq!(text, expected);
    }

    fn utf16(text: &str, to_bytes: fn(u16) -> [u8; 2]) -> Vec<u8> {
        format!("\u{FEFF}{text}").encode_utf16().flat_map(to_bytes).collect()
    }

    #[test]
    fn utf_16_is_known_by_its_mark() {
        for to_bytes in [u16::to_le_bytes, u16::to_be_bytes] {
            check(&utf16("{\"name\": \"Øyvind 🐝\"}", to_bytes), false, "{\"name\": \"Øyvind 🐝\"}");
        }
        check(&utf16("HTTP/1.1 200 OK\n\n[1]", u16::to_le_bytes), false, "               \n\n[1]");
    }

    #[test]
    fn what_stands_before_the_json_is_blank() {
        check(b"HTTP/1.1 200 OK\r\nA: b\r\n\r\n[1]", false, "               \r\n    \r\n\r\n[1]");
        check(
            b"HTTP/1.1 302\n\nHTTP/2 200\nA: {}\n\n )]}'\n[1]",
            false,
            "            \n\n          \n     \n\n     \n[1]",
        );
        check(b"while(1);[1]", false, "         [1]");
        check(b"HTTP/1.1 200 OK", false, "HTTP/1.1 200 OK");
        check(b"[1]", false, "[1]");
        check(b"", false, "");
    }

    #[test]
    fn comments_and_commas_are_blank_where_that_is_asked_for() {
        check(b"[1, // one\n 2,]", false, "[1, // one\n 2,]");
        check(b"[1, // one\n 2,]", true, "[1,       \n 2 ]");
        check(b"{\"a\": \"//, ]\", /* b\n, */ }", true, "{\"a\": \"//, ]\"      \n     }");
        check(b"[\"\\\\\", \"\\\"//\", [2 ,\n] , ]", true, "[\"\\\\\", \"\\\"//\", [2  \n]   ]");
    }

    proptest! {
        /// What is JSON stays as it is, and nothing makes it stop.
        #[test]
        fn json_stays(text in "[\\[\\]{}\",:/*\\\\ a1\n]{0,40}", is_lenient in any::<bool>()) {
            let mut read = String::new();
            ready(Cursor::new(text.clone().into_bytes()), is_lenient).unwrap().read_to_string(&mut read).unwrap();
            prop_assert_eq!(read.len(), text.len());
            if serde_json::from_str::<serde_json::Value>(&text).is_ok() {
                prop_assert_eq!(read, text);
            }
        }
    }
}
