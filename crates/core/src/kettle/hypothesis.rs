//! Several explanations of what was read, side by side: each a belief of the kettle with a weight.
//!
//! A reading that surprises may be a slip, or somebody turned the heat, or something went in or out that nobody told.
//! Every explanation is kept as long as it may be true, and the readings to come decide between them.

use statrs::function::erf::erf;

use super::belief::{Belief, Spread, log_normal};
use super::observation::Observation;
use super::pot::{LOSS, MASS, POWER, Pot, SOLIDS, STATES, State, TEMPERATURE};
use super::vessel::Vessel;

/// Share of the explanations from which one is asked about.
pub const ASKED_FROM: f64 = 0.6;
/// Explanations that are kept.
const KEPT: usize = 18;
/// Share of the explanations that is looked ahead from.
const NEARLY_ALL: f64 = 0.985;
/// Those less likely than the best by this factor are dropped, as a natural logarithm.
const HOPELESS: f64 = -9.0;
/// Slips among readings. Ours, as are all chances and doubts here; held by simulated kitchens.
const SLIPS: f64 = 0.012;
/// How much further off than its error a slip lies.
const SLIP_REACH: f64 = 12.0;
/// And of what was to be read: digits change places, and units.
const SLIP_SHARE: f64 = 0.3;
/// Readings before which something went in or out that nobody told.
const MOVED_UNTOLD: f64 = 0.002;
/// How much that is, of what is in the kettle.
const MOVED_SHARE: f64 = 0.25;
/// Standard deviations from which a reading is a surprise that may be explained away.
const SURPRISING: f64 = 2.0;
/// Standard deviations from which an early reading makes one ask whether the heat was turned.
const ODD: f64 = 1.3;
/// How often an hour somebody turns the heat and does not tell.
const TURNED_AN_HOUR: f64 = 2.0;
/// Before it boils hands stay off the knob.
const TURNED_AN_HOUR_BELOW: f64 = 0.1;
/// Kettles that boil where all that was read made them cold: under a lid nothing dries, and a scale that stands still is
/// then no weak burner.
const BOILS_UNSEEN: f64 = 0.01;
/// How long before a reading that may have begun is unknown by about so many degrees of the run-on temperature.
const UNSEEN_C: f64 = 5.0;
/// Explanations less likely than the best by this factor are not asked whether it was so, as a natural logarithm.
const WORTH_ASKING: f64 = -2.7;
/// By how much, in the logarithm of the power.
const TURNED_BY: f64 = 0.6;
/// Share of the stretch that is under the turned heat, on average.
const TURNED_BEFORE: f64 = 0.4;
/// Wander of the heat in an hour, in the logarithm of the power.
pub const WANDER: f64 = 0.025;
/// Share of the water that leaves by which the model may be off.
const LEAK: f64 = 0.015;
/// Whoever says "it boils" for the first time says it about so many minutes after it began, and is off by so many.
const SAID_AFTER_MIN: f64 = 1.5;
const SAID_ERROR_MIN: f64 = 2.5;
/// Share of those who say it when it begins; the others only say that it does.
const SAYS_WHEN_IT_BEGINS: f64 = 0.8;
/// A kettle is called boiling from so many degrees below the boil on.
const NEARLY_C: f64 = 1.5;

/// How a reading was explained away.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Why {
    /// It was read wrong.
    Slip,
    /// Something went in or out.
    Moved,
}

/// One explanation.
#[derive(Debug, Clone)]
pub struct Hypothesis {
    /// Natural logarithm of its weight.
    pub weight: f64,
    /// The kettle, if it is so.
    pub belief: Belief,
    /// Whether levels were read in hot sauce, as they stood.
    pub hot: bool,
    /// How well this person reads: a factor on the usual errors.
    pub hand: f64,
    /// Litres that a share counts of.
    pub base_l: f64,
    /// What was explained away, by place in the log.
    pub why: Vec<(usize, Why)>,
    /// Minute at which it began to boil, with its variance.
    pub boiled: Option<(f64, f64)>,
    /// Power of the burner as it was expected at this setting before anything was read, with its variance.
    pub burner: (f64, f64),
}

