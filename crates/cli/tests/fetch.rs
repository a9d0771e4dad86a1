//! `fetch` against a server on the loopback that behaves as it is told, or badly on purpose.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]

mod loopback;
mod shell;

use std::fs;
use std::path::Path;
use std::process::Command;
use std::thread;
use std::time::Duration;

use assert_cmd::cargo::CommandCargoExt;
use loopback::{JSON, Server, answer, fetch, fetch_for_jar, recorded, said};
use shell::words;

#[test]
fn an_answer_is_recorded_and_no_secret_is() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(|_, _, stream| answer(stream, "200 OK", JSON, b"{\"hives\": [{\"id\": 17}]}"));
    let url = server.url("/api/hives");
    let arguments = [
        &*url,
        "--header",
        "Authorization: Token ${HIVES_TOKEN}",
        "--query",
        "page_size=50",
        "--query",
        "key=${HIVES_TOKEN}",
    ];
    let output = fetch(folder.path(), &arguments);
    assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    let asked = server.asked().concat();
    assert!(asked.starts_with("GET /api/hives?page_size=50&key=b33s-and-more HTTP/1.1\r\n"), "{asked}");
    assert!(asked.to_ascii_lowercase().contains("authorization: token b33s-and-more\r\n"), "{asked}");
    let files = recorded(folder.path());
    assert_eq!(files.len(), 1, "{files:?}");
    assert!(files[0].0.starts_with("hives.page_size-50.2") && files[0].0.ends_with("Z.json"), "{files:?}");
    assert_eq!(files[0].1, "{\"hives\": [{\"id\": 17}]}");
    // The model is named after what was asked.
    let path = format!("samples/{}", files[0].0);
    let grown = Command::cargo_bin("jar-sprout")
        .unwrap()
        .args(["grow", &path, "--into", "go", "-q"])
        .current_dir(&folder)
        .output();
    let grown = String::from_utf8(grown.unwrap().stdout).unwrap();
    assert!(grown.contains("type Hives struct {"), "{grown}");
    let told = said(&output) + &String::from_utf8_lossy(&output.stdout);
    assert!(!told.contains("b33s") && !format!("{files:?}").contains("b33s"), "{told}");
    assert!(told.contains("recorded samples/hives.page_size-50."), "{told}");
}

#[test]
fn a_file_may_say_what_the_environment_does_not() {
    let folder = tempfile::tempdir().unwrap();
    fs::write(folder.path().join(".env"), "OTHER_TOKEN='from a file'\n").unwrap();
    let server =
        Server::start(|_, _, stream| answer(stream, "401 Unauthorized", JSON, b"{\"bad\": \"from a file\"}"));
    let url = server.url("/hives");
    let header = ["--header", "X-Api-Key: ${OTHER_TOKEN}"];
    let output = fetch(folder.path(), &[&[&*url][..], &header].concat());
    assert_eq!(output.status.code(), Some(2));
    assert!(said(&output).contains("`OTHER_TOKEN` is not set"), "{}", said(&output));
    assert!(server.asked().is_empty(), "nothing goes out before all of it is there");
    let output = fetch(folder.path(), &[&[&*url][..], &header, &["--env-file", ".env"]].concat());
    assert!(server.asked().concat().to_ascii_lowercase().contains("x-api-key: from a file"));
    let told = said(&output);
    assert!(told.contains("the server answers 401 Unauthorized: {\"bad\": \"${OTHER_TOKEN}\"}"), "{told}");
    assert!(told.contains("way out: give it a key"), "{told}");
    // As it is, it is not written down either.
    let output = fetch(folder.path(), &[&url, "--header", "Authorization: Bearer s3cret-word"]);
    assert!(
        said(&output).contains("looks like a secret is not written down; as `${AUTHORIZATION}`"),
        "{}",
        said(&output)
    );
    assert!(!said(&output).contains("s3cret-word"), "{}", said(&output));
}

