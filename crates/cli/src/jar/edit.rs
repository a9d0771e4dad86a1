//! Writing `jar.toml`: what is there stays as it is, comments and order with it.

use std::fs;
use std::path::{Path, PathBuf};

use toml_edit::{Array, DocumentMut, InlineTable, Item, Table, TableLike, Value, value};

use super::FILE;
use crate::failure::{Failure, Outcome, reason};
use crate::keys::VERSION;
use crate::progress::Progress;
use crate::recipe::Recipe;
use crate::stage::{Stage, sweep};

/// A model to be added.
pub(crate) struct NewModel<'m> {
    pub(crate) name: &'m str,
    pub(crate) sources: &'m [String],
    pub(crate) at: Option<&'m str>,
    pub(crate) root: Option<&'m str>,
    pub(crate) is_lenient: bool,
}

/// The text of a new jar.
pub(crate) fn new_jar() -> String {
    let mut document = DocumentMut::new();
    document.insert("version", value(VERSION));
    document.key_mut("version").expect("it was put there").leaf_decor_mut().set_prefix(
        "# What Jar Sprout grows here, and what was decided. `jar-sprout decide --help` writes decisions.\n",
    );
    document.to_string()
}

/// A language to be added: its key, its folder, and its settings as they were typed.
pub(crate) struct NewLanguage {
    pub(crate) key: &'static str,
    pub(crate) dir: String,
    pub(crate) settings: Vec<(String, String)>,
}

/// A jar's text with languages to grow.
///
/// # Panics
/// On a text that is no TOML: it was read before.
pub(crate) fn add_languages(text: &str, languages: &[NewLanguage]) -> String {
    let mut document: DocumentMut = text.parse().expect("the jar was read");
    for NewLanguage { key, dir, settings } in languages {
        let mut table = Table::new();
        table.insert("dir", value(dir.as_str()));
        for (key, set) in settings {
            table.insert(key, value(set.as_str()));
        }
        tables(&mut document, "languages").insert(key, Item::Table(table));
    }
    document.to_string()
}

