//! `fetch` against servers that behave badly on purpose, and with arguments that make no request.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]

mod loopback;

use std::fs;
use std::io::Write;
use std::net::{TcpListener, TcpStream};
use std::thread;
use std::time::Duration;

use loopback::{JSON, Server, answer, fetch, recorded, said};

/// A server with a certificate that it made itself, which answers one thing; and the certificate.
fn with_tls() -> (String, String) {
    let made = rcgen::generate_simple_self_signed(["127.0.0.1".to_owned()]).unwrap();
    let key = rustls::pki_types::PrivateKeyDer::try_from(made.signing_key.serialize_der()).unwrap();
    let provider = std::sync::Arc::new(rustls::crypto::ring::default_provider());
    let config = rustls::ServerConfig::builder_with_provider(provider)
        .with_safe_default_protocol_versions()
        .unwrap()
        .with_no_client_auth()
        .with_single_cert(vec![made.cert.der().clone()], key)
        .unwrap();
    let config = std::sync::Arc::new(config);
    let listener = TcpListener::bind("127.0.0.1:0").unwrap();
    let url = format!("https://{}/hives", listener.local_addr().unwrap());
    thread::spawn(move || {
        for stream in listener.incoming().flatten() {
            let connection = rustls::ServerConnection::new(std::sync::Arc::clone(&config)).unwrap();
            let mut tls = rustls::StreamOwned::new(connection, stream);
            let mut request = [0; 2048];
            if std::io::Read::read(&mut tls, &mut request).is_ok_and(|length| length > 0) {
                drop(write!(
                    tls,
                    "HTTP/1.1 200 OK\r\n{JSON}Content-Length: 2\r\nConnection: close\r\n\r\n{{}}"
                ));
                tls.conn.send_close_notify();
                drop(tls.flush());
            }
        }
    });
    (url, made.cert.pem())
}

#[test]
fn a_certificate_holds_only_where_it_is_trusted() {
    let folder = tempfile::tempdir().unwrap();
    let (url, certificate) = with_tls();
    fs::write(folder.path().join("authority.pem"), certificate).unwrap();
    let output = fetch(folder.path(), &[&url]);
    assert_eq!(output.status.code(), Some(2));
    assert!(said(&output).contains("the server's certificate does not hold"), "{}", said(&output));
    assert!(recorded(folder.path()).is_empty());
    let output = fetch(folder.path(), &[&url, "--ca-file", "authority.pem"]);
    assert_eq!(output.status.code(), Some(0), "{}", said(&output));
    assert_eq!(recorded(folder.path())[0].1, "{}");
    let plain = Server::start(|_, _, stream| answer(stream, "200 OK", JSON, b"{}"));
    let output = fetch(folder.path(), &[&plain.url("/hives").replace("http:", "https:")]);
    assert!(said(&output).contains("the server does not speak TLS"), "{}", said(&output));
    fs::write(folder.path().join("empty.pem"), "none").unwrap();
    for (file, expected) in
        [("empty.pem", "no certificate stands here"), ("none.pem", "there is no such file")]
    {
        let output = fetch(folder.path(), &[&url, "--ca-file", file]);
        assert!(said(&output).contains(expected), "{}", said(&output));
    }
}

