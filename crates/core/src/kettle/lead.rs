//! When it will be thick: a kettle in motion, taught by what is read of it.
//!
//! The whole state is estimated: temperature, mass and solids, the heat that gets in, what is lost, and how it thickens.
//! [`super::hypothesis`] keeps the explanations of what was read side by side; here they are begun from what is known at the
//! start, led along the log, and asked when the goal is reached. The interval is an 80 % one: kitchens that are simulated by
//! other equations hold it to that.

use bodega_model::kettle::contents::Contents;
use bodega_model::measures::units::{MassRate, Volume, in_celsius, kilograms, litres};
use uom::si::mass::kilogram;
use uom::si::mass_rate::kilogram_per_hour;
use uom::si::time::minute;
use uom::si::volume::liter;

use super::ahead::{point, stretch};
use super::finish::{Asks, CookDown, Flagged, Forecast, Happened, Mark};
use super::heat::by_weight;
use super::hypothesis::{ASKED_FROM, Hypotheses, Hypothesis, Reading, Said, Why};
use super::observation::Observation;
use super::pot::{LOSS, MASS, POWER, Pot, SOLIDS, TEMPERATURE, THICKENS, expansion};

/// What is poured in or out is measured to about this share of it.
const POURED_SHARE: f64 = 0.05;
/// How far the soluble solids in what was taken off may be off: it is not equally strong everywhere.
const DRAINED_SOLIDS_SHARE: f64 = 0.15;
/// How far the expected change may be off when the heat is turned, in the logarithm of the power.
const TURN_DOUBT: f64 = 0.25;
/// Share of the explanations that have it a slip from which a reading that is asked about is put aside.
const PUT_ASIDE_FROM: f64 = 0.1;
/// Entries at the end of the log that are late.
const LATE: usize = 12;

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
        let mut hypotheses = Hypotheses::new(&self.priors(&pot), start_l, &pot);
        let starts_c = hypotheses.mean(|hypothesis| hypothesis.belief.mean[TEMPERATURE]);
        let mut expected = self.heat.rate(self.altitude).map(|rate| rate.get::<kilogram_per_hour>());
        let (mut now, mut lid, mut said, mut not_yet) = (0.0_f64, false, false, None);
        let mut curve = vec![point(&hypotheses, 0.0)];
        let (mut stretches, mut readings, mut taken) = (Vec::new(), Vec::new(), Vec::new());
        let mut order: Vec<usize> = (0..self.log.len()).collect();
        order.sort_by(|a, b| self.log[*a].0.value.total_cmp(&self.log[*b].0.value));
        for (entry, place) in order.into_iter().enumerate() {
            let (when, what) = self.log[place];
            let when = when.get::<minute>().max(now);
            let minutes = when - now;
            now = when;
            if !matches!(what, Happened::Read { .. }) {
                hypotheses.run(&pot, minutes, lid, now);
            }
            match what {
                Happened::Read { observation, sure } => {
                    let boils = observation == Observation::Boils(true);
                    let since_not = not_yet.map(|at: f64| now - at);
                    let reading = Reading {
                        place,
                        observation,
                        sure,
                        late: entry + LATE >= self.log.len(),
                        start_kg,
                        vessel: &self.vessel,
                        said: Said { boils, first: !said, since_not, lid, now },
                    };
                    hypotheses.run_to_reading(&pot, minutes, &reading);
                    let says_more = hypotheses.says_more(&reading, &pot);
                    taken.push(Taken { place, sure, says_more });
                    hypotheses.read(&reading, &pot);
                    said |= boils;
                    if observation == Observation::Boils(false) {
                        not_yet = Some(now);
                    }
                    readings.push(place);
                }
                Happened::Turned { water } => {
                    let to = by_weight(water).get::<kilogram_per_hour>();
                    stretches.push(stretch(&hypotheses, &pot, &std::mem::take(&mut readings)));
                    let from = expected.unwrap_or(to);
                    hypotheses.each(|hypothesis| turn(hypothesis, &pot, from, to));
                    expected = Some(to);
                }
                Happened::Added { more, at } => {
                    let (kg, solids) = (more.mass.get::<kilogram>(), more.solids.get::<kilogram>());
                    let (volume, at) = (more.volume().get::<liter>(), in_celsius(at));
                    hypotheses.each(|hypothesis| {
                        hypothesis.belief.moved(|state| {
                            let here = pot.temperature(state);
                            state[TEMPERATURE] = (here * state[MASS] + at * kg) / (state[MASS] + kg);
                            state[MASS] += kg;
                            state[SOLIDS] += solids;
                        });
                        hypothesis.belief.doubt(MASS, (POURED_SHARE * kg).powi(2));
                        hypothesis.belief.doubt(SOLIDS, (POURED_SHARE * solids).powi(2));
                        hypothesis.base_l += volume;
                    });
                }
                Happened::Lid(on) => lid = on,
                Happened::Drained { volume, serum } => {
                    let volume = volume.get::<liter>();
                    hypotheses.each(|hypothesis| drain(hypothesis, volume, serum));
                }
            }
            curve.push(point(&hypotheses, now));
        }
        let flagged = flagged(&hypotheses, &taken);
        // Until somebody says why, the time goes without a reading that nothing bears out.
        for aside in flagged.iter().filter(|flagged| !flagged.obeyed) {
            hypotheses.without(aside.place, Why::Moved);
        }
        if let Some(last) = curve.last_mut().filter(|_| !flagged.is_empty()) {
            *last = point(&hypotheses, now);
        }
        stretches.push(stretch(&hypotheses, &pot, &readings));
        let ahead = self.look_ahead(&hypotheses, &pot, now);
        curve.extend(ahead.curve);
        let solids = kilograms(hypotheses.mean(|hypothesis| hypothesis.belief.mean[SOLIDS]));
        let base = litres(hypotheses.mean(|hypothesis| hypothesis.base_l));
        let goal = self.target.contents(base, solids);
        let mark = |goal: Contents| Mark {
            cold: self.vessel.depth_of(goal.volume()),
            hot: self.vessel.depth_of(goal.volume() * expansion(pot.boils_c)),
        };
        let at_the_end = || {
            let volume = curve.last().map_or_else(Volume::default, |point| point.volume);
            Contents { mass: solids, solids }.boiled_to(volume)
        };
        let rate = hypotheses.mean(|hypothesis| pot.rate_at_boil(&hypothesis.belief.mean));
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
            thickens: hypotheses.number(THICKENS),
        }
    }
}

