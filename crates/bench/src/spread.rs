//! Numbers of several rounds as they are written down: the median and the ends.

use std::fmt;

/// Several measurements of one thing.
pub struct Spread(Vec<f64>);

impl Spread {
    /// Of measurements in any order.
    #[must_use]
    pub fn of(mut all: Vec<f64>) -> Self {
        all.sort_by(f64::total_cmp);
        Self(all)
    }

    /// The one in the middle.
    #[must_use]
    pub fn median(&self) -> f64 {
        self.0.get(self.0.len() / 2).copied().unwrap_or(f64::NAN)
    }
}

impl fmt::Display for Spread {
    fn fmt(&self, out: &mut fmt::Formatter<'_>) -> fmt::Result {
        let (low, high) =
            (self.0.first().copied().unwrap_or(f64::NAN), self.0.last().copied().unwrap_or(f64::NAN));
        write!(out, "{:.2} ({low:.2} to {high:.2})", self.median())
    }
}
