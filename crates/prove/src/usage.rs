//! The proof of how grown code is used: the program compiled beside the code, and run beside a sample.

use std::fs;
use std::io;
use std::process::Command;

use jar_sprout_grow::{Arrangement, GrownFile, Place, UsingProgram, grow_prepared, prepare, usage};
use jar_sprout_model::Model;

use crate::jobs::compare;
use crate::proof::Sample;
use crate::prove::{alone, lenience, tool_name, write};
use crate::report::{Order, ToolOutput};
use crate::run::run;
use crate::toolchain::{Missing, Ready, Shared, Task};
use crate::toolchains::find;
use crate::tools::Tools;

/// What came of a program that uses grown code.
#[derive(Debug, Clone)]
pub struct Used {
    /// What the compilers and judges objected to, what the program complained of, and in what the sample that it
    /// printed differs from the one that it read.
    pub objections: Vec<ToolOutput>,
    /// Whether it could be run.
    pub is_run: bool,
}

/// Files of a project that are shown whole, and without which there is none.
const WHOLE: &[&str] = &["Package.swift", "go.mod"];

/// What judges code as that of a library, which it is in the other proofs; beside a program it is hidden.
const OF_LIBRARIES: &str = "clippy";

/// Compiles the code of a model with the program that uses it, and runs that beside the sample; none where nothing
/// reads it.
///
/// # Errors
/// The outer one: files that cannot be written, programs that cannot be run. The inner one: the toolchain is not
/// there.
pub fn prove_usage(
    order: &Order<'_>,
    model: &Model,
    sample: &Sample,
    tools: &Tools,
) -> io::Result<Result<Option<Used>, Missing>> {
    let Order { language, settings, with_judges, is_shared: _, memory: _ } = *order;
    let dialect = &*language.dialect(settings);
    let prepared = prepare(dialect, model);
    let usage = usage(dialect, &prepared, Place { sample: &sample.name, code: None });
    let Some(UsingProgram { file, folder, run: program, reading: _ }) = usage.program else {
        return Ok(Ok(None));
    };
    let scratch = tempfile::Builder::new().prefix("jar-sprout-").tempdir()?;
    let here = scratch.path().canonicalize()?;
    let abilities = dialect.abilities();
    let is_file = program == file.name;
    let task = Task { tools, folder: &here, language, abilities: &abilities, program: Some(&program) };
    let mut ready = match find(&task) {
        Ok(ready) => ready,
        Err(missing) => return Ok(Err(missing)),
    };
    for (name, text) in &ready.files {
        write(&here.join(name), text)?;
    }
    for GrownFile { name, text } in usage.project.iter().filter(|file| WHOLE.contains(&file.name.as_str())) {
        write(&here.join(name), text)?;
    }
    // Where it is a class that is run, its file may lie where judges look for the code of a trial.
    let code = here.join(ready.code).join(if is_file { "" } else { "t0" });
    write(&code.join(&file.name), &file.text)?;
    for GrownFile { name, text } in grow_prepared(dialect, &prepared, Arrangement::AsUsual).files {
        write(&code.join(folder.as_deref().unwrap_or_default()).join(name), &text)?;
    }
    fs::write(here.join(&sample.name), &sample.text)?;
    let lenience = lenience(&ready, &abilities);
    let mut objections = built(&mut ready, with_judges)?;
    let run_it = ready.run.filter(|_| objections.is_empty());
    let is_run = run_it.is_some();
    if let Some(mut command) = run_it {
        let ended = run(command.current_dir(&here), "")?;
        let fault = if ended.is_content && ended.errors.trim().is_empty() {
            compare(prepared.model(), &sample.text, &ended.output, lenience).err()
        } else {
            Some(ended.said())
        };
        objections.extend(fault.map(|text| said("the run".to_owned(), text)));
    }
    Ok(Ok(Some(Used { objections, is_run })))
}

/// What compilers and judges say of what lies in the scratch folder; nothing where it is built.
fn built(ready: &mut Ready, with_judges: bool) -> io::Result<Vec<ToolOutput>> {
    let _locked = ready.shared.as_ref().map(alone).transpose()?;
    let is_heard = |(name, _): &&mut (&str, Command)| with_judges && *name != OF_LIBRARIES;
    let judges = ready.judges.iter_mut().filter(is_heard).map(|(_, command)| command);
    let mut objections = Vec::new();
    for command in ready.compile.iter_mut().chain(judges) {
        let ended = run(command, "")?;
        let text = ended.said();
        if !ended.is_content || !text.is_empty() {
            objections.push(said(tool_name(command), text));
        }
    }
    if let (Some(Shared { lock: _, source: _, built, own }), true) = (&ready.shared, objections.is_empty()) {
        fs::copy(built, own)?;
    }
    Ok(objections)
}

fn said(tool: String, text: String) -> ToolOutput {
    ToolOutput { tool, proofs: Vec::new(), text }
}
