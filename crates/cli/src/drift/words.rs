//! Findings in words: as it was, as it is, how that is known, and the way out.

use jar_sprout_drift::{Change, Finding, Verdict};
use jar_sprout_model::{DefaultValue, Encoding, Presence, WireName};
use jar_sprout_settle::{Explanation, FieldVerdict, Settling, Subject, explain};

use super::readers::{Reader, verdicts};
use super::sides::{Half, Pair};
use crate::look::document::slot_text;
use crate::modelling::{Home, settling_line, shell_word};
use crate::screen::cut;
use crate::wording::{first_few, listed};

/// The most values of an enum that are named.
const MOST_WORDS: usize = 6;

/// The most columns of what is said of something.
const MOST_SAID: usize = 40;

/// A finding, ready to be shown.
pub(crate) struct Shown {
    pub(crate) verdict: Verdict,
    /// The same in each language that was asked for.
    pub(crate) by_language: Vec<(String, Verdict)>,
    /// The way through the data.
    pub(crate) at: String,
    /// The type that it is about.
    pub(crate) of: String,
    /// The field, or what of the type.
    pub(crate) what: String,
    /// What kind of change, in one word.
    pub(crate) change: &'static str,
    pub(crate) was: String,
    pub(crate) is: String,
    /// How often, and where first; empty where a document says it.
    pub(crate) evidence: String,
    /// What to do; empty where nothing is.
    pub(crate) way_out: String,
}

/// A finding of a pair in words.
pub(crate) fn shown(finding: &Finding, pair: &Pair, readers: &[Reader], home: Home<'_>) -> Shown {
    let subject = finding.old.as_ref().or(finding.new.as_ref());
    let of = finding.within.clone();
    let key = subject.and_then(|subject| subject.key.as_ref());
    let (change, was, is) = sides(finding, pair);
    let (verdict, by_language) = verdicts(finding, readers);
    Shown {
        verdict,
        by_language,
        at: finding.at.to_string(),
        of,
        what: key.map_or_else(|| part(&finding.change).to_owned(), |key| key.as_str().to_owned()),
        change,
        was,
        is,
        evidence: evidence(finding, pair),
        way_out: if verdict == Verdict::Harmless { String::new() } else { way_out(finding, home) },
    }
}

/// What of a type has changed.
fn part(change: &Change) -> &'static str {
    match change {
        Change::ValuesNew { .. } | Change::ValuesGone { .. } | Change::Openness { .. } => "its values",
        Change::CaseNew { .. } | Change::CaseGone { .. } | Change::Tag { .. } => "its kinds",
        Change::TypeRenamed => "its name",
        Change::Extras { .. } => "other keys",
        Change::Description { .. } | Change::Deprecated { .. } => "what is said of it",
        _ => "all of it",
    }
}

