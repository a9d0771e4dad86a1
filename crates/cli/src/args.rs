//! Arguments as they are typed.

use std::path::PathBuf;

use clap::{Parser, Subcommand, ValueEnum};

use crate::decisions::DecisionArgs;
use crate::policies::PolicyArgs;

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
    /// Grow model code: from samples, to standard output or into a folder; of a jar, all that it says
    Grow(GrowArgs),
    /// Make a jar: a file that keeps sources, decisions and the languages to grow
    Init(InitArgs),
    /// Write one decision on a type or field into the jar
    Decide(DecideArgs),
    /// Tell whether the jar's samples fit its models, and its grown files are current
    Check(CheckArgs),
    /// Prove the models: compile them, and pass every sample through them
    ///
    /// Compilers and libraries are looked for in the folder that JAR_SPROUT_TOOLCHAINS names, else in `.toolchains` in
    /// this folder or one above it, else in `.jar-sprout/toolchains` in yours; and on PATH.
    Prove(ProveArgs),
    /// List the languages and their settings
    Languages(LanguagesArgs),
    /// Run the full example on the data of an invented honey co-operative
    Demo(DemoArgs),
}

/// What is read.
#[derive(Debug, Clone, clap::Args)]
pub(crate) struct SourceArgs {
    /// Samples of the same thing, in JSON, NDJSON or YAML: files, globs such as `hive-*.json`, or `-` for standard
    /// input; or a JSON Schema, OpenAPI or Swagger document, or a part of one: `api.yaml#/components/schemas/Hive`.
    /// None for those of the jar
    #[arg(value_name = "SOURCE")]
    pub(crate) sources: Vec<String>,

    /// Take only this part of each sample: `$.hives[*].queen`
    #[arg(long, value_name = "JSONPATH")]
    pub(crate) at: Option<String>,

    /// The folder in which a document may refer to other files; without it, the document's own
    #[arg(long, value_name = "FOLDER")]
    pub(crate) refs_from: Option<PathBuf>,

    /// Read past comments and needless commas in samples
    #[arg(long)]
    pub(crate) lenient: bool,
}

/// Which models of the jar.
#[derive(Debug, Clone, clap::Args)]
pub(crate) struct OnlyArgs {
    /// Of the jar, only these models
    #[arg(long, value_name = "MODEL", conflicts_with = "sources")]
    pub(crate) only: Vec<String>,
}

#[derive(Debug, clap::Args)]
pub(crate) struct LookArgs {
    #[command(flatten)]
    pub(crate) source: SourceArgs,

    #[command(flatten)]
    pub(crate) model: ModelArgs,

    #[command(flatten)]
    pub(crate) only: OnlyArgs,

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

    #[command(flatten)]
    pub(crate) only: OnlyArgs,

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

    #[command(flatten)]
    pub(crate) policies: PolicyArgs,

    /// What a field is, whatever the samples say: `Hive.honey_kg=float`, `Hive.debug=leave-out`
    #[arg(long = "decide", value_name = "TYPE.KEY=WHAT")]
    pub(crate) decisions: Vec<String>,

    /// Another name for a type or field: `Hive.img=imageUrl`
    #[arg(long = "rename", value_name = "TYPE.KEY=NAME")]
    pub(crate) renames: Vec<String>,

    /// Which open questions to show
    #[arg(long, value_name = "WHICH", default_value = "worst")]
    pub(crate) questions: Questions,
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

    /// The language; `jar-sprout languages` lists them. Of a jar, only this one
    #[arg(long, value_name = "LANGUAGE")]
    pub(crate) into: Option<String>,

    #[command(flatten)]
    pub(crate) model: ModelArgs,

    #[command(flatten)]
    pub(crate) only: OnlyArgs,

    /// Write files into this folder instead of standard output; in a jar, the folder of a new language
    #[arg(long)]
    pub(crate) dir: Option<PathBuf>,

    /// The package of the code: short for `--with package=…`
    #[arg(long)]
    pub(crate) package: Option<String>,

    /// A setting of the language; `jar-sprout languages` lists them
    #[arg(long = "with", value_name = "KEY=VALUE")]
    pub(crate) settings: Vec<String>,

    /// Write nothing; show what would change, as a unified diff
    #[arg(long)]
    pub(crate) dry_run: bool,

    /// Write over grown files that were changed since
    #[arg(long)]
    pub(crate) overwrite: bool,

    /// Grow again whenever a sample or the jar changes
    #[arg(long, conflicts_with = "dry_run")]
    pub(crate) watch: bool,
}

#[derive(Debug, clap::Args)]
pub(crate) struct InitArgs {
    /// Samples of one model, or a document or parts of it; files outside this folder are copied into `samples`
    #[arg(value_name = "SOURCE")]
    pub(crate) sources: Vec<String>,

    /// More samples for a model that is there
    #[arg(long, value_name = "SAMPLE", conflicts_with = "sources")]
    pub(crate) add: Vec<String>,

    /// The part of each sample that is taken: `$.hives[*]`
    #[arg(long, value_name = "JSONPATH", requires = "sources")]
    pub(crate) at: Option<String>,

    /// What the jar calls the model; without it, it is named after the samples
    #[arg(long)]
    pub(crate) model: Option<String>,

    /// The name of the root type
    #[arg(long, requires = "sources")]
    pub(crate) name: Option<String>,

    /// Read past comments and needless commas in the samples
    #[arg(long, requires = "sources")]
    pub(crate) lenient: bool,

    #[command(flatten)]
    pub(crate) policies: PolicyArgs,

    /// A language to grow
    #[arg(long, value_name = "LANGUAGE")]
    pub(crate) into: Vec<String>,

    /// The folder to grow into; each language has a folder of its own in it where there are several
    #[arg(long, default_value = "models")]
    pub(crate) dir: PathBuf,

    /// The package of the code: short for `--with package=…`
    #[arg(long, requires = "into")]
    pub(crate) package: Option<String>,

    /// A setting of the languages; `jar-sprout languages` lists them
    #[arg(long = "with", value_name = "KEY=VALUE", requires = "into")]
    pub(crate) settings: Vec<String>,

    /// Make nothing; print the JSON Schema of jar.toml, with which editors complete it
    #[arg(long)]
    pub(crate) schema: bool,
}

#[derive(Debug, clap::Args)]
pub(crate) struct DecideArgs {
    /// Types or fields: `Hive`, `Hive.img`; `*` stands for any part: `*.created_at`
    #[arg(value_name = "TYPE.KEY", required = true)]
    pub(crate) subjects: Vec<String>,

    #[command(flatten)]
    pub(crate) what: DecisionArgs,

    /// The model it is for, where the jar has several
    #[arg(long, value_name = "MODEL")]
    pub(crate) only: Option<String>,
}

#[derive(Debug, clap::Args)]
pub(crate) struct CheckArgs {
    /// Only these models
    #[arg(long, value_name = "MODEL")]
    pub(crate) only: Vec<String>,

    /// How to show it
    #[arg(long, value_name = "FORMAT", default_value = "text")]
    pub(crate) format: Format,
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

    #[command(flatten)]
    pub(crate) only: OnlyArgs,

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
