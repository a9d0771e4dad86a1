//! Writing: whole files or none, and never over a file that is not ours.

use std::fs;
use std::io::{self, Write};
use std::path::Path;

use jar_sprout_model::Problem;
use tempfile::NamedTempFile;

use crate::failure::{Failure, reason};

/// A file to be written into a folder.
pub(crate) struct NewFile<'f> {
    pub(crate) name: &'f str,
    pub(crate) text: &'f str,
}

/// What may stand where a file is to be written.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum Over {
    /// A file that carries our mark.
    Grown,
    /// Nothing but a file with the same text.
    Nothing,
}

/// Writes files into a folder, which is made if need be. Files whose text is the same already are left alone.
///
/// All new texts are on the disk before the first one takes its place, so that a failure leaves the old files.
pub(crate) fn write_all(folder: &Path, files: &[NewFile<'_>], over: Over) -> Result<(), Problem> {
    make_folder(folder)?;
    let mut ready = Vec::new();
    for file in files {
        let target = folder.join(file.name);
        match existing(&target)? {
            Some(text) if text == file.text.as_bytes() => {}
            Some(text) if over == Over::Nothing || !is_ours(&text) => return Err(not_ours(&target)),
            Some(_) | None => ready.push((prepare(folder, file.text)?, target)),
        }
    }
    for (prepared, target) in ready {
        prepared.persist(&target).map_err(|error| cannot_write(&target, &error.error))?;
    }
    Ok(())
}

fn make_folder(folder: &Path) -> Result<(), Problem> {
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
        Err(error) if error.kind() == io::ErrorKind::NotFound => Ok(None),
        Err(error) => Err(Failure::path(format!("cannot read what stands here: {}", reason(&error)), target)),
    }
}

fn is_ours(text: &[u8]) -> bool {
    str::from_utf8(text).is_ok_and(jar_sprout_grow::is_grown)
}

fn not_ours(target: &Path) -> Problem {
    Failure::path("this file was not grown by Jar Sprout, so it stays; nothing was written", target)
        .with_help("choose another folder with `--dir`, or move the file away")
}

/// Writes a text beside its target, ready to take its place.
fn prepare(folder: &Path, text: &str) -> Result<NamedTempFile, Problem> {
    let write = || -> io::Result<NamedTempFile> {
        let mut file = new_file(folder)?;
        file.write_all(text.as_bytes())?;
        file.as_file().sync_data()?;
        Ok(file)
    };
    write().map_err(|error| cannot_write(folder, &error))
}

/// A temporary file with the rights that a new file has here.
fn new_file(folder: &Path) -> io::Result<NamedTempFile> {
    let mut builder = tempfile::Builder::new();
    builder.prefix(".jar-sprout-");
    #[cfg(unix)]
    {
        use std::os::unix::fs::PermissionsExt;
        builder.permissions(fs::Permissions::from_mode(0o666));
    }
    builder.tempfile_in(folder)
}

fn cannot_write(path: &Path, error: &io::Error) -> Problem {
    Failure::path(format!("cannot write here: {}", reason(error)), path)
}
