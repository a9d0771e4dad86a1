//! What a drift does in a language: libraries differ in what they make of data that is not what the model says.

use jar_sprout_drift::{Finding, Trouble, Verdict};
use jar_sprout_grow::{Habits, Language, Reaction, Settings};

/// A language that reads the old side.
pub(crate) struct Reader {
    pub(crate) name: String,
    habits: Habits,
}

impl Reader {
    /// A language with its settings, by the name that is shown.
    pub(crate) fn of(name: &str, language: &dyn Language, settings: &Settings) -> Self {
        Self { name: name.to_owned(), habits: language.habits(settings) }
    }

    /// What a finding does here.
    pub(crate) fn verdict(&self, finding: &Finding) -> Verdict {
        let Habits {
            missing,
            null,
            other_kind,
            fraction,
            number_for_text,
            no_date,
            new_word: _,
            new_case: _,
        } = self.habits;
        let trouble = finding.trouble();
        let reaction = match trouble {
            None => return finding.verdict(),
            Some(Trouble::Missing) => missing,
            Some(Trouble::Null) => null,
            Some(Trouble::OtherKind) => other_kind,
            Some(Trouble::Fraction) => fraction,
            Some(Trouble::NumberForText) => number_for_text,
            Some(Trouble::NoDate) => no_date,
        };
        match reaction {
            Reaction::Fails => Verdict::BreaksReading,
            // Where whole numbers are numbers like others, nobody notices.
            Reaction::Keeps if trouble == Some(Trouble::Fraction) => Verdict::Harmless,
            Reaction::Changes | Reaction::Keeps => finding.verdict_where_read(),
        }
    }
}

/// What a finding does at worst, and what in which language, where they differ.
pub(super) fn verdicts(finding: &Finding, readers: &[Reader]) -> (Verdict, Vec<(String, Verdict)>) {
    let all: Vec<(String, Verdict)> =
        readers.iter().map(|reader| (reader.name.clone(), reader.verdict(finding))).collect();
    let worst = all.iter().map(|(_, verdict)| *verdict).min().unwrap_or_else(|| finding.verdict());
    (worst, all)
}
