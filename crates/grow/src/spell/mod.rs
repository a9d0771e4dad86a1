//! Spelling: a plan as text. What is the same in all languages stands here; a language spells the rest.

mod declared;
mod dialect;
mod digits;
pub(crate) mod docs;
mod epoch_helpers;
mod files;
mod grown_file;
mod literal;
pub(crate) mod plain_copies;
pub(crate) mod renaming;
mod sheet;
mod swap;
mod time_helpers;
mod trial;
mod usage;

pub(crate) use declared::declared;
pub use dialect::{About, Dialect};
pub(crate) use digits::in_groups;
pub(crate) use epoch_helpers::EpochHelpers;
pub use files::{Arrangement, Grown};
pub(crate) use files::{nested, spell, spell_shared, used};
pub use grown_file::GrownFile;
pub(crate) use literal::{Literal, backslash_u};
pub use sheet::Helper;
pub(crate) use sheet::{BlankSheet, Borrowed, Needs, Sheet};
pub(crate) use swap::swap;
pub(crate) use time_helpers::{HelpersByTime, TimeHelpers};
pub use trial::{Trial, TrialSample};
pub(crate) use usage::{Body, Program};
pub use usage::{Place, Usage, UsingProgram};