#[test]
fn another_host_is_not_told_the_credentials() {
    let folder = tempfile::tempdir().unwrap();
    let other = Server::start(|_, _, stream| answer(stream, "200 OK", JSON, b"[]"));
    let there = other.url("/moved");
    let server = Server::start(move |_, _, stream| {
        answer(stream, "302 Found", &format!("Location: {there}\r\n"), b"")
    });
    let url = server.url("/hives");
    let output =
        fetch(folder.path(), &[&url, "--header", "X-Key: ${HIVES_TOKEN}", "--header", "Accept: text/x"]);
    assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    assert!(server.asked().concat().contains("b33s"));
    let asked = other.asked().concat();
    assert!(asked.starts_with("GET /moved ") && !asked.contains("b33s"), "{asked}");
    assert!(said(&output).contains("which was not told the headers"), "{}", said(&output));
}

#[test]
fn a_redirect_keeps_a_body_only_where_it_says_so() {
    let folder = tempfile::tempdir().unwrap();
    for (status, second) in [("303 See Other", "GET /other "), ("307 Temporary Redirect", "POST /other ")] {
        let server = Server::start(move |_, before, stream| match before {
            0 => answer(stream, status, "Location: /other\r\n", b""),
            _ => answer(stream, "200 OK", JSON, b"{}"),
        });
        let output = fetch(folder.path(), &[&server.url("/hives"), "--body", "{\"a\": 1}"]);
        assert_eq!(output.status.code(), Some(0), "{}", said(&output));
        let asked = server.asked();
        assert!(asked[1].starts_with(second), "{asked:?}");
        assert_eq!(asked[1].ends_with("{\"a\": 1}"), status.starts_with("307"), "{asked:?}");
    }
    let other = Server::start(|_, _, stream| answer(stream, "200 OK", JSON, b"[]"));
    let there = other.url("/moved");
    let server = Server::start(move |_, _, stream| {
        answer(stream, "307 Temporary Redirect", &format!("Location: {there}\r\n"), b"")
    });
    let output = fetch(folder.path(), &[&server.url("/hives"), "--body", "{}"]);
    assert_eq!((output.status.code(), other.asked().len()), (Some(2), 0));
    assert!(said(&output).contains("sends the body to another host"), "{}", said(&output));
}

#[test]
fn a_secret_that_comes_back_is_not_written_down() {
    let folder = tempfile::tempdir().unwrap();
    let server =
        Server::start(|_, _, stream| answer(stream, "200 OK", JSON, b"{\"token\": \"b33s-and-more\"}"));
    let output = fetch(folder.path(), &[&server.url("/keys/${HIVES_TOKEN}?of=${HIVES_TOKEN}")]);
    assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    assert!(server.asked()[0].starts_with("GET /keys/b33s-and-more?of=b33s-and-more "));
    let files = recorded(folder.path());
    assert_eq!(files[0].1, "{\"token\": \"${HIVES_TOKEN}\"}");
    assert!(files[0].0.starts_with("HIVES_TOKEN.of-HIVES_TOKEN."), "{files:?}");
    assert!(!said(&output).contains("b33s"), "{}", said(&output));
    let server = Server::start(|_, _, stream| {
        answer(stream, "200 OK", "Content-Type: application/yaml\r\n", b"a: b\n")
    });
    let output = fetch(folder.path(), &[&server.url("/yaml"), "--scrub"]);
    assert_eq!(output.status.code(), Some(2));
    assert!(said(&output).contains("YAML is not scrubbed"), "{}", said(&output));
}

