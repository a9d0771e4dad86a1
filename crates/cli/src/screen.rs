//! The terminal: its width, and text that cannot disturb it.

use std::borrow::Cow;

use jar_sprout_model::is_hidden;
use unicode_width::{UnicodeWidthChar, UnicodeWidthStr};

/// Columns where there is no terminal.
const DEFAULT_WIDTH: usize = 80;

/// Columns to fill: the terminal's, else what `COLUMNS` says.
pub(crate) fn width() -> usize {
    let terminal =
        terminal_size::terminal_size().map(|(terminal_size::Width(columns), _)| usize::from(columns));
    let asked = || std::env::var("COLUMNS").ok()?.parse().ok();
    terminal.or_else(asked).unwrap_or(DEFAULT_WIDTH).max(40)
}

/// A text with its control and direction-changing characters spelled out.
pub(crate) fn visible(text: &str) -> Cow<'_, str> {
    if !text.contains(is_hidden) {
        return Cow::Borrowed(text);
    }
    let spell = |c: char| if is_hidden(c) { c.escape_default().to_string() } else { c.to_string() };
    Cow::Owned(text.chars().map(spell).collect())
}

/// A text cut to so many columns, with an ellipsis if something went.
pub(crate) fn cut(text: &str, columns: usize) -> Cow<'_, str> {
    if text.width() <= columns {
        return Cow::Borrowed(text);
    }
    let mut kept = String::new();
    let mut used = 1;
    for character in text.chars() {
        used += character.width().unwrap_or(0);
        if used > columns {
            break;
        }
        kept.push(character);
    }
    kept.push('…');
    Cow::Owned(kept)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn hidden_characters_are_spelled_out() {
        assert_eq!(visible("hive"), "hive");
        assert_eq!(visible("a\u{1b}[31m\n\u{202E}"), "a\\u{1b}[31m\\n\\u{202e}");
    }

    #[test]
    fn a_cut_text_fits() {
        assert_eq!(cut("hive", 4), "hive");
        assert_eq!(cut("hives", 4), "hiv…");
        assert_eq!(cut("日本語", 5), "日本…");
        assert_eq!(cut("日本語", 4), "日…");
    }
}
