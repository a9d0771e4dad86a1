//! Reading `jar.toml`: every key known, every value of its kind, every trouble with its place.

use std::fs;
use std::ops::Range;
use std::path::{Path, PathBuf};

use jar_sprout_grow::{LANGUAGES, Language, Settings, find_language, is_marked};
use jar_sprout_model::{Excerpt, Problem, SourceId, Spot};
use jar_sprout_settle::{Decision, FieldType, FieldVerdict, Policies, Subject, TypeVerdict, Verdict};
use toml_edit::{Document, Item, Key as TomlKey, TableLike};

use super::{BRINGS_OWN, FILE, HERE, Jar, JarDecision, JarLanguage, JarModel};
use crate::decisions::{DECISIONS, Unreadable, decision_keys};
use crate::failure::{Failure, Outcome, reason};
use crate::keys::{Key, LANGUAGE, MODEL, TOP, Takes, VERSION, texts_of};
use crate::policies::{POLICIES, policy_keys};
use crate::recipe::{RECIPE, Recipe, recipe_keys};
use crate::request::{Request, Selection};
use crate::settings::setting_problem;
use crate::source_names::SourceNames;
use crate::wording::did_you_mean;

/// Reads the jar of a folder.
pub(crate) fn read_jar(folder: &Path) -> Outcome<Jar> {
    parse_jar(&read_text(folder)?)
}

/// Reads a jar's text, whether it is written already or not.
pub(crate) fn parse_jar(text: &str) -> Outcome<Jar> {
    let reader = Reader { text };
    reader.jar().map_err(|problem| Failure::Problem(problem, SourceNames::of(vec![FILE.to_owned()])))
}

/// The text of a folder's `jar.toml`.
pub(crate) fn read_text(folder: &Path) -> Outcome<String> {
    let path = folder.join(FILE);
    fs::read_to_string(&path).map_err(|error| Failure::path(reason(&error), &path).into())
}

struct Reader<'t> {
    text: &'t str,
}

type Read<T> = Result<T, Box<Problem>>;

/// A table with the keys it may have.
struct Table<'t> {
    table: &'t dyn TableLike,
    what: &'static str,
}

impl<'t> Table<'t> {
    fn entries(&self) -> impl Iterator<Item = (&'t TomlKey, &'t Item)> + use<'t> {
        let table = self.table;
        table.iter().filter_map(move |(name, _)| table.get_key_value(name))
    }

    fn get(&self, key: &str) -> Option<(&'t TomlKey, &'t Item)> {
        self.table.get_key_value(key)
    }
}

