//! C#: the .NET SDK; Mono's compiler for the old level, where there is one.

use std::path::{Path, PathBuf};
use std::process::Command;

use jar_sprout_grow::{Dependency, Foundation, Level};

use crate::run::version;
use crate::toolchain::{Missing, Ready, Task};

/// The first level of the language that needs no old compiler.
const MODERN: Level = Level(8, 0);

const PROJECT: &str = include_str!("csharp/trials.csproj.in");

pub(crate) fn find(wanted: &Task<'_>) -> Result<Ready, Missing> {
    let missing = || Missing::new("the .NET SDK", "see https://dot.net for .NET 10");
    let is_old = wanted.abilities.foundation.level < MODERN;
    if is_old && let Some(ready) = mono(wanted) {
        return Ok(ready);
    }
    let installed = wanted.tools.installed("dotnet/bin/dotnet");
    let dotnet = installed.or_else(|| wanted.tools.program("dotnet")).ok_or_else(missing)?;
    Ok(sdk(wanted, &dotnet, is_old))
}

fn sdk(wanted: &Task<'_>, dotnet: &Path, is_old: bool) -> Ready {
    let with_environment = |mut command: Command| {
        command.env("DOTNET_NOLOGO", "1").env("DOTNET_CLI_TELEMETRY_OPTOUT", "1");
        command
    };
    let version = version(with_environment(wanted.command(dotnet)).arg("--version")).unwrap_or_default();
    let mut compile = wanted.command("sh");
    // It tells what it does even when all is well, and each error twice.
    let script = "said=$(\"$0\" build --nologo -v quiet -clp:ErrorsOnly -o out 2>&1) \
        || { echo \"$said\" | sort -u | grep -E 'error|warning'; exit 1; }";
    compile.args(["-c", script]).arg(dotnet);
    let mut run = wanted.command(dotnet);
    run.arg("out/trials.dll");
    Ready {
        title: format!(".NET SDK {version}"),
        code: "",
        files: vec![("trials.csproj", project(&wanted.abilities.foundation, is_old))],
        compile: vec![with_environment(compile)],
        run: Some(with_environment(run)),
        shared: None,
        nulls: wanted.abilities.nulls,
        judges: formatter(wanted).into_iter().collect(),
    }
}

/// The project of all trials.
fn project(foundation: &Foundation, is_old: bool) -> String {
    let level = if is_old { "<LangVersion>7.3</LangVersion>" } else { "<Nullable>enable</Nullable>" };
    // Analysers come with the properties of code that is compiled ahead of time.
    let asked = foundation.plugins.iter().map(|name| format!("\n    <{name}>true</{name}>"));
    let level = level.to_owned() + &asked.collect::<String>();
    let package = |Dependency(name, version): &Dependency| {
        format!("<PackageReference Include=\"{name}\" Version=\"{version}\" />")
    };
    let packages: String = foundation.libraries.iter().map(package).collect();
    PROJECT.replace("<!-- level -->", &level).replace("<!-- packages -->", &packages)
}

fn formatter(wanted: &Task<'_>) -> Option<(&'static str, Command)> {
    let formatter: PathBuf = wanted.tools.installed("dotnet/bin/csharpier")?;
    let mut command = wanted.command("sh");
    let script = "said=$(find t* -name '*.cs' -print0 | xargs -0 \"$0\" check 2>&1) || echo \"$said\"";
    command.args(["-c", script]).arg(formatter);
    Some(("csharpier", command))
}

/// The compiler of old run-times, with their Newtonsoft.Json.
fn mono(wanted: &Task<'_>) -> Option<Ready> {
    let mcs = wanted.tools.program("mcs")?;
    let version = version(wanted.command(&mcs).arg("--version"))?;
    let mut compile = wanted.command("sh");
    let script = "library=$(dpkg -L libnewtonsoft-json5.0-cil | grep 'Newtonsoft.Json.dll$' | head -1); cp \"$library\" . && find . -name '*.cs' > sources && exec mcs -langversion:7.2 -warnaserror+ -warn:4 -r:Newtonsoft.Json.dll -r:System.Numerics.dll -r:System.Runtime.Serialization.dll -out:trials.exe @sources";
    compile.args(["-c", script]);
    let mut run = wanted.command("mono");
    run.arg("trials.exe");
    Some(Ready {
        title: version.chars().take(40).collect(),
        code: "",
        files: Vec::new(),
        compile: vec![compile],
        run: Some(run),
        shared: None,
        nulls: wanted.abilities.nulls,
        judges: Vec::new(),
    })
}
