//! From what was gathered to a model.

use indexmap::IndexMap;
use jar_sprout_document::Drafted;
use jar_sprout_model::{DefaultValue, Problem, Severity, Spot, Words};
use jar_sprout_settle::{
    Decision, FieldVerdict, Inferred, Lack, Misfit, Miss, Novelty, Part, Policies, Question, RootName,
    Settling, Subject, compare, decide, infer_decided, infer_document, open_questions,
};

use jar_sprout_shape::{MAX_KEYS, Path};

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
    match &gathered.document {
        Some(document) => {
            let mut inferred = from_document(document, name.as_deref(), policies);
            let misses = decide(&mut inferred.settled, &inferred.drafted, decisions);
            (inferred, misses)
        }
        None => {
            let words = name.as_deref().map_or_else(|| gathered.root_name(), Words::split);
            let name = RootName { words, is_given: name.is_some() };
            let (inferred, misses) = infer_decided(&gathered.shape, &name, policies, decisions);
            tell_maps(&inferred.drafted.maps_all_the_same);
            (inferred, misses)
        }
    }
}

/// Says where maps stand although there should be none.
fn tell_maps(paths: &[Path]) {
    let Some((first, more)) = paths.split_first() else { return };
    let others = match more.len() {
        0 => String::new(),
        1 => ", and at 1 more place".to_owned(),
        count => format!(", and at {count} more places"),
    };
    let message = format!("more than {MAX_KEYS} keys at {first}{others}: a map all the same");
    let problem = Problem::warning(message, Spot::Argument("--maps off".to_owned()));
    let help = "no type has a field for each; `{any}` or `{text}` says what the map holds";
    report::problem(&problem.with_help(help), &SourceNames::default());
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

/// A subject that the model does not have, with the nearest that it has; or one that cannot be what was decided.
pub(crate) fn not_found(miss: &Miss, argument: String) -> Problem {
    let Miss { subject, lack } = miss;
    let unfit = |message: String, help: &str| Failure::argument(message, argument.clone()).with_help(help);
    match lack {
        Lack::Type { name, known } => unknown(name, known, argument),
        Lack::Field { known } => unknown(&subject.to_string(), known, argument),
        Lack::Part { asked, known } => unknown(asked, known, argument),
        Lack::Evidence => unknown(&subject.to_string(), &[], argument),
        Lack::Enum => unfit(format!("`{subject}` is no enum"), "`--type enum` makes one of a field of texts"),
        Lack::Fields => unfit(format!("`{subject}` has no fields"), "decide it of a type with fields"),
        Lack::Record { name } => unfit(
            format!("`{subject}` and `{name}` cannot be one type: one of them has no fields"),
            "a type with fields can be one with another",
        ),
        Lack::OneCase { union } => unfit(
            format!("`{subject}` is told apart from that type: both are cases of `{union}`"),
            "decided to be a `record`, the union makes one type of all its cases",
        ),
        Lack::Kinds => unfit(
            format!("the objects in `{subject}` are not of several kinds with keys of their own"),
            "`by KEY` takes kinds that a text tells apart",
        ),
        Lack::NamedType => unfit(
            format!("what stands in `{subject}` is no type with a name"),
            "a field of a type with fields can have a type of its own",
        ),
        Lack::Room { value } => {
            let kind = match value {
                DefaultValue::Boolean(_) => "true or false",
                DefaultValue::Number(_) => "a number",
                DefaultValue::Text(_) => "a text",
            };
            let message = format!("`{subject}` is not always {kind}, so that cannot be its default");
            unfit(message, "a default is of the field's own kind, and the field never null")
        }
        Lack::Samples => unfit(
            format!("a document says what `{subject}` is"),
            "what objects are can be decided of samples; of a field, `--type` any type will do",
        ),
        Lack::Objects => unfit(
            format!("there are no objects in `{subject}`"),
            "`map`, `record` and `by KEY` say what objects are",
        ),
        Lack::JsonTexts => unfit(
            format!("what stands in `{subject}` is not always a text that is JSON"),
            "`json-in-text` is for a field of texts, each an object or a list",
        ),
        Lack::FewerKeys => unfit(
            format!("`{subject}` has more keys than a record could name"),
            "of a map, `{any}` or `{text}` says what it holds",
        ),
        Lack::Tag { key } => unfit(
            format!("`{key}` does not tell the objects in `{subject}` apart"),
            "a key does that stands in all of them, with one of a few texts",
        ),
        Lack::Rest => unfit(
            format!("without `{subject}` nothing would be left of what it stands in"),
            "leave out what holds it, or take another part with `--at`",
        ),
    }
}

fn unknown(asked: &str, known: &[String], argument: String) -> Problem {
    let problem = Failure::argument(format!("the model has no `{asked}`"), argument);
    match (nearest(asked, known.to_vec()), known.is_empty()) {
        (Some(near), _) => problem.with_help(format!("did you mean `{near}`?")),
        (None, false) => {
            let few: Vec<String> = known.iter().take(8).map(|name| format!("`{name}`")).collect();
            problem.with_help(format!("there are {}", few.join(", ")))
        }
        (None, true) => problem,
    }
}

/// The most contradictions that are shown; `check` shows all.
const FEW_MISFITS: usize = 20;

/// The most keys and values beyond a document that are named.
const FEW_NOVELTIES: usize = 8;

/// The most bytes of samples that are held against a model unasked: they are read once more, value by value.
const MOST_BYTES: u64 = 64 << 20;

/// Where a document or decisions have a word in the model, shows what the samples contradict, and what they have
/// beyond the document.
pub(crate) fn show_contradictions(
    modelled: &Inferred,
    gathered: &Gathered,
    selection: &Selection,
    is_decided: bool,
    home: Home<'_>,
) -> Outcome<()> {
    let has_word = gathered.document.is_some() || is_decided;
    if !has_word || gathered.samples == 0 || selection.sources.iter().any(|source| source == "-") {
        return Ok(());
    }
    if are_many(gathered) {
        report::note("the samples are many; `jar-sprout check` in a jar holds them against the model");
        return Ok(());
    }
    let samples = located_samples(selection)?;
    let (misfits, novelties) = compared(modelled, &samples);
    show_misfits(&misfits, home);
    if gathered.document.is_some() {
        show_novelties(&novelties);
    }
    Ok(())
}

/// Whether samples are so many that nobody wants to wait for what they contradict.
pub(crate) fn are_many(gathered: &Gathered) -> bool {
    gathered.bytes > MOST_BYTES
}

/// Something in a sample. Where it stands takes a while to find, so that it is looked for only where it is shown.
pub(crate) type Found<'s, T> = (&'s LocatedSample, T);

