//! Sending a request, and reading what comes back within bounds.

use std::fs;
use std::io::{self, Read};
use std::path::Path;
use std::time::Duration;

use jar_sprout_fetch::{PACKINGS, Secrets, is_same_origin, shown, unpacked};
use jar_sprout_model::Problem;
use ureq::http::{HeaderMap, Request, Response, StatusCode, header};
use ureq::tls::{Certificate, PemItem, RootCerts, TlsConfig, parse_pem};
use ureq::{Agent, Body, Error};
use url::Url;

use super::order::Order;
use crate::failure::{Failure, reason};

/// So many redirects are followed.
const REDIRECTS: usize = 10;

/// The longest that a server is waited for which asks to be asked later.
const LONGEST_WAIT: Duration = Duration::from_secs(60);

/// How often a server is asked again that asks for it.
const RETRIES: usize = 3;

/// What an answer may take.
pub(crate) struct Limits {
    pub(crate) timeout: Duration,
    /// The most bytes, unpacked.
    pub(crate) bytes: u64,
}

/// Why no answer came.
enum Fault {
    /// Something happened on the way.
    Way(Error),
    /// It has more bytes than are read.
    Length,
    /// It is packed as it does not say, or as nobody here unpacks.
    Packing(String),
}

/// Speaks with servers.
pub(crate) struct Client {
    agent: Agent,
    limits: Limits,
}

/// An answer that tells of success.
pub(crate) struct Reply {
    pub(crate) status: u16,
    pub(crate) content_type: String,
    /// Where related answers are (RFC 8288).
    pub(crate) link: String,
    pub(crate) bytes: Vec<u8>,
    /// Another host that answered in the place of the one that was asked, without its credentials.
    pub(crate) from: Option<String>,
}

impl Client {
    /// `authorities` is a file of certificates that are trusted instead of the web's.
    pub(crate) fn new(limits: Limits, authorities: Option<&Path>) -> Result<Self, Problem> {
        let tls = TlsConfig::builder().root_certs(authorities.map_or(Ok(RootCerts::WebPki), trusted)?);
        let config = Agent::config_builder()
            .tls_config(tls.build())
            .http_status_as_error(false)
            // They are followed here, where what goes along is decided.
            .max_redirects(0)
            .timeout_global(Some(limits.timeout))
            .allow_non_standard_methods(true)
            .user_agent(concat!("jar-sprout/", env!("CARGO_PKG_VERSION")))
            // It is unpacked here, where its end is known.
            .accept_encoding(PACKINGS)
            .accept("application/json, application/x-ndjson, application/yaml;q=0.9, */*;q=0.1")
            .build();
        Ok(Self { agent: config.into(), limits })
    }

    /// The answer to a request. Nothing that is said of it has a secret in it.
    pub(crate) fn ask(&self, order: &Order, secrets: &Secrets) -> Result<Reply, Problem> {
        let mut url = order.url.clone();
        // What is asked after a redirect, where that is not what was asked first.
        let mut is_plain = false;
        let (mut redirects, mut retries) = (0, 0);
        loop {
            let response = self
                .send(order, &url, is_plain)
                .map_err(|error| self.fault(Fault::Way(error), &url, secrets))?;
            let status = response.status();
            if let Some(next) = next_address(&response, &url) {
                redirects += 1;
                if redirects > REDIRECTS {
                    let message = format!("more than {REDIRECTS} redirects, the last one to another address");
                    return Err(problem(message, &url, secrets));
                }
                // RFC 9110, section 15.4: only these keep the method and the body.
                is_plain |= !matches!(status.as_u16(), 307 | 308);
                if !is_plain && order.body.is_some() && !is_same_origin(&next, &order.home) {
                    let message = "the server sends the body to another host, which is not told it";
                    let help = format!("ask {} itself, if you trust it", shown(&next, secrets));
                    return Err(problem(message, &url, secrets).with_help(help));
                }
                url = next;
                continue;
            }
            if let Some(wait) = wait_of(&response).filter(|_| retries < RETRIES) {
                retries += 1;
                std::thread::sleep(wait);
                continue;
            }
            let content_type = text_of(response.headers(), header::CONTENT_TYPE);
            let link = text_of(response.headers(), header::LINK);
            let bytes = self.body(response).map_err(|fault| self.fault(fault, &url, secrets))?;
            if !status.is_success() {
                return Err(refused(status, &bytes, &url, secrets));
            }
            let from = (!is_same_origin(&url, &order.home)).then(|| shown(&url, secrets));
            return Ok(Reply { status: status.as_u16(), content_type, link, bytes, from });
        }
    }

