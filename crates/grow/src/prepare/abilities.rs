//! What a language can and cannot do, with its settings.

use jar_sprout_model::{Fraction, Record, Scalar};

use crate::settings::{Absence, Entry, Nesting, Spread};

/// What code of a language can and cannot do. It has no defaults: whoever adds a language answers each.
#[derive(Clone)]
pub struct Abilities {
    /// How types are spread over files.
    pub spread: Spread,
    /// In which order types are declared.
    pub order: Order,
    /// Where the types stand that a response is made of.
    pub nesting: Nesting,
    /// Whether all types stand in a namespace that has a file of its own.
    pub has_namespace_file: bool,
    /// Whether null is told from nothing.
    pub absence: Absence,
    /// Whether UUIDs have a type of their own, which writes their letters in one case.
    pub types_uuids: bool,
    /// How times go back to text.
    pub times: TimeKeeping,
    /// Whether it holds such a scalar; else a number in letters stays text, and a decimal is a float.
    pub holds: fn(Scalar) -> bool,
    /// Whether a type can say that a value is always the same; the tags of a union's cases aside.
    pub has_literals: bool,
    /// Whether it reads a field that the wire has as JSON in a text; else that stays text.
    pub reads_json_in_text: bool,
    /// What becomes of a word that stands for nothing.
    pub nothing: Nothing,
    /// What becomes of the keys of a record beyond its fields, where a document says what stands there.
    pub extras: fn(&Record) -> Extras,
    /// How many fields a class takes, where that is bounded: what has 64 bits counts for two.
    pub most_room: Option<usize>,
    /// Whether what is absent gets its default value.
    pub fills_in: bool,
    /// Which nulls it writes.
    pub nulls: Nulls,
    /// What reads and writes a whole response.
    pub entry: Entry,
    /// The plain types beside those of the wire, if there are any.
    pub plain_copies: Option<PlainCopies>,
    /// Who can prove it.
    pub judge: Judge,
    /// What it stands on.
    pub foundation: Foundation,
}

/// In which order types are declared.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Order {
    /// What needs others comes before them.
    OutsideIn,
    /// What is needed comes before what needs it.
    InsideOut,
}

/// How the text of a time, which a platform's own type forgets, comes back as it was.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum TimeKeeping {
    /// It is kept beside the value, or is the value.
    AsText,
    /// It is written in the way that the texts of its place had; this is the one that needs no code.
    InForm(Fraction),
    /// It does not: zeros at the end of a fraction, and `+00:00` for `Z`, are up to the library.
    Loose,
}

/// What becomes of a word that stands for nothing: `N/A` where a number should be.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Nothing {
    /// It is read as no value, which is written as the word.
    Absent,
    /// The type says it beside what else may stand there.
    Word,
    /// It is a value as any other: the type says no more than that.
    Value,
}

/// What becomes of the keys of a record beyond its fields, where a document says what stands there.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Extras {
    /// They are left out.
    LeftOut,
    /// They are kept, with any values.
    OfAny,
    /// They are kept, with the values that the document says.
    Typed,
}

/// Which nulls are written.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Nulls {
    /// Those of keys that are always there.
    WhereRequired,
    /// All of them, those of absent keys too: the library writes all or none.
    Everywhere,
}

/// The plain types beside those of the wire.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct PlainCopies {
    /// What the names of wire types end in: `Dto`.
    pub ending: String,
    /// What becomes of tags in plain types.
    pub tags: Tags,
}

/// What becomes of tags, which are always the same text, in plain types.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Tags {
    /// The type itself tells the cases apart.
    Dropped,
    /// They tell the cases apart.
    Kept,
}

/// Who can prove grown code.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Judge {
    /// A program that passes samples through it.
    Driver,
    /// The compiler: nothing reads or writes it at run time.
    Compiler,
    /// Nobody without a tool that writes the other half of it; this one.
    Builder {
        /// What people call it.
        what: &'static str,
        /// What installs it.
        install: &'static str,
    },
}

/// What grown code stands on.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Foundation {
    /// The lowest level of the language that takes it.
    pub level: Level,
    /// Libraries, with all that a build file must name.
    pub libraries: Vec<Dependency>,
    /// Plugins of the compiler.
    pub plugins: &'static [&'static str],
}

/// A library in the version that proofs are made with.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Dependency(
    /// As its registry names it: `com.squareup.moshi:moshi`.
    pub &'static str,
    /// The version.
    pub &'static str,
);

/// The level of a language: `Level(3, 10)` is Python 3.10.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub struct Level(
    /// The whole number.
    pub u16,
    /// What stands behind its point.
    pub u16,
);
