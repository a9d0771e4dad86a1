//! Open questions: what the samples could not settle, worst first, each with what settles it.

use jar_sprout_model::{
    Coding, Definition, Encoding, Field, NamedType, NothingWords, Scalar, ScalarKind, TimeForms, Type,
    TypeId, Width, WireName, Words,
};
use jar_sprout_shape::{Distinct, Form, Shape, Texts};

use crate::ask::clusters::{DoubtKind, Doubted, once_per_key, once_per_type};
use crate::ask::question::{Question, Settling};
use crate::ask::wording::{epoch_unit, in_backticks, key_clues, quoted};
use crate::decide::join::{NearAlike, near_alike};
use crate::decide::verdict::{FieldType, FieldVerdict};
use crate::draft::Drafted;
use crate::draft::enums::is_word;
use crate::draft::evidence::{Choice, EpochUnit, Evidence, KindSeen};
use crate::draft::nothing::beside_others;
use crate::model::Settled;
use crate::policies::Trust;
use crate::structure::Structure;
use crate::subject::Subject;

/// All open questions of a model made from so many samples, the worst first.
pub fn open_questions(drafted: &Drafted, settled: &Settled, samples: u64) -> Vec<Question> {
    let mut questions: Vec<Question> = one_sample(drafted, settled, samples)
        .filter(|_| drafted.trust == Trust::Provisional)
        .into_iter()
        .collect();
    let mut of_fields = Vec::new();
    for (id, ty) in settled.model.types() {
        let Definition::Record(record) = &ty.definition else { continue };
        questions.extend(about_keys(drafted, settled, id, record.fields.len()));
        for field in &record.fields {
            of_fields.extend(about_field(drafted, settled, id, ty, field));
        }
    }
    questions.extend(once_per_type(once_per_key(settled, of_fields)));
    let differ = |a, b| constants_differ(drafted, settled, a, b);
    questions.extend(near_alike(&settled.model, &differ).iter().map(|pair| about_near_alike(settled, pair)));
    questions.sort_by_key(|question| std::cmp::Reverse(question.harm));
    questions
}

/// Whether each of two types says of itself, by a text that is always the same, that it is something else.
fn constants_differ(drafted: &Drafted, settled: &Settled, a: TypeId, b: TypeId) -> bool {
    let fields = |id: TypeId| settled.model.get(id).definition.fields();
    let constant = |id, field: &Field| {
        let evidence = drafted.evidence.get(&settled.origin(&drafted.draft, id, Some(&field.wire))?)?;
        match evidence.texts.as_ref()?.distinct() {
            Distinct::All(values) => match &values[..] {
                [(text, tally)] if tally.count >= 2 && is_word(text) => Some((*text).to_owned()),
                _ => None,
            },
            Distinct::Many => None,
        }
    };
    fields(a).iter().any(|field| {
        let other = fields(b).iter().find(|other| other.wire == field.wire);
        let other = other.and_then(|other| constant(b, other));
        other.is_some_and(|other| constant(a, field).is_some_and(|own| own != other))
    })
}

/// So many objects show which of their keys may be missing.
const FEW_OBJECTS: u64 = 5;

/// Whether most records were seen so seldom that nothing is known of which keys may be missing.
fn is_thin(drafted: &Drafted, settled: &Settled) -> bool {
    let seen = |(id, ty): (TypeId, &NamedType)| {
        let node = settled.origin(&drafted.draft, id, None)?;
        let is_record = matches!(ty.definition, Definition::Record(_));
        drafted.evidence.get(&node).filter(|_| is_record).map(|evidence| evidence.seen)
    };
    let seen: Vec<u64> = settled.model.types().filter_map(seen).collect();
    seen.iter().filter(|seen| **seen < FEW_OBJECTS).count() * 2 > seen.len()
}

