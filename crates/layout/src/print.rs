//! The printer: fits groups to the page, one look ahead at a time.

use std::borrow::Cow;

use rayon::iter::{IntoParallelIterator, ParallelIterator};
use unicode_width::UnicodeWidthStr;

use crate::doc::{Doc, Fit};

/// How a page is laid out.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Style {
    /// Columns of a line.
    pub width: usize,
    /// What one level of nesting is.
    pub indent: Indent,
}

/// What one level of nesting is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Indent {
    /// So many spaces.
    Spaces(usize),
    /// A tab that counts as so many columns.
    Tab {
        /// The columns.
        columns: usize,
    },
}

impl Default for Style {
    /// 80 columns, four spaces.
    fn default() -> Self {
        Self { width: 80, indent: Indent::Spaces(4) }
    }
}

/// Prints a document. There is no white space at the end of a line.
pub fn print(doc: &Doc, style: &Style) -> String {
    print_all(std::slice::from_ref(doc), style)
}

/// Prints a document and forgets it, on all cores where it is long.
pub fn print_out(doc: Doc, style: &Style) -> String {
    let parts = parts_of(doc);
    // Nobody is woken for a short one.
    if let [part] = parts.as_slice() {
        return print_all(part, style);
    }
    let last = parts.len() - 1;
    let printed: Vec<String> = parts.into_par_iter().map(|part| print_all(&part, style)).collect();
    let mut out = String::with_capacity(printed.iter().map(|part| part.len() + 1).sum());
    for (at, part) in printed.iter().enumerate() {
        // As before any newline.
        out.push_str(if at < last { part.trim_end_matches(' ') } else { part });
        out.push_str(if at < last { "\n" } else { "" });
    }
    out
}

/// How many characters a document takes on one line: for the rules of formatters that no group can say.
///
/// ```
/// use jar_sprout_layout::*;
/// assert_eq!(flat_length(&group(cat([text("queen"), line(), text("hive")]))), 10);
/// ```
pub fn flat_length(doc: &Doc) -> usize {
    print(doc, &Style { width: usize::MAX, ..Style::default() }).chars().count()
}

fn print_all(docs: &[Doc], style: &Style) -> String {
    let mut printer = Printer { style: *style, out: String::new(), column: 0, pending: None };
    let mut stack: Vec<Item<'_>> =
        docs.iter().rev().map(|doc| Item { level: 0, mode: Mode::Broken, doc }).collect();
    let mut ahead = Vec::new();
    while let Some(item) = stack.pop() {
        printer.step(item, &mut stack, &mut ahead);
    }
    printer.out
}

/// A document in parts, with a hard newline at the margin between any two: none looks beyond that.
fn parts_of(doc: Doc) -> Vec<Vec<Doc>> {
    /// So many pieces are worth the attention of another core.
    const MANY: usize = 256;
    /// A file is a list of declarations; what is in them need not be looked at.
    const LISTS: usize = 3;
    let mut parts = Vec::new();
    let mut part = Vec::new();
    let mut open = vec![vec![doc].into_iter()];
    while let Some(docs) = open.last_mut() {
        match docs.next() {
            Some(Doc::Cat(docs)) if open.len() <= LISTS => open.push(docs.into_iter()),
            Some(Doc::Hard) if part.len() >= MANY => parts.push(std::mem::take(&mut part)),
            Some(doc) => part.push(doc),
            None => drop(open.pop()),
        }
    }
    parts.push(part);
    parts
}

#[derive(Clone, Copy, PartialEq)]
enum Mode {
    Flat,
    Broken,
}

#[derive(Clone, Copy)]
struct Item<'d> {
    level: usize,
    mode: Mode,
    doc: &'d Doc,
}

/// What is still ahead of a group that is tried, as parts of lists: a long list is looked at no further than the line
/// reaches.
type Ahead<'d> = Vec<(Mode, &'d [Doc])>;

struct Printer {
    style: Style,
    out: String,
    column: usize,
    /// The level to indent to before the next text: a line that stays empty gets none.
    pending: Option<usize>,
}

