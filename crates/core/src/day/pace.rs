//! The household's own pace, learned from what took time.

use std::ops::RangeInclusive;

/// Batches that the usual pace counts as, against the household's own. Ours.
const USUAL_COUNTS: f64 = 2.0;

/// Four times as fast or as slow as usual was not work: a touch was forgotten, or came late. Ours.
const BELIEVED: RangeInclusive<f64> = 0.25..=4.0;

/// How many times as long hands take here as usual, from the usual minutes and those that it took: the usual pace, moved
/// by the household's own days.
#[must_use]
pub fn own_pace(shown: &[(f64, f64)]) -> f64 {
    let ratios: Vec<f64> =
        shown.iter().map(|(usual, took)| took / usual).filter(|ratio| BELIEVED.contains(ratio)).collect();
    #[allow(clippy::cast_precision_loss)] // a count of days
    let count = ratios.len() as f64;
    (USUAL_COUNTS + ratios.iter().sum::<f64>()) / (USUAL_COUNTS + count)
}
