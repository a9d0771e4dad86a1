//! Recorded traffic: a jar made of the demo's session, without what is secret in it; and one that is long.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]

use std::fs;
use std::path::{Path, PathBuf};
use std::process::{Command, Output};

use assert_cmd::cargo::CommandCargoExt;

/// What the demo's session has in headers, cookies and bodies that nobody should see.
const SECRETS: &[&str] = &["b33s-0f-fennimarsh", "c0mb-5e55ion", "st1ng-free"];

fn session() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("demo/session.har")
}

fn run(folder: &Path, arguments: &[&str]) -> Output {
    Command::cargo_bin("jar-sprout").unwrap().args(arguments).current_dir(folder).output().unwrap()
}

#[track_caller]
fn well(output: &Output) -> String {
    assert_eq!(output.status.code(), Some(0), "{}", String::from_utf8_lossy(&output.stderr));
    String::from_utf8_lossy(&output.stdout).into_owned()
}

/// Each file below a folder, with its text.
fn files(folder: &Path, found: &mut Vec<(PathBuf, String)>) {
    for entry in fs::read_dir(folder).unwrap().flatten() {
        match entry.path() {
            path if path.is_dir() => files(&path, found),
            path => found.push((path.clone(), fs::read_to_string(path).unwrap())),
        }
    }
}

#[test]
fn a_jar_of_a_session_fits_it_and_holds_no_secret() {
    let folder = tempfile::tempdir().unwrap();
    let recording = fs::read_to_string(session()).unwrap();
    SECRETS.iter().for_each(|secret| assert!(recording.contains(secret), "{secret}"));
    well(&run(folder.path(), &["init", session().to_str().unwrap(), "--into", "typescript"]));
    well(&run(folder.path(), &["grow", "-q"]));
    let told = well(&run(folder.path(), &["check"]));
    assert!(told.contains("20 samples fit"), "{told}");
    let mut all = Vec::new();
    files(folder.path(), &mut all);
    for (path, text) in &all {
        for secret in SECRETS {
            assert!(!text.contains(secret), "{secret} in {}", path.display());
        }
        assert!(!text.contains("HoneyApp"), "a header in {}", path.display());
    }
    let text_of = |end: &str| {
        let found = all.iter().find(|(path, _)| path.to_string_lossy().contains(end));
        found.unwrap_or_else(|| panic!("{end}")).1.clone()
    };
    // What was packed, and what was in base64 alone.
    assert!(
        text_of("samples/hive/hives-95.").contains("Chapel Lane"),
        "{}",
        text_of("samples/hive/hives-95.")
    );
    assert!(text_of("samples/hives/hives.page-2.").contains("\"honey_kg\""));
    assert!(text_of("samples/login/").contains("\"token\": \"${TOKEN}\""));
    assert!(text_of("samples/login-request/").contains("\"password\": \"${PASSWORD}\""));
    assert!(text_of("models/hives_of_apiary/").contains("export interface HivesOfApiary {"));
    assert!(text_of("models/new_hive/").contains("export interface NewHive {"));
}

#[test]
fn an_endpoint_is_a_source_of_every_command() {
    let folder = tempfile::tempdir().unwrap();
    let session = session();
    let source = [session.to_str().unwrap(), "--endpoint", "GET /v1/hives/{id}"];
    let told = |command: &[&str]| well(&run(folder.path(), &[command, &source].concat()));
    assert!(told(&["look"]).starts_with("3 samples, "));
    assert!(told(&["why", "--field", "Hive.name"]).contains("session.har, entry 6:1"));
    assert!(told(&["grow", "--into", "go"]).contains("type Hive struct {"));
    assert!(told(&["use", "--into", "python"]).contains("response.json"));
    let part = format!("{}#GET /v1/hives/{{id}}", session.display());
    assert!(well(&run(folder.path(), &["look", &part])).starts_with("3 samples, "));
    let refused = run(folder.path(), &["scrub", &part]);
    assert_eq!(refused.status.code(), Some(2));
    assert!(String::from_utf8_lossy(&refused.stderr).contains("takes its samples out"));
}

/// A recording with so many exchanges, written as it would be saved.
#[cfg(target_os = "linux")]
fn long_recording(path: &Path, bytes: usize) {
    use std::io::Write as _;
    let whole: serde_json::Value = serde_json::from_str(&fs::read_to_string(session()).unwrap()).unwrap();
    let entries: Vec<String> =
        whole["log"]["entries"].as_array().unwrap().iter().map(ToString::to_string).collect();
    let mut file = std::io::BufWriter::new(fs::File::create(path).unwrap());
    write!(file, "{{\"log\": {{\"version\": \"1.2\", \"creator\": {{}}, \"entries\": [{}", entries[0])
        .unwrap();
    let mut length = 0;
    for entry in entries.iter().cycle() {
        length += entry.len();
        if length > bytes {
            break;
        }
        write!(file, ",\n{entry}").unwrap();
    }
    write!(file, "]}}}}").unwrap();
}

#[cfg(target_os = "linux")]
#[test]
fn a_long_recording_is_read_in_little_memory() {
    use std::process::Stdio;
    use std::thread::sleep;
    use std::time::Duration;

    const BYTES: usize = 12_000_000;
    const MOST_KILOBYTES: u64 = 40_000;
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("long.har");
    long_recording(&path, BYTES);
    for arguments in [&["look"][..], &["init", "--into", "go"]] {
        let mut program = Command::cargo_bin("jar-sprout").unwrap();
        program.args(arguments).arg("long.har").current_dir(&folder);
        let mut program = program.stdout(Stdio::null()).stderr(Stdio::null()).spawn().unwrap();
        let mut most = 0;
        let status = loop {
            let about = fs::read_to_string(format!("/proc/{}/status", program.id())).unwrap_or_default();
            let line = about.lines().find_map(|line| line.strip_prefix("VmHWM:"));
            let size = line.and_then(|line| line.trim().trim_end_matches(" kB").parse::<u64>().ok());
            most = most.max(size.unwrap_or(0));
            if let Some(status) = program.try_wait().unwrap() {
                break status;
            }
            sleep(Duration::from_millis(5));
        };
        assert!(status.success(), "{arguments:?}");
        assert!(most > 0 && most < MOST_KILOBYTES, "{arguments:?} took {most} kB");
    }
}
