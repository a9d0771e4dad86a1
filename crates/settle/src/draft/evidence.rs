//! Evidence: what was seen at a position, and what was made of it.

use jar_sprout_model::{Kind, KindSet, Place};
use jar_sprout_shape::{Form, Numbers, Path, Shape, Texts};

/// What was seen at a position, and what was made of it.
#[derive(Debug, Clone)]
pub struct Evidence {
    /// How many values.
    pub seen: u64,
    /// Which kinds of value, each with where it was seen first.
    pub kinds: Vec<KindSeen>,
    /// Where the position stands; several places where they are the same thing.
    pub paths: Vec<Path>,
    /// What was decided, and why.
    pub choice: Choice,
    /// The texts seen.
    pub texts: Option<Texts>,
    /// The numbers seen.
    pub numbers: Option<Numbers>,
}

impl Evidence {
    /// The same of some of the values: so many, of these kinds.
    pub(crate) fn of_case(self, count: u64, kinds: KindSet) -> Self {
        // Where there are several kinds, nothing says how many are of which.
        let kinds = kinds.only().map(|kind| KindSeen { what: of_kind(kind), count, first: None });
        Self { seen: count, kinds: kinds.into_iter().collect(), ..self }
    }

    /// What all values but null are, if they are texts that are JSON themselves.
    pub(crate) fn inside_texts(&self) -> Option<&Shape> {
        let nulls: u64 = self.kinds.iter().filter(|kind| kind.what == "null").map(|kind| kind.count).sum();
        let texts = self.texts.as_ref().filter(|texts| texts.tally.count + nulls == self.seen)?;
        texts.inside()
    }
}

/// What values of a kind are called.
fn of_kind(kind: Kind) -> &'static str {
    match kind {
        Kind::Object => "object",
        Kind::List => "list",
        Kind::Text => "text",
        Kind::Boolean => "boolean",
        Kind::Integer => "integer",
        Kind::Number => "number",
        Kind::Null => "null",
    }
}

/// A kind of value at a position.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub struct KindSeen {
    /// What it is: `null`, `integer`, `text`.
    pub what: &'static str,
    /// How often.
    pub count: u64,
    /// Where first.
    pub first: Option<Place>,
}

/// What was decided, and why.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Choice {
    /// The type is what was written: nothing else was in question.
    AsWritten,
    /// Always null.
    NothingKnown,
    /// No list had an item.
    EmptyLists,
    /// No object had a key.
    EmptyObjects,
    /// Two or three kinds of value.
    MixedKinds,
    /// More kinds of value than a union is good for.
    ManyKinds,
    /// Whole numbers only.
    Integer {
        /// Whether the name says that it is measured, not counted.
        is_measure: bool,
        /// The unit, if name and range say that it counts from 1970 on.
        since_1970: Option<EpochUnit>,
    },
    /// Every text has this form.
    Form(Form),
    /// Every text has this form but for words that stand for nothing.
    WordsAmong(Form, Vec<String>),
    /// Every text is a number or a truth in letters.
    Coded(Form),
    /// Few words, seen again and again.
    Enum,
    /// Few words, but seen too seldom.
    NearlyEnum,
    /// Texts that are no enum, and why.
    NoEnum(NoEnum),
    /// Keys that are data, and what spoke for it.
    Map(KeyWeight),
    /// Keys that are names.
    Record {
        /// What spoke for their being data, and what against.
        weight: KeyWeight,
        /// Keys that tell kinds of object apart, one for each, where there seem to be several.
        kinds: Vec<String>,
        /// Whether the sets of keys were too many to look for kinds.
        is_bounded: bool,
    },
    /// Objects of several kinds.
    KindsByKeys {
        /// The key that each kind has of its own.
        keys: Vec<String>,
        /// The key that is true in one of two kinds and false in the other, where there is one.
        truth: Option<String>,
    },
    /// One of the objects that have this key of their own.
    KindByKey(String),
    /// Short lists of unlike items.
    Tuple,
    /// Objects that this key tells apart.
    Tagged(String),
    /// One of the objects that this key tells apart.
    TaggedCase(String),
}

