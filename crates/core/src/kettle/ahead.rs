//! From what is believed now to the end: when it boils, when it is done, and the curve between.

use bodega_model::kettle::contents::{Target, density_kg_per_l};
use bodega_model::measures::units::{MassRate, Time, kilograms, litres};
use uom::si::mass::kilogram;
use uom::si::mass_rate::kilogram_per_hour;
use uom::si::time::minute;

use super::finish::{CookDown, CurveAt, Finish, Stretch};
use super::hypothesis::{ASKED_FROM, Hypotheses, WANDER, Why, normal_cdf};
use super::pot::{LOSS, MASS, POWER, Pot, SOLIDS};

/// Standard deviations of an 80 % interval.
const EIGHTY_SD: f64 = 1.2816;
/// Longest time that is looked ahead, minutes: two days.
const AHEAD_MIN: f64 = 2880.0;
/// Further doubt of the time left, in its logarithm: no model is a kitchen.
const MODEL_DOUBT: f64 = 0.008;

/// What lies ahead.
pub(super) struct Ahead {
    /// When it boils.
    pub boils: Finish,
    /// When it is done.
    pub finish: Finish,
    /// What is expected until then.
    pub curve: Vec<CurveAt>,
}

/// Minutes from now as a distribution: normal, or, when all lie ahead, their logarithm is.
#[derive(Debug, Clone, Copy)]
struct Law {
    mean: f64,
    std_dev: f64,
    logarithm: bool,
}

impl Law {
    /// Of the minutes of some points.
    fn of(values: &[f64]) -> Self {
        let logarithm = values.iter().all(|minutes| *minutes > 0.5);
        let of: Vec<f64> = values.iter().map(|value| if logarithm { value.ln() } else { *value }).collect();
        let (mean, std_dev) = moments(&of);
        Self { mean, std_dev, logarithm }
    }

    /// In the middle.
    fn middle(&self) -> f64 {
        if self.logarithm { self.mean.exp() } else { self.mean.max(0.0) }
    }

    /// With further doubt, as a share of the time.
    fn doubted(mut self, share: f64) -> Self {
        self.std_dev =
            self.std_dev.hypot(if self.logarithm { share } else { share * self.middle() }).max(1e-6);
        self
    }

    /// Share below a number of minutes.
    fn share_before(&self, minutes: f64) -> f64 {
        let value = if self.logarithm { minutes.max(1e-6).ln() } else { minutes };
        normal_cdf((value - self.mean) / self.std_dev.max(1e-6))
    }
}

/// Where a hypothesis stands at the end.
struct Ends {
    share: f64,
    left: Law,
    boils: Law,
    /// It does not boil yet.
    to_boil: bool,
}

/// A number below which a share of a mixture lies, by halving.
fn quantile(share: f64, low: f64, high: f64, below: impl Fn(f64) -> f64) -> f64 {
    let (mut low, mut high) = (low, high);
    for _ in 0..32 {
        let middle = f64::midpoint(low, high);
        if below(middle) < share { low = middle } else { high = middle }
    }
    f64::midpoint(low, high)
}

fn at(minutes: f64) -> Time {
    Time::new::<minute>(minutes)
}

#[allow(clippy::cast_precision_loss)] // some points
fn moments(values: &[f64]) -> (f64, f64) {
    let mean = values.iter().sum::<f64>() / values.len() as f64;
    let variance = values.iter().map(|value| (value - mean).powi(2)).sum::<f64>() / values.len() as f64;
    (mean, variance.sqrt())
}

impl CookDown {
    /// Mass of the goal for a state, kg; none without a mark.
    fn goal_kg(&self, base_l: f64, solids_kg: f64) -> Option<f64> {
        let goal = self.target.contents(litres(base_l), kilograms(solids_kg));
        goal.map(|goal| goal.mass.get::<kilogram>())
    }

