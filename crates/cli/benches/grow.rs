//! `grow` as a whole process on a sample of 10 kB, beside a program that does nothing: `cargo bench -p jar-sprout`.

#![allow(clippy::unwrap_used, reason = "a test or a bench that cannot go on should stop")]

use std::path::Path;
use std::process::{Command, Stdio};

use divan::Bencher;

/// As the program has it.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

fn main() {
    divan::main();
}

fn run(bencher: Bencher, command: &mut Command) {
    command.stdout(Stdio::null()).stderr(Stdio::null());
    bencher.bench_local(|| assert!(command.status().unwrap().success()));
}

fn jar_sprout() -> Command {
    let mut command = Command::new(env!("CARGO_BIN_EXE_jar-sprout"));
    command.current_dir(Path::new(env!("CARGO_MANIFEST_DIR")).join("demo"));
    command
}

#[divan::bench]
fn nothing(bencher: Bencher) {
    run(bencher, &mut Command::new("true"));
}

#[divan::bench]
fn version(bencher: Bencher) {
    run(bencher, jar_sprout().arg("--version"));
}

#[divan::bench(args = ["kotlin", "typescript"])]
fn grow_hives(bencher: Bencher, language: &str) {
    run(bencher, jar_sprout().args(["grow", "hives.json", "--into", language]));
}
