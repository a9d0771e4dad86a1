//! `jar-sprout drift`: what changed between two sides, and what of that breaks.

use std::path::{Path, PathBuf};

use jar_sprout_drift::Verdict;
use jar_sprout_model::Problem;
use serde_json::{Value, json};

use crate::args::{DriftArgs, DriftFormat, FailOn};
use crate::documents::is_document;
use crate::drift::{Half, Pair, Reader, Shown, json, markdown, shown, text, within};
use crate::exit::Exit;
use crate::failure::{Failure, Outcome};
use crate::jar::{
    FILE, Jar, JarModel, Models, Opened, enter_jar, from_anywhere, from_jar, open_models, read_jar,
};
use crate::modelling::{Home, decided_model, model};
use crate::request::{Request, Selection};
use crate::revision::Revision;
use crate::settings::named_languages;
use crate::sources::{gather, split_part};
use crate::wording::quoted_with;
use crate::{report, screen};

/// What is held against what.
#[derive(Default)]
struct Compared {
    /// `hives.json → hives-2.json`
    title: String,
    pairs: Vec<Pair>,
    /// Whether decisions are kept in a jar.
    is_jar: bool,
    /// Models of one side alone.
    alone: Vec<String>,
    /// The languages that the jar grows.
    readers: Vec<Reader>,
}

pub(crate) fn drift(args: &DriftArgs) -> Outcome<Exit> {
    let named = named_languages(&args.into, None, &args.settings)?;
    let named: Vec<Reader> =
        named.iter().map(|(language, settings)| Reader::of(language.title(), *language, settings)).collect();
    let compared = match &args.sides[..] {
        [old, new] => two_sides(args, old, new)?,
        [new] => jar_against(args, new)?,
        _ => since(args)?,
    };
    let Compared { title, pairs, is_jar, alone, readers } = compared;
    let readers = if args.into.is_empty() { readers } else { named };
    let mut all: Vec<(Option<&str>, Vec<Shown>)> = Vec::new();
    for pair in &pairs {
        let model = pair.model.as_deref();
        let home = if is_jar { Home::Jar(model.filter(|_| pairs.len() > 1)) } else { Home::Arguments };
        let findings = pair.findings().into_iter().map(|finding| shown(&finding, pair, &readers, home));
        let is_shown = |one: &Shown| !args.no_harmless || one.verdict != Verdict::Harmless;
        all.push((model, findings.filter(is_shown).collect()));
    }
    show(args.format, &title, &all)?;
    alone.iter().for_each(|note| report::note(note));
    let worst = all.iter().flat_map(|(_, findings)| findings).map(|one| one.verdict).min();
    let least = match args.fail_on {
        FailOn::Breaks => Some(Verdict::BreaksSending),
        FailOn::Loses => Some(Verdict::Loses),
        FailOn::Anything => Some(Verdict::Harmless),
        FailOn::Nothing => None,
    };
    let is_failure = worst.zip(least).is_some_and(|(worst, least)| worst <= least);
    Ok(if is_failure { Exit::Findings } else { Exit::Well })
}

fn show(format: DriftFormat, title: &str, all: &[(Option<&str>, Vec<Shown>)]) -> Outcome<()> {
    let title = |model: Option<&str>| match model.filter(|_| all.len() > 1) {
        Some(model) => format!("{model}: {title}"),
        None => title.to_owned(),
    };
    match format {
        DriftFormat::Text => {
            let mut out = anstream::stdout().lock();
            for (at, (model, findings)) in all.iter().enumerate() {
                if at > 0 {
                    std::io::Write::write_all(&mut out, b"\n")?;
                }
                text(&title(*model), findings, &mut out, screen::width())?;
            }
        }
        DriftFormat::Markdown => {
            let parts: Vec<String> =
                all.iter().map(|(model, findings)| markdown(&title(*model), findings)).collect();
            report::result(&parts.join("\n"))?;
        }
        DriftFormat::Json => {
            let findings: Vec<Value> = all
                .iter()
                .flat_map(|(model, findings)| findings.iter().map(|one| json(one, *model)))
                .collect();
            report::result(&format!("{:#}\n", json!({"findings": findings})))?;
        }
    }
    Ok(())
}

/// Two sides that were named: two jars, or what one model each is made of.
fn two_sides(args: &DriftArgs, old: &str, new: &str) -> Outcome<Compared> {
    let title = format!("{old} → {new}");
    match (jar_folder(old), jar_folder(new)) {
        (Some(old), Some(new)) => {
            let (old, new) = (opened_at(&old, &args.only)?, opened_at(&new, &args.only)?);
            let (pairs, alone) = paired(old, new)?;
            Ok(Compared { title, pairs, alone, ..Compared::default() })
        }
        (None, None) => {
            let pair = Pair::of(None, half(args, old)?, half(args, new)?)?;
            Ok(Compared { title, pairs: vec![pair], ..Compared::default() })
        }
        (Some(folder), None) => {
            let (known, old) = the_one(opened_at(&folder, &args.only)?, old)?;
            let new = judged_as(&known, new.to_owned(), args.at.as_ref())?;
            let pair = Pair::of(Some(known.name), old, new)?;
            Ok(Compared { title, pairs: vec![pair], ..Compared::default() })
        }
        (None, Some(folder)) => {
            let (known, new) = the_one(opened_at(&folder, &args.only)?, new)?;
            let old = judged_as(&known, old.to_owned(), args.at.as_ref())?;
            let pair = Pair::of(Some(known.name), old, new)?;
            Ok(Compared { title, pairs: vec![pair], ..Compared::default() })
        }
    }
}

/// A model of a jar, and what the jar says of it.
type OfJar = (JarModel, Half);

