//! Bytes to tokens: a sliding buffer over a reader, and the scalars of JSON (RFC 8259) in it.
//!
//! Nothing is kept longer than a token needs it, so a file of any size takes the same memory. Lines and
//! columns are counted on the way, for places and messages.

use std::io::Read;

use jar_sprout_model::{Excerpt, Place, Problem, SourceId, Spot, is_hidden};

use crate::fault::{Fault, Found};
use crate::token::{Expected, Number, is_number_byte, plain_run, written};

/// How much is read at a time.
pub(crate) const BUFFER_SIZE: usize = 256 * 1024;

/// Bytes kept behind the current one, for the excerpt in a message.
const LOOK_BACK: usize = 256;

/// Characters of a long line shown before and after the caret.
const EXCERPT_BEFORE: usize = 50;
const EXCERPT_AFTER: usize = 26;

/// The most bytes of one text that are looked at; what follows is only counted.
pub(crate) const MAX_TEXT: usize = 64 * 1024;

/// The most bytes of a number or a key.
const MAX_TOKEN: usize = 64 * 1024;

/// A source of bytes, read once from front to end.
pub(crate) struct Input<R> {
    reader: R,
    source: SourceId,
    /// What is valid lies before `end`.
    buffer: Vec<u8>,
    /// The next byte to be read.
    at: usize,
    end: usize,
    /// The start of the token being read: [`Input::fill`] keeps the buffer from here on.
    token: usize,
    /// Where the buffer's first byte stands in the source.
    base: u64,
    line: u64,
    /// Where the current line starts in the source.
    line_start: u64,
    /// Characters of the current line that have left the buffer.
    line_left: u64,
    /// A text without its escapes.
    unescaped: Vec<u8>,
}

/// A text on the wire, escapes undone.
pub(crate) struct Text<'i> {
    /// Valid UTF-8; only the start, if the text is longer than [`MAX_TEXT`].
    pub(crate) bytes: &'i [u8],
    /// The whole length in bytes.
    pub(crate) length: u64,
}

type Result<T> = std::result::Result<T, Box<Problem>>;

impl<R: Read> Input<R> {
    pub(crate) fn new(reader: R, source: SourceId, buffer_size: usize) -> Self {
        Self {
            reader,
            source,
            buffer: vec![0; buffer_size.max(4)],
            at: 0,
            end: 0,
            token: 0,
            base: 0,
            line: 1,
            line_start: 0,
            line_left: 0,
            unescaped: Vec::new(),
        }
    }

    /// A source that stands at a place of another one.
    pub(crate) fn at(reader: R, place: Place, buffer_size: usize) -> Self {
        let Place { source, offset, line } = place;
        Self { base: offset, line: u64::from(line), ..Self::new(reader, source, buffer_size) }
    }

    /// The place of the next byte.
    #[inline]
    pub(crate) fn place(&self) -> Place {
        Place {
            source: self.source,
            offset: self.offset(),
            line: u32::try_from(self.line).unwrap_or(u32::MAX),
        }
    }

    /// Bytes read so far.
    #[inline]
    pub(crate) fn offset(&self) -> u64 {
        self.base + self.at as u64
    }

    pub(crate) fn line(&self) -> u64 {
        self.line
    }

    /// Steps over a byte-order mark; refuses those of other encodings.
    pub(crate) fn skip_byte_order_mark(&mut self) -> Result<()> {
        self.ensure(3)?;
        match &self.buffer[self.at..self.end] {
            [0xEF, 0xBB, 0xBF, ..] => {
                self.at += 3;
                self.line_start = 3;
                Ok(())
            }
            [0xFE, 0xFF, ..] | [0xFF, 0xFE, ..] => Err(self.fault(&Fault::Utf8)),
            _ => Ok(()),
        }
    }

    /// The next byte that is not white space, which stays unread.
    #[inline(always)]
    pub(crate) fn skip_white_space(&mut self) -> Result<Option<u8>> {
        match self.buffer[..self.end].get(self.at) {
            Some(&byte) if byte > b' ' => Ok(Some(byte)),
            _ => self.skip_to_black(),
        }
    }

