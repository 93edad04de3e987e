//! Codes that let one device in, once: shown on a screen that is trusted already.

use std::collections::HashMap;
use std::sync::{Mutex, PoisonError};
use std::time::{Duration, Instant};

use crate::admission::devices::digest;

/// How long a code lets somebody in.
pub const LASTS: Duration = Duration::from_secs(10 * 60);
/// Letters that are not taken for one another on a wet screen.
const LETTERS: &[u8; 32] = b"ABCDEFGHJKLMNPQRSTUVWXYZ23456789";
/// Codes that stand at once.
const MOST: usize = 20;

/// Codes that stand, as their digests.
#[derive(Debug, Default)]
pub struct Pairing {
    open: Mutex<HashMap<String, Instant>>,
}

/// A code as it is compared: without dashes and spaces, in capitals.
fn plain(code: &str) -> String {
    code.chars().filter(char::is_ascii_alphanumeric).map(|letter| letter.to_ascii_uppercase()).collect()
}

impl Pairing {
    /// A new code, `K7MQ-2XWD`; five bits of chance in each of its eight letters.
    ///
    /// # Errors
    /// When the system gives no chance.
    pub fn code(&self, now: Instant) -> Result<String, getrandom::Error> {
        let mut chance = [0_u8; 8];
        getrandom::fill(&mut chance)?;
        let letters: String = chance.iter().map(|byte| char::from(LETTERS[usize::from(byte % 32)])).collect();
        let mut open = self.open.lock().unwrap_or_else(PoisonError::into_inner);
        open.retain(|_, until| *until > now);
        if open.len() >= MOST {
            open.clear();
        }
        open.insert(digest(&letters), now + LASTS);
        Ok(format!("{}-{}", &letters[..4], &letters[4..]))
    }

    /// Whether a code stands; it does so no more afterwards.
    pub fn redeem(&self, code: &str, now: Instant) -> bool {
        let mut open = self.open.lock().unwrap_or_else(PoisonError::into_inner);
        open.remove(&digest(&plain(code))).is_some_and(|until| until > now)
    }
}

#[cfg(test)]
mod tests {
    use std::time::Instant;

    use super::{LASTS, Pairing};

    #[test]
    fn a_code_lets_in_once_and_for_ten_minutes() {
        let (pairing, now) = (Pairing::default(), Instant::now());
        let code = pairing.code(now).unwrap();
        assert_eq!(code.len(), 9);
        assert!(!pairing.redeem("AAAA-AAAA", now));
        let typed = code.to_lowercase().replace('-', " ");
        assert!(pairing.redeem(&typed, now), "as somebody types it");
        assert!(!pairing.redeem(&code, now), "once");
        let late = pairing.code(now).unwrap();
        assert!(!pairing.redeem(&late, now + LASTS));
        assert_ne!(pairing.code(now).unwrap(), pairing.code(now).unwrap());
    }
}
