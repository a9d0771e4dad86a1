//! Chores of the project: `cargo xtask` lists them.

#[path = "../../crates/prove/tests/common/mod.rs"]
#[allow(clippy::unwrap_used, reason = "our own data is as it should be")]
mod awkward;
mod dist;
mod documents;
mod fingerprint;
mod stages;
mod sweep;
mod tidy;

use std::path::Path;
use std::process::Command;

use anyhow::{Result, bail};

/// What there is to do.
const TASKS: &str = "\
bless                   write expected outputs anew
stages FILE [LANGUAGE]  print what each stage makes of samples or of a document
sweep FOLDER            prove every group of samples in a folder
fingerprint ...         note all that is grown, and tell what a change of the code changed in it
tidy                    check the house's rules
dist [PROGRAM]          pack a release for this machine: program, completions, manual, licences";

fn main() -> Result<()> {
    let mut arguments = std::env::args().skip(1);
    let task = arguments.next().unwrap_or_default();
    match task.as_str() {
        "bless" => bless(),
        "stages" => stages::stages(&arguments.collect::<Vec<_>>()),
        "sweep" => sweep::sweep(&arguments.collect::<Vec<_>>()),
        "fingerprint" => fingerprint::fingerprint(&arguments.collect::<Vec<_>>()),
        "tidy" => tidy::tidy(&root()),
        "dist" => dist::dist(&root(), &arguments.collect::<Vec<_>>()),
        _ => bail!("{TASKS}"),
    }
}

fn root() -> std::path::PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("..")
}

/// Writes every expected output anew; `git diff` then shows what changed.
fn bless() -> Result<()> {
    let status = Command::new("cargo")
        .args(["test", "-p", "jar-sprout"])
        .env("BLESS", "1")
        .current_dir(root())
        .status()?;
    if status.success() { Ok(()) } else { bail!("a test failed for another reason") }
}