/// A jar's text with policies: for one model, or for all.
///
/// # Panics
/// On a text that is no TOML, or has no such model: it was read before.
pub(crate) fn set_policies(text: &str, model: Option<&str>, policies: &[(&'static str, Value)]) -> String {
    let mut document: DocumentMut = text.parse().expect("the jar was read");
    let holder = home(&mut document, model);
    let table = holder.entry("policies").or_insert_with(|| Item::Table(Table::new()));
    let table = table.as_table_like_mut().expect("the policies were read");
    for (key, set) in policies {
        table.insert(key, value(set.clone()));
    }
    document.to_string()
}

/// A jar's text with the recipe of a model; keys that it has no more go, the others stay where they are.
///
/// # Panics
/// On a text that is no TOML, or has no such model: it was read before.
pub(crate) fn set_recipe(text: &str, model: &str, recipe: &Recipe) -> String {
    let mut document: DocumentMut = text.parse().expect("the jar was read");
    let table = home(&mut document, Some(model)).entry("fetch").or_insert_with(|| Item::Table(Table::new()));
    let table = table.as_table_like_mut().expect("the recipe was read");
    let said = recipe.as_toml();
    let over = table.iter().map(|(key, _)| key.to_owned());
    let over: Vec<String> = over.filter(|key| said.iter().all(|(said, _)| said != key)).collect();
    over.iter().for_each(|key| drop(table.remove(key)));
    for (key, set) in said {
        table.insert(key, value(set));
    }
    document.to_string()
}

/// A jar's text with more sources for a model; those that it has already are not said again.
///
/// # Panics
/// On a text that is no TOML, or has no such model: it was read before.
pub(crate) fn add_sources(text: &str, model: &str, sources: &[String]) -> String {
    let mut document: DocumentMut = text.parse().expect("the jar was read");
    let table = home(&mut document, Some(model));
    let known = table.get_mut("sources").and_then(Item::as_array_mut).expect("the model's sources were read");
    for source in sources {
        if known.iter().all(|known| known.as_str() != Some(source)) {
            known.push(source.as_str());
        }
    }
    document.to_string()
}

/// A jar's text with one more model.
///
/// # Panics
/// On a text that is no TOML: it was read before.
pub(crate) fn add_model(text: &str, model: &NewModel<'_>) -> String {
    let NewModel { name, sources, at, root, is_lenient } = model;
    let mut document: DocumentMut = text.parse().expect("the jar was read");
    let mut table = Table::new();
    table.insert("sources", value(sources.iter().collect::<Array>()));
    if let Some(at) = at {
        table.insert("at", value(*at));
    }
    if let Some(root) = root {
        table.insert("root", value(*root));
    }
    if *is_lenient {
        table.insert("lenient", value(true));
    }
    tables(&mut document, "models").insert(name, Item::Table(table));
    document.to_string()
}

/// A jar's text with the folder of a model's code said.
///
/// # Panics
/// On a text that is no TOML, or has no such model: it was read before.
pub(crate) fn say_folder(text: &str, model: &str, folder: &str) -> String {
    let mut document: DocumentMut = text.parse().expect("the jar was read");
    let table = home(&mut document, Some(model));
    table.insert("folder", value(folder));
    document.to_string()
}

/// A jar's text with a decision: these keys are set, those without a value go. An empty decision goes altogether.
///
/// # Panics
/// On a text that is no TOML: it was read before.
pub(crate) fn write_decision(
    text: &str,
    model: Option<&str>,
    subject: &str,
    keys: &[(&'static str, Option<Value>)],
) -> String {
    let mut document: DocumentMut = text.parse().expect("the jar was read");
    let holder = home(&mut document, model);
    let decisions = holder.entry("decisions").or_insert_with(|| Item::Table(Table::new()));
    let decisions = decisions.as_table_like_mut().expect("the decisions were read");
    let decision = decisions.entry(subject).or_insert_with(|| value(InlineTable::new()));
    if let Some(said) = decision.as_value().filter(|said| said.is_str() || said.is_array()).cloned() {
        let mut table = InlineTable::new();
        table.insert("type", said);
        *decision = value(table);
    }
    let table = decision.as_table_like_mut().expect("a decision is a word or a table");
    for (key, set) in keys {
        match set {
            Some(set) => drop(table.insert(key, value(set.clone()))),
            None => drop(table.remove(key)),
        }
    }
    if table.is_empty() {
        decisions.remove(subject);
    }
    if decisions.is_empty() {
        holder.remove("decisions");
    }
    document.to_string()
}

/// All that was decided in a jar's text: the model it is for, none where that is all of them, and of what.
///
/// # Panics
/// On a text that is no TOML: it was read before.
pub(crate) fn decided_in(text: &str) -> Vec<(Option<String>, String)> {
    let document: DocumentMut = text.parse().expect("the jar was read");
    let of = |home: Option<&str>, holder: &dyn TableLike| -> Vec<(Option<String>, String)> {
        let decisions = holder.get("decisions").and_then(Item::as_table_like);
        let subjects = decisions.into_iter().flat_map(TableLike::iter);
        subjects.map(|(subject, _)| (home.map(str::to_owned), subject.to_owned())).collect()
    };
    let models = document.get("models").and_then(Item::as_table_like);
    let models = models.into_iter().flat_map(TableLike::iter);
    let of_models = models.filter_map(|(name, item)| Some(of(Some(name), item.as_table_like()?))).flatten();
    of(None, document.as_table()).into_iter().chain(of_models).collect()
}

/// Puts a text in the place of the jar in this folder, all of it or nothing; where that is a link, of what it leads to.
pub(crate) fn write_jar(text: &str) -> Outcome<()> {
    sweep(Path::new("."));
    let path = fs::canonicalize(FILE).unwrap_or_else(|_| PathBuf::from(FILE));
    let mut stage = Stage::default();
    stage.add(&path, text).and_then(|()| stage.put(&[], &Progress::of_things("writing", 1))).map_err(
        |(_, error)| Failure::path(format!("cannot write here: {}", reason(&error)), Path::new(FILE)).into(),
    )
}

/// Where something is said of a model, or of all.
fn home<'d>(document: &'d mut DocumentMut, model: Option<&str>) -> &'d mut dyn TableLike {
    match model {
        Some(model) => {
            let models = tables(document, "models");
            models.get_mut(model).and_then(Item::as_table_like_mut).expect("the model was read")
        }
        None => document.as_table_mut(),
    }
}

/// A table that holds tables of its own, and has no line for itself.
fn tables<'d>(document: &'d mut DocumentMut, key: &str) -> &'d mut dyn TableLike {
    let tables = document.entry(key).or_insert_with(|| {
        let mut table = Table::new();
        table.set_implicit(true);
        Item::Table(table)
    });
    tables.as_table_like_mut().expect("the jar was read")
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::super::read::read_jar;
    use super::*;

    fn read(text: &str) -> usize {
        let folder = tempfile::tempdir().unwrap();
        fs::write(folder.path().join(FILE), text).unwrap();
        let jar = read_jar(folder.path()).expect(text);
        jar.models.iter().map(|model| model.decisions.len()).sum()
    }

    fn model<'m>(name: &'m str, sources: &'m [String]) -> NewModel<'m> {
        NewModel { name, sources, at: Some("$.hives[*]"), root: Some("Hive"), is_lenient: true }
    }

    proptest! {
        #[test]
        fn what_is_written_reads_back(
            source in "\\PC*",
            subjects in prop::collection::vec("\\PC{1,20}", 1..6),
            text in any::<String>(),
            for_one in any::<bool>(),
        ) {
            let sources = [source];
            let mut jar = add_model(&new_jar(), &model("hives", &sources));
            let settings = vec![("package".to_owned(), "coop".to_owned())];
            jar = add_languages(&jar, &[NewLanguage { key: "kotlin", dir: text.clone(), settings }]);
            jar = set_policies(&jar, for_one.then_some("hives"), &[("trust", "nothing".into())]);
            let more = [text.clone()];
            jar = add_sources(&add_sources(&jar, "hives", &more), "hives", &more);
            prop_assert_eq!(read(&jar), 0);
            let home = for_one.then_some("hives");
            let keys = |set: bool| [("describe", set.then(|| text.as_str().into())), ("deprecated", set.then(|| true.into()))];
            for subject in &subjects {
                jar = write_decision(&jar, home, subject, &keys(true));
            }
            let distinct: std::collections::BTreeSet<&String> = subjects.iter().collect();
            prop_assert_eq!(read(&jar), distinct.len() * 2);
            // Once more changes nothing.
            let again = subjects.iter().fold(jar.clone(), |jar, subject| write_decision(&jar, home, subject, &keys(true)));
            prop_assert_eq!(&again, &jar);
            for subject in &subjects {
                jar = write_decision(&jar, home, subject, &keys(false));
            }
            prop_assert_eq!(read(&jar), 0);
        }
    }

    #[test]
    fn comments_and_order_stay() {
        let old = "# ours\nversion = 1\n\n[decisions] # agreed on\n\"Hive.img\" = \"text\" # not a URI\n\n[models.hives]\nsources = [\"a.json\"]\n";
        let new = write_decision(old, None, "Hive.name", &[("rename", Some("title".into()))]);
        let expected = old.replace("# not a URI\n", "# not a URI\n\"Hive.name\" = { rename = \"title\" }\n");
        assert_eq!(new, expected);
    }
}
