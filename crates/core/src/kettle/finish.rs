//! When it will be thick: the readings so far, blended with the model while there are few.
//!
//! A Kalman filter over two numbers, the mass in the kettle and the rate at which water leaves it. The model's rate is
//! the prior, a quarter either way; every reading moves both, and the rate may wander, because somebody turns the heat.
//! A reading that lies far off is flagged and not obeyed. The interval is an 80 % one: a test holds it to that over many
//! simulated cook-downs.

use uom::si::f64::Time;
use uom::si::mass::kilogram;
use uom::si::mass_rate::kilogram_per_hour;
use uom::si::time::{hour, minute};

use super::{Contents, Heat, Target, Vessel};
use crate::kitchen::altitude::Altitude;
use crate::measures::units::{Length, Mass, MassRate, Volume, VolumeRate, kilograms};

/// How far the model's rate may be off, one standard deviation.
const RATE_DOUBT: f64 = 0.25;
/// How much the rate wanders in an hour, one standard deviation, of the model's rate.
const RATE_WANDER: f64 = 0.10;
/// How far the expected change may be off when the heat is turned, one standard deviation, of the new rate.
const TURN_DOUBT: f64 = 0.15;
/// A stick is read to about so much of the start mass, one standard deviation.
const LEVEL_ERROR: f64 = 0.012;
/// A scale is read to about so much of the start mass.
const SCALE_ERROR: f64 = 0.003;
/// A refractometer is read to about so many °Brix.
const BRIX_ERROR: f64 = 0.15;
/// Standard deviations beyond which a reading is flagged.
const FAR_OFF: f64 = 4.0;
/// Standard deviations of an 80 % interval.
const EIGHTY_SD: f64 = 1.2816;
/// Share of the rate that still leaves under a lid. Common practice, no source.
pub const UNDER_LID: f64 = 0.1;
/// Least rate that is believed, of the model's rate, so that a finish time stays finite.
const LEAST_RATE: f64 = 0.05;

/// What somebody read.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Sight {
    /// Volume in the kettle.
    Volume(Volume),
    /// Depth on the stick.
    Depth(Length),
    /// Net mass on a scale.
    Mass(Mass),
    /// °Brix of a sample.
    Brix(f64),
}

/// Something that happened in the kettle.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Happened {
    /// Somebody read it.
    Read(Sight),
    /// A volume was drained off.
    Drained(Volume),
    /// More went in.
    Added(Contents),
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
    /// Where it stops.
    pub target: Target,
    /// The kettle.
    pub vessel: Vessel,
    /// What drives it.
    pub heat: Heat,
    /// Height of the kitchen.
    pub altitude: Altitude,
    /// Readings and drains, from the start of heating.
    pub log: Vec<(Time, Happened)>,
}

/// A finish time with its 80 % interval.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Finish {
    /// One in ten finish before it.
    pub low: Time,
    /// Expected.
    pub expected: Time,
    /// One in ten finish after it.
    pub high: Time,
}

/// Where the kettle stands and when it is done.
#[derive(Debug, Clone, PartialEq)]
pub struct Forecast {
    /// What is left at the end.
    pub goal: Contents,
    /// Water that leaves now.
    pub rate: MassRate,
    /// When it is done, from the start of heating.
    pub finish: Finish,
    /// Volume over time: what was, then what is expected.
    pub curve: Vec<(Time, Volume)>,
    /// Places in the log of readings that lie too far off.
    pub flagged: Vec<usize>,
    /// What each setting of the heat has shown, from the start on: one more for every turn.
    pub stretches: Vec<Stretch>,
}

/// A stretch of the cook-down at one setting of the heat.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Stretch {
    /// Water that leaves at its end.
    pub rate: MassRate,
    /// Readings that were obeyed.
    pub readings: usize,
}

/// The filter's belief: mass in kilograms, rate in kilograms an hour, and how sure it is of them.
#[derive(Debug, Clone, Copy)]
struct Belief {
    mass: f64,
    rate: f64,
    var_mass: f64,
    var_rate: f64,
    covariance: f64,
}

