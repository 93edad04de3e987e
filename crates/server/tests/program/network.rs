//! The home network from outside: the key, who is let in and how, and what everybody else gets. Everything is asked on
//! another address of this machine.

use std::io::{BufRead, BufReader, Read, Write};
use std::path::Path;
use std::process::{Command, Stdio};
use std::time::{Duration, Instant};

use serde_json::{Value, json};
use ureq::tls::{Certificate, RootCerts, TlsConfig};

use crate::common::{Running, bodega, said};

const HOST: &str = "127.0.0.2";
const PASSCODE: &str = "four wet jars";

/// A kitchen that is open to the network, and an outsider who trusts it.
struct Open {
    running: Running,
    url: String,
    help: String,
    outside: ureq::Agent,
}

fn set_passcode(folder: &Path, passcode: &str) -> (Option<i32>, String) {
    let mut command = bodega("passcode", folder, &[]);
    let mut child =
        command.stdin(Stdio::piped()).stdout(Stdio::piped()).stderr(Stdio::piped()).spawn().unwrap();
    writeln!(child.stdin.take().unwrap(), "{passcode}").unwrap();
    let done = child.wait_with_output().unwrap();
    (done.status.code(), String::from_utf8_lossy(&[done.stdout, done.stderr].concat()).into_owned())
}

fn agent(roots: RootCerts) -> ureq::Agent {
    let tls = TlsConfig::builder().root_certs(roots).build();
    ureq::Agent::config_builder()
        .tls_config(tls)
        .http_status_as_error(false)
        .timeout_global(Some(Duration::from_secs(20)))
        .build()
        .into()
}

fn network(folder: &Path) -> Command {
    bodega("serve", folder, &["--network", "--address", HOST, "--network-port", "0", "--help-port", "0"])
}

fn plain(address: &str) -> (u16, String, Vec<u8>) {
    let answer = agent(RootCerts::new_with_certs(&[])).get(address).call().unwrap();
    let kind = answer.headers().get("content-type").map(|kind| kind.to_str().unwrap().to_owned());
    let status = answer.status().as_u16();
    let mut body = Vec::new();
    answer.into_body().into_reader().read_to_end(&mut body).unwrap();
    (status, kind.unwrap_or_default(), body)
}

impl Open {
    fn of(folder: &Path) -> Self {
        assert_eq!(set_passcode(folder, PASSCODE).0, Some(0));
        let mut running = Running::of(network(folder));
        let address = |line: &str, scheme: &str| {
            line.split_whitespace().find(|word| word.starts_with(scheme)).unwrap().to_owned()
        };
        let url = address(&running.line(), "https://");
        let help = address(&running.line(), "http://");
        let (_, kind, der) = plain(&format!("{help}/bodega-kitchen.crt"));
        assert_eq!(kind, "application/x-x509-ca-cert");
        let trusted = Certificate::from_der(&der).to_owned();
        Self { running, url, help, outside: agent(RootCerts::new_with_certs(&[trusted])) }
    }

    /// Status, cookie and body of an answer to somebody outside.
    fn ask(&self, method: &str, path: &str, cookie: &str, body: Option<&Value>) -> (u16, String, Value) {
        let request = ureq::http::Request::builder().method(method).uri(format!("{}{path}", self.url));
        let request = request.header("Cookie", cookie).header("Content-Type", "application/json");
        let answer = match body {
            Some(body) => self.outside.run(request.body(body.to_string()).unwrap()),
            None => self.outside.run(request.body(()).unwrap()),
        };
        let answer = answer.unwrap();
        let status = answer.status().as_u16();
        let set = answer.headers().get("set-cookie").map(|set| set.to_str().unwrap().to_owned());
        let mut text = String::new();
        answer.into_body().into_reader().read_to_string(&mut text).unwrap();
        (status, set.unwrap_or_default(), serde_json::from_str(&text).unwrap_or(Value::String(text)))
    }

