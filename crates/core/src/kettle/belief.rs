//! What is believed of a kettle's state: a mean and how sure it is, moved and taught by cubature points.
//!
//! The points are those of the third-degree spherical-radial rule (Arasaratnam and Haykin 2009): two for each number of
//! the state, all of the same weight, so that a covariance stays one.

use nalgebra::{Cholesky, SMatrix};

use super::pot::{MASS, SOLIDS, STATES, State, TEMPERATURE};

/// A covariance of the state.
pub type Spread = SMatrix<f64, STATES, STATES>;

/// Cubature points of a state.
const POINTS: usize = 2 * STATES;

/// A Gaussian belief.
#[derive(Debug, Clone)]
pub struct Belief {
    /// Most likely.
    pub mean: State,
    /// How sure.
    pub spread: Spread,
}

/// A number of the state as it is believed: its mean, its variance, and how the state hangs on it.
#[derive(Debug, Clone, Copy)]
pub struct Predicted {
    /// Mean.
    pub mean: f64,
    /// Variance.
    pub variance: f64,
    /// Covariance of the state with it.
    covariance: State,
}

impl Belief {
    /// The root of its covariance.
    fn root(&self) -> Spread {
        // The doubt of a number that is known for sure is nil: a trace of it keeps the root.
        let mut spread = self.spread;
        loop {
            if let Some(root) = Cholesky::new(spread) {
                return root.unpack();
            }
            for place in 0..STATES {
                spread[(place, place)] += 1e-9 + 1e-6 * spread[(place, place)].abs();
            }
        }
    }

    /// Its cubature points.
    #[must_use]
    pub fn points(&self) -> [State; POINTS] {
        let root = self.root();
        #[allow(clippy::cast_precision_loss)] // seven
        let reach = (STATES as f64).sqrt();
        std::array::from_fn(|place| {
            let column = root.column(place / 2) * reach;
            if place % 2 == 0 { self.mean + column } else { self.mean - column }
        })
    }

    /// The corners of a simplex with its mean and covariance: half as many points.
    #[allow(clippy::cast_precision_loss)] // seven
    fn corners(&self) -> [State; STATES + 1] {
        let root = self.root();
        let all = (STATES + 1) as f64;
        let mut corners = [self.mean; STATES + 1];
        for place in 0..STATES {
            let step = (place + 1) as f64;
            let near = (all / (step * (step + 1.0))).sqrt();
            let column = root.column(place);
            for corner in &mut corners[..=place] {
                *corner -= column * near;
            }
            corners[place + 1] += column * (near * step);
        }
        corners
    }

    /// Moves it on.
    #[allow(clippy::cast_precision_loss)] // eight
    pub fn moved(&mut self, change: impl Fn(&mut State)) {
        let mut corners = self.corners();
        corners.iter_mut().for_each(change);
        let share = 1.0 / corners.len() as f64;
        self.mean = corners.iter().sum::<State>() * share;
        self.spread = Spread::zeros();
        for corner in &corners {
            let off = corner - self.mean;
            self.spread.ger(share, &off, &off, 1.0);
        }
    }

    /// Adds doubt to one number, as a variance.
    pub fn doubt(&mut self, place: usize, variance: f64) {
        self.spread[(place, place)] += variance;
    }

    /// Drops all that is believed of one number for a mean and a variance that hang on nothing else.
    pub fn begin_anew(&mut self, place: usize, mean: f64, variance: f64) {
        self.mean[place] = mean;
        self.spread.fill_row(place, 0.0);
        self.spread.fill_column(place, 0.0);
        self.spread[(place, place)] = variance;
    }

    /// What would be read of it.
    #[must_use]
    #[allow(clippy::cast_precision_loss)] // fourteen
    pub fn predicted(&self, read: impl Fn(&State) -> f64) -> Predicted {
        let points = self.points();
        let values = points.map(|point| read(&point));
        let mean = values.iter().sum::<f64>() / POINTS as f64;
        let mut seen = Predicted { mean, variance: 0.0, covariance: State::zeros() };
        for (point, value) in points.iter().zip(values) {
            seen.variance += (value - mean).powi(2) / POINTS as f64;
            seen.covariance += (point - self.mean) * ((value - mean) / POINTS as f64);
        }
        seen
    }

    /// [`Self::predicted`] of a number that hangs nearly straight on the state: a level, a mass, a strength.
    #[must_use]
    pub fn nearly(&self, read: impl Fn(&State) -> f64) -> Predicted {
        let mean = read(&self.mean);
        let mut slope = State::zeros();
        for place in [TEMPERATURE, MASS, SOLIDS] {
            let reach = self.spread[(place, place)].max(0.0).sqrt().max(1e-6);
            let mut aside = self.mean;
            aside[place] += reach;
            slope[place] = (read(&aside) - mean) / reach;
        }
        let covariance = self.spread * slope;
        Predicted { mean, variance: slope.dot(&covariance).max(0.0), covariance }
    }

    /// Learns that what was seen has this mean and variance now.
    pub fn learn(&mut self, seen: &Predicted, mean: f64, variance: f64) {
        if seen.variance <= 1e-12 {
            return;
        }
        let gain = seen.covariance / seen.variance;
        self.mean += gain * (mean - seen.mean);
        self.spread += gain * gain.transpose() * (variance - seen.variance);
        self.spread = (self.spread + self.spread.transpose()) * 0.5;
    }

    /// Takes a reading with an error; gives the natural logarithm of its likelihood.
    pub fn read(&mut self, seen: &Predicted, value: f64, error: f64) -> f64 {
        let noise = error * error;
        let all = seen.variance + noise;
        let off = value - seen.mean;
        self.learn(seen, seen.mean + seen.variance / all * off, seen.variance * noise / all);
        log_normal(off, all)
    }
}

/// Natural logarithm of the normal density.
#[must_use]
pub fn log_normal(off: f64, variance: f64) -> f64 {
    -0.5 * (off * off / variance + (std::f64::consts::TAU * variance).ln())
}
