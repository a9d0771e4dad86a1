//! Java: `javac -Xlint:all -Werror`; google-java-format as a judge.

use super::java;
use crate::run::version;
use crate::toolchain::{Missing, Ready, Task};

/// Packages of the compiler that the formatter reaches into.
const OPENED: &[&str] = &["api", "code", "file", "parser", "tree", "util"];

pub(crate) fn find(wanted: &Task<'_>) -> Result<Ready, Missing> {
    let missing = || Missing::new("Java 17 or later", "apt-get install openjdk-17-jdk-headless");
    let javac = wanted.tools.program("javac").ok_or_else(missing)?;
    let jars = java::jars(wanted)?;
    let version = version(wanted.command(&javac).arg("-version")).unwrap_or_default();
    // The shell spells out the files, of which there are many.
    let mut compile = wanted.command("sh");
    let script = "find src -name '*.java' > sources && exec \"$0\" \"$@\" @sources";
    compile.args(["-c", script]).arg(javac);
    compile.args([
        "-J-XX:TieredStopAtLevel=1",
        "-J-XX:+UseSerialGC",
        "--release",
        &wanted.abilities.foundation.level.0.to_string(),
        "-Xlint:all",
        "-Werror",
    ]);
    compile.args(["-Xdoclint:all,-missing", "-proc:none", "-Xmaxerrs", "10000"]);
    compile.args(["-cp", &java::class_path(&jars), "-d", "classes"]);
    let classes: Vec<_> = jars.into_iter().chain([wanted.folder.join("classes")]).collect();
    let mut run = java::java(wanted)?;
    run.args(["-cp", &java::class_path(&classes), wanted.main("trials.Driver")]);
    let mut judges = Vec::new();
    if let Some(formatter) = wanted.tools.installed("jars/google-java-format-1.28.0-all-deps.jar") {
        let mut format = wanted.command("sh");
        let script = "exec \"$0\" \"$@\" --dry-run --set-exit-if-changed $(find src/t* -name '*.java')";
        format.args(["-c", script, "java"]);
        format.args(
            OPENED
                .iter()
                .map(|part| format!("--add-exports=jdk.compiler/com.sun.tools.javac.{part}=ALL-UNNAMED")),
        );
        format.arg("-jar").arg(formatter);
        judges.push(("google-java-format", format));
    }
    Ok(Ready {
        title: version,
        code: "src",
        files: Vec::new(),
        compile: vec![compile],
        run: Some(run),
        shared: None,
        nulls: wanted.abilities.nulls,
        judges,
    })
}
