//! Texts at one position: their forms, and which distinct values there are, bounded.

use std::hash::Hasher;

use jar_sprout_model::{Place, TimeForms};
use rustc_hash::FxHasher;

use crate::form::Form;
use crate::shape::Shape;
use crate::tally::{Example, Tally};

/// The most distinct values told apart at one position.
pub const MAX_DISTINCT: usize = 64;

/// A text longer than this many bytes is free text: the values are not told apart any more.
const MAX_VALUE_LENGTH: usize = 64;

/// The most bytes of a text kept as an example.
const EXAMPLE_LENGTH: usize = 80;

/// What texts were seen.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Texts {
    /// How many.
    pub tally: Tally,
    /// The most bytes in one of them.
    pub longest: u64,
    forms: [u64; Form::ALL.len()],
    /// The ways that write all the times among them back.
    time_forms: TimeForms,
    values: Values,
    example: Option<Example>,
    inside: Inside,
}

/// What stands in texts that are JSON themselves.
#[derive(Debug, Clone, Default, PartialEq)]
enum Inside {
    /// No text yet.
    #[default]
    Unknown,
    /// Every text is an object or a list.
    Json(Box<Shape>),
    /// Some text is not.
    Text,
}

/// The distinct values of a position.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Distinct<'a> {
    /// All of them, each with how often it was seen; in order of first sight.
    All(Vec<(&'a str, Tally)>),
    /// More than [`MAX_DISTINCT`], or texts too long to be told apart.
    Many,
}

#[derive(Debug, Clone)]
enum Values {
    Few(Vec<Value>),
    Many,
}

#[derive(Debug, Clone, PartialEq, Eq)]
struct Value {
    hash: u64,
    text: Box<str>,
    tally: Tally,
}

impl Texts {
    /// How many texts had this form; every text has exactly one.
    pub fn of_form(&self, form: Form) -> u64 {
        self.forms[form as usize]
    }

    /// The ways that write all the times among the texts back as they were.
    pub fn time_forms(&self) -> TimeForms {
        self.time_forms
    }

    /// The distinct values.
    pub fn distinct(&self) -> Distinct<'_> {
        match &self.values {
            Values::Many => Distinct::Many,
            Values::Few(values) => {
                let mut all: Vec<(&str, Tally)> = values.iter().map(|v| (&*v.text, v.tally)).collect();
                all.sort_by_key(|(_, tally)| tally.first);
                Distinct::All(all)
            }
        }
    }

    /// The first text seen that was not blank, cut if long.
    pub fn example(&self) -> Option<&str> {
        self.example.as_ref().map(|e| e.text.as_str())
    }

    /// Counts one text. `length` is its whole length in bytes, of which `text` is at least the start.
    /// Answers the bit of its ordinal among the distinct values, none once they are too many.
    pub(crate) fn observe(&mut self, text: &[u8], length: u64, place: Place) -> u64 {
        self.tally.add(place);
        self.longest = self.longest.max(length);
        let form = if length > text.len() as u64 { Form::Plain } else { Form::of(text) };
        self.forms[form as usize] += 1;
        if form.is_time()
            && let Ok(text) = str::from_utf8(text)
        {
            self.time_forms = self.time_forms.and(TimeForms::of(text));
        }
        if self.example.is_none() && form != Form::Blank {
            self.example = Some(Example { place, text: start_of(text, EXAMPLE_LENGTH) });
        }
        self.values.observe(text, place)
    }

    /// What all the texts are, if each is JSON itself: an object or a list, and nothing beside it.
    pub fn inside(&self) -> Option<&Shape> {
        match &self.inside {
            Inside::Json(shape) => Some(shape),
            Inside::Unknown | Inside::Text => None,
        }
    }

    /// Whether all texts so far are JSON.
    pub(crate) fn may_be_json(&self) -> bool {
        !matches!(self.inside, Inside::Text)
    }

    /// Notes what the text observed last is as JSON; none where it is not.
    pub(crate) fn observe_inside(&mut self, shape: Option<Shape>) {
        let theirs = shape.map_or(Inside::Text, |shape| Inside::Json(Box::new(shape)));
        self.inside.merge(theirs);
    }

    /// Whether the distinct values are still told apart.
    pub(crate) fn are_few(&self) -> bool {
        matches!(self.values, Values::Few(_))
    }

    /// The text of an ordinal.
    pub(crate) fn at_ordinal(&self, ordinal: usize) -> Option<&str> {
        match &self.values {
            Values::Few(values) => values.get(ordinal).map(|value| &*value.text),
            Values::Many => None,
        }
    }

    /// Adds what other texts showed.
    pub fn merge(&mut self, other: Self) {
        let Self { tally, longest, forms, time_forms, values, example, inside } = other;
        self.tally.merge(tally);
        self.longest = self.longest.max(longest);
        for (mine, theirs) in self.forms.iter_mut().zip(forms) {
            *mine += theirs;
        }
        self.time_forms = self.time_forms.and(time_forms);
        self.values.merge(values);
        Example::merge(&mut self.example, example);
        self.inside.merge(inside);
    }
}

