//! Writing: whole files or none, and never over what a person wrote.

use std::collections::{BTreeMap, BTreeSet};
use std::fs;
use std::io;
use std::path::{Path, PathBuf};

use jar_sprout_grow::{Origin, Provenance, is_same_code, origin};
use jar_sprout_model::Problem;

use crate::failure::{Failure, reason};
use crate::progress::Progress;
use crate::stage::{Failed, Stage, sweep};

/// A file to be written.
#[derive(Debug, Clone)]
pub(crate) struct NewFile {
    pub(crate) path: PathBuf,
    pub(crate) text: String,
}

/// What may stand where a file is to be written.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Over {
    /// A file that was grown, and that nobody changed since.
    Grown,
    /// The same, and one that somebody changed.
    Changed,
    /// Nothing but a file with the same text.
    Nothing,
}

/// What a run is going to do to the disk.
#[derive(Debug, Default)]
pub(crate) struct Changes {
    /// Files to be written, each with what stands there now.
    pub(crate) written: Vec<(NewFile, Option<String>)>,
    /// Files whose text is the same already.
    pub(crate) unchanged: usize,
    /// Files that stay, since they are to have no mark.
    pub(crate) adopted: usize,
    /// Files to be removed, with their texts.
    pub(crate) removed: Vec<(PathBuf, String)>,
    /// Files that stay, since a person changed them after they were grown.
    pub(crate) kept: Vec<PathBuf>,
    /// Files that stay, since a person wrote them.
    pub(crate) foreign: Vec<PathBuf>,
    /// Files that stay, since another jar grew them.
    pub(crate) of_others: Vec<PathBuf>,
}

impl Changes {
    /// What it takes to have these files.
    pub(crate) fn to(files: Vec<NewFile>, over: Over) -> Result<Self, Problem> {
        refuse_same_names(&files)?;
        let mut changes = Self::default();
        for file in files {
            let Some(bytes) = existing(&file.path)? else {
                changes.written.push((file, None));
                continue;
            };
            if bytes == file.text.as_bytes() {
                changes.unchanged += 1;
                continue;
            }
            let text = String::from_utf8_lossy(&bytes).into_owned();
            match (origin(&text), over) {
                // Version control may have changed how its lines end, and a formatter how they break.
                (Origin::Grown(_), Over::Grown | Over::Changed) if is_same_code(&text, &file.text) => {
                    changes.unchanged += 1;
                }
                (Origin::Grown(from), Over::Grown) if is_of_another_jar(&from, &file.text) => {
                    changes.of_others.push(file.path);
                }
                (Origin::Grown(_), Over::Grown | Over::Changed) | (Origin::Changed, Over::Changed) => {
                    changes.written.push((file, Some(text)));
                }
                (Origin::Changed, Over::Grown) => changes.kept.push(file.path),
                (Origin::Foreign, _) | (_, Over::Nothing) => changes.foreign.push(file.path),
            }
        }
        Ok(changes)
    }

    /// Refuses to go on where a person's file stands in the way.
    pub(crate) fn refuse_to_overwrite(&self) -> Result<(), Problem> {
        if let Some(path) = self.foreign.first() {
            let message = "this file was not grown by Jar Sprout, so it stays; nothing was written";
            return Err(
                Failure::path(message, path).with_help("choose another folder, or move the file away")
            );
        }
        if let Some(path) = self.of_others.first() {
            let message = "another jar grew this file, so it stays; nothing was written";
            return Err(Failure::path(message, path)
                .with_help("give one of the two another folder, or take it over with `--overwrite`"));
        }
        if let Some(path) = self.kept.first() {
            let more = match self.kept.len() - 1 {
                0 => String::new(),
                more => format!(" (and {more} more)"),
            };
            let message =
                format!("this file was changed since it was grown, so it stays{more}; nothing was written");
            let help = "keep the change as a decision in jar.toml, or move it to a file of your own; then remove this one, or `--overwrite` it";
            return Err(Failure::path(message, path).with_help(help));
        }
        Ok(())
    }