#[test]
fn a_server_that_is_busy_is_asked_again_when_it_says() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(|_, before, stream| match before {
        0 => answer(stream, "429 Too Many Requests", "Retry-After: 1\r\n", b""),
        _ => answer(stream, "200 OK", JSON, b"{}"),
    });
    let output = fetch(folder.path(), &[&server.url("/hives")]);
    assert_eq!((output.status.code(), server.asked().len()), (Some(0), 2), "{}", said(&output));
    // For an hour nobody waits.
    let server = Server::start(|_, _, stream| {
        answer(stream, "429 Too Many Requests", "Retry-After: 3600\r\n", b"slow")
    });
    let output = fetch(folder.path(), &[&server.url("/hives")]);
    assert_eq!((output.status.code(), server.asked().len()), (Some(2), 1));
    assert!(said(&output).contains("429 Too Many Requests: slow"), "{}", said(&output));
}

#[test]
fn a_body_goes_out_as_it_was_given() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(|_, _, stream| answer(stream, "201 Created", JSON, b"{\"id\": 1}"));
    let output = fetch(folder.path(), &[&server.url("/hives"), "--body", "{\"name\": \"Alder Bank\"}"]);
    assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    let asked = server.asked().concat();
    assert!(asked.starts_with("POST /hives ") && asked.ends_with("{\"name\": \"Alder Bank\"}"), "{asked}");
    assert!(asked.to_ascii_lowercase().contains("content-type: application/json"), "{asked}");
    fetch(folder.path(), &[&server.url("/hives"), "--method", "PUT", "--body", "{}"]);
    assert!(server.asked()[1].starts_with("PUT /hives "));
}

#[test]
fn only_the_last_are_kept_and_values_go_where_that_is_asked() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(|_, before, stream| {
        answer(stream, "200 OK", JSON, format!("{{\"keeper\": \"Ada Merrow\", \"n\": {before}}}").as_bytes())
    });
    fetch(folder.path(), &[&server.url("/others/17")]);
    for _ in 0..3 {
        thread::sleep(Duration::from_millis(5));
        let output = fetch(folder.path(), &[&server.url("/hives/17"), "--keep", "2"]);
        assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    }
    let files = recorded(folder.path());
    let counts: Vec<usize> = ["hives-17.", "others-17."]
        .map(|start| files.iter().filter(|(name, _)| name.starts_with(start)).count())
        .to_vec();
    assert_eq!(counts, [2, 1], "{files:?}");
    assert!(files[0].1.contains("\"n\": 2") && files[1].1.contains("\"n\": 3"), "{files:?}");
    let scrubbed = tempfile::tempdir().unwrap();
    let output = fetch(scrubbed.path(), &[&server.url("/hives/17"), "--scrub"]);
    assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    let files = recorded(scrubbed.path());
    assert!(files[0].1.contains("keeper") && !files[0].1.contains("Merrow"), "{files:?}");
}