    fn send(&self, order: &Order, url: &Url, is_plain: bool) -> Result<Response<Body>, Error> {
        let method = if is_plain && order.method != "HEAD" { "GET" } else { &order.method };
        let mut request = Request::builder().method(method).uri(url.as_str());
        // What was meant for one host is shown to no other.
        if is_same_origin(url, &order.home) {
            for (name, value) in &order.headers {
                request = request.header(name, value);
            }
            return match order.body.as_ref().filter(|_| !is_plain) {
                Some(body) => self.agent.run(request.body(body.as_str())?),
                None => self.agent.run(request.body(())?),
            };
        }
        self.agent.run(request.body(())?)
    }

    /// All of a body, unpacked, to the bound.
    fn body(&self, response: Response<Body>) -> Result<Vec<u8>, Fault> {
        let packing = text_of(response.headers(), header::CONTENT_ENCODING);
        let most = self.limits.bytes;
        let packed =
            all_of(response.into_body().into_reader(), most).map_err(|error| Fault::Way(error.into()))?;
        let packed = packed.ok_or(Fault::Length)?;
        if packing.is_empty() {
            return Ok(packed);
        }
        let reader =
            unpacked(&packing, &packed[..]).map_err(|unknown| Fault::Packing(unknown.to_string()))?;
        let is_other =
            |_| Fault::Packing(format!("the answer says that it is packed as {packing}, and is not"));
        all_of(reader, most).map_err(is_other)?.ok_or(Fault::Length)
    }

    /// What went wrong, and the way out.
    fn fault(&self, fault: Fault, url: &Url, secrets: &Secrets) -> Problem {
        let (message, help) = match fault {
            Fault::Way(error) => self.way(&error),
            Fault::Length => (
                format!("the answer has more than {} bytes", self.limits.bytes),
                "ask for less, or take more with `--most-bytes`",
            ),
            Fault::Packing(message) => (message, "tell those who run the server"),
        };
        problem(secrets.masked(&message), url, secrets).with_help(help)
    }

    /// What went wrong on the way, and the way out.
    fn way(&self, error: &Error) -> (String, &'static str) {
        let seconds = self.limits.timeout.as_secs();
        let is_certificate = |text: &str| text.to_ascii_lowercase().contains("certificate");
        let is_no_host = |text: &str| text.contains("lookup address") || text.contains("resolve");
        let is_no_tls = |text: &str| text.contains("corrupt message") || text.contains("InvalidContentType");
        let too_late = || (format!("no whole answer within {seconds} s"), "`--timeout SECONDS` waits longer");
        match error {
            Error::ConnectionFailed => NOBODY.told(),
            Error::Timeout(_) => too_late(),
            Error::LargeResponseHeader(..) => {
                ("the answer's headers have no end".to_owned(), "this is no server of an API")
            }
            Error::Io(error) => match error.kind() {
                io::ErrorKind::ConnectionRefused => NOBODY.told(),
                io::ErrorKind::UnexpectedEof | io::ErrorKind::ConnectionReset => (
                    "the answer ends in the middle".to_owned(),
                    "ask again; if it stays, tell those who run the server",
                ),
                io::ErrorKind::TimedOut => too_late(),
                _ if is_certificate(&error.to_string()) => NO_CERTIFICATE.told(),
                _ if is_no_host(&error.to_string()) => NO_HOST.told(),
                _ if is_no_tls(&error.to_string()) => NO_TLS.told(),
                _ => (reason(error), "ask again"),
            },
            Error::HostNotFound => NO_HOST.told(),
            error if is_no_tls(&error.to_string()) => NO_TLS.told(),
            error if is_certificate(&error.to_string()) => NO_CERTIFICATE.told(),
            error => (error.to_string(), "look at the address, the headers and the method"),
        }
    }
}