    /// Does it: all of it, or nothing.
    pub(crate) fn make(&self) -> Result<(), Problem> {
        self.refuse_to_overwrite()?;
        let mut stage = Stage::default();
        let progress = Progress::of_things("writing", 2 * self.written.len());
        let folders: BTreeSet<&Path> =
            self.written.iter().filter_map(|(file, _)| file.path.parent()).collect();
        for folder in folders {
            make_folder(folder)?;
            sweep(folder);
        }
        for (NewFile { path, text }, _) in &self.written {
            stage.add(path, text).map_err(cannot_write)?;
            progress.step();
        }
        let removed: Vec<&Path> = self.removed.iter().map(|(path, _)| path.as_path()).collect();
        stage.put(&removed, &progress).map_err(cannot_write)
    }

    /// Whether the disk is as it should be.
    pub(crate) fn is_nothing(&self) -> bool {
        let Self { written, unchanged: _, adopted: _, removed, kept, foreign, of_others } = self;
        written.is_empty()
            && removed.is_empty()
            && kept.is_empty()
            && foreign.is_empty()
            && of_others.is_empty()
    }
}

/// Whether what stands somewhere was grown from another jar than what is to stand there.
fn is_of_another_jar(there: &Provenance, new: &str) -> bool {
    match (there, origin(new)) {
        (Provenance::Jar { jar: there, .. }, Origin::Grown(Provenance::Jar { jar: ours, .. })) => {
            *there != ours
        }
        (Provenance::Jar { .. } | Provenance::Source(_), _) => false,
    }
}

/// Writes files, if nothing of a person's stands in the way.
pub(crate) fn write_all(files: Vec<NewFile>, over: Over) -> Result<(), Problem> {
    if let Some(folder) = files.first().and_then(|file| file.path.parent()) {
        make_folder(folder)?;
    }
    Changes::to(files, over)?.make()
}

/// Writes files whatever stands there: all of them, or none.
pub(crate) fn overwrite_all(files: Vec<NewFile>) -> Result<(), Problem> {
    refuse_same_names(&files)?;
    Changes { written: files.into_iter().map(|file| (file, None)).collect(), ..Changes::default() }.make()
}

/// Some disks fold case: names that differ in nothing else would be one file.
fn refuse_same_names(files: &[NewFile]) -> Result<(), Problem> {
    let mut seen: BTreeMap<String, &Path> = BTreeMap::new();
    for NewFile { path, .. } in files {
        if let Some(other) = seen.insert(path.to_string_lossy().to_lowercase(), path) {
            let message = format!("two files want this name, {} the other", other.display());
            return Err(Failure::path(message, path).with_help("give one of them another folder"));
        }
    }
    Ok(())
}

/// Makes a folder, and those above it.
pub(crate) fn make_folder(folder: &Path) -> Result<(), Problem> {
    let in_the_way = folder.ancestors().find(|path| path.is_file());
    if let Some(file) = in_the_way {
        let problem = Failure::path("a file stands where the folder should be", file);
        return Err(problem.with_help("choose another folder, or move the file away"));
    }
    fs::create_dir_all(folder)
        .map_err(|error| Failure::path(format!("cannot make this folder: {}", reason(&error)), folder))
}

fn existing(target: &Path) -> Result<Option<Vec<u8>>, Problem> {
    match fs::read(target) {
        Ok(text) => Ok(Some(text)),
        Err(error) if matches!(error.kind(), io::ErrorKind::NotFound | io::ErrorKind::NotADirectory) => {
            Ok(None)
        }
        Err(error) => Err(Failure::path(format!("cannot read what stands here: {}", reason(&error)), target)),
    }
}

/// The problem of a file that could not be written.
pub(crate) fn cannot_write((path, error): Failed) -> Problem {
    Failure::path(format!("cannot write here: {}", reason(&error)), &path)
}
