//! `jar-sprout fetch`: records what an API answers, as samples.

use std::collections::BTreeSet;
use std::ffi::OsStr;
use std::path::Path;

use indexmap::IndexMap;
use jar_sprout_fetch::{Copied, copied, thing};
use jar_sprout_model::Problem;
use jar_sprout_settle::{root_name, singular};

use crate::args::FetchArgs;
use crate::exit::Exit;
use crate::failure::{Failure, Outcome};
use crate::fetch::{Recorded, SourcesOfModels, placeholders, record, unsaid};
use crate::jar::{
    FILE, Jar, JarModel, NewModel, add_sources, enter_jar, go_to_jar_there_is, model_name, new_jar,
    parse_jar, read_jar, read_text, samples_of, set_recipe, source_of, write_jar,
};
use crate::lock::lock_jar;
use crate::recipe::Recipe;
use crate::report;
use crate::request::said_by_jar;
use crate::wording::counted;

/// The most records that are named.
const MOST_NAMED: usize = 5;

pub(crate) fn fetch(args: &FetchArgs) -> Outcome<Exit> {
    let recipe = typed(args)?;
    match &args.dir {
        _ if recipe.urls.is_empty() => ask_again(args, &recipe),
        Some(dir) => {
            warn_of_literals(&recipe, false);
            let recorded = record(&recipe, dir, &SourcesOfModels::new())?;
            tell_records(&recorded);
            let all = recorded.new.iter().chain(&recorded.same);
            let shown: Vec<String> = all.map(|path| path.display().to_string()).collect();
            report::note(&format!("`jar-sprout look {}` shows what is in it", shown.join(" ")));
            Ok(Exit::Well)
        }
        None => ask_for_jar(args, &recipe),
    }
}

/// What was typed, with what a command line asks for beside it; what was typed itself holds.
fn typed(args: &FetchArgs) -> Result<Recipe, Problem> {
    let typed = Recipe { urls: args.urls.clone(), ..args.recipe.clone() };
    let Some(line) = &args.curl else { return Ok(typed) };
    let copied = copied(line).map_err(|why| {
        let problem = Failure::argument(why.to_string(), "--curl");
        problem.with_help("such as `--curl \"$(cat command.txt)\"`; data goes into `--body`")
    })?;
    let Copied { urls, method, headers, query, body, unheard } = copied;
    if !unheard.is_empty() {
        report::note(&format!(
            "not heard: {}; certificates and addresses are as they are",
            unheard.join(", ")
        ));
    }
    Ok(typed.above(Recipe { urls, method, headers, query, body, ..Recipe::default() }))
}

/// Asks for samples of models of the nearest jar, or of a new one here, which remembers how.
fn ask_for_jar(args: &FetchArgs, typed: &Recipe) -> Outcome<Exit> {
    let is_new = !go_to_jar_there_is()?;
    let jar = if is_new { Jar::default() } else { read_jar(Path::new(""))? };
    let asked = by_model(args, typed, &jar)?;
    warn_of_literals(typed, true);
    for (model, urls) in asked {
        let recipe = Recipe { urls, ..typed.clone() };
        ask(&jar, &model, &recipe, Some((&unsaid(&recipe).0, args.at.as_deref())))?;
    }
    report::note("`jar-sprout look` shows what is in it; `jar-sprout fetch` asks again");
    Ok(Exit::Well)
}

/// The addresses that were typed, each with the model that it is for.
fn by_model(args: &FetchArgs, typed: &Recipe, jar: &Jar) -> Result<IndexMap<String, Vec<String>>, Problem> {
    let mut asked: IndexMap<String, Vec<String>> = IndexMap::new();
    for url in &typed.urls {
        let name = args.model.clone().unwrap_or_else(|| named_after(url));
        asked.entry(name).or_default().push(url.clone());
    }
    let mut all = IndexMap::new();
    for (name, urls) in asked {
        let written = unsaid(&Recipe { urls: urls.clone(), ..Recipe::default() }).0.urls;
        let is_asked_so =
            |model: &&JarModel| model.recipe.as_ref().is_some_and(|known| known.urls == written);
        let known = jar.models.iter().find(|model| model.name == name);
        let name = match (known, jar.models.iter().find(is_asked_so)) {
            (_, Some(same)) if args.model.is_none() => same.name.clone(),
            (Some(_), _) if args.model.is_none() => {
                let problem = Failure::argument(format!("the jar has a model `{name}` already"), FILE);
                let help = format!("`--model {name}` records for it, `--model NAME` makes another one");
                return Err(problem.with_help(help));
            }
            _ => name,
        };
        if let Some(at) = args.at.as_ref().filter(|_| jar.models.iter().any(|model| model.name == name)) {
            let help = format!("`at = \"{at}\"` under [models.{name}]");
            return Err(said_by_jar(format!("--at {at}"), &help));
        }
        all.insert(name, urls);
    }
    Ok(all)
}

/// The model that answers of an address are samples of: `hives` of `/hives`, `hive` of `/hives/{id}`.
fn named_after(url: &str) -> String {
    let (words, is_one) = thing(url);
    let words = root_name([words.as_str()], None, false);
    model_name(&if is_one { singular(&words) } else { words })
}

