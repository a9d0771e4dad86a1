//! Model to code. Each language is two steps: a plan, in which every name is final, and its spelling.
//!
//! Growing cannot fail on a model: whatever the wire calls its things, a language finds a name for it, and
//! nothing that stood in the input can become code.

#![warn(clippy::wildcard_enum_match_arm)]

mod code;
mod docs;
mod extras;
mod json_schema;
mod language;
mod languages;
mod literal;
mod plan;
mod settings;
mod times;
mod trial;
mod twins;

pub use code::{Arrangement, GrownFile, MARK, Origin, grow, origin, sealed};
pub use extras::{Extras, types_without_extras, with_kept_extras};
pub use json_schema::json_schema;
pub use language::{About, LANGUAGES, Language, TimeKeeping, find_language, nearest_language};
pub use settings::{Choice, Setting, SettingError, Settings, Values};
pub use trial::{Trial, TrialSample};
