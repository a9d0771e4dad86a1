//! Arguments as they are typed.

use std::path::PathBuf;

use clap::{Parser, Subcommand, ValueEnum};

use crate::decisions::DecisionArgs;
use crate::policies::PolicyArgs;
use crate::recipe::Recipe;

/// Typed model classes from sample JSON.
#[derive(Debug, Parser)]
#[command(name = "jar-sprout", version, max_term_width = 100)]
#[command(after_help = "\
A file alone is looked at: `jar-sprout response.json` means `jar-sprout look response.json`.
Try `jar-sprout demo` first: it shows everything on data of its own.
Policies, dates, numbers and nulls, and a page for each language, are in docs/ beside the README.")]
pub(crate) struct Args {
    #[command(subcommand)]
    pub(crate) command: Command,

    /// Whether to colour
    #[arg(long, value_name = "WHEN", global = true, default_value = "auto", help_heading = "Everywhere")]
    pub(crate) color: Color,

    /// Say nothing but results and errors
    #[arg(long, short, global = true, help_heading = "Everywhere")]
    pub(crate) quiet: bool,
}

/// Whether to colour.
#[derive(Debug, Clone, Copy, PartialEq, Eq, ValueEnum)]
pub(crate) enum Color {
    /// At a terminal that wants it
    Auto,
    Always,
    Never,
}

#[derive(Debug, Subcommand)]
pub(crate) enum Command {
    /// Show the shape of samples as a tree: types, presence, counts, examples
    #[command(after_help = "Example:\n  jar-sprout look hives.json --at '$.hives[*]'")]
    Look(LookArgs),
    /// Tell the evidence for one type or field of the model
    #[command(after_help = "Example:\n  jar-sprout why hives.json --field Queen.status")]
    Why(WhyArgs),
    /// Grow model code: from samples, to standard output or into a folder; of a jar, all that it says
    #[command(
        after_help = "Example:\n  jar-sprout grow hives.json --at '$.hives[*]' --into kotlin --package coop.fennimarsh"
    )]
    Grow(GrowArgs),
    /// Make a jar, a file that keeps sources, decisions and the languages to grow; or add to it
    #[command(after_help = "Example:\n  jar-sprout init hives.json --into kotlin --dir app/models")]
    Init(InitArgs),
    /// Write decisions on types and fields into the jar
    #[command(after_help = "Example:\n  jar-sprout decide Queen.colour --rename mark --only hive")]
    Decide(DecideArgs),
    /// Tell whether the jar's samples fit its models, and its grown files are current
    #[command(after_help = "Example:\n  jar-sprout check --format json")]
    Check(CheckArgs),
    /// Tell what changed between two sides, and what of that breaks
    ///
    /// Each side is what a model is made of: samples, a document or a part of one, a jar. Inside a jar, one side alone is
    /// held against the model as it stands; without any, the jar is held against its last commit.
    #[command(after_help = "Example:\n  jar-sprout drift hives.json hives.json")]
    Drift(DriftArgs),
    /// Prove the models: compile them, and pass every sample through them
    ///
    /// Compilers and libraries are looked for in the folder that JAR_SPROUT_TOOLCHAINS names, else in `.toolchains` in
    /// this folder or one above it, else in `.jar-sprout/toolchains` in yours; and on PATH.
    #[command(after_help = "Example:\n  jar-sprout prove hives.json --into go")]
    Prove(ProveArgs),
    /// Record what an API answers, as samples of the jar; alone, ask again for all of it
    ///
    /// `${NAME}` in a URL, a header, a parameter or a body is read from the environment, or from a file; no secret is
    /// written down or shown. The jar remembers what was asked, and how. Nothing else asks a network.
    #[command(
        after_help = "Example:\n  jar-sprout fetch https://api.honey.example/hives --header 'X-Key: ${HIVES_TOKEN}'"
    )]
    Fetch(FetchArgs),
    /// Write samples that make the same model and hold none of the values, for version control and bug reports
    ///
    /// Letters become other letters, digits other digits, and dates move; forms, lengths and what is equal stay. Words of
    /// enums, truths and nulls stay as they are, and are told.
    #[command(after_help = "Example:\n  jar-sprout scrub hives.json --keep-values Queen.status")]
    Scrub(ScrubArgs),
    /// Answer in the place of an API, on this machine alone: with the jar's samples, else with the demo's
    ///
    /// Lists come in pages, and `/openapi.json` says what there is. The first line is where it listens; Ctrl-C ends it.
    #[command(after_help = "Example:\n  jar-sprout stand-in --key b33s --flaky")]
    StandIn(StandInArgs),
    /// Show how to use the code: what the build file needs, and a program that reads a response with it
    #[command(after_help = "Example:\n  jar-sprout use hives.json --into swift")]
    Use(UseArgs),
    /// List the languages and their settings
    #[command(
        after_help = "Example:\n  jar-sprout languages kotlin\n\nA page for each, with its code, is in docs/languages beside the README."
    )]
    Languages(LanguagesArgs),
    /// Run the full example on the data of an invented honey co-operative
    #[command(after_help = "Example:\n  jar-sprout demo --dir honey")]
    Demo(DemoArgs),
    /// Print what completes these commands in a shell
    #[command(after_help = "Example:\n  jar-sprout completions bash")]
    Completions(CompletionsArgs),
    /// Print a page of the manual, as `man` reads it
    #[command(after_help = "Example:\n  jar-sprout manual grow")]
    Manual(ManualArgs),
}

