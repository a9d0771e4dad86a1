//! Documentation comments: what a document says, wrapped, and unable to end the comment it stands in.

use std::borrow::Cow;

use jar_sprout_layout::{Doc, cat, hard, lines, text};
use jar_sprout_model::{Docs, is_hidden};

use crate::plan::push_capitalised;

/// How a language writes documentation.
pub(crate) struct Comment {
    /// What opens and closes it, and what each line starts with.
    pub(crate) form: CommentStyle,
    /// Columns of a line, indentation counted.
    pub(crate) width: usize,
    /// Makes a line of text harmless.
    pub(crate) escape: fn(&str) -> Cow<'_, str>,
    /// What is said where something should not be used any more, and why if that is known; none where an annotation
    /// says so.
    pub(crate) deprecated: Option<fn(Option<&str>) -> String>,
}

/// The lines of a comment.
#[derive(Clone, Copy)]
pub(crate) enum CommentStyle {
    /// `/// Every line is one.`
    Lines(&'static str),
    /// `// Every line is one`, with lists as gofmt has them.
    GoLines,
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

    /// The same of what has an annotation that says whether it should not be used any more.
    pub(crate) fn beside_annotation(&self, docs: &Docs, indent: usize) -> Option<Doc> {
        Self { deprecated: None, ..*self }.of(docs, indent)
    }

    /// The same, with paragraphs behind it that are tags of their own.
    pub(crate) fn with_tags(&self, docs: &Docs, indent: usize, tags: &[String]) -> Option<Doc> {
        let room = self.width.saturating_sub(indent + self.prefix().len()).max(20);
        let mut paragraphs = paragraphs(docs.text());
        let mut more = Vec::new();
        if docs.is_deprecated {
            let why = take_why(&mut paragraphs);
            more.extend(self.deprecated.map(|say| say(why.as_deref())));
        }
        let said: Vec<Cow<'_, str>> = paragraphs
            .iter()
            .map(|paragraph| (self.escape)(paragraph))
            .chain(more.iter().map(|more| (self.escape)(more)))
            .collect();
        let mut wrapped = self.wrapped(said, room);
        if !wrapped.is_empty() && !tags.is_empty() {
            wrapped.push(String::new());
        }
        for tag in tags {
            wrapped.extend(wrap(tag, room, "    "));
        }
        (!wrapped.is_empty()).then(|| self.framed(wrapped, room))
    }

    /// The lines of paragraphs, an empty one between two.
    fn wrapped(&self, said: Vec<Cow<'_, str>>, room: usize) -> Vec<String> {
        let mut wrapped: Vec<String> = Vec::new();
        let mut was_item = false;
        let list = self.list();
        let said = self.with_summary(said, room);
        for paragraph in &said {
            let item = item(paragraph);
            let is_first = wrapped.is_empty();
            if was_item && item.is_none() {
                wrapped.extend((!list.close.is_empty()).then(|| list.close.to_owned()));
            }
            if !is_first && (item.is_none() || !was_item && !list.open.is_empty()) {
                wrapped.push(String::new());
            }
            if !was_item && item.is_some() {
                wrapped.extend((!list.open.is_empty()).then(|| list.open.to_owned()));
            }
            was_item = item.is_some();
            let is_apart = !is_first && item.is_none();
            let (before, behind) = match (item, self.form) {
                (Some(_), _) => list.item,
                (None, CommentStyle::Javadoc) if is_apart => ("<p>", ""),
                (None, CommentStyle::Summary) if is_apart => ("<para>", "</para>"),
                (None, _) => ("", ""),
            };
            let paragraph = [before, item.unwrap_or(paragraph), behind].concat();
            // All on one line, its quotes stand there as well.
            let is_alone = said.len() == 1 && matches!(self.form, CommentStyle::Quotes);
            let room =
                if is_alone && paragraph.chars().count() <= room { room.saturating_sub(6) } else { room };
            let hanging = if item.is_some() { list.hanging } else { "" };
            wrapped.extend(wrap(&paragraph, room, hanging));
        }
        if was_item && !list.close.is_empty() {
            wrapped.push(list.close.to_owned());
        }
        wrapped
    }

    /// The paragraphs, where the language's own guide has rules for the first: it ends as a sentence does, and in
    /// Python (PEP 257) it is a line by itself if it can be.
    fn with_summary<'s>(&self, mut said: Vec<Cow<'s, str>>, room: usize) -> Vec<Cow<'s, str>> {
        let has_summary = matches!(self.form, CommentStyle::Javadoc | CommentStyle::Quotes);
        let Some(first) = said.first_mut().filter(|first| has_summary && item(first).is_none()) else {
            return said;
        };
        if matches!(self.form, CommentStyle::Quotes)
            && first.chars().count() + 3 > room
            && let Some(end) = first_sentence(first).filter(|end| end + 3 <= room)
        {
            let rest = first[end..].trim_start().to_owned();
            first.to_mut().truncate(end);
            said.insert(1, Cow::Owned(rest));
        }
        if is_without_end(&said[0]) {
            said[0].to_mut().push('.');
        }
        said
    }

    /// How lists are written.
    fn list(&self) -> ListStyle {
        match self.form {
            CommentStyle::Javadoc => {
                ListStyle { open: "<ul>", item: ("  <li>", ""), hanging: "      ", close: "</ul>" }
            }
            CommentStyle::Summary => ListStyle {
                open: "<list type=\"bullet\">",
                item: ("<item>", "</item>"),
                hanging: "",
                close: "</list>",
            },
            CommentStyle::GoLines => ListStyle { open: "", item: ("  - ", ""), hanging: "    ", close: "" },
            CommentStyle::Lines(_) | CommentStyle::Stars | CommentStyle::Quotes => {
                ListStyle { open: "", item: ("- ", ""), hanging: "  ", close: "" }
            }
        }
    }

    fn prefix(&self) -> &'static str {
        match self.form {
            CommentStyle::Lines(prefix) => prefix,
            CommentStyle::GoLines => "// ",
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
            CommentStyle::Lines(_) | CommentStyle::GoLines => lines(wrapped.iter().map(line)),
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

/// How a language writes a list in a comment.
struct ListStyle {
    /// The lines before and behind all items; empty where there are none.
    open: &'static str,
    close: &'static str,
    /// What stands before and behind each.
    item: (&'static str, &'static str),
    /// What stands before its second line.
    hanging: &'static str,
}

/// Takes out the paragraph that says why something should not be used any more, and what to use.
fn take_why(paragraphs: &mut Vec<Cow<'_, str>>) -> Option<String> {
    const OPENINGS: &[&str] =
        &["use ", "please use ", "replaced by ", "superseded by ", "prefer ", "no longer used", "deprecated"];
    let starts = |said: &str, opening: &&str| {
        said.get(..opening.len()).is_some_and(|start| start.eq_ignore_ascii_case(opening))
    };
    let opens = |said: &str| OPENINGS.iter().any(|opening| starts(said, opening));
    let at = paragraphs.iter().position(|paragraph| opens(paragraph))?;
    let said = paragraphs.remove(at);
    let word = "deprecated";
    let why = if starts(&said, &word) {
        said[word.len()..].trim_start_matches([':', '.', ',', ';', '-', '!', ' '])
    } else {
        &said
    };
    let mut message = String::with_capacity(why.len());
    push_capitalised(why, &mut message);
    (!message.is_empty()).then_some(message)
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
            Some(last) if is_open && item(&words).is_none() => {
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

/// Where the first of several sentences ends.
fn first_sentence(said: &str) -> Option<usize> {
    let is_start = |behind: &str| behind.trim_start().starts_with(|c: char| c.is_uppercase() || c == '`');
    let ends = said.match_indices(". ").map(|(at, _)| at + 1);
    // `e.g. Alder Bank` and `No. 5` end nothing.
    let is_word = |at: usize| {
        said[..at - 1].rsplit(' ').next().is_some_and(|word| word.len() > 3 && !word.contains('.'))
    };
    ends.into_iter().find(|at| is_word(*at) && is_start(&said[*at..]))
}

/// Whether a sentence lacks the sign at its end; an address would lead elsewhere with one.
fn is_without_end(said: &str) -> bool {
    let last = said.rsplit(' ').next().unwrap_or_default();
    said.ends_with(|c: char| c.is_alphanumeric() || matches!(c, ')' | '`' | '\'' | '%'))
        && !last.contains("://")
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

/// `Alder Bank` of `- Alder Bank`
fn item(line: &str) -> Option<&str> {
    ["- ", "* ", "+ "].iter().find_map(|mark| line.strip_prefix(mark))
}

/// Breaks a text at blanks; a word that is too long has a line of its own.
fn wrap(text: &str, room: usize, indent: &str) -> Vec<String> {
    // No character is shorter than a byte.
    if text.len() <= room && !text.starts_with(' ') {
        return vec![text.to_owned()];
    }
    let mut wrapped: Vec<String> = Vec::new();
    let words = text.trim_start_matches(' ');
    let mut length = text.len() - words.len();
    let mut line = " ".repeat(length);
    let mut has_words = false;
    for word in words.split(' ') {
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
pub(crate) fn warning(docs: &Docs) -> String {
    take_why(&mut paragraphs(docs.text())).unwrap_or_else(|| "Deprecated by the API.".to_owned())
}

/// What a comment says of it, in words.
pub(crate) fn deprecated(why: Option<&str>) -> String {
    why.map_or_else(|| "Deprecated.".to_owned(), |why| format!("Deprecated: {why}"))
}

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

/// XML documentation: the signs of markup, and with them the tags of a comment, are escaped; code and links are its own.
pub(crate) fn in_xml(line: &str) -> Cow<'_, str> {
    let code = |code: &str| ["<c>", &in_markup(code), "</c>"].concat();
    let link =
        |words: &str, url: &str| format!("<see href=\"{}\">{}</see>", in_markup(url), in_markup(words));
    escaped(line, MARKUP, |line| inline(line, &in_markup, &code, &link))
}

/// Javadoc: the same, with escapes that the compiler reads even in a comment.
pub(crate) fn in_javadoc(line: &str) -> Cow<'_, str> {
    let plain = |text: &str| {
        let text = in_markup(text);
        let text = text.replace('@', "&#64;").replace('\\', "&#92;").replace("*/", "*&#47;");
        text.replace('{', "&#123;").replace('}', "&#125;")
    };
    let code = |code: &str| {
        // What stands in a tag is shown as it is, but for what would end it or is read before it.
        if code.contains(['@', '\\', '*', '{', '}']) {
            ["<code>", &plain(code), "</code>"].concat()
        } else {
            ["{@code ", code, "}"].concat()
        }
    };
    let link = |words: &str, url: &str| format!("<a href=\"{}\">{}</a>", plain(url), plain(words));
    escaped(line, MARKUP, |line| inline(line, &plain, &code, &link))
}

/// Links in words, since Go's comments have no markup for them within a line.
pub(crate) fn in_go(line: &str) -> Cow<'_, str> {
    let link = |words: &str, url: &str| format!("{words} ({url})");
    escaped(line, &['`', '['], |line| inline(line, &str::to_owned, &str::to_owned, &link))
}

/// What Markdown or another markup may mean something by.
const MARKUP: &[char] = &['<', '>', '&', '@', '\\', '*', '{', '}', '`', '['];

fn in_markup(text: &str) -> String {
    text.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;")
}

/// A line of Markdown in another markup: code between backticks, links that lead to the web, and the rest.
fn inline(
    line: &str,
    plain: &dyn Fn(&str) -> String,
    code: &dyn Fn(&str) -> String,
    link: &dyn Fn(&str, &str) -> String,
) -> String {
    let mut said = String::with_capacity(line.len() + 16);
    let mut rest = line;
    while let Some(at) = rest.find(['`', '[']) {
        let (before, here) = rest.split_at(at);
        said.push_str(&plain(before));
        let (found, behind) = if let Some((held, behind)) = markdown_code(here) {
            (code(held), behind)
        } else if let Some((words, url, behind)) = markdown_link(here) {
            (link(words, url), behind)
        } else {
            (here[..1].to_owned(), &here[1..])
        };
        said.push_str(&found);
        rest = behind;
    }
    said.push_str(&plain(rest));
    said
}

/// What stands between two backticks, and what comes behind.
fn markdown_code(text: &str) -> Option<(&str, &str)> {
    let (code, behind) = text.strip_prefix('`')?.split_once('`')?;
    (!code.trim().is_empty()).then_some((code, behind))
}

/// The words of a link, where it leads, and what comes behind.
fn markdown_link(text: &str) -> Option<(&str, &str, &str)> {
    let (words, behind) = text.strip_prefix('[')?.split_once("](")?;
    let (url, behind) = behind.split_once(')')?;
    let is_web = url.starts_with("https://") || url.starts_with("http://");
    let is_plain =
        !url.contains(['"', ' ', '<', '>']) && !words.contains(['[', ']', '`']) && !words.is_empty();
    (is_web && is_plain).then_some((words, url, behind))
}

/// Between three quotes.
pub(crate) fn in_quotes(line: &str) -> Cow<'_, str> {
    escaped(line, &['\\', '"'], |line| {
        let line = line.replace('\\', "\\\\").replace("\"\"\"", "\\\"\\\"\\\"");
        // One at the end would stand before those that close; behind an even number of backslashes it is none of theirs.
        match line.strip_suffix('"') {
            Some(start) if (start.len() - start.trim_end_matches('\\').len()).is_multiple_of(2) => {
                [start, "\\\""].concat()
            }
            Some(_) | None => line,
        }
    })
}

/// Where a fence of code would be compiled.
pub(crate) fn without_fences(line: &str) -> Cow<'_, str> {
    escaped(line, &['`', '~'], |line| line.replace("```", "\\`\\`\\`").replace("~~~", "\\~~~"))
}

#[cfg(test)]
mod tests;
