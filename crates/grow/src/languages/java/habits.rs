//! What becomes of data that is not what the model says. The proofs hold each row against the real library.

use crate::habits::{Habits, HabitsOf, Reaction};

/// The row with the most settings that hold is meant.
pub(super) const HABITS: &[HabitsOf] = &[
    HabitsOf {
        when: &[],
        habits: Habits {
            missing: Reaction::Fails,
            null: Reaction::Keeps,
            other_kind: Reaction::Fails,
            fraction: Reaction::Fails,
            number_for_text: Reaction::Changes,
            no_date: Reaction::Fails,
            new_word: Reaction::Keeps,
            new_case: Reaction::Keeps,
        },
    },
    HabitsOf {
        when: &[("library", "gson")],
        habits: Habits {
            missing: Reaction::Changes,
            null: Reaction::Keeps,
            other_kind: Reaction::Fails,
            fraction: Reaction::Fails,
            number_for_text: Reaction::Changes,
            no_date: Reaction::Fails,
            new_word: Reaction::Keeps,
            new_case: Reaction::Keeps,
        },
    },
];
