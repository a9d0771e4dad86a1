//! Java: Checkstyle with Google's style; Error Prone with NullAway.

use std::path::{Path, PathBuf};
use std::process::Command;

use super::{Bench, installed, java, pardoned};
use crate::toolchain::Missing;
use crate::tools::Tools;

/// Packages of the compiler that Error Prone reaches into.
const OPENED: &[&str] =
    &["api", "code", "comp", "file", "main", "model", "parser", "processing", "tree", "util"];

pub(super) fn find(tools: &Tools) -> Result<Bench, Missing> {
    let judges = jars_in(&installed(tools, "Checkstyle", "judges/jars")?);
    let libraries = jars_in(&installed(tools, "the libraries that the code stands on", "jars")?);
    // It tells when it starts and ends.
    let aside = "$(cat sources) > said 2>&1; sed '/^Starting audit/d; /^Audit done/d' said";
    let mut checkstyle = of_all_files(java(tools, "java")?, aside);
    checkstyle.arg("-Dorg.checkstyle.google.suppressionfilter.config=pardons.xml");
    checkstyle.args(["-cp", &judges, "com.puppycrawl.tools.checkstyle.Main", "-c", "/google_checks.xml"]);
    let mut error_prone = of_all_files(java(tools, "javac")?, "@sources");
    let opened = |one| format!("-J--add-opens=jdk.compiler/com.sun.tools.javac.{one}=ALL-UNNAMED");
    error_prone.args(OPENED.iter().map(opened));
    error_prone.args(["-XDcompilePolicy=simple", "--should-stop=ifError=FLOW", "-Xmaxwarns", "10000"]);
    let pardons: String = pardoned("error-prone").map(|rule| format!(" -Xep:{rule}:OFF")).collect();
    error_prone.arg(format!(
        "-Xplugin:ErrorProne -XepAllSuggestionsAsWarnings -XepOpt:NullAway:OnlyNullMarked=true{pardons}"
    ));
    error_prone.args(["-processorpath", &judges, "-cp", &libraries, "-d", "classes"]);
    let pardon = |rule: &str| {
        let (check, message) = rule.split_once(": ").unwrap_or((rule, "."));
        format!("<suppress checks=\"{check}\" message=\"{message}\" files=\".\"/>\n")
    };
    let pardons: String = pardoned("checkstyle").map(pardon).collect();
    Ok(Bench {
        code: "src/trials",
        files: vec![("pardons.xml", SUPPRESSIONS.replace("<!-- all -->", &pardons))],
        judges: vec![("Checkstyle", checkstyle), ("Error Prone", error_prone)],
    })
}

/// A program with all files, which the shell spells out: there are many.
fn of_all_files(program: PathBuf, spelled_out: &str) -> Command {
    let mut command = Command::new("sh");
    let script = format!("find src -name '*.java' > sources && \"$0\" \"$@\" {spelled_out}");
    command.args(["-c", &script]).arg(program);
    command
}

/// All libraries of a folder, but for programs that bring their own along.
fn jars_in(folder: &Path) -> String {
    let entries = std::fs::read_dir(folder).into_iter().flatten().flatten();
    let mut jars: Vec<String> = entries.map(|entry| entry.path().display().to_string()).collect();
    jars.retain(|jar| jar.ends_with(".jar") && !jar.ends_with("-all.jar") && !jar.ends_with("-all-deps.jar"));
    jars.sort();
    jars.join(":")
}

const SUPPRESSIONS: &str = r#"<?xml version="1.0"?>
<!DOCTYPE suppressions PUBLIC
    "-//Checkstyle//DTD SuppressionFilter Configuration 1.2//EN"
    "https://checkstyle.org/dtds/suppressions_1_2.dtd">
<suppressions>
<!-- all -->
</suppressions>
"#;
