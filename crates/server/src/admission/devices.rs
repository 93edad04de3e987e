//! The devices that were let in, and the passcode: kept beside the records and not in them, so that no backup lets a device
//! in again that was signed out.

use std::path::{Path, PathBuf};
use std::sync::{Mutex, MutexGuard, PoisonError};

use anyhow::Context;
use argon2::Argon2;
use argon2::password_hash::phc::PasswordHash;
use argon2::password_hash::{PasswordHasher, PasswordVerifier};
use bodega_model::measures::moment::Moment;
use bodega_store::{StoreError, write_private};
use serde::{Deserialize, Serialize};
use sha2::{Digest, Sha256};
use utoipa::ToSchema;

/// Fewest letters of a passcode.
pub const SHORTEST_PASSCODE: usize = 8;
/// Most letters of one.
pub const LONGEST_PASSCODE: usize = 200;
/// How long a device stays let in without being seen: a year and a month.
pub const STAYS_DAYS: i64 = 400;
/// How exactly it is kept when a device was seen.
const SEEN_EVERY: i64 = 5;
const DAY: i64 = 24 * 60;
/// Devices that are let in at once.
const MOST: usize = 100;

/// A device that was let in.
#[derive(Debug, Clone, PartialEq, Eq, Serialize, ToSchema)]
pub struct Device {
    /// Its number.
    pub id: u32,
    /// What it is called.
    pub name: String,
    /// When it was let in.
    pub let_in_at: Moment,
    /// When it was seen last, to five minutes.
    pub seen_at: Moment,
}

#[derive(Debug, Clone, Serialize, Deserialize)]
struct KeptDevice {
    id: u32,
    name: String,
    /// Of the token that the device carries; the token itself is nowhere but there.
    token_sha256: String,
    let_in_at: i64,
    seen_at: i64,
}

#[derive(Debug, Clone, Default, Serialize, Deserialize)]
struct Kept {
    passcode: Option<String>,
    devices: Vec<KeptDevice>,
    next: u32,
}

/// Who was let in.
#[derive(Debug, Default)]
pub struct Devices {
    file: Option<PathBuf>,
    kept: Mutex<Kept>,
    /// Passcodes are verified one at a time: argon2id takes 19 MB each.
    looking: Mutex<()>,
}

/// SHA-256 as hexadecimal.
#[must_use]
pub fn digest(text: &str) -> String {
    hex(&Sha256::digest(text))
}

fn hex(bytes: &[u8]) -> String {
    bytes.iter().map(|byte| format!("{byte:02x}")).collect()
}

/// Thirty-two bytes of chance as hexadecimal.
fn token() -> Result<String, getrandom::Error> {
    let mut chance = [0_u8; 32];
    getrandom::fill(&mut chance)?;
    Ok(hex(&chance))
}

impl From<&KeptDevice> for Device {
    fn from(kept: &KeptDevice) -> Self {
        Self {
            id: kept.id,
            name: kept.name.clone(),
            let_in_at: Moment(kept.let_in_at),
            seen_at: Moment(kept.seen_at),
        }
    }
}

impl Devices {
    /// Those of a data directory.
    ///
    /// # Errors
    /// When the file is there and cannot be read.
    pub fn of(directory: &Path) -> anyhow::Result<Self> {
        let file = directory.join("network").join("devices.json");
        let kept = match std::fs::read(&file) {
            Ok(bytes) => serde_json::from_slice(&bytes).with_context(|| {
                format!("{} cannot be read; remove it, and let every device in again", file.display())
            })?,
            Err(error) if error.kind() == std::io::ErrorKind::NotFound => Kept::default(),
            Err(error) => return Err(error).with_context(|| format!("{} cannot be read", file.display())),
        };
        Ok(Self { file: Some(file), kept: Mutex::new(kept), looking: Mutex::default() })
    }

    fn lock(&self) -> MutexGuard<'_, Kept> {
        self.kept.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// Keeps a change, on disk before it counts.
    fn change<T>(&self, work: impl FnOnce(&mut Kept) -> T) -> Result<T, StoreError> {
        let mut kept = self.lock();
        let mut changed = kept.clone();
        let done = work(&mut changed);
        if let Some(file) = &self.file {
            let text = serde_json::to_vec_pretty(&changed)
                .map_err(|error| StoreError::Directory { cause: std::io::Error::other(error) })?;
            write_private(file, &text)?;
        }
        *kept = changed;
        Ok(done)
    }

    /// Whether there is a passcode.
    #[must_use]
    pub fn has_passcode(&self) -> bool {
        self.lock().passcode.is_some()
    }

    /// Sets the passcode, as its argon2id hash.
    ///
    /// # Errors
    /// When it cannot be hashed or kept.
    pub fn set_passcode(&self, passcode: &str) -> anyhow::Result<()> {
        let hash = Argon2::default()
            .hash_password(passcode.as_bytes())
            .map_err(|error| anyhow::anyhow!("{error}"))?;
        Ok(self.change(|kept| kept.passcode = Some(hash.to_string()))?)
    }

    /// Whether this is the passcode. It takes its time on purpose.
    #[must_use]
    pub fn is_passcode(&self, passcode: &str) -> bool {
        let _one = self.looking.lock().unwrap_or_else(PoisonError::into_inner);
        let Some(hash) = self.lock().passcode.clone() else { return false };
        PasswordHash::new(&hash)
            .is_ok_and(|hash| Argon2::default().verify_password(passcode.as_bytes(), &hash).is_ok())
    }

