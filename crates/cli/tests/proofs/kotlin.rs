//! Kotlin: compiled with warnings as errors, judged by its linter, every sample decoded and encoded again.

use std::fs;
use std::path::{Path, PathBuf};
use std::process::Command;

use jar_sprout_grow::find_language;

use crate::jobs::{differences, write_samples};
use crate::toolchain::{find, home, must_pass, run};
use crate::trials::{Proof, lay_out, proofs};

/// A Java that starts fast; its work here is short.
fn java() -> Command {
    let mut command = Command::new("java");
    command.args(["-XX:TieredStopAtLevel=1", "-XX:+UseSerialGC", "-Xshare:auto"]);
    command
}

fn compiler() -> Option<PathBuf> {
    find("Kotlin compiler", "kotlin/node_modules/kotlin-compiler")
}

fn class_path(compiler: &Path, more: &[&Path]) -> String {
    let jars =
        ["core", "json"].map(|part| home().join(format!("jars/kotlinx-serialization-{part}-jvm-1.9.0.jar")));
    let library = compiler.join("lib/kotlin-stdlib.jar");
    let all = jars.iter().map(PathBuf::as_path).chain([library.as_path()]).chain(more.iter().copied());
    all.map(|path| path.display().to_string()).collect::<Vec<_>>().join(":")
}

fn compile(compiler: &Path, sources: &Path, classes: &Path) {
    let plugin = compiler.join("lib/kotlinx-serialization-compiler-plugin.jar");
    must_pass(
        java()
            .args(["-Xmx2g", "-cp"])
            .arg(compiler.join("lib/kotlin-compiler.jar"))
            .arg("org.jetbrains.kotlin.cli.jvm.K2JVMCompiler")
            .arg("-kotlin-home")
            .arg(compiler)
            .args(["-Werror", "-Wextra", "-progressive", "-jvm-target", "17", "-no-reflect", "-no-stdlib"])
            .arg(format!("-Xplugin={}", plugin.display()))
            .args(["-cp", &class_path(compiler, &[]), "-d"])
            .arg(classes)
            .arg(sources),
    );
}

#[test]
fn grown_kotlin_compiles_and_carries_every_sample() {
    let Some(compiler) = compiler() else { return };
    let kotlin = find_language("kotlin").unwrap();
    let folder = tempfile::tempdir().unwrap();
    let (sources, classes) = (folder.path().join("src"), folder.path().join("classes"));
    fs::create_dir(&sources).unwrap();
    let proofs = proofs();
    let trials = lay_out(kotlin, &proofs, &sources);
    compile(&compiler, &sources, &classes);

    let jobs = write_samples(&trials, folder.path());
    let class_path = class_path(&compiler, &[&classes]);
    let output = run(java().args(["-cp", &class_path, "trials.DriverKt"]), &jobs);
    assert_eq!(String::from_utf8_lossy(&output.stderr), "");
    assert_eq!(String::from_utf8_lossy(&output.stdout), "", "decodes that failed");
    assert_eq!(differences(&proofs, &trials, folder.path()), Vec::<String>::new());
}

#[test]
fn grown_kotlin_pleases_the_linter() {
    let Some(linter) = find("Kotlin linter", "jars/ktlint-cli-1.8.0-all.jar") else { return };
    let kotlin = find_language("kotlin").unwrap();
    let folder = tempfile::tempdir().unwrap();
    let style = "root = true\n[*.kt]\nktlint_code_style = ktlint_official\nmax_line_length = 100\n";
    fs::write(folder.path().join(".editorconfig"), style).unwrap();
    // What comes out for names that no one would choose is compiled, but not judged for beauty.
    let proofs: Vec<Proof> = proofs().into_iter().filter(|proof| proof.name != "odd-keys").collect();
    lay_out(kotlin, &proofs, folder.path());
    must_pass(
        java().arg("-jar").arg(linter).args(["--log-level=error", "t*/*.kt"]).current_dir(folder.path()),
    );
}
