//! The proof of a language: its code compiled, every sample passed through it, and what its judges say.

use std::fs;
use std::io;
use std::path::Path;
use std::process::Command;

use jar_sprout_grow::{Absence, Language, Nulls, Settings, TimeKeeping};

use crate::jobs::{misses, write_samples};
use crate::proof::{Laid, Proof};
use crate::round_trip::Lenience;
use crate::run::run;
use crate::toolchain::{Missing, Ready, Wanted};
use crate::toolchains::find;
use crate::tools::Tools;

/// What is to be proven of a language.
#[derive(Clone, Copy)]
pub struct Order<'o> {
    /// The language.
    pub language: &'o dyn Language,
    /// The settings of the grown code.
    pub settings: &'o Settings,
    /// Whether its linters and formatters are heard as well.
    pub with_judges: bool,
}

/// What was proven.
#[derive(Debug, Clone, Default)]
pub struct Report {
    /// What compiled and ran the code: `go 1.26.8`.
    pub toolchain: String,
    /// What the compiler said, by proof; nothing where it took all.
    pub compiler: Vec<Said>,
    /// How many samples there were.
    pub samples: usize,
    /// The samples that did not come back as they were sent.
    pub misses: Vec<Miss>,
    /// What linters and formatters said.
    pub judges: Vec<Said>,
}

/// What a tool said.
#[derive(Debug, Clone)]
pub struct Said {
    /// The tool.
    pub tool: String,
    /// The proofs it speaks of; none where it does not say.
    pub proofs: Vec<String>,
    /// What it said.
    pub text: String,
}

/// A sample that did not come back as it was sent.
#[derive(Debug, Clone)]
pub struct Miss {
    /// The proof it belongs to.
    pub proof: String,
    /// The sample.
    pub sample: String,
    /// The path and the two values, or why it could not be decoded.
    pub text: String,
}

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
    let Order { language, settings, with_judges } = *order;
    let abilities = language.dialect(settings).abilities();
    let wanted = Wanted { tools, folder: &folder, language, abilities: &abilities };
    let mut ready = match find(&wanted) {
        Ok(ready) => ready,
        Err(missing) => return Ok(Err(missing)),
    };
    let samples = proofs.iter().map(|proof| proof.samples.len()).sum();
    let mut report = Report { toolchain: ready.title.clone(), samples, ..Report::default() };
    let is_run = ready.run.is_some();
    let laid = proofs.iter().enumerate().map(|(index, proof)| Laid::of(order, index, proof, is_run));
    let mut laid: Vec<Laid> = laid.collect();
    for _ in 0..TRIES {
        lay_out(order, &ready, &laid, &folder)?;
        let objection = compile(&mut ready, proofs, &laid)?;
        let Some((said, places)) = objection else { break };
        report.compiler.push(said);
        laid.retain(|laid| !places.contains(&laid.index));
        if places.is_empty() {
            laid.clear();
        }
    }
    report.misses = not_compiled(proofs, &laid);
    if let Some(run_it) = ready.run.as_mut().filter(|_| !laid.is_empty()) {
        let jobs = write_samples(&laid, &folder)?;
        let ended = run(run_it, &jobs)?;
        if !ended.errors.trim().is_empty() || !ended.is_content {
            report.compiler.push(Said { tool: "the run".to_owned(), proofs: Vec::new(), text: ended.errors });
        }
        let lenience = Lenience {
            nulls_may_come: ready.nulls == Nulls::Everywhere,
            nulls_may_go: abilities.absence != Absence::Told,
            are_times_loose: abilities.times == TimeKeeping::Loose,
        };
        report.misses.extend(misses(proofs, &laid, &folder, &ended.output, lenience));
    }
    if with_judges {
        report.judges = hear(&mut ready, proofs)?;
    }
    Ok(Ok(report))
}

/// Writes the project's files, the driver, and the code of each proof into a folder of its own.
fn lay_out(order: &Order<'_>, ready: &Ready, laid: &[Laid], folder: &Path) -> io::Result<()> {
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
    let trials: Vec<_> = laid.iter().map(|laid| laid.trial.clone()).collect();
    for file in order.language.dialect(order.settings).driver(&trials) {
        write(&code.join(file.name), &file.text)?;
    }
    for Laid { trial, files, .. } in laid {
        for file in files {
            write(&code.join(&trial.place).join(&file.name), &file.text)?;
        }
    }
    Ok(())
}

fn write(path: &Path, text: &str) -> io::Result<()> {
    if let Some(folder) = path.parent() {
        fs::create_dir_all(folder)?;
    }
    fs::write(path, text)
}

/// What the compiler objected to, and the indexes of the proofs it named; none where it took all.
fn compile(ready: &mut Ready, proofs: &[Proof], laid: &[Laid]) -> io::Result<Option<(Said, Vec<usize>)>> {
    for command in &mut ready.compile {
        let ended = run(command, "")?;
        let said = ended.said();
        if !ended.is_content || !said.is_empty() {
            let mut places = places_in(&said);
            places.retain(|place| laid.iter().any(|laid| laid.index == *place));
            let tool = tool_name(command);
            let said = Said { tool, proofs: names(proofs, &places), text: said };
            return Ok(Some((said, places)));
        }
    }
    Ok(None)
}

fn hear(ready: &mut Ready, proofs: &[Proof]) -> io::Result<Vec<Said>> {
    let mut all = Vec::new();
    for (name, command) in &mut ready.judges {
        let ended = run(command, "")?;
        let text = ended.said();
        if !ended.is_content || !text.is_empty() {
            all.push(Said { tool: (*name).to_owned(), proofs: names(proofs, &places_in(&text)), text });
        }
    }
    Ok(all)
}

fn tool_name(command: &Command) -> String {
    let program = Path::new(command.get_program());
    program.file_name().map(|name| name.to_string_lossy().into_owned()).unwrap_or_default()
}

fn names(proofs: &[Proof], places: &[usize]) -> Vec<String> {
    places.iter().filter_map(|place| proofs.get(*place)).map(|proof| proof.name.clone()).collect()
}

/// The samples of the proofs that are left out, since the compiler did not take them.
fn not_compiled(proofs: &[Proof], laid: &[Laid]) -> Vec<Miss> {
    let is_left_out = |index: &usize| laid.iter().all(|laid| laid.index != *index);
    let left_out = (0..proofs.len()).filter(is_left_out).map(|index| &proofs[index]);
    let miss = |proof: &Proof| -> Vec<Miss> {
        let one = |sample: &crate::Sample| Miss {
            proof: proof.name.clone(),
            sample: sample.name.clone(),
            text: "its code did not compile".to_owned(),
        };
        proof.samples.iter().map(one).collect()
    };
    left_out.flat_map(miss).collect()
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