    /// Lets a device in; gives the token that it is to carry.
    ///
    /// # Errors
    /// When the system gives no chance, or it cannot be kept.
    pub fn let_in(&self, name: &str, now: Moment) -> anyhow::Result<(Device, String)> {
        let token = token()?;
        let device = self.change(|kept| {
            kept.devices.retain(|device| now.0 - device.seen_at < STAYS_DAYS * DAY * 60_000);
            if kept.devices.len() >= MOST {
                // The one that nobody has seen for longest.
                let oldest = kept.devices.iter().enumerate().min_by_key(|(_, device)| device.seen_at);
                if let Some((place, _)) = oldest {
                    kept.devices.remove(place);
                }
            }
            kept.next += 1;
            let device = KeptDevice {
                id: kept.next,
                name: name.to_owned(),
                token_sha256: digest(&token),
                let_in_at: now.0,
                seen_at: now.0,
            };
            kept.devices.push(device.clone());
            Device::from(&device)
        })?;
        Ok((device, token))
    }

    /// Which device carries a token; it was seen now.
    #[must_use]
    pub fn seen(&self, token: &str, now: Moment) -> Option<u32> {
        let token = digest(token);
        let (id, seen_at) = {
            let kept = self.lock();
            let device = kept.devices.iter().find(|device| device.token_sha256 == token)?;
            (device.id, device.seen_at)
        };
        if now.0 - seen_at > STAYS_DAYS * DAY * 60_000 {
            return None;
        }
        if now.0 - seen_at > SEEN_EVERY * 60_000 {
            let seen = self.change(|kept| {
                for device in kept.devices.iter_mut().filter(|device| device.id == id) {
                    device.seen_at = now.0;
                }
            });
            if let Err(error) = seen {
                tracing::error!(%error, "when a device was seen could not be kept");
            }
        }
        Some(id)
    }

    /// Whether a device is still let in.
    #[must_use]
    pub fn has(&self, id: u32) -> bool {
        self.lock().devices.iter().any(|device| device.id == id)
    }

    /// Those that are, the one seen last first.
    #[must_use]
    pub fn all(&self) -> Vec<Device> {
        let mut all: Vec<Device> = self.lock().devices.iter().map(Device::from).collect();
        all.sort_by_key(|device| std::cmp::Reverse((device.seen_at, device.id)));
        all
    }

    /// Signs a device out; `false` when there is none of that number.
    ///
    /// # Errors
    /// When it cannot be kept.
    pub fn sign_out(&self, id: u32) -> Result<bool, StoreError> {
        self.change(|kept| {
            let before = kept.devices.len();
            kept.devices.retain(|device| device.id != id);
            kept.devices.len() < before
        })
    }
}

#[cfg(test)]
mod tests {
    use bodega_model::measures::moment::Moment;

    use super::Devices;

    const NOW: Moment = Moment(1_790_000_000_000);

    #[test]
    fn who_was_let_in_is_known_again_and_who_was_signed_out_is_not() {
        let folder = tempfile::tempdir().unwrap();
        let devices = Devices::of(folder.path()).unwrap();
        let (phone, token) = devices.let_in("Phone", NOW).unwrap();
        let (tablet, other) = devices.let_in("Tablet", NOW).unwrap();
        assert!(phone.id != tablet.id && token.len() == 64 && token != other);
        let again = Devices::of(folder.path()).unwrap();
        assert_eq!(again.seen(&token, NOW.plus_minutes(60)), Some(phone.id));
        assert_eq!(again.seen("not one", NOW), None);
        assert_eq!(again.all().iter().map(|device| device.id).collect::<Vec<_>>(), [phone.id, tablet.id]);
        assert!(again.sign_out(phone.id).unwrap() && !again.sign_out(phone.id).unwrap());
        let after = Devices::of(folder.path()).unwrap();
        assert_eq!((after.seen(&token, NOW), after.has(phone.id), after.has(tablet.id)), (None, false, true));
        let text = std::fs::read_to_string(folder.path().join("network/devices.json")).unwrap();
        assert!(!text.contains(&other), "no token stands in the file");
    }

    #[test]
    fn a_device_that_nobody_saw_for_a_year_is_out() {
        let devices = Devices::default();
        let (_, token) = devices.let_in("Phone", NOW).unwrap();
        let days = |days: i64| NOW.plus_minutes(days * 24 * 60);
        assert!(devices.seen(&token, days(399)).is_some());
        assert!(devices.seen(&token, days(399 + 399)).is_some(), "it was seen meanwhile");
        assert!(devices.seen(&token, days(399 + 399 + 401)).is_none());
    }

    #[test]
    fn a_passcode_is_kept_as_its_argon2id_hash() {
        let folder = tempfile::tempdir().unwrap();
        let devices = Devices::of(folder.path()).unwrap();
        assert!(!devices.has_passcode() && !devices.is_passcode(""));
        devices.set_passcode("four wet jars").unwrap();
        assert!(devices.is_passcode("four wet jars") && !devices.is_passcode("four wet jar"));
        let text = std::fs::read_to_string(folder.path().join("network/devices.json")).unwrap();
        assert!(text.contains("$argon2id$") && !text.contains("wet jars"), "{text}");
        assert!(Devices::of(folder.path()).unwrap().is_passcode("four wet jars"));
    }
}
