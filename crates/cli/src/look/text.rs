//! The tree: a row for each position, in aligned columns cut to the terminal's width.

use std::io::{self, Write};

use jar_sprout_model::Model;
use jar_sprout_shape::{FieldShape, Objects, Shape};
use owo_colors::OwoColorize;
use unicode_width::UnicodeWidthStr;

use super::at::At;
use super::describe::{example, type_of, values_of};
use crate::screen::{cut, visible};
use crate::sources::Gathered;

/// Columns between two cells.
const GAP: usize = 2;

/// What an example needs to be of use.
const LEAST_EXAMPLE: usize = 12;

/// One position.
struct Row {
    depth: usize,
    key: String,
    kind: String,
    /// `17 of 20`, where the key is not always there.
    seen: String,
    nulls: String,
    example: String,
    /// Whether rows below belong to it.
    has_parts: bool,
}

/// The columns of the table without the last, which takes what is left.
struct Widths {
    key: usize,
    kind: usize,
    seen: usize,
    nulls: usize,
    example: usize,
}

/// Writes the whole tree.
pub(crate) fn text(gathered: &Gathered, model: &Model, out: &mut impl Write, width: usize) -> io::Result<()> {
    let rows = rows(gathered, model);
    let widths = Widths::fit(&rows, width);
    writeln!(out, "{}", summary(gathered))?;
    writeln!(out)?;
    let header = Row {
        depth: 0,
        key: "key".to_owned(),
        kind: "type".to_owned(),
        seen: "seen".to_owned(),
        nulls: "null".to_owned(),
        example: "example".to_owned(),
        has_parts: false,
    };
    writeln!(out, "{}", header.line(&widths, true))?;
    for row in &rows {
        writeln!(out, "{}", row.line(&widths, false))?;
    }
    out.flush()
}

/// `3 samples, 12.3 kB`
fn summary(gathered: &Gathered) -> String {
    let Gathered { samples, bytes, .. } = gathered;
    format!("{samples} {}, {}", if *samples == 1 { "sample" } else { "samples" }, size(*bytes))
}

/// A length in bytes for people, in steps of 1000.
pub(crate) fn size(bytes: u64) -> String {
    match bytes {
        0..1_000 => format!("{bytes} bytes"),
        1_000..1_000_000 => format!("{:.1} kB", bytes as f64 / 1e3),
        1_000_000..1_000_000_000 => format!("{:.1} MB", bytes as f64 / 1e6),
        _ => format!("{:.1} GB", bytes as f64 / 1e9),
    }
}

fn rows(gathered: &Gathered, model: &Model) -> Vec<Row> {
    let at = At::root(model, gathered.document.is_none());
    let top = Row::of(0, gathered.root_name().to_string(), String::new(), &gathered.shape, at);
    let mut rows = vec![top];
    push_parts(&gathered.shape, at, 1, &mut rows);
    rows
}

/// The rows below a position: fields of objects, whether they stand there or in lists there.
fn push_parts(shape: &Shape, at: At<'_>, depth: usize, rows: &mut Vec<Row>) {
    if at.is_left_out() {
        return;
    }
    if let Some(objects) = &shape.objects {
        push_fields(objects, at, depth, rows);
    }
    if let Some(lists) = &shape.lists {
        push_parts(&lists.items, at.items(), depth, rows);
    }
    if let (Some(inside), Some(at)) = (shape.texts.as_ref().and_then(|texts| texts.inside()), at.inside()) {
        push_parts(inside, at, depth, rows);
    }
}

