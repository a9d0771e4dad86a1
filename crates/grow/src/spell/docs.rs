//! Documentation comments: what a document says, wrapped, and unable to end the comment it stands in.

use std::borrow::Cow;

use jar_sprout_layout::{Doc, cat, hard, lines, text};
use jar_sprout_model::{Docs, is_hidden};

/// How a language writes documentation.
pub(crate) struct Comment {
    /// What opens and closes it, and what each line starts with.
    pub(crate) form: CommentStyle,
    /// Columns of a line, indentation counted.
    pub(crate) width: usize,
    /// Makes a line of text harmless.
    pub(crate) escape: fn(&str) -> Cow<'_, str>,
    /// What is said where something should not be used any more and no annotation says so.
    pub(crate) deprecated: Option<&'static str>,
}

/// The lines of a comment.
#[derive(Clone, Copy)]
pub(crate) enum CommentStyle {
    /// `/// Every line is one.`
    Lines(&'static str),
    /// `/** One line, or several with a star before each. */`
    Stars,
    /// The same, with a tag before each paragraph but the first: its formatter and its linter want them told apart.
    Javadoc,
    /// `/// <summary>One line, or several.</summary>`
    Summary,
    /// `"""One line, or several."""`
    Quotes,
}

impl Comment {
    /// The comment, indented by so many columns; none where nothing is said.
    pub(crate) fn of(&self, docs: &Docs, indent: usize) -> Option<Doc> {
        self.with_tags(docs, indent, &[])
    }

    /// The same, with paragraphs behind it that are tags of their own.
    pub(crate) fn with_tags(&self, docs: &Docs, indent: usize, tags: &[String]) -> Option<Doc> {
        let room = self.width.saturating_sub(indent + self.prefix().len()).max(20);
        let paragraphs = paragraphs(docs.text());
        let mut said: Vec<Cow<'_, str>> =
            paragraphs.iter().map(|paragraph| (self.escape)(paragraph)).collect();
        if docs.is_deprecated {
            said.extend(self.deprecated.map(Cow::Borrowed));
        }
        let mut wrapped = self.wrapped(&said, room);
        if !wrapped.is_empty() && !tags.is_empty() {
            wrapped.push(String::new());
        }
        for tag in tags {
            wrapped.extend(wrap(tag, room, "    "));
        }
        (!wrapped.is_empty()).then(|| self.framed(wrapped, room))
    }

    /// The lines of paragraphs, an empty one between two.
    fn wrapped(&self, said: &[Cow<'_, str>], room: usize) -> Vec<String> {
        let mut wrapped = Vec::new();
        for paragraph in said {
            let is_javadoc = matches!(self.form, CommentStyle::Javadoc);
            let is_first = wrapped.is_empty();
            if !is_first && (is_javadoc || !is_item(paragraph)) {
                wrapped.push(String::new());
            }
            let paragraph = if is_javadoc && !is_first {
                Cow::Owned(format!("<p>{paragraph}"))
            } else {
                Cow::Borrowed(&**paragraph)
            };
            // All on one line, its quotes stand there as well.
            let is_alone = said.len() == 1 && matches!(self.form, CommentStyle::Quotes);
            let room =
                if is_alone && paragraph.chars().count() <= room { room.saturating_sub(6) } else { room };
            wrapped.extend(wrap(&paragraph, room, ""));
        }
        wrapped
    }

    fn prefix(&self) -> &'static str {
        match self.form {
            CommentStyle::Lines(prefix) => prefix,
            CommentStyle::Stars | CommentStyle::Javadoc => " * ",
            CommentStyle::Summary => "/// ",
            CommentStyle::Quotes => "",
        }
    }

