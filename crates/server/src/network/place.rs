//! Under which addresses and names a machine is found at home.

use std::net::{IpAddr, UdpSocket};

use anyhow::{Context, ensure};

/// Whether an address is one of a home, or of this machine: nothing else is listened on. Source: RFC 1918 and RFC 4193,
/// from memory.
#[must_use]
pub fn is_at_home(address: IpAddr) -> bool {
    match address {
        IpAddr::V4(four) => four.is_private() || four.is_link_local() || four.is_loopback(),
        IpAddr::V6(six) => six.is_unique_local() || six.is_loopback(),
    }
}

/// The address by which this machine would speak to others; nothing is sent to find it.
fn spoken_from() -> Option<IpAddr> {
    let socket = UdpSocket::bind(("0.0.0.0", 0)).ok()?;
    // An address that is set aside for documentation (RFC 5737, from memory).
    socket.connect(("192.0.2.1", 9)).ok()?;
    socket.local_addr().ok().map(|address| address.ip())
}

/// The addresses of this machine in the home network, the most usual first; those that were told, when any were.
///
/// # Errors
/// When there is none, or one that was told is none of a home.
pub fn addresses(told: &[IpAddr]) -> anyhow::Result<Vec<IpAddr>> {
    if let Some(outside) = told.iter().find(|address| !is_at_home(**address)) {
        anyhow::bail!("{outside} is no address of a home network; Bodega is not made for the open internet");
    }
    if !told.is_empty() {
        return Ok(told.to_vec());
    }
    let found = if_addrs::get_if_addrs().context("the machine's network addresses cannot be read")?;
    let mut home: Vec<IpAddr> =
        found.into_iter().map(|one| one.ip()).filter(|ip| is_at_home(*ip) && !ip.is_loopback()).collect();
    ensure!(
        !home.is_empty(),
        "this machine has no address in a home network; connect it, or name one with --address"
    );
    let first = spoken_from();
    home.sort_by_key(|ip| (Some(*ip) != first, ip.is_ipv6()));
    home.dedup();
    Ok(home)
}

/// The name under which the home network knows this machine, when nobody told one.
#[must_use]
pub fn machine_name() -> String {
    let told = rustix::system::uname().nodename().to_string_lossy().to_ascii_lowercase();
    if told.contains('.') { told } else { format!("{told}.local") }
}

/// A name that can stand in an address.
///
/// # Errors
/// When it cannot.
pub fn check_name(name: &str) -> anyhow::Result<String> {
    let name = name.to_ascii_lowercase();
    let is_part = |part: &str| {
        !part.is_empty()
            && part.len() <= 63
            && !part.starts_with('-')
            && !part.ends_with('-')
            && part.bytes().all(|byte| byte.is_ascii_alphanumeric() || byte == b'-')
    };
    ensure!(
        name.len() <= 253 && name.split('.').all(is_part),
        "\"{name}\" cannot stand in an address; use letters, digits and dashes, as in pantry.local"
    );
    Ok(name)
}

/// An address as it stands before a port.
#[must_use]
pub fn in_url(address: IpAddr) -> String {
    match address {
        IpAddr::V4(four) => four.to_string(),
        IpAddr::V6(six) => format!("[{six}]"),
    }
}

#[cfg(test)]
mod tests {
    use super::{addresses, check_name, is_at_home};

    #[test]
    fn nothing_outside_a_home_is_listened_on() {
        for (address, at_home) in [
            ("192.168.1.20", true),
            ("10.0.0.3", true),
            ("172.31.255.1", true),
            ("172.32.0.1", false),
            ("169.254.3.4", true),
            ("127.0.0.2", true),
            ("8.8.8.8", false),
            ("0.0.0.0", false),
            ("fd12::1", true),
            ("2001:db8::1", false),
        ] {
            assert_eq!(is_at_home(address.parse().unwrap()), at_home, "{address}");
        }
        let refused = addresses(&["8.8.8.8".parse().unwrap()]).unwrap_err().to_string();
        assert!(refused.contains("no address of a home network"), "{refused}");
    }

    #[test]
    fn a_name_can_stand_in_an_address() {
        assert_eq!(check_name("Pantry.local").unwrap(), "pantry.local");
        for name in ["", "big kitchen", "-a", "a..b", "küche", "a/b", "a:1"] {
            assert!(check_name(name).is_err(), "{name}");
        }
    }
}
