//! Go: `go vet` and `go build`; `gofmt` and staticcheck, with all its checks, as judges.

use std::process::Command;

use crate::pardons::pardoned;
use crate::run::version;
use crate::toolchain::{Missing, Ready, Task};

pub(crate) fn find(wanted: &Task<'_>) -> Result<Ready, Missing> {
    let missing =
        || Missing::new("Go 1.24 or later", "apt-get install golang-go   # or from your package manager");
    let go = wanted.tools.program("go").ok_or_else(missing)?;
    let version = version(wanted.command(&go).arg("version")).ok_or_else(missing)?;
    let version = version.split(' ').nth(2).unwrap_or_default().trim_start_matches("go").to_owned();
    let mut gofmt = wanted.command(go.with_file_name("gofmt"));
    gofmt.args(["-s", "-d", "."]);
    let mut judges = vec![("gofmt", gofmt)];
    if let Some(staticcheck) = wanted.tools.go_program("staticcheck") {
        let mut command = offline(wanted.command(staticcheck));
        let pardons: String = pardoned("staticcheck").map(|rule| format!(",-{rule}")).collect();
        command.args(["-checks", &format!("all{pardons}"), "./..."]);
        judges.push(("staticcheck", command));
    }
    let mut vet = offline(wanted.command(&go));
    vet.args(["vet", "./..."]);
    let mut build = offline(wanted.command(&go));
    build.args(["build", "-o", "trials", "."]);
    let run = Some(Command::new(wanted.folder.join("trials")));
    Ok(Ready {
        title: format!("go {version}"),
        code: "",
        files: Vec::new(),
        compile: vec![vet, build],
        run,
        shared: None,
        nulls: wanted.abilities.nulls,
        judges,
    })
}

/// Nothing is fetched: grown code stands on the standard library alone.
fn offline(mut command: Command) -> Command {
    command.env("GOTOOLCHAIN", "local").env("GOPROXY", "off").env("GOFLAGS", "-mod=mod").env("GOWORK", "off");
    command
}
