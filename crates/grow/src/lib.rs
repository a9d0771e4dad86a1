//! Model to code. Each language is two steps: a plan, in which every name is final, and its spelling.
//!
//! Growing cannot fail on a model: whatever the wire calls its things, a language finds a name for it, and
//! nothing that stood in the input can become code.

#![warn(clippy::wildcard_enum_match_arm)]

mod grow;
mod habits;
mod json_schema;
mod language;
mod languages;
mod origin;
mod plan;
mod prepare;
mod settings;
mod spell;
#[cfg(test)]
mod unused;

pub use grow::{
    fields_left_as_text, fields_with_words_left, find_language, grow, grow_prepared, grow_shared,
    nearest_language, outline, prepare, trial, types_too_wide, types_without_extras, usage,
};
pub use habits::{Habits, Reaction};
pub use json_schema::json_schema;
pub use language::{Language, SharedPlace};
pub use languages::LANGUAGES;
pub use origin::{Origin, Provenance, is_marked, is_same_code, marked, origin};
pub use prepare::{
    Abilities, Dependency, Extras, Foundation, Judge, Level, Nothing, Nulls, Order, PlainCopies, Prepared,
    Tags, TimeKeeping,
};
pub use settings::{Absence, Choice, Entry, Nesting, Setting, SettingError, Settings, Spread, Values};
pub use spell::{
    About, Arrangement, Dialect, Grown, GrownFile, Helper, Place, Trial, TrialSample, Usage, UsingProgram,
};
