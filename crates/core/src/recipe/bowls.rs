//! The bowls of a recipe: what is to be in them, and what that is against the recipe.

use super::compare::{Comparison, compare};
use super::measure::exact;
use super::part::Part;
use super::scale::scaled;
use crate::records::recipe::Bowls;

/// What the card asks for: the recipe so many times.
#[must_use]
pub fn planned(bowls: &Bowls) -> Vec<Part> {
    scaled(&bowls.base, &exact(bowls.factor))
}

/// What is in them against the recipe.
#[must_use]
pub fn seen(bowls: &Bowls) -> Comparison {
    compare(&bowls.base, &bowls.actual)
}

/// Bowls for these parts, with nothing measured yet.
#[must_use]
pub fn empty(parts: &[Part]) -> Vec<Part> {
    parts.iter().map(|part| Part { amount: None, ..part.clone() }).collect()
}