impl Inside {
    fn merge(&mut self, other: Self) {
        match (&mut *self, other) {
            (Self::Text, _) | (_, Self::Unknown) => {}
            (_, Self::Text) => *self = Self::Text,
            (Self::Unknown, theirs) => *self = theirs,
            (Self::Json(mine), Self::Json(theirs)) => mine.merge(*theirs),
        }
    }
}

/// The start of a text, cut between characters.
fn start_of(text: &[u8], most: usize) -> String {
    let mut cut = text.len().min(most);
    while text.get(cut).is_some_and(|byte| byte & 0xC0 == 0x80) {
        cut -= 1;
    }
    String::from_utf8_lossy(&text[..cut]).into_owned()
}

impl Values {
    #[inline]
    fn observe(&mut self, text: &[u8], place: Place) -> u64 {
        let Self::Few(values) = self else { return 0 };
        if text.len() > MAX_VALUE_LENGTH {
            *self = Self::Many;
            return 0;
        }
        let hash = hash(text);
        if let Some(ordinal) = values.iter().position(|v| v.hash == hash && v.text.as_bytes() == text) {
            values[ordinal].tally.add(place);
            return 1 << ordinal;
        }
        if values.len() == MAX_DISTINCT {
            *self = Self::Many;
            return 0;
        }
        let mut tally = Tally::default();
        tally.add(place);
        values.push(Value { hash, text: String::from_utf8_lossy(text).into(), tally });
        1 << (values.len() - 1)
    }

    fn merge(&mut self, other: Self) {
        let (Self::Few(mine), Self::Few(theirs)) = (&mut *self, other) else {
            *self = Self::Many;
            return;
        };
        for value in theirs {
            match mine.iter_mut().find(|v| v.hash == value.hash && v.text == value.text) {
                Some(known) => known.tally.merge(value.tally),
                None => mine.push(value),
            }
        }
        if mine.len() > MAX_DISTINCT {
            *self = Self::Many;
        }
    }

    fn sorted(&self) -> Option<Vec<&Value>> {
        let Self::Few(values) = self else { return None };
        let mut sorted: Vec<&Value> = values.iter().collect();
        sorted.sort_by(|a, b| a.text.cmp(&b.text));
        Some(sorted)
    }
}

impl Default for Values {
    fn default() -> Self {
        Self::Few(Vec::new())
    }
}

impl PartialEq for Values {
    fn eq(&self, other: &Self) -> bool {
        self.sorted() == other.sorted()
    }
}

impl Eq for Values {}

/// A fixed hash: the same text has the same one in every run, and a collision only costs a comparison.
fn hash(text: &[u8]) -> u64 {
    let mut hasher = FxHasher::default();
    hasher.write(text);
    hasher.finish()
}
