//! Python: mypy at its strictest; ruff as a judge.

use jar_sprout_grow::{Judge, Level};

use crate::pardons::pardoned;
use crate::run::version;
use crate::toolchain::{Missing, Ready, Task};

/// What all trials stand in, so that one finds what it shares with others.
const PACKAGE: &str = "grown";

const PROJECT: &str = r#"
[tool.mypy]
python_version = "VERSION"
strict = true
warn_unreachable = true
plugins = ["pydantic.mypy"]
explicit_package_bases = true

[tool.ruff]
target-version = "LEVEL"

[tool.ruff.lint]
select = ["ALL"]
ignore = PARDONS
"#;

/// What no judge reads.
const DRIVER: &[&str] =
    &["--exclude", "trials.py", "--exclude", "driver.py", "--exclude", "t[0-9]*.py", "--exclude", "root.py"];

pub(crate) fn find(wanted: &Task<'_>) -> Result<Ready, Missing> {
    let Some(python) = wanted.tools.installed("python/bin/python") else {
        let home = wanted.tools.home().join("python");
        let home = home.display();
        let line = format!(
            "python3 -m venv {home} && {home}/bin/pip install pydantic==2.14.3 mypy==2.4.1 ruff==0.17.5"
        );
        return Err(Missing::new("a Python environment with pydantic and mypy", line));
    };
    let Level(major, minor) = wanted.abilities.foundation.level;
    let pardons: Vec<&str> = pardoned("ruff").collect();
    let project = PROJECT
        .replace("PARDONS", &format!("{pardons:?}"))
        .replace("LEVEL", &format!("py{major}{minor}"))
        .replace("VERSION", &format!("{major}.{minor}"));
    let tool = |name: &str| wanted.command(python.with_file_name(name));
    let mut mypy = tool("mypy");
    mypy.args(["--no-error-summary", "."]);
    let mut run = tool("python");
    run.args(["-W", "error"]);
    match wanted.program {
        Some(program) => run.arg(program),
        None => run.args(["-m", &format!("{PACKAGE}.driver")]),
    };
    let mut check = tool("ruff");
    check.args(["check", "--quiet", "--output-format", "concise"]).args(DRIVER).arg(".");
    let mut format = tool("ruff");
    format.args(["format", "--quiet", "--diff"]).args(DRIVER).arg(".");
    let version = version(tool("python").arg("--version")).unwrap_or_default();
    let version = version.trim_start_matches("Python ");
    Ok(Ready {
        title: format!("Python {version} with mypy"),
        code: if wanted.program.is_some() { "" } else { PACKAGE },
        files: vec![("pyproject.toml", project)],
        compile: vec![mypy],
        // Types alone are proven by the type checker.
        run: (wanted.abilities.judge == Judge::Driver || wanted.program.is_some()).then_some(run),
        shared: None,
        nulls: wanted.abilities.nulls,
        judges: vec![("ruff check", check), ("ruff format", format)],
    })
}
