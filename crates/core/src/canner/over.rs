//! Water over the lids of a load: how much it takes, whether somebody looked, and when it is looked at again.

use bodega_model::canner::clock::BoilClock;
use bodega_model::canner::cover::cover_in;
use bodega_model::canner::events::{BoilEvent, Phase};
use bodega_model::measures::moment::{Minutes, Moment};
use bodega_model::records::load::CannerLoad;
use bodega_model::tables::process::Method;

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
