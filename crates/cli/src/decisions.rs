//! What can be decided: one table that feeds the command line, the jar's reader and writer, and the reference.

use clap::{Arg, ArgAction, ArgMatches, Command, Error, FromArgMatches};
use jar_sprout_model::{DefaultValue, Problem};
use jar_sprout_settle::{
    Derivation, FIELD_WORDS, FieldType, FieldVerdict, Purpose, Subject, TypeVerdict, Verdict,
};
use toml_edit::{Array, InlineTable, Item, TableLike, Value};

use crate::failure::Failure;
use crate::keys::{Key, Takes, texts_of};
use crate::wording::quoted_with;

/// A thing that can be decided.
pub(crate) struct DecisionKey {
    /// What the jar calls it.
    pub(crate) key: Key,
    /// What sets it on the command line.
    options: &'static [Flag],
    /// What it means for a type, if anything.
    of_type: Option<Read<TypeVerdict>>,
    /// What it means for a field, if anything.
    of_field: Option<Read<FieldVerdict>>,
}

/// Reads the value of a key, with the table that it stands in; none where it decides nothing. Its kind was checked.
type Read<T> = fn(&Item, &dyn TableLike) -> Result<Option<T>, UnknownWord>;

/// A word that says nothing of a field.
pub(crate) struct UnknownWord(pub(crate) String);

/// An option of `decide`, and the value that it gives the key. Those of one key exclude each other.
struct Flag {
    option: &'static str,
    help: &'static str,
    takes: Wants,
    /// Options of other keys that make no sense beside it.
    excludes: &'static [&'static str],
}

