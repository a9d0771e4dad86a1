//! The jar when things happen to it: a run that is killed, samples that change while it is watched.

#![allow(clippy::unwrap_used, reason = "a test or a bench that cannot go on should stop")]

use std::fs;
use std::path::Path;
use std::process::{Child, Command, Stdio};
use std::time::{Duration, Instant};

use jar_sprout_grow::{Origin, origin};

const JAR: &str =
    "version = 1\n\n[models.hive]\nsources = [\"hive.json\"]\n\n[languages.java]\ndir = \"java\"\n";

/// A sample with many types, so that there are many files.
fn sample(generation: usize) -> String {
    let types: Vec<String> =
        (0..40).map(|index| format!("\"part_{index}\": {{\"kg_{generation}_{index}\": 1}}")).collect();
    format!("{{{}}}", types.join(", "))
}

fn run(folder: &Path, arguments: &[&str]) -> Child {
    let mut command = Command::new(assert_cmd::cargo::cargo_bin!("jar-sprout"));
    command.args(arguments).current_dir(folder).stdout(Stdio::null()).stderr(Stdio::null()).spawn().unwrap()
}

#[test]
fn a_run_that_is_killed_leaves_whole_files() {
    let folder = tempfile::tempdir().unwrap();
    fs::write(folder.path().join("jar.toml"), JAR).unwrap();
    let mut seen = 0;
    // Later and later, until some run gets as far as writing: how far that is depends on the machine.
    for generation in 0..400 {
        if generation >= 40 && seen > 0 {
            break;
        }
        fs::write(folder.path().join("hive.json"), sample(generation)).unwrap();
        let mut child = run(folder.path(), &["grow"]);
        std::thread::sleep(Duration::from_micros(500 * generation as u64));
        child.kill().unwrap();
        child.wait().unwrap();
        for entry in fs::read_dir(folder.path().join("java")).into_iter().flatten() {
            let path = entry.unwrap().path();
            if path.extension().is_some_and(|extension| extension == "java") {
                let text = fs::read_to_string(&path).unwrap();
                assert_eq!(origin(&text), Origin::Grown(Some("hive".to_owned())), "{}", path.display());
                seen += 1;
            }
        }
    }
    assert!(seen > 0, "some run got as far as writing");
    // The next one makes it whole.
    assert!(run(folder.path(), &["grow"]).wait().unwrap().success());
    assert!(run(folder.path(), &["check"]).wait().unwrap().success());
}

#[test]
fn a_jar_that_is_watched_grows_again() {
    let folder = tempfile::tempdir().unwrap();
    fs::write(folder.path().join("jar.toml"), JAR).unwrap();
    fs::write(folder.path().join("hive.json"), "{\"id\": 1}").unwrap();
    let mut child = run(folder.path(), &["grow", "--watch"]);
    let grown = folder.path().join("java/Hive.java");
    let has = |word: &str| fs::read_to_string(&grown).is_ok_and(|text| text.contains(word));
    let until = |word: &str| {
        let start = Instant::now();
        while !has(word) {
            assert!(start.elapsed() < Duration::from_secs(60), "{word} never came");
            // A change that came before the watch began is not seen: it is made again.
            if word != "id" {
                fs::write(folder.path().join("hive.json"), format!("{{\"id\": 1, \"{word}\": 2}}")).unwrap();
            }
            std::thread::sleep(Duration::from_millis(300));
        }
    };
    until("id");
    until("frames");
    until("supers");
    child.kill().unwrap();
    child.wait().unwrap();
}