    fn let_in(&self, how: &Value) -> (u16, String, Value) {
        let mut body = json!({"name": "Phone at the stove"});
        body.as_object_mut().unwrap().extend(how.as_object().unwrap().clone());
        self.ask("POST", "/api/devices", "", Some(&body))
    }

    fn code(&self) -> String {
        let (status, made) = self.running.ask("POST", "/api/network/codes", None);
        assert_eq!(status, 201, "{made}");
        let code = made["code"].as_str().unwrap().to_owned();
        assert_eq!(made["url"], format!("{}/let-in#{code}", self.url));
        code
    }
}

/// The part of a cookie that is sent back.
fn pair(set: &str) -> String {
    set.split(';').next().unwrap().to_owned()
}

#[test]
fn without_a_passcode_the_network_stays_shut() {
    let folder = tempfile::tempdir().unwrap();
    let (code, words) = said(network(folder.path()));
    assert!(code == Some(1) && words.contains("bodega passcode"), "{code:?} {words}");
    let (code, words) = set_passcode(folder.path(), "short");
    assert!(code == Some(1) && words.contains("8 to 200 letters"), "{code:?} {words}");
    let outside = bodega("serve", folder.path(), &["--network", "--address", "8.8.8.8"]);
    set_passcode(folder.path(), PASSCODE);
    let (code, words) = said(outside);
    assert!(code == Some(1) && words.contains("no address of a home network"), "{code:?} {words}");
}

#[test]
fn a_device_is_let_in_by_a_code_once_and_signed_out_by_a_touch() {
    let folder = tempfile::tempdir().unwrap();
    let open = Open::of(folder.path());
    assert_eq!(open.ask("GET", "/", "", None).0, 200, "the page that asks is open");
    // However an address is written, it is the same to the routes and to whoever guards them.
    for path in [
        "/api/counter",
        "/api/export.json",
        "/api/network",
        "/api/live",
        "/api/nothing",
        "/%61pi/counter",
        "/ap%69/export.json",
        "/%61%70%69/lots",
        "/api/%63ounter",
    ] {
        let (status, _, problem) = open.ask("GET", path, "", None);
        assert_eq!((status, &problem["code"]), (401, &json!("not_let_in")), "{path}");
    }
    assert_eq!(open.ask("POST", "/api/network/codes", "", None).0, 401, "nobody lets himself in");
    let code = open.code();
    let (status, set, device) = open.let_in(&json!({"code": code.to_lowercase()}));
    assert_eq!((status, &device["name"]), (201, &json!("Phone at the stove")));
    for part in ["__Host-", "Secure", "HttpOnly", "SameSite=Strict", "Path=/"] {
        assert!(set.contains(part), "{part}: {set}");
    }
    let cookie = pair(&set);
    assert_eq!(open.ask("GET", "/api/counter", &cookie, None).0, 200);
    let (_, _, network) = open.ask("GET", "/api/network", &cookie, None);
    assert_eq!((&network["is_this_machine"], &network["this_device"]), (&json!(false), &device["id"]));
    let (status, _, problem) = open.let_in(&json!({"code": code}));
    assert_eq!((status, &problem["code"]), (401, &json!("wrong_code")), "a code lets in once");
    let (status, _, problem) =
        open.ask("PUT", "/api/network/passcode", &cookie, Some(&json!({"passcode": "mine from now on"})));
    assert_eq!((status, &problem["code"]), (403, &json!("only_here")));

    // The open stream of a device that is signed out ends too.
    let request =
        ureq::http::Request::builder().uri(format!("{}/api/live", open.url)).header("Cookie", &cookie);
    let stream = open.outside.run(request.body(()).unwrap()).unwrap();
    let mut lines = BufReader::new(stream.into_body().into_reader()).lines();
    assert_eq!(lines.next().unwrap().unwrap(), ": open");
    let path = format!("/api/devices/{}", device["id"]);
    assert_eq!(open.running.ask("DELETE", &path, None).0, 204);
    let since = Instant::now();
    lines.by_ref().for_each(drop);
    assert!(since.elapsed() < Duration::from_secs(5));
    assert_eq!(open.ask("GET", "/api/counter", &cookie, None).0, 401);
    assert_eq!(open.running.ask("DELETE", &path, None).0, 404);
}

