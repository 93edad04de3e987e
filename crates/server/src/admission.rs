//! Who is let in from the home network: devices, codes, and who tried in vain.

pub mod devices;
pub mod pairing;
pub mod rate_limit;

use devices::Devices;
use pairing::Pairing;
use rate_limit::Tries;

/// Where other devices find the kitchen.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Reach {
    /// The address to open, `https://192.168.1.20:4731`.
    pub url: String,
    /// Every address that it answers at.
    pub urls: Vec<String>,
    /// The page that helps a device trust the kitchen, `http://192.168.1.20:4732`.
    pub help: String,
    /// SHA-256 of the certificate that a device takes in there.
    pub fingerprint: String,
}

/// What the server knows of the home network.
#[derive(Debug, Default)]
pub struct Admission {
    /// Where it is reached; `None` while only this machine reaches it.
    pub reach: Option<Reach>,
    /// Who was let in.
    pub devices: Devices,
    /// Codes that let one device in.
    pub pairing: Pairing,
    /// Who tried in vain.
    pub tries: Tries,
}
