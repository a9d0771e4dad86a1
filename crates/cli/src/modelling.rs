//! From what was gathered to a model.

use jar_sprout_document::Drafted;
use jar_sprout_model::{DefaultValue, Problem, Severity, Spot, Words};
use jar_sprout_settle::{
    Decision, FieldVerdict, Inferred, Lack, Misfit, Miss, Policies, RootName, Settling, Subject, decide,
    infer, infer_document, misfits, open_questions,
};

use crate::args::Questions;
use crate::failure::{Failure, Outcome};
use crate::report;
use crate::request::{Request, Selection};
use crate::source_names::SourceNames;
use crate::sources::{Gathered, LocatedSample, located_samples};
use crate::wording::nearest;

/// How many questions are shown unless all are asked for.
const FEW_QUESTIONS: usize = 5;

/// The model of all that was asked for.
pub(crate) fn model(gathered: &Gathered, request: &Request) -> Result<Inferred, Problem> {
    let (modelled, misses) = decided_model(gathered, request, &request.decisions);
    match misses.first() {
        Some(miss) => Err(not_found(miss, format!("--decide {}=…", miss.subject))),
        None => Ok(modelled),
    }
}

/// The same with decisions that were read, and those of them that match nothing.
pub(crate) fn decided_model(
    gathered: &Gathered,
    request: &Request,
    decisions: &[Decision],
) -> (Inferred, Vec<Miss>) {
    let Request { selection: _, name, policies, decisions: _ } = request;
    let mut inferred = match &gathered.document {
        Some(document) => from_document(document, name.as_deref(), policies),
        None => {
            let words = name.as_deref().map_or_else(|| gathered.root_name(), Words::split);
            infer(&gathered.shape, &RootName { words, is_given: name.is_some() }, policies)
        }
    };
    let misses = decide(&mut inferred.settled, &inferred.drafted, decisions);
    (inferred, misses)
}

/// The model of a document.
fn from_document(document: &Drafted, name: Option<&str>, policies: &Policies) -> Inferred {
    let mut roots = document.roots.clone();
    if let (Some(name), Some(first)) = (name, roots.first_mut()) {
        first.name = Words::split(name);
    }
    infer_document(document.draft.clone(), &roots, document.title.as_ref(), policies)
}

/// A decision that matches nothing any more.
pub(crate) fn unmatched_problem(miss: &Miss, place: String) -> Problem {
    let problem = not_found(miss, place);
    Problem {
        severity: Severity::Warning,
        message: format!("a decision matches nothing: {}", problem.message),
        ..problem
    }
}

/// What was asked for, and what there is of the kind.
fn asked_and_known(miss: &Miss) -> (String, &[String]) {
    let Miss { subject, lack } = miss;
    match lack {
        Lack::Type { name, known } => (name.clone(), known),
        Lack::Field { known } => (subject.to_string(), known),
        Lack::Part { asked, known } => (asked.clone(), known),
        Lack::Enum => (format!("enum {subject}"), &[]),
        Lack::Fields => (format!("record {subject}"), &[]),
        Lack::Record { name } => (format!("record {name}"), &[]),
        Lack::NamedType => (format!("type in {subject}"), &[]),
        Lack::Room { value } => {
            let kind = match value {
                DefaultValue::Boolean(_) => "boolean",
                DefaultValue::Number(_) => "number",
                DefaultValue::Text(_) => "text",
            };
            (format!("never-null {kind} {subject}"), &[])
        }
        Lack::Evidence => (subject.to_string(), &[]),
    }
}

/// A subject that the model does not have, with the nearest that it has.
pub(crate) fn not_found(miss: &Miss, argument: String) -> Problem {
    let (asked, known) = asked_and_known(miss);
    let problem = Failure::argument(format!("the model has no `{asked}`"), argument);
    match (nearest(&asked, known.to_vec()), known.is_empty()) {
        (Some(near), _) => problem.with_help(format!("did you mean `{near}`?")),
        (None, false) => {
            let few: Vec<String> = known.iter().take(8).map(|name| format!("`{name}`")).collect();
            problem.with_help(format!("there are {}", few.join(", ")))
        }
        (None, true) => problem,
    }
}

/// The most misfits that are shown unless all are asked for by `check`.
const FEW_MISFITS: usize = 20;

