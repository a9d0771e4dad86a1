//! Putting files in their places: all or none, and none of them half.
//!
//! Texts are first written into a folder of their own beside where they go. When all are there, they are flushed to
//! the disk at once, and only then do they take their places, each by a rename; last, the folders are flushed, which
//! hold the names. So whenever the power goes, a name leads to its old text or to its new one, whole.

use std::collections::{BTreeMap, BTreeSet};
use std::fs::{self, File};
use std::io;
use std::path::{Path, PathBuf};
use std::time::Duration;

use crate::interrupt::{Passing, Undisturbed};
use crate::progress::Progress;

/// What the names of our own passing files and folders start with.
pub(crate) const OURS: &str = ".jar-sprout-";

/// How old something of ours is that nobody can be using any more.
const FORGOTTEN: Duration = Duration::from_secs(60 * 60);

/// The most files that are flushed one by one: one by one it takes some milliseconds each, all at once it takes what
/// everybody else has written as well.
#[cfg(target_os = "linux")]
const FEW: usize = 64;

/// Something that could not be done, and where.
pub(crate) type Failed = (PathBuf, io::Error);

/// Files that are ready to take their places.
#[derive(Debug, Default)]
pub(crate) struct Stage {
    /// For each folder, the one in it where its files stand ready.
    folders: BTreeMap<PathBuf, Passing>,
    /// Each file that is ready, and its place.
    ready: Vec<(PathBuf, PathBuf)>,
}

impl Stage {
    /// Writes a text, ready to take its place, in a folder that is there.
    pub(crate) fn add(&mut self, target: &Path, text: &str) -> Result<(), Failed> {
        let folder = match target.parent() {
            Some(folder) if folder != Path::new("") => folder,
            _ => Path::new("."),
        };
        let failed = |error| (folder.to_owned(), error);
        if !self.folders.contains_key(folder) {
            let undisturbed = Undisturbed::now();
            let staging = tempfile::Builder::new().prefix(OURS).tempdir_in(folder).map_err(failed)?.keep();
            self.folders.insert(folder.to_owned(), undisturbed.passing(staging));
        }
        // An interruption comes between two files, so that it knows of all that is there.
        let _undisturbed = Undisturbed::now();
        let path = self.folders[folder].path().join(self.ready.len().to_string());
        fs::write(&path, text).map_err(failed)?;
        self.ready.push((path, target.to_owned()));
        Ok(())
    }

    /// Puts all files in their places, with the rights of those that stood there, and removes others. From the first
    /// file on, nothing interrupts it.
    pub(crate) fn put(self, removed: &[&Path], progress: &Progress) -> Result<(), Failed> {
        self.flush()?;
        let undisturbed = Undisturbed::now();
        for (ready, target) in &self.ready {
            let replace = || -> io::Result<()> {
                if let Ok(old) = fs::metadata(target) {
                    fs::set_permissions(ready, old.permissions())?;
                }
                fs::rename(ready, target)
            };
            replace().map_err(|error| (target.clone(), error))?;
            progress.step();
        }
        for path in removed {
            fs::remove_file(path).map_err(|error| ((*path).to_owned(), error))?;
        }
        drop(undisturbed);
        let parents = removed.iter().filter_map(|path| path.parent());
        let touched: BTreeSet<&Path> = self.folders.keys().map(PathBuf::as_path).chain(parents).collect();
        // Where a folder cannot be flushed, its names come to the disk in a while.
        touched.into_iter().for_each(|folder| drop(File::open(folder).and_then(|folder| folder.sync_all())));
        Ok(())
    }

    /// Has all texts on the disk.
    fn flush(&self) -> Result<(), Failed> {
        #[cfg(target_os = "linux")]
        if self.ready.len() > FEW {
            use std::os::unix::fs::MetadataExt as _;
            let mut disks = BTreeSet::new();
            for staging in self.folders.values() {
                let path = staging.path();
                let mut flush = || -> io::Result<()> {
                    let folder = File::open(path)?;
                    if disks.insert(folder.metadata()?.dev()) {
                        rustix::fs::syncfs(&folder)?;
                    }
                    Ok(())
                };
                flush().map_err(|error| (path.to_owned(), error))?;
            }
            return Ok(());
        }
        for (path, target) in &self.ready {
            let flush = || File::options().write(true).open(path)?.sync_data();
            flush().map_err(|error| (target.clone(), error))?;
        }
        Ok(())
    }
}

/// Removes what runs left in a folder that were killed: what is called as ours are, and so old that no run uses it.
pub(crate) fn sweep(folder: &Path) {
    for entry in fs::read_dir(folder).into_iter().flatten().flatten() {
        let name = entry.file_name();
        let is_ours = name.to_str().and_then(|name| name.strip_prefix(OURS)).is_some_and(is_random);
        let Some(about) = is_ours.then(|| entry.metadata().ok()).flatten() else { continue };
        let age = about.modified().ok().and_then(|then| then.elapsed().ok());
        if age.is_some_and(|age| age > FORGOTTEN) {
            // One that cannot be removed is no reason to stop.
            let _ =
                if about.is_dir() { fs::remove_dir_all(entry.path()) } else { fs::remove_file(entry.path()) };
        }
    }
}

/// Whether the rest of a name is what makes ours unique.
fn is_random(rest: &str) -> bool {
    rest.len() == 6 && rest.chars().all(|c| c.is_ascii_alphanumeric())
}
