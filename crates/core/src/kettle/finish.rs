//! A cook-down as it is known, and what is said of it: when it boils, when it will be thick, where the mark is. How that is
//! found is in `lead.rs`.

use bodega_model::kettle::contents::{Contents, Shown, Target};
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::units::{Length, MassRate, Temperature, Time, Volume, VolumeRate};
use bodega_model::measures::vocabulary::vocabulary;
use bodega_model::tables::process::Product;
use uom::si::ratio::ratio;
use uom::si::time::minute;

use super::heat::Heat;
use super::observation::Observation;
use super::pot::expansion;
use super::vessel::Vessel;

/// Something that happened in the kettle.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Happened {
    /// Somebody read it; `sure` when they stand by it though it surprises.
    Read {
        /// What was read.
        observation: Observation,
        /// Whether it is no slip.
        sure: bool,
    },
    /// A volume was taken off: well mixed, or the thin serum, which leaves the pulp.
    Drained {
        /// How much.
        volume: Volume,
        /// Whether the pulp stayed.
        serum: bool,
    },
    /// More went in.
    Added {
        /// What.
        more: Contents,
        /// How warm.
        at: Temperature,
    },
    /// The lid went on (`true`) or off.
    Lid(bool),
    /// The heat was turned; so much water is expected to leave from here on.
    Turned {
        /// Water that leaves.
        water: VolumeRate,
    },
}

/// A cook-down as it is known so far.
#[derive(Debug, Clone, PartialEq)]
pub struct CookDown {
    /// What went in.
    pub start: Contents,
    /// How warm that was, when somebody said it. Else a kettle with a known rate counts as boiling from the start, and any
    /// other as standing at room temperature; readings may say otherwise.
    pub starts_at: Option<Temperature>,
    /// What it is to become.
    pub product: Option<Product>,
    /// Where it stops.
    pub target: Target,
    /// The kettle.
    pub vessel: Vessel,
    /// What drives it.
    pub heat: Heat,
    /// Whether it stands in an oven, which is hotter than it is: it loses nothing to the kitchen.
    pub in_oven: bool,
    /// What it has shown before.
    pub shown: Option<Shown>,
    /// Height of the kitchen.
    pub altitude: Altitude,
    /// Readings, what was taken off and what went in, from the start of heating.
    pub log: Vec<(Time, Happened)>,
}

/// A time with its 80 % interval.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Finish {
    /// One in ten lies before it.
    pub low: Time,
    /// As many before it as after.
    pub expected: Time,
    /// One in ten lies after it.
    pub high: Time,
}

/// A time left is vague when its later bound is further off than this many times its nearer one, and
const VAGUE_FACTOR: f64 = 2.2;
/// when they lie further apart than so many minutes.
const VAGUE_MIN: f64 = 20.0;

impl Finish {
    /// Whether it is known so little at a time that only its bounds are worth saying.
    #[must_use]
    pub fn is_vague(&self, now: Time) -> bool {
        let (low, high) = (minutes(self.low - now).max(0.0), minutes(self.high - now));
        high - low > VAGUE_MIN && high > VAGUE_FACTOR * low
    }
}

/// A point of the curve.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct CurveAt {
    /// From the start of heating.
    pub at: Time,
    /// One in ten lies below.
    pub low: Volume,
    /// Volume at 20 °C.
    pub volume: Volume,
    /// One in ten lies above.
    pub high: Volume,
}

vocabulary! {
    /// What may have happened when a reading disagrees with all that is known.
    "question", Asks {
        /// More went in than was told.
        MoreWentIn = "more_went_in", "More went in?";
        /// Something was taken off.
        TakenOff = "taken_off", "Taken off?";
        /// The heat was turned up or down.
        HeatTurned = "heat_turned", "Heat turned?";
    }
}

/// A reading that disagrees.
#[derive(Debug, Clone, PartialEq)]
pub struct Flagged {
    /// Its place in the log.
    pub place: usize,
    /// What to ask, the likeliest first.
    pub asks: Vec<Asks>,
    /// Whether the forecast goes with it all the same, because what was read since agrees.
    pub obeyed: bool,
}

/// The mark on the stick.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Mark {
    /// In the hot kettle.
    pub hot: Length,
    /// At 20 °C.
    pub cold: Length,
}

/// Where the kettle stands and when it is done.
#[derive(Debug, Clone, PartialEq)]
pub struct Forecast {
    /// What is left at the end.
    pub goal: Contents,
    /// Its level; none when the goal is a time.
    pub mark: Option<Mark>,
    /// How warm it began and where it boils, in °C.
    pub(super) warmth: (f64, f64),
    /// Water that leaves the open kettle once it boils, as thick as it is now.
    pub rate: MassRate,
    /// When it boils.
    pub boils: Finish,
    /// When it is done, from the start of heating.
    pub finish: Finish,
    /// Volume over time: what was, then what is expected.
    pub curve: Vec<CurveAt>,
    /// Readings that disagree.
    pub flagged: Vec<Flagged>,
    /// What each setting of the heat has shown, from the start on: one more for every turn.
    pub stretches: Vec<Stretch>,
    /// How much less heat gets in as it thickens, for each 10 °Brix, with its doubt.
    pub thickens: (f64, f64),
}

/// A stretch of the cook-down at one setting of the heat.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Stretch {
    /// Water that leaves thin juice at the boil there.
    pub rate: MassRate,
    /// How far that may be off, as a share.
    pub doubt: f64,
    /// Readings that were obeyed.
    pub readings: usize,
}

impl Forecast {
    /// How much higher a level stands at a time than at 20 °C: until it boils it warms evenly.
    #[must_use]
    pub fn expansion_at(&self, time: Time) -> f64 {
        let (from, boils) = self.warmth;
        let share = (minutes(time) / minutes(self.boils.expected).max(1e-3)).clamp(0.0, 1.0);
        expansion(from + (boils - from) * share)
    }

    /// Whether it boils at a time, as far as anybody can tell.
    #[must_use]
    pub fn is_boiling(&self, time: Time) -> Option<bool> {
        match (self.boils.high <= time, self.boils.low > time) {
            (true, _) => Some(true),
            (_, true) => Some(false),
            _ => None,
        }
    }

    /// Volume at a time, along the curve; the ends hold on beyond it.
    #[must_use]
    pub fn volume_at(&self, time: Time) -> Volume {
        let after = self.curve.iter().position(|point| point.at > time);
        match after {
            None => self.curve.last().map_or_else(Volume::default, |point| point.volume),
            Some(0) => self.curve[0].volume,
            Some(place) => {
                let (from, to) = (self.curve[place - 1], self.curve[place]);
                let share = ((time - from.at) / (to.at - from.at)).get::<ratio>();
                from.volume + (to.volume - from.volume) * share
            }
        }
    }
}

/// Minutes from the start of heating.
#[must_use]
pub fn minutes(time: Time) -> f64 {
    time.get::<minute>()
}