/// What an option takes.
enum Wants {
    /// Nothing: it is there or not.
    Nothing(fn() -> Value),
    /// A text under this name.
    One(&'static str, fn(&str) -> Result<Value, Problem>),
    /// Texts joined by commas.
    Joined(&'static str),
    /// A text, as often as it is given.
    Each(&'static str, fn(&[String]) -> Result<Value, Problem>),
}

const fn option(option: &'static str, help: &'static str, takes: Wants) -> Flag {
    Flag { option, help, takes, excludes: &[] }
}

/// All that can be decided.
pub(crate) static DECISIONS: &[DecisionKey] = &[
    DecisionKey {
        key: Key::new(
            "rename",
            Takes::Text,
            "another name for the type or field; the key on the wire stays",
            "\"Hive.img\" = { rename = \"imageUrl\" }",
        ),
        options: &[option("rename", "Another name; the key on the wire stays", Wants::One("NAME", plain))],
        of_type: Some(|item, _| Ok(text(item).map(TypeVerdict::Rename))),
        of_field: Some(|item, _| Ok(text(item).map(FieldVerdict::Rename))),
    },
    DecisionKey {
        key: Key::new(
            "type",
            Takes::TextOrTexts,
            "what a field is: a word such as `float`, a list such as `[text]`, a map such as `{text}`, another type's name, or the values of an enum; what its objects are, or those of a type: `map`, `record`, `union` where each of several kinds has keys of its own, or `by kind` where a key tells them apart; what its texts say, `json-in-text`; with words that stand for nothing behind it: `float or \"N/A\"`",
            "\"Hive.honey_kg\" = { type = \"float\" }",
        ),
        options: &[option(
            "type",
            "What a field is: `float`, `[text]`, `{text}`, another type's name, or the values of an enum: `laying,caged`; what objects are: `map`, `record`, `union`, `by KEY`; what texts say: `json-in-text`; words for nothing: `float or \"N/A\"`",
            Wants::One("WHAT", type_value),
        )],
        of_type: Some(|item, _| match text(item) {
            Some(word) => type_of_word(&word).map(Some),
            None => Ok(texts_of(item).map(TypeVerdict::EnumOf)),
        }),
        of_field: Some(|item, _| match text(item) {
            Some(word) => field_of_word(&word).map(Some),
            None => Ok(texts_of(item).map(|values| FieldVerdict::Is(FieldType::EnumOf(values)))),
        }),
    },
    DecisionKey {
        key: Key::new(
            "presence",
            Takes::Choice(&["required", "optional"]),
            "whether a field is always there and never null, or may be missing",
            "\"Hive.name\" = { presence = \"required\" }",
        ),
        options: &[
            option(
                "required",
                "A field is always there, and never null",
                Wants::Nothing(|| "required".into()),
            ),
            option("optional", "A field may be missing", Wants::Nothing(|| "optional".into())),
        ],
        of_type: None,
        of_field: Some(|item, _| {
            let is_required = item.as_str() == Some("required");
            Ok(Some(if is_required { FieldVerdict::Required } else { FieldVerdict::Optional }))
        }),
    },
    DecisionKey {
        key: Key::new(
            "null",
            Takes::Switch,
            "whether a field may be null",
            "\"Hive.queen\" = { null = true }",
        ),
        options: &[
            option("nullable", "A field may be null", Wants::Nothing(|| true.into())),
            option("never-null", "A field is never null", Wants::Nothing(|| false.into())),
        ],
        of_type: None,
        of_field: Some(|item, _| {
            let null = |is_null| if is_null { FieldVerdict::Nullable } else { FieldVerdict::NeverNull };
            Ok(item.as_bool().map(null))
        }),
    },
    DecisionKey {
        key: Key::new(
            "default",
            Takes::Value,
            "what holds where a field is absent: a truth, a number, a text or a known value of an enum; it is then written as well",
            "\"Hive.supers\" = { default = 0 }",
        ),
        options: &[Flag {
            excludes: &["required", "nullable"],
            ..option(
                "default",
                "What holds where a field is absent: `0`, `true`, `calm`",
                Wants::One("VALUE", |typed| Ok(default_of(typed))),
            )
        }],
        of_type: None,
        of_field: Some(|item, _| Ok(default_value(item).map(FieldVerdict::Default))),
    },
    DecisionKey {
        key: Key::new(
            "leave-out",
            Takes::Switch,
            "no part of the model; of a type, nor is any field that holds it",
            "\"Hive.internal_*\" = { leave-out = true }",
        ),
        options: &[option(
            "leave-out",
            "No part of the model; of a type, nor is any field that holds it",
            Wants::Nothing(|| true.into()),
        )],
        of_type: Some(|item, _| Ok(item.as_bool().filter(|out| *out).map(|_| TypeVerdict::LeaveOut))),
        of_field: Some(|item, _| Ok(item.as_bool().filter(|out| *out).map(|_| FieldVerdict::LeaveOut))),
    },
    DecisionKey {
        key: Key::new(
            "keep",
            Takes::Texts,
            "of a type: these fields and no others",
            "\"Hive\" = { keep = [\"id\", \"name\"] }",
        ),
        options: &[option("keep", "Of a type: these fields and no others: `id,name`", Wants::Joined("KEYS"))],
        of_type: Some(|item, _| Ok(texts_of(item).map(TypeVerdict::Keep))),
        of_field: None,
    },
    DecisionKey {
        key: Key::new(
            "same-as",
            Takes::Text,
            "of a type: one with that other type",
            "\"BillingAddress\" = { same-as = \"Address\" }",
        ),
        options: &[option("same-as", "Of a type: one with that other type", Wants::One("TYPE", plain))],
        of_type: Some(|item, _| Ok(text(item).map(TypeVerdict::SameAs))),
        of_field: Some(|item, _| Ok(text(item).map(|name| FieldVerdict::Is(FieldType::Named(name))))),
    },
    DecisionKey {
        key: Key::new(
            "split",
            Takes::Text,
            "of a field: a type of its own, under this name, for what stands there",
            "\"Hive.breeder\" = { split = \"HiveBreeder\" }",
        ),
        options: &[option(
            "split",
            "Of a field: a type of its own for what stands there",
            Wants::One("NAME", plain),
        )],
        of_type: None,
        of_field: Some(|item, _| Ok(text(item).map(FieldVerdict::Split))),
    },
    DecisionKey {
        key: Key::new(
            "create",
            Takes::Text,
            "of a type: another one, under this name, for what is sent to make a new one: all that the server does not make is required",
            "\"Hive\" = { create = \"NewHive\", server-made = [\"id\"] }",
        ),
        options: &[option(
            "create",
            "Of a type: another one, under this name, for what is sent to make a new one",
            Wants::One("NAME", plain),
        )],
        of_type: Some(|item, table| Ok(derivation(item, table, Purpose::Create))),
        of_field: None,
    },
    DecisionKey {
        key: Key::new(
            "update",
            Takes::Text,
            "of a type: another one, under this name, for what is sent to change one: every field may be left out",
            "\"Hive\" = { update = \"HiveUpdate\", server-made = [\"id\"] }",
        ),
        options: &[option(
            "update",
            "Of a type: another one, under this name, for what is sent to change one",
            Wants::One("NAME", plain),
        )],
        of_type: Some(|item, table| Ok(derivation(item, table, Purpose::Update))),
        of_field: None,
    },
    DecisionKey {
        key: Key::new(
            SERVER_MADE,
            Takes::Texts,
            "the keys that are not sent, since the server makes them",
            "\"Hive\" = { create = \"NewHive\", server-made = [\"id\", \"created_*\"] }",
        ),
        options: &[option(
            SERVER_MADE,
            "With these: the keys that the server makes, which are not sent: `id,created_at`",
            Wants::Joined("KEYS"),
        )],
        // It goes with `create` and `update`, which read it.
        of_type: Some(|_, _| Ok(None)),
        of_field: None,
    },
    DecisionKey {
        key: Key::new(
            "cases",
            Takes::Names,
            "of an enum or a union: names for its values",
            "\"QueenColour\" = { cases = { w = \"white\" } }",
        ),
        options: &[option(
            "case",
            "Of an enum or a union: a name for one of its values",
            Wants::Each("VALUE=NAME", case_names),
        )],
        of_type: Some(|item, _| Ok(item.as_table_like().map(|names| TypeVerdict::Cases(cases(names))))),
        of_field: None,
    },
    DecisionKey {
        key: Key::new(
            "closed",
            Takes::Switch,
            "of an enum, or of a field that is one: whether there can be no other values; else one that is not known is kept as it came",
            "\"QueenColour\" = { closed = true }",
        ),
        options: &[option(
            "closed",
            "Of an enum: there can be no other values",
            Wants::Nothing(|| true.into()),
        )],
        of_type: Some(|item, _| Ok(item.as_bool().map(TypeVerdict::Closed))),
        of_field: Some(|item, _| Ok(item.as_bool().map(FieldVerdict::Closed))),
    },
    DecisionKey {
        key: Key::new(
            "describe",
            Takes::Text,
            "what its documentation says",
            "\"Hive\" = { describe = \"A hive of bees.\" }",
        ),
        options: &[option("describe", "What its documentation says", Wants::One("TEXT", plain))],
        of_type: Some(|item, _| Ok(text(item).map(TypeVerdict::Describe))),
        of_field: Some(|item, _| Ok(text(item).map(FieldVerdict::Describe))),
    },
    DecisionKey {
        key: Key::new(
            "deprecated",
            Takes::Switch,
            "whether it should not be used any more",
            "\"Hive.old_id\" = { deprecated = true }",
        ),
        options: &[option("deprecated", "It should not be used any more", Wants::Nothing(|| true.into()))],
        of_type: Some(|item, _| Ok(item.as_bool().map(TypeVerdict::Deprecated))),
        of_field: Some(|item, _| Ok(item.as_bool().map(FieldVerdict::Deprecated))),
    },
];

const SERVER_MADE: &str = "server-made";

/// The keys of all that can be decided.
pub(crate) fn decision_keys() -> Vec<Key> {
    DECISIONS.iter().map(|row| row.key).collect()
}

/// Why a key of a decision cannot be read.
pub(crate) enum Unreadable {
    /// It is no word for what a field is.
    Word(String),
    /// It is said of the other kind of subject: of a field only, or of a type only.
    Misplaced {
        /// What it is said of.
        of: &'static str,
    },
}

impl DecisionKey {
    /// What a value means for a subject, if it decides anything.
    pub(crate) fn verdict(
        &self,
        subject: &Subject,
        item: &Item,
        table: &dyn TableLike,
    ) -> Result<Option<Verdict>, Unreadable> {
        let of = |UnknownWord(word)| Unreadable::Word(word);
        match (&subject.key, self.of_type, self.of_field) {
            (None, Some(read), _) => Ok(read(item, table).map_err(of)?.map(Verdict::Type)),
            (Some(_), _, Some(read)) => Ok(read(item, table).map_err(of)?.map(Verdict::Field)),
            (None, None, _) => Err(Unreadable::Misplaced { of: "field" }),
            (Some(_), _, None) => Err(Unreadable::Misplaced { of: "type" }),
        }
    }
}

fn text(item: &Item) -> Option<String> {
    item.as_str().map(str::to_owned)
}

fn type_of_word(word: &str) -> Result<TypeVerdict, UnknownWord> {
    match FieldVerdict::parse(word) {
        Some(FieldVerdict::Is(FieldType::Named(other))) => Ok(TypeVerdict::SameAs(other)),
        Some(FieldVerdict::LeaveOut) => Ok(TypeVerdict::LeaveOut),
        Some(FieldVerdict::Structure(structure)) => Ok(TypeVerdict::Structure(structure)),
        Some(_) | None => Err(UnknownWord(word.to_owned())),
    }
}

fn field_of_word(word: &str) -> Result<FieldVerdict, UnknownWord> {
    FieldVerdict::parse(word).ok_or_else(|| UnknownWord(word.to_owned()))
}

fn derivation(item: &Item, table: &dyn TableLike, purpose: Purpose) -> Option<TypeVerdict> {
    let server_made = table.get(SERVER_MADE).and_then(texts_of).unwrap_or_default();
    Some(TypeVerdict::Derive(Derivation { name: text(item)?, purpose, server_made }))
}

fn cases(names: &dyn TableLike) -> Vec<(String, String)> {
    names.iter().filter_map(|(value, name)| Some((value.to_owned(), name.as_str()?.to_owned()))).collect()
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

fn plain(typed: &str) -> Result<Value, Problem> {
    Ok(typed.into())
}

/// A truth or a number where the text is one; a text in quotes is always a text.
fn default_of(typed: &str) -> Value {
    match serde_json::from_str::<serde_json::Value>(typed) {
        Ok(serde_json::Value::Bool(flag)) => flag.into(),
        Ok(serde_json::Value::Number(number)) => match (number.as_i64(), number.as_f64()) {
            (Some(whole), _) => whole.into(),
            (None, Some(float)) => float.into(),
            (None, None) => typed.into(),
        },
        Ok(serde_json::Value::String(text)) => text.into(),
        Ok(_) | Err(_) => typed.into(),
    }
}

/// A word for what a field is, or the values of an enum.
fn type_value(typed: &str) -> Result<Value, Problem> {
    let is_type = FieldVerdict::parse(typed).is_some();
    if typed.contains(',') && !is_type {
        let words: Vec<&str> = typed.split(',').map(str::trim).collect();
        if words.iter().all(|word| FIELD_WORDS.iter().any(|(known, _)| known == word)) {
            let message =
                format!("`{typed}` are types, and a field is of one; a list of texts is an enum's values");
            return Err(Failure::argument(message, format!("--type {typed}"))
                .with_help("`--type any` takes values of more than one type"));
        }
        return Ok(typed.split(',').map(str::trim).collect::<Array>().into());
    }
    if is_type {
        return Ok(typed.into());
    }
    let words: Vec<&str> = FIELD_WORDS.iter().map(|(word, _)| *word).collect();
    Err(Failure::argument(format!("`{typed}` is nothing that a field can be"), format!("--type {typed}"))
        .with_help(format!(
            "there are {}; `[text]` for a list, `{{text}}` for a map, `laying,caged` for an enum, `float or \"N/A\"` where a word stands for nothing, `by KEY` for objects of several kinds",
            quoted_with("and", &words)
        )))
}

fn case_names(cases: &[String]) -> Result<Value, Problem> {
    let mut table = InlineTable::new();
    for case in cases {
        let Some((value, name)) = case.rsplit_once('=') else {
            let problem = Failure::argument("a case is `VALUE=NAME`", format!("--case {case}"));
            return Err(problem.with_help("such as `--case w=white`, in jar.toml"));
        };
        table.insert(value, name.into());
    }
    Ok(table.into())
}

/// What was decided on the command line: options of the table, as they were typed.
#[derive(Debug)]
pub(crate) struct DecisionArgs {
    typed: Vec<(&'static str, Vec<String>)>,
    /// Whether all that was decided is taken back.
    pub(crate) undo: bool,
}

const UNDO: &str = "undo";

impl DecisionArgs {
    /// The keys of the decision with what they are set to; all of them without anything where it is taken back.
    pub(crate) fn keys(&self) -> Result<Vec<(&'static str, Option<Value>)>, Problem> {
        if self.undo {
            return Ok(DECISIONS.iter().map(|row| (row.key.name, None)).collect());
        }
        let mut keys = Vec::new();
        for DecisionKey { key, options, .. } in DECISIONS {
            for Flag { option, takes, .. } in *options {
                let Some((_, typed)) = self.typed.iter().find(|(typed, _)| typed == option) else { continue };
                let value = match takes {
                    Wants::Nothing(value) => value(),
                    Wants::One(_, value) => value(&typed[0])?,
                    Wants::Joined(_) => typed.iter().collect::<Array>().into(),
                    Wants::Each(_, value) => value(typed)?,
                };
                keys.push((key.name, Some(value)));
            }
        }
        Ok(keys)
    }
}

fn all_options() -> impl Iterator<Item = &'static Flag> {
    DECISIONS.iter().flat_map(|row| row.options)
}

impl clap::Args for DecisionArgs {
    fn augment_args(command: Command) -> Command {
        let mut command = command;
        for DecisionKey { options, .. } in DECISIONS {
            for one in *options {
                let siblings = options.iter().map(|other| other.option).filter(|other| *other != one.option);
                command =
                    command.arg(one.arg().conflicts_with_all(siblings.chain(one.excludes.iter().copied())));
            }
        }
        let all: Vec<&str> = all_options().map(|one| one.option).collect();
        let undo = Arg::new(UNDO).long(UNDO).action(ArgAction::SetTrue).conflicts_with_all(&all);
        let group = clap::ArgGroup::new("decision").args(all).arg(UNDO).required(true).multiple(true);
        command.arg(undo.help("Take back all that was decided on it")).group(group)
    }

    fn augment_args_for_update(command: Command) -> Command {
        Self::augment_args(command)
    }
}

impl Flag {
    fn arg(&self) -> Arg {
        let arg = Arg::new(self.option).long(self.option).help(self.help);
        match self.takes {
            Wants::Nothing(_) => arg.action(ArgAction::SetTrue),
            Wants::One(name, _) => arg.value_name(name).allow_hyphen_values(self.option == "default"),
            Wants::Joined(name) => arg.value_name(name).value_delimiter(',').action(ArgAction::Append),
            Wants::Each(name, _) => arg.value_name(name).action(ArgAction::Append),
        }
    }
}

impl FromArgMatches for DecisionArgs {
    fn from_arg_matches(matches: &ArgMatches) -> Result<Self, Error> {
        let typed = |one: &'static Flag| match one.takes {
            Wants::Nothing(_) => matches.get_flag(one.option).then(|| (one.option, Vec::new())),
            Wants::One(..) | Wants::Joined(_) | Wants::Each(..) => {
                let values = matches.get_many::<String>(one.option)?;
                Some((one.option, values.cloned().collect()))
            }
        };
        Ok(Self { typed: all_options().filter_map(typed).collect(), undo: matches.get_flag(UNDO) })
    }

    fn update_from_arg_matches(&mut self, matches: &ArgMatches) -> Result<(), Error> {
        *self = Self::from_arg_matches(matches)?;
        Ok(())
    }
}