fn one_sample(drafted: &Drafted, settled: &Settled, samples: u64) -> Option<Question> {
    let has_records = settled.model.types().any(|(_, ty)| matches!(ty.definition, Definition::Record(_)));
    (samples == 1 && has_records && is_thin(drafted, settled)).then(|| Question {
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

/// More fields than anybody reads.
const MANY_FIELDS: usize = 100;

/// Whether the keys of a record are data.
fn about_keys(drafted: &Drafted, settled: &Settled, id: TypeId, fields: usize) -> Option<Question> {
    let node = settled.origin(&drafted.draft, id, None)?;
    let Evidence { choice: Choice::Record { weight, kinds, .. }, paths, .. } = drafted.evidence.get(&node)?
    else {
        return None;
    };
    let is_asked = weight.is_doubtful() || (fields > MANY_FIELDS && !weight.is_decided());
    let subject = Subject { type_name: settled.model.get(id).name.in_capitals(), key: None };
    if !kinds.is_empty() && !is_asked {
        return Some(Question {
            subject: Some(subject.clone()),
            path: paths.first().cloned(),
            saw: format!("objects of several kinds, with {} in one of them each", in_backticks(kinds)),
            chose: "one record".to_owned(),
            settle: Settling::Structure(subject, Structure::Union),
            harm: 88,
        });
    }
    is_asked.then(|| Question {
        subject: Some(subject.clone()),
        path: paths.first().cloned(),
        saw: match weight.clues() {
            [] => format!("{fields} keys"),
            clues => format!("keys that may be data: {}", key_clues(clues)),
        },
        chose: "a record".to_owned(),
        settle: Settling::Structure(subject, Structure::Map),
        harm: 75,
    })
}

fn about_field(
    drafted: &Drafted,
    settled: &Settled,
    id: TypeId,
    ty: &NamedType,
    field: &Field,
) -> Option<Doubted> {
    let node = settled.origin(&drafted.draft, id, Some(&field.wire))?;
    let evidence = drafted.evidence.get(&node)?;
    let subject = Subject::of_field(ty, field);
    if settled.decided.contains(&subject) {
        return None;
    }
    let elsewhere = || known_elsewhere(settled, field).or_else(|| link_beside(ty, field));
    let beside_text = || beside_text(settled, field);
    let Doubt { saw, chose, settle, harm, kind } = doubt(evidence, field, &elsewhere, &beside_text)?;
    // What it is already settles nothing.
    if field_type(settled, &field.slot.ty).is_some_and(|known| settle == FieldVerdict::Is(known)) {
        return None;
    }
    let question = Question {
        subject: Some(subject.clone()),
        path: evidence.paths.first().cloned(),
        saw,
        chose: chose.to_owned(),
        settle: Settling::Field(subject, settle),
        harm,
    };
    Some(Doubted { kind, question })
}

struct Doubt {
    saw: String,
    chose: &'static str,
    settle: FieldVerdict,
    harm: u8,
    kind: DoubtKind,
}

/// What stands under the same key of another type, if that is known.
fn known_elsewhere(settled: &Settled, field: &Field) -> Option<FieldType> {
    let others = settled.model.types().filter_map(|(_, ty)| match &ty.definition {
        Definition::Record(record) => record.fields.iter().find(|other| other.wire == field.wire),
        Definition::Enumeration(_) | Definition::Union(_) => None,
    });
    others.into_iter().find_map(|other| field_type(settled, &other.slot.ty))
}

/// A link, where another one to a page stands beside it: what is null on the first page leads to one on the next.
fn link_beside(ty: &NamedType, field: &Field) -> Option<FieldType> {
    const PAGES: &[&str] = &["next", "previous", "prev", "first", "last", "self"];
    let Definition::Record(record) = &ty.definition else { return None };
    let is_of_pages = |field: &Field| field.name.iter().any(|word| PAGES.contains(&word));
    let is_link = |other: &&Field| is_of_pages(other) && other.slot.ty == Type::Scalar(Scalar::Uri);
    (is_of_pages(field) && record.fields.iter().any(|other| is_link(&other)))
        .then_some(FieldType::Scalar(Scalar::Uri))
}

/// What a decision calls a type, if it has a word for it.
fn field_type(settled: &Settled, ty: &Type) -> Option<FieldType> {
    match ty {
        Type::Scalar(scalar) => Some(FieldType::Scalar(scalar.with_time_forms(TimeForms::ALL))),
        Type::List(items) => Some(FieldType::List(Box::new(field_type(settled, &items.ty)?))),
        Type::Map(values) => Some(FieldType::Map(Box::new(field_type(settled, &values.ty)?))),
        Type::Named(id) => Some(FieldType::Named(settled.model.get(*id).name.in_capitals())),
        Type::Any | Type::Constant(_) | Type::Tuple(_) => None,
    }
}

/// The other one of a field's two types, if one of them is text.
fn beside_text(settled: &Settled, field: &Field) -> Option<FieldType> {
    let Type::Named(id) = field.slot.ty else { return None };
    let Definition::Union(union) = &settled.model.get(id).definition else { return None };
    let others: Vec<&Type> =
        union.cases.iter().map(|case| &case.slot.ty).filter(|ty| !is_text(settled, ty)).collect();
    match others[..] {
        [one] => field_type(settled, one),
        _ => None,
    }
}

fn is_text(settled: &Settled, ty: &Type) -> bool {
    match ty {
        Type::Scalar(scalar) => scalar.kind() == ScalarKind::Text,
        Type::Named(id) => matches!(settled.model.get(*id).definition, Definition::Enumeration(_)),
        Type::Any | Type::Constant(_) | Type::List(_) | Type::Map(_) | Type::Tuple(_) => false,
    }
}

/// The texts of a place that has other values as well, if all of them stand for nothing.
fn words_beside_others(evidence: &Evidence) -> Option<Vec<String>> {
    let texts = evidence.texts.as_ref()?;
    let is_other = |kind: &&KindSeen| !matches!(kind.what, "null" | "text");
    let others = evidence.kinds.iter().filter(is_other).map(|kind| kind.count).sum();
    beside_others(texts, others)
}

fn or_nothing(ty: FieldType, words: &[String]) -> Option<FieldVerdict> {
    let words = NothingWords::new(words.iter().map(WireName::new))?;
    Some(is(FieldType::OrNothing(Box::new(ty), words)))
}

/// What is in doubt of a field, if something is; `elsewhere` is what stands under the same key of other types,
/// `beside_text` the other one of its two types.
fn doubt(
    evidence: &Evidence,
    field: &Field,
    elsewhere: &dyn Fn() -> Option<FieldType>,
    beside_text: &dyn Fn() -> Option<FieldType>,
) -> Option<Doubt> {
    let Evidence { seen, choice, .. } = evidence;
    let kind = match choice {
        Choice::Coded(_) => DoubtKind::InLetters,
        Choice::Integer { .. } => DoubtKind::Number,
        Choice::NothingKnown | Choice::EmptyLists | Choice::EmptyObjects => DoubtKind::Unknown,
        Choice::MixedKinds => DoubtKind::Mixed,
        _ => DoubtKind::Other,
    };
    let of = |saw: String, chose, settle, harm| Some(Doubt { saw, chose, settle, harm, kind });
    let times = |count: u64| if count == 1 { "once".to_owned() } else { format!("{count} times") };
    if field.encoding == Encoding::Plain && has_objects_inside(evidence) {
        let count = evidence.texts.as_ref().map_or(0, |texts| texts.tally.count);
        let saw = format!("JSON in a text, {}", times(count));
        return of(saw, "text", FieldVerdict::Structure(Structure::JsonInText), 55);
    }
    match choice {
        Choice::NothingKnown => {
            let likely = elsewhere().map_or_else(|| likely_type(&field.name), is);
            of(format!("null, {}", times(*seen)), "any value", likely, 90)
        }
        Choice::EmptyLists => {
            let likely = elsewhere().filter(|ty| matches!(ty, FieldType::List(_))).map_or_else(texts, is);
            of(format!("an empty list, {}", times(*seen)), "a list of any values", likely, 80)
        }
        Choice::EmptyObjects => {
            let likely = elsewhere().unwrap_or_else(|| FieldType::Map(Box::new(FieldType::Any)));
            of(format!("an empty object, {}", times(*seen)), "any value", is(likely), 60)
        }
        Choice::WordsAmong(form, words) => {
            let ty = match form {
                _ if is_identifier(&field.name) && matches!(form, Form::Whole | Form::Decimal) => {
                    return None;
                }
                Form::Whole if is_long(evidence) => return None,
                Form::Whole => Scalar::Integer(Width::Wide),
                Form::Decimal => Scalar::Decimal,
                Form::DateTime => Scalar::DateTime(TimeForms::ALL),
                Form::LocalDateTime => Scalar::LocalDateTime(TimeForms::ALL),
                Form::Date => Scalar::Date,
                Form::Time => Scalar::Time(TimeForms::ALL),
                Form::Uuid => Scalar::Uuid,
                _ => Scalar::Uri,
            };
            let saw = format!("{} among texts of the form {}", quoted(words), form.name());
            let settle = or_nothing(FieldType::Scalar(ty), words)?;
            Some(Doubt { saw, chose: "text", settle, harm: 65, kind: DoubtKind::NothingWord })
        }
        Choice::MixedKinds => match words_beside_others(evidence) {
            Some(words) => {
                let settle = or_nothing(beside_text()?, &words)?;
                let saw = format!("{} beside other values", quoted(&words));
                Some(Doubt { saw, chose: "one of these", settle, harm: 85, kind: DoubtKind::NothingWord })
            }
            None => of(kinds(evidence), "one of these", is(FieldType::Any), 85),
        },
        Choice::Integer { since_1970: Some(unit), .. } => of(
            format!("whole numbers that look like {} since 1970", epoch_unit(*unit)),
            "an integer",
            is_scalar(Scalar::Coded(match unit {
                EpochUnit::Seconds => Coding::EpochSeconds,
                EpochUnit::Milliseconds => Coding::EpochMilliseconds,
            })),
            20,
        ),
        Choice::Integer { .. } if leaves_doubles(evidence) => of(
            "whole numbers beyond 2^53, which JavaScript rounds".to_owned(),
            "an integer",
            is_scalar(Scalar::Integer(if leaves_words(evidence) { Width::Big } else { Width::Exact })),
            25,
        ),
        Choice::Integer { is_measure: true, .. } if *seen < OFTEN => {
            of(format!("a measure, whole {}", times(*seen)), "an integer", is_scalar(Scalar::Float), 70)
        }
        // No number takes a blank, and none of 64 bits that many digits; and what is counted up is no number.
        Choice::Coded(Form::Whole | Form::Decimal) if is_identifier(&field.name) || blanks(evidence) > 0 => {
            None
        }
        Choice::Coded(Form::Whole) if is_long(evidence) => None,
        Choice::Coded(Form::Whole) => {
            let settle = is_scalar(Scalar::Integer(Width::Wide));
            of("whole numbers in letters".to_owned(), "text", settle, 50)
        }
        Choice::Coded(Form::Decimal) => {
            of("numbers in letters".to_owned(), "text", is_scalar(Scalar::Decimal), 50)
        }
        Choice::Coded(Form::BooleanWord) if are_truths(evidence) => {
            of("true or false in letters".to_owned(), "text", is_scalar(Scalar::Boolean), 50)
        }
        // A lone word says nothing yet.
        Choice::Coded(_) if distinct(evidence) > 1 => {
            of("yes or no in letters".to_owned(), "text", is(FieldType::Enum), 50)
        }
        Choice::NearlyEnum => of(values(evidence), "text", is(FieldType::Enum), 30),
        Choice::Map(weight) if weight.is_doubtful() => {
            let saw = format!("keys that may be names: {}", key_clues(weight.clues()));
            of(saw, "a map", FieldVerdict::Structure(Structure::Record), 75)
        }
        Choice::AsWritten
        | Choice::ManyKinds
        | Choice::Coded(_)
        | Choice::Integer { .. }
        | Choice::Form(_)
        | Choice::Enum
        | Choice::NoEnum(_)
        | Choice::Map(_)
        | Choice::Record { .. }
        | Choice::KindsByKeys { .. }
        | Choice::KindByKey(_)
        | Choice::Tuple
        | Choice::Tagged(_)
        | Choice::TaggedCase(_) => None,
    }
}

/// Whether nothing was seen but texts that are JSON, with objects in it.
fn has_objects_inside(evidence: &Evidence) -> bool {
    let has_objects = |shape: &Shape| {
        let items = shape.lists.as_ref().map(|lists| &lists.items);
        shape.objects.is_some() || items.is_some_and(|items| items.objects.is_some())
    };
    evidence.inside_texts().is_some_and(has_objects)
}

/// So many whole numbers are whole by their nature.
const OFTEN: u64 = 20;

/// Whether a name is that of something counted up or given out, not of an amount.
fn is_identifier(name: &Words) -> bool {
    const WORDS: &[&str] = &[
        "id",
        "ids",
        "uid",
        "guid",
        "code",
        "codes",
        "no",
        "nr",
        "num",
        "number",
        "key",
        "ref",
        "reference",
        "serial",
        "version",
        "ver",
        "revision",
        "rev",
        "build",
        "release",
        "schema",
        "zip",
        "zipcode",
        "postcode",
        "postal",
        "phone",
        "tel",
        "telephone",
        "mobile",
        "fax",
        "pin",
        "sku",
        "ean",
        "upc",
        "gtin",
        "isbn",
        "issn",
        "iban",
        "bic",
        "account",
        "hash",
        "checksum",
        "etag",
        "token",
        "cursor",
        "lot",
        "batch",
        "ticket",
        "licence",
        "license",
        "plate",
        "year",
    ];
    name.iter().any(|word| WORDS.contains(&word))
}

/// Whether both truths were seen, as JSON would write them, and nothing else.
fn are_truths(evidence: &Evidence) -> bool {
    match evidence.texts.as_ref().map(Texts::distinct) {
        Some(Distinct::All(values)) => {
            values.len() == 2 && values.iter().all(|(text, _)| matches!(*text, "true" | "false"))
        }
        Some(Distinct::Many) | None => false,
    }
}

/// How many distinct texts were seen, if they are few.
fn distinct(evidence: &Evidence) -> usize {
    match evidence.texts.as_ref().map(Texts::distinct) {
        Some(Distinct::All(values)) => values.len(),
        Some(Distinct::Many) => usize::MAX,
        None => 0,
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
    let kind = |kind: &KindSeen| {
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
    let Distinct::All(values) = texts.distinct() else {
        return "many different texts".to_owned();
    };
    let mut values: Vec<(&str, u64)> = values.into_iter().map(|(text, tally)| (text, tally.count)).collect();
    values.sort_by_key(|(text, count)| (std::cmp::Reverse(*count), *text));
    let shown: Vec<String> = values.iter().take(6).map(|(text, count)| format!("{text:?} {count}")).collect();
    let more = values.len().saturating_sub(6);
    if more > 0 { format!("{} and {more} more", shown.join(", ")) } else { shown.join(", ") }
}
