//! Swift: `swift build` in the language's newest mode, warnings as errors, a module for each model.

use crate::run::version;
use crate::toolchain::{Missing, Ready, Task};

pub(crate) fn find(wanted: &Task<'_>) -> Result<Ready, Missing> {
    let missing = || Missing::new("Swift 6", "see https://www.swift.org/install");
    let swift = wanted.tools.program("swift").ok_or_else(missing)?;
    let version = version(wanted.command(&swift).arg("--version")).ok_or_else(missing)?;
    let mut compile = wanted.command("sh");
    // The builder tells what it does even when all is well.
    let script = "said=$(\"$0\" build --disable-sandbox 2>&1) || { echo \"$said\" | grep -E 'error|warning'; exit 1; }";
    compile.args(["-c", script]).arg(&swift);
    Ok(Ready {
        title: version.split(" (").next().unwrap_or_default().to_owned(),
        code: "",
        files: Vec::new(),
        compile: vec![compile],
        run: Some(wanted.command(wanted.folder.join(".build/debug/trials"))),
        shared: None,
        nulls: wanted.abilities.nulls,
        judges: Vec::new(),
    })
}
