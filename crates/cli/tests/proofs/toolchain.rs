//! The compilers that `toolchains/install` put in place.

use std::io::Write;
use std::path::{Path, PathBuf};
use std::process::{Command, Output, Stdio};

/// The folder of the installed tools.
pub(crate) fn home() -> PathBuf {
    let default = || Path::new(env!("CARGO_MANIFEST_DIR")).join("../../.toolchains");
    std::env::var_os("JAR_SPROUT_TOOLCHAINS").map_or_else(default, PathBuf::from)
}

/// A tool of the home folder; without it, the proof is skipped aloud, or fails where `CI` is set.
pub(crate) fn find(what: &str, path: &str) -> Option<PathBuf> {
    let path = home().join(path);
    if path.exists() {
        return Some(path);
    }
    let message = format!("no {what} at {}: run `toolchains/install`", path.display());
    assert!(std::env::var_os("CI").is_none(), "{message}");
    // Not by a printing macro, whose output the test runner keeps to itself; and in one piece.
    let line = format!("\nPROOF SKIPPED: {message}\n\n");
    std::io::stderr().write_all(line.as_bytes()).expect("standard error takes a line");
    None
}

/// Runs a command to its end with this input.
pub(crate) fn run(command: &mut Command, input: &str) -> Output {
    let mut child = command
        .stdin(Stdio::piped())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .unwrap_or_else(|error| panic!("{command:?}: {error}"));
    child.stdin.take().expect("a pipe").write_all(input.as_bytes()).expect("the program reads its input");
    child.wait_with_output().expect("the program ends")
}

/// Runs a compiler or a checker, which must have nothing to say.
#[track_caller]
pub(crate) fn must_pass(command: &mut Command) {
    let output = run(command, "");
    let said =
        format!("{}{}", String::from_utf8_lossy(&output.stdout), String::from_utf8_lossy(&output.stderr));
    assert!(output.status.success(), "{command:?}\n{said}");
    assert_eq!(said.trim(), "", "{command:?}");
}
