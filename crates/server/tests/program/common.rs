//! The program running, and how to ask it.

use std::io::{BufRead, BufReader, Read};
use std::path::Path;
use std::process::{Child, ChildStdout, Command, Output, Stdio};

use serde_json::{Value, json};

pub const PROGRAM: &str = env!("CARGO_BIN_EXE_bodega");

/// A running program, ended when it is dropped.
pub struct Running {
    child: Child,
    out: BufReader<ChildStdout>,
    pub address: String,
}

impl Drop for Running {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}

impl Running {
    /// Starts a command that prints its address, and waits until it has.
    pub fn of(mut command: Command) -> Self {
        let mut child = command.stdout(Stdio::piped()).spawn().unwrap();
        let mut out = BufReader::new(child.stdout.take().unwrap());
        let mut line = String::new();
        out.read_line(&mut line).unwrap();
        let address = line.split_whitespace().find(|word| word.starts_with("http://"));
        let address =
            address.unwrap_or_else(|| panic!("no address in {line:?}")).trim_end_matches(':').to_owned();
        Self { child, out, address }
    }

    /// The next line that it prints.
    pub fn line(&mut self) -> String {
        let mut line = String::new();
        self.out.read_line(&mut line).unwrap();
        line
    }

    /// Number of the process.
    pub fn id(&self) -> u32 {
        self.child.id()
    }

    pub fn serve(data: &Path, more: &[&str]) -> Self {
        Self::of(bodega("serve", data, more))
    }

    /// Status and body of an answer.
    pub fn ask(&self, method: &str, path: &str, body: Option<&Value>) -> (u16, Value) {
        let agent: ureq::Agent = ureq::Agent::config_builder().http_status_as_error(false).build().into();
        let uri = format!("{}{path}", self.address);
        let request = ureq::http::Request::builder().method(method).uri(uri);
        let answer = match body {
            Some(body) => {
                agent.run(request.header("Content-Type", "application/json").body(body.to_string()).unwrap())
            }
            None if method == "GET" => agent.run(request.body(()).unwrap()),
            None => agent.run(request.body(String::new()).unwrap()),
        };
        let answer = answer.unwrap();
        let status = answer.status().as_u16();
        let mut text = String::new();
        answer.into_body().into_reader().read_to_string(&mut text).unwrap();
        (status, serde_json::from_str(&text).unwrap_or(Value::String(text)))
    }

    pub fn weigh_in(&self, pounds: u32) -> (u16, Value) {
        let amount = json!({"weighed": {"value": pounds, "unit": "lb"}});
        let lot = json!({"amount": amount, "kind": "paste", "condition": "firm_ripe"});
        self.ask("POST", "/api/lots", Some(&lot))
    }

    pub fn lots(&self) -> usize {
        self.ask("GET", "/api/lots", None).1.as_array().unwrap().len()
    }
}

/// A command of the program on a folder, on a free port where it serves.
pub fn bodega(what: &str, data: &Path, more: &[&str]) -> Command {
    let mut command = Command::new(PROGRAM);
    command.arg(what).arg("--data").arg(data).args(more);
    if what == "serve" {
        command.args(["--port", "0"]);
    }
    command
}

/// What a command says that ends by itself.
pub fn said(mut command: Command) -> (Option<i32>, String) {
    let Output { status, stdout, stderr } = command.output().unwrap();
    (status.code(), String::from_utf8_lossy(&[stdout, stderr].concat()).into_owned())
}