    fn skip_to_black(&mut self) -> Result<Option<u8>> {
        loop {
            while let Some(&byte) = self.buffer[..self.end].get(self.at) {
                match byte {
                    b' ' | b'\t' | b'\r' => self.at += 1,
                    b'\n' => {
                        self.at += 1;
                        self.line += 1;
                        self.line_start = self.offset();
                        self.line_left = 0;
                    }
                    _ => return Ok(Some(byte)),
                }
            }
            self.token = self.at;
            if !self.fill()? {
                return Ok(None);
            }
        }
    }

    /// Steps over the byte that [`Input::skip_white_space`] gave.
    #[inline]
    pub(crate) fn advance(&mut self) {
        self.at += 1;
    }

    /// Steps over these bytes if they come next. A miss at the buffer's end is only a missed chance.
    #[inline]
    pub(crate) fn take(&mut self, expected: &Expected) -> bool {
        let hit = expected.starts(&self.buffer[self.at..self.end]);
        if hit {
            self.at += expected.length();
        }
        hit
    }

    /// Steps over `true`, `false` or `null`.
    pub(crate) fn literal(&mut self, expected: &'static str) -> Result<()> {
        self.ensure(expected.len())?;
        if self.buffer[self.at..self.end].starts_with(expected.as_bytes()) {
            self.at += expected.len();
            return Ok(());
        }
        let rest = &self.buffer[self.at..self.end];
        if rest.len() < expected.len() && expected.as_bytes().starts_with(rest) {
            return Err(self.fault(&Fault::Truncated { inside: "a value" }));
        }
        Err(self.fault(&Fault::Literal { expected }))
    }

