//! What becomes of data that is not what the model says. The proofs hold each row against the real library.

use crate::habits::{Habits, HabitsOf, Reaction, STRICT};

/// The row with the most settings that hold is meant.
pub(super) const HABITS: &[HabitsOf] = &[
    HabitsOf {
        when: &[],
        habits: Habits { null: Reaction::Keeps, number_for_text: Reaction::Changes, ..STRICT },
    },
    HabitsOf {
        when: &[("library", "gson")],
        habits: Habits {
            missing: Reaction::Changes,
            null: Reaction::Keeps,
            number_for_text: Reaction::Changes,
            ..STRICT
        },
    },
];