/// What kind of change it is, what was, and what is.
fn sides(finding: &Finding, pair: &Pair) -> (&'static str, String, String) {
    let text = |text: &str| text.to_owned();
    let words = |words: &[WireName]| {
        let all: Vec<String> = words.iter().map(|word| format!("{:?}", word.as_str())).collect();
        first_few(&all, MOST_WORDS)
    };
    let (old, new) = (pair.old.model(), pair.new.model());
    match &finding.change {
        Change::FieldGone { presence, was } => {
            ("gone", format!("{}, {}", slot_text(old, was), there(*presence)), text("gone"))
        }
        Change::FieldNew { presence, is } => {
            ("new", text("not there"), format!("{}, {}", slot_text(new, is), there(*presence)))
        }
        Change::FieldRenamed { from, to, presence: _ } => {
            ("renamed", from.as_str().to_owned(), format!("{}, it seems", to.as_str()))
        }
        Change::MayBeMissing => ("may be missing", text("always there"), text("may be missing")),
        Change::AlwaysThere => ("always there", text("may be missing"), text("always there")),
        Change::MayBeNull => ("may be null", text("never null"), text("may be null")),
        Change::NeverNull => ("never null", text("may be null"), text("never null")),
        Change::Kind { was, is, .. } => {
            let (was, is) = (slot_text(old, was), slot_text(new, is));
            // Two widths of integer have one word.
            if was == is {
                ("wider or narrower", was, format!("{is} of another width"))
            } else {
                ("kind", was, is)
            }
        }
        Change::ValuesNew { words: fresh, .. } => ("new values", text("not there"), words(fresh)),
        Change::ValuesGone { words: gone } => ("values gone", words(gone), text("gone")),
        Change::Openness { is_closed: true } => {
            ("closed", text("any other value, too"), text("no other value"))
        }
        Change::Openness { is_closed: false } => {
            ("open", text("no other value"), text("any other value, too"))
        }
        Change::CaseNew { case, .. } => ("new case", text("not there"), case.clone()),
        Change::CaseGone { case } => ("case gone", case.clone(), text("gone")),
        Change::Tag { was, is } => {
            let told = |tag: &Option<WireName>| {
                tag.as_ref()
                    .map_or_else(|| text("by the kind of value"), |tag| format!("by `{}`", tag.as_str()))
            };
            ("told apart otherwise", told(was), told(is))
        }
        Change::TypeGone => ("type gone", text("there"), text("gone")),
        Change::TypeNew => ("new type", text("not there"), text("there")),
        Change::TypeRenamed => {
            let name = |subject: &Option<Subject>| {
                subject.as_ref().map(|one| one.type_name.clone()).unwrap_or_default()
            };
            ("type renamed", name(&finding.old), name(&finding.new))
        }
        Change::Encoding { was, is } => ("written otherwise", encoding(was), encoding(is)),
        Change::Default { was, is } => ("default", default(was.as_ref()), default(is.as_ref())),
        Change::Extras { are_typed } => {
            let told =
                |are_typed| text(if are_typed { "other keys are typed" } else { "other keys say nothing" });
            ("other keys", told(!are_typed), told(*are_typed))
        }
        Change::Deprecated { is_deprecated: true } => {
            ("deprecated", text("in use"), text("should not be used any more"))
        }
        Change::Deprecated { is_deprecated: false } => {
            ("not deprecated", text("should not be used"), text("in use"))
        }
        Change::Description { was, is } => ("description", quoted(was), quoted(is)),
    }
}

/// The start of what is said.
fn quoted(text: &str) -> String {
    match text.lines().next() {
        None => "nothing said".to_owned(),
        Some(line) => format!("“{}”", cut(line, MOST_SAID)),
    }
}

fn there(presence: Presence) -> &'static str {
    match presence {
        Presence::Always => "always there",
        Presence::Sometimes => "at times",
    }
}

fn encoding(encoding: &Encoding) -> String {
    match encoding {
        Encoding::Plain => "as it is".to_owned(),
        Encoding::JsonInText => "JSON in a text".to_owned(),
        Encoding::NothingWords(words) => {
            let words: Vec<String> = words.iter().map(|word| format!("{:?}", word.as_str())).collect();
            format!("{} for nothing", words.join(", "))
        }
    }
}

fn default(default: Option<&DefaultValue>) -> String {
    match default {
        None => "no default".to_owned(),
        Some(DefaultValue::Boolean(truth)) => truth.to_string(),
        Some(DefaultValue::Number(number)) => number.clone(),
        Some(DefaultValue::Text(text)) => format!("{text:?}"),
    }
}

