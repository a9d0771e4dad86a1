//! Dart: the virtual machine's own compiler.

use crate::run::version;
use crate::toolchain::{Missing, Ready, Task};

pub(crate) fn find(wanted: &Task<'_>) -> Result<Ready, Missing> {
    let machine = "dart/node_modules/sass-embedded-linux-ia32/dart-sass/src/dart";
    let Some(dart) = wanted.tools.program("dart").or_else(|| wanted.tools.installed(machine)) else {
        return Err(Missing::new("Dart 3.3 or later", "see https://dart.dev/get-dart"));
    };
    let version = version(wanted.command(&dart).arg("--version")).unwrap_or_default();
    let version = version.split(' ').nth(3).unwrap_or_default();
    let mut compile = wanted.command(&dart);
    compile.args(["--snapshot-kind=kernel", "--snapshot=trials.dill", wanted.main("main.dart")]);
    let mut run = wanted.command(&dart);
    run.args(["--enable-asserts", "trials.dill"]);
    Ok(Ready {
        title: format!("Dart {version}"),
        code: "",
        files: Vec::new(),
        compile: vec![compile],
        run: Some(run),
        shared: None,
        nulls: wanted.abilities.nulls,
        judges: Vec::new(),
    })
}
