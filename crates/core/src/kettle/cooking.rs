//! Records of a cook-down in the model's terms: the vessel and the log.

use bodega_model::crates::fruit::Kind;
use bodega_model::kettle::contents::{Contents, Target};
use bodega_model::kettle::words::{CookWhat, KettleHeat, ROOM_C, TargetKind};
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::moment::Moment;
use bodega_model::measures::units::{Time, Volume, celsius, kilograms, litres, litres_per_hour, millimetres};
use bodega_model::records::cook::{Cook, CookEvent, Kettle, NewCook};
use uom::si::ratio::ratio;

use super::finish::{CookDown, Forecast, Happened};
use super::goal::timer;
use super::heat::Heat;
use super::observation::Observation;
use super::vessel::Vessel;

/// A kettle from inside, in the model's terms.
#[must_use]
pub fn vessel(kettle: &Kettle) -> Vessel {
    let measures = (1..).map(|count| litres(kettle.pour_l.unwrap_or_default() * f64::from(count)));
    Vessel {
        inner_diameter: millimetres(kettle.inner_diameter_mm),
        top_diameter: kettle.top_diameter_mm.map(millimetres),
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
    let goal =
        mark(new.target, new.target_value).and_then(|mark| mark.contents(start.volume(), start.solids));
    goal.is_some_and(|goal| goal.mass < start.mass)
}

/// The records of a cook-down in the core's terms.
#[must_use]
pub fn cook_down(cook: &Cook, altitude: Option<Altitude>) -> CookDown {
    let read = |event: &CookEvent, observation| Happened::Read { observation, sure: event.sure };
    let happened = |event: &CookEvent| match event.what {
        CookWhat::TempC => read(event, Observation::Temperature(celsius(event.value))),
        CookWhat::Boils => read(event, Observation::Boils(true)),
        // What is held hot does not boil.
        CookWhat::NotYet | CookWhat::HotEnough => read(event, Observation::Boils(false)),
        CookWhat::VolumeL => read(event, Observation::Volume(litres(event.value))),
        CookWhat::DepthMm => read(event, Observation::Depth(millimetres(event.value))),
        CookWhat::MassKg => read(event, Observation::Mass(kilograms(event.value))),
        CookWhat::Brix => read(event, Observation::Brix(event.value)),
        CookWhat::LidOn => Happened::Lid(true),
        CookWhat::LidOff => Happened::Lid(false),
        CookWhat::HeatLow | CookWhat::HeatMedium | CookWhat::HeatHigh => {
            Happened::Turned { water: litres_per_hour(event.value) }
        }
        CookWhat::DrainL | CookWhat::LadleL => {
            Happened::Drained { volume: litres(event.value), serum: event.what == CookWhat::LadleL }
        }
        CookWhat::AddL => {
            Happened::Added { more: Contents::of_volume(litres(event.value), cook.brix), at: celsius(ROOM_C) }
        }
    };
    CookDown {
        start: Contents::of_volume(litres(cook.volume_l), cook.brix),
        starts_at: cook.start_c.map(celsius),
        product: None,
        target: target_of(cook),
        vessel: vessel(&cook.kettle),
        heat: Heat::Rate { water: litres_per_hour(cook.litres_per_hour) },
        in_oven: cook.kettle.heat == KettleHeat::Oven,
        shown: cook.shown,
        // It moves the boil by some degrees; it may still be unknown.
        altitude: altitude.unwrap_or(Altitude::SEA_LEVEL),
        log: cook.log.iter().map(|event| (span(cook.started_at, event.at), happened(event))).collect(),
    }
}

/// Litres of the lines of a log that are so.
fn sum(cook: &Cook, is: impl Fn(&CookEvent) -> bool) -> Volume {
    cook.log.iter().filter(|event| is(event)).fold(litres(0.0), |sum, event| sum + litres(event.value))
}

/// Everything that went in: at the start and since.
#[must_use]
pub fn went_in(cook: &Cook) -> Volume {
    litres(cook.volume_l) + sum(cook, |event| event.what == CookWhat::AddL)
}

/// What was taken off while it cooked.
#[must_use]
pub fn taken_off(cook: &Cook) -> Volume {
    sum(cook, |event| event.what.takes_off())
}

/// What was taken off, of which nobody wrote down where it went.
#[must_use]
pub fn drained_unbooked(cook: &Cook) -> Volume {
    sum(cook, |event| event.what.takes_off() && !event.booked)
}

/// Water that a cook-down boiled away until it was taken off the stove: what went in, less what is left and what was taken
/// off; nothing while it is on.
#[must_use]
pub fn boiled_off(cook: &Cook, altitude: Option<Altitude>) -> Volume {
    let Some(ended) = cook.ended_at else { return litres(0.0) };
    let left = cook_down(cook, altitude).forecast().volume_at(span(cook.started_at, ended));
    (went_in(cook) - left - taken_off(cook)).max(litres(0.0))
}

/// Share of the thin juice over the pulp that "ladle first" is worked out for: a ladle does not get at all of it.
const LADLED_SHARE: f64 = 0.3;

/// Share of the volume of milled juice that is pulp, and stays when thin juice is ladled off. Common practice, no source:
/// paste types are mostly wall, slicers mostly water.
#[must_use]
pub const fn usual_pulp(kind: Kind) -> f64 {
    match kind {
        Kind::Paste => 0.40,
        Kind::Slicer => 0.25,
        Kind::Cherry => 0.30,
        Kind::Mixed | Kind::Tomatillo => 0.33,
    }
}

/// The same as this pot has shown it: what was ladled off was no pulp.
#[must_use]
pub fn pulp_share(cook: &Cook, kind: Kind) -> f64 {
    let ladled = sum(cook, |event| event.what == CookWhat::LadleL);
    usual_pulp(kind).min(1.0 - (ladled / went_in(cook)).get::<ratio>()).max(0.0)
}

/// Less than this is not worth a ladle, in litres.
const LEAST_LADLED_L: f64 = 0.2;

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

/// What ladling thin juice off now would spare and cost; `None` once it is done, or when hardly any stands over the pulp.
/// `pulp` is the volume of the pulp.
#[must_use]
pub fn drain_first(down: &CookDown, forecast: &Forecast, pulp: Volume, now: Time) -> Option<DrainFirst> {
    if now >= forecast.finish.expected || matches!(down.target, Target::At(_)) {
        return None;
    }
    let here = forecast.volume_at(now);
    // Not below the goal: what is left has to be worth a fire.
    let drain = ((here - pulp) * LADLED_SHARE).min((here - forecast.goal.volume()) * 0.9);
    if drain < litres(LEAST_LADLED_L) {
        return None;
    }
    let mut drained = down.clone();
    drained.log.push((now, Happened::Drained { volume: drain, serum: true }));
    let other = drained.forecast();
    Some(DrainFirst {
        drain,
        spares: forecast.finish.expected - other.finish.expected,
        less: forecast.goal.volume() - other.goal.volume(),
    })
}