/// The folder of a jar, if that is what was named.
fn jar_folder(typed: &str) -> Option<PathBuf> {
    let path = Path::new(typed);
    if path.file_name().is_some_and(|name| name == FILE) && path.is_file() {
        return Some(
            path.parent().filter(|folder| *folder != Path::new("")).unwrap_or(Path::new(".")).to_owned(),
        );
    }
    path.join(FILE).is_file().then(|| path.to_owned())
}

/// One side that is no jar.
fn half(args: &DriftArgs, typed: &str) -> Outcome<Half> {
    let sources = vec![typed.to_owned()];
    // A path leads into samples; a document beside them has none.
    let at = args.at.clone().filter(|_| !is_document(Path::new(split_part(typed).0)));
    let selection = Selection { sources, at, ..Selection::default() };
    let gathered = gather(&selection)?;
    gathered.show_warnings();
    let request = Request { selection, ..Request::default() };
    let modelled = model(&gathered, &request)?;
    Half::new(gathered, modelled, request.selection)
}

/// The models of a jar somewhere, as they are there.
fn opened_at(folder: &Path, only: &[String]) -> Outcome<Vec<OfJar>> {
    within(folder, || read_jar(Path::new("")).and_then(|jar| halves(&jar, only)))
}

/// The models of a jar, or those of these names; one that cannot be made is told.
fn halves(jar: &Jar, only: &[String]) -> Outcome<Vec<OfJar>> {
    let Models { opened, failures } = open_models(jar, only)?;
    for (model, failure) in &failures {
        report::note(&format!("{}:", model.name));
        report::failure(failure);
    }
    let half = |one: Opened<'_>| {
        let Opened { model, gathered, modelled, .. } = one;
        Ok((model.clone(), Half::new(gathered, modelled, model.request.selection.clone())?))
    };
    opened.into_iter().map(half).collect()
}

/// Models of one name, and what is said of the others.
fn paired(old: Vec<OfJar>, mut new: Vec<OfJar>) -> Outcome<(Vec<Pair>, Vec<String>)> {
    let (mut pairs, mut alone) = (Vec::new(), Vec::new());
    for (JarModel { name, .. }, old) in old {
        match new.iter().position(|(other, _)| other.name == name) {
            Some(at) => pairs.push(Pair::of(Some(name), old, new.remove(at).1)?),
            None => alone.push(format!("model `{name}` is gone")),
        }
    }
    alone.extend(new.into_iter().map(|(model, _)| format!("model `{}` is new", model.name)));
    Ok((pairs, alone))
}

/// The only model of a jar, or the one that was named.
fn the_one(mut all: Vec<OfJar>, typed: &str) -> Result<OfJar, Problem> {
    match all.len() {
        1 => Ok(all.remove(0)),
        0 => Err(Failure::argument("the jar has no model", typed)),
        _ => {
            let names: Vec<&str> = all.iter().map(|(model, _)| model.name.as_str()).collect();
            let problem = Failure::argument("which model of the jar?", typed);
            Err(problem.with_help(format!("`--only` one of {}", quoted_with("and", &names))))
        }
    }
}

/// A new side against the model of the jar that we are in, judged as that is.
fn jar_against(args: &DriftArgs, typed: &str) -> Outcome<Compared> {
    let whole = from_anywhere(typed);
    let jar = enter_jar("jar-sprout drift")?;
    let name = match &jar.named(&args.only)?[..] {
        [one] => one.name.clone(),
        several => {
            let names: Vec<&str> = several.iter().map(|model| model.name.as_str()).collect();
            let problem = Failure::argument("against which model of the jar?", typed);
            return Err(problem.with_help(format!("`--only` one of {}", quoted_with("and", &names))).into());
        }
    };
    let (known, old) = the_one(halves(&jar, std::slice::from_ref(&name))?, typed)?;
    let new = judged_as(&known, from_jar(&whole), args.at.as_ref())?;
    let pair = Pair::of(Some(name.clone()), old, new)?;
    let title = format!("{name} → {typed}");
    let readers = readers_of(&jar);
    Ok(Compared { title, pairs: vec![pair], is_jar: true, readers, ..Compared::default() })
}

/// The languages that a jar grows.
fn readers_of(jar: &Jar) -> Vec<Reader> {
    jar.languages.iter().map(|one| Reader::of(one.language.title(), one.language, &one.settings)).collect()
}

/// Another side as a model of a jar would be made of it.
fn judged_as(known: &JarModel, source: String, at: Option<&String>) -> Outcome<Half> {
    let at = at.or(known.request.selection.at.as_ref()).cloned();
    let selection = Selection { sources: vec![source], at, ..known.request.selection.clone() };
    let request = Request { selection, ..known.request.clone() };
    let gathered = gather(&request.selection)?;
    gathered.show_warnings();
    let decisions: Vec<_> = known.decisions.iter().map(|one| one.decision.clone()).collect();
    // What they do not find here is what has drifted.
    let (modelled, _) = decided_model(&gathered, &request, &decisions);
    Half::new(gathered, modelled, request.selection)
}

/// The jar that we are in against itself as it was.
fn since(args: &DriftArgs) -> Outcome<Compared> {
    let revision = args.since.as_deref().unwrap_or("HEAD");
    let jar = enter_jar("jar-sprout drift")?;
    let then = Revision::open(revision)?;
    let old = opened_at(&then.folder(), &args.only)?;
    let new = halves(&jar, &args.only)?;
    let (pairs, alone) = paired(old, new)?;
    let readers = readers_of(&jar);
    Ok(Compared { title: format!("{revision} → now"), pairs, is_jar: true, alone, readers })
}
