//! The program that is measured, as a process of its own.

use std::io::{BufRead, BufReader};
use std::net::SocketAddr;
use std::path::Path;
use std::process::{Child, Command, Stdio};
use std::time::{Duration, Instant};

use anyhow::Context;

use crate::client::{Client, said};

/// A running program; ended when it is dropped.
pub struct Program {
    child: Child,
    /// Where it answers.
    pub address: SocketAddr,
    /// How long it took from its start to its first answer.
    pub started: Duration,
}

impl Program {
    /// Starts a program that says its address on its first line, and waits for its first answer.
    ///
    /// # Errors
    /// When it does not start.
    pub fn start(program: &Path, arguments: &[&str], first: &str) -> anyhow::Result<Self> {
        let begun = Instant::now();
        let mut child = Command::new(program).args(arguments).stdout(Stdio::piped()).spawn()?;
        let mut line = String::new();
        let out = child.stdout.take().context("the program says nothing")?;
        BufReader::new(out).read_line(&mut line)?;
        let address = said(&line)?;
        Client::to(address)?.get(first)?;
        Ok(Self { child, address, started: begun.elapsed() })
    }

    /// The kitchen in a directory.
    ///
    /// # Errors
    /// As [`Self::start`].
    pub fn serve(program: &Path, directory: &Path) -> anyhow::Result<Self> {
        let directory = directory.to_string_lossy();
        Self::start(program, &["serve", "--port", "0", "--data", &directory], "/api/health")
    }

    fn status(&self, key: &str) -> u64 {
        let text = std::fs::read_to_string(format!("/proc/{}/status", self.child.id())).unwrap_or_default();
        let line = text.lines().find_map(|line| line.strip_prefix(key));
        line.and_then(|line| line.split_whitespace().next()?.parse().ok()).unwrap_or(0)
    }

    /// Memory that it has now, in megabytes.
    #[must_use]
    pub fn memory_mb(&self) -> u64 {
        self.status("VmRSS:") / 1024
    }

    /// The most that it ever had, in megabytes.
    #[must_use]
    pub fn most_memory_mb(&self) -> u64 {
        self.status("VmHWM:") / 1024
    }

    /// Processor time that it has used.
    #[must_use]
    pub fn processor(&self) -> Duration {
        /// Parts of a second that Linux counts in.
        const TICKS: u64 = 100;
        let text = std::fs::read_to_string(format!("/proc/{}/stat", self.child.id())).unwrap_or_default();
        let after = text.rsplit(')').next().unwrap_or_default();
        let ticks: u64 =
            after.split_whitespace().skip(11).take(2).filter_map(|part| part.parse::<u64>().ok()).sum();
        Duration::from_millis(ticks * 1000 / TICKS)
    }
}

impl Drop for Program {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}
