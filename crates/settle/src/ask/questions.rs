//! Open questions: what the samples could not settle, worst first, each with what settles it.

use jar_sprout_model::{Definition, Field, NamedType, Scalar, TimeForms, TypeId, Width, Words};
use jar_sprout_shape::{Form, Path};

use crate::ask::wording::{epoch_unit, key_clues};
use crate::decide::join::{NearAlike, near_alike};
use crate::decide::verdict::{FieldType, FieldVerdict};
use crate::draft::Drafted;
use crate::draft::evidence::{Choice, Evidence};
use crate::model::Settled;
use crate::policies::Trust;
use crate::subject::Subject;

/// Something that the samples could not settle.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Question {
    /// What it is about; none for the samples as a whole.
    pub subject: Option<Subject>,
    /// Where it stands.
    pub path: Option<Path>,
    /// What was seen.
    pub saw: String,
    /// What was made of it for now.
    pub chose: String,
    /// What settles it.
    pub settle: Settling,
    /// How much harm a wrong guess does, from 0 to 100.
    pub harm: u8,
}

/// What settles a question.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Settling {
    /// To trust nothing but what is essential.
    TrustNothing,
    /// What a field is.
    Field(Subject, FieldVerdict),
    /// That a type is one with another.
    SameAs(Subject, String),
}

/// All open questions of a model made from so many samples, the worst first.
pub fn open_questions(drafted: &Drafted, settled: &Settled, samples: u64) -> Vec<Question> {
    let mut questions: Vec<Question> =
        one_sample(settled, samples).filter(|_| drafted.trust == Trust::Provisional).into_iter().collect();
    for (id, ty) in settled.model.types() {
        let Definition::Record(record) = &ty.definition else { continue };
        for field in &record.fields {
            questions.extend(about_field(drafted, settled, id, ty, field));
        }
    }
    questions.extend(near_alike(&settled.model).iter().map(|pair| about_near_alike(settled, pair)));
    questions.sort_by_key(|question| std::cmp::Reverse(question.harm));
    questions
}

fn one_sample(settled: &Settled, samples: u64) -> Option<Question> {
    let has_records = settled.model.types().any(|(_, ty)| matches!(ty.definition, Definition::Record(_)));
    (samples == 1 && has_records).then(|| Question {
        subject: None,
        path: None,
        saw: "one sample only".to_owned(),
        chose: "a key is required where all objects of that sample had it".to_owned(),
        settle: Settling::TrustNothing,
        harm: 95,
    })
}

fn about_near_alike(settled: &Settled, pair: &NearAlike) -> Question {
    let NearAlike { first, second, shared, all } = pair;
    let name = |id: &TypeId| settled.model.get(*id).name.in_capitals();
    let (first, subject) = (name(first), Subject { type_name: name(second), key: None });
    Question {
        subject: Some(subject.clone()),
        path: None,
        saw: format!("{shared} of {all} keys in common with {first}"),
        chose: "a type of its own".to_owned(),
        settle: Settling::SameAs(subject, first),
        harm: 40,
    }
}

fn about_field(
    drafted: &Drafted,
    settled: &Settled,
    id: TypeId,
    ty: &NamedType,
    field: &Field,
) -> Option<Question> {
    let node = settled.origin(&drafted.draft, id, Some(&field.wire))?;
    let evidence = drafted.evidence.get(&node)?;
    let subject = Subject::of_field(ty, field);
    if settled.decided.contains(&subject) {
        return None;
    }
    let Doubt { saw, chose, settle, harm } = doubt(evidence, field)?;
    Some(Question {
        subject: Some(subject.clone()),
        path: evidence.paths.first().cloned(),
        saw,
        chose: chose.to_owned(),
        settle: Settling::Field(subject, settle),
        harm,
    })
}

struct Doubt {
    saw: String,
    chose: &'static str,
    settle: FieldVerdict,
    harm: u8,
}

