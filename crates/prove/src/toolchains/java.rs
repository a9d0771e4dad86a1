//! What Java and Kotlin share: the virtual machine, and the libraries that grown code stands on.

use std::path::PathBuf;
use std::process::Command;

use crate::toolchain::{Missing, Wanted};

/// The libraries of grown code, as Maven Central names them.
const LIBRARIES: &[&str] = &[
    "org.jetbrains.kotlinx:kotlinx-serialization-core-jvm:1.9.0",
    "org.jetbrains.kotlinx:kotlinx-serialization-json-jvm:1.9.0",
    "com.fasterxml.jackson.core:jackson-annotations:2.20",
    "com.fasterxml.jackson.core:jackson-core:2.20.0",
    "com.fasterxml.jackson.core:jackson-databind:2.20.0",
    "com.fasterxml.jackson.module:jackson-module-kotlin:2.20.0",
    "com.google.code.gson:gson:2.13.1",
    "com.squareup.moshi:moshi:1.15.2",
    "com.squareup.okio:okio-jvm:3.9.0",
];

/// A virtual machine that starts fast; its work here is short.
pub(crate) fn java(wanted: &Wanted<'_>) -> Result<Command, Missing> {
    let missing = || Missing::new("Java 17 or later", "apt-get install openjdk-17-jdk-headless");
    let mut command = wanted.command(wanted.tools.program("java").ok_or_else(missing)?);
    command.args(["-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC", "-Xshare:auto"]);
    Ok(command)
}

/// The libraries among the installed tools.
pub(crate) fn jars(wanted: &Wanted<'_>) -> Result<Vec<PathBuf>, Missing> {
    let jar = |library: &&str| {
        let mut parts = library.splitn(3, ':').skip(1);
        let (artifact, version) = (parts.next().unwrap_or_default(), parts.next().unwrap_or_default());
        wanted.tools.installed(format!("jars/{artifact}-{version}.jar")).ok_or_else(|| {
            let folder = wanted.tools.home().join("jars");
            let line = format!(
                "mvn -q dependency:copy -Dartifact={library} -Dmdep.useBaseVersion=true -DoutputDirectory={}",
                folder.display()
            );
            Missing::new(artifact, line)
        })
    };
    LIBRARIES.iter().map(jar).collect()
}

pub(crate) fn class_path(paths: &[PathBuf]) -> String {
    paths.iter().map(|path| path.display().to_string()).collect::<Vec<_>>().join(":")
}
