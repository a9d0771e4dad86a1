//! Progress of what takes longer than a second: on standard error, and only at a terminal.

use std::io::{self, IsTerminal as _, Read};
use std::time::{Duration, Instant};

use indicatif::{ProgressBar, ProgressDrawTarget, ProgressStyle};

use crate::report;

/// From when on progress is shown.
const PATIENCE: Duration = Duration::from_secs(1);

/// How far something is.
#[derive(Debug)]
pub(crate) struct Progress {
    bar: ProgressBar,
    start: Instant,
}

impl Progress {
    /// Of so many things: `writing`.
    pub(crate) fn of_things(what: &'static str, count: usize) -> Self {
        Self::new(what, count as u64, "{msg} {bar:30} {pos}/{len}")
    }

    /// Of so many bytes; of nobody knows how many where that is none.
    pub(crate) fn of_bytes(what: &'static str, bytes: Option<u64>) -> Self {
        match bytes {
            Some(bytes) => Self::new(what, bytes, "{msg} {bar:30} {bytes}/{total_bytes}"),
            None => Self::new(what, 0, "{msg} {bytes}"),
        }
    }

    fn new(what: &'static str, length: u64, template: &str) -> Self {
        let bar = ProgressBar::with_draw_target(Some(length), ProgressDrawTarget::hidden());
        bar.set_style(ProgressStyle::with_template(template).expect("the template is one of ours"));
        bar.set_message(what);
        Self { bar, start: Instant::now() }
    }

    /// Of something of which nobody knows how far it is.
    pub(crate) fn waiting(what: String) -> Self {
        let bar = ProgressBar::with_draw_target(None, ProgressDrawTarget::hidden());
        let template = ProgressStyle::with_template("{msg} {elapsed}").expect("the template is one of ours");
        bar.set_style(template);
        bar.set_message(what);
        if is_shown() {
            bar.set_draw_target(ProgressDrawTarget::stderr());
            bar.enable_steady_tick(PATIENCE);
        }
        Self { bar, start: Instant::now() }
    }

    /// One thing more is done.
    pub(crate) fn step(&self) {
        self.advance(1);
    }

    /// So much more is done.
    pub(crate) fn advance(&self, more: u64) {
        self.bar.inc(more);
        if self.bar.is_hidden() && self.start.elapsed() > PATIENCE && is_shown() {
            self.bar.set_draw_target(ProgressDrawTarget::stderr());
        }
    }
}

fn is_shown() -> bool {
    io::stderr().is_terminal() && !report::is_quiet()
}

/// A reader that tells how far it is.
#[derive(Debug)]
pub(crate) struct Watched<R> {
    reader: R,
    progress: Progress,
}

impl<R> Watched<R> {
    pub(crate) fn new(reader: R, progress: Progress) -> Self {
        Self { reader, progress }
    }
}

impl<R: Read> Read for Watched<R> {
    fn read(&mut self, buffer: &mut [u8]) -> io::Result<usize> {
        let count = self.reader.read(buffer)?;
        self.progress.advance(count as u64);
        Ok(count)
    }
}

impl Drop for Progress {
    fn drop(&mut self) {
        self.bar.finish_and_clear();
    }
}