/// What is in doubt of a field, if something is.
fn doubt(evidence: &Evidence, field: &Field) -> Option<Doubt> {
    let Evidence { seen, choice, .. } = evidence;
    let of = |saw: String, chose, settle, harm| Some(Doubt { saw, chose, settle, harm });
    let times = |count: u64| if count == 1 { "once".to_owned() } else { format!("{count} times") };
    match choice {
        Choice::NothingKnown => {
            of(format!("null, {}", times(*seen)), "any value", likely_type(&field.name), 90)
        }
        Choice::EmptyLists => {
            of(format!("an empty list, {}", times(*seen)), "a list of any values", texts(), 80)
        }
        Choice::EmptyObjects => {
            of(format!("an empty object, {}", times(*seen)), "any value", is(FieldType::Any), 60)
        }
        Choice::MixedKinds => of(kinds(evidence), "one of these", is(FieldType::Any), 85),
        Choice::ManyKinds => of(kinds(evidence), "any value", is(FieldType::Any), 85),
        Choice::Integer { since_1970: Some(unit), .. } => of(
            format!("whole numbers that look like {} since 1970", epoch_unit(*unit)),
            "an integer",
            is_scalar(Scalar::Integer(Width::Wide)),
            20,
        ),
        Choice::Integer { .. } if leaves_doubles(evidence) => of(
            "whole numbers beyond 2^53, which JavaScript rounds".to_owned(),
            "an integer",
            is_scalar(Scalar::Integer(if leaves_words(evidence) { Width::Big } else { Width::Exact })),
            25,
        ),
        Choice::Integer { is_measure: true, .. } => {
            of(format!("a measure, whole {}", times(*seen)), "an integer", is_scalar(Scalar::Float), 70)
        }
        Choice::BlankAmong(form) => of(
            format!("blank {} among texts of the form {}", times(blanks(evidence)), form.name()),
            "text",
            is_scalar(Scalar::Text),
            65,
        ),
        Choice::Coded(form) => {
            let what = match form {
                Form::BooleanWord => "yes or no in letters",
                Form::Whole => "whole numbers in letters",
                _ => "numbers in letters",
            };
            // No number takes a blank, and none of 64 bits that many digits.
            let (saw, settle) = match (blanks(evidence), form) {
                (0, Form::BooleanWord) => (what.to_owned(), Scalar::Text),
                (0, Form::Whole) if is_long(evidence) => (format!("{what}, long ones"), Scalar::Text),
                (0, Form::Whole) => (what.to_owned(), Scalar::Integer(Width::Wide)),
                (0, _) => (what.to_owned(), Scalar::Decimal),
                (blank, _) => (format!("{what}, blank {}", times(blank)), Scalar::Text),
            };
            of(saw, "text", is_scalar(settle), 50)
        }
        Choice::NearlyEnum => of(values(evidence), "text", is(FieldType::Enum), 30),
        Choice::Map(weight) if weight.is_doubtful() => of(
            format!("keys that may be data: {}", key_clues(weight.clues())),
            "a map",
            is(FieldType::Any),
            55,
        ),
        Choice::Record(weight) if weight.is_doubtful() => of(
            format!("keys that may be data: {}", key_clues(weight.clues())),
            "a record",
            is(FieldType::Any),
            55,
        ),
        Choice::AsWritten
        | Choice::Integer { is_measure: false, .. }
        | Choice::Form(_)
        | Choice::Enum
        | Choice::NoEnum(_)
        | Choice::Map(_)
        | Choice::Record(_)
        | Choice::Tuple
        | Choice::Tagged(_)
        | Choice::TaggedCase(_) => None,
    }
}

/// Whether a 64-bit float, which is all that JavaScript's `JSON.parse` knows, cannot hold the numbers.
fn leaves_doubles(evidence: &Evidence) -> bool {
    const LAST: i128 = 1 << 53;
    let range = evidence.numbers.as_ref().and_then(|numbers| numbers.integer_range);
    range.is_some_and(|range| range.least < -LAST || range.greatest > LAST)
}

/// Whether 64 bits cannot hold the numbers.
fn leaves_words(evidence: &Evidence) -> bool {
    let range = evidence.numbers.as_ref().and_then(|numbers| numbers.integer_range);
    range.is_none_or(|range| i64::try_from(range.least).is_err() || i64::try_from(range.greatest).is_err())
}

/// What a field that is always null most likely is, by its name.
fn likely_type(name: &Words) -> FieldVerdict {
    is_scalar(match name.last() {
        "at" | "timestamp" | "time" => Scalar::DateTime(TimeForms::ALL),
        "date" | "day" | "on" => Scalar::Date,
        "count" | "total" | "number" => Scalar::Integer(Width::Narrow),
        "price" | "amount" | "rate" | "weight" | "kg" => Scalar::Float,
        _ => Scalar::Text,
    })
}

fn is(ty: FieldType) -> FieldVerdict {
    FieldVerdict::Is(ty)
}

fn is_scalar(scalar: Scalar) -> FieldVerdict {
    is(FieldType::Scalar(scalar))
}

fn texts() -> FieldVerdict {
    is(FieldType::List(Box::new(FieldType::Scalar(Scalar::Text))))
}

fn blanks(evidence: &Evidence) -> u64 {
    evidence.texts.as_ref().map_or(0, |texts| texts.of_form(Form::Blank))
}

/// Whether some text has more digits than every integer of 64 bits can have.
fn is_long(evidence: &Evidence) -> bool {
    evidence.texts.as_ref().is_some_and(|texts| texts.longest > 18)
}

/// `integer 3 times, text once`
fn kinds(evidence: &Evidence) -> String {
    let kind = |kind: &crate::draft::evidence::KindSeen| {
        format!(
            "{} {}",
            kind.what,
            if kind.count == 1 { "once".to_owned() } else { format!("{} times", kind.count) }
        )
    };
    evidence.kinds.iter().map(kind).collect::<Vec<_>>().join(", ")
}

/// `"laying" 4, "caged" 2`
pub(crate) fn values(evidence: &Evidence) -> String {
    let Some(texts) = &evidence.texts else { return String::new() };
    let jar_sprout_shape::Distinct::All(values) = texts.distinct() else {
        return "many different texts".to_owned();
    };
    let mut values: Vec<(&str, u64)> = values.into_iter().map(|(text, tally)| (text, tally.count)).collect();
    values.sort_by_key(|(text, count)| (std::cmp::Reverse(*count), *text));
    let shown: Vec<String> = values.iter().take(6).map(|(text, count)| format!("{text:?} {count}")).collect();
    let more = values.len().saturating_sub(6);
    if more > 0 { format!("{} and {more} more", shown.join(", ")) } else { shown.join(", ") }
}
