//! Drift in the terminal: by type, the worst first, old and new side by side.

use std::io::{self, Write};

use indexmap::IndexMap;
use jar_sprout_drift::Verdict;
use owo_colors::OwoColorize;
use unicode_width::UnicodeWidthStr as _;

use super::words::{Shown, summary};
use crate::screen::{cut, visible};

/// Columns that a verdict takes.
const VERDICT: usize = 14;

/// The most columns of a key.
const MOST_KEY: usize = 28;

/// Writes all findings.
pub(crate) fn text(title: &str, all: &[Shown], out: &mut impl Write, width: usize) -> io::Result<()> {
    writeln!(out, "{}", visible(title))?;
    for (of, findings) in by_type(all) {
        writeln!(out, "\n{}", visible(&of).bold())?;
        let key = findings.iter().map(|one| visible(&one.what).width()).max().unwrap_or(0).min(MOST_KEY);
        for one in findings {
            finding(one, key, out, width)?;
        }
    }
    writeln!(out, "\n{}", summary(all))?;
    out.flush()
}

fn finding(one: &Shown, key: usize, out: &mut impl Write, width: usize) -> io::Result<()> {
    let Shown { verdict, what, was, is, evidence, way_out, .. } = one;
    let words = format!("{:<VERDICT$}", verdict.words());
    let words = match verdict {
        Verdict::BreaksReading => words.red().bold().to_string(),
        Verdict::BreaksCode | Verdict::BreaksSending => words.yellow().to_string(),
        Verdict::Loses => words.magenta().to_string(),
        Verdict::Harmless => words.dimmed().to_string(),
    };
    let what = visible(what);
    let what = cut(&what, key);
    let gap = " ".repeat(key.saturating_sub(what.width()));
    let sides = format!("{} → {}", visible(was), visible(is));
    let room = width.saturating_sub(2 + VERDICT + 2 + key + 2).max(20);
    let indent = " ".repeat(2 + VERDICT + 2 + key + 2);
    // Evidence stands beside the sides where there is room, else below.
    let is_beside = sides.width() + 2 + evidence.width() <= room;
    write!(out, "  {words}  {what}{gap}  {}", cut(&sides, room))?;
    match evidence.as_str() {
        "" => writeln!(out)?,
        evidence if is_beside => writeln!(out, "  {}", visible(evidence).dimmed())?,
        // It ends with a line's number, which nobody can do without.
        evidence => writeln!(out, "\n{indent}{}", visible(evidence).dimmed())?,
    }
    let elsewhere = one.elsewhere();
    if !elsewhere.is_empty() {
        writeln!(out, "{indent}{}", visible(&elsewhere).dimmed())?;
    }
    if !way_out.is_empty() {
        writeln!(out, "{indent}{}", visible(way_out).cyan())?;
    }
    Ok(())
}

/// The findings of each type, the worst first, both types and findings.
pub(super) fn by_type(all: &[Shown]) -> Vec<(String, Vec<&Shown>)> {
    let mut groups: IndexMap<&str, Vec<&Shown>> = IndexMap::new();
    for one in all {
        groups.entry(one.of.as_str()).or_default().push(one);
    }
    let mut groups: Vec<(String, Vec<&Shown>)> =
        groups.into_iter().map(|(of, findings)| (of.to_owned(), findings)).collect();
    for (_, findings) in &mut groups {
        findings.sort_by_key(|one| one.verdict);
    }
    groups.sort_by_key(|(_, findings)| findings.first().map(|one| one.verdict));
    groups
}