impl Reader<'_> {
    fn jar(&self) -> Read<Jar> {
        let document = Document::parse(self.text)
            .map_err(|error| self.problem(error.message().replace('\n', ", "), error.span()))?;
        let top = Table { table: document.as_table(), what: "jar.toml" };
        self.only(&top, TOP, &[])?;
        self.version(&top)?;
        let policies = match self.table(&top, "policies")? {
            Some(table) => self.policies(&table, Policies::default())?,
            None => Policies::default(),
        };
        let shared = self.decisions(&top, true)?;
        let mut models = Vec::new();
        if let Some(tables) = self.table(&top, "models")? {
            for (name, item) in tables.entries() {
                models.push(self.model(name, item, &policies, &shared)?);
            }
        }
        let mut languages = Vec::new();
        if let Some(tables) = self.table(&top, "languages")? {
            for (name, item) in tables.entries() {
                languages.push(self.language(name, item)?);
            }
        }
        Ok(Jar { models, languages })
    }

    fn version(&self, top: &Table<'_>) -> Read<()> {
        let Some((_, item)) = top.get("version") else {
            let problem = self.problem("the file does not say its version", Some(0..0));
            return Err(with_help(problem, format!("start it with `version = {VERSION}`")));
        };
        match item.as_integer() {
            Some(VERSION) => Ok(()),
            Some(other) if other > VERSION => {
                let message = format!("version {other} is newer than this program, which knows {VERSION}");
                Err(with_help(self.problem(message, item.span()), "install a newer Jar Sprout".to_owned()))
            }
            _ => Err(self.problem(format!("`version` is {VERSION}"), item.span())),
        }
    }

    fn model(
        &self,
        name: &TomlKey,
        item: &Item,
        policies: &Policies,
        shared: &[JarDecision],
    ) -> Read<JarModel> {
        if !is_plain_name(name.get()) {
            let message = format!("`{}` cannot be the name of a model", name.get());
            let help =
                "small letters, digits, `-` and `_`, a letter first: it becomes a folder and a package";
            return Err(with_help(self.problem(message, name.span()), help.to_owned()));
        }
        let table = self.as_table(name, item, "a model")?;
        self.only(&table, MODEL, &[])?;
        let Some(sources) =
            table.get("sources").and_then(|(_, item)| texts_of(item)).filter(|sources| !sources.is_empty())
        else {
            let problem = self.problem(format!("`{}` has no sources", name.get()), name.span());
            return Err(with_help(problem, "such as `sources = [\"samples/hives-*.json\"]`".to_owned()));
        };
        let policies = match self.table(&table, "policies")? {
            Some(own) => self.policies(&own, policies.clone())?,
            None => policies.clone(),
        };
        let mut decisions = shared.to_vec();
        decisions.extend(self.decisions(&table, false)?);
        let folder = text(&table, "folder");
        if let Some(folder) = folder.as_ref().filter(|folder| *folder != HERE && !is_plain_name(folder)) {
            let span = table.get("folder").and_then(|(_, item)| item.span());
            let problem = self.problem(format!("`{folder}` cannot be the folder of a model"), span);
            let help = "small letters, digits, `-` and `_`, a letter first: it becomes a package; or `.`";
            return Err(with_help(problem, help.to_owned()));
        }
        let refs_from = text(&table, "refs-from").map(PathBuf::from);
        let is_lenient = table.get("lenient").and_then(|(_, item)| item.as_bool()).unwrap_or(false);
        let at = text(&table, "at");
        let selection = Selection { sources, endpoint: None, at, refs_from, is_lenient };
        let request = Request { selection, name: text(&table, "root"), policies, decisions: Vec::new() };
        let recipe = self.table(&table, "fetch")?.map(|table| self.recipe(name, &table)).transpose()?;
        Ok(JarModel { name: name.get().to_owned(), folder, request, decisions, recipe })
    }

    fn recipe(&self, name: &TomlKey, table: &Table<'_>) -> Read<Recipe> {
        self.only(table, &recipe_keys(), &[])?;
        let mut recipe = Recipe::default();
        for row in RECIPE {
            if let Some((_, item)) = table.get(row.key.name) {
                row.read(item, &mut recipe);
            }
        }
        if recipe.urls.is_empty() {
            let problem = self.problem(format!("the recipe of `{}` has no `url`", name.get()), name.span());
            return Err(with_help(problem, "such as `url = \"https://api.honey.example/hives\"`".to_owned()));
        }
        Ok(recipe)
    }

    fn policies(&self, table: &Table<'_>, base: Policies) -> Read<Policies> {
        self.only(table, &policy_keys(), &[])?;
        let mut policies = base;
        for policy in POLICIES {
            if let Some((_, item)) = table.get(policy.key.name) {
                policy.read(item, &mut policies);
            }
        }
        Ok(policies)
    }

    fn language(&self, name: &TomlKey, item: &Item) -> Read<JarLanguage> {
        let table = self.as_table(name, item, "a language")?;
        let key = text(&table, "language").unwrap_or_else(|| name.get().to_owned());
        let Some(language) = find_language(&key) else {
            let spot = table.get("language").map_or_else(|| name.span(), |(_, item)| item.span());
            let problem = self.problem(format!("there is no language `{key}`"), spot);
            let known = LANGUAGES.iter().map(|language| language.key());
            return Err(with_help(problem, did_you_mean(&key, &known.collect::<Vec<_>>())));
        };
        let settings: Vec<&str> = language.settings().iter().map(|setting| setting.key()).collect();
        self.only(&table, LANGUAGE, &settings)?;
        let Some(dir) = text(&table, "dir") else {
            let problem = self.problem(format!("`{}` has no folder to grow into", name.get()), name.span());
            return Err(with_help(problem, "such as `dir = \"src/models\"`".to_owned()));
        };
        let mut chosen = Settings::default();
        for setting in settings {
            if let Some((_, item)) = table.get(setting).filter(|(_, item)| !item.is_str()) {
                return Err(self.problem(format!("`{setting}` takes a text"), item.span()));
            }
            if let Some(value) = text(&table, setting) {
                language.set(&mut chosen, setting, &value).map_err(|error| {
                    let span = table.get(setting).and_then(|(_, item)| item.span());
                    let Problem { message, help, .. } = setting_problem(language, setting, &value, error);
                    match help {
                        Some(help) => with_help(self.problem(message, span), help),
                        None => self.problem(message, span),
                    }
                })?;
            }
        }
        let shared = text(&table, "shared");
        if let Some(shared) = shared.as_ref().filter(|shared| !can_be_shared(language, shared)) {
            let span = table.get("shared").and_then(|(_, item)| item.span());
            let problem = self.problem(format!("`{shared}` cannot be where models share code"), span);
            let help = match language.shared_path() {
                None => "small letters, digits, `-` and `_`, a letter first: it becomes a package; or `none`",
                Some('/') => {
                    "the path by which it is imported, such as `example.org/app/models/shared`; or `none`"
                }
                Some(_) => "the path by which it is imported, such as `app.models.shared`; or `none`",
            };
            return Err(with_help(problem, help.to_owned()));
        }
        let (name, dir) = (name.get().to_owned(), PathBuf::from(dir));
        Ok(JarLanguage { name, language, dir, is_marked: is_marked(&chosen), settings: chosen, shared })
    }

    fn decisions(&self, table: &Table<'_>, is_shared: bool) -> Read<Vec<JarDecision>> {
        let Some(table) = self.table(table, "decisions")? else { return Ok(Vec::new()) };
        let mut decisions = Vec::new();
        for (name, item) in table.entries() {
            let subject = Subject::parse(name.get());
            let verdicts = match (item.as_str(), texts_of(item)) {
                (Some(word), _) => vec![self.verdict(&subject, word, item)?],
                (None, Some(values)) => vec![self.values(&subject, values, item)?],
                (None, None) => self.verdicts(&subject, &self.as_table(name, item, "a decision")?)?,
            };
            let decision = |verdict| Decision { subject: subject.clone(), verdict };
            decisions.extend(
                verdicts.into_iter().map(|verdict| JarDecision { decision: decision(verdict), is_shared }),
            );
        }
        Ok(decisions)
    }

    fn verdicts(&self, subject: &Subject, table: &Table<'_>) -> Read<Vec<Verdict>> {
        self.only(table, &decision_keys(), &[])?;
        let mut verdicts = Vec::new();
        for row in DECISIONS {
            let Some((key, item)) = table.get(row.key.name) else { continue };
            match row.verdict(subject, item, table.table) {
                Ok(verdict) => verdicts.extend(verdict),
                Err(Unreadable::Word(word)) => return Err(self.no_word(subject, &word, item)),
                Err(Unreadable::Misplaced { of }) => {
                    let message = format!("`{}` is decided of a {of}, and `{subject}` is none", row.key.name);
                    let problem = self.problem(message, key.span());
                    return Err(with_help(problem, format!("such as `{}`", row.key.example)));
                }
            }
        }
        Ok(verdicts)
    }

    /// The values of an enum.
    fn values(&self, subject: &Subject, values: Vec<String>, item: &Item) -> Read<Verdict> {
        if !Takes::Texts.fits(item) {
            let problem = self.problem(format!("`{subject}` takes a text or a list of texts"), item.span());
            return Err(with_help(problem, "such as `[\"laying\", \"caged\"]`".to_owned()));
        }
        Ok(match subject.key {
            Some(_) => FieldVerdict::Is(FieldType::EnumOf(values)).into(),
            None => TypeVerdict::EnumOf(values).into(),
        })
    }

    fn verdict(&self, subject: &Subject, word: &str, item: &Item) -> Read<Verdict> {
        Verdict::parse(subject, word).ok_or_else(|| self.no_word(subject, word, item))
    }

    fn no_word(&self, subject: &Subject, word: &str, item: &Item) -> Box<Problem> {
        let what = if subject.key.is_some() { "field" } else { "type" };
        let problem = self.problem(format!("`{word}` is nothing that a {what} can be"), item.span());
        let known = jar_sprout_settle::FIELD_WORDS.iter().map(|(word, _)| *word);
        match subject.key {
            Some(_) => with_help(problem, did_you_mean(word, &known.collect::<Vec<_>>())),
            None => with_help(problem, "it can be the name of another type".to_owned()),
        }
    }

    /// Refuses keys that a table does not have, and values that their keys do not take.
    fn only(&self, table: &Table<'_>, keys: &[Key], more: &[&str]) -> Read<()> {
        let known: Vec<&str> = keys.iter().map(|key| key.name).chain(more.iter().copied()).collect();
        for (key, item) in table.entries() {
            if let Some(Key { name, takes, example, doc: _ }) =
                keys.iter().find(|known| known.name == key.get())
            {
                if !takes.fits(item) {
                    let problem = self.problem(format!("`{name}` takes {}", takes.words()), item.span());
                    return Err(with_help(problem, format!("such as `{example}`")));
                }
            } else if !known.contains(&key.get()) {
                let problem = self.problem(format!("{} has no key `{}`", table.what, key.get()), key.span());
                return Err(with_help(problem, did_you_mean(key.get(), &known)));
            }
        }
        Ok(())
    }

    fn table<'i>(&self, table: &Table<'i>, key: &'static str) -> Read<Option<Table<'i>>> {
        table.get(key).map(|(name, item)| self.as_table(name, item, key)).transpose()
    }

    fn as_table<'i>(&self, name: &TomlKey, item: &'i Item, what: &'static str) -> Read<Table<'i>> {
        match item.as_table_like() {
            Some(table) => Ok(Table { table, what }),
            None => Err(self.problem(format!("`{}` is a table", name.get()), item.span())),
        }
    }

    fn problem(&self, message: impl Into<String>, span: Option<Range<usize>>) -> Box<Problem> {
        let start = span.map_or(0, |span| span.start).min(self.text.len());
        let before = &self.text[..start];
        let line_start = before.rfind('\n').map_or(0, |at| at + 1);
        let line = before.matches('\n').count() as u64 + 1;
        let caret = before[line_start..].chars().count();
        let text = self.text[line_start..].lines().next().unwrap_or_default().to_owned();
        let spot = Spot::Text { source: SourceId(0), line, column: caret as u64 + 1 };
        Box::new(Problem::error(message, spot).with_excerpt(Excerpt { text, caret }))
    }
}

