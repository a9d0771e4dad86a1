//! From a gathered shape to a model: policies and decisions as they were typed.

use jar_sprout_model::{Problem, Severity, Spot, Words};
use jar_sprout_settle::{
    Decision, Inferred, Misfit, Policies, RootName, Settling, Subject, Trust, Unmatched, VERDICTS, Verdict,
    decide, infer, infer_document, misfits, open_questions,
};

use crate::args::{
    DateForm, DefaultForm, IntegerWidth, ModelArgs, Questions, SourceArgs, Switch, TrustLevel,
};
use crate::failure::{Failure, Outcome};
use crate::report;
use crate::sources::{Gathered, LocatedSample, SourceNames, located_samples};
use crate::wording::nearest;

/// How many questions are shown unless all are asked for.
const FEW_QUESTIONS: usize = 5;

/// The model of all samples.
pub(crate) fn model(gathered: &Gathered, args: &ModelArgs) -> Result<Inferred, Problem> {
    let decisions = args.decisions.iter().map(|text| decision(text)).collect::<Result<Vec<_>, _>>()?;
    let (modelled, unmatched) = decided_model(gathered, args, &decisions);
    match unmatched.first() {
        Some(unmatched) => Err(not_found(unmatched, format!("--decide {}=…", unmatched.asked))),
        None => Ok(modelled),
    }
}

/// The same with decisions that were read, and those of them that match nothing.
pub(crate) fn decided_model(
    gathered: &Gathered,
    args: &ModelArgs,
    decisions: &[Decision],
) -> (Inferred, Vec<Unmatched>) {
    let policies = policies(args);
    if let Some(document) = &gathered.document {
        return from_document(document, args, &policies, decisions);
    }
    let words = args.name.as_deref().map_or_else(|| gathered.root_name(), Words::split);
    let name = RootName { words, is_given: args.name.is_some() };
    let mut inferred = infer(&gathered.shape, &name, &policies);
    let unmatched = decide(&mut inferred.settled, &inferred.drafted, decisions);
    (inferred, unmatched)
}

/// The model of a document, with what was decided on it.
fn from_document(
    document: &jar_sprout_document::Drafted,
    args: &ModelArgs,
    policies: &Policies,
    decisions: &[Decision],
) -> (Inferred, Vec<Unmatched>) {
    let mut roots = document.roots.clone();
    if let (Some(name), Some(first)) = (&args.name, roots.first_mut()) {
        first.name = Words::split(name);
    }
    let mut inferred = infer_document(document.draft.clone(), &roots, document.title.as_ref(), policies);
    let unmatched = decide(&mut inferred.settled, &inferred.drafted, decisions);
    (inferred, unmatched)
}

/// A decision that matches nothing any more.
pub(crate) fn unmatched_problem(unmatched: &Unmatched, place: String) -> Problem {
    let problem = not_found(unmatched, place);
    Problem {
        severity: Severity::Warning,
        message: format!("a decision matches nothing: {}", problem.message),
        ..problem
    }
}

/// A subject that the model does not have, with the nearest that it has.
pub(crate) fn not_found(unmatched: &Unmatched, argument: String) -> Problem {
    let Unmatched { asked, known } = unmatched;
    let problem = Failure::argument(format!("the model has no `{asked}`"), argument);
    let known: Vec<String> = known.iter().map(|name| name.trim_end_matches(".…").to_owned()).collect();
    match (nearest(asked, known.clone()), known.is_empty()) {
        (Some(near), _) => problem.with_help(format!("did you mean `{near}`?")),
        (None, false) => {
            let few: Vec<String> = known.iter().take(8).map(|name| format!("`{name}`")).collect();
            problem.with_help(format!("there are {}", few.join(", ")))
        }
        (None, true) => problem,
    }
}

/// `Hive.honey_kg=float`; the key may have a `=` of its own.
fn decision(text: &str) -> Result<Decision, Problem> {
    let argument = || format!("--decide {text}");
    let Some((subject, verdict)) = text.rsplit_once('=') else {
        return Err(Failure::argument("a decision is `TYPE.KEY=WHAT`", argument())
            .with_help("such as `--decide Hive.honey_kg=float`"));
    };
    let Some(verdict) = Verdict::parse(verdict) else {
        let words: Vec<String> = VERDICTS.iter().map(|(word, _)| format!("`{word}`")).collect();
        return Err(Failure::argument(format!("`{verdict}` is nothing that a field can be"), argument())
            .with_help(format!("there are {}, and `[text]` for a list", words.join(", "))));
    };
    Ok(Decision { subject: Subject::parse(subject), verdict })
}

fn policies(args: &ModelArgs) -> Policies {
    let ModelArgs { trust, essential, enums, dates, maps, integers, defaults, prefix, .. } = args;
    Policies {
        trust: match trust {
            TrustLevel::Seen => Trust::Seen,
            TrustLevel::Nothing => Trust::Nothing,
        },
        essential: essential.iter().cloned().collect(),
        enums: *enums == Switch::On,
        dates: *dates == DateForm::Typed,
        maps: *maps == Switch::On,
        wide_integers: *integers == IntegerWidth::Wide,
        defaults: *defaults == DefaultForm::Code,
        prefix: prefix.as_deref().map(Words::split),
    }
}

/// The most misfits that are shown unless all are asked for by `check`.
const FEW_MISFITS: usize = 20;

/// Where a document and samples are both given, shows what the samples contradict.
pub(crate) fn show_misfits(modelled: &Inferred, gathered: &Gathered, source: &SourceArgs) -> Outcome<()> {
    if gathered.document.is_none() || gathered.samples == 0 {
        return Ok(());
    }
    let misfits = misfits_of(modelled, &located_samples(source)?);
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
        (Settling::Decide(subject, what), Home::Arguments) => {
            format!("--decide {}", shell_word(&format!("{subject}={what}")))
        }
        (Settling::Decide(subject, what), Home::Jar(model)) => {
            let option = match what.as_str() {
                "required" | "optional" | "nullable" | "never-null" => format!("--{what}"),
                what if subject.key.is_none() => format!("--same-as {what}"),
                what => format!("--type {}", shell_word(what)),
            };
            let model = model.map(|model| format!(" --only {model}")).unwrap_or_default();
            format!("jar-sprout decide {} {option}{model}", shell_word(&subject.to_string()))
        }
    }
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
