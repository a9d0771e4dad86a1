//! A sheet: what a declaration is spelled on, with all that it needs beside itself.

use std::collections::BTreeSet;

use jar_sprout_layout::Doc;

use crate::plan::Plan;

/// What a declaration is spelled on: the plan it follows, the options of its language, and what it needs.
pub struct Sheet<'s, O> {
    pub(crate) plan: &'s Plan<'s>,
    /// The language's own options.
    pub(crate) options: &'s O,
    pub(crate) needs: &'s mut Needs,
}

/// A sheet before a language has put its options on it.
pub(crate) type BlankSheet<'s> = Sheet<'s, ()>;

impl<O> Sheet<'_, O> {
    /// The same sheet with the options of a language, or with others.
    pub(crate) fn with<'o, P>(&'o mut self, options: &'o P) -> Sheet<'o, P> {
        Sheet { plan: self.plan, options, needs: self.needs }
    }

    /// The same sheet, for something whose needs are noted elsewhere.
    pub(crate) fn noting<'o>(&'o self, needs: &'o mut Needs) -> Sheet<'o, O> {
        Sheet { plan: self.plan, options: self.options, needs }
    }
}

/// What declarations need beside themselves; noted where a type is spelled.
#[derive(Debug, Default)]
pub struct Needs {
    /// Imported names, as the language writes them.
    pub(crate) imports: BTreeSet<&'static str>,
    /// What is said of the whole file, as the language writes it.
    pub(crate) file_annotations: BTreeSet<&'static str>,
    /// Constant helper code.
    pub(crate) helpers: BTreeSet<Helper>,
    /// What reads and writes a type or a word for nothing, by its place in the plan.
    pub(crate) nothings: BTreeSet<usize>,
    /// What is used of helpers whose code stands with what all models share.
    pub(crate) borrowed: BTreeSet<Borrowed>,
    /// What cannot stand inside the namespace that the other declarations of the file stand in.
    pub(crate) outside: Vec<Doc>,
    /// Whether the file has all there is.
    pub(crate) is_whole: bool,
}

impl Needs {
    pub(super) fn add(&mut self, other: Self) {
        let Self { imports, file_annotations, helpers, nothings, borrowed, outside, is_whole } = other;
        self.imports.extend(imports);
        self.file_annotations.extend(file_annotations);
        self.helpers.extend(helpers);
        self.nothings.extend(nothings);
        self.borrowed.extend(borrowed);
        self.outside.extend(outside);
        self.is_whole |= is_whole;
    }
}

/// Constant helper code: a real file in its language, with imports of its own.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub struct Helper {
    /// The name of what it declares, and of its file.
    pub(crate) name: &'static str,
    /// The whole file.
    pub(crate) text: &'static str,
}

/// A name that a helper declares, and that is used in another file.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub(crate) struct Borrowed {
    /// The file's name, as a type's file would be called: `ISODate`.
    pub(crate) file: &'static str,
    /// The name: `ISODate`.
    pub(crate) name: &'static str,
}
