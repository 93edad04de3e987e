//! A certificate authority of the kitchen's own: made once, for this machine's names and addresses alone.

use std::net::IpAddr;
use std::path::Path;

use anyhow::Context;
use bodega_store::write_private;
use jiff::civil::Date;
use rcgen::{
    BasicConstraints, CertificateParams, CidrSubnet, DistinguishedName, DnType, ExtendedKeyUsagePurpose,
    GeneralSubtree, IsCa, Issuer, KeyPair, KeyUsagePurpose, NameConstraints, SanType, date_time_ymd,
};
use rustls::ServerConfig;
use rustls::pki_types::pem::PemObject;
use rustls::pki_types::{CertificateDer, PrivateKeyDer};
use serde::{Deserialize, Serialize};
use sha2::{Digest, Sha256};

/// How long the authority is good for, in years.
const AUTHORITY_YEARS: i16 = 10;
/// How long a server's certificate is, in days: phones take no longer one from an authority that a person added (825 days,
/// from memory). It is made anew at every start.
const SERVER_DAYS: i64 = 800;

/// What the authority may vouch for.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]
pub struct Names {
    /// Names of the machine.
    pub names: Vec<String>,
    /// Its addresses.
    pub addresses: Vec<IpAddr>,
    /// The day that it was made.
    pub made_on: Date,
}

/// The authority.
pub struct Authority {
    names: Names,
    key: KeyPair,
    certificate_pem: String,
    /// Whether it was made now: no device trusts it yet.
    pub is_new: bool,
}

/// The days from which and until which a certificate is good.
fn set_days(params: &mut CertificateParams, from: Date, until: Date) {
    let midnight = |day: Date| {
        date_time_ymd(i32::from(day.year()), day.month().unsigned_abs(), day.day().unsigned_abs())
    };
    params.not_before = midnight(from);
    params.not_after = midnight(until);
}

fn subtree(address: &IpAddr) -> GeneralSubtree {
    GeneralSubtree::IpAddress(match address {
        IpAddr::V4(four) => CidrSubnet::V4(four.octets(), [255; 4]),
        IpAddr::V6(six) => CidrSubnet::V6(six.octets(), [255; 16]),
    })
}

fn title(names: &Names) -> String {
    format!("Bodega kitchen {}", names.made_on)
}

fn authority_params(names: &Names) -> anyhow::Result<CertificateParams> {
    let mut params = CertificateParams::default();
    let mut named = DistinguishedName::new();
    named.push(DnType::CommonName, title(names));
    params.distinguished_name = named;
    params.is_ca = IsCa::Ca(BasicConstraints::Constrained(0));
    params.key_usages = vec![KeyUsagePurpose::KeyCertSign, KeyUsagePurpose::CrlSign];
    let of_names = names.names.iter().cloned().map(GeneralSubtree::DnsName);
    params.name_constraints = Some(NameConstraints {
        permitted_subtrees: of_names.chain(names.addresses.iter().map(subtree)).collect(),
        excluded_subtrees: Vec::new(),
    });
    let until = names.made_on.checked_add(jiff::Span::new().years(AUTHORITY_YEARS))?;
    set_days(&mut params, names.made_on.yesterday()?, until);
    Ok(params)
}

impl Authority {
    /// The authority that is kept in a data directory, or a new one where it may not vouch for these names.
    ///
    /// # Errors
    /// When it cannot be made or kept.
    pub fn of(directory: &Path, names: &[String], addresses: &[IpAddr], today: Date) -> anyhow::Result<Self> {
        let folder = directory.join("network");
        let (may, key, certificate) =
            (folder.join("authority.json"), folder.join("authority-key.pem"), folder.join("authority.pem"));
        let kept = || -> Option<Self> {
            let kept: Names = serde_json::from_slice(&std::fs::read(&may).ok()?).ok()?;
            let covers = names.iter().all(|name| kept.names.contains(name))
                && addresses.iter().all(|address| kept.addresses.contains(address));
            let lasts = kept.made_on.checked_add(jiff::Span::new().years(AUTHORITY_YEARS - 3)).ok()?;
            if !covers || lasts < today {
                return None;
            }
            let key = KeyPair::from_pem(&std::fs::read_to_string(&key).ok()?).ok()?;
            let certificate_pem = std::fs::read_to_string(&certificate).ok()?;
            Some(Self { names: kept, key, certificate_pem, is_new: false })
        };
        if let Some(kept) = kept() {
            return Ok(kept);
        }
        let made = Names { names: names.to_vec(), addresses: addresses.to_vec(), made_on: today };
        let made_key = KeyPair::generate()?;
        let certificate_pem = authority_params(&made)?.self_signed(&made_key)?.pem();
        // What says which key it is comes last: a start that is cut short makes another.
        write_private(&key, made_key.serialize_pem().as_bytes())?;
        write_private(&certificate, certificate_pem.as_bytes())?;
        write_private(&may, &serde_json::to_vec_pretty(&made)?)?;
        Ok(Self { names: made, key: made_key, certificate_pem, is_new: true })
    }

    /// What it is called on a device.
    #[must_use]
    pub fn title(&self) -> String {
        title(&self.names)
    }

    /// SHA-256 of its certificate as devices show it, in pairs.
    ///
    /// # Errors
    /// When the certificate cannot be read.
    pub fn fingerprint(&self) -> anyhow::Result<String> {
        let pairs = Sha256::digest(self.der()?);
        Ok(pairs.iter().map(|byte| format!("{byte:02X}")).collect::<Vec<_>>().join(":"))
    }

