//! When it will be thick: a kettle in motion, taught by what is read of it.
//!
//! The whole state is estimated: temperature, mass and solids, the heat that gets in, what is lost, and how it thickens.
//! [`super::hunch`] keeps the explanations of what was read side by side; here they are begun from what is known at the
//! start, led along the log, and asked when the goal is reached. The interval is an 80 % one: kitchens that are simulated by
//! other equations hold it to that.

use uom::si::mass::kilogram;
use uom::si::mass_rate::kilogram_per_hour;
use uom::si::time::minute;
use uom::si::volume::liter;

use super::ahead::{point, stretch};
use super::contents::{Contents, Target};
use super::heat::{Heat, by_weight};
use super::hunch::{Hunch, Hunches, Reading, Said, Why};
use super::pot::{HEAT, LOSS, MASS, POWER, Pot, SOLIDS, THICKENS, expansion};
use super::sight::Sight;
use super::vessel::Vessel;
use crate::kitchen::altitude::Altitude;
use crate::measures::units::{
    Length, MassRate, Temperature, Time, Volume, VolumeRate, in_celsius, kilograms, litres,
};
use crate::measures::vocabulary::vocabulary;
use crate::tables::process::Product;

/// Something that happened in the kettle.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Happened {
    /// Somebody read it; `sure` when they stand by it though it surprises.
    Read {
        /// What was read.
        sight: Sight,
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

/// What a kettle has shown of itself in earlier cook-downs.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Shown {
    /// How far its rate may be off, as a share.
    pub rate_doubt: f64,
    /// How much less heat gets in as it thickens, for each 10 °Brix, and how far that may be off; when it was seen.
    pub thickens: Option<(f64, f64)>,
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
    warmth: (f64, f64),
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

/// What is poured in or out is measured to about this share of it.
const POURED_SHARE: f64 = 0.05;
/// How far the soluble solids in what was taken off may be off: it is not equally strong everywhere.
const DRAINED_SOLIDS_SHARE: f64 = 0.15;
/// How far the expected change may be off when the heat is turned, in the logarithm of the power.
const TURN_DOUBT: f64 = 0.2;
/// Share of the explanations that have it a slip from which a reading that is asked about is put aside.
const PUT_ASIDE_FROM: f64 = 0.05;
/// Entries at the end of the log that are late.
const LATE: usize = 12;
/// Share of the explanations from which one is asked about.
pub(super) const ASKED_FROM: f64 = 0.6;

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
                let share = ((time - from.at) / (to.at - from.at)).get::<uom::si::ratio::ratio>();
                from.volume + (to.volume - from.volume) * share
            }
        }
    }
}

impl CookDown {
    /// The same before anything was read of it or done to it.
    #[must_use]
    pub fn as_at_the_start(&self) -> Self {
        Self { log: Vec::new(), ..self.clone() }
    }

    /// Works out where it stands and when it is done.
    #[must_use]
    pub fn forecast(&self) -> Forecast {
        let start_l = self.start.volume().get::<liter>();
        let start_kg = self.start.mass.get::<kilogram>();
        let pot = if self.in_oven {
            Pot::in_oven(self.altitude)
        } else {
            Pot::new(&self.vessel, start_l, self.altitude)
        };
        let mut hunches = Hunches::new(&self.priors(&pot), start_l, &pot);
        let starts_c = hunches.mean(|hunch| hunch.belief.mean[HEAT]);
        let mut expected = self.heat.rate(self.altitude).map(|rate| rate.get::<kilogram_per_hour>());
        let (mut now, mut lid, mut said, mut not_yet) = (0.0_f64, false, false, None);
        let mut curve = vec![point(&hunches, 0.0)];
        let (mut stretches, mut readings, mut taken) = (Vec::new(), Vec::new(), Vec::new());
        let mut order: Vec<usize> = (0..self.log.len()).collect();
        order.sort_by(|a, b| self.log[*a].0.value.total_cmp(&self.log[*b].0.value));
        for (entry, place) in order.into_iter().enumerate() {
            let (when, what) = self.log[place];
            let when = when.get::<minute>().max(now);
            let minutes = when - now;
            now = when;
            if !matches!(what, Happened::Read { .. }) {
                hunches.run(&pot, minutes, lid, now);
            }
            match what {
                Happened::Read { sight, sure } => {
                    let boils = sight == Sight::Boils(true);
                    let since_not = not_yet.map(|at: f64| now - at);
                    let reading = Reading {
                        place,
                        sight,
                        sure,
                        late: entry + LATE >= self.log.len(),
                        start_kg,
                        vessel: &self.vessel,
                        said: Said { boils, first: !said, since_not, lid, now },
                    };
                    hunches.run_to_reading(&pot, minutes, &reading);
                    let says_more = hunches.says_more(&reading, &pot);
                    taken.push(Taken { place, sure, says_more });
                    hunches.read(&reading, &pot);
                    said |= boils;
                    if sight == Sight::Boils(false) {
                        not_yet = Some(now);
                    }
                    readings.push(place);
                }
                Happened::Turned { water } => {
                    let to = by_weight(water).get::<kilogram_per_hour>();
                    stretches.push(stretch(&hunches, &pot, &std::mem::take(&mut readings)));
                    let from = expected.unwrap_or(to);
                    hunches.each(|hunch| turn(hunch, &pot, from, to));
                    expected = Some(to);
                }
                Happened::Added { more, at } => {
                    let (kg, solids) = (more.mass.get::<kilogram>(), more.solids.get::<kilogram>());
                    let (volume, at) = (more.volume().get::<liter>(), in_celsius(at));
                    hunches.each(|hunch| {
                        hunch.belief.moved(|state| {
                            let here = pot.temperature(state);
                            state[HEAT] = (here * state[MASS] + at * kg) / (state[MASS] + kg);
                            state[MASS] += kg;
                            state[SOLIDS] += solids;
                        });
                        hunch.belief.doubt(MASS, (POURED_SHARE * kg).powi(2));
                        hunch.belief.doubt(SOLIDS, (POURED_SHARE * solids).powi(2));
                        hunch.base_l += volume;
                    });
                }
                Happened::Lid(on) => lid = on,
                Happened::Drained { volume, serum } => {
                    let volume = volume.get::<liter>();
                    hunches.each(|hunch| drain(hunch, volume, serum));
                }
            }
            curve.push(point(&hunches, now));
        }
        let flagged = flagged(&hunches, &taken);
        // Until somebody says why, the time goes without a reading that nothing bears out.
        for aside in flagged.iter().filter(|flagged| !flagged.obeyed) {
            hunches.without(aside.place, Why::Moved);
        }
        if let Some(last) = curve.last_mut().filter(|_| !flagged.is_empty()) {
            *last = point(&hunches, now);
        }
        stretches.push(stretch(&hunches, &pot, &readings));
        let ahead = self.look_ahead(&hunches, &pot, now);
        curve.extend(ahead.curve);
        let solids = kilograms(hunches.mean(|hunch| hunch.belief.mean[SOLIDS]));
        let base = litres(hunches.mean(|hunch| hunch.base_l));
        let goal = self.target.contents(base, solids);
        let mark = |goal: Contents| Mark {
            cold: self.vessel.depth_of(goal.volume()),
            hot: self.vessel.depth_of(goal.volume() * expansion(pot.boils_c)),
        };
        let at_the_end = || {
            let volume = curve.last().map_or_else(Volume::default, |point| point.volume);
            Contents { mass: solids, solids }.boiled_to(volume)
        };
        let rate = hunches.mean(|hunch| pot.rate_at_boil(&hunch.belief.mean));
        Forecast {
            goal: goal.unwrap_or_else(at_the_end),
            mark: goal.map(mark),
            warmth: (starts_c.min(pot.boils_c), pot.boils_c),
            rate: MassRate::new::<kilogram_per_hour>(rate),
            boils: ahead.boils,
            finish: ahead.finish,
            flagged,
            curve,
            stretches,
            thickens: hunches.number(THICKENS),
        }
    }
}

