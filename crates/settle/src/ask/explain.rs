//! Explanations: why a type or a field is what it is, and what else it might have been.

use jar_sprout_model::{DraftKind, Encoding, Place, Presence, Scalar, TimeForms};
use jar_sprout_shape::{Form, MAX_VARIANTS, Path};

use crate::ask::questions::values;
use crate::ask::wording::{epoch_unit, in_backticks, key_clues, no_enum, quoted};
use crate::decide::verdict::{FIELD_WORDS, FieldType, FieldVerdict};
use crate::draft::Drafted;
use crate::draft::evidence::{Choice, Evidence, KeyClue, KeyWeight, KindSeen};
use crate::model::Settled;
use crate::subject::{Lack, Miss, Subject, locate};

/// Why a type or a field is what it is.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Explanation {
    /// What it is about.
    pub subject: Subject,
    /// What it is, in a few words.
    pub chosen: String,
    /// Why.
    pub because: String,
    /// Where it stands.
    pub paths: Vec<Path>,
    /// How many values were seen.
    pub seen: u64,
    /// Which kinds of value.
    pub kinds: Vec<KindSeen>,
    /// Whether a field is always there and whether it may be null; none for a type.
    pub presence: Option<(Presence, bool)>,
    /// The values seen, where they are few.
    pub values: Option<String>,
    /// What else was considered, and why it lost.
    pub instead: Vec<(&'static str, String)>,
}

impl Explanation {
    /// The first place of the first kind seen.
    pub fn first(&self) -> Option<Place> {
        self.kinds.iter().filter_map(|kind| kind.first).min()
    }
}

/// The texts that were seen in a field, where they are few.
pub fn words_seen(drafted: &Drafted, settled: &Settled, field: &Subject) -> Option<Vec<String>> {
    let (id, _) = locate(&settled.model, field).ok()?;
    let node = settled.origin(&drafted.draft, id, field.key.as_ref())?;
    let words = drafted.evidence.get(&node)?.texts.as_ref()?.words()?;
    Some(words.into_iter().map(|(word, _)| word.to_owned()).collect())
}

/// Explains a type or a field.
///
/// # Errors
/// A subject that the model does not have.
pub fn explain(drafted: &Drafted, settled: &Settled, subject: &Subject) -> Result<Explanation, Miss> {
    let (id, index) = locate(&settled.model, subject)?;
    let unknown = || Miss { subject: subject.clone(), lack: Lack::Evidence };
    let node = settled.origin(&drafted.draft, id, subject.key.as_ref()).ok_or_else(unknown)?;
    let evidence = drafted.evidence.get(&node).ok_or_else(unknown)?;
    let field = index.and_then(|index| settled.model.get(id).definition.fields().get(index));
    let mut paths = evidence.paths.clone();
    if index.is_none() {
        let others = settled.origins[id.index()].iter().filter_map(|node| drafted.evidence.get(node));
        paths.extend(others.flat_map(|evidence| evidence.paths.iter().cloned()));
        paths.sort_by_key(|path| (path.0.len(), path.to_string()));
        paths.dedup();
    }
    let (chosen, because) = reason(&drafted.draft.node(node).kind, evidence);
    let is_in_text = field.is_some_and(|field| field.encoding == Encoding::JsonInText);
    let chosen = if is_in_text { format!("JSON in a text, {chosen}") } else { chosen.to_owned() };
    let has_values = evidence.texts.as_ref().is_some_and(|texts| texts.tally.count > 0);
    Ok(Explanation {
        subject: subject.clone(),
        chosen: if settled.decided.contains(subject) { "as decided".to_owned() } else { chosen },
        because,
        paths,
        seen: evidence.seen,
        kinds: evidence.kinds.clone(),
        presence: field.map(|field| (field.presence, field.slot.nullable)),
        values: has_values.then(|| values(evidence)),
        instead: instead(evidence),
    })
}

/// What was chosen, and why.
fn reason(kind: &DraftKind, evidence: &Evidence) -> (&'static str, String) {
    let chosen = match kind {
        DraftKind::Any => "any value",
        DraftKind::Scalar(Scalar::Always(true)) => "always true",
        DraftKind::Scalar(Scalar::Always(false)) => "always false",
        DraftKind::Scalar(scalar) => {
            let is = FieldVerdict::Is(FieldType::Scalar(scalar.with_time_forms(TimeForms::ALL)));
            FIELD_WORDS.iter().find(|(_, verdict)| *verdict == is).map_or("a scalar", |(word, _)| word)
        }
        DraftKind::List(_) => "a list",
        DraftKind::Map(_) => "a map",
        DraftKind::Record { .. } => "a record",
        DraftKind::Tuple(_) => "a tuple",
        DraftKind::Enumeration(_) => "an enum, open to new values",
        DraftKind::Constant(_) => "always the same text",
        DraftKind::Union { .. } => "one of several types",
    };
    let because = match &evidence.choice {
        Choice::AsWritten => "that is how it is written".to_owned(),
        Choice::NothingKnown => "nothing but null was seen".to_owned(),
        Choice::EmptyLists => "every list was empty".to_owned(),
        Choice::EmptyObjects => "every object was empty".to_owned(),
        Choice::MixedKinds => "more than one kind of value was seen".to_owned(),
        Choice::ManyKinds => "so many kinds of value were seen that naming them would say nothing".to_owned(),
        Choice::Integer { since_1970: Some(unit), .. } => {
            format!("every number is whole, as written; they look like {} since 1970", epoch_unit(*unit))
        }
        Choice::Integer { since_1970: None, .. } => "every number is whole, as written".to_owned(),
        Choice::Form(form) => format!("every text has the form {}", form.name()),
        Choice::WordsAmong(form, words) => {
            format!("{} among texts of the form {}", quoted(words), form.name())
        }
        Choice::Coded(_) => "a number in letters may be one of leading zeros or ranges tomorrow".to_owned(),
        Choice::Enum => "few words come again and again".to_owned(),
        Choice::NearlyEnum => "its words repeat too seldom for an enum".to_owned(),
        Choice::NoEnum(why) => format!("it is no enum: {}", no_enum(*why)),
        Choice::Map(weight) => format!("its keys are data: {}", key_clues(for_map(weight))),
        Choice::KindsByKeys { keys, truth: None } => {
            format!("each of its kinds has a key of its own: {}", in_backticks(keys))
        }
        Choice::KindsByKeys { keys, truth: Some(truth) } => {
            format!("`{truth}` tells which of its keys is there: {}", in_backticks(keys))
        }
        Choice::KindByKey(key) => format!("`{key}` is a key of this kind alone"),
        Choice::Record { .. } if matches!(kind, DraftKind::Record { extras: Some(_), .. }) => {
            "its keys are names, but for those of a form that nobody gives to a field".to_owned()
        }
        Choice::Record { .. } => "its keys are names".to_owned(),
        Choice::Tuple => "every list has the same few items, of unlike kinds".to_owned(),
        Choice::Tagged(key) => format!("`{key}` tells which keys stand together"),
        Choice::TaggedCase(key) => format!("its keys stand together under one `{key}`"),
    };
    (chosen, because)
}

