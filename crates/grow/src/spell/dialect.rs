//! A dialect: a language with its settings resolved, and how it spells a plan.

use std::borrow::Cow;
use std::collections::BTreeSet;

use jar_sprout_layout::{Doc, Style};
use jar_sprout_model::Slot;

use super::docs::Comment;
use super::grown_file::GrownFile;
use super::sheet::{BlankSheet, Helper, Needs};
use super::trial::Trial;
use super::usage::{Place, Program};
use crate::habits::HabitsOf;
use crate::plan::{Ident, Naming, Plan, PlannedNothing, PlannedType};
use crate::prepare::Abilities;
use crate::settings::{Setting, TextOf};

/// What is fixed of a language.
pub struct About {
    /// What the user types: `kotlin`.
    pub(crate) key: &'static str,
    /// What people call it: `Kotlin`.
    pub(crate) title: &'static str,
    /// What people type as well: `kt`.
    pub(crate) aliases: &'static [&'static str],
    /// What is grown, in a few words.
    pub(crate) grows: &'static str,
    /// The settings it has.
    pub(crate) settings: &'static [&'static dyn Setting],
    /// What becomes of data that is not what the model says.
    pub(crate) habits: &'static [HabitsOf],
    /// The setting whose parts are folders, where the language's people keep packages in folders of their own.
    pub(crate) folders: Option<&'static TextOf>,
    /// What stands between the parts of a path by which code is imported from the root of all, where another folder
    /// beside it is found by no other way.
    pub(crate) between: Option<char>,
    /// How names become identifiers.
    pub(crate) naming: Naming,
    /// How it writes documentation.
    pub(crate) comment: Comment,
    /// The page of its usual formatter.
    pub(crate) style: Style,
    /// What the name of a file ends in: `kt`.
    pub(crate) ending: &'static str,
    /// How the first line of a grown file starts, in a form that the language's tools know, so that linters and
    /// formatters leave it alone; how it ends; how it ends where the file can be grown anew.
    pub(crate) mark: [&'static str; 3],
    /// What a line of helper code imports, if it does.
    pub(crate) imported: fn(&'static str) -> Option<&'static str>,
    /// What a line of helper code declares that other files name, if it does.
    pub(crate) declared: fn(&'static str) -> Option<&'static str>,
}

/// A language with its settings resolved: nothing below sees their texts.
pub trait Dialect: Sync {
    /// What is fixed of the language.
    #[doc(hidden)]
    fn about(&self) -> &'static About;

    /// What its code can and cannot do.
    fn abilities(&self) -> Abilities;

    /// The name of the file for a type; for the namespace, where the name is empty.
    #[doc(hidden)]
    fn file_name(&self, type_name: &str) -> String;

    /// What is said of a named type, where that stands before its declaration.
    #[doc(hidden)]
    fn comment(&self, plan: &Plan<'_>, ty: &PlannedType<'_>) -> Option<Doc>;

    /// The declaration of a named type.
    #[doc(hidden)]
    fn declare(&self, sheet: &mut BlankSheet<'_>, ty: &PlannedType<'_>) -> Doc;

    /// The declaration of a plain type, and what makes it of the type of the wire.
    #[doc(hidden)]
    fn declare_copy(&self, _: &mut BlankSheet<'_>, _copy: &PlannedType<'_>, _wire: &PlannedType<'_>) -> Doc {
        unreachable!("a language whose abilities have no plain copies is not asked for one")
    }

    /// The name for a root that is no named type.
    #[doc(hidden)]
    fn alias(&self, sheet: &mut BlankSheet<'_>, ident: &Ident, slot: &Slot) -> Doc;

    /// The functions that read and write whole samples, if the language has such beside its types.
    #[doc(hidden)]
    fn entry(&self, sheet: &mut BlankSheet<'_>) -> Vec<Doc>;

    /// What reads and writes a type or a word for nothing, in a language in which a declaration of its own does.
    #[doc(hidden)]
    fn nothing(&self, _: &mut BlankSheet<'_>, _: &PlannedNothing<'_>) -> Option<Doc> {
        None
    }

    /// A file of this name: what it imports, its declarations.
    #[doc(hidden)]
    fn assemble(&self, file: &str, needs: &Needs, declarations: Vec<Doc>) -> Doc;

    /// Where the code finds the helpers that all models share, if it does not bring its own.
    #[doc(hidden)]
    fn shared(&self) -> Option<&str>;

    /// The name of the file in which a helper stands that all models share, as a type's file would be called.
    #[doc(hidden)]
    fn shared_file(&self, helper: Helper) -> &'static str {
        helper.name
    }

    /// What stands in a file that models share, of which some helpers are needed.
    #[doc(hidden)]
    fn shared_helpers(&self, needed: &BTreeSet<Helper>) -> BTreeSet<Helper> {
        needed.clone()
    }

    /// A line of helper code, as it stands where other files reach it.
    #[doc(hidden)]
    fn opened(&self, line: &'static str) -> Cow<'static, str> {
        Cow::Borrowed(line)
    }

    /// The code of a helper, and the part of it that cannot stand in the namespace.
    #[doc(hidden)]
    fn split_helper(&self, helper: Helper) -> (&'static str, Option<String>) {
        (helper.text, None)
    }

    /// What the files of a project need for its code, each by the file's name.
    #[doc(hidden)]
    fn project(&self) -> Vec<GrownFile>;

    /// A program that reads a file with its code, and writes it again; none where nothing reads it.
    #[doc(hidden)]
    fn program(&self, sheet: &mut BlankSheet<'_>, place: Place<'_>) -> Option<Program>;

    /// A program that passes samples through grown code, for all trials at once. Its folder holds a folder
    /// for each trial's code.
    fn driver(&self, trials: &[Trial]) -> Vec<GrownFile>;
}
