//! Where compilers and libraries are found.

use std::ffi::OsStr;
use std::path::{Path, PathBuf};

/// The folder of installed tools, in the current folder or one above it.
const FOLDER: &str = ".toolchains";

/// Where compilers and libraries are found: a folder of installed tools, and the machine's own programs.
#[derive(Debug, Clone)]
pub struct Tools {
    /// Where tools are installed to.
    home: PathBuf,
    path: Vec<PathBuf>,
}

impl Tools {
    /// The tools of this machine: those in the folder that `JAR_SPROUT_TOOLCHAINS` names, else in `.toolchains` in
    /// the current folder or one above it, else in `.jar-sprout/toolchains` in the user's own folder; and those on
    /// `PATH`.
    pub fn of_this_machine() -> Self {
        let given = std::env::var_os("JAR_SPROUT_TOOLCHAINS").map(PathBuf::from);
        let path = std::env::var_os("PATH").unwrap_or_default();
        let path = std::env::split_paths(&path).collect();
        Self { home: given.or_else(nearest_folder).unwrap_or_else(users_folder), path }
    }

    /// Where tools are installed to.
    pub fn home(&self) -> &Path {
        &self.home
    }

    /// A file or folder among the installed tools, if it is there.
    pub(crate) fn installed(&self, path: impl AsRef<Path>) -> Option<PathBuf> {
        Some(self.home.join(path)).filter(|path| path.exists())
    }

    /// A program on `PATH`.
    pub(crate) fn program(&self, name: impl AsRef<OsStr>) -> Option<PathBuf> {
        let name = Path::new(name.as_ref());
        self.path.iter().map(|folder| folder.join(name)).find(|path| path.is_file())
    }
}

impl Tools {
    /// A program on `PATH`, or where `go install` puts it.
    pub(crate) fn go_program(&self, name: &str) -> Option<PathBuf> {
        let installed = || std::env::home_dir().map(|home| home.join("go/bin").join(name));
        self.program(name).or_else(|| installed().filter(|path| path.is_file()))
    }
}

fn nearest_folder() -> Option<PathBuf> {
    let here = std::env::current_dir().ok()?;
    here.ancestors().map(|folder| folder.join(FOLDER)).find(|folder| folder.is_dir())
}

fn users_folder() -> PathBuf {
    let user = std::env::home_dir().unwrap_or_default();
    user.join(".jar-sprout/toolchains")
}