/// Whether what models share can be called so.
fn can_be_shared(language: &dyn Language, name: &str) -> bool {
    match language.shared_path() {
        _ if name == BRINGS_OWN => true,
        None => is_plain_name(name),
        Some(between) => {
            let is_plain = |c: char| c.is_ascii_alphanumeric() || "-_.~".contains(c);
            let is_part = |part: &str| !part.is_empty() && part.chars().all(is_plain);
            let (above, last) = name.rsplit_once(between).unwrap_or_default();
            is_plain_name(last) && above.split(between).all(is_part)
        }
    }
}

/// Whether a name can be a folder and a package in every language.
fn is_plain_name(name: &str) -> bool {
    let is_plain = |c: char| c.is_ascii_lowercase() || c.is_ascii_digit() || c == '-' || c == '_';
    name.starts_with(|c: char| c.is_ascii_lowercase()) && name.chars().all(is_plain)
}

fn text(table: &Table<'_>, key: &str) -> Option<String> {
    table.get(key)?.1.as_str().map(str::to_owned)
}

#[allow(clippy::boxed_local, reason = "problems travel in boxes here, and come in one")]
fn with_help(problem: Box<Problem>, help: String) -> Box<Problem> {
    Box::new(problem.with_help(help))
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    /// A jar with something of everything.
    const WHOLE: &str = concat!(
        include_str!("../../demo/jar.toml"),
        "\n[models.more.decisions]\n\"Hive.img\" = { type = \"text\", rename = \"picture\" }\nHive = { keep = [\"id\"] }\n",
        "\n[models.more]\nsources = [\"a.json\"]\nat = \"$.x[*]\"\nfolder = \".\"\nlenient = true\nroot = \"More\"\n",
        "\n[models.more.fetch]\nurl = \"https://api.honey.example/more\"\npause = 0.5\nkeep = 3\nscrub = true\n",
        "\n[models.more.policies]\ntrust = \"nothing\"\nessential = [\"id\"]\nmaps = false\n",
    );

    #[test]
    fn the_whole_jar_is_read() {
        let jar = parse_jar(WHOLE).expect("it is right");
        assert!(jar.models.len() > 3 && jar.languages.len() > 3);
    }

    proptest! {
        #![proptest_config(ProptestConfig::with_cases(600))]

        /// Whatever stands in the file is read or refused, with a place in it.
        #[test]
        fn garbage_is_told(
            at in any::<prop::sample::Index>(),
            length in 0_usize..40,
            with in prop_oneof![
                "\\PC{0,12}",
                "[\\[\\]{}=\"'.,#\n\r\t 0-9a-z-]{0,20}",
                prop::sample::select(vec!["[models]\n", "version = 2\n", "= {}\n", "[[models]]\n", "\"\"\"", "1979-05-27", "nan"])
                    .prop_map(str::to_owned),
            ],
        ) {
            let mut text = WHOLE.to_owned();
            let starts: Vec<usize> = text.char_indices().map(|(start, _)| start).collect();
            let start = at.index(starts.len());
            let end = starts.get(start + length).copied().unwrap_or(text.len());
            text.replace_range(starts[start]..end, &with);
            if let Err(Failure::Problem(problem, _)) = parse_jar(&text) {
                prop_assert!(matches!(problem.spot, Spot::Text { .. }), "{problem:?}");
                prop_assert!(!problem.message.is_empty());
            }
        }
    }
}