#[test]
fn pages_follow_each_other() {
    // Three pages, the next one in the `Link` header, in the body, behind a cursor, or nowhere.
    let page = |request: &str, by: &str| {
        let parameter = request.split([' ', '?', '&']).find_map(|part| part.strip_prefix(&format!("{by}=")));
        parameter.map_or(1, |number| number.parse::<usize>().unwrap())
    };
    let server = Server::start(move |request, _, stream| {
        let kind = request.split(['/', '?', ' ']).nth(2).unwrap_or_default().to_owned();
        let number = page(request, if kind == "cursor" { "after" } else { "page" });
        let (next, items) = (number + 1, if number <= 3 { "[{\"id\": 1}]" } else { "[]" });
        let is_last = number >= 3;
        match kind.as_str() {
            "link" if !is_last => {
                let header = format!("{JSON}Link: </link?page={next}>; rel=\"next\"\r\n");
                answer(stream, "200 OK", &header, items.as_bytes())
            }
            "body" => {
                let next = if is_last { "null".to_owned() } else { format!("\"/body?page={next}\"") };
                answer(stream, "200 OK", JSON, format!("{{\"next\": {next}, \"hives\": {items}}}").as_bytes())
            }
            "cursor" => {
                let next = if is_last { "null".to_owned() } else { next.to_string() };
                answer(stream, "200 OK", JSON, format!("{{\"c\": {next}, \"hives\": {items}}}").as_bytes())
            }
            _ => answer(stream, "200 OK", JSON, items.as_bytes()),
        }
    });
    let cases: &[(&str, &[&str], usize)] = &[
        ("/link", &["--pages", "9"], 3),
        ("/link", &["--pages", "2"], 2),
        ("/link", &[], 1),
        ("/body", &["--pages", "9"], 3),
        ("/body", &["--pages", "9", "--next", "$.next"], 3),
        ("/cursor", &["--pages", "9", "--next", "$.c", "--page-by", "after"], 3),
        // The fourth has nothing in it, and is the last.
        ("/count", &["--pages", "9", "--page-by", "page"], 4),
        ("/count", &["--pages", "9"], 1),
    ];
    for (path, arguments, expected) in cases {
        let folder = tempfile::tempdir().unwrap();
        let before = server.asked().len();
        let url = server.url(path);
        let output = fetch(folder.path(), &[&[&*url, "--pause", "0"], *arguments].concat());
        assert_eq!(output.status.code(), Some(0), "{path} {arguments:?}: {}", said(&output));
        assert_eq!(server.asked().len() - before, *expected, "{path} {arguments:?}");
        assert_eq!(recorded(folder.path()).len(), *expected, "{path} {arguments:?}");
        let tells_more =
            said(&output).contains("there is a next page, found by the `Link` header: `--pages 5`");
        assert_eq!(tells_more, *path == "/link" && arguments.is_empty(), "{}", said(&output));
    }
    // A next page elsewhere is not told what was meant for here.
    let other = Server::start(|_, _, stream| answer(stream, "200 OK", JSON, b"[]"));
    let there = other.url("/page2");
    let server = Server::start(move |_, _, stream| {
        answer(stream, "200 OK", JSON, format!("{{\"next\": \"{there}\"}}").as_bytes())
    });
    let folder = tempfile::tempdir().unwrap();
    let output =
        fetch(folder.path(), &[&server.url("/hives"), "--header", "X-Key: ${HIVES_TOKEN}", "--pages", "2"]);
    assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    assert!(!other.asked().concat().contains("b33s"), "{:?}", other.asked());
    for (arguments, expected) in [(["--next", "$["], "--next $["), (["--pause", "nan"], "--pause")] {
        let output = fetch(folder.path(), &[&[&*server.url("/hives")][..], &arguments].concat());
        assert_eq!(output.status.code(), Some(2));
        assert!(said(&output).contains(expected), "{}", said(&output));
    }
}

#[test]
fn a_command_line_is_asked_as_it_stands() {
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(|_, _, stream| answer(stream, "200 OK", JSON, b"{}"));
    let line = format!(
        "curl -sk '{}' \\\n  -H 'X-Key: s3cret-word' -G -d size=5 --data-urlencode 'q=top bar'",
        server.url("/hives")
    );
    let output = fetch(folder.path(), &["--curl", &line, "--query", "page=1"]);
    assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    let asked = server.asked().concat();
    assert!(asked.starts_with("GET /hives?size=5&q=top+bar&page=1 "), "{asked}");
    assert!(asked.to_ascii_lowercase().contains("x-key: s3cret-word"), "{asked}");
    assert!(
        said(&output).contains("not heard: -k") && !said(&output).contains("s3cret"),
        "{}",
        said(&output)
    );
    let line =
        format!("curl -X PATCH -H 'Content-Type: text/x' -d '{{\"a\": 1}}' {}", server.url("/hives/17"));
    fetch(folder.path(), &["--curl", &line]);
    let asked = server.asked()[1].clone();
    assert!(asked.starts_with("PATCH /hives/17 ") && asked.ends_with("{\"a\": 1}"), "{asked}");
    assert!(
        asked.to_ascii_lowercase().contains("content-type: text/x") && !asked.contains("urlencoded"),
        "{asked}"
    );
    for (line, expected) in
        [("wget x", "no `curl` command"), ("curl x -d @f", "reads a file"), ("curl 'x", "not closed")]
    {
        let output = fetch(folder.path(), &["--curl", line]);
        assert!(said(&output).contains(expected), "{}", said(&output));
    }
}