/// Asks again what the jar remembers. What is typed beside it holds for this time.
fn ask_again(args: &FetchArgs, typed: &Recipe) -> Outcome<Exit> {
    if let Some((option, help)) = needs_address(args) {
        return Err(Failure::argument(format!("{option} needs an address"), "fetch").with_help(help).into());
    }
    let jar = enter_jar("jar-sprout fetch")?;
    let meant = jar.named(&args.only)?.into_iter();
    let asked: Vec<(&JarModel, &Recipe)> =
        meant.filter_map(|model| Some((model, model.recipe.as_ref()?))).collect();
    if asked.is_empty() {
        let problem = Failure::argument("the jar remembers nothing that was asked", FILE);
        let help = "`jar-sprout fetch https://api.honey.example/hives` asks, and remembers it";
        return Err(problem.with_help(help).into());
    }
    let mut exit = Exit::Well;
    for (model, recipe) in asked {
        tell_asked(model, recipe);
        let recipe = typed.clone().above(recipe.clone());
        // One that fails does not keep the others from being asked.
        if let Err(failure) = ask(&jar, &model.name, &recipe, None) {
            exit = report::failure(&failure);
        }
    }
    if exit == Exit::Well {
        report::note("`jar-sprout check` tells whether they fit the models");
    }
    Ok(exit)
}

/// What was typed that says nothing without an address.
fn needs_address(args: &FetchArgs) -> Option<(String, &'static str)> {
    let FetchArgs { urls: _, curl: _, model, at, only: _, dir, recipe: _ } = args;
    let model =
        model.as_ref().map(|model| (format!("`--model {model}`"), "`--only` asks again for one model"));
    let at = at.as_ref().map(|at| (format!("`--at {at}`"), "jar.toml says `at` under its model"));
    let dir = dir.as_ref().map(|dir| {
        (
            format!("`--dir {}`", dir.display()),
            "such as `https://api.honey.example/hives`; a jar has its own folder",
        )
    });
    model.or(at).or(dir)
}

/// Says who is asked, and what of the environment they are told: a jar may be another's work.
fn tell_asked(model: &JarModel, recipe: &Recipe) {
    let hosts: BTreeSet<&str> =
        recipe.urls.iter().filter_map(|url| url.split("://").nth(1)?.split(['/', '?']).next()).collect();
    let hosts = hosts.into_iter().collect::<Vec<_>>().join(", ");
    let names: Vec<String> = placeholders(recipe).iter().map(|name| format!("`{name}`")).collect();
    let told = if names.is_empty() { String::new() } else { format!(", which is told {}", names.join(", ")) };
    report::note(&format!("{}: asking {hosts}{told}", model.name));
}

/// What the jar is to remember of how samples were asked for: the recipe as it may be written down, and the part of each
/// sample that a new model takes.
type Remembered<'r> = (&'r Recipe, Option<&'r str>);

/// Asks for samples of a model, and writes down in the jar what they are now.
fn ask(jar: &Jar, model: &str, recipe: &Recipe, remembered: Option<Remembered<'_>>) -> Outcome<()> {
    let sources: SourcesOfModels<'_> =
        jar.models.iter().map(|model| (model.name.as_str(), &model.request.selection.sources[..])).collect();
    let recorded = record(recipe, &samples_of(model), &sources)?;
    let told = remember(model, remembered, &recorded)?;
    tell_records(&recorded);
    told.iter().for_each(|told| report::note(told));
    Ok(())
}

/// Writes down in the jar what a model's samples are now; what was new about it.
fn remember(model: &str, remembered: Option<Remembered<'_>>, recorded: &Recorded) -> Outcome<Option<String>> {
    let _lock = lock_jar()?;
    let is_new = !Path::new(FILE).exists();
    // Somebody may have written in it since.
    let text = if is_new { new_jar() } else { read_text(Path::new(""))? };
    let jar = parse_jar(&text)?;
    let records = recorded.new.iter().chain(&recorded.same);
    let endings: BTreeSet<&OsStr> = records.filter_map(|path| path.extension()).collect();
    let sources: Vec<String> =
        endings.into_iter().map(|ending| source_of(model, &ending.to_string_lossy())).collect();
    let is_known = jar.models.iter().any(|known| known.name == model);
    let mut new = if is_known {
        add_sources(&text, model, &sources)
    } else {
        let at = remembered.and_then(|(_, at)| at);
        jar.with_model(&text, &NewModel { name: model, sources: &sources, at, root: None, is_lenient: false })
    };
    if let Some((recipe, _)) = remembered {
        new = set_recipe(&new, model, recipe);
    }
    // What would not be read back is not written.
    parse_jar(&new)?;
    if new != text {
        write_jar(&new)?;
    }
    Ok(match (is_new, is_known) {
        (true, _) => Some(format!("made {FILE}, with model `{model}`")),
        (false, false) => Some(format!("added to {FILE}: model `{model}`")),
        (false, true) => None,
    })
}

/// Names the first few records, and counts what was not written again.
fn tell_records(recorded: &Recorded) {
    let Recorded { new, same } = recorded;
    new.iter().take(MOST_NAMED).for_each(|path| report::note(&format!("recorded {}", path.display())));
    let more = new.len().saturating_sub(MOST_NAMED);
    if more > 0 {
        report::note(&format!("and {}", counted(more, "more record")));
    }
    match &same[..] {
        [] => {}
        [one] => report::note(&format!("the same as {}", one.display())),
        several => report::note(&format!("{} are the same as before", counted(several.len(), "answer"))),
    }
}

/// Says of a secret that was typed as it is that it should not be.
fn warn_of_literals(recipe: &Recipe, is_remembered: bool) {
    for name in unsaid(recipe).1.keys() {
        let remembered = if is_remembered {
            format!("; {FILE} has `${{{name}}}` in its place: set it before `jar-sprout fetch` asks again")
        } else {
            format!("; as `${{{name}}}` it stays out of the shell's history, too")
        };
        report::note(&format!("what looks like a secret is not written down{remembered}"));
    }
}