/// All that a reader has; none where that is more than `most` bytes.
fn all_of(reader: impl Read, most: u64) -> io::Result<Option<Vec<u8>>> {
    let mut bytes = Vec::new();
    reader.take(most.saturating_add(1)).read_to_end(&mut bytes)?;
    Ok((bytes.len() as u64 <= most).then_some(bytes))
}

/// The certificates of a file.
fn trusted(path: &Path) -> Result<RootCerts, Problem> {
    let text = fs::read(path).map_err(|error| Failure::path(reason(&error), path))?;
    let certificates: Vec<Certificate<'static>> = parse_pem(&text)
        .filter_map(|item| match item {
            Ok(PemItem::Certificate(certificate)) => Some(certificate),
            Ok(_) | Err(_) => None,
        })
        .collect();
    if certificates.is_empty() {
        let problem = Failure::path("no certificate stands here", path);
        return Err(problem.with_help("it is a block that starts with `-----BEGIN CERTIFICATE-----`"));
    }
    Ok(RootCerts::new_with_certs(&certificates))
}

/// A fault that several errors tell of.
struct Told(&'static str, &'static str);

const NO_HOST: Told = Told("there is no such host", "look for a slip in its name; is there a network?");
const NO_TLS: Told = Told("the server does not speak TLS", "is it `http://`, or another port?");
const NOBODY: Told = Told("nobody listens there", "is the server up, and the port right?");
const NO_CERTIFICATE: Told = Told(
    "the server's certificate does not hold",
    "look at its name and its date; `--ca-file` trusts an authority of your own",
);

impl Told {
    fn told(&self) -> (String, &'static str) {
        (self.0.to_owned(), self.1)
    }
}

fn problem(message: impl Into<String>, url: &Url, secrets: &Secrets) -> Problem {
    Failure::argument(message, shown(url, secrets))
}

/// Where a redirect leads (RFC 9110, section 15.4).
fn next_address(response: &Response<Body>, url: &Url) -> Option<Url> {
    let is_redirect = matches!(response.status().as_u16(), 301 | 302 | 303 | 307 | 308);
    let location = response.headers().get(header::LOCATION).filter(|_| is_redirect)?;
    url.join(location.to_str().ok()?).ok().filter(|next| matches!(next.scheme(), "http" | "https"))
}

/// How long a server asks to be left alone, if that is not too long (RFC 9110, section 10.2.3).
fn wait_of(response: &Response<Body>) -> Option<Duration> {
    let is_busy = matches!(response.status().as_u16(), 429 | 503);
    let seconds = response.headers().get(header::RETRY_AFTER).filter(|_| is_busy)?;
    let wait = Duration::from_secs(seconds.to_str().ok()?.trim().parse().ok()?);
    (wait <= LONGEST_WAIT).then_some(wait)
}

fn text_of(headers: &HeaderMap, name: header::HeaderName) -> String {
    headers.get(name).and_then(|value| value.to_str().ok()).unwrap_or_default().to_owned()
}

/// An answer that is none to what was asked, with its first line.
fn refused(status: StatusCode, bytes: &[u8], url: &Url, secrets: &Secrets) -> Problem {
    let help = match status.as_u16() {
        401 => "give it a key: `--header 'Authorization: Bearer ${TOKEN}'`",
        403 => "this key may not see it; ask for another one, or for less",
        404 | 410 => "look for a slip in the path; is it the right version of the API?",
        405 => "`--method` says how it is asked",
        406 | 415 => "`--header 'Accept: …'` says what is wanted",
        400 | 422 => "look at the parameters and the body",
        429 => "it was asked too often; wait, and ask for less at a time",
        500.. => "the server has a fault of its own; ask again later",
        _ => "look at what the API says of this status",
    };
    let text = String::from_utf8_lossy(&bytes[..bytes.len().min(400)]);
    let line: String = text
        .lines()
        .map(str::trim)
        .find(|line| !line.is_empty())
        .unwrap_or_default()
        .chars()
        .take(100)
        .collect();
    let said = if line.is_empty() { String::new() } else { format!(": {}", secrets.masked(&line)) };
    problem(format!("the server answers {status}{said}"), url, secrets).with_help(help)
}
