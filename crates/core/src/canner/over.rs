//! Water over the lids, and what stands under the jars: how much a process takes, what somebody saw, and when it is looked at again.

use super::clock::BoilClock;
use super::events::{BoilEvent, Phase};
use super::pot::COVER_IN;
use super::room::LEAST_COVER_IN;
use crate::measures::moment::{Minutes, Moment};
use crate::measures::vocabulary::vocabulary;
use crate::records::load::CannerLoad;
use crate::tables::process::Method;

vocabulary! {
    /// How much water stands over the lids, as an eye judges it.
    "water over the lids", WaterOver {
        /// Enough for every process.
        Well = "well", "2 in or more";
        /// Enough for a short one.
        Some = "some", "1 to 2 in";
        /// Too little for any.
        Low = "low", "less than 1 in";
        /// Nobody looked.
        Unknown = "unknown", "nobody looked";
    }
}

impl WaterOver {
    /// The least inches that it stands for; `None` when nobody looked.
    #[must_use]
    pub const fn inches(self) -> Option<f64> {
        match self {
            Self::Well => Some(COVER_IN),
            Self::Some => Some(LEAST_COVER_IN),
            Self::Low => Some(0.5),
            Self::Unknown => None,
        }
    }
}

vocabulary! {
    /// What stands between the jars and the bottom of the pot.
    "under the jars", UnderJars {
        /// A rack.
        Rack = "rack", "a rack";
        /// A folded towel.
        Towel = "towel", "a folded towel";
        /// The bare bottom.
        Nothing = "nothing", "nothing";
    }
}

/// Longest process, in minutes, that one inch of water over the lids is enough for. Source: USDA Guide 1, 2015, from memory.
pub const SHORT_PROCESS: f64 = 30.0;

/// Inches of water over the lids that a process of so many minutes takes. Source: USDA Guide 1, 2015, from memory.
///
/// ```
/// use bodega_core::canner::over::cover_in;
/// assert_eq!((cover_in(30.0), cover_in(35.0)), (1.0, 2.0));
/// ```
#[must_use]
pub fn cover_in(minutes: f64) -> f64 {
    if minutes <= SHORT_PROCESS { LEAST_COVER_IN } else { COVER_IN }
}

/// Inches of water over the lids that a load takes.
#[must_use]
pub fn cover_of(load: &CannerLoad) -> f64 {
    cover_in(f64::from(load.clock.required().0))
}

/// Whether somebody has to say how much water stands over a load's lids: it was asked, it went in, and nobody looked.
#[must_use]
pub fn is_cover_open(load: &CannerLoad) -> bool {
    let is_known = load.water_over.is_some_and(|over| over.inches().is_some());
    load.water_asked && load.batch.method == Method::BoilingWater && load.clock.has_begun() && !is_known
}

/// A process of more minutes than this is looked after at half time. Common practice, no source: a litre an hour boils away.
const LONG_PROCESS: Minutes = Minutes(40);

/// When the water over a load that counts is looked at again: from half time of a long process on, until somebody looked or
/// topped it up. `None` when it need not be.
#[must_use]
pub fn look_again_from(load: &CannerLoad, now: Moment) -> Option<Moment> {
    let Phase::Counting { since, ends } = load.clock.phase(now) else { return None };
    let half = Moment(since.0.midpoint(ends.0));
    let looked = load.water_at.is_some_and(|at| at >= half) || was_topped_up(&load.clock, half);
    (is_long(load) && !looked).then_some(half)
}

/// What is said at half time of a long process; `None` of a load that is not looked at again.
#[must_use]
pub fn look_again_words(load: &CannerLoad) -> Option<String> {
    is_long(load).then(|| {
        format!(
            "Half time: look at the water. It takes {} in over the lids to the end; top up with boiling water if it is less.",
            cover_of(load)
        )
    })
}

fn is_long(load: &CannerLoad) -> bool {
    load.batch.method == Method::BoilingWater && load.clock.required() > LONG_PROCESS
}

fn was_topped_up(clock: &BoilClock, since: Moment) -> bool {
    clock.happened().iter().any(|item| item.event == BoilEvent::ToppedUpBoiling && item.at >= since)
}
