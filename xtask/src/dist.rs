//! `cargo xtask dist`: an archive of a release for this machine, with the program, completions, manual and licences.

use std::fs;
use std::path::{Path, PathBuf};
use std::process::{Command, Stdio};

use anyhow::{Context as _, Result, ensure};

const SHELLS: &[&str] = &["bash", "elvish", "fish", "powershell", "zsh"];

/// What is taken from the project as it is.
const TEXTS: &[&str] = &["README.md", "CHANGELOG.md", "LICENSE-APACHE", "LICENSE-MIT"];

/// Builds the program, or takes one that was built, and packs it into `target/dist`.
pub(crate) fn dist(root: &Path, arguments: &[String]) -> Result<()> {
    let program = match arguments {
        [built] => PathBuf::from(built),
        _ => build(root)?,
    };
    let name = format!(
        "jar-sprout-{}-{}-{}",
        env!("CARGO_PKG_VERSION"),
        std::env::consts::ARCH,
        std::env::consts::OS
    );
    let place = root.join("target/dist");
    let folder = place.join(&name);
    if folder.exists() {
        fs::remove_dir_all(&folder)?;
    }
    fs::create_dir_all(folder.join("completions"))?;
    let file_name = program.file_name().context("the program has a name")?;
    fs::copy(&program, folder.join(file_name))?;
    for shell in SHELLS {
        let script = output(Command::new(&program).args(["completions", shell]))?;
        fs::write(folder.join("completions").join(format!("jar-sprout.{shell}")), script)?;
    }
    output(Command::new(&program).args(["manual", "--dir"]).arg(folder.join("manual")))?;
    for text in TEXTS {
        fs::copy(root.join(text), folder.join(text))?;
    }
    let archive = place.join(format!("{name}.tar.gz"));
    output(Command::new("tar").arg("-czf").arg(&archive).arg("-C").arg(&place).arg(&name))?;
    println!("{}", archive.display());
    Ok(())
}

fn build(root: &Path) -> Result<PathBuf> {
    let mut cargo = Command::new("cargo");
    let status =
        cargo.args(["build", "--release", "--locked", "-p", "jar-sprout"]).current_dir(root).status()?;
    ensure!(status.success(), "the program does not build");
    Ok(root.join("target/release").join(format!("jar-sprout{}", std::env::consts::EXE_SUFFIX)))
}

/// What a program prints, if all is well with it.
fn output(command: &mut Command) -> Result<Vec<u8>> {
    let output = command.stderr(Stdio::inherit()).output()?;
    ensure!(output.status.success(), "{command:?} failed");
    Ok(output.stdout)
}
