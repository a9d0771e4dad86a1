//! Recipes: `fetch` for a jar, which remembers what was asked, and asks it again.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]

mod loopback;

use std::fs;
use std::path::Path;
use std::process::{Command, Output, Stdio};
use std::thread;
use std::time::Duration;

use assert_cmd::cargo::CommandCargoExt;
use loopback::{JSON, Server, answer, fetch_for_jar, recorded, said};

/// Hives by list, by page and by id, for those who have the key.
fn api() -> Server {
    Server::start(|request, before, stream| {
        let path = request.split(' ').nth(1).unwrap_or_default().to_owned();
        if !request.contains("b33s-and-more") {
            return answer(stream, "401 Unauthorized", JSON, b"{}");
        }
        let body = match path.split('?').next().unwrap_or_default() {
            "/hives" => format!("{{\"hives\": [{{\"id\": 17}}, {{\"id\": {}}}]}}", 95 + before),
            _ => format!("{{\"id\": 17, \"name\": \"Alder Bank\", \"at\": {before}}}"),
        };
        answer(stream, "200 OK", JSON, body.as_bytes())
    })
}

fn run(folder: &Path, arguments: &[&str]) -> Output {
    Command::cargo_bin("jar-sprout").unwrap().args(arguments).current_dir(folder).output().unwrap()
}

fn jar(folder: &Path) -> String {
    fs::read_to_string(folder.join("jar.toml")).unwrap_or_default()
}

