//! `stand-in`, and `fetch` against it: the whole way from an address to checked models.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]

mod loopback;
mod shell;

use std::fs;
use std::io::{BufRead, BufReader, Read, Write};
use std::net::TcpStream;
use std::path::Path;
use std::process::{Child, Command, Stdio};
use std::thread;

use assert_cmd::cargo::CommandCargoExt;
use loopback::{fetch, fetch_for_jar, recorded, said};
use shell::words;

/// The program as it answers, until the test ends.
struct StandIn {
    program: Child,
    /// Where it listens.
    url: String,
}

impl StandIn {
    fn start(folder: &Path, arguments: &[&str]) -> Self {
        let mut command = Command::cargo_bin("jar-sprout").unwrap();
        command.args(["stand-in", "--port", "0"]).args(arguments).current_dir(folder);
        let mut program = command.stdout(Stdio::piped()).stderr(Stdio::null()).spawn().unwrap();
        let mut url = String::new();
        BufReader::new(program.stdout.as_mut().unwrap()).read_line(&mut url).unwrap();
        Self { program, url: url.trim().to_owned() }
    }

    fn url(&self, path: &str) -> String {
        format!("{}{path}", self.url)
    }

    /// What comes back to these bytes.
    fn say(&self, bytes: &[u8]) -> String {
        let mut stream = TcpStream::connect(self.url.trim_start_matches("http://")).unwrap();
        // It may have hung up before all is said.
        drop(stream.write_all(bytes));
        let mut answer = Vec::new();
        drop(stream.read_to_end(&mut answer));
        String::from_utf8_lossy(&answer).into_owned()
    }
}

impl Drop for StandIn {
    fn drop(&mut self) {
        drop(self.program.kill());
        drop(self.program.wait());
    }
}

/// The program run in a folder, which must go well.
#[track_caller]
fn well(folder: &Path, arguments: &[&str]) -> String {
    let output =
        Command::cargo_bin("jar-sprout").unwrap().args(arguments).current_dir(folder).output().unwrap();
    assert_eq!(output.status.code(), Some(0), "{arguments:?}: {}", said(&output));
    String::from_utf8(output.stdout).unwrap()
}

/// Every line of the page's scripts does what it says, one after the other, with a stand-in of the demo there.
#[test]
fn the_way_from_an_address_to_models_is_as_it_is_told() {
    let page = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../docs/api.md");
    let page = fs::read_to_string(page).unwrap();
    let blocks = page.split("```shell\n").skip(1).filter_map(|rest| rest.split("```").next());
    let lines: Vec<&str> = blocks.flat_map(str::lines).collect();
    assert!(lines.len() >= 8, "the lines were found");
    let [first, rest @ ..] = &lines[..] else { panic!("there are lines") };
    assert_eq!(*first, "jar-sprout stand-in --key b33s &");
    let elsewhere = tempfile::tempdir().unwrap();
    let api = StandIn::start(elsewhere.path(), &["--key", "b33s"]);
    let folder = tempfile::tempdir().unwrap();
    for line in rest {
        if *line == "export HIVES_TOKEN=b33s" {
            continue;
        }
        let line = line.replace("http://127.0.0.1:8017", &api.url);
        let line = line.strip_prefix("jar-sprout ").unwrap_or_else(|| panic!("{line}"));
        let mut command = Command::cargo_bin("jar-sprout").unwrap();
        let output =
            command.args(words(line)).current_dir(&folder).env("HIVES_TOKEN", "b33s").output().unwrap();
        assert_eq!(output.status.code(), Some(0), "{line}: {}", said(&output));
    }
    let jar = fs::read_to_string(folder.path().join("jar.toml")).unwrap();
    assert!(jar.contains("X-Key: ${HIVES_TOKEN}") && !jar.contains("b33s"), "{jar}");
    let files = recorded(folder.path());
    let count = |start: &str| files.iter().filter(|(name, _)| name.starts_with(start)).count();
    assert_eq!((count("hives."), count("hives-9")), (3, 9), "{files:?}");
    assert!(folder.path().join("models").exists());
}

#[test]
fn the_demo_answers_page_by_page_and_says_what_it_has() {
    let folder = tempfile::tempdir().unwrap();
    let api = StandIn::start(folder.path(), &["--page-size", "2"]);
    let output = fetch(folder.path(), &[&api.url("/v1/members"), "--pages", "9", "--pause", "0"]);
    assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    assert_eq!(recorded(folder.path()).len(), 3);
    // The document says the same as the samples.
    let output = fetch(folder.path(), &[&api.url("/openapi.json")]);
    assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    let files = recorded(folder.path());
    let (document, _) = files.iter().find(|(name, _)| name.starts_with("openapi.")).unwrap();
    let document = format!("samples/{document}");
    let told = well(folder.path(), &["look", &document]);
    assert!(
        told.contains("GET /v1/hives/{id}  getHive") && told.contains("gives  200              HivePage"),
        "{told}"
    );
    let part = format!("{document}#/v1/members");
    let judged = Command::cargo_bin("jar-sprout")
        .unwrap()
        .args(["look", "samples/members.*", &part])
        .current_dir(&folder)
        .output()
        .unwrap();
    assert_eq!(judged.status.code(), Some(0), "{}", said(&judged));
    assert!(!said(&judged).contains("warning"), "{}", said(&judged));
}

