//! `jar-sprout stand-in`: a small API on this machine, which answers with samples.

use std::collections::BTreeSet;
use std::path::{Path, PathBuf};
use std::time::Duration;

use indexmap::IndexMap;
use jar_sprout_fetch::path_template;
use jar_sprout_grow::json_schema;
use jar_sprout_model::Words;
use jar_sprout_settle::RootName;
use jar_sprout_stand_in::{Api, Held, Resource};
use serde_json::Value;
use unicode_width::UnicodeWidthStr as _;

use crate::args::StandInArgs;
use crate::demo_data::{ENDPOINTS, Endpoint};
use crate::exit::Exit;
use crate::failure::{Failure, Outcome};
use crate::interrupt::Undisturbed;
use crate::jar::{JarModel, Opened, enter_jar, go_to_jar_there_is, open_models};
use crate::records::last_records;
use crate::report;
use crate::request::Selection;
use crate::scrubbing::model_of;
use crate::sources::{LocatedSample, located_samples};
use crate::stand_in::{listen, serve};

/// How many items a page of the demo has: so few that there are several pages.
const PAGE_OF_DEMO: usize = 4;

pub(crate) fn stand_in(args: &StandInArgs) -> Outcome<Exit> {
    let delay = Duration::try_from_secs_f64(args.delay)
        .map_err(|error| Failure::argument(error.to_string(), format!("--delay {}", args.delay)))?;
    let is_jar = go_to_jar_there_is()?;
    if let Some(model) = args.only.first().filter(|_| !is_jar) {
        let problem = Failure::argument("there is no jar.toml here or above", format!("--only {model}"));
        return Err(problem.with_help("without a jar, the demo's samples answer").into());
    }
    // Who asks before all is ready waits.
    let listener = listen(args.port)?;
    let address = listener.local_addr()?;
    let (title, resources) = if is_jar { of_jar(args)? } else { of_demo() };
    let page_size = args.page_size.and_then(|size| size.try_into().ok());
    let api = Api {
        title,
        resources,
        key: args.key.clone(),
        is_flaky: args.flaky,
        page_size: page_size.or((!is_jar).then_some(PAGE_OF_DEMO)),
    };
    // From here on Ctrl-C is heard, also by a shell's child in the background.
    drop(Undisturbed::now());
    report::result(&format!("http://{address}\n"))?;
    tell(&api);
    serve(api, &listener, delay);
    Ok(Exit::Well)
}

/// Says what there is.
fn tell(api: &Api) {
    let document = ("GET /openapi.json".to_owned(), "what there is".to_owned());
    let lines = api.resources.iter().map(|resource| (resource.request(), resource.holds()));
    let lines: Vec<(String, String)> = lines.chain([document]).collect();
    let width = lines.iter().map(|(request, _)| request.width()).max().unwrap_or_default();
    report::note(&format!("{}; Ctrl-C ends it", api.title));
    for (request, holds) in lines {
        let gap = " ".repeat(width - request.width());
        report::note(&format!("  {request}{gap}  {holds}"));
    }
    report::note("\n");
}

/// The API of the demo.
fn of_demo() -> (String, Vec<Resource>) {
    let resource = |endpoint: &Endpoint| {
        let texts: Vec<&str> = endpoint.samples.iter().map(|sample| sample.text).collect();
        let held = match &texts[..] {
            [text] if text.trim().lines().all(|line| line.starts_with('{') && line.ends_with('}')) => {
                Held::Lines(values(text))
            }
            texts => Held::Samples(texts.iter().flat_map(|text| values(text)).collect()),
        };
        let name = RootName { words: Words::split(endpoint.name), is_given: false };
        Resource::new(
            endpoint.name,
            "GET",
            endpoint.path,
            held,
            model_of(texts.into_iter(), &name).as_ref().map(json_schema),
        )
    };
    ("the Fennimarsh Honey Co-op".to_owned(), ENDPOINTS.iter().map(resource).collect())
}

/// The values of a text that was read before.
fn values(text: &str) -> Vec<Value> {
    serde_json::Deserializer::from_str(text).into_iter().filter_map(Result::ok).collect()
}

/// What the jar's models are of.
fn of_jar(args: &StandInArgs) -> Outcome<(String, Vec<Resource>)> {
    let jar = enter_jar("jar-sprout stand-in")?;
    let models = open_models(&jar, &args.only)?;
    models.tell_troubles(&jar);
    let mut resources: Vec<Resource> = Vec::new();
    let mut taken: BTreeSet<(String, String)> = BTreeSet::new();
    for opened in &models.opened {
        let selection = Selection { at: None, ..opened.model.request.selection.clone() };
        let samples = located_samples(&selection)?;
        let Some(held) = held(&samples) else {
            report::note(&format!("{}: no samples, and nothing to answer with", opened.model.name));
            continue;
        };
        let (method, path) = asked_for(opened.model, &mut taken);
        let schema = whole_schema(opened, &samples);
        resources.push(Resource::new(&opened.model.name, &method, &path, held, schema));
    }
    if resources.is_empty() {
        let problem = Failure::argument("the jar has no samples to answer with", "jar-sprout stand-in");
        return Err(problem.with_help("`jar-sprout fetch` and `jar-sprout init` get some").into());
    }
    let title = std::env::current_dir().ok();
    let title = title.as_deref().and_then(Path::file_name).map(|name| name.to_string_lossy().into_owned());
    Ok((title.unwrap_or_else(|| "the jar".to_owned()), resources))
}

/// What a model's samples answer with: the last record of each address, the newest last.
fn held(samples: &[LocatedSample]) -> Option<Held> {
    let mut files: IndexMap<PathBuf, Vec<Value>> = IndexMap::new();
    for sample in samples {
        let value = serde_json::from_str(sample.text()).ok()?;
        files.entry(PathBuf::from(&sample.file)).or_default().push(value);
    }
    let has_lines = files.values().any(|values| values.len() > 1);
    let last = last_records(files.keys().cloned().collect());
    let values: Vec<Value> = last.iter().filter_map(|file| files.swap_remove(file)).flatten().collect();
    match (values.is_empty(), has_lines) {
        (true, _) => None,
        (false, true) => Some(Held::Lines(values)),
        (false, false) => Some(Held::Samples(values)),
    }
}

/// How a model's samples are asked for, as its recipe says; by its name where that is none, or another's too.
fn asked_for(model: &JarModel, taken: &mut BTreeSet<(String, String)>) -> (String, String) {
    let by_name = || ("GET".to_owned(), format!("/{}", model.name));
    let by_recipe = model
        .recipe
        .as_ref()
        .and_then(|recipe| Some((recipe.method().to_ascii_uppercase(), path_template(recipe.urls.first()?))));
    let asked = by_recipe.filter(|asked| !taken.contains(asked)).unwrap_or_else(by_name);
    taken.insert(asked.clone());
    asked
}

/// The schema of whole samples: of the jar's own model, but where that is of a part of each.
fn whole_schema(opened: &Opened<'_>, samples: &[LocatedSample]) -> Option<Value> {
    if opened.model.request.selection.at.is_none() {
        return Some(json_schema(&opened.modelled.settled.model));
    }
    let name = RootName { words: Words::split(&opened.model.name), is_given: false };
    model_of(samples.iter().map(LocatedSample::text), &name).as_ref().map(json_schema)
}