/// What a server does that behaves badly, and what is said of it.
#[test]
fn each_fault_is_told_and_nothing_is_written() {
    type Fault = (&'static str, fn(&mut TcpStream) -> std::io::Result<()>, &'static [&'static str]);
    const FAULTS: &[Fault] = &[
        (
            "half a body",
            |stream| write!(stream, "HTTP/1.1 200 OK\r\n{JSON}Content-Length: 100\r\n\r\n{{\"a\""),
            &["the answer ends in the middle"],
        ),
        (
            "a slow drip",
            |stream| {
                write!(stream, "HTTP/1.1 200 OK\r\n{JSON}Content-Length: 1000\r\n\r\n[")?;
                (0..100).try_for_each(|_| {
                    thread::sleep(Duration::from_millis(100));
                    stream.write_all(b" ")
                })
            },
            &["no whole answer within 2 s", "--timeout"],
        ),
        (
            "spaces without end",
            |stream| {
                write!(stream, "HTTP/1.1 200 OK\r\n{JSON}\r\n")?;
                let spaces = vec![b' '; 1 << 16];
                (0..16_384).try_for_each(|_| stream.write_all(&spaces))
            },
            &["more than 1000000 bytes", "--most-bytes"],
        ),
        (
            "headers without end",
            |stream| {
                write!(stream, "HTTP/1.1 200 OK\r\nX-Long: ")?;
                let letters = vec![b'a'; 1 << 20];
                stream.write_all(&letters)?;
                write!(stream, "\r\n\r\n{{}}")
            },
            &["the answer's headers have no end"],
        ),
        (
            "letters that are none",
            |stream| answer(stream, "200 OK", JSON, b"\"gr\xfc\""),
            &["not text in utf-8"],
        ),
        (
            "no such packing",
            |stream| answer(stream, "200 OK", "Content-Encoding: gzip\r\n", b"{}"),
            &["packed as gzip"],
        ),
        (
            "a page",
            |stream| answer(stream, "200 OK", "Content-Type: text/html\r\n", b"<!doctype html>\n<p>Hi"),
            &["the answer is text/html, and starts with `<!doctype html>`, with status 200"],
        ),
        (
            "broken JSON",
            |stream| answer(stream, "200 OK", JSON, b"{\"a\": }"),
            &["says that it is JSON, and is none"],
        ),
        (
            "nothing",
            |stream| answer(stream, "204 No Content", "", b""),
            &["the answer is empty, with status 204"],
        ),
        (
            "404",
            |stream| answer(stream, "404 Not Found", "", b"no such hive"),
            &["the server answers 404 Not Found: no such hive", "look for a slip in the path"],
        ),
        (
            "500",
            |stream| answer(stream, "500 Internal Server Error", "", b""),
            &["500 Internal", "ask again later"],
        ),
        ("no HTTP", |stream| stream.write_all(b"220 mail.example ESMTP\r\n"), &["error:", "way out:"]),
    ];
    for (name, script, expected) in FAULTS {
        let folder = tempfile::tempdir().unwrap();
        let server = Server::start(|_, _, stream| script(stream));
        let output =
            fetch(folder.path(), &[&server.url("/hives"), "--timeout", "2", "--most-bytes", "1000000"]);
        let told = said(&output);
        assert_eq!(output.status.code(), Some(2), "{name}: {told}");
        expected.iter().for_each(|text| assert!(told.contains(text), "{name}: {told}"));
        assert!(recorded(folder.path()).is_empty(), "{name}");
    }
    let folder = tempfile::tempdir().unwrap();
    let server = Server::start(|_, _, stream| answer(stream, "302 Found", "Location: /hives\r\n", b""));
    let output = fetch(folder.path(), &[&server.url("/hives")]);
    assert!(said(&output).contains("more than 10 redirects"), "{}", said(&output));
    assert_eq!(server.asked().len(), 11);
    // A port on which nobody listens any more.
    let gone = TcpListener::bind("127.0.0.1:0").unwrap().local_addr().unwrap();
    let output = fetch(folder.path(), &[&format!("http://{gone}/hives")]);
    assert!(said(&output).contains("nobody listens there"), "{}", said(&output));
}

#[test]
fn what_makes_no_request_is_told() {
    let folder = tempfile::tempdir().unwrap();
    let cases: &[(&[&str], &str)] = &[
        (&["hives"], "relative URL without a base"),
        (&["ftp://honey.example/"], "an API is asked by http or https"),
        (&["http://127.0.0.1:1/${"], "a placeholder is `${NAME}`"),
        (&["http://127.0.0.1:1/", "--header", "Authorization"], "a header is `NAME: VALUE`"),
        (&["http://127.0.0.1:1/", "--query", "page"], "a parameter is `NAME=VALUE`"),
        (&["http://127.0.0.1:1/", "--env-file", "none"], "there is no such file"),
        (&["http://127.0.0.1:1/", "--header", "X: a\u{7}b"], "error:"),
    ];
    for (arguments, expected) in cases {
        let output = fetch(folder.path(), arguments);
        let told = said(&output);
        assert_eq!(output.status.code(), Some(2), "{arguments:?}: {told}");
        assert!(told.contains(expected), "{arguments:?}: {told}");
    }
}
