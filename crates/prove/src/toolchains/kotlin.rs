//! Kotlin: `kotlinc -Werror -Wextra`; ktlint as a judge.

use std::path::PathBuf;
use std::process::Command;

use jar_sprout_grow::Judge;

use super::java;
use crate::toolchain::{Missing, Ready, Task};

const STYLE: &str = "root = true\n[*.kt]\nktlint_code_style = ktlint_official\nmax_line_length = 100\n";

/// What the plugin for parcels asks of Android, which is not here.
const ANDROID: &str = include_str!("android.kt");

pub(crate) fn find(wanted: &Task<'_>) -> Result<Ready, Missing> {
    let compiler = "kotlin/node_modules/kotlin-compiler";
    let Some(compiler) = wanted.tools.installed(compiler) else {
        let home = wanted.tools.home().join("kotlin");
        let line = format!("npm install --prefix {} kotlin-compiler@2.4.20", home.display());
        return Err(Missing::new("the Kotlin compiler", line));
    };
    let foundation = &wanted.abilities.foundation;
    let has_parcels = foundation.plugins.contains(&"parcelize");
    let own = ["lib/kotlin-stdlib.jar", "lib/kotlin-reflect.jar", "lib/parcelize-runtime.jar"]
        .map(|jar| compiler.join(jar));
    let libraries = java::jars(wanted)?;
    let jars = libraries.into_iter().chain(own).collect::<Vec<PathBuf>>();
    let plugins = ["lib/kotlinx-serialization-compiler-plugin.jar"].into_iter();
    let plugins = plugins.chain(has_parcels.then_some("lib/parcelize-compiler.jar"));
    let mut compile = java::java(wanted)?;
    compile
        .args(["-Xmx3g", "-cp"])
        .arg(compiler.join("lib/kotlin-compiler.jar"))
        .arg("org.jetbrains.kotlin.cli.jvm.K2JVMCompiler")
        .arg("-kotlin-home")
        .arg(&compiler)
        .args(["-Werror", "-Wextra", "-progressive", "-jvm-target", "17", "-no-reflect", "-no-stdlib"])
        .args(plugins.map(|plugin| format!("-Xplugin={}", compiler.join(plugin).display())))
        .args(["-cp", &java::class_path(&jars), "-d", "classes", "src"]);
    let classes = jars.iter().cloned().chain([wanted.folder.join("classes")]).collect::<Vec<_>>();
    let mut run = java::java(wanted)?;
    run.args(["-cp", &java::class_path(&classes), wanted.main("trials.DriverKt")]);
    let judges = ktlint(wanted).map(|command| ("ktlint", command)).into_iter().collect();
    let version = std::fs::read_to_string(compiler.join("build.txt")).unwrap_or_default();
    let version = version.split('-').next().unwrap_or_default().trim();
    Ok(Ready {
        title: format!("kotlinc {version}"),
        code: "src",
        files: [("src/.editorconfig", STYLE)]
            .into_iter()
            .chain(has_parcels.then_some(("src/Android.kt", ANDROID)))
            .map(|(name, text)| (name, text.to_owned()))
            .collect(),
        compile: vec![compile],
        // Plain classes are read by nothing.
        run: (wanted.abilities.judge == Judge::Driver).then_some(run),
        shared: None,
        nulls: wanted.abilities.nulls,
        judges,
    })
}

fn ktlint(wanted: &Task<'_>) -> Option<Command> {
    let linter = wanted.tools.installed("jars/ktlint-cli-1.8.0-all.jar")?;
    let mut command = java::java(wanted).ok()?;
    command.arg("-jar").arg(linter).args(["--log-level=error", "src/t*/*.kt"]);
    Some(command)
}
