//! What becomes of data that is not what the model says. The proofs hold each row against the real library.

use crate::habits::{Habits, HabitsOf, KEEPS_ALL, Reaction, STRICT};

/// The row with the most settings that hold is meant.
pub(super) const HABITS: &[HabitsOf] = &[
    HabitsOf { when: &[], habits: STRICT },
    HabitsOf {
        when: &[("types", "dataclasses")],
        habits: Habits {
            null: Reaction::Keeps,
            other_kind: Reaction::Keeps,
            fraction: Reaction::Keeps,
            number_for_text: Reaction::Keeps,
            ..STRICT
        },
    },
    HabitsOf { when: &[("types", "typed-dicts")], habits: KEEPS_ALL },
];
