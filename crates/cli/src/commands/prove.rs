//! `jar-sprout prove`: models compiled, and every sample passed through them.

use std::fmt::Write as _;
use std::io::Write as _;

use jar_sprout_grow::{LANGUAGES, Language, Settings};
use jar_sprout_model::Problem;
use jar_sprout_prove::{Miss, Missing, Order, Proof, Report, Sample, ToolOutput, Tools};
use jar_sprout_settle::{Bodies, Settled, bodies};
use owo_colors::OwoColorize;
use serde_json::{Value, json};

use crate::args::{Format, ProveArgs};
use crate::exit::Exit;
use crate::failure::{Failure, Outcome};
use crate::jar::{Opened, enter_jar, open_models};
use crate::modelling::model;
use crate::progress::Progress;
use crate::report;
use crate::request::{Request, Selection, refuse_beside_jar, setting_of_jar};
use crate::screen::visible;
use crate::settings::named_languages;
use crate::sources::{gather, read_samples};

/// The most lines of a compiler, and the most differences, that are shown of one language.
const MOST_LINES: usize = 40;

pub(crate) fn prove(args: &ProveArgs) -> Outcome<Exit> {
    if args.source.sources.is_empty() {
        return prove_jar(args);
    }
    let named = named_languages(&args.into, None, &args.settings)?;
    let all = || LANGUAGES.iter().map(|language| (*language, Settings::default())).collect();
    let named = if named.is_empty() { all() } else { named };
    let one = |(language, settings)| Wanted { language, settings, is_shared: false };
    let wanted: Vec<Wanted> = named.into_iter().map(one).collect();
    let request = Request::of(&args.source, &args.model)?;
    refuse_standard_input(&request.selection)?;
    let gathered = gather(&request.selection)?;
    gathered.show_warnings();
    let modelled = model(&gathered, &request)?;
    let samples = read_samples(&request.selection)?;
    let proofs = [Proof { name: "the samples".to_owned(), model: modelled.settled.model, samples }];
    let is_proven = prove_all(args, &wanted, &proofs)?;
    Ok(if is_proven { Exit::Well } else { Exit::Findings })
}

/// Proves all models of the jar, in the languages it says; one that cannot be made does not hide the others.
fn prove_jar(args: &ProveArgs) -> Outcome<Exit> {
    refuse_beside_jar(&args.source, &args.model)?;
    if let Some(setting) = args.settings.first() {
        return Err(setting_of_jar(setting).into());
    }
    let jar = enter_jar("jar-sprout prove")?;
    let models = open_models(&jar, &args.only.only)?;
    models.tell_troubles(&jar);
    let is_made = models.failures.is_empty();
    let mut proofs = Vec::new();
    for Opened { model, gathered, modelled, .. } in models.opened {
        gathered.show_warnings();
        let samples = read_samples(&model.request.selection)?;
        proofs.extend(of_bodies(&model.name, &modelled.settled, &samples));
        proofs.push(Proof { name: model.name.clone(), model: modelled.settled.model, samples });
    }
    let named = args.into.iter().map(|key| jar.languages(Some(key)));
    let named = named.collect::<Result<Vec<_>, _>>()?.concat();
    let chosen = if named.is_empty() { jar.languages(None)? } else { named };
    let wanted: Vec<_> = chosen
        .iter()
        .map(|one| Wanted {
            language: one.language,
            settings: one.settings.clone(),
            is_shared: jar.shared_code(one).is_some(),
        })
        .collect();
    let is_proven = prove_all(args, &wanted, &proofs)?;
    Ok(if is_proven && is_made { Exit::Well } else { Exit::Findings })
}

/// What a client sends, proven by what it might send.
fn of_bodies(name: &str, settled: &Settled, samples: &[Sample]) -> Vec<Proof> {
    let values: Vec<Value> =
        samples.iter().filter_map(|sample| serde_json::from_str(&sample.text).ok()).collect();
    let proof = |Bodies { model, values }: Bodies| {
        let name = format!("{name}: {}", model.root.name.in_capitals());
        let sample = |(at, value): (usize, &Value)| Sample {
            name: format!("{name}:{}", at + 1),
            text: value.to_string(),
        };
        let samples = values.iter().enumerate().map(sample).collect();
        Proof { name, model, samples }
    };
    bodies(settled, &values).into_iter().map(proof).collect()
}

/// A language to prove.
struct Wanted {
    language: &'static dyn Language,
    settings: Settings,
    /// Whether its models share their helpers.
    is_shared: bool,
}

