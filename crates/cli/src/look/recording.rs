//! Recorded traffic: the endpoints that have JSON, a row for each, by host.

use std::io::{self, Write};

use jar_sprout_fetch::{Endpoint, Side};
use owo_colors::OwoColorize;
use serde_json::{Value, json};
use unicode_width::UnicodeWidthStr as _;

use super::text::size;
use crate::recordings::Recording;
use crate::screen::{cut, visible};
use crate::wording::counted;

/// One endpoint, as it is shown.
struct Row {
    name: String,
    seen: String,
    statuses: String,
    sizes: String,
}

/// Writes the table.
pub(crate) fn text(recording: &Recording, out: &mut impl Write, width: usize) -> io::Result<()> {
    let endpoints = &recording.survey.endpoints;
    let rows: Vec<Row> = endpoints.iter().map(Row::of).collect();
    let widest = |cell: fn(&Row) -> &str, title: &str| {
        rows.iter().map(|row| cell(row).width()).chain([title.width()]).max().unwrap_or(0)
    };
    let seen = widest(|row| &row.seen, "seen");
    let statuses = widest(|row| &row.statuses, "status");
    let sizes = widest(|row| &row.sizes, "size");
    // Two columns before the name, two between two cells.
    let room = width.saturating_sub(2 + seen + statuses + sizes + 6).max(20);
    let name = widest(|row| &row.name, "endpoint").min(room);
    let exchanges = usize::try_from(recording.survey.exchanges).unwrap_or(usize::MAX);
    writeln!(out, "{}, {} with JSON", counted(exchanges, "exchange"), counted(rows.len(), "endpoint"))?;
    writeln!(out)?;
    let line = |row: &Row| {
        let Row { name: called, seen: count, statuses: all, sizes: lengths } = row;
        let called = cut(called, name);
        let gap = " ".repeat(name.saturating_sub(called.width()));
        format!("{called}{gap}  {count:>seen$}  {all:<statuses$}  {lengths}").trim_end().to_owned()
    };
    let title = |text: &str| text.to_owned();
    let titles =
        Row { name: title("endpoint"), seen: title("seen"), statuses: title("status"), sizes: title("size") };
    writeln!(out, "  {}", line(&titles).dimmed())?;
    let mut host = None;
    for (endpoint, row) in endpoints.iter().zip(&rows) {
        if host != Some(&endpoint.host) {
            host = Some(&endpoint.host);
            writeln!(out, "{}", visible(&endpoint.host).bold())?;
        }
        writeln!(out, "  {}", line(row))?;
    }
    out.flush()
}

impl Row {
    fn of(endpoint: &Endpoint) -> Self {
        let Endpoint { side, statuses, shortest, longest, exchanges, .. } = endpoint;
        let statuses: Vec<String> = match side {
            // What was sent has none.
            Side::Request => Vec::new(),
            Side::Answer | Side::Error => statuses.keys().map(u16::to_string).collect(),
        };
        let (from, to) = (size(*shortest as u64), size(*longest as u64));
        Self {
            name: visible(&endpoint.name()).into_owned(),
            seen: exchanges.len().to_string(),
            statuses: statuses.join(", "),
            sizes: if from == to { from } else { format!("{from} to {to}") },
        }
    }
}

/// The same for programs.
pub(crate) fn json(recording: &Recording) -> Value {
    let one = |endpoint: &Endpoint| {
        let Endpoint { host, method, path, operation, side, statuses, shortest, longest, exchanges } =
            endpoint;
        let bodies = match side {
            Side::Answer => "answers",
            Side::Request => "requests",
            Side::Error => "errors",
        };
        json!({
            "name": recording.shortest_name(endpoint),
            "host": host,
            "method": Some(method).filter(|method| !method.is_empty()),
            "path": Some(path).filter(|path| !path.is_empty()),
            "operation": operation,
            "bodies": bodies,
            "seen": exchanges.len(),
            "statuses": statuses.iter().map(|(status, count)| json!({"status": status, "seen": count})).collect::<Vec<_>>(),
            "shortest": shortest,
            "longest": longest,
        })
    };
    let endpoints: Vec<Value> = recording.survey.endpoints.iter().map(one).collect();
    json!({"exchanges": recording.survey.exchanges, "endpoints": endpoints})
}
