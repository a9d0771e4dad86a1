//! The addresses that are asked: those that were typed, with each value that an earlier response shows.

use std::collections::BTreeMap;

use jar_sprout_fetch::{AddressTemplate, NoVariable, values_at};
use serde_json::Value;

use crate::failure::{Failure, Outcome, reason};
use crate::input;
use crate::recipe::Recipe;
use crate::records::last_records;
use crate::report;
use crate::sources::files_of;

/// The most addresses that are asked where nothing is said.
const MOST: u64 = 100;

/// The sources of a jar's models, by their names.
pub(crate) type SourcesOfModels<'j> = BTreeMap<&'j str, &'j [String]>;

/// The addresses, and no more of them than was said.
pub(crate) fn addresses(recipe: &Recipe, models: &SourcesOfModels<'_>) -> Outcome<Vec<String>> {
    let each: BTreeMap<String, Vec<String>> =
        recipe.each.iter().map(|text| values(text, models)).collect::<Result<_, _>>()?;
    let most = usize::try_from(recipe.most.unwrap_or(MOST)).unwrap_or(usize::MAX);
    let mut all = Vec::new();
    let mut count = 0_usize;
    for typed in &recipe.urls {
        let template = AddressTemplate::parse(typed).map_err(|NoVariable(name)| {
            Failure::argument(format!("`{name}` is no variable"), typed.clone())
                .with_help("there are `{name}` and `{?query*}`; a brace of the address itself is `%7B`")
        })?;
        let mut rows: Vec<BTreeMap<&str, &str>> = vec![BTreeMap::new()];
        for variable in template.variables() {
            let Some(values) = each.get(variable) else {
                let problem = Failure::argument(format!("nothing fills `{{{variable}}}`"), typed.clone());
                let help = format!("such as `--each '{variable}=samples/hives.json#$.hives[*].id'`");
                return Err(problem.with_help(help).into());
            };
            count = rows.len().saturating_mul(values.len());
            // No more than are asked are ever there.
            rows = rows
                .iter()
                .flat_map(|row| {
                    values.iter().map(|value| {
                        let mut row = row.clone();
                        row.insert(variable, value);
                        row
                    })
                })
                .take(most)
                .collect();
        }
        let value = |row: &BTreeMap<&str, &str>, name: &str| row.get(name).map(|value| (*value).to_owned());
        all.extend(rows.iter().map(|row| template.expanded(&|name| value(row, name))));
    }
    if count > most || all.len() > most {
        report::note(&format!("{most} addresses are asked; `--most` bounds them"));
    }
    all.truncate(most);
    Ok(all)
}

/// A variable with its values: `id=hives.json#$.hives[*].id`
fn values(text: &str, models: &SourcesOfModels<'_>) -> Outcome<(String, Vec<String>)> {
    let option = || format!("--each {text}");
    let parts = text.split_once('=').and_then(|(name, from)| Some((name, from.rsplit_once('#')?)));
    let Some((name, (from, path))) = parts else {
        let problem = Failure::argument("values come from samples: `NAME=FROM#JSONPATH`", option());
        return Err(problem.with_help("such as `--each 'id=samples/hives.json#$.hives[*].id'`").into());
    };
    let path = jar_sprout_shape::Path::parse(path)
        .map_err(|error| Failure::argument(error.to_string(), option()))?;
    let files = match models.get(from) {
        Some(sources) => sources.iter().map(|source| files_of(source)).collect::<Outcome<Vec<_>>>()?.concat(),
        None => files_of(from)?,
    };
    let mut found: Vec<String> = Vec::new();
    for file in last_records(files) {
        let sample = input::read_text(&file).map_err(|error| Failure::path(reason(&error), &file))?;
        for value in serde_json::Deserializer::from_str(&sample).into_iter::<Value>() {
            let value = value.map_err(|error| Failure::path(error.to_string(), &file))?;
            let more = values_at(&value, &path).into_iter().filter(|value| !found.contains(value));
            let more: Vec<String> = more.collect();
            found.extend(more);
        }
    }
    if found.is_empty() {
        let problem = Failure::argument("no text and no number stands there", option());
        return Err(problem.with_help(format!("`jar-sprout look '{from}'` shows what there is")).into());
    }
    Ok((name.to_owned(), found))
}