/// Where a document and samples are both given, shows what the samples contradict.
pub(crate) fn show_misfits(modelled: &Inferred, gathered: &Gathered, selection: &Selection) -> Outcome<()> {
    if gathered.document.is_none() || gathered.samples == 0 {
        return Ok(());
    }
    let misfits = misfits_of(modelled, &located_samples(selection)?);
    for (place, misfit) in misfits.iter().take(FEW_MISFITS) {
        let problem = Problem::warning(misfit.to_string(), Spot::Path(place.clone()));
        report::problem(&problem, &SourceNames::default());
    }
    if misfits.len() > FEW_MISFITS {
        report::note(&format!(
            "and {} more places where the samples are not what the document says",
            misfits.len() - FEW_MISFITS
        ));
    }
    Ok(())
}

/// Where samples are not what the model says: file and line, and what is wrong there.
pub(crate) fn misfits_of(modelled: &Inferred, samples: &[LocatedSample]) -> Vec<(String, Misfit)> {
    let of_sample = |sample: &LocatedSample| -> Vec<(String, Misfit)> {
        let value = serde_json::from_str(sample.text());
        let misfits = value.map(|value| misfits(&modelled.settled.model, &value)).unwrap_or_default();
        let placed = |misfit: Misfit| (format!("{}:{}", sample.file, sample.line_of(&misfit.path)), misfit);
        misfits.into_iter().map(placed).collect()
    };
    samples.iter().flat_map(of_sample).collect()
}

/// Where decisions are kept.
#[derive(Debug, Clone, Copy)]
pub(crate) enum Home<'h> {
    /// In arguments.
    Arguments,
    /// In a jar; under the model's name where there are several.
    Jar(Option<&'h str>),
}

/// The line that settles a question.
fn settling_line(settling: &Settling, home: Home<'_>) -> String {
    match (settling, home) {
        (Settling::TrustNothing, Home::Arguments) => "--trust nothing".to_owned(),
        (Settling::TrustNothing, Home::Jar(_)) => {
            "trust = \"nothing\" under [policies] in jar.toml".to_owned()
        }
        (Settling::Field(subject, verdict), Home::Arguments) => decide_argument(subject, &word_of(verdict)),
        (Settling::SameAs(subject, other), Home::Arguments) => decide_argument(subject, other),
        (Settling::Field(subject, verdict), Home::Jar(model)) => {
            let option = match verdict {
                FieldVerdict::Required
                | FieldVerdict::Optional
                | FieldVerdict::Nullable
                | FieldVerdict::NeverNull => format!("--{}", word_of(verdict)),
                FieldVerdict::Is(_)
                | FieldVerdict::Default(_)
                | FieldVerdict::Split(_)
                | FieldVerdict::LeaveOut
                | FieldVerdict::Closed(_)
                | FieldVerdict::Describe(_)
                | FieldVerdict::Deprecated(_)
                | FieldVerdict::Rename(_) => format!("--type {}", shell_word(&word_of(verdict))),
            };
            decide_command(subject, &option, model)
        }
        (Settling::SameAs(subject, other), Home::Jar(model)) => {
            decide_command(subject, &format!("--same-as {other}"), model)
        }
    }
}

fn word_of(verdict: &FieldVerdict) -> String {
    verdict.word().unwrap_or_default()
}

fn decide_argument(subject: &Subject, word: &str) -> String {
    format!("--decide {}", shell_word(&format!("{subject}={word}")))
}

fn decide_command(subject: &Subject, option: &str, model: Option<&str>) -> String {
    let model = model.map(|model| format!(" --only {model}")).unwrap_or_default();
    format!("jar-sprout decide {} {option}{model}", shell_word(&subject.to_string()))
}

/// A word as a shell takes it.
fn shell_word(text: &str) -> String {
    let is_plain = |c: char| c.is_ascii_alphanumeric() || matches!(c, '.' | '_' | '-' | '=');
    if text.chars().all(is_plain) { text.to_owned() } else { format!("'{}'", text.replace('\'', r"'\''")) }
}

/// Shows the open questions on standard error, the worst first.
pub(crate) fn show_questions(modelled: &Inferred, gathered: &Gathered, shown: Questions, home: Home<'_>) {
    if gathered.document.is_some() {
        // A document says what is so; what samples contradict is told elsewhere.
        return;
    }
    let questions = open_questions(&modelled.drafted, &modelled.settled, gathered.samples);
    let most = match shown {
        Questions::None => return,
        Questions::Worst => FEW_QUESTIONS,
        Questions::All => usize::MAX,
    };
    report::questions(&questions, most, &|settling| settling_line(settling, home));
}
