//! Recipes: how samples are asked for. One table feeds the options of `fetch`, the jar's reader and writer, and the
//! reference.

use std::path::PathBuf;

use clap::builder::NonEmptyStringValueParser;
use clap::{Arg, ArgAction, ArgMatches, Command, Error, FromArgMatches, value_parser};
use toml_edit::{Array, DocumentMut, Item, Value};

use crate::keys::{Key, Takes, texts_of};

/// How samples are asked for; what is none is as it is where nothing is said.
#[derive(Debug, Clone, Default, PartialEq)]
pub(crate) struct Recipe {
    pub(crate) urls: Vec<String>,
    pub(crate) each: Vec<String>,
    pub(crate) most: Option<u64>,
    pub(crate) headers: Vec<String>,
    pub(crate) query: Vec<String>,
    pub(crate) method: Option<String>,
    pub(crate) body: Option<String>,
    pub(crate) pages: Option<u64>,
    pub(crate) next: Option<String>,
    pub(crate) page_by: Option<String>,
    pub(crate) pause: Option<f64>,
    pub(crate) env_file: Option<PathBuf>,
    pub(crate) ca_file: Option<PathBuf>,
    pub(crate) keep: Option<u64>,
    pub(crate) scrub: bool,
    pub(crate) most_bytes: Option<u64>,
    pub(crate) timeout: Option<u64>,
}

/// A key of a recipe, which is an option of `fetch` as well, and where its value is kept.
pub(crate) struct RecipeKey {
    pub(crate) key: Key,
    /// What the help calls the value.
    value_name: &'static str,
    slot: Slot,
}

#[derive(Clone, Copy)]
enum Slot {
    Texts(fn(&mut Recipe) -> &mut Vec<String>),
    Text(fn(&mut Recipe) -> &mut Option<String>),
    File(fn(&mut Recipe) -> &mut Option<PathBuf>),
    Count(fn(&mut Recipe) -> &mut Option<u64>),
    Seconds(fn(&mut Recipe) -> &mut Option<f64>),
    Switch(fn(&mut Recipe) -> &mut bool),
}

const fn row(key: Key, value_name: &'static str, slot: Slot) -> RecipeKey {
    RecipeKey { key, value_name, slot }
}

/// The key of the addresses, which are no option: they stand by themselves.
const URL: &str = "url";

/// All keys.
pub(crate) static RECIPE: &[RecipeKey] = &[
    row(
        Key::new(
            URL,
            Takes::TextOrTexts,
            "what is asked, one address after the other; `{id}` in one is filled by `each`",
            "url = \"https://api.honey.example/hives/{id}\"",
        ),
        "URL",
        Slot::Texts(|recipe| &mut recipe.urls),
    ),
    row(
        Key::new(
            "each",
            Takes::TextOrTexts,
            "what fills a variable of an address: each value at a path of a sample, of the samples that a glob matches, or of a model's samples",
            "each = \"id=hives#$.hives[*].id\"",
        ),
        "NAME=FROM#JSONPATH",
        Slot::Texts(|recipe| &mut recipe.each),
    ),
    row(
        Key::new("most", Takes::Count, "the most addresses that are asked; without it 100", "most = 20"),
        "N",
        Slot::Count(|recipe| &mut recipe.most),
    ),
    row(
        Key::new(
            "header",
            Takes::TextOrTexts,
            "a header",
            "header = [\"Authorization: Token ${HIVES_TOKEN}\"]",
        ),
        "NAME: VALUE",
        Slot::Texts(|recipe| &mut recipe.headers),
    ),
    row(
        Key::new("query", Takes::TextOrTexts, "a parameter of the query", "query = [\"page_size=50\"]"),
        "NAME=VALUE",
        Slot::Texts(|recipe| &mut recipe.query),
    ),
    row(
        Key::new(
            "pages",
            Takes::Count,
            "how many pages are taken, one after the other: as the answers show where the next one is, or as `next` and `page-by` say; without it 1",
            "pages = 5",
        ),
        "N",
        Slot::Count(|recipe| &mut recipe.pages),
    ),
    row(
        Key::new(
            "next",
            Takes::Word,
            "where an answer has the address of the next page, or its cursor",
            "next = \"$.next\"",
        ),
        "JSONPATH",
        Slot::Text(|recipe| &mut recipe.next),
    ),
    row(
        Key::new(
            "page-by",
            Takes::Word,
            "the parameter that counts pages, or takes the cursor",
            "page-by = \"page\"",
        ),
        "NAME",
        Slot::Text(|recipe| &mut recipe.page_by),
    ),
    row(
        Key::new(
            "pause",
            Takes::Seconds,
            "how many seconds to wait between two requests; without it 0.2",
            "pause = 1.5",
        ),
        "SECONDS",
        Slot::Seconds(|recipe| &mut recipe.pause),
    ),
    row(
        Key::new(
            "method",
            Takes::Word,
            "the method; without it GET, or POST where there is a body",
            "method = \"PUT\"",
        ),
        "METHOD",
        Slot::Text(|recipe| &mut recipe.method),
    ),
    row(
        Key::new(
            "body",
            Takes::Text,
            "the body, in JSON unless a header says otherwise",
            "body = '{\"kind\": \"top bar\"}'",
        ),
        "BODY",
        Slot::Text(|recipe| &mut recipe.body),
    ),
    row(
        Key::new(
            "env-file",
            Takes::Word,
            "a file of lines `NAME=VALUE`, for what the environment does not say; keep it out of version control",
            "env-file = \".env\"",
        ),
        "FILE",
        Slot::File(|recipe| &mut recipe.env_file),
    ),
    row(
        Key::new(
            "ca-file",
            Takes::Word,
            "certificates in PEM that are trusted instead of those that the web trusts: of an authority of your own",
            "ca-file = \"authority.pem\"",
        ),
        "FILE",
        Slot::File(|recipe| &mut recipe.ca_file),
    ),
    row(
        Key::new(
            "keep",
            Takes::Count,
            "how many records of each address are kept, the last ones; without it all",
            "keep = 3",
        ),
        "N",
        Slot::Count(|recipe| &mut recipe.keep),
    ),
    row(
        Key::new(
            "scrub",
            Takes::Switch,
            "whether samples are written that make the same model and hold none of the values",
            "scrub = true",
        ),
        "",
        Slot::Switch(|recipe| &mut recipe.scrub),
    ),
    row(
        Key::new(
            "most-bytes",
            Takes::Count,
            "the most bytes of an answer, unpacked; without it 64 million",
            "most-bytes = 1_000_000",
        ),
        "N",
        Slot::Count(|recipe| &mut recipe.most_bytes),
    ),
    row(
        Key::new(
            "timeout",
            Takes::Count,
            "how many seconds a whole answer may take; without it 60",
            "timeout = 10",
        ),
        "SECONDS",
        Slot::Count(|recipe| &mut recipe.timeout),
    ),
];

