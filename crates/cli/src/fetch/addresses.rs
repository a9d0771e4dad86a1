//! The addresses that are asked: those that were typed, with each value that an earlier response shows.

use std::collections::BTreeMap;
use std::path::Path;

use jar_sprout_fetch::{AddressTemplate, NoVariable, values_at};
use jar_sprout_model::Problem;
use serde_json::Value;

use crate::args::FetchArgs;
use crate::failure::{Failure, reason};
use crate::report;

/// The addresses, and no more of them than was said.
pub(crate) fn addresses(args: &FetchArgs) -> Result<Vec<String>, Problem> {
    let each: BTreeMap<String, Vec<String>> =
        args.each.iter().map(|text| values(text)).collect::<Result<_, _>>()?;
    let mut all = Vec::new();
    let mut count = 0_usize;
    for typed in &args.urls {
        let template = AddressTemplate::parse(typed).map_err(|NoVariable(name)| {
            Failure::argument(format!("`{name}` is no variable"), typed.clone())
                .with_help("there are `{name}` and `{?query*}`; a brace of the address itself is `%7B`")
        })?;
        let mut rows: Vec<BTreeMap<&str, &str>> = vec![BTreeMap::new()];
        for variable in template.variables() {
            let Some(values) = each.get(variable) else {
                let problem = Failure::argument(format!("nothing fills `{{{variable}}}`"), typed.clone());
                return Err(problem
                    .with_help(format!("such as `--each '{variable}=samples/hives.json#$.hives[*].id'`")));
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
                .take(args.most)
                .collect();
        }
        let value = |row: &BTreeMap<&str, &str>, name: &str| row.get(name).map(|value| (*value).to_owned());
        all.extend(rows.iter().map(|row| template.expanded(&|name| value(row, name))));
    }
    if count > args.most || all.len() > args.most {
        report::note(&format!("{} addresses are asked; `--most` bounds them", args.most));
    }
    all.truncate(args.most);
    Ok(all)
}

/// A variable with its values: `id=hives.json#$.hives[*].id`
fn values(text: &str) -> Result<(String, Vec<String>), Problem> {
    let option = || format!("--each {text}");
    let parts = text.split_once('=').and_then(|(name, from)| Some((name, from.rsplit_once('#')?)));
    let Some((name, (file, path))) = parts else {
        let problem = Failure::argument("values come from a sample: `NAME=FILE#JSONPATH`", option());
        return Err(problem.with_help("such as `--each 'id=samples/hives.json#$.hives[*].id'`"));
    };
    let path = jar_sprout_shape::Path::parse(path)
        .map_err(|error| Failure::argument(error.to_string(), option()))?;
    let file = Path::new(file);
    let sample = std::fs::read_to_string(file).map_err(|error| Failure::path(reason(&error), file))?;
    let mut found = Vec::new();
    for value in serde_json::Deserializer::from_str(&sample).into_iter::<Value>() {
        let value = value.map_err(|error| Failure::path(error.to_string(), file))?;
        found.extend(
            values_at(&value, &path).into_iter().filter(|value| !found.contains(value)).collect::<Vec<_>>(),
        );
    }
    if found.is_empty() {
        let problem = Failure::argument("no text and no number stands there", option());
        return Err(problem.with_help(format!("`jar-sprout look {}` shows what there is", file.display())));
    }
    Ok((name.to_owned(), found))
}
