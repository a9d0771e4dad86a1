//! Listening on this machine, for `stand-in` alone: requests come in within bounds, and answers go out.

use std::io::{self, ErrorKind, Read, Write};
use std::net::{IpAddr, Ipv4Addr, TcpListener, TcpStream};
use std::sync::Arc;
use std::sync::atomic::{AtomicU64, AtomicUsize, Ordering};
use std::thread;
use std::time::Duration;

use jar_sprout_fetch::Timestamp;
use jar_sprout_model::Problem;
use jar_sprout_stand_in::{Answer, Api, Asked};

use crate::failure::{Failure, reason};
use crate::look::size;
use crate::report;

/// The most bytes in which the head of a request must end.
const MOST_HEAD: usize = 1 << 15;

/// The most headers of a request.
const MOST_HEADERS: usize = 100;

/// The most bytes of a body that are read past.
const MOST_BODY: u64 = 1 << 20;

/// The most requests that are answered at the same time.
const MOST_AT_ONCE: usize = 32;

/// How long a request may take to come.
const PATIENCE: Duration = Duration::from_secs(10);

/// Listens on a port of this machine; on any that is free where it is 0.
pub(crate) fn listen(port: u16) -> Result<TcpListener, Problem> {
    TcpListener::bind((Ipv4Addr::LOCALHOST, port)).map_err(|error| {
        let message = match error.kind() {
            ErrorKind::AddrInUse => "somebody listens there already".to_owned(),
            _ => reason(&error),
        };
        let problem = Failure::argument(message, format!("--port {port}"));
        problem.with_help("`--port 0` takes one that is free")
    })
}

/// Answers until the program ends.
pub(crate) fn serve(api: Api, listener: &TcpListener, delay: Duration) {
    let api = Arc::new(api);
    let (count, at_once) = (Arc::new(AtomicU64::new(0)), Arc::new(AtomicUsize::new(0)));
    for stream in listener.incoming().flatten() {
        if at_once.load(Ordering::Relaxed) >= MOST_AT_ONCE {
            // Who comes now is hung up on.
            continue;
        }
        at_once.fetch_add(1, Ordering::Relaxed);
        let (api, count, at_once) = (Arc::clone(&api), Arc::clone(&count), Arc::clone(&at_once));
        thread::spawn(move || {
            // Whoever goes away early misses their answer.
            drop(talk(stream, &api, &count, delay));
            at_once.fetch_sub(1, Ordering::Relaxed);
        });
    }
}

/// One request and its answer.
fn talk(mut stream: TcpStream, api: &Api, count: &AtomicU64, delay: Duration) -> io::Result<()> {
    stream.set_read_timeout(Some(PATIENCE))?;
    stream.set_write_timeout(Some(PATIENCE))?;
    let here = stream.local_addr()?.to_string();
    let (head, more) = match read_head(&mut stream) {
        Ok(read) => read,
        Err(error) if error.kind() == ErrorKind::InvalidData => {
            return send(&mut stream, &Answer::problem(431, "the head of the request has no end"));
        }
        Err(error) => return Err(error),
    };
    let mut headers = [httparse::EMPTY_HEADER; MOST_HEADERS];
    let mut request = httparse::Request::new(&mut headers);
    let (Ok(httparse::Status::Complete(_)), Some(method), Some(target)) =
        (request.parse(&head), request.method, request.path)
    else {
        return send(&mut stream, &Answer::problem(400, "this is no request"));
    };
    let text = |value| std::str::from_utf8(value).unwrap_or_default();
    let headers: Vec<(&str, &str)> = request.headers.iter().map(|one| (one.name, text(one.value))).collect();
    let header =
        |wanted: &str| headers.iter().find(|(name, _)| name.eq_ignore_ascii_case(wanted)).map(|one| one.1);
    let host = header("host").unwrap_or(&here);
    let answer = if is_local(host) {
        let length = header("content-length").and_then(|length| length.trim().parse().ok()).unwrap_or(0_u64);
        match length > MOST_BODY {
            true => Answer::problem(413, "the body is too long"),
            false => {
                // It is heard out, so that it hears the answer.
                let left = length.saturating_sub(more as u64);
                io::copy(&mut (&stream).take(left), &mut io::sink())?;
                thread::sleep(delay);
                let number = count.fetch_add(1, Ordering::Relaxed) + 1;
                api.answer(Asked { method, target, headers: &headers }, number, &format!("http://{host}"))
            }
        }
    } else {
        // A page of the web that has this machine called by a name of its own learns nothing.
        Answer::problem(421, "this is asked by its address or as localhost alone")
    };
    let Answer { status, body, .. } = &answer;
    let shown = api.key.as_ref().map_or_else(|| target.to_owned(), |key| target.replace(key, "…"));
    report::note(&format!("{status}  {method} {shown}  {}", size(body.len() as u64)));
    send(&mut stream, &answer)
}

/// The head of a request, and how much of its body came with it.
fn read_head(stream: &mut TcpStream) -> io::Result<(Vec<u8>, usize)> {
    let mut head = Vec::new();
    let mut block = [0; 1 << 12];
    loop {
        let length = stream.read(&mut block)?;
        if length == 0 {
            return Err(ErrorKind::UnexpectedEof.into());
        }
        head.extend_from_slice(&block[..length]);
        if let Some(end) = head.windows(4).position(|four| four == b"\r\n\r\n") {
            let more = head.len() - end - 4;
            head.truncate(end + 4);
            return Ok((head, more));
        }
        if head.len() > MOST_HEAD {
            return Err(ErrorKind::InvalidData.into());
        }
    }
}

/// Whether a host is a number or this machine: another name may be anybody's.
fn is_local(host: &str) -> bool {
    let name = match host.rsplit_once(':') {
        Some((name, port)) if port.bytes().all(|byte| byte.is_ascii_digit()) => name,
        _ => host,
    };
    let name = name.trim_start_matches('[').trim_end_matches(']');
    name.eq_ignore_ascii_case("localhost") || name.parse::<IpAddr>().is_ok()
}

fn send(stream: &mut TcpStream, answer: &Answer) -> io::Result<()> {
    let Answer { status, headers, body } = answer;
    let mut head = format!("HTTP/1.1 {status} {}\r\n", phrase(*status));
    for (name, value) in headers {
        // What would end a header early is in none.
        let value: String = value.chars().filter(|c| !c.is_control()).collect();
        head.push_str(&format!("{name}: {value}\r\n"));
    }
    let date = Timestamp::now().strftime("%a, %d %b %Y %H:%M:%S GMT").to_string();
    head.push_str(&format!("Date: {date}\r\nContent-Length: {}\r\nConnection: close\r\n\r\n", body.len()));
    stream.write_all(head.as_bytes())?;
    stream.write_all(body)?;
    stream.flush()
}

/// What a status says (RFC 9110, section 15).
fn phrase(status: u16) -> &'static str {
    match status {
        200 => "OK",
        400 => "Bad Request",
        401 => "Unauthorized",
        404 => "Not Found",
        405 => "Method Not Allowed",
        413 => "Content Too Large",
        421 => "Misdirected Request",
        429 => "Too Many Requests",
        431 => "Request Header Fields Too Large",
        _ => "",
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_numbers_and_this_machine_are_local() {
        for host in ["127.0.0.1:8017", "localhost", "LOCALHOST:1", "10.0.2.2:8017", "[::1]:8017"] {
            assert!(is_local(host), "{host}");
        }
        for host in ["honey.example", "127.0.0.1.honey.example:8017", "", "localhost.honey.example"] {
            assert!(!is_local(host), "{host}");
        }
    }
}
