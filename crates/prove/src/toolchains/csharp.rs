//! C#: the .NET SDK; without one, a compiler of its own on an older run-time; Mono's for the old level.

use std::path::Path;
use std::process::Command;

use jar_sprout_grow::{Level, Nulls};

use crate::run::version;
use crate::toolchain::{Missing, Ready, Task};

/// The first level of the language that the SDK compiles without more ado.
const MODERN: Level = Level(8, 0);

const PROJECT: &str = include_str!("csharp/trials.csproj.in");

/// What the older run-time lacks, written down for it.
const NEWER: &str = include_str!("csharp/newer.cs.in");

pub(crate) fn find(wanted: &Task<'_>) -> Result<Ready, Missing> {
    if wanted.abilities.foundation.level < MODERN {
        return mono(wanted);
    }
    if let Some(dotnet) = wanted.tools.program("dotnet") {
        return Ok(sdk(wanted, &dotnet));
    }
    match wanted.tools.installed("csharp/ready") {
        Some(ready) => Ok(compiler(wanted, &ready.with_file_name(""))),
        None => Err(Missing::new("the .NET SDK", "see https://dot.net for .NET 10")),
    }
}

fn sdk(wanted: &Task<'_>, dotnet: &Path) -> Ready {
    let dotnet = |arguments: &[&str]| {
        let mut command = wanted.command(dotnet);
        command.args(arguments).env("DOTNET_NOLOGO", "1").env("DOTNET_CLI_TELEMETRY_OPTOUT", "1");
        command
    };
    let version = version(&mut dotnet(&["--version"])).unwrap_or_default();
    Ready {
        title: format!(".NET SDK {version}"),
        code: "",
        files: vec![("trials.csproj", PROJECT.to_owned())],
        compile: vec![dotnet(&["build", "--nologo", "-v", "quiet", "-clp:ErrorsOnly", "-o", "out"])],
        run: Some(dotnet(&["out/trials.dll"])),
        shared: None,
        nulls: wanted.abilities.nulls,
        judges: Vec::new(),
    }
}

/// Roslyn on .NET Core 3.1, whose System.Text.Json knows no conditions: nulls are written where newer ones leave
/// them out, and the comparison must not mind.
fn compiler(wanted: &Task<'_>, home: &Path) -> Ready {
    let dotnet = home.join("runtime/dotnetcore2/bin/dotnet");
    let mut compile = wanted.command("sh");
    let script = format!(
        "find . -name '*.cs' > sources; '{1}' '{0}/host.dll' '{0}/lib' '{0}/driver.dll' $(cat '{0}/refs.txt') -r:'{0}/lib/Newtonsoft.Json.dll' -out:trials.dll $(cat sources) | grep -v CS0436 | grep -v CS1705 ; cp '{0}/program.runtimeconfig.json' trials.runtimeconfig.json; cp '{0}/lib/Newtonsoft.Json.dll' '{0}/lib/Shim.dll' .; true",
        home.display(),
        dotnet.display()
    );
    compile.args(["-c", &script]).env("LD_LIBRARY_PATH", home.join("ssl")).env("DOTNET_TieredPGO", "0");
    let mut run = Command::new(&dotnet);
    run.current_dir(wanted.folder).arg("trials.dll").env("LD_LIBRARY_PATH", home.join("ssl"));
    // Its Newtonsoft.Json asks for a newer library than there is: it is enough to compile against, but not to run.
    let is_newtonsoft = !wanted.abilities.foundation.libraries.is_empty();
    Ready {
        title: "Roslyn 4.7 on .NET Core 3.1".to_owned(),
        code: "",
        files: vec![("Newer.cs", NEWER.to_owned())],
        compile: vec![compile],
        run: (!is_newtonsoft).then_some(run),
        shared: None,
        nulls: Nulls::Everywhere,
        judges: formatter(wanted).into_iter().collect(),
    }
}

fn formatter(wanted: &Task<'_>) -> Option<(&'static str, Command)> {
    let mut command = wanted.command("sh");
    let script = "said=$(\"$0\" check $(find t* -name '*.cs') 2>&1) || echo \"$said\"";
    command.args(["-c", script]).arg(wanted.tools.installed("csharpier/rsharpier")?);
    Some(("rsharpier", command))
}

fn mono(wanted: &Task<'_>) -> Result<Ready, Missing> {
    let missing = || {
        Missing::new(
            "the Mono compiler with Newtonsoft.Json",
            "apt-get install --no-install-recommends mono-mcs mono-runtime libnewtonsoft-json5.0-cil",
        )
    };
    if wanted.abilities.foundation.libraries.is_empty() {
        // That of old run-times has no System.Text.Json.
        return Err(Missing::new(
            "the .NET SDK",
            "see https://dot.net for .NET 10; or `--with library=newtonsoft`",
        ));
    }
    let mcs = wanted.tools.program("mcs").ok_or_else(missing)?;
    let version = version(wanted.command(&mcs).arg("--version")).ok_or_else(missing)?;
    let mut compile = wanted.command("sh");
    let script = "library=$(dpkg -L libnewtonsoft-json5.0-cil | grep 'Newtonsoft.Json.dll$' | head -1); cp \"$library\" . && find . -name '*.cs' > sources && exec mcs -langversion:7.2 -warnaserror+ -warn:4 -r:Newtonsoft.Json.dll -r:System.Numerics.dll -r:System.Runtime.Serialization.dll -out:trials.exe @sources";
    compile.args(["-c", script]);
    let mut run = wanted.command("mono");
    run.arg("trials.exe");
    Ok(Ready {
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
