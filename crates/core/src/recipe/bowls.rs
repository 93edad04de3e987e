//! The bowls of a recipe: what is to be in them, and what that is against the recipe.

use super::compare::{Comparison, compare_before_labels, compare_filled};
use super::measure::exact;
use super::part::Part;
use super::scale::scaled;
use crate::jars::size::JarSize;
use crate::records::recipe::Bowls;

/// What the card asks for: the recipe so many times.
#[must_use]
pub fn planned(bowls: &Bowls) -> Vec<Part> {
    scaled(&bowls.base, &exact(bowls.factor))
}

/// What is in them against the recipe; `jars` are those that are set out for it.
#[must_use]
pub fn seen(bowls: &Bowls, jars: &[(JarSize, u32)]) -> Comparison {
    if bowls.labels_asked {
        compare_filled(&bowls.base, &bowls.actual, jars)
    } else {
        compare_before_labels(&bowls.base, &bowls.actual, jars)
    }
}

/// Bowls for these parts, with nothing measured yet. What goes into each jar stands in no bowl: it is ticked jar by jar.
#[must_use]
pub fn empty(parts: &[Part]) -> Vec<Part> {
    let amount = |part: &Part| part.amount.filter(|_| !part.per.is_batch());
    parts.iter().map(|part| Part { amount: amount(part), ..part.clone() }).collect()
}