/// Readings that disagree with all else, in the order of the log, and what to ask of each.
fn flagged(hunches: &Hunches, taken: &[Taken]) -> Vec<Flagged> {
    let asks = |taken: &Taken| match taken.says_more {
        Some(true) => vec![Asks::MoreWentIn, Asks::HeatTurned],
        Some(false) => vec![Asks::TakenOff, Asks::HeatTurned],
        None => vec![Asks::HeatTurned],
    };
    let odd = |taken: &&Taken| {
        let share = share_of(hunches, taken.place, Why::Slip) + share_of(hunches, taken.place, Why::Moved);
        !taken.sure && share >= ASKED_FROM
    };
    let mut flagged: Vec<Flagged> = taken
        .iter()
        .filter(odd)
        .map(|taken| Flagged {
            place: taken.place,
            asks: asks(taken),
            obeyed: share_of(hunches, taken.place, Why::Slip) < PUT_ASIDE_FROM,
        })
        .collect();
    flagged.sort_by_key(|flagged| flagged.place);
    flagged
}

/// A reading that was taken.
#[derive(Debug, Clone, Copy)]
struct Taken {
    place: usize,
    sure: bool,
    /// Whether it says that more is in the kettle than was expected; none of a word or a temperature.
    says_more: Option<bool>,
}

/// Share of the explanations in which a reading was explained away so.
pub(super) fn share_of(hunches: &Hunches, place: usize, why: Why) -> f64 {
    hunches.mean(|hunch| if hunch.why.contains(&(place, why)) { 1.0 } else { 0.0 })
}

/// The heat is turned: the power changes as the water that leaves does, and is surer of nothing.
fn turn(hunch: &mut Hunch, pot: &Pot, from: f64, to: f64) {
    let loss = hunch.belief.mean[LOSS];
    hunch.belief.mean[POWER] += pot.power_for(to, loss) - pot.power_for(from, loss);
    hunch.belief.doubt(POWER, TURN_DOUBT * TURN_DOUBT);
}

/// Takes a volume off at the strength of the liquid.
fn drain(hunch: &mut Hunch, volume: f64, serum: bool) {
    let here = Pot::litres(&hunch.belief.mean);
    let part = (volume / here).clamp(0.0, 0.95);
    let kg = part * hunch.belief.mean[MASS];
    hunch.belief.moved(|state| {
        let left = (1.0 - kg / state[MASS]).max(0.05);
        state[MASS] *= left;
        state[SOLIDS] *= left;
    });
    hunch.belief.doubt(MASS, (POURED_SHARE * kg).powi(2));
    let solids = part * hunch.belief.mean[SOLIDS];
    hunch.belief.doubt(SOLIDS, (DRAINED_SOLIDS_SHARE * solids).powi(2));
    if !serum {
        hunch.base_l *= 1.0 - part;
    }
}

/// Minutes from the start of heating.
#[must_use]
pub fn minutes(time: Time) -> f64 {
    time.get::<minute>()
}
