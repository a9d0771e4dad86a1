//! Drift for a comment on a change that is being reviewed.

use super::text::by_type;
use super::words::{Shown, summary};
use crate::screen::visible;

/// All findings as Markdown, a table for each type.
pub(crate) fn markdown(title: &str, all: &[Shown]) -> String {
    let mut out = format!("### {}\n\n{}\n", plain(title), summary(all));
    for (of, findings) in by_type(all) {
        out.push_str(&format!(
            "\n**{}**\n\n| verdict | field | was | is | evidence |\n|---|---|---|---|---|\n",
            plain(&of)
        ));
        for one in findings {
            let Shown { verdict, what, was, is, evidence, way_out, .. } = one;
            let elsewhere = one.elsewhere();
            let elsewhere =
                if elsewhere.is_empty() { elsewhere } else { format!("<br>{}", plain(&elsewhere)) };
            let way_out = if way_out.is_empty() { String::new() } else { format!("<br>{}", code(way_out)) };
            out.push_str(&format!(
                "| {}{elsewhere} | {} | {} | {}{way_out} | {} |\n",
                verdict.words(),
                code(what),
                plain(was),
                plain(is),
                plain(evidence),
            ));
        }
    }
    out
}

/// A text of which nothing is markup.
fn plain(text: &str) -> String {
    let text = visible(text);
    let mut out = String::new();
    for c in text.chars() {
        match c {
            '&' => out.push_str("&amp;"),
            '<' => out.push_str("&lt;"),
            '>' => out.push_str("&gt;"),
            '\\' | '`' | '*' | '_' | '{' | '}' | '[' | ']' | '(' | ')' | '#' | '+' | '!' | '|' | '~'
            | '@' => {
                out.push('\\');
                out.push(c);
            }
            c => out.push(c),
        }
    }
    out
}

/// A text as code in a cell of a table.
fn code(text: &str) -> String {
    // In code, nothing but a backtick and the bar of a table means something.
    let text = visible(text).replace('`', "'").replace('|', "\\|");
    format!("`{text}`")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn nothing_of_the_data_is_markup() {
        assert_eq!(plain("<b>*a*|b"), "&lt;b&gt;\\*a\\*\\|b");
        assert_eq!(code("a`b|c"), "`a'b\\|c`");
    }
}
