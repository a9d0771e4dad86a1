//! From a gathered shape to a model: policies and decisions as they were typed.

use jar_sprout_model::{Problem, Words};
use jar_sprout_settle::{
    Decision, Drafted, Policies, RootName, Settled, Subject, Trust, Unmatched, VERDICTS, Verdict, decide,
    draft_shape, open_questions, settle,
};

use crate::args::{DateForm, IntegerWidth, ModelArgs, Questions, Switch, TrustLevel};
use crate::failure::Failure;
use crate::report;
use crate::sources::{Gathered, nearest};

/// What was made of all samples.
pub(crate) struct Modelled {
    pub(crate) drafted: Drafted,
    pub(crate) settled: Settled,
}

/// How many questions are shown unless all are asked for.
const FEW_QUESTIONS: usize = 5;

/// The model of all samples.
pub(crate) fn model(gathered: &Gathered, args: &ModelArgs) -> Result<Modelled, Problem> {
    let decisions = args.decisions.iter().map(|text| decision(text)).collect::<Result<Vec<_>, _>>()?;
    let policies = policies(args);
    let words = args.name.as_deref().map_or_else(|| gathered.root_name(), Words::split);
    let drafted = draft_shape(&gathered.shape, &words, &policies);
    let name = RootName { words, is_given: args.name.is_some() };
    let mut settled = settle(&drafted.draft, drafted.root, &name, &policies);
    decide(&mut settled, &drafted, &decisions)
        .map_err(|unmatched| not_found(&unmatched, format!("--decide {}=…", unmatched.asked)))?;
    Ok(Modelled { drafted, settled })
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
    let ModelArgs { trust, essential, enums, dates, maps, integers, prefix, .. } = args;
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
        prefix: prefix.as_deref().map(Words::split),
    }
}

/// Shows the open questions on standard error, the worst first.
pub(crate) fn show_questions(modelled: &Modelled, gathered: &Gathered, shown: Questions) {
    let questions = open_questions(&modelled.drafted, &modelled.settled, gathered.samples);
    let most = match shown {
        Questions::None => return,
        Questions::Worst => FEW_QUESTIONS,
        Questions::All => usize::MAX,
    };
    report::questions(&questions, most);
}
