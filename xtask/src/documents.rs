//! Documents in a sweep: a model for each, and the samples that belong to it.

use std::fs;
use std::path::Path;

use anyhow::Result;
use jar_sprout_document::{Drafted, Fault, Files, Library, draft_document, read_value, recognise};
use jar_sprout_model::{Model, Problem, Severity, Spot, Words};
use jar_sprout_prove::{Proof, Sample};
use jar_sprout_settle::{Inferred, Policies, infer_document, misfits};

/// The files of one entry, which may refer to each other.
struct FilesBeside<'f> {
    folder: &'f Path,
}

impl Files for FilesBeside<'_> {
    fn read(&self, path: &str) -> Result<String, Fault> {
        fs::read_to_string(self.folder.join(path)).map_err(|error| Fault::new(error.to_string()))
    }
}

/// A proof for each document of an entry; samples go with the one whose name is most like theirs.
pub(crate) fn proofs(folder: &Path, id: &str, files: &[String], belonging: &[&Proof]) -> Result<Vec<Proof>> {
    let mut proofs: Vec<(String, Proof)> = Vec::new();
    for file in files {
        let text = fs::read_to_string(folder.join(file))?;
        if read_value(&text).is_ok_and(|value| recognise(&value).is_some()) {
            match inferred(folder, file, &text).map(|inferred| inferred.settled.model) {
                Ok(model) => {
                    let name = if files.len() == 1 { id.to_owned() } else { file.clone() };
                    proofs.push((file.clone(), Proof { name, model, samples: Vec::new() }));
                }
                Err(problem) => println!("  {file}: {}", problem.message),
            }
        }
    }
    for group in belonging {
        let fits = |proof: &Proof| group.samples.iter().all(|sample| fits(&proof.model, sample));
        let best = proofs
            .iter()
            .enumerate()
            .filter(|(_, (_, proof))| fits(proof))
            .max_by_key(|(_, (file, proof))| (likeness(file, &group.name), proof.model.types().count()));
        match best.map(|(at, _)| at) {
            Some(at) => proofs[at].1.samples.extend(group.samples.iter().cloned()),
            None => {
                println!("  {}: its samples fit no document of {id}: {}", group.name, why(&proofs, group));
            }
        }
    }
    Ok(proofs.into_iter().map(|(_, proof)| proof).collect())
}

/// What is made of a document; `file` is its path from the folder.
pub(crate) fn inferred(folder: &Path, file: &str, text: &str) -> Result<Inferred, Problem> {
    let problem = |message: String| Problem::error(message, Spot::Path(file.to_owned()));
    // Their own folder is the second below the corpus.
    let depth = file.match_indices('/').nth(1).map_or(0, |(at, _)| at + 1);
    let library =
        Library::gather(&file[depth..], text, &FilesBeside { folder: &folder.join(&file[..depth]) })
            .map_err(|fault| problem(fault.message))?;
    let stem = Path::new(file).file_stem().map(|stem| stem.to_string_lossy().into_owned());
    let mut drafted = draft_document(&library, file, &[], &Words::split(&stem.unwrap_or_default()));
    if let Some(at) = drafted.problems.iter().position(|problem| problem.severity == Severity::Error) {
        return Err(drafted.problems.swap_remove(at));
    }
    let Drafted { draft, roots, title, .. } = drafted;
    Ok(infer_document(draft, &roots, title.as_ref(), &Policies::default()))
}

fn fits(model: &Model, sample: &Sample) -> bool {
    serde_json::from_str(&sample.text).is_ok_and(|value| misfits(model, &value).is_empty())
}

/// How many parts of a path stand in a name.
fn likeness(file: &str, name: &str) -> usize {
    let parts = |text: &str| -> Vec<String> {
        text.split(|c: char| !c.is_alphanumeric())
            .map(str::to_lowercase)
            .filter(|part| !part.is_empty())
            .collect()
    };
    let name = parts(name);
    parts(file).iter().filter(|part| name.contains(part)).count()
}

/// What is wrong with the most likely document.
fn why(proofs: &[(String, Proof)], group: &Proof) -> String {
    let best = proofs.iter().max_by_key(|(file, _)| likeness(file, &group.name));
    let Some((file, proof)) = best else { return "there is none".to_owned() };
    let first = group.samples.iter().find_map(|sample| {
        let value = serde_json::from_str(&sample.text).ok()?;
        misfits(&proof.model, &value).into_iter().next()
    });
    format!("{file}: {}", first.map_or_else(String::new, |misfit| misfit.to_string()))
}