impl Belief {
    /// Moves on by hours of boiling.
    fn boil(&mut self, hours: f64, wander: f64) {
        self.mass -= self.rate * hours;
        self.var_mass +=
            hours * hours * self.var_rate - 2.0 * hours * self.covariance + wander * hours.powi(3) / 3.0;
        self.covariance -= hours * self.var_rate + wander * hours * hours / 2.0;
        self.var_rate += wander * hours;
    }

    /// The heat is turned: the rate changes as the expected one does, and is surer of nothing.
    fn turn(&mut self, from: f64, to: f64) {
        let ratio = to / from;
        self.rate *= ratio;
        self.var_rate = self.var_rate * ratio * ratio + (TURN_DOUBT * self.rate).powi(2);
        self.covariance *= ratio;
    }

    /// Takes a reading of the mass; false when it lies too far off.
    fn read(&mut self, mass: f64, error: f64) -> bool {
        let spread = self.var_mass + error * error;
        let off = mass - self.mass;
        if off * off > FAR_OFF * FAR_OFF * spread {
            return false;
        }
        let (gain_mass, gain_rate) = (self.var_mass / spread, self.covariance / spread);
        self.mass += gain_mass * off;
        self.rate += gain_rate * off;
        self.var_rate -= gain_rate * self.covariance;
        self.covariance -= gain_mass * self.covariance;
        self.var_mass -= gain_mass * self.var_mass;
        true
    }
}

impl Forecast {
    /// Volume at a time, along the curve; the ends hold on beyond it.
    #[must_use]
    pub fn volume_at(&self, time: Time) -> Volume {
        let after = self.curve.iter().position(|(at, _)| *at > time);
        match after {
            None => self.curve.last().map_or_else(Volume::default, |(_, volume)| *volume),
            Some(0) => self.curve[0].1,
            Some(place) => {
                let ((from, low), (to, high)) = (self.curve[place - 1], self.curve[place]);
                low + (high - low) * ((time - from) / (to - from)).get::<uom::si::ratio::ratio>()
            }
        }
    }
}

impl CookDown {
    /// Mass that a sight means, with its error, given the solids in the kettle.
    fn mass_of(&self, sight: Sight, solids: Mass) -> (f64, f64) {
        let start = self.start.mass.get::<kilogram>();
        let here = Contents { mass: self.start.mass, solids };
        match sight {
            Sight::Volume(volume) => (here.boiled_to(volume).mass.get::<kilogram>(), LEVEL_ERROR * start),
            Sight::Depth(depth) => {
                let volume = self.vessel.volume_to(depth);
                (here.boiled_to(volume).mass.get::<kilogram>(), LEVEL_ERROR * start)
            }
            Sight::Mass(mass) => (mass.get::<kilogram>(), SCALE_ERROR * start),
            Sight::Brix(brix) => {
                let mass = Contents::of_solids(solids, brix).mass.get::<kilogram>();
                (mass, mass * BRIX_ERROR / brix)
            }
        }
    }

