//! From shape to draft, and from draft to model: what each position is, which positions share a type, and
//! what everything is called.
//!
//! ```text
//! shape ──> graph (positions united) ──draft_shape──> draft ──settle──> model
//! ```

mod alike;
mod bodies;
mod chain;
mod decide;
mod draft;
mod enums;
mod envelope;
mod evidence;
mod explain;
mod graph;
mod join;
mod maps;
mod misfit;
mod name;
mod policy;
mod question;
mod root_name;
mod same;
mod scalars;
mod settle;
mod singular;
mod subject;
mod tags;
mod time_forms;
mod twins;
mod uses;
mod verdict;

pub use bodies::{Bodies, bodies};
pub use decide::decide;
pub use draft::{Drafted, draft_shape};
pub use evidence::{Choice, Evidence, KindSeen};
pub use explain::{Explanation, explain};
pub use misfit::{Misfit, Part, misfits};
pub use policy::{Policies, Trust};
pub use question::{Question, Settling, open_questions};
pub use root_name::root_name;
pub use settle::{Settled, settle, settle_document};
pub use singular::singular;
pub use subject::{Subject, Unmatched};
pub use uses::RootName;
pub use verdict::{Decision, Derivation, Purpose, VERDICTS, Verdict};
