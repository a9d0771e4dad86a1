//! A server on the loopback, and the program that asks it.

#![allow(dead_code, reason = "no test needs all of it")]
#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]

use std::fs;
use std::io::{BufRead, BufReader, Read, Write};
use std::net::{TcpListener, TcpStream};
use std::path::Path;
use std::process::{Command, Output};
use std::sync::{Arc, Mutex};
use std::thread;

use assert_cmd::cargo::CommandCargoExt;

/// What goes out of a server, given what came in and how many requests came before.
type Script = dyn Fn(&str, usize, &mut TcpStream) -> std::io::Result<()> + Send + Sync;

/// A server that ends with the test.
pub(crate) struct Server {
    pub(crate) address: String,
    /// The requests as they came: first line, headers and body.
    asked: Arc<Mutex<Vec<String>>>,
}

impl Server {
    pub(crate) fn start(
        script: impl Fn(&str, usize, &mut TcpStream) -> std::io::Result<()> + Send + Sync + 'static,
    ) -> Self {
        let listener = TcpListener::bind("127.0.0.1:0").unwrap();
        let address = listener.local_addr().unwrap().to_string();
        let asked: Arc<Mutex<Vec<String>>> = Arc::default();
        let (log, script): (_, Arc<Script>) = (Arc::clone(&asked), Arc::new(script));
        thread::spawn(move || {
            for stream in listener.incoming().flatten() {
                let (log, script) = (Arc::clone(&log), Arc::clone(&script));
                thread::spawn(move || serve(stream, &log, &*script));
            }
        });
        Self { address, asked }
    }

    pub(crate) fn url(&self, path: &str) -> String {
        format!("http://{}{path}", self.address)
    }

    pub(crate) fn asked(&self) -> Vec<String> {
        self.asked.lock().unwrap().clone()
    }
}

/// One request of a connection, which is closed behind it; a client that goes away early is no fault of ours.
fn serve(mut stream: TcpStream, log: &Mutex<Vec<String>>, script: &Script) {
    let mut reader = BufReader::new(stream.try_clone().unwrap());
    let mut request = String::new();
    while reader.read_line(&mut request).is_ok_and(|length| length > 2) {}
    let length = request
        .to_ascii_lowercase()
        .split("content-length: ")
        .nth(1)
        .map_or(0, |rest| rest.lines().next().unwrap_or_default().trim().parse().unwrap_or(0));
    let mut body = vec![0; length];
    drop(reader.read_exact(&mut body));
    request.push_str(&String::from_utf8_lossy(&body));
    let before = {
        let mut log = log.lock().unwrap();
        log.push(request.clone());
        log.len() - 1
    };
    drop(script(&request, before, &mut stream));
}

/// The header of an answer that is JSON.
pub(crate) const JSON: &str = "Content-Type: application/json\r\n";

/// A whole answer.
pub(crate) fn answer(
    stream: &mut TcpStream,
    status: &str,
    headers: &str,
    body: &[u8],
) -> std::io::Result<()> {
    let length = body.len();
    write!(stream, "HTTP/1.1 {status}\r\nConnection: close\r\nContent-Length: {length}\r\n{headers}\r\n")?;
    stream.write_all(body)
}

/// Asks for samples outside of a jar.
pub(crate) fn fetch(folder: &Path, arguments: &[&str]) -> Output {
    fetch_for_jar(folder, &[arguments, &["--dir", "samples"]].concat())
}

/// Asks for samples of the folder's jar.
pub(crate) fn fetch_for_jar(folder: &Path, arguments: &[&str]) -> Output {
    let mut command = Command::cargo_bin("jar-sprout").unwrap();
    command.arg("fetch").args(arguments).current_dir(folder);
    command.env("HIVES_TOKEN", "b33s-and-more");
    // Nothing stands between the program and the loopback.
    for name in ["http_proxy", "https_proxy", "all_proxy"] {
        command.env_remove(name).env_remove(name.to_ascii_uppercase());
    }
    command.output().unwrap()
}

pub(crate) fn said(output: &Output) -> String {
    String::from_utf8_lossy(&output.stderr).into_owned()
}

/// All samples of a folder, by name.
pub(crate) fn recorded(folder: &Path) -> Vec<(String, String)> {
    fn collect(folder: &Path, found: &mut Vec<(String, String)>) {
        for entry in fs::read_dir(folder).into_iter().flatten().flatten() {
            let path = entry.path();
            if path.is_dir() {
                collect(&path, found);
            } else {
                let name = entry.file_name().to_string_lossy().into_owned();
                found.push((name, fs::read_to_string(path).unwrap()));
            }
        }
    }
    let mut files = Vec::new();
    collect(&folder.join("samples"), &mut files);
    files.sort();
    files
}