fn for_map(weight: &KeyWeight) -> impl Iterator<Item = &(KeyClue, i32)> {
    weight.clues().iter().filter(|(_, weight)| *weight > 0)
}

/// Why keys are not data.
fn no_map(weight: &KeyWeight) -> String {
    let bar = KeyWeight::bar();
    if for_map(weight).next().is_none() {
        return "nothing of the keys says that they are data".to_owned();
    }
    let against: Vec<_> = weight.clues().iter().filter(|(_, weight)| *weight < 0).collect();
    let but = if against.is_empty() { String::new() } else { format!(", but {}", key_clues(against)) };
    format!("{}{but}: {} of {bar} that make one", key_clues(for_map(weight)), weight.total())
}

/// What else was considered, and why it lost.
fn instead(evidence: &Evidence) -> Vec<(&'static str, String)> {
    let mut instead = Vec::new();
    if let Some(texts) = &evidence.texts {
        let all = texts.tally.count;
        let plain = [Form::DateTime, Form::Date, Form::Uuid, Form::Uri, Form::Whole]
            .into_iter()
            .filter(|form| (1..all).contains(&texts.of_form(*form)));
        instead.extend(
            plain.map(|form| (form.name(), format!("only {} of {all} have that form", texts.of_form(form)))),
        );
        let filled = all - texts.of_form(Form::Blank);
        let not_read =
            [(Form::Grouped, "its thousands are set apart"), (Form::Quantity, "a unit stands behind it")];
        let is_all = |form| filled > 0 && texts.of_form(form) == filled;
        let not_read = not_read.into_iter().filter(|(form, _)| is_all(*form));
        instead.extend(not_read.map(|(_, why)| ("a number", format!("{why}, so it stays text"))));
        if evidence.inside_texts().is_some() {
            instead.push((
                "JSON in a text",
                "each of them is, and stays as it is until that is decided".to_owned(),
            ));
        }
        match &evidence.choice {
            Choice::Enum => instead.push(("plain text", "the values repeat".to_owned())),
            Choice::NearlyEnum => {
                instead.push(("an enum", "three sightings of each value are wanted".to_owned()));
            }
            Choice::NoEnum(why) => instead.push(("an enum", no_enum(*why).to_owned())),
            Choice::Form(_) => instead.push(("plain text", "all of them have the form".to_owned())),
            _ => {}
        }
    }
    if let Some(numbers) = &evidence.numbers {
        if numbers.has_fractions() {
            let (fractions, all) = (numbers.fractions.count, numbers.count());
            instead.push(("an integer", format!("{fractions} of {all} have a fraction or an exponent")));
        } else if let Some(range) = numbers.integer_range {
            instead.push(("a float", "none has a fraction".to_owned()));
            instead.push((
                "another width",
                format!("the numbers go from {} to {}", range.least, range.greatest),
            ));
        }
    }
    match &evidence.choice {
        Choice::Map(weight) => {
            let against: Vec<_> = weight.clues().iter().filter(|(_, weight)| *weight < 0).collect();
            let said = if against.is_empty() {
                "its fields would be named after data".to_owned()
            } else {
                format!("all that speaks for it is {}", key_clues(against))
            };
            instead.push(("a record", said));
        }
        Choice::Record { weight, kinds, is_bounded } => {
            if *is_bounded {
                let why =
                    format!("more than {MAX_VARIANTS} sets of keys stand together, too many to compare");
                instead.push(("a union", why));
            }
            if !kinds.is_empty() {
                instead
                    .push(("a union", "its kinds have keys of their own, which is asked about".to_owned()));
            }
            instead.push(("a map", no_map(weight)));
        }
        Choice::Tagged(_) => {
            instead.push(("one record", "most of its fields would be missing most of the time".to_owned()));
        }
        Choice::Tuple => {
            instead.push(("a list", "its items are of unlike kinds, always in that order".to_owned()));
        }
        _ => {}
    }
    instead
}
