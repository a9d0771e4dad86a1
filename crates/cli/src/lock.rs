//! The lock of a jar: who writes in it, or grows from it, is alone.

use std::fs::{File, TryLockError};
use std::io;
use std::path::Path;

use same_file::Handle;

use crate::failure::{Failure, Outcome, reason};
use crate::interrupt::{Passing, Undisturbed};

/// The file that is locked. It is there only while somebody holds it, or after they were killed.
const FILE: &str = ".jar-sprout-lock";

/// The lock of the jar in this folder, until this goes.
#[derive(Debug)]
pub(crate) struct Lock {
    /// Removed before it is unlocked, so that no one who comes gets a lock on a file that is about to go.
    _path: Passing,
    _file: File,
}

/// Locks the jar in this folder; waits for whoever has it. None where nobody can write here.
pub(crate) fn lock_jar() -> Outcome<Option<Lock>> {
    let path = Path::new(FILE);
    let cannot = |error: io::Error| Failure::path(format!("cannot lock the jar: {}", reason(&error)), path);
    loop {
        let mut undisturbed = Undisturbed::now();
        let file = match File::options().create(true).truncate(false).write(true).open(path) {
            Ok(file) => file,
            Err(error) if is_for_reading(&error) => return Ok(None),
            Err(error) => return Err(cannot(error).into()),
        };
        match file.try_lock() {
            Ok(()) => {}
            Err(TryLockError::WouldBlock) => {
                drop(undisturbed);
                file.lock().map_err(cannot)?;
                undisturbed = Undisturbed::now();
            }
            Err(TryLockError::Error(error)) => return Err(cannot(error).into()),
        }
        // Who had it before has removed the file; a lock on what nobody finds is none.
        let locked = file.try_clone().and_then(Handle::from_file).map_err(cannot)?;
        if Handle::from_path(path).is_ok_and(|there| there == locked) {
            return Ok(Some(Lock { _path: undisturbed.passing(path.to_owned()), _file: file }));
        }
    }
}

fn is_for_reading(error: &io::Error) -> bool {
    matches!(error.kind(), io::ErrorKind::PermissionDenied | io::ErrorKind::ReadOnlyFilesystem)
}