#[derive(Debug, clap::Args)]
pub(crate) struct CompletionsArgs {
    /// The shell
    #[arg(value_name = "SHELL")]
    pub(crate) shell: clap_complete::Shell,
}

#[derive(Debug, clap::Args)]
pub(crate) struct ManualArgs {
    /// The command; without it, the page about all of them
    #[arg(value_name = "COMMAND")]
    pub(crate) command: Option<String>,

    /// Write all pages into this folder: `jar-sprout.1`, `jar-sprout-grow.1`, and so on
    #[arg(long, conflicts_with = "command")]
    pub(crate) dir: Option<PathBuf>,
}

/// What is read.
#[derive(Debug, Clone, clap::Args)]
#[command(next_help_heading = "What is read")]
pub(crate) struct SourceArgs {
    /// Samples of the same thing, in JSON, NDJSON or YAML: files, globs such as `hive-*.json`, or `-` for standard
    /// input; or a JSON Schema, OpenAPI or Swagger document, or a part of one: `api.yaml#/components/schemas/Hive`; or
    /// recorded traffic, an HTTP Archive (HAR). None for those of the jar
    #[arg(value_name = "SOURCE")]
    pub(crate) sources: Vec<String>,

    /// Of recorded traffic, what this endpoint answered, or was sent: `GET /hives/{id}`; `look` lists them
    #[arg(long, value_name = "ENDPOINT")]
    pub(crate) endpoint: Option<String>,

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
    pub(crate) only: OnlyArgs,

    /// How to show it
    #[arg(long, value_name = "FORMAT", default_value = "text")]
    pub(crate) format: Format,

    #[command(flatten)]
    pub(crate) source: SourceArgs,

    #[command(flatten)]
    pub(crate) model: ModelArgs,
}

#[derive(Debug, Clone, clap::Args)]
pub(crate) struct FetchArgs {
    /// Addresses to ask, each for a model of the jar; `{id}` in one is filled by `--each`. None to ask again what the jar
    /// remembers
    #[arg(value_name = "URL")]
    pub(crate) urls: Vec<String>,

    /// A `curl` command line, as documentation and browsers give it: its addresses, method, headers and data
    #[arg(long, value_name = "LINE")]
    pub(crate) curl: Option<String>,

    /// What the jar calls the model; without it, it is named after the address
    #[arg(long)]
    pub(crate) model: Option<String>,

    /// The part of each sample that the model takes: `$.hives[*]`
    #[arg(long, value_name = "JSONPATH")]
    pub(crate) at: Option<String>,

    /// Ask again only what the jar remembers of these models
    #[arg(long, value_name = "MODEL", conflicts_with_all = ["urls", "curl", "model", "dir", "at"])]
    pub(crate) only: Vec<String>,

    /// Write samples into this folder, and nothing into a jar
    #[arg(long, conflicts_with_all = ["model", "at"])]
    pub(crate) dir: Option<PathBuf>,

    #[command(flatten)]
    pub(crate) recipe: Recipe,
}

#[derive(Debug, clap::Args)]
pub(crate) struct ScrubArgs {
    /// Samples of the same thing, in JSON, NDJSON or YAML: files, globs such as `hive-*.json`, or `-` for standard input
    #[arg(value_name = "SAMPLE", required = true)]
    pub(crate) samples: Vec<String>,

