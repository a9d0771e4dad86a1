//! The proof of a language: its code compiled, every sample passed through it, and what its judges say.

use std::fs::{self, File};
use std::io;
use std::path::Path;
use std::process::Command;
use std::time::SystemTime;

use jar_sprout_grow::{Abilities, Absence, Nulls, TimeKeeping};

use crate::jobs::{misses, write_samples};
use crate::proof::{Proof, SHARED, Staged};
use crate::report::{Miss, Order, Report, ToolOutput};
use crate::round_trip::Lenience;
use crate::run::run;
use crate::toolchain::{Missing, Ready, Shared, Task};
use crate::toolchains::find;
use crate::tools::Tools;

/// How often a compiler is called again without the models it objected to.
const TRIES: usize = 4;

/// Compiles the code of all proofs in one call, and passes their samples through it.
///
/// # Errors
/// The outer one: files that cannot be written, programs that cannot be run. The inner one: the toolchain is not
/// there.
pub fn prove(order: &Order<'_>, proofs: &[Proof], tools: &Tools) -> io::Result<Result<Report, Missing>> {
    let scratch = tempfile::Builder::new().prefix("jar-sprout-").tempdir()?;
    let folder = scratch.path().canonicalize()?;
    let Order { language, settings, with_judges, is_shared: _, memory: _ } = *order;
    let dialect = &*language.dialect(settings);
    let abilities = dialect.abilities();
    let task = Task { tools, folder: &folder, language, abilities: &abilities, program: None };
    let mut ready = match find(&task) {
        Ok(ready) => ready,
        Err(missing) => return Ok(Err(missing)),
    };
    let samples = proofs.iter().map(|proof| proof.samples.len()).sum();
    let mut report = Report { toolchain: ready.title.clone(), samples, ..Report::default() };
    let lenience = lenience(&ready, &abilities);
    let is_run = ready.run.is_some();
    let called = called(&ready, with_judges, lenience, &folder);
    let all = unproven(order, proofs, is_run, &called);
    if all.is_empty() {
        return Ok(Ok(report));
    }
    let names: Vec<&str> = proofs.iter().map(|proof| proof.name.as_str()).collect();
    let mut staged: Vec<&Staged> = all.iter().collect();
    for _ in 0..TRIES {
        lay_out(order, &ready, &staged, &folder)?;
        let objection = compile(&mut ready, &names, &staged)?;
        let Some((said, places)) = objection else { break };
        report.compiler.push(said);
        staged.retain(|staged| !places.contains(&staged.index));
        if places.is_empty() {
            staged.clear();
        }
    }
    report.misses = not_compiled(proofs, &all, &staged);
    if let Some(run_it) = ready.run.as_mut().filter(|_| !staged.is_empty()) {
        let jobs = write_samples(&staged, &folder)?;
        let ended = run(run_it, &jobs)?;
        if !ended.errors.trim().is_empty() || !ended.is_content {
            report.compiler.push(ToolOutput {
                tool: "the run".to_owned(),
                proofs: Vec::new(),
                text: ended.errors,
            });
        }
        report.misses.extend(misses(proofs, &staged, &folder, &ended.output, lenience));
    }
    if report.compiler.is_empty() {
        let all_came = |one: &&Staged| report.misses.iter().all(|miss| miss.proof != proofs[one.index].name);
        report.proven = all.iter().filter(all_came).filter_map(|one| one.digest).collect();
    }
    if with_judges {
        let _locked = ready.shared.as_ref().map(alone).transpose()?;
        report.judges = hear(ready.judges.iter_mut().map(|(name, command)| (*name, command)), &names)?;
    }
    Ok(Ok(report))
}

/// What need not come back as it was sent.
pub(crate) fn lenience(ready: &Ready, abilities: &Abilities) -> Lenience {
    Lenience {
        nulls_may_come: ready.nulls == Nulls::Everywhere,
        nulls_may_go: abilities.absence != Absence::Told,
        are_times_loose: abilities.times == TimeKeeping::Loose,
        are_uuids_folded: abilities.types_uuids,
    }
}

/// The proofs that are to be made now: those that nobody remembers.
fn unproven(order: &Order<'_>, proofs: &[Proof], is_run: bool, called: &str) -> Vec<Staged> {
    let Order { language, settings, with_judges: _, is_shared: _, memory } = *order;
    let staged = proofs.iter().enumerate().map(|(index, proof)| Staged::of(order, index, proof, is_run));
    let Some(memory) = memory else { return staged.collect() };
    let dialect = language.dialect(settings);
    let with_digest = staged.map(|staged| {
        let driver = dialect.driver(std::slice::from_ref(&staged.trial));
        let shared = order.shared_code(&staged.shared);
        Staged { digest: Some(staged.digest_of(&driver, &shared, called)), ..staged }
    });
    with_digest.filter(|staged| staged.digest.is_none_or(|digest| !memory.has(digest))).collect()
}

