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
    /// Grow model code from samples, to standard output or into a folder
    Grow(GrowArgs),
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

    /// How to show it
    #[arg(long, value_name = "FORMAT", default_value = "text")]
    pub(crate) format: Format,
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

    /// The language: kotlin, typescript
    #[arg(long, value_name = "LANGUAGE")]
    pub(crate) into: String,

    /// The name of the root type; without it, it is named after the file or the path
    #[arg(long)]
    pub(crate) name: Option<String>,

    /// Write files into this folder instead of standard output
    #[arg(long)]
    pub(crate) dir: Option<PathBuf>,

    /// The package of the code
    #[arg(long)]
    pub(crate) package: Option<String>,
}

#[derive(Debug, clap::Args)]
pub(crate) struct DemoArgs {
    /// The folder to make
    #[arg(long, default_value = "jar-sprout-demo")]
    pub(crate) dir: PathBuf,
}
