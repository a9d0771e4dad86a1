//! What becomes of data that is not what the model says. The proofs hold each row against the real library.

use crate::habits::{HabitsOf, STRICT};

/// The row with the most settings that hold is meant.
pub(super) const HABITS: &[HabitsOf] = &[HabitsOf { when: &[], habits: STRICT }];