/// The file and the line of something in a sample.
pub(crate) fn place_of(sample: &LocatedSample, path: &[Part]) -> String {
    format!("{}:{}", sample.file, sample.line_of(path))
}

/// Shows misfits, those of one place in the model together.
pub(crate) fn show_misfits(misfits: &[Found<'_, Misfit>], home: Home<'_>) {
    let mut groups: IndexMap<_, Vec<&Found<'_, Misfit>>> = IndexMap::new();
    for one in misfits {
        let subject = one.1.remedy.as_ref().map(|(subject, _)| subject);
        groups.entry((subject, one.1.expected.as_str())).or_default().push(one);
    }
    for group in groups.values().take(FEW_MISFITS) {
        let [(sample, misfit), more @ ..] = &group[..] else { continue };
        let place = place_of(sample, &misfit.path);
        let also = match more.len() {
            0 => String::new(),
            1 => ", and so in 1 more place".to_owned(),
            more => format!(", and so in {more} more places"),
        };
        let problem = Problem::warning(format!("{misfit}{also}"), Spot::Path(place));
        let settle = misfit.remedy.clone().map(|(subject, verdict)| Settling::Field(subject, verdict));
        let line = settle.map(|settle| settling_line(&settle, home));
        let problem = line.into_iter().fold(problem, |problem, line| problem.with_help(format!("`{line}`")));
        report::problem(&problem, &SourceNames::default());
    }
    let more = groups.len().saturating_sub(FEW_MISFITS);
    if more > 0 {
        report::note(&format!("and {more} more places where the samples are not what the model says"));
    }
}

/// Names what samples have and a document does not.
pub(crate) fn show_novelties(novelties: &[Found<'_, Novelty>]) {
    let mut groups: IndexMap<_, (usize, &Found<'_, Novelty>)> = IndexMap::new();
    for one in novelties {
        let Novelty { path: _, subject, value } = &one.1;
        groups.entry((subject, value.as_deref())).or_insert((0, one)).0 += 1;
    }
    if groups.is_empty() {
        return;
    }
    report::note("the samples have what the model does not:");
    for ((subject, value), (count, (sample, first))) in groups.iter().take(FEW_NOVELTIES) {
        let place = place_of(sample, &first.path);
        let value = value.map(|value| format!(" = {value:?}")).unwrap_or_default();
        let times = if *count == 1 { "once".to_owned() } else { format!("{count} times") };
        report::note(&format!("  {subject}{value}: {times}, first {place}"));
    }
    let more = groups.len().saturating_sub(FEW_NOVELTIES);
    if more > 0 {
        report::note(&format!("  and {more} more"));
    }
}

/// Where samples are not what the model says, and what they have beyond it.
pub(crate) fn compared<'s>(
    modelled: &Inferred,
    samples: &'s [LocatedSample],
) -> (Vec<Found<'s, Misfit>>, Vec<Found<'s, Novelty>>) {
    let (mut all_misfits, mut all_novelties) = (Vec::new(), Vec::new());
    for sample in samples {
        let Ok(value) = serde_json::from_str(sample.text()) else { continue };
        let (misfits, novelties) = compare(&modelled.settled.model, &value);
        all_misfits.extend(misfits.into_iter().map(|misfit| (sample, misfit)));
        all_novelties.extend(novelties.into_iter().map(|novelty| (sample, novelty)));
    }
    (all_misfits, all_novelties)
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
pub(crate) fn settling_line(settling: &Settling, home: Home<'_>) -> String {
    match (settling, home) {
        (Settling::TrustNothing, Home::Arguments) => "--trust nothing".to_owned(),
        (Settling::TrustNothing, Home::Jar(_)) => {
            "trust = \"nothing\" under [policies] in jar.toml".to_owned()
        }
        (Settling::Field(subject, verdict), Home::Arguments) => decide_argument(subject, &word_of(verdict)),
        (Settling::SameAs(subject, other), Home::Arguments) => decide_argument(subject, other),
        (Settling::Structure(subject, structure), Home::Arguments) => {
            decide_argument(subject, &word_of(&FieldVerdict::Structure(structure.clone())))
        }
        (Settling::Structure(subject, structure), Home::Jar(model)) => {
            let word = word_of(&FieldVerdict::Structure(structure.clone()));
            decide_command(subject, &format!("--type {}", shell_word(&word)), model)
        }
        (Settling::Field(subject, verdict), Home::Jar(model)) => {
            let option = match verdict {
                FieldVerdict::Required
                | FieldVerdict::Optional
                | FieldVerdict::Nullable
                | FieldVerdict::NeverNull => format!("--{}", word_of(verdict)),
                FieldVerdict::Structure(_)
                | FieldVerdict::Is(_)
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
pub(crate) fn shell_word(text: &str) -> String {
    let is_plain = |c: char| c.is_ascii_alphanumeric() || matches!(c, '.' | '_' | '-' | '=');
    if text.chars().all(is_plain) { text.to_owned() } else { format!("'{}'", text.replace('\'', r"'\''")) }
}

/// The open questions of a model. A document leaves none: it says what is so, and what samples contradict is told
/// elsewhere.
pub(crate) fn questions_of(modelled: &Inferred, gathered: &Gathered) -> Vec<Question> {
    if gathered.document.is_some() {
        return Vec::new();
    }
    open_questions(&modelled.drafted, &modelled.settled, gathered.samples)
}

/// Shows the open questions on standard error, the worst first.
pub(crate) fn show_questions(modelled: &Inferred, gathered: &Gathered, shown: Questions, home: Home<'_>) {
    let questions = questions_of(modelled, gathered);
    let most = match shown {
        Questions::None => return,
        Questions::Worst => FEW_QUESTIONS,
        Questions::All => usize::MAX,
    };
    let of = match home {
        Home::Jar(Some(model)) => format!("{model}: "),
        Home::Jar(None) | Home::Arguments => String::new(),
    };
    report::questions(&of, &questions, most, &|settling| settling_line(settling, home));
}