    /// Reads a number that starts at the next byte.
    #[inline]
    pub(crate) fn number(&mut self) -> Result<Number<'_>> {
        self.token = self.at;
        loop {
            let length = self.buffer[self.at..self.end].iter().take_while(|b| is_number_byte(**b)).count();
            self.at += length;
            if self.at < self.end || !self.fill()? {
                break;
            }
            if self.at - self.token > MAX_TOKEN {
                return Err(self.fault(&Fault::TooLong { what: "number", limit: MAX_TOKEN }));
            }
        }
        let (from, to) = (self.token, self.at);
        let Some(written) = written(&self.buffer[from..to]) else {
            self.at = from;
            let fault = if to == self.end { Fault::Truncated { inside: "a number" } } else { Fault::Number };
            return Err(self.fault(&fault));
        };
        Ok(Number { literal: &self.buffer[from..to], written })
    }

    /// Reads a key whose opening quote was stepped over.
    pub(crate) fn key(&mut self) -> Result<String> {
        let text = self.text()?;
        if text.length > text.bytes.len() as u64 {
            return Err(self.fault(&Fault::TooLong { what: "key", limit: MAX_TOKEN }));
        }
        Ok(str::from_utf8(text.bytes).expect("texts are checked as they are read").to_owned())
    }

    /// Reads a text whose opening quote was stepped over.
    #[inline]
    pub(crate) fn text(&mut self) -> Result<Text<'_>> {
        self.token = self.at;
        let mut outside_ascii = false;
        loop {
            let (length, high) = plain_run(&self.buffer[self.at..self.end]);
            outside_ascii |= high;
            self.at += length;
            if self.at == self.end {
                if self.at - self.token > MAX_TEXT {
                    return self.text_in_parts();
                }
                if !self.fill()? {
                    return Err(self.fault(&Fault::Truncated { inside: "a string" }));
                }
                continue;
            }
            if self.buffer[self.at] != b'"' || self.at - self.token > MAX_TEXT {
                return self.text_in_parts();
            }
            let (from, to) = (self.token, self.at);
            if outside_ascii {
                self.check_utf8(from, to)?;
            }
            self.at += 1;
            let bytes = &self.buffer[from..to];
            return Ok(Text { bytes, length: bytes.len() as u64 });
        }
    }

    /// Reads a text from `self.token` on that has escapes or is very long, part by part.
    #[cold]
    fn text_in_parts(&mut self) -> Result<Text<'_>> {
        self.unescaped.clear();
        self.at = self.token;
        let mut length = 0;
        loop {
            let (run, _) = plain_run(&self.buffer[self.at..self.end]);
            let to = self.at + run;
            let checked = self.whole_characters(self.at, to)?;
            length += self.keep(checked);
            if to == self.end {
                self.token = self.at;
                if !self.fill()? {
                    return Err(self.fault(&Fault::Truncated { inside: "a string" }));
                }
                continue;
            }
            match self.buffer[self.at] {
                b'"' => break,
                b'\\' => {
                    let character = self.escape()?;
                    let mut bytes = [0; 4];
                    let bytes = character.encode_utf8(&mut bytes).as_bytes();
                    length += bytes.len() as u64;
                    if self.unescaped.len() < MAX_TEXT {
                        self.unescaped.extend_from_slice(bytes);
                    }
                }
                b'\n' => return Err(self.fault(&Fault::LineInString)),
                _ => return Err(self.fault(&Fault::ControlCharacter)),
            }
        }
        self.at += 1;
        Ok(Text { bytes: &self.unescaped, length })
    }

    /// Takes the bytes up to `to` into the unescaped text, as far as there is room, and steps over them.
    fn keep(&mut self, to: usize) -> u64 {
        let run = &self.buffer[self.at..to];
        let room = MAX_TEXT.saturating_sub(self.unescaped.len());
        // A text that fills the room is cut between characters.
        let mut cut = run.len().min(room);
        while run.get(cut).is_some_and(|b| b & 0xC0 == 0x80) {
            cut -= 1;
        }
        self.unescaped.extend_from_slice(&run[..cut]);
        self.at = to;
        run.len() as u64
    }

    /// Checks UTF-8 up to `to`; a character cut by the buffer's end is left for the next part.
    fn whole_characters(&self, from: usize, to: usize) -> Result<usize> {
        match str::from_utf8(&self.buffer[from..to]) {
            Ok(_) => Ok(to),
            Err(error) if error.error_len().is_none() && to == self.end => Ok(from + error.valid_up_to()),
            Err(error) => Err(self.fault_at(&Fault::Utf8, from + error.valid_up_to())),
        }
    }

    fn check_utf8(&self, from: usize, to: usize) -> Result<()> {
        match str::from_utf8(&self.buffer[from..to]) {
            Ok(_) => Ok(()),
            Err(error) => Err(self.fault_at(&Fault::Utf8, from + error.valid_up_to())),
        }
    }

    /// Reads an escape, RFC 8259, section 7.
    fn escape(&mut self) -> Result<char> {
        self.ensure(2)?;
        let simple = match self.buffer[..self.end].get(self.at + 1) {
            None => return Err(self.fault(&Fault::Truncated { inside: "a string" })),
            Some(b'"') => '"',
            Some(b'\\') => '\\',
            Some(b'/') => '/',
            Some(b'b') => '\u{8}',
            Some(b'f') => '\u{c}',
            Some(b'n') => '\n',
            Some(b'r') => '\r',
            Some(b't') => '\t',
            Some(b'u') => return self.unicode_escape(),
            Some(_) => return Err(self.fault(&Fault::Escape)),
        };
        self.at += 2;
        Ok(simple)
    }

    fn unicode_escape(&mut self) -> Result<char> {
        let first = self.code_unit()?;
        if let Some(character) = char::from_u32(first) {
            return Ok(character);
        }
        self.ensure(2)?;
        if first < 0xDC00 && self.buffer[self.at..self.end].starts_with(b"\\u") {
            let second = self.code_unit()?;
            if (0xDC00..0xE000).contains(&second) {
                let code = 0x1_0000 + ((first - 0xD800) << 10) + (second - 0xDC00);
                return Ok(char::from_u32(code).expect("two halves make a character"));
            }
        }
        Err(self.fault(&Fault::LoneSurrogate))
    }

    /// Reads `\uXXXX`.
    fn code_unit(&mut self) -> Result<u32> {
        self.ensure(6)?;
        let Some(digits) = self.buffer[..self.end].get(self.at + 2..self.at + 6) else {
            return Err(self.fault(&Fault::Truncated { inside: "a string" }));
        };
        let value = digits.iter().try_fold(0, |sum, digit| Some(sum * 16 + char::from(*digit).to_digit(16)?));
        let Some(value) = value else { return Err(self.fault(&Fault::Escape)) };
        self.at += 6;
        Ok(value)
    }

    /// Makes `count` bytes available from the next one on, if the input has them.
    fn ensure(&mut self, count: usize) -> Result<()> {
        self.token = self.at;
        while self.end - self.at < count && self.fill()? {}
        Ok(())
    }

    /// Reads more behind what is there from `self.token` on. Answers whether anything came.
    #[cold]
    fn fill(&mut self) -> Result<bool> {
        let drop = self.token.saturating_sub(LOOK_BACK);
        if drop > 0 {
            let line_from =
                usize::try_from(self.line_start.saturating_sub(self.base)).unwrap_or(drop).min(drop);
            self.line_left += characters(&self.buffer[line_from..drop]);
            self.buffer.copy_within(drop..self.end, 0);
            self.at -= drop;
            self.end -= drop;
            self.token -= drop;
            self.base += drop as u64;
        }
        if self.end == self.buffer.len() {
            self.buffer.resize(self.end * 2, 0);
        }
        loop {
            match self.reader.read(&mut self.buffer[self.end..]) {
                Ok(count) => {
                    self.end += count;
                    return Ok(count > 0);
                }
                Err(error) if error.kind() == std::io::ErrorKind::Interrupted => {}
                Err(error) => return Err(self.fault(&Fault::Io(error.to_string()))),
            }
        }
    }

    /// A fault: something else than `expected` comes next.
    #[cold]
    pub(crate) fn unexpected(&self, expected: &'static str) -> Box<Problem> {
        let found = Found(self.buffer[..self.end].get(self.at).copied());
        let before = self.buffer[..self.at].trim_ascii_end();
        self.fault(&Fault::Unexpected { expected, found, after_comma: before.ends_with(b",") })
    }

    /// A fault at the next byte; at the end of the text, behind the last thing that stands there.
    #[cold]
    pub(crate) fn fault(&self, fault: &Fault) -> Box<Problem> {
        let mut at = self.at;
        if matches!(fault, Fault::Truncated { .. }) {
            while at > 0 && self.buffer[at - 1].is_ascii_whitespace() {
                at -= 1;
            }
        }
        self.fault_at(fault, at)
    }

    fn fault_at(&self, fault: &Fault, at: usize) -> Box<Problem> {
        let (line, column) = self.line_and_column(at);
        let spot = Spot::Text { source: self.source, line, column };
        let mut problem = Problem::error(fault.to_string(), spot).with_excerpt(self.excerpt(at));
        problem.help = fault.help().map(str::to_owned);
        Box::new(problem)
    }

    /// A warning at a place that was just read, without an excerpt.
    pub(crate) fn warning(&self, message: String) -> Problem {
        let (line, column) = self.line_and_column(self.at);
        Problem::warning(message, Spot::Text { source: self.source, line, column })
    }

    fn line_and_column(&self, at: usize) -> (u64, u64) {
        let newlines = self.buffer[at..self.at.max(at)].iter().filter(|b| **b == b'\n').count() as u64;
        if newlines == 0 {
            let from = usize::try_from(self.line_start.saturating_sub(self.base)).unwrap_or(0).min(at);
            return (self.line, self.line_left + characters(&self.buffer[from..at]) + 1);
        }
        let from = self.buffer[..at].iter().rposition(|b| *b == b'\n').map_or(0, |newline| newline + 1);
        (self.line - newlines, characters(&self.buffer[from..at]) + 1)
    }

    fn excerpt(&self, at: usize) -> Excerpt {
        let from = self.buffer[..at].iter().rposition(|b| *b == b'\n').map_or(0, |newline| newline + 1);
        let rest = &self.buffer[at..self.end];
        let to = at + rest.iter().position(|b| *b == b'\n').unwrap_or(rest.len());
        let before = String::from_utf8_lossy(&self.buffer[from..at]);
        let after = String::from_utf8_lossy(&self.buffer[at..to]);
        let skipped = before.chars().count().saturating_sub(EXCERPT_BEFORE);
        let mut text = String::new();
        if skipped > 0 || (from == 0 && self.base > 0) {
            text.push('…');
        }
        text.extend(before.chars().skip(skipped).map(printable));
        let caret = text.chars().count();
        text.extend(after.trim_end().chars().take(EXCERPT_AFTER).map(printable));
        if after.trim_end().chars().count() > EXCERPT_AFTER {
            text.push('…');
        }
        Excerpt { text, caret }
    }
}

/// A character that cannot disturb a terminal.
fn printable(character: char) -> char {
    match character {
        '\t' => ' ',
        hidden if is_hidden(hidden) => '\u{FFFD}',
        shown => shown,
    }
}

/// The number of characters that start in these bytes.
fn characters(bytes: &[u8]) -> u64 {
    bytes.iter().filter(|b| **b & 0xC0 != 0x80).count() as u64
}