/// The unit of a point in time that is counted from 1970 on.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum EpochUnit {
    /// `1777639800`
    Seconds,
    /// `1777639800000`
    Milliseconds,
}

/// What spoke for keys being data, and what against, each with how much.
#[derive(Debug, Clone, Default, PartialEq, Eq)]
pub struct KeyWeight(Vec<(KeyClue, i32)>);

/// What has this much is a map.
const MAP: i32 = 9;

/// What has this much is asked about.
const DOUBT: i32 = 5;

impl KeyWeight {
    /// What is more keys than names could be.
    pub(crate) fn beyond_names() -> Self {
        Self(vec![(KeyClue::BeyondNames, 2 * MAP)])
    }

    /// What the user said it is.
    pub(crate) fn decided(is_map: bool) -> Self {
        Self(vec![(KeyClue::Decided, if is_map { 10 * MAP } else { -10 * MAP })])
    }

    /// Adds what a clue says, if it says something.
    pub(crate) fn add(&mut self, clue: KeyClue, weight: i32) {
        self.0.extend((weight != 0).then_some((clue, weight)));
    }

    /// The clues, each with how much it says: more than nothing for a map, less for a record.
    pub fn clues(&self) -> &[(KeyClue, i32)] {
        &self.0
    }

    /// How much all of them say.
    pub fn total(&self) -> i32 {
        self.0.iter().map(|(_, weight)| weight).sum()
    }

    /// Whether they make a map.
    pub fn is_map(&self) -> bool {
        self.total() >= MAP
    }

    /// Whether the user said it.
    pub fn is_decided(&self) -> bool {
        self.0.iter().any(|(clue, _)| *clue == KeyClue::Decided)
    }

    /// Whether there are more keys than names could be.
    pub(crate) fn is_beyond_names(&self) -> bool {
        self.0.iter().any(|(clue, _)| *clue == KeyClue::BeyondNames)
    }

    /// How much makes a map.
    pub fn bar() -> i32 {
        MAP
    }

    /// Whether a person should say: they are near the line.
    pub fn is_doubtful(&self) -> bool {
        (DOUBT..=MAP).contains(&self.total())
    }
}

/// What says something of whether keys are data.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum KeyClue {
    /// The user's word.
    Decided,
    /// They share a form that nobody gives to a field.
    Form(KeyForm),
    /// The objects hardly share a key.
    Sparse,
    /// There are many.
    Many,
    /// Under the same key there is a map elsewhere.
    MapElsewhere,
    /// Every one of several objects has all of them.
    AlwaysTogether,
    /// Their values have one structure.
    OneStructure,
    /// Their values have most of their structure in common.
    LikeStructure,
    /// Their values are of one kind.
    OneKind,
    /// Their values have nothing in common.
    UnlikeValues,
    /// There are more than names could be.
    BeyondNames,
}

/// A form of keys that nobody would give to a field.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum KeyForm {
    /// `17`
    Number,
    /// `6f1c0a52-…`, or eight and more hexadecimal digits
    Id,
    /// `2026-05-01`, `2026-05`
    Date,
    /// `ada@honey.example`
    Email,
    /// `hives/17`, `./queen`
    Route,
    /// `coop.fennimarsh.title`
    Dotted,
    /// `227g`
    DigitFirst,
    /// `s-40`, `s-41`: one prefix, then a number
    Numbered,
    /// `B1` to `B4`: one prefix, then one digit
    Counted,
    /// `GBP`, `EUR`
    Code,
    /// `en`, `nl-NL`
    Locale,
    /// `Alder Bank`
    Label,
}

/// Why texts are no enum.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum NoEnum {
    /// Some are numbers, dates or the like.
    OtherForms,
    /// Some are more than a word.
    MoreThanWords,
    /// There is but one.
    OneValue,
    /// They are codes of a long list.
    Codes,
    /// They are numbered, as ids are.
    Numbered,
    /// They are paths.
    Paths,
    /// They are what somebody or something is called by: a login, a part of a link beside them.
    Identities,
    /// They hardly repeat.
    Seldom,
    /// There are too many.
    TooMany,
}
