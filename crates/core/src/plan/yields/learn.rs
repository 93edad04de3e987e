//! Yields that learn: the published range to begin with, moved by the household's own finished batches.
//!
//! Pounds a quart are looked at by their logarithm, with a normal-inverse-gamma prior: neither the household's mean nor how
//! much its batches scatter is known, and both are learned (Gelman et al., Bayesian Data Analysis, section 3.3, from
//! memory). The prior is set so that with no batch the answer is the published range itself. What comes next is a Student's t, which scattered batches widen. Older batches count less,
//! because varieties and hands change. No answer goes beyond what the mass allows.

use bodega_model::crates::fruit::Kind;
use bodega_model::kettle::contents::density;
use bodega_model::measures::range::Range;
use bodega_model::measures::units::{in_pounds, quarts};
use bodega_model::plan::making::{Making, Thickness, product_brix};
use bodega_model::tables::process::{Pack, Product};
use statrs::distribution::{ContinuousCDF, StudentsT};

use super::pounds_per_quart;

/// Standard deviations between the middle and the edge of a 90 % range.
const EDGE_SD: f64 = 1.645;
/// Share of the edges of a 90 % range that lies below each.
const UPPER: f64 = 0.95;
/// How many batches the published mean counts for. Ours: with it the ranges hold in the households of the tests.
const PRIOR_MEAN: f64 = 2.0;
/// Half of how many batches the published spread counts for. Ours, likewise.
const PRIOR_SPREAD: f64 = 2.5;
/// How much a batch counts beside the one after it. Ours, likewise.
const FADES: f64 = 0.92;
/// Highest °Brix that tomatoes have when they are ripe (common practice, no source).
const MOST_BRIX: f64 = 7.0;

/// One finished batch: what it was and how many pounds went into a quart.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Finished {
    /// What it became.
    pub product: Product,
    /// Of sauce.
    pub thickness: Option<Thickness>,
    /// What it was made of.
    pub kind: Kind,
    /// Pounds of raw fruit to a quart of product.
    pub pounds_per_quart: f64,
}

/// The household's own yield beside the published one.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Learned {
    /// Pounds a quart to plan with.
    pub pounds_per_quart: Range<f64>,
    /// Pounds a quart as published.
    pub published: Range<f64>,
    /// Batches it was learned from.
    pub batches: usize,
}

/// What the household knows: every finished batch that tells a yield.
#[derive(Debug, Clone, PartialEq, Default)]
pub struct Household {
    /// Oldest first: later ones count more.
    pub finished: Vec<Finished>,
}

impl Household {
    /// Pounds a quart for a product made of one kind of fruit.
    #[must_use]
    pub fn learn(&self, product: Product, thickness: Option<Thickness>, kind: Kind) -> Learned {
        let published = pounds_per_quart(product, thickness);
        let own: Vec<f64> = self
            .finished
            .iter()
            .filter(|batch| batch.product == product && batch.thickness == thickness && batch.kind == kind)
            .map(|batch| batch.pounds_per_quart)
            .collect();
        if own.is_empty() {
            return Learned { pounds_per_quart: published, published, batches: 0 };
        }
        let log = |pounds: f64| pounds.max(f64::MIN_POSITIVE).ln();
        let (middle, below, above) = (
            log(published.expected),
            log(published.expected / published.low),
            log(published.high / published.expected),
        );
        let mut counts = 0.0;
        let mut sum = 0.0;
        let mut squares = 0.0;
        let mut weight = 1.0;
        for pounds in own.iter().rev() {
            counts += weight;
            sum += weight * log(*pounds);
            squares += weight * log(*pounds).powi(2);
            weight *= FADES;
        }
        let mean = sum / counts;
        let scatter = (squares - counts * mean * mean).max(0.0);
        let known = PRIOR_MEAN + counts;
        let edge = |half_freedom: f64| {
            // Beyond any number of batches that a household has, a t is a normal.
            StudentsT::new(0.0, 1.0, 2.0 * half_freedom).map_or(EDGE_SD, |t| t.inverse_cdf(UPPER))
        };
        // With no batch the edges of the answer are those of the published range.
        let published_scale = f64::midpoint(below, above) / edge(PRIOR_SPREAD);
        let prior_spread = published_scale.powi(2) * PRIOR_SPREAD * PRIOR_MEAN / (PRIOR_MEAN + 1.0);
        let half_freedom = PRIOR_SPREAD + counts / 2.0;
        let spread =
            prior_spread + scatter / 2.0 + PRIOR_MEAN * counts * (mean - middle).powi(2) / (2.0 * known);
        let scale = (spread * (known + 1.0) / (half_freedom * known)).sqrt();
        let reach = edge(half_freedom) * scale;
        // The published range leans to one side; that fades as the household's own word counts.
        let lean = (above - below) / (above + below) * PRIOR_MEAN / known;
        let expected = (PRIOR_MEAN * middle + sum) / known;
        let least = log(least_pounds(product, thickness));
        let at = |log: f64| log.max(least).exp();
        Learned {
            pounds_per_quart: Range {
                low: at(expected - reach * (1.0 - lean)),
                expected: at(expected),
                high: at(expected + reach * (1.0 + lean)),
            },
            published,
            batches: own.len(),
        }
    }
}