#[test]
fn each_value_of_a_sample_is_asked_for() {
    let folder = tempfile::tempdir().unwrap();
    let hives = "{\"hives\": [{\"id\": 17}, {\"id\": \"a b\"}, {\"id\": 17}, {\"id\": \"${HIVES_TOKEN}\"}, {\"id\": 95}]}";
    fs::write(folder.path().join("hives.json"), hives).unwrap();
    let server = Server::start(|_, _, stream| answer(stream, "200 OK", JSON, b"{}"));
    let each = ["--each", "id=hives.json#$.hives[*].id", "--pause", "0"];
    let url = server.url("/hives/{id}{?query*}");
    let output = fetch(folder.path(), &[&[&*url, "--query", "full=1"][..], &each].concat());
    assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    let asked: Vec<String> =
        server.asked().iter().map(|request| request.split(' ').nth(1).unwrap().to_owned()).collect();
    let expected =
        ["/hives/17?full=1", "/hives/a%20b?full=1", "/hives/%24%7BHIVES_TOKEN%7D?full=1", "/hives/95?full=1"];
    assert_eq!(asked, expected, "a value is no placeholder");
    assert_eq!(recorded(folder.path()).len(), 4);
    let output = fetch(folder.path(), &[&[&*url, "--most", "2"][..], &each].concat());
    assert_eq!((output.status.code(), server.asked().len()), (Some(0), 6), "{}", said(&output));
    assert!(said(&output).contains("2 addresses are asked; `--most` bounds them"), "{}", said(&output));
    let faults: &[(&[&str], &str)] = &[
        (&[&url], "nothing fills `{id}`"),
        (&["http://127.0.0.1:1/{a b}"], "`{a b}` is no variable"),
        (&[&url, "--each", "id=hives.json"], "`NAME=FROM#JSONPATH`"),
        (&[&url, "--each", "id=none.json#$.a"], "there is no such file"),
        (&[&url, "--each", "id=hives.json#$.none"], "no text and no number stands there"),
        (&[&url, "--each", "id=hives.json#$["], "--each id=hives.json#$["),
    ];
    for (arguments, expected) in faults {
        let output = fetch(folder.path(), arguments);
        assert_eq!(output.status.code(), Some(2));
        assert!(said(&output).contains(expected), "{arguments:?}: {}", said(&output));
    }
    assert_eq!(server.asked().len(), 6);
}

#[test]
fn packed_answers_are_unpacked() {
    // `{"id": 17}` as each has it.
    const PACKED: &[(&str, &[u8])] = &[
        (
            "gzip",
            &[
                31, 139, 8, 0, 0, 0, 0, 0, 2, 255, 171, 86, 202, 76, 81, 178, 82, 48, 52, 175, 5, 0, 108,
                230, 164, 107, 10, 0, 0, 0,
            ],
        ),
        ("br", &[139, 4, 128, 123, 34, 105, 100, 34, 58, 32, 49, 55, 125, 3]),
    ];
    for (packing, bytes) in PACKED {
        let folder = tempfile::tempdir().unwrap();
        let server = Server::start(move |_, _, stream| {
            answer(stream, "200 OK", &format!("{JSON}Content-Encoding: {packing}\r\n"), bytes)
        });
        let output = fetch(folder.path(), &[&server.url("/hives/17")]);
        assert_eq!(output.status.code(), Some(0), "{}", said(&output));
        assert_eq!(recorded(folder.path())[0].1, "{\"id\": 17}");
        let asked = server.asked().concat().to_ascii_lowercase();
        assert!(asked.contains("accept-encoding: gzip, br, deflate\r\n"), "{asked}");
    }
}