    /// Write files of the same names into this folder instead of standard output
    #[arg(long)]
    pub(crate) dir: Option<PathBuf>,

    /// Write over what stands there
    #[arg(long, requires = "dir")]
    pub(crate) overwrite: bool,

    /// Leave the values of this field as they are: `Hive.status`
    #[arg(long, value_name = "TYPE.KEY")]
    pub(crate) keep_values: Vec<String>,

    /// Scrub the words of this field as well, which the model has for an enum: `Hive.keeper`
    #[arg(long, value_name = "TYPE.KEY")]
    pub(crate) scrub_words: Vec<String>,

    /// Read past comments and needless commas in samples
    #[arg(long)]
    pub(crate) lenient: bool,
}

#[derive(Debug, clap::Args)]
pub(crate) struct WhyArgs {
    /// The field: `Hive.queen_status`
    #[arg(long, value_name = "TYPE.KEY", conflicts_with = "type_name")]
    pub(crate) field: Option<String>,

    /// The type: `Hive`
    #[arg(long = "type", value_name = "TYPE")]
    pub(crate) type_name: Option<String>,

    #[command(flatten)]
    pub(crate) only: OnlyArgs,

    /// How to show it
    #[arg(long, value_name = "FORMAT", default_value = "text")]
    pub(crate) format: Format,

    #[command(flatten)]
    pub(crate) source: SourceArgs,

    #[command(flatten)]
    pub(crate) model: ModelArgs,
}

/// How the samples are judged.
#[derive(Debug, Clone, clap::Args)]
#[command(next_help_heading = "How the samples are judged")]
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

/// As what code is grown.
#[derive(Debug, Clone, clap::Args)]
pub(crate) struct CodeArgs {
    /// The package of the code: short for `--with package=…`
    #[arg(long)]
    pub(crate) package: Option<String>,

    /// A setting of the language; `jar-sprout languages` lists them
    #[arg(long = "with", value_name = "KEY=VALUE")]
    pub(crate) settings: Vec<String>,
}

#[derive(Debug, clap::Args)]
pub(crate) struct GrowArgs {
    /// The language; `jar-sprout languages` lists them. Of a jar, only this one
    #[arg(long, value_name = "LANGUAGE")]
    pub(crate) into: Option<String>,

    #[command(flatten)]
    pub(crate) only: OnlyArgs,

    /// Write files into this folder instead of standard output; in a jar, the folder of a new language
    #[arg(long)]
    pub(crate) dir: Option<PathBuf>,

    #[command(flatten)]
    pub(crate) code: CodeArgs,

    /// Write nothing; show what would change, as a unified diff
    #[arg(long)]
    pub(crate) dry_run: bool,

    /// Write over grown files that were changed since
    #[arg(long)]
    pub(crate) overwrite: bool,

    /// Grow again whenever a sample or the jar changes
    #[arg(long, conflicts_with = "dry_run")]
    pub(crate) watch: bool,

    #[command(flatten)]
    pub(crate) source: SourceArgs,

    #[command(flatten)]
    pub(crate) model: ModelArgs,
}

#[derive(Debug, clap::Args)]
pub(crate) struct InitArgs {
    /// Samples of one model, or a document or parts of it; files outside this folder are copied into `samples`. Or
    /// recorded traffic, an HTTP Archive (HAR): a model for each endpoint, its bodies into `samples`, no header with them
    #[arg(value_name = "SOURCE")]
    pub(crate) sources: Vec<String>,

    /// Of recorded traffic, only these endpoints: `GET /hives/{id}`, `/hives*`
    #[arg(long, value_name = "ENDPOINT")]
    pub(crate) endpoint: Vec<String>,

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
    /// Samples to hold against a model of the jar, instead of its own: does today's response fit?
    #[arg(value_name = "SAMPLE")]
    pub(crate) samples: Vec<String>,

    /// Only these models
    #[arg(long, value_name = "MODEL")]
    pub(crate) only: Vec<String>,

    /// How to show it
    #[arg(long, value_name = "FORMAT", default_value = "text")]
    pub(crate) format: Format,
}

#[derive(Debug, clap::Args)]
pub(crate) struct DriftArgs {
    /// The old side and the new one; of a jar, the new one alone, or none
    #[arg(value_name = "SIDE", num_args = 0..=2)]
    pub(crate) sides: Vec<String>,

