//! Python: pyright at its strictest; ruff with every rule there is.

use std::process::Command;

use super::{Bench, installed, pardoned};
use crate::toolchain::Missing;
use crate::tools::Tools;

pub(super) fn find(tools: &Tools) -> Result<Bench, Missing> {
    let python = installed(tools, "a Python environment with pydantic", "python/bin/python")?;
    let modules = installed(tools, "pyright", "judges/npm/node_modules")?;
    let mut pyright = Command::new("sh");
    let script = "\"$1/.bin/pyright\" --pythonpath \"$2\" > said 2>&1 || grep -v '^$' said";
    pyright.args(["-c", script, "sh"]).arg(modules).arg(&python);
    let mut ruff = Command::new(python.with_file_name("ruff"));
    ruff.args(["check", "--quiet", "--output-format", "concise", "."]);
    let off: String = pardoned("pyright").map(|rule| format!("{rule} = false\n")).collect();
    let pardons: Vec<&str> = pardoned("ruff").collect();
    let project = format!(
        "[tool.pyright]\ntypeCheckingMode = \"strict\"\n{off}\n[tool.ruff]\ntarget-version = \"py311\"\n\n[tool.ruff.lint]\nselect = [\"ALL\"]\nignore = {pardons:?}\n"
    );
    Ok(Bench {
        code: "grown",
        files: vec![("pyproject.toml", project), ("grown/__init__.py", String::new())],
        judges: vec![("pyright", pyright), ("ruff", ruff)],
    })
}
