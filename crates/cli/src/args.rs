//! Arguments as they are typed.

use std::path::PathBuf;

use clap::{Parser, Subcommand, ValueEnum};

/// Typed model classes from sample JSON.
#[derive(Debug, Parser)]
#[command(name = "jar-sprout", version, max_term_width = 100)]
#[command(after_help = "Try `jar-sprout demo` first: it shows everything on data of its own.")]
pub(crate) struct Args {
    #[command(subcommand)]
    pub(crate) command: Command,
}

#[derive(Debug, Subcommand)]
pub(crate) enum Command {
    /// Show the shape of samples as a tree: types, presence, counts, examples
    Look(LookArgs),
    /// Tell the evidence for one type or field of the model
    Why(WhyArgs),
    /// Grow model code from samples, to standard output or into a folder
    Grow(GrowArgs),
    /// Prove the models: compile them, and pass every sample through them
    Prove(ProveArgs),
    /// List the languages and their settings
    Languages(LanguagesArgs),
    /// Run the full example on the data of an invented honey co-operative
    Demo(DemoArgs),
}

/// What is read.
#[derive(Debug, clap::Args)]
pub(crate) struct SourceArgs {
    /// JSON or NDJSON samples of the same thing: files, globs such as `hive-*.json`, or `-` for standard input
    #[arg(required = true, value_name = "SOURCE")]
    pub(crate) sources: Vec<String>,

    /// Take only this part of each sample: `$.hives[*].queen`
    #[arg(long, value_name = "JSONPATH")]
    pub(crate) at: Option<String>,
}

#[derive(Debug, clap::Args)]
pub(crate) struct LookArgs {
    #[command(flatten)]
    pub(crate) source: SourceArgs,

    #[command(flatten)]
    pub(crate) model: ModelArgs,

    /// How to show it
    #[arg(long, value_name = "FORMAT", default_value = "text")]
    pub(crate) format: Format,
}

#[derive(Debug, clap::Args)]
pub(crate) struct WhyArgs {
    #[command(flatten)]
    pub(crate) source: SourceArgs,

    /// The field: `Hive.queen_status`
    #[arg(long, value_name = "TYPE.KEY", conflicts_with = "type_name")]
    pub(crate) field: Option<String>,

    /// The type: `Hive`
    #[arg(long = "type", value_name = "TYPE")]
    pub(crate) type_name: Option<String>,

    #[command(flatten)]
    pub(crate) model: ModelArgs,

    /// How to show it
    #[arg(long, value_name = "FORMAT", default_value = "text")]
    pub(crate) format: Format,
}

/// How the samples are judged.
#[derive(Debug, Clone, clap::Args)]
pub(crate) struct ModelArgs {
    /// The name of the root type; without it, it is named after the file or the path
    #[arg(long)]
    pub(crate) name: Option<String>,

    /// How far to trust that a key is always there
    #[arg(long, value_name = "WHAT", default_value = "seen")]
    pub(crate) trust: TrustLevel,

    /// Keys to rely on even with `--trust nothing`: `id,name`
    #[arg(long, value_name = "KEYS", value_delimiter = ',')]
    pub(crate) essential: Vec<String>,

    /// Whether words that repeat become enums
    #[arg(long, value_name = "ON", default_value = "on")]
    pub(crate) enums: Switch,

    /// Whether texts that are dates become dates
    #[arg(long, value_name = "FORM", default_value = "typed")]
    pub(crate) dates: DateForm,

    /// Whether objects whose keys are data become maps
    #[arg(long, value_name = "ON", default_value = "on")]
    pub(crate) maps: Switch,

    /// How wide integers are
    #[arg(long, value_name = "WIDTH", default_value = "fit")]
    pub(crate) integers: IntegerWidth,

    /// What the name of every type starts with
    #[arg(long)]
    pub(crate) prefix: Option<String>,

    /// What a field is, whatever the samples say: `Hive.honey_kg=float`
    #[arg(long = "decide", value_name = "TYPE.KEY=WHAT")]
    pub(crate) decisions: Vec<String>,

