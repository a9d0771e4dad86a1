//! Python: checked by mypy at its strictest, judged by ruff, every sample decoded and encoded again.

use std::fs;
use std::path::{Path, PathBuf};
use std::process::Command;

use jar_sprout_grow::find_language;

use crate::jobs::{differences, write_samples};
use crate::toolchain::{find, must_pass, run};
use crate::trials::{Proof, lay_out, proofs};

const PROJECT: &str = r#"
[tool.mypy]
strict = true
warn_unreachable = true
plugins = ["pydantic.mypy"]
explicit_package_bases = true

[tool.ruff]
target-version = "py311"

[tool.ruff.lint]
select = ["A", "B", "C4", "E", "F", "I", "N", "PIE", "PYI", "RUF", "SIM", "UP", "W"]
ignore = [
    "E501", # the formatter's affair
    "I001", # the driver, beside which the trials lie
]
"#;

/// A tool of the virtual environment.
fn tool(name: &str) -> Option<PathBuf> {
    find("Python environment", "python/bin").map(|bin| bin.join(name))
}

fn set_up(folder: &Path, proofs: &[Proof]) -> Vec<jar_sprout_grow::Trial> {
    fs::write(folder.join("pyproject.toml"), PROJECT).unwrap();
    lay_out(find_language("python").unwrap(), proofs, folder)
}

#[test]
fn grown_python_checks_and_carries_every_sample() {
    let Some(python) = tool("python") else { return };
    let folder = tempfile::tempdir().unwrap();
    let proofs = proofs();
    let trials = set_up(folder.path(), &proofs);
    let jobs = write_samples(&trials, folder.path());
    let output =
        run(Command::new(&python).args(["-W", "error", "driver.py"]).current_dir(folder.path()), &jobs);
    assert_eq!(String::from_utf8_lossy(&output.stderr), "");
    assert_eq!(String::from_utf8_lossy(&output.stdout), "", "decodes that failed");
    assert_eq!(differences(&proofs, &trials, folder.path()), Vec::<String>::new());
    let mypy = python.with_file_name("mypy");
    must_pass(Command::new(mypy).args(["--no-error-summary", "."]).current_dir(folder.path()));
}

#[test]
fn grown_python_pleases_the_linter_and_the_formatter() {
    let Some(ruff) = tool("ruff") else { return };
    let folder = tempfile::tempdir().unwrap();
    // What comes out for names that no one would choose is run, but not judged for beauty.
    let proofs: Vec<Proof> = proofs().into_iter().filter(|proof| proof.name != "odd-keys").collect();
    set_up(folder.path(), &proofs);
    must_pass(Command::new(&ruff).args(["check", "--quiet", "."]).current_dir(folder.path()));
    must_pass(
        Command::new(&ruff)
            .args(["format", "--quiet", "--diff", "--exclude", "trials.py", "."])
            .current_dir(folder.path()),
    );
}