impl Printer {
    fn step<'d>(&mut self, item: Item<'d>, stack: &mut Vec<Item<'d>>, ahead: &mut Ahead<'d>) {
        let Item { level, mode, doc } = item;
        match doc {
            Doc::Nil => {}
            Doc::Text(text) => self.text(text),
            Doc::Line(flat) => match mode {
                Mode::Flat => self.text(flat),
                Mode::Broken => self.newline(level),
            },
            Doc::Hard => self.newline(level),
            Doc::IfBroken { broken, flat } => self.text(if mode == Mode::Broken { broken } else { flat }),
            Doc::Nest(doc) => stack.push(Item { level: level + 1, mode, doc }),
            Doc::Group(doc, fit) => {
                let flat = Item { level, mode: Mode::Flat, doc };
                let broken = Item { mode: Mode::Broken, ..flat };
                let stays = mode == Mode::Flat || self.group_fits(flat, *fit, stack, ahead);
                stack.push(if stays { flat } else { broken });
            }
            Doc::Table(rows) => self.table(rows, level),
            Doc::Cat(docs) => stack.extend(docs.iter().rev().map(|doc| Item { level, mode, doc })),
        }
    }

    fn text(&mut self, text: &str) {
        if text.is_empty() {
            return;
        }
        if let Some(level) = self.pending.take() {
            match self.style.indent {
                Indent::Spaces(count) => self.out.extend(std::iter::repeat_n(' ', count * level)),
                Indent::Tab { .. } => self.out.extend(std::iter::repeat_n('\t', level)),
            }
        }
        self.out.push_str(text);
        self.column += columns(text);
    }

    fn newline(&mut self, level: usize) {
        let kept = self.out.trim_end_matches(' ').len();
        self.out.truncate(kept);
        self.out.push('\n');
        self.pending = Some(level);
        self.column = level * self.style.indent.columns();
    }

    fn table(&mut self, rows: &[Vec<Cow<'static, str>>], level: usize) {
        let widths = column_widths(rows);
        for (at, (row, widths)) in rows.iter().zip(widths).enumerate() {
            if at > 0 {
                self.newline(level);
            }
            for (cell, width) in row.iter().zip(widths) {
                self.text(cell);
                let padding = width.saturating_sub(cell.chars().count());
                self.text(&" ".repeat(padding));
            }
        }
    }

    fn group_fits<'d>(&self, group: Item<'d>, fit: Fit, rest: &[Item<'d>], ahead: &mut Ahead<'d>) -> bool {
        let page = self.style.width.saturating_sub(self.column);
        match fit {
            Fit::Never => false,
            Fit::Page => fits(group, rest, page, ahead),
            Fit::AtMost(columns) => fits(group, &[], columns, ahead) && fits(group, rest, page, ahead),
        }
    }
}

/// Whether a flat group and what follows it, up to the next possible break, take at most `room` columns.
fn fits<'d>(group: Item<'d>, rest: &[Item<'d>], room: usize, ahead: &mut Ahead<'d>) -> bool {
    let mut room = room;
    ahead.clear();
    ahead.push((group.mode, std::slice::from_ref(group.doc)));
    let mut rest = rest.iter().rev();
    loop {
        while ahead.last().is_some_and(|(_, docs)| docs.is_empty()) {
            ahead.pop();
        }
        let inside = !ahead.is_empty();
        let next = match ahead.last_mut() {
            Some((mode, docs)) => docs.split_off_first().map(|doc| (*mode, doc)),
            None => rest.next().map(|Item { mode, doc, level: _ }| (*mode, *doc)),
        };
        let Some((mode, doc)) = next else { return true };
        let mut take = |width: usize| {
            let fits = width <= room;
            room = room.saturating_sub(width);
            fits
        };
        let fits = match doc {
            Doc::Nil => true,
            Doc::Text(text) => take(columns(text)),
            Doc::Line(_) if mode == Mode::Broken => return true,
            Doc::Line(flat) => take(columns(flat)),
            // A hard newline ends the line of what follows, but is the end of a flat group.
            Doc::Hard | Doc::Table(_) => return !(inside && mode == Mode::Flat),
            Doc::IfBroken { broken, flat } => take(columns(if mode == Mode::Broken { broken } else { flat })),
            Doc::Group(_, Fit::Never) if mode == Mode::Flat => return false,
            Doc::Nest(doc) | Doc::Group(doc, _) => {
                ahead.push((mode, std::slice::from_ref(&**doc)));
                true
            }
            Doc::Cat(docs) => {
                ahead.push((mode, docs));
                true
            }
        };
        if !fits {
            return false;
        }
    }
}

/// The columns of a text. Most are ASCII, whose characters have one each.
fn columns(text: &str) -> usize {
    if text.is_ascii() { text.len() } else { text.width() }
}