    /// Hold the jar against itself as it was at this revision of its repository
    #[arg(long, value_name = "REVISION", conflicts_with = "sides")]
    pub(crate) since: Option<String>,

    /// Of the jar, only these models
    #[arg(long, value_name = "MODEL")]
    pub(crate) only: Vec<String>,

    /// Take only this part of each sample: `$.hives[*]`
    #[arg(long, value_name = "JSONPATH")]
    pub(crate) at: Option<String>,

    /// A language that reads it, which may fail or not; of a jar, its own where none is named
    #[arg(long, value_name = "LANGUAGE")]
    pub(crate) into: Vec<String>,

    /// A setting of the language, where there is just one
    #[arg(long = "with", value_name = "KEY=VALUE", requires = "into")]
    pub(crate) settings: Vec<String>,

    /// From which finding on the exit status is 1
    #[arg(long, value_name = "WHAT", default_value = "breaks")]
    pub(crate) fail_on: FailOn,

    /// Leave out what is harmless
    #[arg(long)]
    pub(crate) no_harmless: bool,

    /// How to show it
    #[arg(long, value_name = "FORMAT", default_value = "text")]
    pub(crate) format: DriftFormat,
}

/// From which finding on a drift is a failure.
#[derive(Debug, Clone, Copy, PartialEq, Eq, ValueEnum)]
pub(crate) enum FailOn {
    /// Something breaks
    Breaks,
    /// Something is lost
    Loses,
    /// Anything changed
    Anything,
    /// Nothing
    Nothing,
}

/// For whom a drift is shown.
#[derive(Debug, Clone, Copy, PartialEq, Eq, ValueEnum)]
pub(crate) enum DriftFormat {
    /// For people
    Text,
    /// For programs
    Json,
    /// For a comment on a change
    Markdown,
}

#[derive(Debug, clap::Args)]
pub(crate) struct ProveArgs {
    /// A language to prove; all of them where none is named
    #[arg(long, value_name = "LANGUAGE")]
    pub(crate) into: Vec<String>,

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

    #[command(flatten)]
    pub(crate) source: SourceArgs,

    #[command(flatten)]
    pub(crate) model: ModelArgs,
}

#[derive(Debug, clap::Args)]
pub(crate) struct UseArgs {
    /// A language; of a jar, all of its own where none is named
    #[arg(long, value_name = "LANGUAGE")]
    pub(crate) into: Vec<String>,

    #[command(flatten)]
    pub(crate) only: OnlyArgs,

    #[command(flatten)]
    pub(crate) code: CodeArgs,

    /// How to show it
    #[arg(long, value_name = "FORMAT", default_value = "text")]
    pub(crate) format: Format,

    #[command(flatten)]
    pub(crate) source: SourceArgs,

    #[command(flatten)]
    pub(crate) model: ModelArgs,
}

#[derive(Debug, clap::Args)]
pub(crate) struct LanguagesArgs {
    /// Only this language
    #[arg(value_name = "LANGUAGE")]
    pub(crate) language: Option<String>,
}

#[derive(Debug, clap::Args)]
pub(crate) struct StandInArgs {
    /// The port on 127.0.0.1; 0 for any that is free
    #[arg(long, value_name = "N", default_value_t = 8017)]
    pub(crate) port: u16,

    /// A key that is wanted: as `Authorization: Bearer KEY`, `X-Key: KEY` or `?key=KEY`
    #[arg(long)]
    pub(crate) key: Option<String>,

    /// Refuse every fourth request with 429, and ask to be asked again in a second
    #[arg(long)]
    pub(crate) flaky: bool,

    /// How long to wait before each answer
    #[arg(long, value_name = "SECONDS", default_value_t = 0.0)]
    pub(crate) delay: f64,

    /// How many items a page has; without it as many as in the samples
    #[arg(long, value_name = "N", value_parser = clap::value_parser!(u32).range(1..))]
    pub(crate) page_size: Option<u32>,

    /// Of the jar, only these models
    #[arg(long, value_name = "MODEL")]
    pub(crate) only: Vec<String>,
}

#[derive(Debug, clap::Args)]
pub(crate) struct DemoArgs {
    /// The folder to make
    #[arg(long, default_value = "jar-sprout-demo")]
    pub(crate) dir: PathBuf,
}