    /// Looks ahead from what is believed at a minute.
    pub(super) fn look_ahead(&self, hypotheses: &Hypotheses, pot: &Pot, now: f64) -> Ahead {
        let limit = match self.target {
            Target::At(end) => (end.get::<minute>() - now).max(0.0),
            _ => AHEAD_MIN,
        };
        let mut ends = Vec::new();
        let mut paths: Vec<(f64, Path)> = Vec::new();
        let mut centres: Vec<(f64, Path)> = Vec::new();
        for (share, hypothesis) in hypotheses.likely() {
            let (mut left, mut boils) = (Vec::new(), Vec::new());
            let mut centre = Vec::new();
            let goal = self.goal_kg(hypothesis.base_l, hypothesis.belief.mean[SOLIDS]);
            pot.run_to(&hypothesis.belief.mean, goal.unwrap_or_default(), limit, |clock, mass, brix| {
                centre.push((clock, mass / density_kg_per_l(brix)));
            });
            centres.push((share, centre));
            let points = hypothesis.belief.points();
            for state in points {
                let goal = self.goal_kg(hypothesis.base_l, state[SOLIDS]);
                let mut path = Vec::new();
                let over = goal.map_or(1.0, |goal| state[MASS] - goal);
                if over <= 0.0 {
                    path.push((0.0, Pot::litres(&state)));
                    left.push(over / pot.rate_at_boil(&state).max(0.05) * 60.0);
                    boils.push(0.0);
                } else {
                    let ran = pot.run_to(&state, goal.unwrap_or_default(), limit, |clock, mass, brix| {
                        path.push((clock, mass / density_kg_per_l(brix)));
                    });
                    left.push(ran.took);
                    boils.push(ran.boiled);
                }
                #[allow(clippy::cast_precision_loss)] // fourteen points
                paths.push((share / points.len() as f64, path));
            }
            let left = Law::of(&left);
            let to_come = (WANDER * WANDER * left.middle() / 180.0 + MODEL_DOUBT * MODEL_DOUBT).sqrt();
            let boils = match hypothesis.boiled {
                Some((at, variance)) => Law { mean: at - now, std_dev: variance.sqrt(), logarithm: false },
                None => Law::of(&boils),
            };
            ends.push(Ends {
                share,
                left: left.doubted(to_come),
                boils,
                to_boil: hypothesis.boiled.is_none(),
            });
        }
        let left_below =
            |minutes: f64| ends.iter().map(|end| end.share * end.left.share_before(minutes)).sum();
        let finish = match self.target {
            Target::At(end) => {
                let end = end.max(at(now));
                Finish { low: end, expected: end, high: end }
            }
            _ => {
                let when = |share: f64| at(now + quantile(share, 0.0, AHEAD_MIN, left_below));
                Finish { low: when(0.1), expected: when(0.5), high: when(0.9) }
            }
        };
        let boils_below = |minutes: f64| {
            let past = |end: &&Ends| !(end.to_boil && minutes < 0.0);
            ends.iter().filter(past).map(|end| end.share * end.boils.share_before(minutes)).sum()
        };
        let boils_at = |share: f64| at(now + quantile(share, -now, AHEAD_MIN, boils_below));
        let boils = Finish { low: boils_at(0.1), expected: boils_at(0.5), high: boils_at(0.9) };
        Ahead { boils, finish, curve: ahead(&paths, &centres, now, finish) }
    }
}