/// Weight of the likeliest.
fn best_of(all: &[Hypothesis]) -> f64 {
    all.iter().map(|hypothesis| hypothesis.weight).fold(f64::NEG_INFINITY, f64::max)
}

/// Share of a normal distribution below a number of standard deviations.
pub fn normal_cdf(deviations: f64) -> f64 {
    0.5 * (1.0 + erf(deviations * std::f64::consts::FRAC_1_SQRT_2))
}

impl Hypothesis {
    /// Whether it is likelier than not that it boils.
    fn is_boiling(&self, pot: &Pot) -> bool {
        self.belief.mean[TEMPERATURE] >= pot.boils_at(&self.belief.mean)
    }

    /// Moves on by minutes, until now.
    fn run(&mut self, pot: &Pot, minutes: f64, lid: bool, now: f64) {
        let before = self.belief.mean[MASS];
        self.belief.moved(|state| pot.run(state, minutes, lid));
        let hours = minutes / 60.0;
        self.belief.doubt(POWER, WANDER * WANDER * hours);
        self.belief.doubt(MASS, (LEAK * (before - self.belief.mean[MASS])).powi(2));
        self.note_boil(pot, now, lid);
    }

    /// Writes down when it began to boil, once that is likelier than not.
    fn note_boil(&mut self, pot: &Pot, now: f64, lid: bool) {
        if self.boiled.is_none() && self.is_boiling(pot) {
            let since = self.belief.predicted(|state| pot.since_boil(state, lid).clamp(-120.0, 120.0));
            self.boiled = Some(((now - since.mean).clamp(0.0, now), since.variance));
        }
    }

    fn with(&self, chance: f64) -> Self {
        let mut other = self.clone();
        other.weight += chance.ln();
        other
    }

    /// The hypothesis that the kettle boils already and the early readings were wrong; restarts from the prior burner.
    fn boils_unseen(&self, pot: &Pot) -> Self {
        let mut other = self.with(BOILS_UNSEEN);
        let at = pot.boils_at(&other.belief.mean);
        other.belief.begin_anew(TEMPERATURE, at, UNSEEN_C * UNSEEN_C);
        other.belief.begin_anew(POWER, self.burner.0, self.burner.1);
        other
    }

    /// A reading in numbers: it holds, or it was a slip, or something had moved.
    fn figure(
        self,
        place: usize,
        read: impl Fn(&State) -> f64,
        value: f64,
        error: f64,
        sure: bool,
    ) -> Vec<Self> {
        let seen = self.belief.nearly(&read);
        let mut all = Vec::with_capacity(3);
        let surprise = (value - seen.mean).abs() / (seen.variance + error * error).sqrt();
        if surprise < SURPRISING {
            let mut holds = self;
            holds.weight += holds.belief.read(&seen, value, error);
            return vec![holds];
        }
        let mut moved = self.with(MOVED_UNTOLD);
        let mut part = State::zeros();
        part[MASS] = MOVED_SHARE * self.belief.mean[MASS];
        part[SOLIDS] = MOVED_SHARE * self.belief.mean[SOLIDS];
        moved.belief.spread += part * part.transpose();
        let other = moved.belief.nearly(&read);
        moved.weight += moved.belief.read(&other, value, error);
        moved.why.push((place, Why::Moved));
        if !sure {
            let mut slip = self.with(SLIPS);
            let reach = (SLIP_REACH * error).hypot(SLIP_SHARE * seen.mean);
            slip.weight += log_normal(value - seen.mean, seen.variance + reach * reach);
            slip.why.push((place, Why::Slip));
            all.push(slip);
        }
        let mut holds = self.with(1.0 - SLIPS - MOVED_UNTOLD);
        holds.weight += holds.belief.read(&seen, value, error);
        all.extend([moved, holds]);
        all
    }