/// A row for each language. Answers whether all of it holds.
fn prove_all(args: &ProveArgs, wanted: &[Wanted], proofs: &[Proof]) -> Outcome<bool> {
    let tools = Tools::of_this_machine();
    let mut all = Vec::new();
    let mut is_proven = true;
    let mut is_any_proven = false;
    if args.format == Format::Text {
        let head = row("language", "toolchain", "compiled", "samples", "equal");
        writeln!(anstream::stdout(), "{}", head.trim_end().bold())?;
    }
    for Wanted { language, settings, is_shared } in wanted {
        let order = Order {
            language: *language,
            settings,
            with_judges: args.judges,
            is_shared: *is_shared,
            memory: None,
        };
        let progress = Progress::waiting(format!("proving {}", language.title()));
        let proven = jar_sprout_prove::prove(&order, proofs, &tools)?;
        drop(progress);
        is_proven &= proven.as_ref().is_ok_and(holds) || proven.is_err();
        is_any_proven |= proven.is_ok();
        match args.format {
            Format::Text => write!(anstream::stdout(), "{}", text(*language, &proven))?,
            Format::Json => all.push(as_json(*language, &proven)),
        }
    }
    if args.format == Format::Json {
        report::result(&format!("{:#}\n", Value::from(all)))?;
    }
    if !is_any_proven {
        report::note(
            "nothing was proven: install a toolchain with one of these lines, or name the folder of yours in JAR_SPROUT_TOOLCHAINS",
        );
    }
    Ok(is_proven && is_any_proven)
}

/// A proof reads its samples twice: for the model, and one by one.
fn refuse_standard_input(selection: &Selection) -> Result<(), Problem> {
    if selection.sources.iter().all(|source| source != "-") {
        return Ok(());
    }
    let message = "standard input can be read once, and a proof reads its samples twice";
    Err(Failure::argument(message, "-").with_help("save it to a file first"))
}

fn holds(report: &Report) -> bool {
    report.compiler.is_empty() && report.misses.is_empty() && report.judges.is_empty()
}

fn row(language: &str, toolchain: &str, compiled: &str, samples: &str, equal: &str) -> String {
    format!("{language:<12} {toolchain:<28} {compiled:<9} {samples:>7} {equal:>6}\n")
}

/// A row of the table, and below it what does not hold.
fn text(language: &dyn Language, proven: &Result<Report, Missing>) -> String {
    let title = language.title();
    let Report { toolchain, compiler, samples, misses, judges, proven: _ } = match proven {
        Err(Missing { what, install }) => {
            let not_proven = format!("not proven: {what} is not here");
            return format!("{title:<12} {}\n{:<12} {}\n", not_proven.yellow(), "", install.cyan());
        }
        Ok(report) => report,
    };
    let compiled = if compiler.is_empty() { "yes" } else { "no" };
    let equal = samples - misses.len();
    let row = row(title, toolchain, compiled, &samples.to_string(), &equal.to_string());
    let mut out =
        if compiler.is_empty() && equal == *samples { row } else { format!("{}\n", row.trim_end().red()) };
    for ToolOutput { tool, proofs: _, text } in compiler.iter().chain(judges) {
        let _ = writeln!(out, "  {tool} says:");
        for line in text.lines().take(MOST_LINES) {
            let _ = writeln!(out, "    {}", visible(line));
        }
    }
    for Miss { proof: _, sample, text } in misses.iter().take(MOST_LINES) {
        let _ = writeln!(out, "  {}: {}", visible(sample), visible(text));
    }
    if misses.len() > MOST_LINES {
        let _ = writeln!(out, "  and {} more", misses.len() - MOST_LINES);
    }
    out
}

fn as_json(language: &dyn Language, proven: &Result<Report, Missing>) -> Value {
    match proven {
        Err(Missing { what, install }) => {
            json!({"language": language.key(), "missing": what, "install": install})
        }
        Ok(Report { toolchain, compiler, samples, misses, judges, proven: _ }) => {
            let said = |said: &ToolOutput| json!({"tool": said.tool, "said": said.text});
            let miss = |miss: &Miss| json!({"sample": miss.sample, "difference": miss.text});
            json!({
                "language": language.key(),
                "toolchain": toolchain,
                "compiled": compiler.is_empty(),
                "samples": samples,
                "equal": samples - misses.len(),
                "differences": misses.iter().map(miss).collect::<Vec<_>>(),
                "compiler": compiler.iter().map(said).collect::<Vec<_>>(),
                "judges": judges.iter().map(said).collect::<Vec<_>>(),
            })
        }
    }
}
