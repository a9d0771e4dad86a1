//! `drift` in a jar under version control: against its last commit, another revision, a new response.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]

use std::fs;
use std::path::Path;
use std::process::{Command, Output};

use assert_cmd::cargo::CommandCargoExt;

fn run(folder: &Path, arguments: &[&str]) -> Output {
    Command::cargo_bin("jar-sprout").unwrap().args(arguments).current_dir(folder).output().unwrap()
}

fn git(folder: &Path, arguments: &[&str]) -> String {
    let mut command = Command::new("git");
    command.args(["-c", "user.name=Ada", "-c", "user.email=ada@fennimarsh.example"]).args(arguments);
    // Nothing of this machine's own settings.
    command.env("GIT_CONFIG_GLOBAL", "/dev/null").env("GIT_CONFIG_SYSTEM", "/dev/null");
    let output = command.current_dir(folder).output().unwrap();
    assert!(output.status.success(), "{arguments:?}: {}", String::from_utf8_lossy(&output.stderr));
    String::from_utf8(output.stdout).unwrap()
}

#[track_caller]
fn told(folder: &Path, arguments: &[&str], status: i32) -> String {
    let output = run(folder, arguments);
    let all = String::from_utf8_lossy(&output.stdout).into_owned() + &String::from_utf8_lossy(&output.stderr);
    assert_eq!(output.status.code(), Some(status), "{arguments:?}: {all}");
    all
}

const OLD: &str = "[{\"id\": 17, \"img\": \"https://img.example/17.jpg\"}, {\"id\": 95, \"img\": \"https://img.example/95.jpg\"}]";
const NEW: &str = "[{\"id\": 17, \"image\": \"https://img.example/17.jpg\"}, {\"id\": null, \"image\": \"https://img.example/95.jpg\"}]";

/// A repository with a jar in a folder of it, committed once, and a file that is none of the jar's.
fn repository() -> tempfile::TempDir {
    let folder = tempfile::tempdir().unwrap();
    let jar = folder.path().join("app/models");
    fs::create_dir_all(jar.join("samples")).unwrap();
    fs::write(folder.path().join("app/main.kt"), "fun main() {}\n").unwrap();
    fs::write(jar.join("samples/hives.json"), OLD).unwrap();
    told(&jar, &["init", "samples/hives.json"], 0);
    git(folder.path(), &["init", "-q"]);
    git(folder.path(), &["add", "-A"]);
    git(folder.path(), &["commit", "-q", "-m", "first"]);
    folder
}

#[test]
fn a_jar_is_held_against_its_history() {
    let folder = repository();
    let jar = folder.path().join("app/models");
    assert!(told(&jar, &["drift"], 0).contains("no drift"));
    fs::write(jar.join("samples/hives.json"), NEW).unwrap();
    let before = git(folder.path(), &["status", "--porcelain"]);
    for arguments in [&["drift"][..], &["drift", "--since", "HEAD"]] {
        let all = told(&jar, arguments, 1);
        assert!(all.contains("breaks reading  id   never null → may be null"), "{all}");
        assert!(all.contains("null 1 of 2, first samples/hives.json:1"), "{all}");
        assert!(all.contains("jar-sprout decide Hive.id --nullable"), "{all}");
        assert!(all.contains("img → image, it seems"), "{all}");
        assert!(all.contains("2 break reading"), "{all}");
    }
    assert_eq!(git(folder.path(), &["status", "--porcelain"]), before, "nothing of the work tree is touched");
    git(folder.path(), &["commit", "-q", "-a", "-m", "second"]);
    // From a folder below, too.
    assert!(told(&jar.join("samples"), &["drift"], 0).contains("no drift"));
    assert!(told(&jar, &["drift", "--since", "HEAD~1"], 1).contains("2 break reading"));
    for (revision, expected) in [
        ("HEAD~2", "HEAD~2"),
        ("nothing", "git: "),
        ("--since=-x", "this is no revision"),
        ("HEAD:app", "git: "),
    ] {
        let since = if revision.starts_with('-') { vec![revision] } else { vec!["--since", revision] };
        let all = told(&jar, &[&["drift"][..], &since].concat(), 2);
        assert!(all.contains(expected), "{revision}: {all}");
    }
}

#[test]
fn a_new_response_is_held_against_the_model() {
    let folder = repository();
    let jar = folder.path().join("app/models");
    fs::write(folder.path().join("today.json"), NEW).unwrap();
    let checked = told(&jar, &["check", "../../today.json"], 1);
    assert!(checked.contains("`jar-sprout drift ../../today.json` tells what changed"), "{checked}");
    let all = told(&jar, &["drift", "../../today.json"], 1);
    assert!(all.starts_with("hives → ../../today.json\n"), "{all}");
    assert!(all.contains("may be null") && all.contains("2 break reading"), "{all}");
    let json = run(&jar, &["drift", "../../today.json", "--format", "json"]);
    let json: serde_json::Value = serde_json::from_slice(&json.stdout).unwrap();
    assert_eq!(json["findings"][0]["verdict"], "breaks reading");
    let markdown = told(&jar, &["drift", "../../today.json", "--format", "markdown"], 1);
    assert!(markdown.contains("| breaks reading | `id` | never null | may be null<br>"), "{markdown}");
}

#[test]
fn two_jars_are_held_against_each_other() {
    let (one, other) = (repository(), repository());
    let jar = |folder: &tempfile::TempDir| folder.path().join("app/models").to_string_lossy().into_owned();
    let here = tempfile::tempdir().unwrap();
    fs::write(Path::new(&jar(&other)).join("samples/queens.json"), "[{\"id\": \"q\"}]").unwrap();
    told(Path::new(&jar(&other)), &["init", "samples/queens.json"], 0);
    let all = told(here.path(), &["drift", &jar(&one), &jar(&other)], 0);
    assert!(all.contains("no drift") && all.contains("model `queens` is new"), "{all}");
    let toml = format!("{}/jar.toml", jar(&other));
    let all = told(here.path(), &["drift", &toml, &jar(&one)], 0);
    assert!(all.contains("model `queens` is gone"), "{all}");
    let all = told(here.path(), &["drift", &jar(&other), "none.json"], 2);
    assert!(all.contains("which model of the jar?") && all.contains("`hives` and `queens`"), "{all}");
}

#[test]
fn without_a_history_there_is_none() {
    let folder = tempfile::tempdir().unwrap();
    assert!(told(folder.path(), &["drift"], 2).contains("no jar.toml here or above"));
    fs::write(folder.path().join("hives.json"), OLD).unwrap();
    told(folder.path(), &["init", "hives.json"], 0);
    let all = told(folder.path(), &["drift"], 2);
    assert!(all.contains("git: not a git repository"), "{all}");
}
