//! What libraries make of data that is not what the model says.

/// What becomes of it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Reaction {
    /// Reading fails.
    Fails,
    /// It is read as something else: nothing as an empty text, a number as a text.
    Changes,
    /// It is read, and written back, as it came.
    Keeps,
}

/// What becomes of each kind of it, with one library and its settings.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct Habits {
    /// A key that is always there is missing.
    pub missing: Reaction,
    /// Null, where there is none.
    pub null: Reaction,
    /// Another kind of value: text for a number.
    pub other_kind: Reaction,
    /// A fraction for a whole number.
    pub fraction: Reaction,
    /// A number for text.
    pub number_for_text: Reaction,
    /// Text that is no date for a date.
    pub no_date: Reaction,
    /// A word that an open enum does not have.
    pub new_word: Reaction,
    /// A kind of object that a union with a tag does not have.
    pub new_case: Reaction,
}

/// A reader that refuses all but what the code has room for: it keeps words and kinds that are not known, as all do.
pub(crate) const STRICT: Habits = Habits {
    missing: Reaction::Fails,
    null: Reaction::Fails,
    other_kind: Reaction::Fails,
    fraction: Reaction::Fails,
    number_for_text: Reaction::Fails,
    no_date: Reaction::Fails,
    new_word: Reaction::Keeps,
    new_case: Reaction::Keeps,
};

/// Types alone, without code that runs: nothing is looked at.
pub(crate) const KEEPS_ALL: Habits = Habits {
    missing: Reaction::Keeps,
    null: Reaction::Keeps,
    other_kind: Reaction::Keeps,
    fraction: Reaction::Keeps,
    number_for_text: Reaction::Keeps,
    no_date: Reaction::Keeps,
    new_word: Reaction::Keeps,
    new_case: Reaction::Keeps,
};

/// The habits where these settings have these values.
#[derive(Debug, Clone, Copy)]
pub(crate) struct HabitsOf {
    /// Each a setting and its value; the row without any holds where nothing else does.
    pub(crate) when: &'static [(&'static str, &'static str)],
    /// What holds then.
    pub(crate) habits: Habits,
}
