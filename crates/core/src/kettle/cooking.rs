//! Records of a cook-down in the model's terms: the vessel, the log, and how fast water leaves each kettle, learned from
//! its own cook-downs.

use serde::Serialize;

use super::finish::{CookDown, Forecast, Happened, Sight};
use super::goal::timer;
use super::{
    Contents, CookWhat, Heat, HeatSetting, KettleHeat, Target, TargetKind, Vessel, by_volume, oven_rate,
    rate_at,
};
use crate::kitchen::altitude::Altitude;
use crate::measures::moment::Moment;
use crate::measures::units::{
    Time, Volume, VolumeRate, in_litres_per_hour, kilograms, litres, litres_per_hour, millimetres,
};
use crate::plan::outlook::usual_rate;
use crate::records::cook::{Cook, CookEvent, Kettle, NewCook};

/// A kettle from inside, in the model's terms.
#[must_use]
pub fn vessel(kettle: &Kettle) -> Vessel {
    let measures = (1..).map(|count| litres(kettle.pour_l.unwrap_or_default() * f64::from(count)));
    Vessel {
        inner_diameter: millimetres(kettle.inner_diameter_mm),
        depth: millimetres(kettle.depth_mm),
        poured: kettle.pour_depths_mm.iter().map(|depth| millimetres(*depth)).zip(measures).collect(),
    }
}

/// Time since the heat came on, none before it.
#[must_use]
pub fn span(from: Moment, to: Moment) -> Time {
    to.since(from).max(Time::default())
}

/// A target that is a mark.
fn mark(target: TargetKind, value: f64) -> Option<Target> {
    match target {
        TargetKind::FractionLeft => Some(Target::FractionLeft(value)),
        TargetKind::Brix => Some(Target::Brix(value)),
        TargetKind::VolumeL => Some(Target::Volume(litres(value))),
        TargetKind::BoilMinutes | TargetKind::HoldMinutes | TargetKind::ToBoil => None,
    }
}

fn target_of(cook: &Cook) -> Target {
    mark(cook.target, cook.target_value).unwrap_or_else(|| {
        // Until its clock runs it ends with what is known.
        let last = cook.log.last().map_or(cook.started_at, |event| event.at);
        let ends = timer(cook).map_or(last, |timer| timer.ends(last));
        Target::At(span(cook.started_at, ends))
    })
}

/// Whether a mark lies below what goes in: boiling only thickens.
#[must_use]
pub fn thickens(new: &NewCook) -> bool {
    let start = Contents::of_volume(litres(new.volume_l), new.brix);
    let below = |target: Target| target.contents(start, start.solids).mass < start.mass;
    mark(new.target, new.target_value).is_some_and(below)
}

/// The records of a cook-down in the core's terms.
#[must_use]
pub fn cook_down(cook: &Cook, altitude: Option<Altitude>) -> CookDown {
    let happened = |event: &CookEvent| match event.what {
        // A temperature moves no water, nor does a word.
        CookWhat::TempC | CookWhat::Boils | CookWhat::HotEnough => None,
        CookWhat::LidOn => Some(Happened::Lid(true)),
        CookWhat::LidOff => Some(Happened::Lid(false)),
        CookWhat::HeatLow | CookWhat::HeatMedium | CookWhat::HeatHigh => {
            Some(Happened::Turned { water: litres_per_hour(event.value) })
        }
        CookWhat::VolumeL => Some(Happened::Read(Sight::Volume(litres(event.value)))),
        CookWhat::DepthMm => Some(Happened::Read(Sight::Depth(millimetres(event.value)))),
        CookWhat::MassKg => Some(Happened::Read(Sight::Mass(kilograms(event.value)))),
        CookWhat::Brix => Some(Happened::Read(Sight::Brix(event.value))),
        CookWhat::DrainL | CookWhat::LadleL => Some(Happened::Drained(litres(event.value))),
        CookWhat::AddL => Some(Happened::Added(Contents::of_volume(litres(event.value), cook.brix))),
    };
    CookDown {
        start: Contents::of_volume(litres(cook.volume_l), cook.brix),
        target: target_of(cook),
        vessel: vessel(&cook.kettle),
        heat: Heat::Rate { water: litres_per_hour(cook.litres_per_hour) },
        // With a known rate the altitude moves nothing; it may still be unknown.
        altitude: altitude.unwrap_or(Altitude::SEA_LEVEL),
        log: cook
            .log
            .iter()
            .filter_map(|event| Some((span(cook.started_at, event.at), happened(event)?)))
            .collect(),
    }
}

