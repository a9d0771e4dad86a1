//! What becomes of data that is not what the model says. The proofs hold each row against the real library.

use crate::habits::{Habits, HabitsOf, Reaction};

/// The row with the most settings that hold is meant.
pub(super) const HABITS: &[HabitsOf] = &[
    HabitsOf {
        when: &[],
        habits: Habits {
            missing: Reaction::Keeps,
            null: Reaction::Keeps,
            other_kind: Reaction::Keeps,
            fraction: Reaction::Keeps,
            number_for_text: Reaction::Keeps,
            no_date: Reaction::Keeps,
            new_word: Reaction::Keeps,
            new_case: Reaction::Keeps,
        },
    },
    HabitsOf {
        when: &[("parse", "checked")],
        habits: Habits {
            missing: Reaction::Fails,
            null: Reaction::Fails,
            other_kind: Reaction::Fails,
            fraction: Reaction::Keeps,
            number_for_text: Reaction::Fails,
            no_date: Reaction::Keeps,
            new_word: Reaction::Keeps,
            new_case: Reaction::Keeps,
        },
    },
    HabitsOf {
        when: &[("parse", "dated")],
        habits: Habits {
            missing: Reaction::Fails,
            null: Reaction::Fails,
            other_kind: Reaction::Fails,
            fraction: Reaction::Keeps,
            number_for_text: Reaction::Fails,
            no_date: Reaction::Fails,
            new_word: Reaction::Keeps,
            new_case: Reaction::Keeps,
        },
    },
];
