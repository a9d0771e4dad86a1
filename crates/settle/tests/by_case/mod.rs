//! A test for each case of a folder, under the case's own name: `cargo test hive_page` runs it alone.

use std::fs;
use std::path::{Path, PathBuf};
use std::process::ExitCode;

use libtest_mimic::{Arguments, Failed, Trial};

/// A check of one case, which says what is wrong.
pub(crate) type Check = fn(&Path) -> Result<(), String>;

/// Whether expected outcomes are written anew.
pub(crate) fn is_blessing() -> bool {
    std::env::var_os("BLESS").is_some()
}

/// Runs checks on each case below a folder, each with what its name starts with. How many cases there are stands beside
/// the folder, in a file whose name ends in `.count`: a case that is lost is a failure, too.
pub(crate) fn run_cases(folder: &Path, checks: &[(&str, Check)]) -> ExitCode {
    let mut paths: Vec<PathBuf> = fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path()).collect();
    paths.sort();
    let mut trials = vec![all_are_there(folder, paths.len())];
    for (start, check) in checks {
        for path in &paths {
            let name = path.file_stem().unwrap().to_string_lossy().replace('-', "_");
            let (path, check) = (path.clone(), *check);
            trials.push(Trial::test(format!("{start}{name}"), move || check(&path).map_err(Failed::from)));
        }
    }
    libtest_mimic::run(&Arguments::from_args(), trials).exit_code()
}

fn all_are_there(folder: &Path, count: usize) -> Trial {
    let file = folder.with_extension("count");
    Trial::test("all_cases_are_there", move || {
        if is_blessing() {
            fs::write(&file, format!("{count}\n"))?;
        }
        let expected = fs::read_to_string(&file)?;
        if expected.trim() == count.to_string() {
            return Ok(());
        }
        Err(format!("{count} cases, not {}: `cargo xtask bless` notes how many there are", expected.trim())
            .into())
    })
}

/// Compares what came with what was expected, or writes it.
pub(crate) fn compare(file: &Path, head: &str, expected: &str, came: &str) -> Result<(), String> {
    if is_blessing() {
        return fs::write(file, format!("{head}{came}")).map_err(|error| error.to_string());
    }
    if came == expected { Ok(()) } else { Err(format!("expected\n{expected}\ncame\n{came}")) }
}