    /// Works out where it stands and when it is done.
    #[must_use]
    pub fn forecast(&self) -> Forecast {
        let warm = self.heat.warm_up(self.start, self.altitude);
        let in_kg_per_hour = |heat: Heat| heat.rate(self.altitude).get::<kilogram_per_hour>();
        let leaves = |belief: &Belief| MassRate::new::<kilogram_per_hour>(belief.rate);
        let mut expected = in_kg_per_hour(self.heat);
        let prior = expected;
        let wander = (RATE_WANDER * prior).powi(2);
        let mut belief = Belief {
            mass: self.start.mass.get::<kilogram>(),
            rate: prior,
            // What went in was measured as well as any level.
            var_mass: (LEVEL_ERROR * self.start.mass.get::<kilogram>()).powi(2) / 4.0,
            var_rate: (RATE_DOUBT * prior).powi(2),
            covariance: 0.0,
        };
        let mut solids = self.start.solids;
        let mut now = Time::new::<hour>(0.0);
        let volume = |belief: &Belief, solids: Mass| {
            Contents {
                mass: kilograms(belief.mass.max(solids.get::<kilogram>() * 100.0 / super::MOST_BRIX)),
                solids,
            }
            .volume()
        };
        let mut curve = vec![(now, self.start.volume())];
        let mut flagged = Vec::new();
        let mut stretches = Vec::new();
        let mut readings = 0;
        // The forecast takes the lid off: that is the way to get done.
        let mut open = 1.0;
        let mut order: Vec<usize> = (0..self.log.len()).collect();
        order.sort_by(|a, b| self.log[*a].0.value.total_cmp(&self.log[*b].0.value));
        for place in order {
            let (at, what) = self.log[place];
            let boiling = (at.max(warm) - now.max(warm)).get::<hour>();
            belief.boil(boiling.max(0.0) * open, wander);
            now = at;
            match what {
                Happened::Read(sight) => {
                    let (mass, error) = self.mass_of(sight, solids);
                    if belief.read(mass, error) {
                        readings += 1;
                    } else {
                        flagged.push(place);
                    }
                }
                Happened::Turned { water } => {
                    stretches.push(Stretch { rate: leaves(&belief), readings });
                    readings = 0;
                    let to = in_kg_per_hour(Heat::Rate { water });
                    belief.turn(expected, to);
                    expected = to;
                }
                Happened::Added(more) => {
                    belief.mass += more.mass.get::<kilogram>();
                    solids += more.solids;
                }
                Happened::Lid(on) => open = if on { UNDER_LID } else { 1.0 },
                Happened::Drained(drained) => {
                    let here = Contents { mass: kilograms(belief.mass), solids };
                    let left = here.drained(drained);
                    belief.mass = left.mass.get::<kilogram>();
                    solids = left.solids;
                }
            }
            belief.rate = belief.rate.max(LEAST_RATE * expected);
            curve.push((at, volume(&belief, solids)));
        }
        let (goal, finish) = match self.target {
            Target::At(end) => {
                let end = end.max(now);
                let hours = (end.max(warm) - now.max(warm)).get::<hour>().max(0.0) * open;
                let least = solids.get::<kilogram>() * 100.0 / super::MOST_BRIX;
                let mass = kilograms((belief.mass - belief.rate * hours).max(least));
                (Contents { mass, solids }, Finish { low: end, expected: end, high: end })
            }
            target => {
                let goal = target.contents(self.start, solids);
                let mass = goal.mass.get::<kilogram>();
                (goal, finish(&belief, mass, now, now.max(warm), wander))
            }
        };
        let end = finish.expected;
        const STEPS: u32 = 24;
        for step in 1..=STEPS {
            let at = now + (end - now) * (f64::from(step) / f64::from(STEPS));
            let hours = (at.max(warm) - now.max(warm)).get::<hour>().max(0.0);
            let later = Belief { mass: belief.mass - belief.rate * hours, ..belief };
            curve.push((at, volume(&later, solids)));
        }
        stretches.push(Stretch { rate: leaves(&belief), readings });
        Forecast { goal, rate: leaves(&belief), finish, curve, flagged, stretches }
    }
}

/// The finish by the first-order rule: mass left to lose over the rate, with the errors of both and the wander to come.
fn finish(belief: &Belief, goal: f64, now: Time, boils_from: Time, wander: f64) -> Finish {
    let left = belief.mass - goal;
    if left <= 0.0 {
        return Finish { low: now, expected: now, high: now };
    }
    let hours = left / belief.rate;
    let variance = belief.var_mass + hours * hours * belief.var_rate - 2.0 * hours * belief.covariance
        + wander * hours.powi(3) / 3.0;
    let doubt = (variance.max(0.0).sqrt() / belief.rate) * EIGHTY_SD;
    // The time left is a quotient: its doubt is a factor rather than a sum, so a slow kettle is allowed for.
    let factor = 1.0 + doubt / hours;
    let at = |hours: f64| boils_from + Time::new::<hour>(hours);
    Finish { low: at(hours / factor), expected: at(hours), high: at(hours * factor) }
}

/// Minutes from the start of heating.
#[must_use]
pub fn minutes(time: Time) -> f64 {
    time.get::<minute>()
}