    /// Which open questions to show
    #[arg(long, value_name = "WHICH", default_value = "worst")]
    pub(crate) questions: Questions,
}

/// How far presence is trusted.
#[derive(Debug, Clone, Copy, PartialEq, Eq, ValueEnum)]
pub(crate) enum TrustLevel {
    /// As the samples show it
    Seen,
    /// Not at all: every key may be missing but the essential ones
    Nothing,
}

/// On or off.
#[derive(Debug, Clone, Copy, PartialEq, Eq, ValueEnum)]
pub(crate) enum Switch {
    On,
    Off,
}

/// What a date becomes.
#[derive(Debug, Clone, Copy, PartialEq, Eq, ValueEnum)]
pub(crate) enum DateForm {
    /// The language's own type
    Typed,
    /// Text, as on the wire
    Text,
}

/// How wide integers are.
#[derive(Debug, Clone, Copy, PartialEq, Eq, ValueEnum)]
pub(crate) enum IntegerWidth {
    /// As wide as the numbers ask for
    Fit,
    /// 64 bits at least
    #[value(name = "64")]
    Wide,
}

/// Which open questions are shown.
#[derive(Debug, Clone, Copy, PartialEq, Eq, ValueEnum)]
pub(crate) enum Questions {
    /// The few that do most harm
    Worst,
    /// None
    None,
    /// All
    All,
}

/// For whom a result is shown.
#[derive(Debug, Clone, Copy, PartialEq, Eq, ValueEnum)]
pub(crate) enum Format {
    /// For people
    Text,
    /// For programs
    Json,
}

#[derive(Debug, clap::Args)]
pub(crate) struct GrowArgs {
    #[command(flatten)]
    pub(crate) source: SourceArgs,

    /// The language; `jar-sprout languages` lists them
    #[arg(long, value_name = "LANGUAGE")]
    pub(crate) into: String,

    #[command(flatten)]
    pub(crate) model: ModelArgs,

    /// Write files into this folder instead of standard output
    #[arg(long)]
    pub(crate) dir: Option<PathBuf>,

    /// The package of the code: short for `--with package=…`
    #[arg(long)]
    pub(crate) package: Option<String>,

    /// A setting of the language; `jar-sprout languages` lists them
    #[arg(long = "with", value_name = "KEY=VALUE")]
    pub(crate) settings: Vec<String>,
}

#[derive(Debug, clap::Args)]
pub(crate) struct ProveArgs {
    #[command(flatten)]
    pub(crate) source: SourceArgs,

    /// A language to prove; all of them where none is named
    #[arg(long, value_name = "LANGUAGE")]
    pub(crate) into: Vec<String>,

    #[command(flatten)]
    pub(crate) model: ModelArgs,

    /// A setting of the language, where there is just one
    #[arg(long = "with", value_name = "KEY=VALUE")]
    pub(crate) settings: Vec<String>,

    /// Hear its linters and formatters as well, where they are at hand
    #[arg(long)]
    pub(crate) judges: bool,

    /// How to show it
    #[arg(long, value_name = "FORMAT", default_value = "text")]
    pub(crate) format: Format,
}

#[derive(Debug, clap::Args)]
pub(crate) struct LanguagesArgs {
    /// Only this language
    #[arg(value_name = "LANGUAGE")]
    pub(crate) language: Option<String>,
}

#[derive(Debug, clap::Args)]
pub(crate) struct DemoArgs {
    /// The folder to make
    #[arg(long, default_value = "jar-sprout-demo")]
    pub(crate) dir: PathBuf,
}

impl Default for ModelArgs {
    fn default() -> Self {
        Self {
            name: None,
            trust: TrustLevel::Seen,
            essential: Vec::new(),
            enums: Switch::On,
            dates: DateForm::Typed,
            maps: Switch::On,
            integers: IntegerWidth::Fit,
            prefix: None,
            decisions: Vec::new(),
            questions: Questions::None,
        }
    }
}