/// For each row the width of each cell with its padding; a row's last cell has none. Widths are in characters, as
/// the formatter counts that aligns columns, however wide a terminal shows them.
fn column_widths(rows: &[Vec<Cow<'static, str>>]) -> Vec<Vec<usize>> {
    let mut widths: Vec<Vec<usize>> = rows.iter().map(|row| vec![0; row.len()]).collect();
    let columns = rows.iter().map(Vec::len).max().unwrap_or(0);
    for column in 0..columns {
        let has_column = |row: &Vec<Cow<'static, str>>| row.len() > column + 1;
        let mut from = 0;
        for block in rows.chunk_by(|a, b| has_column(a) == has_column(b)) {
            if has_column(&block[0]) {
                let widest = block.iter().map(|row| row[column].chars().count()).max().unwrap_or(0);
                widths[from..from + block.len()].iter_mut().for_each(|row| row[column] = widest + 1);
            }
            from += block.len();
        }
    }
    widths
}

impl Indent {
    fn columns(self) -> usize {
        match self {
            Self::Spaces(columns) | Self::Tab { columns } => columns,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::build::*;
    use proptest::prelude::*;

    fn bracketed(items: Vec<Doc>, fit: Fit) -> Doc {
        let inner = join(&cat([text(","), line()]), items);
        let body = cat([text("["), nest(cat([soft(), inner, if_broken(",", "")])), soft(), text("]")]);
        Doc::Group(Box::new(body), fit)
    }

    #[track_caller]
    fn check(doc: &Doc, width: usize, expected: &str) {
        assert_eq!(print(doc, &Style { width, indent: Indent::Spaces(2) }), expected);
    }

    #[test]
    fn the_outer_group_breaks_first() {
        let inner = bracketed(vec![text("b"), text("c")], Fit::Page);
        let doc = bracketed(vec![text("a"), inner], Fit::Page);
        check(&doc, 11, "[a, [b, c]]");
        check(&doc, 10, "[\n  a,\n  [b, c],\n]");
        check(&doc, 8, "[\n  a,\n  [\n    b,\n    c,\n  ],\n]");
    }

    #[test]
    fn never_breaks_the_groups_around_it() {
        let inner = bracketed(vec![text("b")], Fit::Never);
        check(&bracketed(vec![inner], Fit::Page), 80, "[\n  [\n    b,\n  ],\n]");
    }

    #[test]
    fn wide_characters_count_as_shown() {
        check(&bracketed(vec![text("日本")], Fit::Page), 6, "[日本]");
        check(&bracketed(vec![text("日本")], Fit::Page), 5, "[\n  日本,\n]");
    }

    #[test]
    fn a_short_row_ends_a_column() {
        let doc = table([vec!["a", "b", "c"], vec!["long name", "x"], vec!["alone"], vec!["k", "v"]]);
        check(&doc, 80, "a         b c\nlong name x\nalone\nk v");
    }

    #[test]
    fn empty_lines_carry_no_white_space() {
        let doc = nest(cat([text("a "), hard(), hard(), text("b")]));
        check(&doc, 80, "a\n\n  b");
    }

    fn any_doc() -> impl Strategy<Value = Doc> {
        let leaf = prop_oneof![
            Just(Doc::Nil),
            "[a-z]{0,6}".prop_map(text),
            Just(line()),
            Just(soft()),
            Just(hard()),
            Just(if_broken(",", "")),
            Just(table([vec!["a", "b"], vec!["ccc", "d"]])),
        ];
        leaf.prop_recursive(5, 60, 6, |inner| {
            prop_oneof![
                prop::collection::vec(inner.clone(), 0..6).prop_map(cat),
                inner.clone().prop_map(nest),
                inner.clone().prop_map(group),
                inner.prop_map(|doc| group_at_most(5, doc)),
            ]
        })
    }

    proptest! {
        #[test]
        fn width_changes_only_white_space_and_conditional_text(doc in any_doc(), a in 0_usize..40, b in 0_usize..40) {
            let letters = |width| -> String {
                let style = Style { width, ..Style::default() };
                print(&doc, &style).chars().filter(|c| c.is_alphanumeric()).collect()
            };
            prop_assert_eq!(letters(a), letters(b));
        }

        #[test]
        fn parts_are_printed_as_the_whole(docs in prop::collection::vec(any_doc(), 0..400), width in 0_usize..40) {
            let style = Style { width, ..Style::default() };
            let doc = cat([lines(docs), text("end")]);
            prop_assert_eq!(print_out(doc.clone(), &style), print(&doc, &style));
        }

        #[test]
        fn no_line_ends_in_white_space(doc in any_doc(), width in 0_usize..40) {
            let printed = print(&doc, &Style { width, ..Style::default() });
            let mut lines: Vec<&str> = printed.split('\n').collect();
            lines.pop();
            prop_assert!(lines.iter().all(|line| !line.ends_with(' ')), "{:?}", printed);
        }
    }
}
