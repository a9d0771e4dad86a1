//! Texts at one position: their forms, and which distinct values there are, bounded.

use std::collections::BTreeSet;
use std::hash::Hasher;

use jar_sprout_model::{Place, TimeForms};
use rustc_hash::FxHasher;

use crate::form::Form;
use crate::shape::Shape;
use crate::tally::{Example, Tally};

/// The most distinct values told apart at one position.
pub const MAX_DISTINCT: usize = 64;

/// The most distinct words told apart among many texts of other forms.
const MAX_WORDS: usize = 8;

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
    /// Of too many, those that have no form, if these are few: `N/A` among dates.
    Many(Option<Vec<Value>>),
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
            Values::Many(_) => Distinct::Many,
            Values::Few(values) => Distinct::All(in_order(values.iter())),
        }
    }

    /// Those of the texts that are among some; none where the distinct values are too many to say.
    pub fn only(&self, some: &BTreeSet<String>) -> Option<Self> {
        let Values::Few(values) = &self.values else { return None };
        let kept: Vec<Value> = values.iter().filter(|value| some.contains(&*value.text)).cloned().collect();
        let mut texts = Self { time_forms: self.time_forms, ..Self::default() };
        for value in &kept {
            texts.tally.merge(value.tally);
            texts.longest = texts.longest.max(value.text.len() as u64);
            texts.forms[Form::of(value.text.as_bytes()) as usize] += value.tally.count;
        }
        let example =
            kept.iter().filter(|value| !value.text.is_empty()).min_by_key(|value| value.tally.first);
        texts.example = example.and_then(|value| {
            Some(Example { place: value.tally.first?, text: start_of(value.text.as_bytes(), EXAMPLE_LENGTH) })
        });
        texts.values = Values::Few(kept);
        // Some of them may have been no JSON.
        texts.inside = Inside::Text;
        Some(texts)
    }

    /// The distinct texts that have no form, blank ones among them, each with how often it was seen; in order of first
    /// sight. None if they are more than a handful.
    pub fn words(&self) -> Option<Vec<(&str, Tally)>> {
        match &self.values {
            Values::Many(words) => Some(in_order(words.as_ref()?.iter())),
            Values::Few(values) => {
                let words: Vec<&Value> = values.iter().filter(|value| value.is_word()).collect();
                (words.len() <= MAX_WORDS).then(|| in_order(words.into_iter()))
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
        self.values.observe(text, form, place)
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
            Values::Many(_) => None,
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

fn in_order<'v>(values: impl Iterator<Item = &'v Value>) -> Vec<(&'v str, Tally)> {
    let mut all: Vec<(&str, Tally)> = values.map(|value| (&*value.text, value.tally)).collect();
    all.sort_by_key(|(_, tally)| tally.first);
    all
}

impl Value {
    fn new(text: &[u8], place: Place) -> Self {
        let mut tally = Tally::default();
        tally.add(place);
        Self { hash: hash(text), text: String::from_utf8_lossy(text).into(), tally }
    }

    fn is_word(&self) -> bool {
        is_word(Form::of(self.text.as_bytes()))
    }
}

/// Whether a text of this form has no form of its own.
fn is_word(form: Form) -> bool {
    matches!(form, Form::Plain | Form::Blank)
}

/// Counts a text among those known, and answers where it stands; none where they would be more than `most`.
#[inline]
fn count(values: &mut Vec<Value>, text: &[u8], place: Place, most: usize) -> Option<usize> {
    let hash = hash(text);
    if let Some(at) = values.iter().position(|v| v.hash == hash && v.text.as_bytes() == text) {
        values[at].tally.add(place);
        return Some(at);
    }
    if values.len() == most {
        return None;
    }
    values.push(Value::new(text, place));
    Some(values.len() - 1)
}

/// Adds values to those known.
fn merge_values(mine: &mut Vec<Value>, theirs: Vec<Value>) {
    for value in theirs {
        match mine.iter_mut().find(|v| v.hash == value.hash && v.text == value.text) {
            Some(known) => known.tally.merge(value.tally),
            None => mine.push(value),
        }
    }
}

impl Values {
    #[inline]
    fn observe(&mut self, text: &[u8], form: Form, place: Place) -> u64 {
        match self {
            Self::Few(values) => {
                let is_short = text.len() <= MAX_VALUE_LENGTH;
                let ordinal = if is_short { count(values, text, place, MAX_DISTINCT) } else { None };
                if ordinal.is_none() {
                    self.give_up();
                    self.observe_among_many(text, form, place);
                }
                ordinal.map_or(0, |ordinal| 1 << ordinal)
            }
            Self::Many(Some(_)) if is_word(form) => {
                self.observe_among_many(text, form, place);
                0
            }
            Self::Many(_) => 0,
        }
    }

    /// Tells only those apart from now on that have no form.
    #[cold]
    fn give_up(&mut self) {
        if let Self::Few(values) = self {
            let words: Vec<Value> = values.drain(..).filter(Value::is_word).collect();
            *self = Self::Many((words.len() <= MAX_WORDS).then_some(words));
        }
    }

    fn observe_among_many(&mut self, text: &[u8], form: Form, place: Place) {
        if let Self::Many(Some(words)) = self
            && is_word(form)
            && (text.len() > MAX_VALUE_LENGTH || count(words, text, place, MAX_WORDS).is_none())
        {
            *self = Self::Many(None);
        }
    }

    fn merge(&mut self, other: Self) {
        let mut other = other;
        if let (Self::Few(mine), Self::Few(theirs)) = (&mut *self, &mut other) {
            merge_values(mine, std::mem::take(theirs));
            if mine.len() > MAX_DISTINCT {
                self.give_up();
            }
            return;
        }
        self.give_up();
        other.give_up();
        match (&mut *self, other) {
            (Self::Many(Some(mine)), Self::Many(Some(theirs))) => {
                merge_values(mine, theirs);
                if mine.len() > MAX_WORDS {
                    *self = Self::Many(None);
                }
            }
            _ => *self = Self::Many(None),
        }
    }

    /// The values that are told apart, by letter, and whether they are all.
    fn sorted(&self) -> (bool, Option<Vec<&Value>>) {
        let (is_all, values) = match self {
            Self::Few(values) => (true, Some(values)),
            Self::Many(words) => (false, words.as_ref()),
        };
        let mut sorted: Option<Vec<&Value>> = values.map(|values| values.iter().collect());
        if let Some(sorted) = &mut sorted {
            sorted.sort_by(|a, b| a.text.cmp(&b.text));
        }
        (is_all, sorted)
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
