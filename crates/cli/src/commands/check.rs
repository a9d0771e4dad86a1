//! `jar-sprout check`: do the samples fit the models, are the grown files current.

use std::env;
use std::io::Write as _;
use std::path::PathBuf;

use jar_sprout_model::Problem;
use owo_colors::OwoColorize;
use serde_json::{Value, json};

use crate::args::{CheckArgs, Format};
use crate::exit::Exit;
use crate::failure::{Failure, Outcome};
use crate::files::{Changes, Over};
use crate::grown::wanted_changes;
use crate::jar::{Jar, Models, Opened, enter_jar, from_anywhere, from_jar, open_models};
use crate::modelling::{compared, place_of, show_novelties};
use crate::report;
use crate::request::Selection;
use crate::screen::visible;
use crate::source_names::SourceNames;
use crate::sources::located_samples;
use crate::wording::{counted, quoted_with};

/// Something that is not as it should be.
struct Finding {
    /// The file, and the line where there is one.
    place: String,
    text: String,
}

pub(crate) fn check(args: &CheckArgs) -> Outcome<Exit> {
    let whole: Vec<PathBuf> = args.samples.iter().map(|typed| from_anywhere(typed)).collect();
    let jar = enter_jar("jar-sprout check")?;
    let models = open_models(&jar, &args.only)?;
    let mut findings = Vec::new();
    let mut samples = 0;
    for (model, failure) in &models.failures {
        report::failure(failure);
        findings.push(Finding { place: model.name.clone(), text: "the model cannot be made".to_owned() });
    }
    for problem in models.unmatched(&jar) {
        let place = report::place(&problem.spot, &SourceNames::default());
        let help = problem.help.map(|help| format!("; {help}")).unwrap_or_default();
        findings.push(Finding { place, text: problem.message + &help });
    }
    let before = findings.len();
    if args.samples.is_empty() {
        for opened in &models.opened {
            samples += fit(opened, &opened.model.request.selection, &mut findings)?;
        }
    } else if let Some(opened) = the_one(&jar, &models)? {
        let sources = whole.iter().map(|path| from_jar(path)).collect();
        let selection = Selection { sources, ..opened.model.request.selection.clone() };
        samples = fit(opened, &selection, &mut findings)?;
    }
    let has_misfits = findings.len() > before;
    // Other samples say nothing of the files.
    let files = if args.samples.is_empty() { Some(current(&jar, &models, &mut findings)?) } else { None };
    match args.format {
        Format::Text => write!(anstream::stdout(), "{}", text(&findings, samples, files))?,
        Format::Json => {
            let one = |finding: &Finding| json!({"place": finding.place, "finding": finding.text});
            let all: Vec<Value> = findings.iter().map(one).collect();
            report::result(&format!("{:#}\n", json!({"samples": samples, "files": files, "findings": all})))?;
        }
    }
    if has_misfits {
        point_to_drift(&args.samples);
    }
    Ok(if findings.is_empty() { Exit::Well } else { Exit::Findings })
}

/// Says what tells more, where that can: of a jar's own samples, its history.
fn point_to_drift(samples: &[String]) {
    let has_history =
        || env::current_dir().is_ok_and(|here| here.ancestors().any(|folder| folder.join(".git").exists()));
    let side = match samples {
        [one] => format!(" {one}"),
        [] if has_history() => String::new(),
        _ => return,
    };
    report::note(&format!("`jar-sprout drift{side}` tells what changed, and what of that breaks"));
}

/// The model that samples are held against: the one that was named, or the only one.
fn the_one<'m, 'j>(jar: &Jar, models: &'m Models<'j>) -> Result<Option<&'m Opened<'j>>, Problem> {
    match &models.opened[..] {
        [] => Ok(None),
        [one] => Ok(Some(one)),
        _ => {
            let names: Vec<&str> = jar.models.iter().map(|model| model.name.as_str()).collect();
            let problem = Failure::argument("samples of which model?", "jar-sprout check");
            Err(problem.with_help(format!("`--only` one of {}", quoted_with("and", &names))))
        }
    }
}

/// Whether every sample decodes. Answers how many there are.
fn fit(opened: &Opened<'_>, selection: &Selection, findings: &mut Vec<Finding>) -> Outcome<usize> {
    let samples = located_samples(selection)?;
    let (misfits, novelties) = compared(&opened.modelled, &samples);
    findings.extend(
        misfits.into_iter().map(|(sample, misfit)| Finding {
            place: place_of(sample, &misfit.path),
            text: misfit.to_string(),
        }),
    );
    // A model that was made of the very samples has all that they have.
    let is_own = selection.sources == opened.model.request.selection.sources;
    if opened.gathered.document.is_some() || !is_own {
        show_novelties(&novelties);
    }
    Ok(samples.len())
}

/// Whether the grown files are what the jar would grow now. Answers how many are.
fn current(jar: &Jar, models: &Models<'_>, findings: &mut Vec<Finding>) -> Outcome<usize> {
    // Code without a mark was taken over by whoever has it.
    let languages: Vec<_> = jar.languages.iter().filter(|language| language.is_marked).collect();
    let Changes { written, unchanged, adopted: _, removed, kept, foreign, of_others } =
        wanted_changes(jar, models, &languages, Over::Grown)?;
    let mut find = |path: &std::path::Path, text: &str| {
        findings.push(Finding { place: path.display().to_string(), text: text.to_owned() });
    };
    for (file, old) in &written {
        find(
            &file.path,
            if old.is_some() { "out of date: `jar-sprout grow`" } else { "missing: `jar-sprout grow`" },
        );
    }
    removed.iter().for_each(|(path, _)| find(path, "grown for a type that is gone: `jar-sprout grow`"));
    kept.iter().for_each(|path| find(path, "changed since it was grown"));
    of_others.iter().for_each(|path| find(path, "another jar grew it"));
    foreign.iter().for_each(|path| find(path, "stands where a grown file should be"));
    Ok(unchanged)
}

fn text(findings: &[Finding], samples: usize, files: Option<usize>) -> String {
    if findings.is_empty() {
        let files = files.map(|files| format!(", {} current", counted(files, "file"))).unwrap_or_default();
        return format!("all well: {} fit{files}\n", counted(samples, "sample"));
    }
    let line =
        |finding: &Finding| format!("{}: {}\n", visible(&finding.place).bold(), visible(&finding.text));
    let lines: String = findings.iter().map(line).collect();
    format!("{lines}{}\n", counted(findings.len(), "finding"))
}
