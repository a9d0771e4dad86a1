//! What was proven before, so that the same code is not proven again.

use std::fmt;
use std::fs;
use std::hash::{DefaultHasher, Hash, Hasher};
use std::io;
use std::path::PathBuf;

/// All that a proof depends on, as one number: the toolchain and how it is called, the grown code, the samples, and the
/// rules by which they are compared. Proofs of other settings, or of another run, whose numbers are the same are the same
/// proof.
#[derive(Clone, Copy, PartialEq, Eq, Hash)]
pub struct Digest(u64);

/// A folder with an empty file for each proof that was made.
#[derive(Debug, Clone)]
pub struct Memory {
    folder: PathBuf,
    basis: u64,
}

impl Digest {
    pub(crate) fn of(it: &impl Hash) -> Self {
        let mut hasher = DefaultHasher::new();
        it.hash(&mut hasher);
        Self(hasher.finish())
    }
}

impl fmt::Debug for Digest {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        write!(f, "{:016x}", self.0)
    }
}

impl Memory {
    /// The memory in a folder. The basis is what else every proof depends on: what is remembered on another basis is
    /// not known.
    pub fn at(folder: PathBuf, basis: &impl Hash) -> Self {
        Self { folder, basis: Digest::of(basis).0 }
    }

    pub(crate) fn has(&self, digest: Digest) -> bool {
        self.file(digest).exists()
    }

    /// Remembers proofs. Whether a report's are good is for its reader to say, who may object to what a judge said.
    ///
    /// # Errors
    /// Files that cannot be written.
    pub fn remember(&self, proven: &[Digest]) -> io::Result<()> {
        fs::create_dir_all(&self.folder)?;
        proven.iter().try_for_each(|digest| fs::write(self.file(*digest), ""))
    }

    fn file(&self, digest: Digest) -> PathBuf {
        self.folder.join(format!("{:?}", Digest::of(&(self.basis, digest))))
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_was_proven_is_known_on_the_same_basis() {
        let folder = tempfile::tempdir().unwrap();
        let at = |basis: u8| Memory::at(folder.path().join("proofs"), &basis);
        let [proven, other] = [1_u8, 2].map(|code| Digest::of(&code));
        assert!(!at(1).has(proven));
        at(1).remember(&[proven]).unwrap();
        assert!(at(1).has(proven));
        assert!(!at(1).has(other));
        assert!(!at(2).has(proven));
    }
}