/// The keys of a recipe.
pub(crate) fn recipe_keys() -> Vec<Key> {
    RECIPE.iter().map(|row| row.key).collect()
}

impl Recipe {
    /// This on top of another one: what it says holds.
    pub(crate) fn above(mut self, mut below: Self) -> Self {
        for RecipeKey { key, slot, .. } in RECIPE {
            match slot {
                Slot::Texts(texts) => {
                    let own = std::mem::take(texts(&mut self));
                    // One header or parameter of a name; addresses have none.
                    let name = |text: &str| match key.name {
                        URL => None,
                        _ => text.split([':', '=']).next().map(str::to_ascii_lowercase),
                    };
                    let is_said = |text: &String| {
                        name(text).is_some_and(|said| own.iter().any(|one| name(one).as_ref() == Some(&said)))
                    };
                    let mut all = std::mem::take(texts(&mut below));
                    all.retain(|text| !is_said(text));
                    all.extend(own);
                    *texts(&mut self) = all;
                }
                Slot::Text(text) => *text(&mut self) = text(&mut self).take().or(text(&mut below).take()),
                Slot::File(file) => *file(&mut self) = file(&mut self).take().or(file(&mut below).take()),
                Slot::Count(count) => *count(&mut self) = count(&mut self).or(*count(&mut below)),
                Slot::Seconds(count) => *count(&mut self) = count(&mut self).or(*count(&mut below)),
                Slot::Switch(is_on) => *is_on(&mut self) |= *is_on(&mut below),
            }
        }
        self
    }

    /// How it is asked: as it says, else by what there is to send.
    pub(crate) fn method(&self) -> String {
        self.method.clone().unwrap_or_else(|| if self.body.is_some() { "POST" } else { "GET" }.to_owned())
    }

    /// Its keys as a jar has them.
    pub(crate) fn as_toml(&self) -> Vec<(&'static str, Value)> {
        let mut recipe = self.clone();
        RECIPE.iter().filter_map(|row| Some((row.key.name, row.value(&mut recipe)?))).collect()
    }
}

impl RecipeKey {
    /// Takes over the value of a jar, whose kind was checked.
    pub(crate) fn read(&self, item: &Item, recipe: &mut Recipe) {
        let text = item.as_str().map(str::to_owned);
        match self.slot {
            Slot::Texts(texts) => {
                *texts(recipe) = texts_of(item).unwrap_or_else(|| text.into_iter().collect());
            }
            Slot::Text(slot) => *slot(recipe) = text,
            Slot::File(file) => *file(recipe) = text.map(PathBuf::from),
            Slot::Count(count) => {
                *count(recipe) = item.as_integer().and_then(|count| count.try_into().ok());
            }
            Slot::Seconds(seconds) => {
                *seconds(recipe) = item.as_float().or(item.as_integer().map(|whole| whole as f64));
            }
            Slot::Switch(is_on) => *is_on(recipe) = item.as_bool().unwrap_or_default(),
        }
    }