#[test]
fn a_jar_is_born_from_an_api_and_asks_again() {
    let folder = tempfile::tempdir().unwrap();
    let server = api();
    let key = ["--header", "X-Key: ${HIVES_TOKEN}"];
    let hives = server.url("/v1/../hives");
    let output = fetch_for_jar(
        folder.path(),
        &[&[&*hives, "--query", "page_size=50", "--at", "$.hives[*]"][..], &key].concat(),
    );
    assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    assert!(said(&output).contains("made jar.toml, with model `hives`"), "{}", said(&output));
    assert!(said(&output).contains("recorded samples/hives/hives.page_size-50."), "{}", said(&output));
    let hive = server.url("/hives/{id}");
    let each = ["--each", "id=hives#$.hives[*].id", "--keep", "2", "--pause", "0"];
    let output = fetch_for_jar(folder.path(), &[&[&*hive][..], &each, &key].concat());
    assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    assert!(said(&output).contains("added to jar.toml: model `hive`"), "{}", said(&output));
    let expected = format!(
        "\
[models.hives]
sources = [\"samples/hives/*.json\"]
at = \"$.hives[*]\"

[models.hives.fetch]
url = \"{hives}\"
header = \"X-Key: ${{HIVES_TOKEN}}\"
query = \"page_size=50\"

[models.hive]
sources = [\"samples/hive/*.json\"]

[models.hive.fetch]
url = \"{hive}\"
each = \"id=hives#$.hives[*].id\"
header = \"X-Key: ${{HIVES_TOKEN}}\"
pause = 0.0
keep = 2
"
    );
    let mut lines: Vec<String> = jar(folder.path()).lines().map(str::to_owned).collect();
    let mut wanted: Vec<String> = expected.lines().map(str::to_owned).collect();
    lines.retain(|line| !line.starts_with('#') && !line.starts_with("version"));
    for lines in [&mut lines, &mut wanted] {
        lines.retain(|line| !line.is_empty());
        lines.sort();
    }
    assert_eq!(lines, wanted);
    // From a folder below, everything once more: those that are there now, and no more than are to be kept.
    let below = folder.path().join("below");
    fs::create_dir(&below).unwrap();
    for _ in 0..2 {
        let output = fetch_for_jar(&below, &[]);
        assert_eq!(output.status.code(), Some(0), "{}", said(&output));
        let address = &server.address;
        let told = format!("hives: asking {address}, which is told `HIVES_TOKEN`");
        assert!(said(&output).contains(&told), "{}", said(&output));
    }
    let files = recorded(folder.path());
    let count = |start: &str| files.iter().filter(|(name, _)| name.starts_with(start)).count();
    assert_eq!((count("hives.page_size-50."), count("hives-17.")), (3, 2), "{files:?}");
    let asked: Vec<String> =
        server.asked().iter().map(|request| request.split(' ').nth(1).unwrap().to_owned()).collect();
    let gone: Vec<&String> = asked.iter().filter(|path| *path == "/hives/95").collect();
    assert_eq!(gone.len(), 1, "what the last list has not is not asked for: {asked:?}");
    assert!(!jar(folder.path()).contains("b33s") && !format!("{files:?}").contains("b33s"));
    // The types are those of one hive.
    let output = run(folder.path(), &["grow", "--into", "go", "--only", "hive"]);
    assert!(String::from_utf8(output.stdout).unwrap().contains("type Hive struct {"));
    // Only one, with something else for this time.
    let before = server.asked().len();
    let output = fetch_for_jar(folder.path(), &["--only", "hives", "--query", "page_size=5"]);
    assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    assert!(server.asked()[before].starts_with("GET /hives?page_size=5 "), "{:?}", server.asked()[before]);
    assert_eq!(server.asked().len(), before + 1);
    assert!(jar(folder.path()).contains("page_size=50"));
}

#[test]
fn what_is_typed_is_remembered_without_its_secrets() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(|_, _, stream| answer(stream, "200 OK", JSON, b"{}"));
    let url = server.url("/hives?api_key=k1").replace("http://", "http://ada:pw@");
    let arguments = [
        &*url,
        "--header",
        "Authorization: Bearer t0",
        "--header",
        "Cookie: sid=c1; theme=dark",
        "--body",
        "{\"password\": \"p2\"}",
    ];
    let output = fetch_for_jar(folder.path(), &arguments);
    assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    let asked = server.asked().concat();
    for sent in ["api_key=k1", "Bearer t0", "sid=c1; theme=dark", "\"p2\""] {
        assert!(asked.contains(sent), "{sent}: {asked}");
    }
    let jar = jar(folder.path());
    for secret in ["k1", "pw", "t0", "c1", "p2"] {
        assert!(!jar.contains(secret), "{secret}: {jar}");
    }
    let lines = [
        "ada:${PASSWORD}@",
        "api_key=${API_KEY}",
        "Authorization: Bearer ${AUTHORIZATION}",
        "Cookie: ${COOKIE}",
        "'{\"password\": \"${PASSWORD}\"}'",
    ];
    lines.iter().for_each(|line| assert!(jar.contains(line), "{line}: {jar}"));
    let told = said(&output);
    assert!(told.contains("jar.toml has `${AUTHORIZATION}` in its place: set it"), "{told}");
    // It asks again only when all of it is there.
    let output = fetch_for_jar(folder.path(), &[]);
    assert_eq!(output.status.code(), Some(2));
    assert!(said(&output).contains("is not set"), "{}", said(&output));
}

#[test]
fn the_same_is_asked_for_the_same_model() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(|_, _, stream| answer(stream, "200 OK", JSON, b"{}"));
    let url = server.url("/hives");
    for pages in ["2", "3"] {
        let output = fetch_for_jar(folder.path(), &[&url, "--pages", pages]);
        assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    }
    let text = jar(folder.path());
    assert_eq!((text.matches("[models.").count(), text.matches("pages = 3").count()), (2, 1), "{text}");
    // Another address of the same name is another thing, or is said to be the same.
    let other = server.url("/other/hives");
    let output = fetch_for_jar(folder.path(), &[&other]);
    assert_eq!(output.status.code(), Some(2));
    assert!(said(&output).contains("`--model hives` records for it"), "{}", said(&output));
    let output = fetch_for_jar(folder.path(), &[&other, "--model", "wild-hives"]);
    assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    assert!(jar(folder.path()).contains("samples/wild-hives/*.json"));
    let output = fetch_for_jar(folder.path(), &[&url, "--at", "$.x"]);
    assert!(said(&output).contains("`at = \"$.x\"` under [models.hives]"), "{}", said(&output));
    // Addresses of one thing are one model's.
    let output = fetch_for_jar(folder.path(), &[&server.url("/queens/1"), &server.url("/queens/2")]);
    assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    assert!(jar(folder.path()).contains("[models.queen.fetch]"), "{}", jar(folder.path()));
}

#[test]
fn what_says_the_same_again_is_not_written_again() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(|_, before, stream| {
        let body = if before < 2 { "{\"id\": 17}" } else { "{\"id\": 18}" };
        answer(stream, "200 OK", JSON, body.as_bytes())
    });
    let output = fetch_for_jar(folder.path(), &[&server.url("/hive")]);
    assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    for (told, count) in
        [("the same as samples/hive/hive.", 1), ("recorded samples/hive/hive.", 2), ("the same as", 2)]
    {
        let output = fetch_for_jar(folder.path(), &[]);
        assert_eq!(output.status.code(), Some(0), "{}", said(&output));
        assert!(said(&output).contains(told), "{told}: {}", said(&output));
        assert_eq!(recorded(folder.path()).len(), count);
    }
}