/// The least pounds that a quart can hold: its own weight, and as much fruit as carries its solids. Whole tomatoes leave
/// room for the water around them.
fn least_pounds(product: Product, thickness: Option<Thickness>) -> f64 {
    let making = Making { product, medium: None, pack: Pack::Hot, thickness };
    let brix = product_brix(&making);
    let quart = in_pounds(quarts(1.0) * density(brix));
    if product == Product::Whole { quart / 2.0 } else { quart * (brix / MOST_BRIX).max(1.0) }
}

#[cfg(test)]
mod tests {
    use super::{Finished, Household};
    use bodega_model::crates::fruit::Kind;
    use bodega_model::tables::process::Product;

    fn after(batches: &[f64]) -> super::Learned {
        let finished = batches
            .iter()
            .map(|pounds_per_quart| Finished {
                product: Product::Crushed,
                thickness: None,
                kind: Kind::Paste,
                pounds_per_quart: *pounds_per_quart,
            })
            .collect();
        Household { finished }.learn(Product::Crushed, None, Kind::Paste)
    }

    #[test]
    fn nothing_learned_is_the_published_range() {
        let learned = after(&[]);
        assert_eq!(learned.pounds_per_quart, learned.published);
        assert_eq!(learned.batches, 0);
    }

    #[test]
    fn batches_pull_the_mean_and_narrow_the_range() {
        let published = after(&[]).published;
        let own = published.expected + 0.1;
        let (one, six) = (after(&[own]), after(&[own; 6]));
        let width = |learned: &super::Learned| learned.pounds_per_quart.high - learned.pounds_per_quart.low;
        // The published mean counts for two batches.
        let third = (published.expected.powi(2) * own).cbrt();
        assert!((one.pounds_per_quart.expected - third).abs() < 1e-9);
        assert!(six.pounds_per_quart.expected > third && six.pounds_per_quart.expected < own);
        assert!(width(&six) < width(&one) && width(&six) < published.high - published.low);
    }

    #[test]
    fn scattered_batches_widen_the_range_beyond_the_published_one() {
        let published = after(&[]).published;
        let apart = [published.low * 0.8, published.high * 1.3].repeat(4);
        let learned = after(&apart).pounds_per_quart;
        assert!(learned.low < published.low && learned.high > published.high, "{learned:?}");
    }

    #[test]
    fn no_answer_promises_more_than_the_mass_allows() {
        // A quart of crushed tomatoes weighs 2.13 lb and comes out of no less fruit.
        let learned = after(&[1.0; 20]).pounds_per_quart;
        assert!((learned.low - 2.13).abs() < 0.01 && learned.expected >= learned.low, "{learned:?}");
    }

    #[test]
    fn another_kind_or_product_teaches_nothing() {
        let household = Household {
            finished: vec![Finished {
                product: Product::Crushed,
                thickness: None,
                kind: Kind::Slicer,
                pounds_per_quart: 9.0,
            }],
        };
        assert_eq!(household.learn(Product::Crushed, None, Kind::Paste).batches, 0);
        assert_eq!(household.learn(Product::Juice, None, Kind::Slicer).batches, 0);
    }
}