/// What has been shown since the heat was last turned.
pub(super) fn stretch(hypotheses: &Hypotheses, pot: &Pot, readings: &[usize]) -> Stretch {
    let rates: Vec<(f64, f64, f64)> = hypotheses
        .likely()
        .into_iter()
        .map(|(share, hypothesis)| {
            let seen = hypothesis.belief.predicted(|state| pot.thin_rate(state[POWER], state[LOSS]));
            (share, seen.mean, seen.variance.sqrt().max(1e-9))
        })
        .collect();
    // The middle two thirds: the tails are those in which the heat was turned just now.
    let most = rates.iter().map(|(_, mean, std_dev)| mean + 6.0 * std_dev).fold(0.0, f64::max);
    let at = |share: f64| {
        quantile(share, 0.0, most, |rate| {
            rates.iter().map(|(share, mean, std_dev)| share * normal_cdf((rate - mean) / std_dev)).sum()
        })
    };
    let mean = at(0.5);
    let slips = |place: usize| hypotheses.share_of(place, Why::Slip);
    Stretch {
        rate: MassRate::new::<kilogram_per_hour>(mean),
        doubt: (at(0.84) - at(0.16)) / 2.0 / mean.max(1e-6),
        readings: readings.iter().filter(|place| slips(**place) < ASKED_FROM).count(),
    }
}

/// The volume that is believed now.
pub(super) fn point(hypotheses: &Hypotheses, now: f64) -> CurveAt {
    let seen: Vec<(f64, f64, f64)> = hypotheses
        .shares()
        .map(|(share, hypothesis)| {
            let volume = Pot::litres(&hypothesis.belief.mean);
            let std_dev = hypothesis.belief.spread[(MASS, MASS)].max(0.0).sqrt()
                / density_kg_per_l(Pot::brix(&hypothesis.belief.mean));
            (share, volume, std_dev)
        })
        .collect();
    let mean: f64 = seen.iter().map(|(share, volume, _)| share * volume).sum();
    let variance: f64 = seen
        .iter()
        .map(|(share, volume, std_dev)| share * (std_dev * std_dev + (volume - mean).powi(2)))
        .sum();
    around(now, mean, variance.sqrt(), mean)
}

fn around(minutes: f64, volume: f64, std_dev: f64, mean: f64) -> CurveAt {
    CurveAt {
        at: at(minutes),
        low: litres((mean - EIGHTY_SD * std_dev).max(0.0).min(volume)),
        volume: litres(volume),
        high: litres((mean + EIGHTY_SD * std_dev).max(volume)),
    }
}

/// Minutes from now and litres.
type Path = Vec<(f64, f64)>;

/// Steps of the curve that is to come.
const STEPS: u32 = 24;

/// What is expected until the last of the likely times.
fn ahead(paths: &[(f64, Path)], centres: &[(f64, Path)], now: f64, finish: Finish) -> Vec<CurveAt> {
    let end = finish.high.get::<minute>();
    let at_step = |step: u32| {
        let clock = (end - now) * f64::from(step) / f64::from(STEPS);
        let (mut mean, mut square) = (0.0, 0.0);
        for (share, path) in paths {
            let volume = on_path(path, clock);
            (mean, square) = (mean + share * volume, square + share * volume * volume);
        }
        let variance = (square - mean * mean).max(0.0);
        let mut middles: Vec<(f64, f64)> =
            centres.iter().map(|(share, path)| (on_path(path, clock), *share)).collect();
        middles.sort_by(|a, b| a.0.total_cmp(&b.0));
        let mut sum = 0.0;
        let middle = middles
            .iter()
            .find(|(_, share)| {
                sum += share;
                sum >= 0.5
            })
            .map_or(mean, |(volume, _)| *volume);
        around(now + clock, middle, variance.sqrt(), mean)
    };
    (1..=STEPS).map(at_step).collect()
}

/// Litres at a minute of a path; it stays where it ends.
fn on_path(path: &[(f64, f64)], clock: f64) -> f64 {
    let after = path.partition_point(|(at, _)| *at <= clock);
    match (after, path.get(after)) {
        (0, _) => path.first().map_or(0.0, |(_, volume)| *volume),
        (_, None) => path.last().map_or(0.0, |(_, volume)| *volume),
        (_, Some((to, high))) => {
            let (from, low) = path[after - 1];
            low + (high - low) * (clock - from) / (to - from).max(1e-9)
        }
    }
}
