//! What Java and Kotlin share: the virtual machine, and the libraries that grown code stands on.

use std::path::PathBuf;
use std::process::Command;

use crate::toolchain::{Missing, Wanted};

/// A virtual machine that starts fast; its work here is short.
pub(crate) fn java(wanted: &Wanted<'_>) -> Result<Command, Missing> {
    let missing = || Missing::new("Java 17 or later", "apt-get install openjdk-17-jdk-headless");
    let mut command = wanted.command(wanted.tools.program("java").ok_or_else(missing)?);
    command.args(["-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC", "-Xshare:auto"]);
    Ok(command)
}

/// Libraries among the installed tools, as Maven Central names them: `group:artifact:version`.
pub(crate) fn jars(wanted: &Wanted<'_>, libraries: &[&str]) -> Result<Vec<PathBuf>, Missing> {
    let folder = wanted.tools.home().join("jars");
    let jar = |library: &str| {
        let mut parts = library.splitn(3, ':').skip(1);
        let (artifact, version) = (parts.next().unwrap_or_default(), parts.next().unwrap_or_default());
        folder.join(format!("{artifact}-{version}.jar"))
    };
    let missing: Vec<&str> = libraries.iter().copied().filter(|library| !jar(library).exists()).collect();
    if missing.is_empty() {
        return Ok(libraries.iter().map(|library| jar(library)).collect());
    }
    let line = format!(
        "for a in {}; do mvn -q dependency:copy -Dartifact=$a -Dmdep.useBaseVersion=true -DoutputDirectory={}; done",
        missing.join(" "),
        folder.display()
    );
    Err(Missing::new("the library that the code stands on", line))
}

pub(crate) fn class_path(paths: &[PathBuf]) -> String {
    paths.iter().map(|path| path.display().to_string()).collect::<Vec<_>>().join(":")
}