    /// Learns that a number lies above nothing (or below it); gives how likely that was.
    fn one_sided(&mut self, read: impl Fn(&State) -> f64, above: bool) -> f64 {
        let sign = if above { 1.0 } else { -1.0 };
        let seen = self.belief.predicted(|state| sign * read(state));
        let deviation = seen.variance.sqrt().max(1e-6);
        let ratio = seen.mean / deviation;
        let chance = normal_cdf(ratio).max(1e-4);
        if ratio > -4.0 {
            let density = (-0.5 * ratio * ratio).exp() / std::f64::consts::TAU.sqrt();
            let hazard = density / chance;
            let variance = seen.variance * (1.0 - hazard * (hazard + ratio)).max(0.02);
            self.belief.learn(&seen, seen.mean + deviation * hazard, variance);
        } else {
            self.belief.learn(&seen, 0.2 * deviation, 0.05 * seen.variance);
        }
        chance
    }

    /// "It boils", said for the first time or again, or "not yet".
    fn boils(self, place: usize, pot: &Pot, said: &Said, sure: bool) -> Vec<Self> {
        let over = |state: &State| state[TEMPERATURE] - pot.boils_at(state);
        let mut all = Vec::with_capacity(3);
        if !sure {
            let mut slip = self.with(SLIPS);
            slip.weight -= 2.0;
            slip.why.push((place, Why::Slip));
            all.push(slip);
        }
        if !said.boils {
            let mut cold = self.with(1.0 - SLIPS);
            cold.boiled = None;
            cold.weight += cold.one_sided(|state| over(state) + NEARLY_C, false).ln();
            all.push(cold);
            return all;
        }
        let mut later = self.with(if said.first { 1.0 - SAYS_WHEN_IT_BEGINS } else { 1.0 });
        later.weight += later.one_sided(|state| over(state) + NEARLY_C, true).ln();
        if said.first {
            // Against somebody who looks in now and then stands how long ago he may have seen it begin.
            later.weight -= said.since_not.unwrap_or(said.now).max(5.0).ln();
            let mut begins = self.with(SAYS_WHEN_IT_BEGINS);
            let seen = begins.belief.predicted(|state| pot.since_boil(state, said.lid).clamp(-240.0, 120.0));
            begins.weight += begins.belief.read(&seen, SAID_AFTER_MIN, SAID_ERROR_MIN);
            begins.boiled = Some(((said.now - SAID_AFTER_MIN).max(0.0), SAID_ERROR_MIN * SAID_ERROR_MIN));
            all.push(begins);
        }
        all.push(later);
        all
    }
}

/// What somebody said of the boil.
#[derive(Debug, Clone, Copy)]
pub struct Said {
    /// It boils.
    pub boils: bool,
    /// For the first time.
    pub first: bool,
    /// Minutes since somebody said that it does not.
    pub since_not: Option<f64>,
    /// The lid is on.
    pub lid: bool,
    /// Minute.
    pub now: f64,
}

/// A reading as it is taken.
#[derive(Debug, Clone, Copy)]
pub struct Reading<'a> {
    /// Its place in the log.
    pub place: usize,
    /// What was read.
    pub observation: Observation,
    /// Whether it is no slip.
    pub sure: bool,
    /// Whether it is among the last of the log.
    pub late: bool,
    /// What went in, kg.
    pub start_kg: f64,
    /// The kettle.
    pub vessel: &'a Vessel,
    /// What is said of the boil.
    pub said: Said,
}

/// A prior: a mean and a standard deviation for each number of the state.
#[derive(Debug, Clone, Copy)]
pub struct Prior {
    /// Its weight.
    pub weight: f64,
    /// Means.
    pub mean: [f64; STATES],
    /// Standard deviations.
    pub off: [f64; STATES],
    /// Whether levels were read in hot sauce, as they stood.
    pub hot: bool,
    /// How well this person reads: a factor on the usual errors.
    pub hand: f64,
}

/// All explanations together.
#[derive(Debug, Clone)]
pub struct Hypotheses(pub Vec<Hypothesis>);