/// Litres that were taken off a kettle while it cooked.
fn drained(cook: &Cook) -> impl Iterator<Item = &CookEvent> {
    cook.log.iter().filter(|event| event.what.takes_off())
}

/// What was taken off, of which nobody wrote down where it went.
#[must_use]
pub fn drained_unbooked(cook: &Cook) -> Volume {
    let unbooked = drained(cook).filter(|event| !event.booked);
    unbooked.fold(litres(0.0), |sum, event| sum + litres(event.value))
}

/// Water that a cook-down boiled away until it was taken off the stove: what went in, less what is left and what was taken
/// off; nothing while it is on.
#[must_use]
pub fn boiled_off(cook: &Cook, altitude: Option<Altitude>) -> Volume {
    let Some(ended) = cook.ended_at else { return litres(0.0) };
    let down = cook_down(cook, altitude);
    let left = down.forecast().volume_at(span(cook.started_at, ended));
    let added = cook.log.iter().filter(|event| event.what == CookWhat::AddL);
    let more = added.fold(down.start.volume(), |sum, event| sum + litres(event.value));
    let gone = drained(cook).fold(more - left, |sum, event| sum - litres(event.value));
    gone.max(litres(0.0))
}

/// Share of the kettle that "drain first" is worked out for.
const DRAIN_SHARE: f64 = 0.2;

/// What draining thin juice now would change.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct DrainFirst {
    /// What to drain.
    pub drain: Volume,
    /// Time it spares.
    pub spares: Time,
    /// How much less there is at the end.
    pub less: Volume,
}

/// What draining a fifth of the kettle now would spare and cost; `None` once it is done.
#[must_use]
pub fn drain_first(down: &CookDown, forecast: &Forecast, now: Time) -> Option<DrainFirst> {
    if now >= forecast.finish.expected || matches!(down.target, Target::At(_)) {
        return None;
    }
    let drain = forecast.volume_at(now) * DRAIN_SHARE;
    let mut drained = down.clone();
    drained.log.push((now, Happened::Drained(drain)));
    let other = drained.forecast();
    Some(DrainFirst {
        drain,
        spares: forecast.finish.expected - other.finish.expected,
        less: forecast.goal.volume() - other.goal.volume(),
    })
}

/// How fast water leaves a kettle at one setting of the heat.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct KettleRate {
    /// The setting.
    pub setting: HeatSetting,
    /// Litres of water an hour.
    pub litres_per_hour: f64,
    /// Stretches at this setting that it was learned from; 0 when it is only expected.
    pub learned_from: usize,
}

/// Settings of the heat in a cook-down, from its start on.
pub fn settings(cook: &Cook) -> impl Iterator<Item = HeatSetting> {
    std::iter::once(cook.setting).chain(cook.log.iter().filter_map(|event| event.what.setting()))
}

/// What a kettle does at a setting: learned from its finished cook-downs, over stretches with at least two readings.
#[must_use]
pub fn learned(ended: &[Cook], kettle: &Kettle) -> Vec<KettleRate> {
    const ENOUGH_READINGS: usize = 2;
    let mut shown = Vec::new();
    for cook in ended.iter().filter(|cook| cook.kettle.id == kettle.id) {
        let stretches = cook_down(cook, None).forecast().stretches;
        let enough = settings(cook).zip(stretches).filter(|(_, stretch)| stretch.readings >= ENOUGH_READINGS);
        shown.extend(enough.map(|(setting, stretch)| (setting, by_volume(stretch.rate))));
    }
    let usual = match kettle.heat {
        KettleHeat::Burner => usual_rate(),
        KettleHeat::Oven => oven_rate(&vessel(kettle)),
    };
    let rate = |setting: &HeatSetting| {
        let (rate, learned_from) = rate_at(*setting, &shown, usual);
        KettleRate { setting: *setting, litres_per_hour: in_litres_per_hour(rate), learned_from }
    };
    HeatSetting::ALL.iter().map(rate).collect()
}

/// Water to expect to leave a kettle at a setting.
#[must_use]
pub fn expected_rate(ended: &[Cook], kettle: &Kettle, setting: HeatSetting) -> VolumeRate {
    let of_setting = learned(ended, kettle).into_iter().find(|rate| rate.setting == setting);
    of_setting.map_or_else(usual_rate, |rate| litres_per_hour(rate.litres_per_hour))
}
