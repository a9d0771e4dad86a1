//! What a change does to those who have the old model's code.

use jar_sprout_model::{Encoding, Presence, Scalar, ScalarKind, Type};

use crate::change::{Change, Finding};

/// What a change does, the worst first.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Verdict {
    /// What is decoded today fails.
    BreaksReading,
    /// Code that uses the models has to change once they are grown again.
    BreaksCode,
    /// A body that was enough is no longer.
    BreaksSending,
    /// It is read without an error, and something is dropped or means something else.
    Loses,
    /// Nobody notices.
    Harmless,
}

impl Verdict {
    /// All of them, the worst first.
    pub const ALL: [Self; 5] =
        [Self::BreaksReading, Self::BreaksCode, Self::BreaksSending, Self::Loses, Self::Harmless];

    /// It in two words.
    pub fn words(self) -> &'static str {
        match self {
            Self::BreaksReading => "breaks reading",
            Self::BreaksCode => "breaks code",
            Self::BreaksSending => "breaks sending",
            Self::Loses => "loses",
            Self::Harmless => "harmless",
        }
    }
}

/// What a reader of the old model meets that it was not told of.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Trouble {
    /// A key that was always there is missing.
    Missing,
    /// Null, where there was none.
    Null,
    /// Another kind of value.
    OtherKind,
    /// A fraction where whole numbers were.
    Fraction,
    /// A number where text was.
    NumberForText,
    /// Text that is no date where dates were.
    NoDate,
}

impl Finding {
    /// What a reader meets, where a strict one fails; what becomes of it is a matter of each library.
    pub fn trouble(&self) -> Option<Trouble> {
        if self.verdict() != Verdict::BreaksReading {
            return None;
        }
        Some(match &self.change {
            Change::FieldGone { .. } | Change::FieldRenamed { .. } | Change::MayBeMissing => Trouble::Missing,
            Change::MayBeNull => Trouble::Null,
            Change::Kind { was, is, .. } => match (&was.ty, &is.ty) {
                (Type::Scalar(Scalar::Integer(_)), Type::Scalar(Scalar::Float | Scalar::Decimal)) => {
                    Trouble::Fraction
                }
                (Type::Scalar(Scalar::Text), Type::Scalar(new)) if new.kind() != ScalarKind::Text => {
                    Trouble::NumberForText
                }
                (
                    Type::Scalar(
                        Scalar::DateTime(_) | Scalar::LocalDateTime(_) | Scalar::Date | Scalar::Time(_),
                    ),
                    Type::Scalar(new),
                ) if new.kind() == ScalarKind::Text => Trouble::NoDate,
                _ => Trouble::OtherKind,
            },
            _ => Trouble::OtherKind,
        })
    }

    /// What it does where the trouble of reading it is no failure: what was told of the data is not so.
    pub fn verdict_where_read(&self) -> Verdict {
        match self.verdict() {
            Verdict::BreaksReading => Verdict::Loses,
            other => other,
        }
    }

    /// What it does, where a reader is strict: it refuses what is missing, null or of another kind unless it was told so.
    pub fn verdict(&self) -> Verdict {
        // What samples do not show may be there all the same.
        let if_complete = |verdict| if self.is_complete { verdict } else { Verdict::Harmless };
        match &self.change {
            Change::FieldGone { presence: Presence::Always, was: _ } => Verdict::BreaksReading,
            Change::FieldGone { presence: Presence::Sometimes, was: _ } => if_complete(Verdict::BreaksCode),
            Change::FieldNew { presence: Presence::Always, is: _ } if self.is_sent => Verdict::BreaksSending,
            Change::FieldNew { .. } => Verdict::Harmless,
            Change::FieldRenamed { presence: Presence::Always, .. } => Verdict::BreaksReading,
            Change::FieldRenamed { presence: Presence::Sometimes, .. } => Verdict::BreaksCode,
            Change::MayBeMissing | Change::MayBeNull => Verdict::BreaksReading,
            Change::AlwaysThere if self.is_sent => if_complete(Verdict::BreaksSending),
            Change::AlwaysThere | Change::NeverNull => if_complete(Verdict::BreaksCode),
            // Of what nothing is seen now, nothing can be said.
            Change::Kind { is, .. } if is.ty == Type::Any => if_complete(Verdict::BreaksCode),
            Change::Kind { is_read: false, .. } => Verdict::BreaksReading,
            Change::Kind { is_wider: true, .. } => Verdict::BreaksCode,
            Change::Kind { was, .. } if was.ty == Type::Any => Verdict::BreaksCode,
            Change::Kind { .. } => if_complete(Verdict::BreaksCode),
            Change::ValuesNew { was_closed: true, .. } => Verdict::BreaksReading,
            Change::ValuesNew { was_closed: false, .. } => Verdict::Harmless,
            Change::ValuesGone { .. } | Change::CaseGone { .. } => if_complete(Verdict::BreaksCode),
            Change::Openness { .. } => Verdict::BreaksCode,
            Change::CaseNew { is_tagged: false, .. } => Verdict::BreaksReading,
            // What is told by a tag that is not known is kept as it came.
            Change::CaseNew { is_tagged: true, .. } => Verdict::Harmless,
            Change::Tag { .. } => Verdict::BreaksReading,
            Change::TypeRenamed | Change::TypeGone => Verdict::BreaksCode,
            Change::TypeNew => Verdict::Harmless,
            Change::Encoding { was: Encoding::Plain, is: Encoding::JsonInText } => Verdict::BreaksCode,
            Change::Encoding { was: Encoding::NothingWords(_), is: Encoding::Plain } => {
                if_complete(Verdict::BreaksCode)
            }
            Change::Encoding { .. } => Verdict::BreaksReading,
            Change::Default { .. } => Verdict::Loses,
            Change::Extras { are_typed: true } => Verdict::Harmless,
            Change::Extras { are_typed: false } => if_complete(Verdict::BreaksCode),
            Change::Deprecated { .. } | Change::Description { .. } => Verdict::Harmless,
        }
    }
}