impl Hypotheses {
    /// The explanations before anything was read.
    #[must_use]
    pub fn new(priors: &[Prior], base_l: f64, pot: &Pot) -> Self {
        let hypothesis = |prior: &Prior| {
            let off = State::from(prior.off);
            let mut spread = Spread::from_diagonal(&off.component_mul(&off));
            // What is known of the water that leaves is net of the loss: more loss goes with more power.
            let lost = pot.lost_at_boil(prior.mean[LOSS]) / prior.mean[POWER].exp();
            let hangs = lost * spread[(LOSS, LOSS)];
            spread[(POWER, LOSS)] = hangs;
            spread[(LOSS, POWER)] = hangs;
            spread[(POWER, POWER)] += lost * hangs;
            let belief = Belief { mean: State::from(prior.mean), spread };
            let mut hypothesis = Hypothesis {
                weight: prior.weight.ln(),
                belief,
                hot: prior.hot,
                hand: prior.hand,
                base_l,
                why: Vec::new(),
                boiled: None,
                burner: (prior.mean[POWER], spread[(POWER, POWER)]),
            };
            if hypothesis.belief.mean[TEMPERATURE] >= pot.boils_c {
                hypothesis.boiled = Some((0.0, 0.0));
            }
            hypothesis
        };
        Self(priors.iter().map(hypothesis).collect())
    }

    /// Moves on by minutes.
    pub fn run(&mut self, pot: &Pot, minutes: f64, lid: bool, now: f64) {
        for hypothesis in &mut self.0 {
            hypothesis.run(pot, minutes, lid, now);
        }
    }

    /// Moves on by minutes to a reading; until then somebody may have turned the heat, or it boils where it was believed
    /// cold. That is asked before every late reading, and before an early one that surprises.
    pub fn run_to_reading(&mut self, pot: &Pot, minutes: f64, to: &Reading<'_>) {
        let before = (minutes > 1.0).then(|| self.0.clone());
        self.run(pot, minutes, to.said.lid, to.said.now);
        let Some(before) = before.filter(|_| to.late || self.surprised(to, pot)) else { return };
        let best = best_of(&before);
        let says_less = self.says_more(to, pot) == Some(false);
        let mut others = Vec::new();
        for (hypothesis, mut other) in self.0.iter_mut().zip(before) {
            if other.weight < best + WORTH_ASKING {
                continue;
            }
            if says_less && !hypothesis.is_boiling(pot) {
                let mut unseen = other.boils_unseen(pot);
                unseen.run(pot, minutes, to.said.lid, to.said.now);
                others.push(unseen);
            }
            let often = if other.is_boiling(pot) { TURNED_AN_HOUR } else { TURNED_AN_HOUR_BELOW };
            let chance = (often * minutes / 60.0).clamp(0.002, 0.4);
            hypothesis.weight += (1.0 - chance).ln();
            other.weight += chance.ln();
            // At some time in between: part of the doubt goes through the stretch, the rest comes after it.
            other.belief.doubt(POWER, TURNED_BY * TURNED_BY * TURNED_BEFORE);
            other.run(pot, minutes, to.said.lid, to.said.now);
            other.belief.doubt(POWER, TURNED_BY * TURNED_BY * (1.0 - TURNED_BEFORE));
            others.push(other);
        }
        self.0.extend(others);
    }

    /// Whether a number that was read says that more is in the kettle than was expected; none of a word or a temperature.
    #[must_use]
    pub fn says_more(&self, to: &Reading<'_>, pot: &Pot) -> Option<bool> {
        let figure = to.observation.figure(to.start_kg)?;
        let expected = self
            .mean(|hypothesis| to.observation.of(pot, to.vessel, &hypothesis.belief.mean, hypothesis.hot));
        match to.observation {
            Observation::Brix(_) => Some(figure.value < expected),
            Observation::Temperature(_) | Observation::Boils(_) => None,
            Observation::Volume(_) | Observation::Depth(_) | Observation::Mass(_) => {
                Some(figure.value > expected)
            }
        }
    }

    /// Whether a reading lies off for the likeliest explanation.
    fn surprised(&self, to: &Reading<'_>, pot: &Pot) -> bool {
        let Some(figure) = to.observation.figure(to.start_kg) else { return true };
        let Some(best) = self.0.iter().max_by(|a, b| a.weight.total_cmp(&b.weight)) else { return false };
        let seen = best.belief.nearly(|state| to.observation.of(pot, to.vessel, state, best.hot));
        let error = figure.error * best.hand;
        (figure.value - seen.mean).abs() > ODD * (seen.variance + error * error).sqrt()
    }

