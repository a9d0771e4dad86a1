//! Problems as a person reads them, on standard error.

use std::io::{self, Write};
use std::sync::atomic::{AtomicBool, Ordering};

use anstream::{ColorChoice, eprintln};
use jar_sprout_model::{Excerpt, Problem, Severity, Spot};
use jar_sprout_settle::{Question, Settling};
use owo_colors::OwoColorize;

use crate::args::Color;
use crate::exit::Exit;
use crate::failure::Failure;
use crate::screen::visible;
use crate::source_names::SourceNames;

/// Whether nothing is said but results and errors.
static IS_QUIET: AtomicBool = AtomicBool::new(false);

/// Sets how all that follows is shown.
pub(crate) fn set_up(color: Color, is_quiet: bool) {
    IS_QUIET.store(is_quiet, Ordering::Relaxed);
    match color {
        Color::Auto => {}
        Color::Always => ColorChoice::Always.write_global(),
        Color::Never => ColorChoice::Never.write_global(),
    }
}

/// Whether nothing is said but results and errors.
pub(crate) fn is_quiet() -> bool {
    IS_QUIET.load(Ordering::Relaxed)
}

/// Shows why a command could not go on, and says with which status to leave.
pub(crate) fn failure(failure: &Failure) -> Exit {
    match failure {
        Failure::Problem(one, names) => {
            problem(one, names);
            Exit::Unusable
        }
        Failure::Output(error) if error.kind() == io::ErrorKind::BrokenPipe => Exit::Well,
        Failure::Output(error) => {
            let spot = Spot::Path("standard output".to_owned());
            problem(&Problem::error(crate::failure::reason(error), spot), &SourceNames::default());
            Exit::Unusable
        }
    }
}

/// Shows one problem: what, where, the line it is in, and the way out.
pub(crate) fn problem(problem: &Problem, names: &SourceNames) {
    let Problem { severity, message, spot, excerpt, help } = problem;
    if *severity == Severity::Warning && is_quiet() {
        return;
    }
    match severity {
        Severity::Error => eprintln!("{} {}", "error:".red().bold(), visible(message)),
        Severity::Warning => eprintln!("{} {}", "warning:".yellow().bold(), visible(message)),
    }
    eprintln!("  {}", visible(&place(spot, names)).cyan());
    if let Some(Excerpt { text, caret }) = excerpt
        && !text.is_empty()
    {
        eprintln!("    {text}");
        eprintln!("    {}{}", padding(text, *caret), "^".red().bold());
    }
    if let Some(help) = help {
        eprintln!("  {} {}", "way out:".green(), visible(help));
    }
}

/// Shows a note that is no problem.
pub(crate) fn note(text: &str) {
    if is_quiet() {
        return;
    }
    text.lines().for_each(|line| eprintln!("{}", visible(line)));
}

/// Shows the first few open questions: what was seen, what was made of it, what settles it.
/// `of` says of which model.
pub(crate) fn questions(of: &str, questions: &[Question], most: usize, line: &dyn Fn(&Settling) -> String) {
    let count = questions.len();
    if count == 0 || is_quiet() {
        return;
    }
    let title = if count == 1 {
        format!("{of}1 open question:")
    } else {
        format!("{of}{count} open questions, worst first:")
    };
    eprintln!("\n{}", title.yellow().bold());
    for Question { subject, saw, chose, settle, path: _, harm: _ } in questions.iter().take(most) {
        let about = subject.as_ref().map_or_else(|| "the samples".to_owned(), ToString::to_string);
        eprintln!("  {}: {}; for now {}", visible(&about).bold(), visible(saw), chose);
        eprintln!("    {}", visible(&line(settle)).cyan());
    }
    if count > most {
        eprintln!("  and {} more: --questions all", count - most);
    }
}

/// Where something is, in words.
pub(crate) fn place(spot: &Spot, names: &SourceNames) -> String {
    match spot {
        Spot::Text { source, line, column } => format!("{}:{line}:{column}", names.get(*source)),
        Spot::Source(source) => names.get(*source).to_owned(),
        Spot::Argument(argument) => argument.clone(),
        Spot::Path(path) => path.clone(),
    }
}

/// As many columns as the text before the caret takes.
fn padding(text: &str, caret: usize) -> String {
    let before: String = text.chars().take(caret).collect();
    " ".repeat(unicode_width::UnicodeWidthStr::width(before.as_str()))
}

/// Writes a result to standard output.
pub(crate) fn result(text: &str) -> io::Result<()> {
    let mut out = io::stdout().lock();
    out.write_all(text.as_bytes())?;
    out.flush()
}