fn push_fields(objects: &Objects, at: At<'_>, depth: usize, rows: &mut Vec<Row>) {
    let values = values_of(objects, at);
    // Beside what is in a map without names, some keys may still have their own row.
    let fields = if values.is_some() && objects.crowd().is_none() { Vec::new() } else { objects.fields() };
    let mut beside: Option<(Shape, At<'_>)> = None;
    for field in fields {
        let FieldShape { key, seen, shape, .. } = field;
        if let Some(extras) = at.beside_fields(key) {
            // Keys that are data have one row.
            match &mut beside {
                Some((all, _)) => all.merge(shape.clone()),
                None => beside = Some((shape.clone(), extras)),
            }
            continue;
        }
        let all = objects.tally.count;
        let share = if seen.count < all { format!("{} of {all}", seen.count) } else { String::new() };
        let (at, renamed) = at.field(key);
        let name = if key.trim().is_empty() { format!("\"{key}\"") } else { visible(key).into_owned() };
        let name = renamed.map_or(name.clone(), |renamed| format!("{name} as {renamed}"));
        rows.push(Row::of(depth, name, share, shape, at));
        push_parts(shape, at, depth + 1, rows);
    }
    if let Some((values, at)) = beside {
        rows.push(Row::of(depth, "(other keys)".to_owned(), String::new(), &values, at));
        push_parts(&values, at, depth + 1, rows);
    }
    if let Some((values, at)) = values {
        rows.push(Row::of(depth, "(any key)".to_owned(), String::new(), &values, at));
        push_parts(&values, at, depth + 1, rows);
    }
}

fn has_parts(shape: &Shape) -> bool {
    shape.objects.is_some() || shape.lists.as_ref().is_some_and(|lists| has_parts(&lists.items))
}

impl Row {
    fn of(depth: usize, key: String, seen: String, shape: &Shape, at: At<'_>) -> Self {
        let nulls = if shape.nulls.count > 0 { shape.nulls.count.to_string() } else { String::new() };
        Self {
            depth,
            key,
            kind: type_of(shape, at),
            seen,
            nulls,
            example: example(shape),
            has_parts: has_parts(shape),
        }
    }

    fn key_width(&self) -> usize {
        self.depth * 2 + self.key.width()
    }

    fn line(&self, widths: &Widths, is_header: bool) -> String {
        let Self { depth, key, kind, seen, nulls, example, has_parts } = self;
        // However deep a position is, its key still has room.
        let indent = (depth * 2).min((widths.key / 2).max(widths.key.saturating_sub(key.width())));
        let key = cut(key, widths.key - indent);
        let kind = cut(kind, widths.kind);
        let painted = match (is_header, has_parts) {
            (true, _) => key.dimmed().to_string(),
            (false, true) => key.bold().to_string(),
            (false, false) => key.to_string(),
        };
        let key_cell = format!("{}{painted}", " ".repeat(indent));
        let cells = [
            (key_cell, indent + key.width(), widths.key),
            (paint(&kind, is_header, |t| t.cyan().to_string()), kind.width(), widths.kind),
            (paint(seen, is_header, |t| t.yellow().to_string()), seen.width(), widths.seen),
            (paint(nulls, is_header, |t| t.magenta().to_string()), nulls.width(), widths.nulls),
        ];
        let mut line = String::new();
        for (text, taken, column) in cells {
            if column > 0 {
                line.push_str(&text);
                line.push_str(&" ".repeat(column - taken + GAP));
            }
        }
        let example = cut(example, widths.example);
        line.push_str(&if is_header { example.dimmed().to_string() } else { example.into_owned() });
        line.trim_end().to_owned()
    }
}

fn paint(text: &str, is_header: bool, colour: impl Fn(&str) -> String) -> String {
    match (text, is_header) {
        ("", _) => String::new(),
        (text, true) => text.dimmed().to_string(),
        (text, false) => colour(text),
    }
}

impl Widths {
    /// A column nobody uses is not there; the key and the type give way before the example is gone.
    fn fit(rows: &[Row], width: usize) -> Self {
        let widest = |cell: fn(&Row) -> usize| rows.iter().map(cell).max().unwrap_or(0);
        let titled = |widest: usize, title: &str| if widest == 0 { 0 } else { widest.max(title.len()) };
        let seen = titled(widest(|row| row.seen.width()), "seen");
        let nulls = titled(widest(|row| row.nulls.width()), "null");
        let gaps = GAP * (2 + usize::from(seen > 0) + usize::from(nulls > 0));
        let room = width.saturating_sub(seen + nulls + gaps + LEAST_EXAMPLE).max(16);
        let kind_wanted = widest(|row| row.kind.width()).max("type".len());
        let key_wanted = widest(Row::key_width).max("key".len());
        let (key, kind) = share(room, key_wanted, kind_wanted);
        let example = width.saturating_sub(key + kind + seen + nulls + gaps);
        Self { key, kind, seen, nulls, example }
    }
}

/// Shares room between two columns: both get what they want, or the greedier one gives way, or each takes half.
fn share(room: usize, a: usize, b: usize) -> (usize, usize) {
    if a + b <= room {
        (a, b)
    } else if b <= room / 2 {
        (room - b, b)
    } else if a <= room / 2 {
        (a, room - a)
    } else {
        (room - room / 2, room / 2)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn sizes_are_read_at_once() {
        assert_eq!(size(999), "999 bytes");
        assert_eq!(size(12_345), "12.3 kB");
        assert_eq!(size(5_000_000), "5.0 MB");
    }

    #[test]
    fn room_is_shared() {
        assert_eq!(share(40, 10, 20), (10, 20));
        assert_eq!(share(40, 50, 15), (25, 15));
        assert_eq!(share(40, 10, 50), (10, 30));
        assert_eq!(share(41, 50, 50), (21, 20));
    }
}