    /// Its certificate as devices take it in.
    ///
    /// # Errors
    /// When it cannot be read.
    pub fn der(&self) -> anyhow::Result<CertificateDer<'static>> {
        CertificateDer::from_pem_slice(self.certificate_pem.as_bytes())
            .context("the authority cannot be read")
    }

    /// What a server shows to prove that it is this one.
    ///
    /// # Errors
    /// When the certificate cannot be made.
    pub fn server(&self, today: Date) -> anyhow::Result<ServerConfig> {
        let mut params = CertificateParams::default();
        let mut title = DistinguishedName::new();
        title.push(DnType::CommonName, "Bodega");
        params.distinguished_name = title;
        let names = self.names.names.iter().map(|name| Ok(SanType::DnsName(name.clone().try_into()?)));
        let addresses = self.names.addresses.iter().map(|address| Ok(SanType::IpAddress(*address)));
        params.subject_alt_names = names.chain(addresses).collect::<Result<_, rcgen::Error>>()?;
        params.extended_key_usages = vec![ExtendedKeyUsagePurpose::ServerAuth];
        params.key_usages = vec![KeyUsagePurpose::DigitalSignature];
        params.use_authority_key_identifier_extension = true;
        set_days(&mut params, today.yesterday()?, today.checked_add(jiff::Span::new().days(SERVER_DAYS))?);
        let key = KeyPair::generate()?;
        let issuer = Issuer::new(authority_params(&self.names)?, &self.key);
        let certificate = params.signed_by(&key, &issuer)?;
        let chain = vec![certificate.der().clone(), self.der()?];
        let private =
            PrivateKeyDer::try_from(key.serialize_der()).map_err(|error| anyhow::anyhow!("{error}"))?;
        let provider = std::sync::Arc::new(rustls::crypto::ring::default_provider());
        let config = ServerConfig::builder_with_provider(provider).with_safe_default_protocol_versions()?;
        Ok(config.with_no_client_auth().with_single_cert(chain, private)?)
    }
}

#[cfg(test)]
mod tests {
    use std::net::IpAddr;
    use std::sync::Arc;

    use jiff::civil::date;
    use rustls::client::WebPkiServerVerifier;
    use rustls::client::danger::ServerCertVerifier;
    use rustls::pki_types::{ServerName, UnixTime};

    use super::Authority;

    #[test]
    fn the_authority_stays_until_it_is_to_vouch_for_another_address() {
        let folder = tempfile::tempdir().unwrap();
        let today = date(2026, 9, 14);
        let names = ["pantry.local".to_owned()];
        let [one, other]: [IpAddr; 2] = ["192.168.1.20", "192.168.1.21"].map(|text| text.parse().unwrap());
        let first = Authority::of(folder.path(), &names, &[one, other], today).unwrap();
        assert!(first.is_new && first.server(today).is_ok());
        let again = Authority::of(folder.path(), &names, &[other], today.tomorrow().unwrap()).unwrap();
        assert!(!again.is_new && again.certificate_pem == first.certificate_pem);
        assert!(again.server(today).is_ok());
        let moved = Authority::of(folder.path(), &names, &["10.0.0.3".parse().unwrap()], today).unwrap();
        assert!(moved.is_new && moved.certificate_pem != first.certificate_pem);
        let old =
            Authority::of(folder.path(), &names, &["10.0.0.3".parse().unwrap()], date(2034, 1, 1)).unwrap();
        assert!(old.is_new, "made anew before a server's certificate would outlive it");
    }

    /// Whether a client that trusts the authority takes a certificate of it for a name.
    fn vouches(authority: &Authority, own: &str, asked: &str) -> bool {
        let mut params = rcgen::CertificateParams::new(vec![own.to_owned()]).unwrap();
        super::set_days(&mut params, date(2026, 9, 13), date(2027, 9, 13));
        let key = rcgen::KeyPair::generate().unwrap();
        let issuer = rcgen::Issuer::new(super::authority_params(&authority.names).unwrap(), &authority.key);
        let leaf = params.signed_by(&key, &issuer).unwrap();
        let mut roots = rustls::RootCertStore::empty();
        roots.add(authority.der().unwrap()).unwrap();
        let provider = Arc::new(rustls::crypto::ring::default_provider());
        let verifier = WebPkiServerVerifier::builder_with_provider(roots.into(), provider).build().unwrap();
        let now = UnixTime::since_unix_epoch(std::time::Duration::from_secs(1_790_000_000));
        let name = ServerName::try_from(asked.to_owned()).unwrap();
        verifier.verify_server_cert(leaf.der(), &[], &name, &[], now).is_ok()
    }

    #[test]
    fn the_authority_vouches_for_this_machine_alone() {
        let folder = tempfile::tempdir().unwrap();
        let address = "192.168.1.20".parse().unwrap();
        let authority =
            Authority::of(folder.path(), &["pantry.local".to_owned()], &[address], date(2026, 9, 14))
                .unwrap();
        for name in ["pantry.local", "192.168.1.20"] {
            assert!(vouches(&authority, name, name), "{name}");
        }
        // Whoever stole its key could pretend to be nobody else.
        for name in ["bank.example", "192.168.1.21", "local"] {
            assert!(!vouches(&authority, name, name), "{name}");
        }
    }

    #[cfg(unix)]
    #[test]
    fn nobody_else_reads_its_key() {
        use std::os::unix::fs::PermissionsExt;
        let folder = tempfile::tempdir().unwrap();
        Authority::of(folder.path(), &["pantry.local".to_owned()], &[], date(2026, 9, 14)).unwrap();
        let mode =
            |name: &str| std::fs::metadata(folder.path().join(name)).unwrap().permissions().mode() & 0o777;
        assert_eq!((mode("network"), mode("network/authority-key.pem")), (0o700, 0o600));
    }
}