#[test]
fn who_has_no_key_learns_nothing_and_who_is_refused_asks_again() {
    let folder = tempfile::tempdir().unwrap();
    let api = StandIn::start(folder.path(), &["--key", "b33s-and-more", "--flaky"]);
    let url = api.url("/v1/forecast");
    let output = fetch(folder.path(), &[&url]);
    assert!(said(&output).contains("401 Unauthorized"), "{}", said(&output));
    for _ in 0..3 {
        let output = fetch(folder.path(), &[&url, "--header", "X-Key: ${HIVES_TOKEN}"]);
        assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    }
}

#[test]
fn a_jar_answers_in_the_place_of_its_api() {
    let folder = tempfile::tempdir().unwrap();
    {
        let api = StandIn::start(folder.path(), &[]);
        let each = ["--each", "id=hives#$.hives[*].id", "--most", "2", "--pause", "0"];
        let output = fetch_for_jar(folder.path(), &[&api.url("/v1/hives"), "--pages", "2"]);
        assert_eq!(output.status.code(), Some(0), "{}", said(&output));
        let output = fetch_for_jar(folder.path(), &[&[&*api.url("/v1/hives/{id}")][..], &each].concat());
        assert_eq!(output.status.code(), Some(0), "{}", said(&output));
        fs::write(folder.path().join("jars.json"), "[{\"id\": 1}]").unwrap();
        well(folder.path(), &["init", "jars.json"]);
    }
    let jar = StandIn::start(folder.path(), &["--delay", "0.01"]);
    let elsewhere = tempfile::tempdir().unwrap();
    for (path, expected) in [
        ("/v1/hives?page=2", "\"count\":8"),
        ("/v1/hives/9000000030", "\"id\":9000000030"),
        ("/jars", "[{\"id\":1}]"),
    ] {
        let output = fetch(elsewhere.path(), &[&jar.url(path)]);
        assert_eq!(output.status.code(), Some(0), "{path}: {}", said(&output));
        assert!(recorded(elsewhere.path()).iter().any(|(_, text)| text.contains(expected)), "{path}");
    }
    let only = StandIn::start(folder.path(), &["--only", "jars"]);
    assert!(only.say(b"GET /v1/hives HTTP/1.1\r\n\r\n").starts_with("HTTP/1.1 404 Not Found\r\n"));
}

#[test]
fn what_is_no_request_is_answered_within_bounds() {
    let folder = tempfile::tempdir().unwrap();
    let api = StandIn::start(folder.path(), &[]);
    let long = [b"GET / HTTP/1.1\r\nX: ".as_slice(), &vec![b'a'; 1 << 20]].concat();
    let many = format!("GET / HTTP/1.1\r\n{}\r\n", "A: b\r\n".repeat(200));
    let cases: &[(&[u8], &str)] = &[
        (&long, "431 "),
        (many.as_bytes(), "400 "),
        (b"\x16\x03\x01\r\n\r\n", "400 "),
        (b"GET /v1/jars HTTP/1.1\r\nHost: rebound.example\r\n\r\n", "421 "),
        (b"POST /v1/hives HTTP/1.1\r\nContent-Length: 99999999\r\n\r\n", "413 "),
        (b"POST /v1/hives HTTP/1.1\r\nContent-Length: 2\r\n\r\n{}", "405 "),
        (b"HEAD /v1/hives HTTP/1.1\r\n\r\n", "200 OK\r\n"),
    ];
    for (bytes, status) in cases {
        let answer = api.say(bytes);
        // Who is cut off while they still speak may hear nothing.
        let is_cut = answer.is_empty() && bytes.len() > 1 << 16;
        assert!(is_cut || answer.starts_with(&format!("HTTP/1.1 {status}")), "{status}: {answer}");
    }
    // Many at once are answered all the same.
    thread::scope(|scope| {
        for _ in 0..16 {
            scope.spawn(|| {
                let answer = api.say(b"GET /v1/comments HTTP/1.1\r\n\r\n");
                assert!(answer.starts_with("HTTP/1.1 200 OK"), "{answer}");
            });
        }
    });
    let port = api.url.rsplit(':').next().unwrap();
    let refused = |arguments: &[&str]| {
        let mut command = Command::cargo_bin("jar-sprout").unwrap();
        let output = command.arg("stand-in").args(arguments).current_dir(&folder).output().unwrap();
        assert_eq!(output.status.code(), Some(2));
        said(&output)
    };
    assert!(refused(&["--port", port]).contains("somebody listens there already"));
    assert!(refused(&["--delay=-1"]).contains("--delay -1"));
    assert!(refused(&["--only", "hives"]).contains("there is no jar.toml here or above"));
    fs::write(folder.path().join("jar.toml"), "version = 1\n").unwrap();
    assert!(refused(&[]).contains("the jar has no samples to answer with"));
}

#[cfg(unix)]
#[test]
fn an_interruption_ends_it() {
    let folder = tempfile::tempdir().unwrap();
    let mut api = StandIn::start(folder.path(), &[]);
    let id = api.program.id().to_string();
    assert!(Command::new("kill").args(["-INT", &id]).status().unwrap().success());
    api.program.wait().unwrap();
    assert!(TcpStream::connect(api.url.trim_start_matches("http://")).is_err());
}