    fn framed(&self, wrapped: Vec<String>, room: usize) -> Doc {
        let prefix = self.prefix();
        let line = |line: &String| match line.as_str() {
            "" => text(prefix.trim_end()),
            line => text([prefix, line].concat()),
        };
        let is_one = wrapped.len() == 1;
        let length = wrapped[0].chars().count();
        let framed = |open: &'static str, close: &'static str| {
            let inside = wrapped.iter().map(line);
            lines([text(open)].into_iter().chain(inside).chain([text(close)]))
        };
        match self.form {
            CommentStyle::Lines(_) => lines(wrapped.iter().map(line)),
            // Two signs more than a line in the middle has: `/**` and ` */`.
            CommentStyle::Stars | CommentStyle::Javadoc
                if is_one && length + 4 <= room && !wrapped[0].starts_with("@p") =>
            {
                text(["/** ", &wrapped[0], " */"].concat())
            }
            CommentStyle::Stars | CommentStyle::Javadoc => framed("/**", " */"),
            CommentStyle::Summary if is_one && length + "<summary></summary>".len() <= room => {
                text(["/// <summary>", &wrapped[0], "</summary>"].concat())
            }
            CommentStyle::Summary => framed("/// <summary>", "/// </summary>"),
            CommentStyle::Quotes if is_one => text(["\"\"\"", &wrapped[0], "\"\"\""].concat()),
            CommentStyle::Quotes => {
                let mut inside = wrapped.into_iter();
                let first = inside.next().map(|first| text(format!("\"\"\"{first}")));
                lines(first.into_iter().chain(inside.map(text)).chain([text("\"\"\"")]))
            }
        }
    }
}

/// Lines that belong together, joined; an item of a list is a paragraph of its own.
fn paragraphs(said: &str) -> Vec<Cow<'_, str>> {
    let mut paragraphs: Vec<Cow<'_, str>> = Vec::new();
    let mut is_open = false;
    for line in said.lines() {
        let words = tidy(line);
        // A bare sign would be a heading or a rule.
        let sign = words.len() - words.trim_start_matches(['#', '=', '~']).trim_start().len();
        let words = match words {
            Cow::Borrowed(words) => Cow::Borrowed(&words[sign..]),
            Cow::Owned(words) => Cow::Owned(words[sign..].to_owned()),
        };
        match paragraphs.last_mut() {
            _ if words.is_empty() => is_open = false,
            Some(last) if is_open && !is_item(&words) => {
                let last = last.to_mut();
                last.push(' ');
                last.push_str(&words);
            }
            Some(_) | None => {
                paragraphs.push(words);
                is_open = true;
            }
        }
    }
    paragraphs
}

/// The words of a line with one blank between, and nothing that cannot be seen.
fn tidy(line: &str) -> Cow<'_, str> {
    let is_plain = line.bytes().all(|byte| matches!(byte, b' '..=b'~')) && !line.contains("  ");
    if is_plain {
        return Cow::Borrowed(line.trim());
    }
    let line: String = line.chars().map(|c| if is_hidden(c) { ' ' } else { c }).collect();
    Cow::Owned(line.split_whitespace().collect::<Vec<_>>().join(" "))
}

/// `- Alder Bank`
fn is_item(line: &str) -> bool {
    ["- ", "* ", "+ "].iter().any(|mark| line.starts_with(mark))
}

/// Breaks a text at blanks; a word that is too long has a line of its own.
fn wrap(text: &str, room: usize, indent: &str) -> Vec<String> {
    // No character is shorter than a byte.
    if text.len() <= room && !text.starts_with(' ') {
        return vec![text.to_owned()];
    }
    let mut wrapped: Vec<String> = Vec::new();
    let (mut line, mut length) = (String::new(), 0);
    let mut has_words = false;
    for word in text.split(' ') {
        let count = word.chars().count();
        if has_words && length + 1 + count > room {
            wrapped.push(std::mem::replace(&mut line, indent.to_owned()));
            (length, has_words) = (indent.len(), false);
        }
        if has_words {
            line.push(' ');
            length += 1;
        }
        line.push_str(word);
        length += count;
        has_words |= !word.is_empty();
    }
    wrapped.push(line);
    wrapped
}

/// One below the other, with a blank line before each of which something is said.
pub(crate) fn spaced(members: impl IntoIterator<Item = (Option<Doc>, Doc)>) -> Doc {
    let mut out = Vec::new();
    for (comment, member) in members {
        if !out.is_empty() {
            out.push(hard());
            out.extend(comment.is_some().then(hard));
        }
        out.push(lines(comment.into_iter().chain([member])));
    }
    cat(out)
}

/// All that is said, on one line.
pub(crate) fn in_one_line(said: &str, escape: fn(&str) -> Cow<'_, str>) -> String {
    paragraphs(said).iter().map(|paragraph| escape(paragraph)).collect::<Vec<_>>().join(" ")
}