/// The commands that ask an API, in the pages and in the help.
fn shown() -> Vec<String> {
    let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("../..");
    let help =
        Command::cargo_bin("jar-sprout").unwrap().args(["fetch", "--help"]).env("COLUMNS", "200").output();
    let mut texts = vec![String::from_utf8(help.unwrap().stdout).unwrap()];
    texts.extend(["README.md", "docs/api.md"].map(|page| fs::read_to_string(root.join(page)).unwrap()));
    let lines = texts.iter().flat_map(|text| text.lines().map(str::trim));
    lines.filter(|line| line.starts_with("jar-sprout fetch https://")).map(str::to_owned).collect()
}

#[test]
fn every_command_that_is_shown_records_something() {
    let shown = shown();
    assert!(shown.len() >= 3, "{shown:?}");
    for line in shown {
        let folder = tempfile::tempdir().unwrap();
        fs::create_dir(folder.path().join("samples")).unwrap();
        fs::write(folder.path().join("samples/hives.json"), "{\"hives\": [{\"id\": 17}]}").unwrap();
        fs::write(folder.path().join(".env"), "HIVES_TOKEN=b33s-and-more\n").unwrap();
        let server = Server::start(|_, _, stream| answer(stream, "200 OK", JSON, b"{\"hives\": []}"));
        let here = line.replace("https://api.honey.example", &format!("http://{}", server.address));
        let words: Vec<String> = words(&here).split_off(2);
        let output = fetch_for_jar(folder.path(), &words.iter().map(String::as_str).collect::<Vec<_>>());
        assert_eq!(output.status.code(), Some(0), "{line}: {}", said(&output));
        assert!(recorded(folder.path()).len() > 1, "{line}");
        assert!(server.asked().concat().contains("b33s-and-more"), "{line}");
    }
}

/// The promise that nothing asks a network but `fetch`: nothing else can.
#[test]
fn nothing_else_speaks_with_a_network() {
    fn sources(folder: &Path, found: &mut Vec<std::path::PathBuf>) {
        for entry in fs::read_dir(folder).unwrap().flatten() {
            let path = entry.path();
            if path.is_dir() {
                sources(&path, found);
            } else if path.extension().is_some_and(|extension| extension == "rs") {
                found.push(path);
            }
        }
    }
    let crates = Path::new(env!("CARGO_MANIFEST_DIR")).join("..");
    let mut found: Vec<std::path::PathBuf> = Vec::new();
    for entry in fs::read_dir(&crates).unwrap().flatten() {
        sources(&entry.path().join("src"), &mut found);
    }
    found.sort();
    let speaks = |path: &&std::path::PathBuf| {
        let text = fs::read_to_string(path).unwrap();
        ["ureq", "TcpStream", "TcpListener", "UdpSocket", "UnixStream", "ToSocketAddrs"]
            .iter()
            .any(|word| text.contains(word))
    };
    let speaking: Vec<_> =
        found.iter().filter(speaks).map(|path| path.strip_prefix(&crates).unwrap()).collect();
    assert!(found.len() > 100, "the sources were found");
    assert_eq!(speaking, [Path::new("cli/src/fetch/send.rs"), Path::new("cli/src/stand_in.rs")]);
    // The other one listens, and asks nobody.
    let listening = fs::read_to_string(crates.join("cli/src/stand_in.rs")).unwrap();
    assert!(!listening.contains("connect") && listening.contains("bind((Ipv4Addr::LOCALHOST"));
    let using = |path: &&std::path::PathBuf| fs::read_to_string(path).unwrap().contains("use crate::fetch::");
    let using: Vec<_> = found.iter().filter(using).map(|path| path.strip_prefix(&crates).unwrap()).collect();
    assert_eq!(using, [Path::new("cli/src/commands/fetch.rs")]);
}
