//! Swift: `swift build` in the newest mode of the language, warnings as errors, all models in one module.

use crate::run::version;
use crate::toolchain::{Missing, Ready, Task};

/// The habit of Xcode, in the formatter's words; a name in other letters than ASCII's is one.
const FORMAT: &str = r#"{"version": 1, "indentation": {"spaces": 4}, "lineLength": 100,
"rules": {"IdentifiersMustBeASCII": false}}"#;

pub(crate) fn find(wanted: &Task<'_>) -> Result<Ready, Missing> {
    let missing = || Missing::new("Swift 6", "see https://www.swift.org/install");
    let installed = wanted.tools.installed("swift/bin/swift");
    let swift = installed.or_else(|| wanted.tools.program("swift")).ok_or_else(missing)?;
    let version = version(wanted.command(&swift).arg("--version")).ok_or_else(missing)?;
    let mut compile = wanted.command("sh");
    // The builder tells what it does even when all is well.
    let script = "said=$(\"$0\" build --disable-sandbox 2>&1) || { echo \"$said\" | grep -E 'error|warning'; exit 1; }";
    compile.args(["-c", script]).arg(&swift);
    let mut judge = wanted.command("sh");
    let script =
        "find . -name .build -prune -o -path './t*.swift' -print0 | xargs -0 \"$0\" format lint --strict";
    judge.args(["-c", script]).arg(&swift);
    let product = if wanted.program.is_some() { "app" } else { "trials" };
    let built = wanted.folder.join(".build/debug").join(product);
    // A compiler in a root of its own has what enters that beside it: what it builds runs there alone.
    let enter = swift.with_file_name("enter");
    let mut run = wanted.command(if enter.is_file() { &enter } else { &built });
    if enter.is_file() {
        run.arg(&built);
    }
    Ok(Ready {
        title: version.split(" (").next().unwrap_or_default().replacen("Swift version", "Swift", 1),
        code: if wanted.program.is_some() { "Sources" } else { "" },
        files: vec![(".swift-format", FORMAT.to_owned())],
        compile: vec![compile],
        run: Some(run),
        shared: None,
        nulls: wanted.abilities.nulls,
        judges: vec![("swift format", judge)],
    })
}