    /// Its value as a jar has it, where there is one.
    fn value(&self, recipe: &mut Recipe) -> Option<Value> {
        match self.slot {
            Slot::Texts(texts) => match &texts(recipe)[..] {
                [] => None,
                [one] => Some(one.as_str().into()),
                several => Some(several.iter().collect::<Array>().into()),
            },
            Slot::Text(text) => text(recipe).as_deref().map(Value::from),
            Slot::File(file) => {
                file(recipe).as_ref().map(|file| file.to_string_lossy().replace('\\', "/").into())
            }
            Slot::Count(count) => count(recipe).map(|count| i64::try_from(count).unwrap_or(i64::MAX).into()),
            Slot::Seconds(seconds) => seconds(recipe).map(Value::from),
            Slot::Switch(is_on) => is_on(recipe).then(|| true.into()),
        }
    }

    fn arg(&self) -> Arg {
        let name = self.key.name;
        let arg = Arg::new(name).long(name).help(self.help());
        let arg = match self.slot {
            Slot::Switch(_) => return arg.action(ArgAction::SetTrue),
            Slot::Texts(_) => arg.action(ArgAction::Append),
            Slot::Text(_) => arg.value_parser(NonEmptyStringValueParser::new()),
            Slot::File(_) => arg.value_parser(value_parser!(PathBuf)),
            Slot::Count(_) => arg.value_parser(value_parser!(u64).range(1..)),
            Slot::Seconds(_) => arg.value_parser(value_parser!(f64)),
        };
        arg.value_name(self.value_name)
    }

    /// What its option says of it: what the key means, with its example.
    fn help(&self) -> String {
        let Key { name, doc, example, .. } = self.key;
        let mut chars = doc.strip_prefix("whether ").unwrap_or(doc).chars();
        let help: String = chars.next().into_iter().flat_map(char::to_uppercase).chain(chars).collect();
        let written: Option<DocumentMut> = example.parse().ok();
        let item = written.as_ref().and_then(|written| written.get(name));
        let text = item.and_then(|item| item.as_str().or_else(|| item.as_array()?.get(0)?.as_str()));
        text.map_or_else(|| help.clone(), |text| format!("{help}: `{text}`"))
    }

    fn typed(&self, matches: &ArgMatches, recipe: &mut Recipe) {
        let name = self.key.name;
        match self.slot {
            Slot::Texts(texts) => {
                *texts(recipe) = matches.get_many(name).into_iter().flatten().cloned().collect();
            }
            Slot::Text(text) => *text(recipe) = matches.get_one(name).cloned(),
            Slot::File(file) => *file(recipe) = matches.get_one(name).cloned(),
            Slot::Count(count) => *count(recipe) = matches.get_one(name).copied(),
            Slot::Seconds(seconds) => *seconds(recipe) = matches.get_one(name).copied(),
            Slot::Switch(is_on) => *is_on(recipe) = matches.get_flag(name),
        }
    }
}

fn options() -> impl Iterator<Item = &'static RecipeKey> {
    RECIPE.iter().filter(|row| row.key.name != URL)
}

impl clap::Args for Recipe {
    fn augment_args(command: Command) -> Command {
        options().fold(command, |command, row| command.arg(row.arg()))
    }

    fn augment_args_for_update(command: Command) -> Command {
        Self::augment_args(command)
    }
}

impl FromArgMatches for Recipe {
    fn from_arg_matches(matches: &ArgMatches) -> Result<Self, Error> {
        let mut recipe = Self::default();
        options().for_each(|row| row.typed(matches, &mut recipe));
        Ok(recipe)
    }

    fn update_from_arg_matches(&mut self, matches: &ArgMatches) -> Result<(), Error> {
        *self = Self::from_arg_matches(matches)?;
        Ok(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    /// What a jar takes fits what the recipe keeps, and what is kept is written as it is read.
    #[test]
    fn every_key_is_read_as_it_is_written() {
        for row in RECIPE {
            let document: DocumentMut = row.key.example.parse().expect(row.key.example);
            let item = &document[row.key.name];
            let mut recipe = Recipe::default();
            row.read(item, &mut recipe);
            assert_ne!(recipe, Recipe::default(), "{}", row.key.example);
            let [(name, value)] = &recipe.as_toml()[..] else { panic!("{}", row.key.example) };
            let mut again = Recipe::default();
            row.read(&Item::Value(value.clone()), &mut again);
            assert_eq!((*name, again), (row.key.name, recipe.clone()));
            assert_eq!(recipe.clone().above(Recipe::default()), recipe);
            assert_eq!(Recipe::default().above(recipe.clone()), recipe);
        }
    }

    #[test]
    fn what_is_on_top_holds() {
        let texts = |texts: &[&str]| texts.iter().map(|text| (*text).to_owned()).collect();
        let below = Recipe {
            headers: texts(&["X-Key: a", "Accept: b"]),
            pages: Some(2),
            urls: texts(&["https://a.example"]),
            ..Recipe::default()
        };
        let above = Recipe {
            headers: texts(&["x-key: c"]),
            pages: Some(3),
            urls: texts(&["https://b.example"]),
            ..Recipe::default()
        };
        let both = above.above(below);
        assert_eq!(both.headers, ["Accept: b", "x-key: c"]);
        assert_eq!((both.pages, both.urls.len()), (Some(3), 2));
    }
}