/// Readings that disagree with all else, in the order of the log, and what to ask of each.
fn flagged(hypotheses: &Hypotheses, taken: &[Taken]) -> Vec<Flagged> {
    let asks = |taken: &Taken| match taken.says_more {
        Some(true) => vec![Asks::MoreWentIn, Asks::HeatTurned],
        Some(false) => vec![Asks::TakenOff, Asks::HeatTurned],
        None => vec![Asks::HeatTurned],
    };
    let odd = |taken: &&Taken| {
        let share =
            hypotheses.share_of(taken.place, Why::Slip) + hypotheses.share_of(taken.place, Why::Moved);
        !taken.sure && share >= ASKED_FROM
    };
    let mut flagged: Vec<Flagged> = taken
        .iter()
        .filter(odd)
        .map(|taken| Flagged {
            place: taken.place,
            asks: asks(taken),
            obeyed: hypotheses.share_of(taken.place, Why::Slip) < PUT_ASIDE_FROM,
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

/// The heat is turned: the power changes as the water that leaves does, and is surer of nothing.
fn turn(hypothesis: &mut Hypothesis, pot: &Pot, from: f64, to: f64) {
    let loss = hypothesis.belief.mean[LOSS];
    let by = pot.power_for(to, loss) - pot.power_for(from, loss);
    hypothesis.belief.mean[POWER] += by;
    hypothesis.belief.doubt(POWER, TURN_DOUBT * TURN_DOUBT);
    hypothesis.burner = (hypothesis.burner.0 + by, hypothesis.burner.1 + TURN_DOUBT * TURN_DOUBT);
}

/// Takes a volume off at the strength of the liquid.
fn drain(hypothesis: &mut Hypothesis, volume: f64, serum: bool) {
    let here = Pot::litres(&hypothesis.belief.mean);
    let part = (volume / here).clamp(0.0, 0.95);
    let kg = part * hypothesis.belief.mean[MASS];
    hypothesis.belief.moved(|state| {
        let left = (1.0 - kg / state[MASS]).max(0.05);
        state[MASS] *= left;
        state[SOLIDS] *= left;
    });
    hypothesis.belief.doubt(MASS, (POURED_SHARE * kg).powi(2));
    let solids = part * hypothesis.belief.mean[SOLIDS];
    hypothesis.belief.doubt(SOLIDS, (DRAINED_SOLIDS_SHARE * solids).powi(2));
    if !serum {
        hypothesis.base_l *= 1.0 - part;
    }
}