/// Writes the project's files, the driver, and the code of each proof into a folder of its own.
fn lay_out(order: &Order<'_>, ready: &Ready, staged: &[&Staged], folder: &Path) -> io::Result<()> {
    let dialect = order.language.dialect(order.settings);
    let code = folder.join(ready.code);
    for (name, text) in &ready.files {
        write(&folder.join(name), text)?;
    }
    // What did not compile must not lie about.
    for entry in fs::read_dir(&code).into_iter().flatten().flatten() {
        let name = entry.file_name();
        let stem = name.to_str().and_then(|name| name.split('.').next());
        match (stem.is_some_and(|stem| place_index(stem).is_some()), entry.path().is_dir()) {
            (true, true) => fs::remove_dir_all(entry.path())?,
            (true, false) => fs::remove_file(entry.path())?,
            (false, _) => {}
        }
    }
    let trials: Vec<_> = staged.iter().map(|staged| staged.trial.clone()).collect();
    for file in dialect.driver(&trials) {
        write(&code.join(file.name), &file.text)?;
    }
    let shared = staged.iter().flat_map(|staged| staged.shared.iter().copied()).collect();
    for file in order.shared_code(&shared) {
        write(&code.join(SHARED).join(&file.name), &file.text)?;
    }
    for Staged { trial, files, .. } in staged {
        for file in files {
            write(&code.join(&trial.place).join(&file.name), &file.text)?;
        }
    }
    Ok(())
}

pub(crate) fn write(path: &Path, text: &str) -> io::Result<()> {
    if let Some(folder) = path.parent() {
        fs::create_dir_all(folder)?;
    }
    fs::write(path, text)
}

/// What the compiler objected to, and the indexes of the proofs it named; none where it took all.
fn compile(
    ready: &mut Ready,
    names: &[&str],
    staged: &[&Staged],
) -> io::Result<Option<(ToolOutput, Vec<usize>)>> {
    let _locked = ready.shared.as_ref().map(alone).transpose()?;
    for command in &mut ready.compile {
        let ended = run(command, "")?;
        let said = ended.said();
        if !ended.is_content || !said.is_empty() {
            let mut places = places_in(&said);
            places.retain(|place| staged.iter().any(|staged| staged.index == *place));
            let tool = tool_name(command);
            let said = ToolOutput { tool, proofs: named(names, &places), text: said };
            return Ok(Some((said, places)));
        }
    }
    if let Some(Shared { lock: _, source: _, built, own }) = &ready.shared {
        fs::copy(built, own)?;
    }
    Ok(None)
}

/// Waits until nobody else builds or judges there, and makes what is built now the newest.
pub(crate) fn alone(shared: &Shared) -> io::Result<File> {
    let file = File::create(&shared.lock)?;
    file.lock()?;
    File::options().append(true).open(&shared.source)?.set_modified(SystemTime::now())?;
    Ok(file)
}

/// What judges say that are not content with the code of the things of these names.
pub(crate) fn hear<'j>(
    judges: impl Iterator<Item = (&'static str, &'j mut Command)>,
    names: &[&str],
) -> io::Result<Vec<ToolOutput>> {
    let mut all = Vec::new();
    for (tool, command) in judges {
        let ended = run(command, "")?;
        let text = ended.said();
        if !ended.is_content || !text.is_empty() {
            all.push(ToolOutput { tool: tool.to_owned(), proofs: named(names, &places_in(&text)), text });
        }
    }
    Ok(all)
}

pub(crate) fn tool_name(command: &Command) -> String {
    let program = Path::new(command.get_program());
    program.file_name().map(|name| name.to_string_lossy().into_owned()).unwrap_or_default()
}

fn named(names: &[&str], places: &[usize]) -> Vec<String> {
    places.iter().filter_map(|place| names.get(*place)).map(|name| (*name).to_owned()).collect()
}

/// How the tools are called, and what is made of what they say.
fn called(ready: &Ready, with_judges: bool, lenience: Lenience, folder: &Path) -> String {
    let Ready { title, code, files, compile, shared: _, run, nulls: _, judges } = ready;
    let judges = if with_judges { &judges[..] } else { &[] };
    let all = format!("{title} {code} {files:?} {compile:?} {run:?} {judges:?} {lenience:?}");
    all.replace(&folder.display().to_string(), "")
}

/// The samples of the proofs that the compiler did not take.
fn not_compiled(proofs: &[Proof], all: &[Staged], taken: &[&Staged]) -> Vec<Miss> {
    let is_left_out = |one: &&Staged| taken.iter().all(|taken| taken.index != one.index);
    let miss = |proof: &Proof| -> Vec<Miss> {
        let one = |sample: &crate::Sample| Miss {
            proof: proof.name.clone(),
            sample: sample.name.clone(),
            text: "its code did not compile".to_owned(),
        };
        proof.samples.iter().map(one).collect()
    };
    all.iter().filter(is_left_out).flat_map(|one| miss(&proofs[one.index])).collect()
}

/// The indexes of the proofs whose folders or files a text names: `t17/Hive.kt`, `trials.t17`.
fn places_in(text: &str) -> Vec<usize> {
    let mut places: Vec<usize> =
        text.split(|c: char| !(c.is_alphanumeric() || c == '_')).filter_map(place_index).collect();
    places.sort_unstable();
    places.dedup();
    places
}

fn place_index(word: &str) -> Option<usize> {
    word.strip_prefix('t')?.parse().ok()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn places_are_found_in_what_compilers_say() {
        assert_eq!(places_in("src/t17/Hive.kt:3:4: error"), [17]);
        assert_eq!(places_in("trials.t2.Hive and t2/x.go:1, t10.py"), [2, 10]);
        assert!(places_in("type t and tt3 and the 4").is_empty());
    }
}
