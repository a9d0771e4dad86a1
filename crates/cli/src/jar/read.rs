//! Reading `jar.toml`: every key known, every value of its kind, every trouble with its place.

use std::fs;
use std::ops::Range;
use std::path::{Path, PathBuf};

use clap::ValueEnum;
use jar_sprout_grow::{LANGUAGES, Settings, find_language};
use jar_sprout_model::{DefaultValue, Excerpt, Problem, SourceId, Spot};
use jar_sprout_settle::{Decision, Derivation, Purpose, Subject, Verdict};
use toml_edit::{Document, Item, Key as TomlKey, TableLike, Value};

use super::keys::{DECISION, Key, LANGUAGE, MODEL, POLICIES, TOP};
use super::{FILE, Jar, JarDecision, JarLanguage, JarModel, VERSION};
use crate::args::{
    DateForm, DefaultForm, IntegerWidth, ModelArgs, Questions, SourceArgs, Switch, TrustLevel,
};
use crate::commands::setting_problem;
use crate::failure::{Failure, Outcome, reason};
use crate::sources::SourceNames;
use crate::wording::{did_you_mean, quoted_with};

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
            Some(table) => {
                self.policies(&table, ModelArgs { questions: Questions::Worst, ..ModelArgs::default() })?
            }
            None => ModelArgs { questions: Questions::Worst, ..ModelArgs::default() },
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
        policies: &ModelArgs,
        shared: &[JarDecision],
    ) -> Read<JarModel> {
        let is_plain = |c: char| c.is_ascii_lowercase() || c.is_ascii_digit() || c == '-' || c == '_';
        if !name.get().starts_with(|c: char| c.is_ascii_lowercase()) || !name.get().chars().all(is_plain) {
            let message = format!("`{}` cannot be the name of a model", name.get());
            let help =
                "small letters, digits, `-` and `_`, a letter first: it becomes a folder and a package";
            return Err(with_help(self.problem(message, name.span()), help.to_owned()));
        }
        let table = self.as_table(name, item, "a model")?;
        self.only(&table, MODEL, &[])?;
        let Some(sources) = texts(&table, "sources").filter(|sources| !sources.is_empty()) else {
            let problem = self.problem(format!("`{}` has no sources", name.get()), name.span());
            return Err(with_help(problem, "such as `sources = [\"samples/hives-*.json\"]`".to_owned()));
        };
        let mut model = match self.table(&table, "policies")? {
            Some(own) => self.policies(&own, policies.clone())?,
            None => policies.clone(),
        };
        model.name = text(&table, "root");
        let mut decisions = shared.to_vec();
        decisions.extend(self.decisions(&table, false)?);
        let refs_from = text(&table, "refs-from").map(PathBuf::from);
        let source = SourceArgs { sources, at: text(&table, "at"), refs_from };
        Ok(JarModel { name: name.get().to_owned(), source, model, decisions })
    }

    fn policies(&self, table: &Table<'_>, base: ModelArgs) -> Read<ModelArgs> {
        self.only(table, POLICIES, &[])?;
        let on = |given: Option<bool>, base| match given {
            Some(true) => Switch::On,
            Some(false) => Switch::Off,
            None => base,
        };
        Ok(ModelArgs {
            trust: self.choice::<TrustLevel>(table, "trust")?.unwrap_or(base.trust),
            essential: texts(table, "essential").unwrap_or(base.essential),
            enums: on(switch(table, "enums"), base.enums),
            dates: self.choice::<DateForm>(table, "dates")?.unwrap_or(base.dates),
            maps: on(switch(table, "maps"), base.maps),
            integers: self.choice::<IntegerWidth>(table, "integers")?.unwrap_or(base.integers),
            defaults: self.choice::<DefaultForm>(table, "defaults")?.unwrap_or(base.defaults),
            prefix: text(table, "prefix").or(base.prefix),
            name: base.name,
            decisions: base.decisions,
            questions: base.questions,
        })
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
        let (name, dir) = (name.get().to_owned(), PathBuf::from(dir));
        Ok(JarLanguage { name, language, dir, settings: chosen })
    }

    fn decisions(&self, table: &Table<'_>, is_shared: bool) -> Read<Vec<JarDecision>> {
        let Some(table) = self.table(table, "decisions")? else { return Ok(Vec::new()) };
        let mut decisions = Vec::new();
        for (subject, item) in table.entries() {
            let verdicts = match item.as_str() {
                Some(word) => vec![self.verdict(word, item)?],
                None => self.verdicts(&self.as_table(subject, item, "a decision")?)?,
            };
            let subject = Subject::parse(subject.get());
            let decision = |verdict| Decision { subject: subject.clone(), verdict };
            decisions.extend(
                verdicts.into_iter().map(|verdict| JarDecision { decision: decision(verdict), is_shared }),
            );
        }
        Ok(decisions)
    }

    fn verdicts(&self, table: &Table<'_>) -> Read<Vec<Verdict>> {
        self.only(table, DECISION, &[])?;
        let mut verdicts = Vec::new();
        if let Some((_, item)) = table.get("type") {
            verdicts.push(match item.as_str() {
                Some(word) => self.verdict(word, item)?,
                None => Verdict::EnumOf(texts(table, "type").unwrap_or_default()),
            });
        }
        match text(table, "presence").as_deref() {
            Some("required") => verdicts.push(Verdict::Required),
            Some("optional") => verdicts.push(Verdict::Optional),
            Some(_) => return Err(self.cannot_be(table, "presence", &["required", "optional"])),
            None => {}
        }
        let null = |is_null| if is_null { Verdict::Nullable } else { Verdict::NeverNull };
        verdicts.extend(switch(table, "null").map(null));
        verdicts.extend(table.get("default").and_then(|(_, item)| default_value(item)).map(Verdict::Default));
        verdicts.extend(switch(table, "leave-out").filter(|out| *out).map(|_| Verdict::LeaveOut));
        verdicts.extend(texts(table, "keep").map(Verdict::Keep));
        verdicts.extend(text(table, "same-as").map(Verdict::SameAs));
        verdicts.extend(text(table, "split").map(Verdict::Split));
        if let Some(cases) = self.table(table, "cases")? {
            let case = |(value, name): (&TomlKey, &Item)| {
                name.as_str().map(|name| (value.get().to_owned(), name.to_owned()))
            };
            verdicts.push(Verdict::Cases(cases.entries().filter_map(case).collect()));
        }
        verdicts.extend(switch(table, "closed").map(Verdict::Closed));
        verdicts.extend(text(table, "describe").map(Verdict::Describe));
        verdicts.extend(switch(table, "deprecated").map(Verdict::Deprecated));
        for (key, purpose) in [("create", Purpose::Create), ("update", Purpose::Update)] {
            let server_made = || texts(table, "server-made").unwrap_or_default();
            let derive = |name| Verdict::Derive(Derivation { name, purpose, server_made: server_made() });
            verdicts.extend(text(table, key).map(derive));
        }
        verdicts.extend(text(table, "rename").map(Verdict::Rename));
        Ok(verdicts)
    }

    fn verdict(&self, word: &str, item: &Item) -> Read<Verdict> {
        Verdict::parse(word).ok_or_else(|| {
            let problem = self.problem(format!("`{word}` is nothing that a field can be"), item.span());
            let known = jar_sprout_settle::VERDICTS.iter().map(|(word, _)| *word);
            with_help(problem, did_you_mean(word, &known.collect::<Vec<_>>()))
        })
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

    fn choice<T: ValueEnum>(&self, table: &Table<'_>, key: &str) -> Read<Option<T>> {
        let Some(text) = text(table, key) else { return Ok(None) };
        let known: Vec<String> = T::value_variants()
            .iter()
            .filter_map(|value| Some(value.to_possible_value()?.get_name().to_owned()))
            .collect();
        let known: Vec<&str> = known.iter().map(String::as_str).collect();
        T::from_str(&text, false).map(Some).map_err(|_| self.cannot_be(table, key, &known))
    }

    fn cannot_be(&self, table: &Table<'_>, key: &str, known: &[&str]) -> Box<Problem> {
        let (_, item) = table.get(key).expect("it was read");
        let value = item.as_str().unwrap_or_default();
        let problem = self.problem(format!("`{key}` cannot be `{value}`"), item.span());
        with_help(problem, format!("it can be {}", quoted_with("or", known)))
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

fn text(table: &Table<'_>, key: &str) -> Option<String> {
    table.get(key)?.1.as_str().map(str::to_owned)
}

fn texts(table: &Table<'_>, key: &str) -> Option<Vec<String>> {
    let array = table.get(key)?.1.as_array()?;
    Some(array.iter().filter_map(Value::as_str).map(str::to_owned).collect())
}

/// A truth, a number or a text.
fn default_value(item: &Item) -> Option<DefaultValue> {
    match item.as_value()? {
        Value::Boolean(flag) => Some(DefaultValue::Boolean(*flag.value())),
        Value::Integer(number) => Some(DefaultValue::Number(number.value().to_string())),
        Value::Float(number) if number.value().is_finite() => {
            Some(DefaultValue::Number(number.value().to_string()))
        }
        Value::String(text) => Some(DefaultValue::Text(text.value().clone())),
        Value::Float(_) | Value::Datetime(_) | Value::Array(_) | Value::InlineTable(_) => None,
    }
}

fn switch(table: &Table<'_>, key: &str) -> Option<bool> {
    table.get(key)?.1.as_bool()
}

#[allow(clippy::boxed_local, reason = "problems travel in boxes here, and come in one")]
fn with_help(problem: Box<Problem>, help: String) -> Box<Problem> {
    Box::new(problem.with_help(help))
}