    /// Takes a reading.
    pub fn read(&mut self, to: &Reading<'_>, pot: &Pot) {
        let Reading { place, observation, sure, vessel, .. } = *to;
        let all = std::mem::take(&mut self.0);
        self.0 = match observation.figure(to.start_kg) {
            Some(figure) => all
                .into_iter()
                .flat_map(|hypothesis| {
                    let (hot, error) = (hypothesis.hot, figure.error * hypothesis.hand);
                    let read = |state: &State| observation.of(pot, vessel, state, hot);
                    hypothesis.figure(place, read, figure.value, error, sure)
                })
                .collect(),
            None => {
                all.into_iter().flat_map(|hypothesis| hypothesis.boils(place, pot, &to.said, sure)).collect()
            }
        };
        self.prune();
    }

    /// Keeps the likeliest.
    fn prune(&mut self) {
        self.0.sort_by(|a, b| b.weight.total_cmp(&a.weight));
        self.0.truncate(KEPT);
        let best = self.0.first().map_or(0.0, |hypothesis| hypothesis.weight);
        self.0.retain(|hypothesis| hypothesis.weight > best + HOPELESS);
        let sum: f64 = self.0.iter().map(|hypothesis| (hypothesis.weight - best).exp()).sum();
        for hypothesis in &mut self.0 {
            hypothesis.weight -= best + sum.ln();
        }
    }

    /// The explanations with the share of each; the shares add up to one.
    pub fn shares(&self) -> impl Iterator<Item = (f64, &Hypothesis)> {
        let best = best_of(&self.0);
        let sum: f64 = self.0.iter().map(|hypothesis| (hypothesis.weight - best).exp()).sum();
        self.0.iter().map(move |hypothesis| ((hypothesis.weight - best).exp() / sum, hypothesis))
    }

    /// Those that together make nearly all of it, with their shares of that.
    pub fn likely(&self) -> Vec<(f64, &Hypothesis)> {
        let mut all: Vec<(f64, &Hypothesis)> = self.shares().collect();
        all.sort_by(|a, b| b.0.total_cmp(&a.0));
        let mut sum = 0.0;
        let enough = all.iter().take_while(|(share, _)| {
            let more = sum < NEARLY_ALL;
            sum += share;
            more
        });
        let kept = enough.count();
        all.truncate(kept);
        let sum: f64 = all.iter().map(|(share, _)| share).sum();
        all.into_iter().map(|(share, hypothesis)| (share / sum, hypothesis)).collect()
    }

    /// Mean of a number over all of them.
    #[must_use]
    pub fn mean(&self, of: impl Fn(&Hypothesis) -> f64) -> f64 {
        self.shares().map(|(share, hypothesis)| share * of(hypothesis)).sum()
    }

    /// A number of the state with its doubt.
    #[must_use]
    pub fn number(&self, place: usize) -> (f64, f64) {
        let mean = self.mean(|hypothesis| hypothesis.belief.mean[place]);
        let variance = self.mean(|hypothesis| {
            hypothesis.belief.spread[(place, place)] + (hypothesis.belief.mean[place] - mean).powi(2)
        });
        (mean, variance.max(0.0).sqrt())
    }

    /// Share of the explanations in which a reading was explained away so.
    #[must_use]
    pub fn share_of(&self, place: usize, why: Why) -> f64 {
        self.mean(|hypothesis| if hypothesis.why.contains(&(place, why)) { 1.0 } else { 0.0 })
    }

    /// Drops the explanations that have something explained away so, unless none would be left.
    pub fn without(&mut self, place: usize, why: Why) {
        let is = |hypothesis: &Hypothesis| hypothesis.why.contains(&(place, why));
        if !self.0.iter().all(is) {
            self.0.retain(|hypothesis| !is(hypothesis));
        }
    }

    /// Changes every belief.
    pub fn each(&mut self, change: impl Fn(&mut Hypothesis)) {
        self.0.iter_mut().for_each(change);
    }
}