#[test]
fn the_passcode_lets_in_and_is_not_guessed() {
    let folder = tempfile::tempdir().unwrap();
    let open = Open::of(folder.path());
    let (status, set, _) = open.let_in(&json!({"passcode": PASSCODE}));
    assert_eq!(status, 201);
    assert_eq!(open.ask("GET", "/api/counter", &pair(&set), None).0, 200);
    let mut told = Vec::new();
    for _ in 0..8 {
        let (status, _, problem) = open.let_in(&json!({"passcode": "five wet jars"}));
        told.push((status, problem["code"].as_str().unwrap().to_owned()));
    }
    assert_eq!(told[0], (401, "wrong_passcode".to_owned()));
    assert!(told.contains(&(429, "too_many_tries".to_owned())), "{told:?}");
    let (status, _, problem) = open.let_in(&json!({"passcode": PASSCODE}));
    assert_eq!(status, 429, "the right one waits too: {problem}");
    assert!(problem["detail"].as_str().unwrap().contains("wait"), "{problem}");
    let (status, problem) =
        open.running.ask("POST", "/api/devices", Some(&json!({"name": "Here", "code": "x"})));
    assert_eq!((status, &problem["code"]), (409, &json!("no_network")), "this machine needs no letting in");
    let (status, _) =
        open.running.ask("PUT", "/api/network/passcode", Some(&json!({"passcode": "another four words"})));
    assert_eq!(status, 204);
}

#[test]
fn whoever_does_not_trust_it_or_asks_for_another_is_not_answered() {
    let folder = tempfile::tempdir().unwrap();
    let open = Open::of(folder.path());
    let stranger = agent(RootCerts::new_with_certs(&[]));
    assert!(stranger.get(format!("{}/", open.url)).call().is_err(), "its key is nobody's yet");
    let request = ureq::http::Request::builder().uri(format!("{}/", open.url)).header("Host", "bank.example");
    assert_eq!(open.outside.run(request.body(()).unwrap()).unwrap().status().as_u16(), 421);
    // The loopback's own name does not open the door to the network.
    let request = ureq::http::Request::builder().uri(format!("{}/", open.url)).header("Host", "localhost");
    assert_eq!(open.outside.run(request.body(()).unwrap()).unwrap().status().as_u16(), 421);
    let (status, kind, page) = plain(&format!("{}/", open.help));
    let page = String::from_utf8(page).unwrap();
    assert!(
        status == 200 && kind.starts_with("text/html") && page.contains("Certificate Trust Settings"),
        "{page}"
    );
    let (_, network) = open.running.ask("GET", "/api/network", None);
    assert!(page.contains(network["fingerprint"].as_str().unwrap()));
    for path in ["/api/counter", "/index.html", "/canner"] {
        assert_eq!(
            plain(&format!("{}{path}", open.help)).0,
            404,
            "{path}: nothing of the kitchen is told there"
        );
    }
}

#[test]
fn the_key_and_the_devices_stay_when_the_program_is_started_again() {
    let folder = tempfile::tempdir().unwrap();
    let first = Open::of(folder.path());
    let (_, set, _) = first.let_in(&json!({"code": first.code()}));
    let Open { running, outside, .. } = first;
    drop(running);
    let again = Open::of(folder.path());
    let request = ureq::http::Request::builder().uri(format!("{}/api/counter", again.url));
    let answer = outside.run(request.header("Cookie", pair(&set)).body(()).unwrap()).unwrap();
    assert_eq!(answer.status().as_u16(), 200, "trusted before, let in before");
    // While it runs, the passcode is set in Kitchen, and not behind its back.
    let (code, words) = set_passcode(folder.path(), "another four words");
    assert!(code == Some(1) && words.contains("another Bodega"), "{words}");
}
