//! The bowls of a recipe: what is to be in them, and what that is against the recipe.

use bodega_model::jars::size::JarSize;
use bodega_model::measures::amounts::{Unit, exact};
use bodega_model::recipe::acids::is_strength_open;
use bodega_model::recipe::part::{Part, Strength};
use bodega_model::records::recipe::Bowls;

use super::compare::{Comparison, compare_filled};
use super::scale::scaled;

/// What the card asks for: the recipe so many times.
#[must_use]
pub fn planned(bowls: &Bowls) -> Vec<Part> {
    scaled(&bowls.base, &exact(bowls.factor))
}

/// What is in them against the recipe; `jars` are those that are set out for it.
#[must_use]
pub fn seen(bowls: &Bowls, jars: &[(JarSize, u32)]) -> Comparison {
    compare_filled(&bowls.base, &bowls.actual, jars, bowls.labels_asked)
}

/// Bowls for these parts, with nothing measured yet. What goes into each jar stands in no bowl: it is ticked jar by jar.
#[must_use]
pub fn empty(parts: &[Part]) -> Vec<Part> {
    let amount = |part: &Part| part.amount.filter(|_| !part.per.is_batch());
    parts.iter().map(|part| Part { amount: amount(part), ..part.clone() }).collect()
}

/// What is in them when everything that nobody measured yet is in as the card says.
#[must_use]
pub fn as_planned(bowls: &Bowls, mut actual: Vec<Part>) -> Vec<Part> {
    for (part, planned) in actual.iter_mut().zip(planned(bowls)).filter(|(part, _)| part.amount.is_none()) {
        (part.amount, part.unit) = (planned.amount, planned.unit);
    }
    actual
}

/// What went in otherwise than the card asks, in words: "2 cups onion, not 3 cups", "1 cup corn, not on the card".
#[must_use]
pub fn changes(bowls: &Bowls) -> Vec<String> {
    let planned = planned(bowls);
    let in_bowl = |(place, part): (usize, &Part)| {
        let Some(card) = planned.get(place) else {
            return part.is_there().then(|| format!("{}, not on the card", part.says()));
        };
        if !part.per.is_batch() || part.amount.is_none() {
            return None;
        }
        let is_other =
            part.size() != card.size() || part.unit.map(Unit::dimension) != card.unit.map(Unit::dimension);
        (is_other && !part.is_there()).then(|| format!("no {}", part.name)).or_else(|| {
            let card = if card.amount.is_none() {
                "not said on the card".to_owned()
            } else {
                format!("not {}", card.amount_in_words())
            };
            is_other.then(|| format!("{}, {card}", part.says()))
        })
    };
    bowls.actual.iter().enumerate().filter_map(in_bowl).collect()
}

/// What is in them when all of its vinegar whose strength its name does not say is so strong.
#[must_use]
pub fn with_strength(strength: Strength, mut actual: Vec<Part>) -> Vec<Part> {
    for part in actual.iter_mut().filter(|part| part.strength.is_some() || is_strength_open(part)) {
        part.strength = Some(strength);
    }
    actual
}

/// Whether nobody has said yet how strong the vinegar in them is.
#[must_use]
pub fn asks_strength(bowls: &Bowls) -> bool {
    bowls.labels_asked && bowls.actual.iter().any(is_strength_open)
}
