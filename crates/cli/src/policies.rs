//! Policies: one table that feeds the command line, the jar's reader, and the reference.

use clap::builder::{NonEmptyStringValueParser, PossibleValue};
use clap::parser::ValueSource;
use clap::{Arg, ArgAction, ArgMatches, Command, Error, FromArgMatches};
use jar_sprout_model::Words;
use jar_sprout_settle::{Policies, Trust};
use toml_edit::{Array, Item, Value};

use crate::keys::{Key, Takes, texts_of};

/// A policy.
pub(crate) struct PolicyKey {
    pub(crate) key: Key,
    /// What its option says of it.
    help: &'static str,
    takes: Wants,
}

/// What a policy takes, and what it makes of that.
enum Wants {
    /// One of these; the first one where nothing is said.
    OneOf(&'static str, &'static [OneOf]),
    /// `on` or `off`, in the jar `true` or `false`; `on` where nothing is said.
    Switch(fn(&mut Policies, bool)),
    Texts(&'static str, fn(&mut Policies, Vec<String>)),
    Text(&'static str, fn(&mut Policies, String)),
}

const ON: &str = "on";
const OFF: &str = "off";

/// A value that a policy can have.
struct OneOf {
    value: &'static str,
    help: &'static str,
    set: fn(&mut Policies),
}

/// What `--help` calls them.
const POLICIES_HEADING: &str = "How the samples are judged";

/// All policies.
pub(crate) static POLICIES: &[PolicyKey] = &[
    PolicyKey {
        key: Key::new(
            "trust",
            Takes::Choice(&["seen", "nothing"]),
            "how far to trust that a key is always there",
            "trust = \"nothing\"",
        ),
        help: "How far to trust that a key is always there",
        takes: Wants::OneOf(
            "WHAT",
            &[
                OneOf {
                    value: "seen",
                    help: "As the samples show it",
                    set: |policies| policies.trust = Trust::Seen,
                },
                OneOf {
                    value: "nothing",
                    help: "Not at all: every key may be missing but the essential ones",
                    set: |policies| policies.trust = Trust::Nothing,
                },
            ],
        ),
    },
    PolicyKey {
        key: Key::new(
            "essential",
            Takes::Texts,
            "keys to rely on even where nothing is trusted",
            "essential = [\"id\", \"name\"]",
        ),
        help: "Keys to rely on even with `--trust nothing`: `id,name`",
        takes: Wants::Texts("KEYS", |policies, keys| policies.essential = keys.into_iter().collect()),
    },
    PolicyKey {
        key: Key::new("enums", Takes::Switch, "whether words that repeat become enums", "enums = false"),
        help: "Whether words that repeat become enums",
        takes: Wants::Switch(|policies, is_on| policies.enums = is_on),
    },
    PolicyKey {
        key: Key::new(
            "dates",
            Takes::Choice(&["typed", "text"]),
            "what texts that are dates become",
            "dates = \"text\"",
        ),
        help: "Whether texts that are dates become dates",
        takes: Wants::OneOf(
            "FORM",
            &[
                OneOf {
                    value: "typed",
                    help: "The language's own type",
                    set: |policies| policies.dates = true,
                },
                OneOf { value: "text", help: "Text, as on the wire", set: |policies| policies.dates = false },
            ],
        ),
    },
    PolicyKey {
        key: Key::new(
            "maps",
            Takes::Switch,
            "whether objects whose keys are data become maps",
            "maps = false",
        ),
        help: "Whether objects whose keys are data become maps",
        takes: Wants::Switch(|policies, is_on| policies.maps = is_on),
    },
    PolicyKey {
        key: Key::new(
            "integers",
            Takes::Choice(&["fit", "64"]),
            "how wide integers are",
            "integers = \"64\"",
        ),
        help: "How wide integers are",
        takes: Wants::OneOf(
            "WIDTH",
            &[
                OneOf {
                    value: "fit",
                    help: "As wide as the numbers ask for",
                    set: |policies| policies.wide_integers = false,
                },
                OneOf {
                    value: "64",
                    help: "64 bits at least",
                    set: |policies| policies.wide_integers = true,
                },
            ],
        ),
    },
    PolicyKey {
        key: Key::new(
            "defaults",
            Takes::Choice(&["said", "code"]),
            "what the default values of a document become: documentation, or the code's own",
            "defaults = \"code\"",
        ),
        help: "What the default values of a document become",
        takes: Wants::OneOf(
            "FORM",
            &[
                OneOf { value: "said", help: "Documentation", set: |policies| policies.defaults = false },
                OneOf {
                    value: "code",
                    help: "The code's own: what is absent has that value, and is written with it",
                    set: |policies| policies.defaults = true,
                },
            ],
        ),
    },
    PolicyKey {
        key: Key::new("prefix", Takes::Word, "what the name of every type starts with", "prefix = \"Fm\""),
        help: "What the name of every type starts with",
        takes: Wants::Text("PREFIX", |policies, prefix| policies.prefix = Some(Words::split(&prefix))),
    },
];

/// The keys of all policies.
pub(crate) fn policy_keys() -> Vec<Key> {
    POLICIES.iter().map(|policy| policy.key).collect()
}

impl PolicyKey {
    /// Takes over the value of a jar, whose kind was checked.
    pub(crate) fn read(&self, item: &Item, policies: &mut Policies) {
        let typed = match item.as_bool() {
            Some(is_on) => vec![if is_on { ON } else { OFF }.to_owned()],
            None => texts_of(item).unwrap_or_else(|| item.as_str().map(str::to_owned).into_iter().collect()),
        };
        self.set(typed, policies);
    }

    fn arg(&self) -> Arg {
        let name = self.key.name;
        let arg = Arg::new(name).long(name).help(self.help).help_heading(POLICIES_HEADING);
        match &self.takes {
            Wants::OneOf(value_name, choices) => {
                let values = choices.iter().map(|choice| PossibleValue::new(choice.value).help(choice.help));
                arg.value_name(*value_name)
                    .value_parser(values.collect::<Vec<_>>())
                    .default_value(choices[0].value)
            }
            Wants::Switch(_) => arg.value_name("ON").value_parser([ON, OFF]).default_value(ON),
            Wants::Texts(value_name, _) => {
                arg.value_name(*value_name).value_delimiter(',').action(ArgAction::Append)
            }
            Wants::Text(value_name, _) => {
                arg.value_name(*value_name).value_parser(NonEmptyStringValueParser::new())
            }
        }
    }

    /// What was typed; nothing where the default holds.
    fn typed(&self, matches: &ArgMatches) -> Option<Vec<String>> {
        let is_typed = matches.value_source(self.key.name) == Some(ValueSource::CommandLine);
        let values = matches.get_many::<String>(self.key.name).filter(|_| is_typed)?;
        Some(values.cloned().collect())
    }

    /// What was typed, as a jar says it.
    fn as_toml(&self, typed: &[String]) -> Value {
        let first = typed.first().map(String::as_str).unwrap_or_default();
        match &self.takes {
            Wants::OneOf(..) | Wants::Text(..) => first.into(),
            Wants::Switch(_) => (first == ON).into(),
            Wants::Texts(..) => typed.iter().collect::<Array>().into(),
        }
    }

    /// Sets the policy to what was typed, which is one text but where it takes several.
    fn set(&self, typed: Vec<String>, policies: &mut Policies) {
        let first = typed.first().cloned().unwrap_or_default();
        match &self.takes {
            Wants::OneOf(_, choices) => {
                if let Some(choice) = choices.iter().find(|choice| choice.value == first) {
                    (choice.set)(policies);
                }
            }
            Wants::Switch(set) => set(policies, first == ON),
            Wants::Texts(_, set) => set(policies, typed),
            Wants::Text(_, set) => set(policies, first),
        }
    }
}

/// The policies of the command line.
#[derive(Debug, Clone)]
pub(crate) struct PolicyArgs {
    pub(crate) policies: Policies,
    /// Those that were typed, as a jar says them.
    pub(crate) typed: Vec<(&'static str, Value)>,
}

impl clap::Args for PolicyArgs {
    fn augment_args(command: Command) -> Command {
        POLICIES.iter().fold(command, |command, policy| command.arg(policy.arg()))
    }

    fn augment_args_for_update(command: Command) -> Command {
        Self::augment_args(command)
    }
}

impl FromArgMatches for PolicyArgs {
    fn from_arg_matches(matches: &ArgMatches) -> Result<Self, Error> {
        let (mut policies, mut all) = (Policies::default(), Vec::new());
        for policy in POLICIES {
            if let Some(typed) = policy.typed(matches) {
                all.push((policy.key.name, policy.as_toml(&typed)));
                policy.set(typed, &mut policies);
            }
        }
        Ok(Self { policies, typed: all })
    }

    fn update_from_arg_matches(&mut self, matches: &ArgMatches) -> Result<(), Error> {
        *self = Self::from_arg_matches(matches)?;
        Ok(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn jar_and_command_line_take_the_same_values() {
        for PolicyKey { key, takes, .. } in POLICIES {
            match (key.takes, takes) {
                (Takes::Choice(values), Wants::OneOf(_, choices)) => {
                    assert!(
                        choices.iter().map(|choice| choice.value).eq(values.iter().copied()),
                        "{}",
                        key.name
                    );
                }
                (Takes::Switch, Wants::Switch(_))
                | (Takes::Texts, Wants::Texts(..))
                | (Takes::Word, Wants::Text(..)) => {}
                (other, _) => panic!("{} takes {other:?} in the jar alone", key.name),
            }
        }
    }
}
