//! A client that costs next to nothing beside what it measures: one connection that is kept, one question after the other.

use std::io::{Read, Write};
use std::net::{SocketAddr, TcpStream};

use anyhow::{Context, bail};

/// One kept connection.
pub struct Client {
    stream: TcpStream,
    address: SocketAddr,
    buffer: Vec<u8>,
}

/// A question as it goes over the line.
pub fn question(address: SocketAddr, method: &str, path: &str, body: &str) -> Vec<u8> {
    let head = format!("{method} {path} HTTP/1.1\r\nHost: {address}\r\n");
    let content = if body.is_empty() {
        String::new()
    } else {
        format!("Content-Type: application/json\r\nContent-Length: {}\r\n", body.len())
    };
    format!("{head}{content}\r\n{body}").into_bytes()
}

impl Client {
    /// Connects.
    ///
    /// # Errors
    /// When nobody listens.
    pub fn to(address: SocketAddr) -> anyhow::Result<Self> {
        let stream = TcpStream::connect(address)?;
        stream.set_nodelay(true)?;
        Ok(Self { stream, address, buffer: vec![0; 1 << 16] })
    }

    /// Asks and gives the body.
    ///
    /// # Errors
    /// When the answer is not 200 or the connection breaks.
    pub fn get(&mut self, path: &str) -> anyhow::Result<Vec<u8>> {
        self.ask(&question(self.address, "GET", path, ""))
    }

    /// Sends a question as it is and gives the body of the answer.
    ///
    /// # Errors
    /// As [`Self::get`].
    pub fn ask(&mut self, question: &[u8]) -> anyhow::Result<Vec<u8>> {
        self.stream.write_all(question)?;
        let mut got = Vec::new();
        let head = loop {
            let read = self.stream.read(&mut self.buffer)?;
            if read == 0 {
                bail!("the connection was closed");
            }
            got.extend_from_slice(&self.buffer[..read]);
            if let Some(end) = got.windows(4).position(|four| four == b"\r\n\r\n") {
                break end + 4;
            }
        };
        let text = String::from_utf8_lossy(&got[..head]).to_ascii_lowercase();
        let length =
            text.lines().find_map(|line| line.strip_prefix("content-length: ")?.parse::<usize>().ok());
        if let Some(length) = length {
            while got.len() < head + length {
                let read = self.stream.read(&mut self.buffer)?;
                got.extend_from_slice(&self.buffer[..read]);
            }
        } else {
            // In pieces, the last of them empty; how many bytes came is all that is wanted of such an answer.
            while !got.ends_with(b"0\r\n\r\n") {
                let read = self.stream.read(&mut self.buffer)?;
                if read == 0 {
                    bail!("the answer was cut off");
                }
                got.extend_from_slice(&self.buffer[..read]);
            }
        }
        if !text.starts_with("http/1.1 200") {
            let asked = String::from_utf8_lossy(question);
            bail!(
                "{} to {}",
                text.lines().next().unwrap_or_default(),
                asked.lines().next().unwrap_or_default()
            );
        }
        got.drain(..head);
        Ok(got)
    }
}

/// The address that a program says on its first line.
///
/// # Errors
/// When the line holds none.
pub fn said(line: &str) -> anyhow::Result<SocketAddr> {
    let address = line.rsplit("http://").next().unwrap_or_default().trim();
    address.parse().with_context(|| format!("{line:?} says no address"))
}
