//! The kitchen opened to the home network: addresses, key, page of help.

use std::net::{IpAddr, SocketAddr, TcpListener};
use std::path::Path;

use anyhow::{Context, ensure};
use jiff::civil::Date;
use rustls::ServerConfig;

use crate::admission::devices::Devices;
use crate::admission::{Admission, Reach};
use crate::network::authority::Authority;
use crate::network::place::{addresses, check_name, in_url, machine_name};

/// How somebody asked for it.
#[derive(Debug, Clone, Default)]
pub struct Asked {
    /// A name of the machine in the network.
    pub name: Option<String>,
    /// Its addresses; found when none is told.
    pub addresses: Vec<IpAddr>,
    /// Port of the kitchen.
    pub port: u16,
    /// Port of the page that helps a device trust it.
    pub help_port: u16,
}

/// Doors that are open, before anybody is answered.
pub struct Opening {
    /// Where the kitchen listens, one for each address.
    pub kitchen: Vec<TcpListener>,
    /// Where the page of help does.
    pub help: Vec<TcpListener>,
    /// The kitchen's key.
    pub key: ServerConfig,
    /// What a device takes in to trust it.
    pub authority: Authority,
    /// Hosts that the kitchen goes by.
    pub hosts: Vec<String>,
    /// Hosts that the page of help goes by.
    pub help_hosts: Vec<String>,
    /// What handlers know of it.
    pub network: Admission,
}

fn listen(addresses: &[IpAddr], port: u16) -> anyhow::Result<(Vec<TcpListener>, u16)> {
    let mut listeners = Vec::new();
    let mut port = port;
    for address in addresses {
        let listener = TcpListener::bind(SocketAddr::new(*address, port))
            .with_context(|| format!("{address}, port {port}, cannot be listened on; give another port"))?;
        // A free one that was found for the first address is taken for the others too.
        port = listener.local_addr()?.port();
        listeners.push(listener);
    }
    Ok((listeners, port))
}

/// Opens the doors.
///
/// # Errors
/// When there is no passcode, no address of a home, a port is taken, or the key cannot be made.
pub fn open(directory: &Path, asked: &Asked, today: Date) -> anyhow::Result<Opening> {
    let devices = Devices::of(directory)?;
    ensure!(
        devices.has_passcode(),
        "the kitchen has no passcode yet, and is not opened to the network without one; set it with \"bodega passcode\""
    );
    let addresses = addresses(&asked.addresses)?;
    let told = asked.name.as_deref().map(check_name).transpose()?;
    // A machine whose own name cannot stand in an address is found by its addresses.
    let names: Vec<String> = told.clone().or_else(|| check_name(&machine_name()).ok()).into_iter().collect();
    let authority = Authority::of(directory, &names, &addresses, today)?;
    let (kitchen, port) = listen(&addresses, asked.port)?;
    let (help, help_port) = listen(&addresses, asked.help_port)?;
    let hosts: Vec<String> = told
        .iter()
        .cloned()
        .chain(addresses.iter().map(|address| in_url(*address)))
        .chain(names.iter().filter(|name| Some(*name) != told.as_ref()).cloned())
        .collect();
    let first = hosts.first().context("the kitchen has no address")?;
    let reach = Reach {
        url: format!("https://{first}:{port}"),
        urls: hosts.iter().map(|host| format!("https://{host}:{port}")).collect(),
        help: format!("http://{first}:{help_port}"),
        fingerprint: authority.fingerprint()?,
    };
    Ok(Opening {
        kitchen,
        help,
        key: authority.server(today)?,
        authority,
        hosts: hosts.iter().map(|host| format!("{host}:{port}")).collect(),
        help_hosts: hosts.iter().map(|host| format!("{host}:{help_port}")).collect(),
        network: Admission { reach: Some(reach), devices, ..Admission::default() },
    })
}
