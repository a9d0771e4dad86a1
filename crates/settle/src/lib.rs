//! From shape to draft, and from draft to model: what each position is, which positions share a type, and
//! what everything is called.
//!
//! ```text
//! shape ──> graph (positions united) ──draft_shape──> draft ──settle──> model
//! ```

mod ask;
mod check;
mod decide;
mod draft;
mod infer;
mod model;
mod policies;
mod singular;
mod structure;
mod subject;

pub use ask::{Explanation, Question, Settling, explain, open_questions, words_seen};
pub use check::{Bodies, Misfit, Novelty, Part, bodies, case_of, compare, misfits};
pub use decide::decide;
pub use decide::verdict::{
    Decision, Derivation, FIELD_WORDS, FieldType, FieldVerdict, Purpose, TypeVerdict, Verdict,
};
pub use draft::evidence::{Choice, EpochUnit, Evidence, KeyClue, KeyForm, KeyWeight, KindSeen, NoEnum};
pub use draft::maps::{is_hexadecimal, is_locale, is_month};
pub use draft::{Drafted, draft_shape};
pub use infer::{Inferred, infer, infer_decided, infer_document};
pub use model::naming_sites::RootName;
pub use model::root_name::root_name;
pub use model::{Settled, SlotsOf, settle, settle_document};
pub use policies::{Policies, Trust};
pub use singular::singular;
pub use structure::Structure;
pub use subject::{Lack, Miss, Subject, locate};
