//! What goes out: an address with headers and a body, in which secrets are filled in at the last moment.

use std::collections::{BTreeMap, BTreeSet, HashMap};
use std::path::Path;

use jar_sprout_fetch::{
    OpenPlaceholder, Secrets, Template, Unsaid, Unset, address, unsaid_address, unsaid_body, unsaid_value,
};
use jar_sprout_model::Problem;
use url::Url;

use crate::failure::{Failure, reason};
use crate::recipe::Recipe;

/// One request, ready to go out.
pub(crate) struct Order {
    pub(crate) method: String,
    pub(crate) url: Url,
    /// The address for which headers and body are meant.
    pub(crate) home: Url,
    pub(crate) headers: Vec<(String, String)>,
    pub(crate) body: Option<String>,
}

/// The request for an address; what fills its placeholders is secret from now on, and so is what looks like it.
/// `values` are for what the environment does not say.
pub(crate) fn order(
    recipe: &Recipe,
    typed: &str,
    values: &HashMap<String, String>,
    secrets: &mut Secrets,
) -> Result<Order, Problem> {
    let lookup = |name: &str| std::env::var(name).ok().or_else(|| values.get(name).cloned());
    let mut fill = |text: &str, option: &str| -> Result<String, Problem> {
        let template = Template::parse(text).map_err(|OpenPlaceholder { rest }| {
            Failure::argument(
                "a placeholder is `${NAME}`, of letters, digits and `_`",
                format!("{option} {rest}"),
            )
        })?;
        secrets.fill(&template, &lookup).map_err(|Unset { name }| {
            let message = format!("`{name}` is not set");
            Failure::argument(message, format!("{option} {text}"))
                .with_help(format!("export {name}=…, or name a file that says it with `--env-file`"))
        })
    };
    let mut named = Vec::new();
    for text in &recipe.query {
        let (name, value) = pair(text, '=', "--query", "a parameter is `NAME=VALUE`")?;
        named.push((name, fill(value, "--query")?));
    }
    let url = fill(typed, "fetch")?;
    let mut headers = Vec::new();
    for text in &recipe.headers {
        let (name, value) = pair(text, ':', "--header", "a header is `NAME: VALUE`")?;
        headers.push((name, fill(value.trim(), "--header")?));
    }
    let body = recipe.body.as_deref().map(|body| fill(body, "--body")).transpose()?;
    for (name, value) in unsaid(recipe).1 {
        secrets.add(&value, &format!("${{{name}}}"));
    }
    let url = address(&url, &named).map_err(|message| {
        Failure::argument(message, secrets.masked(&url))
            .with_help("such as `https://api.honey.example/hives`")
    })?;
    let says_kind = headers.iter().any(|(name, _)| name.eq_ignore_ascii_case("content-type"));
    if body.is_some() && !says_kind {
        headers.push(("Content-Type".to_owned(), "application/json".to_owned()));
    }
    Ok(Order { method: recipe.method(), home: url.clone(), url, headers, body })
}

/// The recipe as it may be written down, and what in it looks like a secret, by the placeholder that stands for it.
pub(crate) fn unsaid(recipe: &Recipe) -> (Recipe, BTreeMap<String, String>) {
    let mut all = BTreeMap::new();
    let mut keep = |unsaid: Unsaid| {
        all.extend(unsaid.secrets);
        unsaid.text
    };
    let mut written = recipe.clone();
    for url in &mut written.urls {
        *url = keep(unsaid_address(url));
    }
    for (texts, mark) in [(&mut written.headers, ':'), (&mut written.query, '=')] {
        for text in texts {
            if let Some((name, value)) = text.split_once(mark) {
                let start = value.len() - value.trim_start().len();
                let (blank, value) = value.split_at(start);
                *text = format!("{name}{mark}{blank}{}", keep(unsaid_value(name.trim(), value)));
            }
        }
    }
    written.body = written.body.map(|body| keep(unsaid_body(&body)));
    (written, all)
}

/// The names of the placeholders in a recipe.
pub(crate) fn placeholders(recipe: &Recipe) -> BTreeSet<String> {
    let texts = recipe.urls.iter().chain(&recipe.headers).chain(&recipe.query).chain(&recipe.body);
    let templates = texts.filter_map(|text| Template::parse(text).ok());
    templates.flat_map(|template| template.names().map(str::to_owned).collect::<Vec<_>>()).collect()
}

fn pair<'t>(text: &'t str, mark: char, option: &str, message: &str) -> Result<(String, &'t str), Problem> {
    let found = text.split_once(mark).filter(|(name, _)| !name.trim().is_empty());
    let (name, value) = found.ok_or_else(|| {
        // What follows may be what nobody should see.
        let start: String = text.chars().take(12).collect();
        Failure::argument(message, format!("{option} {start}…"))
    })?;
    Ok((name.trim().to_owned(), value))
}

/// What a file says of names: a line `NAME=VALUE` for each.
pub(crate) fn values(file: Option<&Path>) -> Result<HashMap<String, String>, Problem> {
    let Some(path) = file else { return Ok(HashMap::new()) };
    let lines = dotenvy::from_path_iter(path).map_err(|error| fault(&error, path))?;
    lines.map(|line| line.map_err(|error| fault(&error, path))).collect()
}

/// What is wrong with the file, without what stands in it.
fn fault(error: &dotenvy::Error, path: &Path) -> Problem {
    match error {
        dotenvy::Error::Io(error) => Failure::path(reason(error), path),
        _ => Failure::path("a line is not `NAME=VALUE`", path)
            .with_help("quote a value that has blanks or signs in it"),
    }
}
