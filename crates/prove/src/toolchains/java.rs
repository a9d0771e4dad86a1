//! What Java and Kotlin share: the virtual machine, and the libraries that grown code stands on.

use std::path::PathBuf;
use std::process::Command;

use jar_sprout_grow::Dependency;

use crate::toolchain::{Missing, Task};

/// A virtual machine that starts fast; its work here is short.
pub(crate) fn java(wanted: &Task<'_>) -> Result<Command, Missing> {
    let missing = || Missing::new("Java 17 or later", "apt-get install openjdk-17-jdk-headless");
    let mut command = wanted.command(wanted.tools.program("java").ok_or_else(missing)?);
    command.args(["-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC", "-Xshare:auto"]);
    Ok(command)
}

/// What each library brings along, as Maven Central names it; `VERSION` is that of the library.
const JARS: &[(&str, &[&str])] = &[
    (
        "org.jetbrains.kotlinx:kotlinx-serialization-json",
        &[
            "org.jetbrains.kotlinx:kotlinx-serialization-core-jvm:VERSION",
            "org.jetbrains.kotlinx:kotlinx-serialization-json-jvm:VERSION",
        ],
    ),
    (
        "com.squareup.moshi:moshi-kotlin",
        &[
            "com.squareup.moshi:moshi:VERSION",
            "com.squareup.moshi:moshi-kotlin:VERSION",
            "com.squareup.okio:okio-jvm:3.9.1",
        ],
    ),
    (
        "com.google.code.gson:gson",
        &["com.google.code.gson:gson:VERSION", "com.google.errorprone:error_prone_annotations:2.38.0"],
    ),
    ("com.fasterxml.jackson.core:jackson-databind", JACKSON),
    (
        "com.fasterxml.jackson.datatype:jackson-datatype-jsr310",
        &["com.fasterxml.jackson.datatype:jackson-datatype-jsr310:VERSION"],
    ),
    ("org.jetbrains.kotlinx:kotlinx-datetime", &["org.jetbrains.kotlinx:kotlinx-datetime-jvm:VERSION"]),
    ("org.jspecify:jspecify", &["org.jspecify:jspecify:VERSION"]),
    ("jakarta.validation:jakarta.validation-api", &["jakarta.validation:jakarta.validation-api:VERSION"]),
    (
        "com.fasterxml.jackson.module:jackson-module-kotlin",
        &[JACKSON[0], JACKSON[1], JACKSON[2], "com.fasterxml.jackson.module:jackson-module-kotlin:VERSION"],
    ),
];

const JACKSON: &[&str] = &[
    "com.fasterxml.jackson.core:jackson-annotations:2.20",
    "com.fasterxml.jackson.core:jackson-core:VERSION",
    "com.fasterxml.jackson.core:jackson-databind:VERSION",
];

/// What the grown code stands on, among the installed tools.
pub(crate) fn jars(wanted: &Task<'_>) -> Result<Vec<PathBuf>, Missing> {
    let needed = |Dependency(library, version): &Dependency| {
        let row = JARS.iter().find(|(name, _)| name == library);
        let needed = row.expect("every library that code stands on has its row").1;
        needed.iter().map(|one| one.replace("VERSION", version)).collect::<Vec<_>>()
    };
    let libraries: Vec<String> = wanted.abilities.foundation.libraries.iter().flat_map(needed).collect();
    let folder = wanted.tools.home().join("jars");
    let jar = |library: &str| {
        let mut parts = library.splitn(3, ':').skip(1);
        let (artifact, version) = (parts.next().unwrap_or_default(), parts.next().unwrap_or_default());
        folder.join(format!("{artifact}-{version}.jar"))
    };
    let missing: Vec<&str> =
        libraries.iter().map(String::as_str).filter(|library| !jar(library).exists()).collect();
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
