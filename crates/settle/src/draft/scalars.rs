//! Numbers and texts: which type carries all that was seen.

use jar_sprout_model::{DraftKind, Scalar, Width, WireName, Words};
use jar_sprout_shape::{Distinct, Form, Numbers, Texts};

use crate::draft::Decided;
use crate::draft::enums::{Repetition, judge};
use crate::draft::evidence::{Choice, EpochUnit, NoEnum};
use crate::draft::nothing::among_form;
use crate::policies::Policies;

/// Integers up to here leave room to grow within 32 bits; beyond it the next value may not fit.
const ROOMY: i128 = 1 << 30;

/// Up to here a double keeps every integer apart (ECMA-262, `Number.MAX_SAFE_INTEGER`).
const EXACT_IN_A_DOUBLE: i128 = (1 << 53) - 1;

pub(crate) fn draft_number(numbers: &Numbers, key: &Words, policies: &Policies) -> Decided {
    if numbers.has_fractions() {
        return Decided::new(DraftKind::Scalar(Scalar::Float), Choice::AsWritten);
    }
    let width = match integer_width(numbers, key) {
        Width::Narrow if policies.wide_integers => Width::Wide,
        width => width,
    };
    Decided::new(
        DraftKind::Scalar(Scalar::Integer(width)),
        Choice::Integer { is_measure: is_measure(key), since_1970: since_1970(numbers, key) },
    )
}

/// 64 bits when the range, or the nature of the number, asks for it.
fn integer_width(numbers: &Numbers, key: &Words) -> Width {
    let Some(range) = numbers.integer_range else { return Width::Narrow };
    if i64::try_from(range.least).is_err() || i64::try_from(range.greatest).is_err() {
        Width::Big
    } else if range.least < -EXACT_IN_A_DOUBLE || range.greatest > EXACT_IN_A_DOUBLE {
        Width::Exact
    } else if range.least < -ROOMY || range.greatest > ROOMY || grows_for_ever(key) {
        Width::Wide
    } else {
        Width::Narrow
    }
}

/// Ids, counts of bytes and points in time outgrow 32 bits sooner or later.
fn grows_for_ever(key: &Words) -> bool {
    matches!(key.last(), "id" | "ids" | "byte" | "bytes" | "timestamp" | "epoch")
}

/// The unit of a point in time, counted from 1970 on: what lies between 2001 and 2096, and is called a time.
fn since_1970(numbers: &Numbers, key: &Words) -> Option<EpochUnit> {
    const TIMES: &[&str] = &[
        "at",
        "time",
        "timestamp",
        "date",
        "created",
        "updated",
        "modified",
        "ms",
        "epoch",
        "since",
        "until",
        "from",
        "to",
        "expires",
        "expiry",
        "start",
        "end",
        "ts",
        "on",
        "seen",
    ];
    let range = numbers.integer_range.filter(|_| key.iter().any(|word| TIMES.contains(&word)))?;
    let lies = |unit: i128| range.least >= 1_000_000_000 * unit && range.greatest < 4_000_000_000 * unit;
    if lies(1) { Some(EpochUnit::Seconds) } else { lies(1_000).then_some(EpochUnit::Milliseconds) }
}

/// Words for what is measured: a whole number there is chance.
fn is_measure(key: &Words) -> bool {
    key.iter().any(|word| MEASURES.contains(&word))
}

const MEASURES: &[&str] = &[
    "price",
    "cost",
    "amount",
    "rating",
    "score",
    "weight",
    "kg",
    "lat",
    "latitude",
    "lng",
    "lon",
    "longitude",
    "temperature",
    "temp",
    "humidity",
    "share",
    "ratio",
    "percent",
    "percentage",
    "rate",
    "distance",
    "speed",
    "height",
    "depth",
    "length",
    "width",
    "area",
    "volume",
    "average",
    "avg",
    "mean",
    "balance",
    "fee",
    "tax",
    "discount",
    "probability",
    "confidence",
    "altitude",
    "elevation",
    "pressure",
    "moisture",
    "voltage",
    "duration",
    "km",
    "celsius",
];

/// `is_item` says that the texts stand in lists, as tags do; `is_identity` that they are what something is called by.
pub(crate) fn draft_text(texts: &Texts, is_item: bool, is_identity: bool, policies: &Policies) -> Decided {
    let blanks = texts.of_form(Form::Blank);
    let filled = texts.tally.count - blanks;
    let form = Form::ALL.into_iter().find(|form| *form != Form::Blank && texts.of_form(*form) == filled);
    let text = |choice| Decided::new(DraftKind::Scalar(Scalar::Text), choice);
    let is_dated = |form| matches!(form, Form::DateTime | Form::LocalDateTime | Form::Date | Form::Time);
    if let Some((form, words)) = among_form(texts).filter(|(form, _)| policies.dates || !is_dated(*form)) {
        return text(Choice::WordsAmong(form, words));
    }
    let of_form = |scalar| Decided::new(DraftKind::Scalar(scalar), Choice::Form(form.expect("of a form")));
    match form.filter(|_| filled > 0) {
        Some(form) if blanks > 0 && form != Form::Plain => text(Choice::AsWritten),
        Some(Form::DateTime) if policies.dates => of_form(Scalar::DateTime(texts.time_forms())),
        Some(Form::LocalDateTime) if policies.dates => of_form(Scalar::LocalDateTime(texts.time_forms())),
        Some(Form::Date) if policies.dates => of_form(Scalar::Date),
        Some(Form::Time) if policies.dates => of_form(Scalar::Time(texts.time_forms())),
        Some(Form::Uuid) => of_form(Scalar::Uuid),
        Some(Form::Uri) => of_form(Scalar::Uri),
        Some(coded @ (Form::Whole | Form::Decimal | Form::BooleanWord)) => text(Choice::Coded(coded)),
        None if filled > 0 && texts.of_form(Form::Whole) + texts.of_form(Form::Decimal) == filled => {
            text(Choice::Coded(Form::Decimal))
        }
        _ if policies.enums && is_identity => text(Choice::NoEnum(NoEnum::Identities)),
        _ if policies.enums => draft_words(texts, is_item),
        _ => text(Choice::AsWritten),
    }
}

fn draft_words(texts: &Texts, is_item: bool) -> Decided {
    let text = |choice| Decided::new(DraftKind::Scalar(Scalar::Text), choice);
    let Distinct::All(values) = texts.distinct() else {
        return text(Choice::NoEnum(NoEnum::TooMany));
    };
    match judge(&values, texts, is_item) {
        Repetition::Enum => {
            let mut known: Vec<WireName> = values
                .iter()
                .filter(|(text, _)| !text.trim().is_empty())
                .map(|(text, _)| WireName::new(*text))
                .collect();
            // By letter, so that the order of samples changes nothing.
            known.sort();
            Decided::new(DraftKind::Enumeration(known), Choice::Enum)
        }
        Repetition::Nearly => text(Choice::NearlyEnum),
        Repetition::No(why) => text(Choice::NoEnum(why)),
    }
}
