//! A jar as it was at a revision, by the `git` program; nothing of the work tree is touched.

use std::io::Write as _;
use std::path::{Path, PathBuf};
use std::process::{Command, Stdio};

use tempfile::TempDir;

use crate::failure::{Failure, Outcome};
use crate::jar::{FILE, parse_jar};
use crate::sources::split_part;

/// The jar of the folder that we are in, with its sources, as they were, in a folder that goes with it.
pub(crate) struct Revision {
    folder: TempDir,
}

impl Revision {
    /// Takes them out of the history.
    pub(crate) fn open(revision: &str) -> Outcome<Self> {
        let told = |message: String| Failure::argument(message, format!("--since {revision}"));
        if revision.starts_with('-') {
            return Err(told("this is no revision".to_owned()).into());
        }
        let folder = tempfile::tempdir().map_err(|error| told(crate::failure::reason(&error)))?;
        let mut git = Git {
            index: folder.path().join("index"),
            tree: folder.path().join("tree"),
            top: PathBuf::from("."),
        };
        let prefix = git.run(&["rev-parse", "--show-prefix"], "").map_err(&told)?;
        // What is said of files is said from here on.
        git.top =
            git.run(&["rev-parse", "--show-toplevel"], "").map_err(&told)?.trim_end_matches('\n').into();
        let tree = format!("{revision}:{}", prefix.trim_end_matches('\n').trim_end_matches('/'));
        git.run(&["read-tree", "--end-of-options", &tree], "").map_err(&told)?;
        git.take(&[FILE.to_owned()]).map_err(&told)?;
        let text = std::fs::read_to_string(git.tree.join(FILE)).map_err(|_| {
            told("there was no jar.toml in this folder".to_owned()).with_help("name a later revision")
        })?;
        let jar = parse_jar(&text)?;
        let sources: Vec<String> =
            jar.models.iter().flat_map(|model| model.request.selection.sources.clone()).collect();
        let all = git.run(&["ls-files", "-z"], "").map_err(&told)?;
        let wanted: Vec<String> = all
            .split_terminator('\0')
            .filter(|file| sources.iter().any(|source| is_of(file, source)))
            .map(str::to_owned)
            .collect();
        git.take(&wanted).map_err(&told)?;
        Ok(Self { folder })
    }

    /// Where the jar is.
    pub(crate) fn folder(&self) -> PathBuf {
        self.folder.path().join("tree")
    }
}

/// Whether a file is read for a source: it is the source, or stands in the folder of one, to which a document may refer.
fn is_of(file: &str, source: &str) -> bool {
    let (path, _) = split_part(source);
    let path = path.trim_start_matches("./");
    let folder = Path::new(path).parent().filter(|folder| *folder != Path::new(""));
    file == path || folder.map_or(!file.contains('/'), |folder| Path::new(file).starts_with(folder))
}

/// The program, with an index and a tree of its own.
struct Git {
    index: PathBuf,
    tree: PathBuf,
    /// The folder of the repository.
    top: PathBuf,
}

impl Git {
    /// What it says; else why not.
    fn run(&self, arguments: &[&str], input: &str) -> Result<String, String> {
        let mut command = Command::new("git");
        command.args(arguments).current_dir(&self.top);
        command.env("GIT_INDEX_FILE", &self.index).env("LC_ALL", "C");
        command.stdin(Stdio::piped()).stdout(Stdio::piped()).stderr(Stdio::piped());
        let mut git = command.spawn().map_err(|_| "the program `git` is not there".to_owned())?;
        let fed = git.stdin.take().map(|mut stdin| stdin.write_all(input.as_bytes()));
        let output = git.wait_with_output().map_err(|error| crate::failure::reason(&error))?;
        if !output.status.success() || fed.is_some_and(|fed| fed.is_err()) {
            let said = String::from_utf8_lossy(&output.stderr);
            let line = said.lines().next().unwrap_or("it failed").trim_start_matches("fatal: ").to_owned();
            return Err(format!("git: {line}"));
        }
        Ok(String::from_utf8_lossy(&output.stdout).into_owned())
    }

    /// Writes files of the index into the tree.
    fn take(&self, files: &[String]) -> Result<(), String> {
        let prefix = format!("--prefix={}/", self.tree.display());
        let input: String = files.iter().map(|file| format!("{file}\0")).collect();
        self.run(&["checkout-index", "-q", "-f", &prefix, "-z", "--stdin"], &input).map(drop)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn sources_and_what_stands_beside_them_are_taken() {
        assert!(is_of("samples/hives-1.json", "samples/hives-*.json"));
        assert!(is_of("api/schemas/hive.yaml", "api/api.yaml#/components/schemas/Hive"));
        assert!(is_of("hives.json", "hives.json") && is_of("queens.json", "hives.json"));
        assert!(!is_of("src/main.kt", "hives.json"));
        assert!(!is_of("src/main.kt", "samples/hives-*.json"));
    }
}
