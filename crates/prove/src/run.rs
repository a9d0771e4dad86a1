//! Running a program to its end.

use std::io::{self, Write};
use std::process::{Command, Stdio};

/// What a program said, and whether it was content.
pub(crate) struct Ended {
    pub(crate) is_content: bool,
    pub(crate) output: String,
    pub(crate) errors: String,
}

impl Ended {
    /// All it said.
    pub(crate) fn said(&self) -> String {
        format!("{}{}", self.output, self.errors).trim().to_owned()
    }
}

/// Runs a program with this input.
pub(crate) fn run(command: &mut Command, input: &str) -> io::Result<Ended> {
    let mut child = command.stdin(Stdio::piped()).stdout(Stdio::piped()).stderr(Stdio::piped()).spawn()?;
    let mut stdin = child.stdin.take().expect("a pipe was asked for");
    let input = input.to_owned();
    // Beside reading: a program may write before it has read everything, or end without reading at all.
    let writer = std::thread::spawn(move || drop(stdin.write_all(input.as_bytes())));
    let output = child.wait_with_output()?;
    writer.join().expect("the writer does not panic");
    Ok(Ended {
        is_content: output.status.success(),
        output: String::from_utf8_lossy(&output.stdout).into_owned(),
        errors: String::from_utf8_lossy(&output.stderr).into_owned(),
    })
}

/// The first line that a program says of its version.
pub(crate) fn version(command: &mut Command) -> Option<String> {
    let said = run(command, "").ok().filter(|ended| ended.is_content)?.said();
    said.lines().next().map(str::to_owned)
}
