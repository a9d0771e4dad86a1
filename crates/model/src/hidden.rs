//! Characters that do harm where they stand unseen.

/// Whether a character must not stand as it is in code, in a message or on a terminal: it ends a line, cannot be seen, or
/// turns the order of what is read (Unicode Standard Annex #9).
pub fn is_hidden(character: char) -> bool {
    character.is_control()
        || !character.is_ascii() && HIDDEN.iter().any(|(first, last)| (*first..=*last).contains(&character))
}

/// Beside the controls: first and last of each range.
const HIDDEN: &[(char, char)] = &[
    // Soft hyphen, Arabic letter mark, Mongolian vowel separator.
    ('\u{AD}', '\u{AD}'),
    ('\u{61C}', '\u{61C}'),
    ('\u{180E}', '\u{180E}'),
    // Of no width, joiners, marks of direction.
    ('\u{200B}', '\u{200F}'),
    // Separators of lines and paragraphs, embeddings and overrides of direction.
    ('\u{2028}', '\u{202E}'),
    // Word joiner, invisible operators, isolates.
    ('\u{2060}', '\u{206F}'),
    // Byte order mark, anchors of annotations.
    ('\u{FEFF}', '\u{FEFF}'),
    ('\u{FFF9}', '\u{FFFB}'),
    // Tags and selectors of variants.
    ('\u{E0000}', '\u{E0FFF}'),
];

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_turns_directions_is_hidden_and_what_is_read_is_not() {
        for character in
            ['\0', '\n', '\u{7F}', '\u{85}', '\u{61C}', '\u{200E}', '\u{202E}', '\u{2066}', '\u{2069}']
        {
            assert!(is_hidden(character), "{character:?}");
        }
        for character in [' ', 'a', 'é', '日', '🍯', '\u{A0}'] {
            assert!(!is_hidden(character), "{character:?}");
        }
    }
}
