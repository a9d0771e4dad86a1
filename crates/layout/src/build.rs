//! Builders, one for each form of [`Doc`] and for the combinations every language needs.

use std::borrow::Cow;

use crate::doc::{Doc, Fit};

/// Text on one line.
///
/// ```
/// use jar_sprout_layout::*;
/// assert_eq!(print(&text("hive"), &Style::default()), "hive");
/// ```
///
/// # Panics
/// On a newline inside: that is what [`hard`] is for.
pub fn text(text: impl Into<Cow<'static, str>>) -> Doc {
    let text = text.into();
    assert!(!text.contains('\n'), "text with a newline: {text:?}");
    Doc::Text(text)
}

/// A space, or a newline when the group around it breaks.
///
/// ```
/// use jar_sprout_layout::*;
/// let doc = group(cat([text("queen"), line(), text("hive")]));
/// assert_eq!(print(&doc, &Style { width: 10, ..Style::default() }), "queen hive");
/// assert_eq!(print(&doc, &Style { width: 9, ..Style::default() }), "queen\nhive");
/// ```
pub fn line() -> Doc {
    Doc::Line(" ")
}

/// Nothing, or a newline when the group around it breaks.
///
/// ```
/// use jar_sprout_layout::*;
/// let doc = group(cat([text("("), nest(cat([soft(), text("hive")])), soft(), text(")")]));
/// assert_eq!(print(&doc, &Style { width: 6, ..Style::default() }), "(hive)");
/// assert_eq!(print(&doc, &Style { width: 5, ..Style::default() }), "(\n    hive\n)");
/// ```
pub fn soft() -> Doc {
    Doc::Line("")
}

/// A newline always; every group around it breaks.
///
/// ```
/// use jar_sprout_layout::*;
/// let doc = group(cat([text("a"), line(), text("b"), hard(), text("c")]));
/// assert_eq!(print(&doc, &Style::default()), "a\nb\nc");
/// ```
pub fn hard() -> Doc {
    Doc::Hard
}

/// One text when the group around it broke, another when it fits.
///
/// ```
/// use jar_sprout_layout::*;
/// let doc = group(cat([text("["), nest(cat([soft(), text("hive"), if_broken(",", "")])), soft(), text("]")]));
/// assert_eq!(print(&doc, &Style { width: 6, ..Style::default() }), "[hive]");
/// assert_eq!(print(&doc, &Style { width: 5, ..Style::default() }), "[\n    hive,\n]");
/// ```
pub fn if_broken(broken: &'static str, flat: &'static str) -> Doc {
    Doc::IfBroken { broken, flat }
}

/// One level deeper, for the lines that start inside.
///
/// ```
/// use jar_sprout_layout::*;
/// let doc = cat([text("{"), nest(cat([hard(), text("hive")])), hard(), text("}")]);
/// let tabs = Style { indent: Indent::Tab { columns: 4 }, ..Style::default() };
/// assert_eq!(print(&doc, &Style::default()), "{\n    hive\n}");
/// assert_eq!(print(&doc, &tabs), "{\n\thive\n}");
/// ```
pub fn nest(doc: Doc) -> Doc {
    Doc::Nest(Box::new(doc))
}

/// On one line if it and what follows fit, else broken at all its own lines.
///
/// ```
/// use jar_sprout_layout::*;
/// let doc = cat([group(cat([text("a"), line(), text("b")])), text(";")]);
/// assert_eq!(print(&doc, &Style { width: 4, ..Style::default() }), "a b;");
/// // The group alone would fit three columns, but not with the `;` that follows.
/// assert_eq!(print(&doc, &Style { width: 3, ..Style::default() }), "a\nb;");
/// ```
pub fn group(doc: Doc) -> Doc {
    Doc::Group(Box::new(doc), Fit::Page)
}

/// A group that breaks beyond a width of its own, however wide the page is.
///
/// ```
/// use jar_sprout_layout::*;
/// let doc = |most| group_at_most(most, cat([text("queen"), line(), text("hive")]));
/// assert_eq!(print(&doc(10), &Style::default()), "queen hive");
/// assert_eq!(print(&doc(9), &Style::default()), "queen\nhive");
/// ```
pub fn group_at_most(columns: usize, doc: Doc) -> Doc {
    Doc::Group(Box::new(doc), Fit::AtMost(columns))
}

