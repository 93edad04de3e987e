//! Yields that learn: the published range to begin with, moved by the household's own finished batches.
//!
//! A stated Bayesian update, ours. The published range is read as the 90 % range of what a batch takes, pounds a quart.
//! Half of its variance lies between households and half between the batches of one. The household's mean then follows
//! the normal rule for known variances: prior mean and batches weighed by how sure each is. With no batch the answer is
//! the published range itself.

use super::{Range, Thickness, pounds_per_quart};
use crate::crates::fruit::Kind;
use crate::tables::process::Product;

/// Standard deviations between the middle and the edge of a 90 % range.
const EDGE_SD: f64 = 1.645;
/// Share of the published variance that lies between the batches of one household.
const WITHIN: f64 = 0.5;

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
    /// In any order.
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
        let spread = (published.high - published.low) / (2.0 * EDGE_SD);
        let (within, between) = (spread * spread * WITHIN, spread * spread * (1.0 - WITHIN));
        #[allow(clippy::cast_precision_loss)] // a count of batches
        let count = own.len() as f64;
        let sure = 1.0 / between + count / within;
        let mean = (published.expected / between + own.iter().sum::<f64>() / within) / sure;
        // The next batch differs from the household's mean by its own chance and by what is not known of the mean.
        let narrower = ((within + 1.0 / sure) / (spread * spread)).sqrt();
        Learned {
            pounds_per_quart: Range {
                low: mean - (published.expected - published.low) * narrower,
                expected: mean,
                high: mean + (published.high - published.expected) * narrower,
            },
            published,
            batches: own.len(),
        }
    }
}

#[cfg(test)]
mod tests {
    use super::{Finished, Household};
    use crate::crates::fruit::Kind;
    use crate::tables::process::Product;

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
        let own = published.expected + 0.3;
        let (one, six) = (after(&[own]), after(&[own; 6]));
        let width = |learned: &super::Learned| learned.pounds_per_quart.high - learned.pounds_per_quart.low;
        // With equal variances one batch counts as much as the published mean.
        assert!((one.pounds_per_quart.expected - (published.expected + 0.15)).abs() < 1e-9);
        assert!((six.pounds_per_quart.expected - (published.expected + 0.3 * 6.0 / 7.0)).abs() < 1e-9);
        assert!(width(&six) < width(&one) && width(&one) < published.high - published.low);
        // Never narrower than the batches of one household scatter.
        assert!(width(&after(&[own; 500])) > 0.7 * (published.high - published.low));
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
