//! Being interrupted: what a run has lying about is taken away before it ends.

use std::fs;
use std::path::{Path, PathBuf};
use std::sync::{Mutex, MutexGuard, Once, PoisonError};

/// The status of a run that a signal ended.
const INTERRUPTED: i32 = 130;

/// What lies about now.
static LYING_ABOUT: Mutex<Vec<PathBuf>> = Mutex::new(Vec::new());

static LISTENING: Once = Once::new();

fn lying_about() -> MutexGuard<'static, Vec<PathBuf>> {
    LYING_ABOUT.lock().unwrap_or_else(PoisonError::into_inner)
}

/// While this is held nothing interrupts: Ctrl-C, SIGTERM and SIGHUP wait until it goes.
#[derive(Debug)]
pub(crate) struct Undisturbed(MutexGuard<'static, Vec<PathBuf>>);

impl Undisturbed {
    pub(crate) fn now() -> Self {
        LISTENING.call_once(|| {
            // Whoever cannot listen leaves things behind, which the next run sweeps.
            let _ = ctrlc::set_handler(|| {
                // Held to the end, so that nothing new is made.
                let all = lying_about();
                all.iter().for_each(|path| remove(path));
                std::process::exit(INTERRUPTED);
            });
        });
        Self(lying_about())
    }

    /// What was just made is to go again.
    pub(crate) fn passing(mut self, path: PathBuf) -> Passing {
        self.0.push(path.clone());
        Passing { path }
    }
}

/// A file or folder that goes when this does, or when the run is interrupted.
#[derive(Debug)]
pub(crate) struct Passing {
    path: PathBuf,
}

impl Passing {
    pub(crate) fn path(&self) -> &Path {
        &self.path
    }
}

impl Drop for Passing {
    fn drop(&mut self) {
        let mut all = lying_about();
        remove(&self.path);
        all.retain(|path| *path != self.path);
    }
}

fn remove(path: &Path) {
    let _ = if path.is_dir() { fs::remove_dir_all(path) } else { fs::remove_file(path) };
}