/// Rows in aligned columns. A column is as wide as the widest of its cells in neighbouring rows that have
/// a further cell behind it; a row's last cell is never padded.
///
/// ```
/// use jar_sprout_layout::*;
/// let doc = table([vec!["ID", "int64", "`json:\"id\"`"], vec!["HoneyKg", "float64", "`json:\"kg\"`"]]);
/// let expected = "ID      int64   `json:\"id\"`\nHoneyKg float64 `json:\"kg\"`";
/// assert_eq!(print(&doc, &Style::default()), expected);
/// // A table has a newline after each row: the group around it breaks.
/// assert_eq!(print(&group(cat([text("{"), line(), table([vec!["a", "b"]])])), &Style::default()), "{\na b");
/// ```
pub fn table<Row, Cell>(rows: impl IntoIterator<Item = Row>) -> Doc
where
    Row: IntoIterator<Item = Cell>,
    Cell: Into<Cow<'static, str>>,
{
    Doc::Table(rows.into_iter().map(|row| row.into_iter().map(Into::into).collect()).collect())
}

/// One after the other.
///
/// ```
/// use jar_sprout_layout::*;
/// assert_eq!(print(&cat([text("a"), text("b")]), &Style::default()), "ab");
/// ```
pub fn cat(docs: impl IntoIterator<Item = Doc>) -> Doc {
    Doc::Cat(docs.into_iter().collect())
}

/// One after the other with something between them.
///
/// ```
/// use jar_sprout_layout::*;
/// let doc = group(join(&cat([text(","), line()]), ["a", "b"].map(text)));
/// assert_eq!(print(&doc, &Style::default()), "a, b");
/// assert_eq!(print(&doc, &Style { width: 3, ..Style::default() }), "a,\nb");
/// ```
pub fn join(between: &Doc, docs: impl IntoIterator<Item = Doc>) -> Doc {
    // Their parts, not they: each would be a list of its own.
    let between = if let Doc::Cat(parts) = between { parts } else { std::slice::from_ref(between) };
    let docs = docs.into_iter();
    let mut joined = Vec::with_capacity(docs.size_hint().0 * (between.len() + 1));
    for doc in docs {
        if !joined.is_empty() {
            joined.extend_from_slice(between);
        }
        joined.push(doc);
    }
    Doc::Cat(joined)
}

/// Each on its own line.
///
/// ```
/// use jar_sprout_layout::*;
/// assert_eq!(print(&lines(["a", "b"].map(text)), &Style::default()), "a\nb");
/// ```
pub fn lines(docs: impl IntoIterator<Item = Doc>) -> Doc {
    join(&hard(), docs)
}

/// Each on its own line, a blank line between each two.
///
/// ```
/// use jar_sprout_layout::*;
/// assert_eq!(print(&paragraphs(["a", "b"].map(text)), &Style::default()), "a\n\nb");
/// ```
pub fn paragraphs(docs: impl IntoIterator<Item = Doc>) -> Doc {
    join(&cat([hard(), hard()]), docs)
}

/// A comma between each two, on one line or one a line as the group around them has it.
///
/// ```
/// use jar_sprout_layout::*;
/// let doc = group(comma_list(["a", "b"].map(text)));
/// assert_eq!(print(&doc, &Style::default()), "a, b");
/// assert_eq!(print(&doc, &Style { width: 3, ..Style::default() }), "a,\nb");
/// ```
pub fn comma_list(docs: impl IntoIterator<Item = Doc>) -> Doc {
    join(&cat([text(","), line()]), docs)
}

/// A comma behind the last, where the group around it broke.
pub fn last_comma() -> Doc {
    if_broken(",", "")
}

/// A head with lines below it, in braces.
///
/// ```
/// use jar_sprout_layout::*;
/// let doc = braces("struct Hive", ["let id: Int"].map(text));
/// assert_eq!(print(&doc, &Style::default()), "struct Hive {\n    let id: Int\n}");
/// ```
pub fn braces(head: impl Into<Doc>, inside: impl IntoIterator<Item = Doc>) -> Doc {
    let inside = inside.into_iter().flat_map(|line| [hard(), line]);
    cat([head.into(), text(" {"), nest(cat(inside)), hard(), text("}")])
}

/// The same with a blank line between each two.
///
/// ```
/// use jar_sprout_layout::*;
/// let doc = members("enum Hives", ["struct Hive {}", "struct Queen {}"].map(text));
/// assert_eq!(print(&doc, &Style::default()), "enum Hives {\n    struct Hive {}\n\n    struct Queen {}\n}");
/// assert_eq!(print(&members("enum Hives", []), &Style::default()), "enum Hives {}");
/// ```
pub fn members(head: impl Into<Doc>, inside: impl IntoIterator<Item = Doc>) -> Doc {
    let mut inside = inside.into_iter().peekable();
    if inside.peek().is_none() { cat([head.into(), text(" {}")]) } else { braces(head, [paragraphs(inside)]) }
}

impl From<&'static str> for Doc {
    fn from(line: &'static str) -> Self {
        text(line)
    }
}

impl From<String> for Doc {
    fn from(line: String) -> Self {
        text(line)
    }
}