#[test]
fn one_that_fails_does_not_keep_the_others_from_being_asked() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(|request, before, stream| match request.contains("/bad") && before > 1 {
        true => answer(stream, "500 Internal Server Error", "", b""),
        false => answer(stream, "200 OK", JSON, format!("{{\"at\": {before}}}").as_bytes()),
    });
    let output = fetch_for_jar(folder.path(), &[&server.url("/bad"), &server.url("/good")]);
    assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    let before = jar(folder.path());
    let output = fetch_for_jar(folder.path(), &[]);
    assert_eq!(output.status.code(), Some(2));
    assert!(said(&output).contains("500 Internal Server Error"), "{}", said(&output));
    assert!(said(&output).contains("recorded samples/good/good."), "{}", said(&output));
    assert_eq!((recorded(folder.path()).len(), jar(folder.path())), (3, before));
}

#[test]
fn what_a_jar_cannot_ask_is_told() {
    let folder = tempfile::tempdir().unwrap();
    let output = fetch_for_jar(folder.path(), &[]);
    assert!(said(&output).contains("no source, and no jar.toml here or above"), "{}", said(&output));
    fs::write(folder.path().join("a.json"), "{}").unwrap();
    assert_eq!(run(folder.path(), &["init", "a.json"]).status.code(), Some(0));
    let text = jar(folder.path());
    let cases: &[(&str, &[&str], &str)] = &[
        ("", &[], "the jar remembers nothing that was asked"),
        ("", &["--only", "b"], "the jar has no model `b`"),
        ("", &["--model", "a"], "`--model a` needs an address"),
        ("", &["--dir", "x"], "`--dir x` needs an address"),
        ("[models.a.fetch]\npages = 2\n", &[], "the recipe of `a` has no `url`"),
        ("[models.a.fetch]\nurl = \"http://127.0.0.1:1\"\npages = 0\n", &[], "`pages` takes a whole number"),
        ("[models.a.fetch]\nurl = 1\n", &[], "`url` takes a text, or a list of texts"),
        ("[models.a.fetch]\nuri = \"x\"\n", &[], "did you mean `url`?"),
    ];
    for (more, arguments, expected) in cases {
        fs::write(folder.path().join("jar.toml"), format!("{text}\n{more}")).unwrap();
        let output = fetch_for_jar(folder.path(), arguments);
        assert_eq!(output.status.code(), Some(2), "{more} {arguments:?}");
        assert!(said(&output).contains(expected), "{more} {arguments:?}: {}", said(&output));
    }
}

#[test]
fn a_run_that_is_killed_leaves_old_samples_or_new_ones() {
    let folder = tempfile::tempdir().unwrap();
    let body = format!("\"hives\": [{}]}}", vec!["{\"id\": 17}"; 4000].join(", "));
    let sent = body.clone();
    let server = Server::start(move |_, before, stream| {
        answer(stream, "200 OK", JSON, format!("{{\"at\": {before}, {sent}").as_bytes())
    });
    let url = server.url("/hives");
    for wait in (0..24).map(|step| Duration::from_millis(step * 4)) {
        let mut program = Command::cargo_bin("jar-sprout").unwrap();
        program.args(["fetch", &url, "--keep", "2"]).current_dir(&folder);
        program.stdout(Stdio::null()).stderr(Stdio::null());
        let mut program = program.spawn().unwrap();
        thread::sleep(wait);
        program.kill().unwrap();
        program.wait().unwrap();
        for (name, text) in recorded(folder.path()) {
            assert!(text.ends_with(&body) || !name.ends_with(".json"), "{name} is half written");
        }
        let text = jar(folder.path());
        assert!(text.is_empty() || text.contains("[models.hives.fetch]"), "{text}");
    }
    let output = fetch_for_jar(folder.path(), &[&url, "--keep", "2"]);
    assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    // What a killed run left half done stands aside, under no name of a sample, until a later one sweeps it.
    let files = recorded(folder.path());
    let samples: Vec<_> = files.iter().filter(|(name, _)| name.ends_with(".json")).collect();
    assert!(samples.len() == 2 && samples.iter().all(|(_, text)| text.ends_with(&body)));
}

#[test]
fn two_runs_at_once_do_not_tear_a_file() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(|_, _, stream| answer(stream, "200 OK", JSON, b"{\"id\": 17}"));
    thread::scope(|scope| {
        for thing in ["hives", "queens", "visits", "jars"] {
            let url = server.url(&format!("/{thing}"));
            let path = folder.path();
            scope.spawn(move || {
                let output = fetch_for_jar(path, &[&url]);
                assert_eq!(output.status.code(), Some(0), "{}", said(&output));
            });
        }
    });
    let text = jar(folder.path());
    for thing in ["hives", "queens", "visits", "jars"] {
        assert!(text.contains(&format!("[models.{thing}.fetch]")), "{text}");
    }
    assert_eq!(recorded(folder.path()).len(), 4);
    assert_eq!(run(folder.path(), &["look"]).status.code(), Some(0));
}