/// How often it was seen, and where first.
fn evidence(finding: &Finding, pair: &Pair) -> String {
    let of = |half: &Half, subject: &Option<Subject>| -> Option<Explanation> {
        explain(&half.modelled.drafted, &half.modelled.settled, subject.as_ref()?).ok()
    };
    let holder = |half: &Half, subject: &Option<Subject>| -> Option<u64> {
        let ty = Subject { type_name: subject.as_ref()?.type_name.clone(), key: None };
        Some(explain(&half.modelled.drafted, &half.modelled.settled, &ty).ok()?.seen)
    };
    let first = |half: &Half, place: Option<jar_sprout_model::Place>| {
        place
            .map(|place| format!(", first {}:{}", half.gathered.names.get(place.source), place.line))
            .unwrap_or_default()
    };
    let misfit = || pair.first_misfit(finding).map(|place| format!(", first {place}")).unwrap_or_default();
    let counted = |half: &Half, subject: &Option<Subject>| -> Option<String> {
        let told = of(half, subject)?;
        let all = holder(half, subject).filter(|all| *all != told.seen);
        let of_all = all.map(|all| format!(" of {all}")).unwrap_or_default();
        Some(format!("{}{of_all}{}", told.seen, first(half, told.first())))
    };
    let said = match &finding.change {
        Change::MayBeNull => of(&pair.new, &finding.new).and_then(|told| {
            let nulls = told.kinds.iter().find(|kind| kind.what == "null")?;
            Some(format!("null {} of {}{}", nulls.count, told.seen, misfit()))
        }),
        Change::FieldGone { .. } => counted(&pair.old, &finding.old).map(|told| format!("was there {told}")),
        Change::MayBeMissing => of(&pair.new, &finding.new).map(|told| {
            let all = holder(&pair.new, &finding.new).unwrap_or(told.seen);
            format!("missing {} of {all}{}", all.saturating_sub(told.seen), misfit())
        }),
        Change::Kind { is_read: false, .. } if pair.first_misfit(finding).is_some() => {
            of(&pair.new, &finding.new).map(|told| format!("seen {}{}", told.seen, misfit()))
        }
        Change::FieldNew { .. } | Change::FieldRenamed { .. } | Change::Kind { .. } => {
            counted(&pair.new, &finding.new).map(|told| format!("seen {told}"))
        }
        _ => None,
    };
    said.unwrap_or_default()
}

/// What to do.
fn way_out(finding: &Finding, home: Home<'_>) -> String {
    let decide = |verdict: FieldVerdict| {
        let subject = finding.old.clone().filter(|subject| subject.key.is_some());
        subject.map(|subject| settling_line(&Settling::Field(subject, verdict), home))
    };
    let regrow = || "grow again, and mend what the compiler names".to_owned();
    let line = match &finding.change {
        Change::FieldGone { presence: Presence::Always, .. } | Change::MayBeMissing => {
            decide(FieldVerdict::Optional)
        }
        Change::MayBeNull => decide(FieldVerdict::Nullable),
        Change::FieldRenamed { from, to, .. } => {
            let (field, name) = (format!("{}.{}", finding.within, to.as_str()), from.as_str());
            Some(match home {
                Home::Arguments => {
                    format!("--rename {} keeps its name in code", shell_word(&format!("{field}={name}")))
                }
                Home::Jar(_) => format!(
                    "grow again; `jar-sprout decide {} --rename {}` keeps its name in code",
                    shell_word(&field),
                    shell_word(name)
                ),
            })
        }
        Change::FieldNew { .. } | Change::AlwaysThere => Some("send it".to_owned()),
        Change::Default { .. } => Some("say the value where it matters".to_owned()),
        _ => None,
    };
    line.unwrap_or_else(regrow)
}

impl Shown {
    /// What it does in languages where it does something else than at worst: `loses in Go and TypeScript`.
    pub(crate) fn elsewhere(&self) -> String {
        let mut parts = Vec::new();
        for verdict in Verdict::ALL.into_iter().filter(|verdict| *verdict != self.verdict) {
            let names: Vec<&str> = self
                .by_language
                .iter()
                .filter(|(_, one)| *one == verdict)
                .map(|(name, _)| name.as_str())
                .collect();
            if !names.is_empty() {
                parts.push(format!("{} in {}", verdict.words(), listed(&names)));
            }
        }
        parts.join(", ")
    }
}

/// `3 break reading, 1 loses`, the worst first; what there is none of is not said.
pub(crate) fn summary(all: &[Shown]) -> String {
    let counts = Verdict::ALL.into_iter().filter_map(|verdict| {
        let count = all.iter().filter(|one| one.verdict == verdict).count();
        let words = match (verdict, count) {
            (_, 0) => return None,
            (Verdict::Harmless, _) | (_, 1) => verdict.words().to_owned(),
            (Verdict::Loses, _) => "lose".to_owned(),
            (verdict, _) => verdict.words().replacen("breaks", "break", 1),
        };
        Some(format!("{count} {words}"))
    });
    let counts: Vec<String> = counts.collect();
    if counts.is_empty() { "no drift".to_owned() } else { counts.join(", ") }
}
