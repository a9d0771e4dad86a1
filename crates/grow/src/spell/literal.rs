//! Text literals: whatever stands in a text, the literal says just that and nothing else.

use jar_sprout_model::is_hidden;

/// How a language writes a text literal.
pub(crate) struct Literal {
    /// What opens and closes it.
    pub(crate) quote: char,
    /// Characters with an escape of their own.
    pub(crate) escapes: &'static [(char, &'static str)],
    /// The escape of any character.
    pub(crate) character: fn(char) -> String,
}

impl Literal {
    /// The literal of a text, all on one line.
    pub(crate) fn of(&self, text: &str) -> String {
        let mut out = String::with_capacity(text.len() + 2);
        out.push(self.quote);
        let is_escaped = |byte: u8| self.escapes.iter().any(|(special, _)| *special == char::from(byte));
        if text.bytes().all(|byte| matches!(byte, b' '..=b'~') && !is_escaped(byte)) {
            out.push_str(text);
            out.push(self.quote);
            return out;
        }
        for character in text.chars() {
            if let Some((_, escape)) = self.escapes.iter().find(|(special, _)| *special == character) {
                out.push_str(escape);
            } else if is_hidden(character) {
                out.push_str(&(self.character)(character));
            } else {
                out.push(character);
            }
        }
        out.push(self.quote);
        out
    }
}

/// `\u001f`, the escape that most languages share: a UTF-16 code unit, or two of them.
pub(crate) fn backslash_u(character: char) -> String {
    let mut units = [0; 2];
    character.encode_utf16(&mut units).iter().map(|unit| format!("\\u{unit:04x}")).collect()
}
