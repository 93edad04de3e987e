//! How long somebody waits who tried a passcode or a code in vain.

use std::collections::HashMap;
use std::net::IpAddr;
use std::sync::{Mutex, MutexGuard, PoisonError};
use std::time::{Duration, Instant};

/// Tries that cost nothing: fingers are wet.
const FREE: u32 = 5;
/// Longest wait.
const LONGEST: Duration = Duration::from_secs(15 * 60);
/// Addresses remembered at once.
const REMEMBERED: usize = 1_000;

/// The wait after so many wrong tries in a row: none at first, then a second, doubling.
fn wait_after(wrong: u32) -> Duration {
    match wrong.checked_sub(FREE) {
        None => Duration::ZERO,
        Some(beyond) => Duration::from_secs(1 << beyond.min(10)).min(LONGEST),
    }
}

/// Wrong tries by where they came from.
#[derive(Debug, Default)]
pub struct Tries {
    wrong: Mutex<HashMap<IpAddr, (u32, Instant)>>,
}

impl Tries {
    fn lock(&self) -> MutexGuard<'_, HashMap<IpAddr, (u32, Instant)>> {
        self.wrong.lock().unwrap_or_else(PoisonError::into_inner)
    }

    /// How long somebody still waits.
    #[must_use]
    pub fn wait(&self, from: IpAddr, now: Instant) -> Option<Duration> {
        let (wrong, last) = *self.lock().get(&from)?;
        (last + wait_after(wrong)).checked_duration_since(now).filter(|left| !left.is_zero())
    }

    /// A wrong try.
    pub fn wrong(&self, from: IpAddr, now: Instant) {
        let mut all = self.lock();
        if all.len() >= REMEMBERED {
            all.retain(|_, (_, last)| now.duration_since(*last) < LONGEST);
        }
        let entry = all.entry(from).or_insert((0, now));
        *entry = (entry.0 + 1, now);
    }

    /// A right one: what was tried before is forgotten.
    pub fn right(&self, from: IpAddr) {
        self.lock().remove(&from);
    }
}

#[cfg(test)]
mod tests {
    use std::net::IpAddr;
    use std::time::{Duration, Instant};

    use super::{LONGEST, Tries, wait_after};

    #[test]
    fn the_wait_grows_slowly_and_ends() {
        let seconds: Vec<u64> = (0..9).map(|wrong| wait_after(wrong).as_secs()).collect();
        assert_eq!(seconds, [0, 0, 0, 0, 0, 1, 2, 4, 8]);
        assert_eq!(wait_after(u32::MAX), LONGEST);
    }

    #[test]
    fn one_device_waits_and_another_does_not() {
        let (tries, now) = (Tries::default(), Instant::now());
        let [one, other]: [IpAddr; 2] = ["192.168.1.20", "192.168.1.21"].map(|text| text.parse().unwrap());
        for _ in 0..7 {
            assert!(tries.wait(one, now).is_none_or(|wait| wait <= Duration::from_secs(2)));
            tries.wrong(one, now);
        }
        assert_eq!(tries.wait(one, now), Some(Duration::from_secs(4)));
        assert_eq!(tries.wait(one, now + Duration::from_secs(5)), None);
        assert_eq!(tries.wait(other, now), None);
        tries.right(one);
        assert_eq!(tries.wait(one, now), None);
    }
}
