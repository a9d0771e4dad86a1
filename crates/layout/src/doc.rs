//! The algebra itself.

use std::borrow::Cow;

/// A document: text whose line breaks are not decided yet.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Doc {
    /// Nothing.
    Nil,
    /// Text without a newline.
    Text(Cow<'static, str>),
    /// A newline when the group around it breaks, else this text.
    Line(&'static str),
    /// A newline always; breaks every group around it.
    Hard,
    /// Text that depends on whether the group around it broke: trailing commas and the like.
    IfBroken {
        /// When the group broke.
        broken: &'static str,
        /// When it fits on the line.
        flat: &'static str,
    },
    /// One level deeper.
    Nest(Box<Doc>),
    /// All lines directly inside break, or none of them.
    Group(Box<Doc>, Fit),
    /// Rows of cells in aligned columns, each row on its own line.
    Table(Vec<Vec<Cow<'static, str>>>),
    /// One after the other.
    Cat(Vec<Doc>),
}

/// When a group stays on one line.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Fit {
    /// When it and what follows it, up to the next possible break, fit the page.
    Page,
    /// The same, but only up to this many columns of its own.
    AtMost(usize),
    /// Never.
    Never,
}
