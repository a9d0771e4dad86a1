//! What becomes of data that is not what the model says. The proofs hold each row against the real library.

use crate::habits::{Habits, HabitsOf, KEEPS_ALL, Reaction, STRICT};

/// The row with the most settings that hold is meant.
pub(super) const HABITS: &[HabitsOf] = &[
    HabitsOf { when: &[], habits: KEEPS_ALL },
    HabitsOf {
        when: &[("parse", "checked")],
        habits: Habits { fraction: Reaction::Keeps, no_date: Reaction::Keeps, ..STRICT },
    },
    HabitsOf { when: &[("parse", "dated")], habits: Habits { fraction: Reaction::Keeps, ..STRICT } },
];
