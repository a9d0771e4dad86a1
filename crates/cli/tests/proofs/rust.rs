//! Rust: compiled with warnings as errors, judged by clippy and rustfmt, every sample decoded and encoded again.

use std::fs;
use std::path::{Path, PathBuf};
use std::process::Command;

use jar_sprout_grow::{GrownFile, find_language};

use crate::jobs::{differences, write_samples};
use crate::toolchain::{find, must_pass, run};
use crate::trials::{lay_out, proofs};

/// The project whose dependencies `toolchains/install` fetched and built.
fn project() -> Option<PathBuf> {
    find("Rust project with serde and chrono", "rust/target").map(|target| target.with_file_name(""))
}

/// A project in a folder, with the code of every proof; nothing is fetched.
fn set_up(project: &Path, folder: &Path) {
    for file in ["Cargo.toml", "Cargo.lock"] {
        fs::copy(project.join(file), folder.join(file)).unwrap();
    }
    fs::create_dir(folder.join("src")).unwrap();
}

fn cargo(project: &Path, folder: &Path, command: &str) -> Command {
    let mut cargo = Command::new("cargo");
    cargo.args([command, "--quiet", "--offline", "--locked"]).current_dir(folder);
    cargo.env("CARGO_TARGET_DIR", project.join("target")).env("RUSTFLAGS", "-Dwarnings");
    cargo
}

#[test]
fn grown_rust_compiles_and_carries_every_sample() {
    let Some(project) = project() else { return };
    let rust = find_language("rust").unwrap();
    let folder = tempfile::tempdir().unwrap();
    set_up(&project, folder.path());
    let proofs = proofs();
    let trials = lay_out(rust, &proofs, &folder.path().join("src"));
    must_pass(&mut cargo(&project, folder.path(), "build"));
    // Beyond what the compiler objects to; how many truths a record has, how deep its lists, is the data's affair.
    must_pass(cargo(&project, folder.path(), "clippy").args([
        "--",
        "-Wclippy::pedantic",
        "-Aclippy::struct_excessive_bools",
        "-Aclippy::type_complexity",
        "-Aclippy::too_many_lines",
    ]));

    let jobs = write_samples(&trials, folder.path());
    let output = run(&mut Command::new(project.join("target/debug/trials")), &jobs);
    assert_eq!(String::from_utf8_lossy(&output.stdout), "", "decodes that failed");
    assert!(output.status.success(), "{}", String::from_utf8_lossy(&output.stderr));
    assert_eq!(differences(&proofs, &trials, folder.path()), Vec::<String>::new());
}

#[test]
fn rustfmt_leaves_grown_rust_alone() {
    let rust = find_language("rust").unwrap();
    let folder = tempfile::tempdir().unwrap();
    for trial in lay_out(rust, &proofs(), folder.path()) {
        let file = folder.path().join(&trial.place).join(&trial.file);
        must_pass(Command::new("rustfmt").args(["--check", "--edition", "2024"]).arg(file));
    }
    // The driver is ours, too.
    let GrownFile { name, .. } = &rust.driver(&[])[0];
    assert_eq!(name, "main.rs");
}