/// What an annotation says of something that should not be used any more.
pub(crate) const WARNING: &str = "Deprecated by the API.";

/// Nothing to be done.
pub(crate) fn as_it_is(line: &str) -> Cow<'_, str> {
    Cow::Borrowed(line)
}

/// A line with what is dangerous in it replaced; most have nothing.
fn escaped<'l>(line: &'l str, dangerous: &[char], escape: impl FnOnce(&str) -> String) -> Cow<'l, str> {
    if line.contains(dangerous) { Cow::Owned(escape(line)) } else { Cow::Borrowed(line) }
}

/// What opens or closes a comment between `/*` and `*/`; a tag of its own would be `@`.
pub(crate) fn in_stars(line: &str) -> Cow<'_, str> {
    escaped(line, &['*'], |line| line.replace("*/", "*&#47;").replace("/*", "/&#42;"))
}

/// The signs of markup, and with them the tags of a comment.
pub(crate) fn in_markup(line: &str) -> Cow<'_, str> {
    escaped(line, &['<', '>', '&'], |line| {
        line.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;")
    })
}

/// Javadoc: markup, tags, and escapes that the compiler reads even in a comment.
pub(crate) fn in_javadoc(line: &str) -> Cow<'_, str> {
    escaped(line, &['<', '>', '&', '@', '\\', '*', '{', '}'], |line| {
        in_markup(line)
            .replace('@', "&#64;")
            .replace('\\', "&#92;")
            .replace("*/", "*&#47;")
            .replace('{', "&#123;")
            .replace('}', "&#125;")
    })
}

/// Between three quotes.
pub(crate) fn in_quotes(line: &str) -> Cow<'_, str> {
    escaped(line, &['\\', '"'], |line| line.replace('\\', "\\\\").replace('"', "\\\""))
}

/// Where a fence of code would be compiled.
pub(crate) fn without_fences(line: &str) -> Cow<'_, str> {
    escaped(line, &['`', '~'], |line| line.replace("```", "\\`\\`\\`").replace("~~~", "\\~~~"))
}

#[cfg(test)]
mod tests {
    use jar_sprout_layout::{Style, print};

    use super::*;

    #[track_caller]
    fn check(form: CommentStyle, escape: fn(&str) -> Cow<'_, str>, said: &str, expected: &str) {
        let comment = Comment { form, width: 40, escape, deprecated: Some("Deprecated.") };
        let docs = Docs::new(said);
        let printed = comment.of(&docs, 0).map(|doc| print(&doc, &Style::default()));
        assert_eq!(printed.unwrap_or_default(), expected);
    }

    #[test]
    fn one_line_and_several() {
        check(CommentStyle::Stars, in_stars, "A hive.", "/** A hive. */");
        check(CommentStyle::Lines("/// "), as_it_is, "A hive.\nOf bees.", "/// A hive. Of bees.");
        check(CommentStyle::Summary, in_markup, "A <b>", "/// <summary>A &lt;b&gt;</summary>");
        check(CommentStyle::Quotes, in_quotes, "A \"hive\"", "\"\"\"A \\\"hive\\\"\"\"\"");
        let long = "A hive of the co-operative, as its keeper sees it.";
        check(
            CommentStyle::Stars,
            in_stars,
            long,
            "/**\n * A hive of the co-operative, as its\n * keeper sees it.\n */",
        );
        check(CommentStyle::Lines("// "), as_it_is, "", "");
    }

    #[test]
    fn paragraphs_and_items_stay_apart() {
        check(
            CommentStyle::Lines("// "),
            as_it_is,
            "One.\n\nTwo:\n- a\n- b",
            "// One.\n//\n// Two:\n// - a\n// - b",
        );
    }

    #[test]
    fn nothing_ends_a_comment() {
        check(CommentStyle::Stars, in_stars, "a */ b /* c", "/** a *&#47; b /&#42; c */");
        check(CommentStyle::Javadoc, in_javadoc, "\\u002a/ {@x}", "/** &#92;u002a/ &#123;&#64;x&#125; */");
        check(CommentStyle::Quotes, in_quotes, "\"\"\" + x\\", "\"\"\"\\\"\\\"\\\" + x\\\\\"\"\"");
        check(CommentStyle::Lines("// "), as_it_is, "a\u{2028}b\u{202E}c\rd", "// a b c d");
    }
}
