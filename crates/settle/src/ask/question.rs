//! A question.

use jar_sprout_shape::Path;

use crate::decide::verdict::FieldVerdict;
use crate::structure::Structure;
use crate::subject::Subject;

/// Something that the samples could not settle.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Question {
    /// What it is about; none for the samples as a whole.
    pub subject: Option<Subject>,
    /// Where it stands.
    pub path: Option<Path>,
    /// What was seen.
    pub saw: String,
    /// What was made of it for now.
    pub chose: String,
    /// What settles it.
    pub settle: Settling,
    /// How much harm a wrong guess does, from 0 to 100.
    pub harm: u8,
}

/// What settles a question.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Settling {
    /// To trust nothing but what is essential.
    TrustNothing,
    /// What a field is.
    Field(Subject, FieldVerdict),
    /// What the objects of a type are.
    Structure(Subject, Structure),
    /// That a type is one with another.
    SameAs(Subject, String),
}
