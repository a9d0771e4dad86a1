//! The program run on files in a temporary folder; everything it prints, writes and returns is compared.
//!
//! A case is a folder below `tests/transcripts`: `command` (a line for each; `NAME=value` before it sets the
//! environment, `< file` behind it gives standard input; `copy`, `remove` and `append` do something to files in
//! between, and `enter FOLDER` goes on in one), `input/` (what the folder holds before), and `expected` (what came of
//! it). `BLESS=1 cargo test --test transcripts` writes `expected` anew, for `git diff` to show.

#![allow(clippy::unwrap_used, reason = "a test or a bench that cannot go on should stop")]

#[path = "../../settle/tests/by_case/mod.rs"]
mod by_case;

use std::collections::BTreeMap;
use std::fmt::Write as _;
use std::fs;
use std::path::{Path, PathBuf};
use std::process::ExitCode;

use assert_cmd::Command;
use by_case::{compare, run_cases};

/// Every file below a folder, by its path from there.
type Files = BTreeMap<PathBuf, Vec<u8>>;

fn main() -> ExitCode {
    run_cases(&Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/transcripts"), &[("", check)])
}

/// Whether all that comes of a case is as expected.
fn check(case: &Path) -> Result<(), String> {
    let file = case.join("expected");
    let expected = fs::read_to_string(&file).unwrap_or_default();
    compare(&file, "", &expected, &run(case))
}

/// Runs a case and writes down all that came of it.
fn run(case: &Path) -> String {
    let folder = tempfile::tempdir().unwrap();
    let before = files_below(&case.join("input"));
    for (path, bytes) in &before {
        let target = folder.path().join(path);
        fs::create_dir_all(target.parent().unwrap()).unwrap();
        fs::write(target, bytes).unwrap();
    }
    let mut out = String::new();
    let mut here = folder.path().to_owned();
    for line in fs::read_to_string(case.join("command")).unwrap().lines() {
        writeln!(out, "$ {line}").unwrap();
        if let Some(inner) = line.strip_prefix("enter ") {
            here.push(inner);
        } else if !is_done_to_files(line, &here) {
            let output = command(line.trim(), &here).output().unwrap();
            writeln!(out, "status {}", output.status.code().expect("the program was not killed")).unwrap();
            section(&mut out, "standard output", &output.stdout);
            section(&mut out, "standard error", &output.stderr);
        }
    }
    let after = files_below(folder.path());
    for (path, bytes) in &after {
        if before.get(path) != Some(bytes) {
            section(&mut out, &path.display().to_string(), bytes);
        }
    }
    for path in before.keys().filter(|path| !after.contains_key(*path)) {
        writeln!(out, "--- {} is gone", path.display()).unwrap();
    }
    out
}

fn section(out: &mut String, title: &str, bytes: &[u8]) {
    if !bytes.is_empty() {
        let text = String::from_utf8_lossy(bytes);
        writeln!(out, "--- {title}\n{}", text.strip_suffix('\n').unwrap_or(&text)).unwrap();
    }
}

/// What happens to the files between two commands: `copy FROM TO`, `remove FILE`, `append FILE 'a line'`.
fn is_done_to_files(line: &str, folder: &Path) -> bool {
    let words = words(line);
    let words: Vec<&str> = words.iter().map(String::as_str).collect();
    match words[..] {
        ["copy", from, to] => drop(fs::copy(folder.join(from), folder.join(to)).unwrap()),
        ["remove", file] => fs::remove_file(folder.join(file)).unwrap(),
        ["append", file, text] => {
            let old = fs::read_to_string(folder.join(file)).unwrap();
            fs::write(folder.join(file), format!("{old}{text}\n")).unwrap();
        }
        _ => return false,
    }
    true
}

/// `COLUMNS=160 jar-sprout look hives.json`, in a folder.
fn command(line: &str, folder: &Path) -> Command {
    let mut words = words(line).into_iter().peekable();
    let mut command = Command::cargo_bin("jar-sprout").unwrap();
    command.current_dir(folder).env_remove("COLUMNS").env_remove("NO_COLOR").env_remove("CLICOLOR_FORCE");
    while let Some((name, value)) = words.peek().and_then(|word| word.split_once('=')) {
        command.env(name, value);
        words.next();
    }
    assert_eq!(words.next().as_deref(), Some("jar-sprout"), "{line}");
    while let Some(word) = words.next() {
        if word == "<" {
            let file = words.next().expect("a file for standard input");
            command.write_stdin(fs::read(folder.join(file)).unwrap());
        } else {
            command.arg(word);
        }
    }
    command
}

/// Splits at blanks outside single quotes.
fn words(line: &str) -> Vec<String> {
    let mut words = Vec::new();
    for (index, part) in line.split('\'').enumerate() {
        if index % 2 == 1 {
            words.push(part.to_owned());
        } else {
            words.extend(part.split_whitespace().map(str::to_owned));
        }
    }
    words
}

fn files_below(folder: &Path) -> Files {
    let mut files = Files::new();
    let mut folders = vec![folder.to_owned()];
    while let Some(next) = folders.pop() {
        for entry in fs::read_dir(&next).into_iter().flatten() {
            let path = entry.unwrap().path();
            if path.is_dir() {
                folders.push(path);
            } else {
                files.insert(path.strip_prefix(folder).unwrap().to_owned(), fs::read(&path).unwrap());
            }
        }
    }
    files
}
