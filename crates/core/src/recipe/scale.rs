//! A recipe made more or less often than once: from the tomatoes there are, from the scarcest part, from the jars wanted.

use bodega_model::measures::amounts::{Dimension, Unit, decimal, exact, ratio};
use bodega_model::measures::names::LONGEST_NAME;
use bodega_model::measures::units::{Mass, Volume, in_pounds, kilograms, quarts};
use bodega_model::measures::words::short;
use bodega_model::recipe::part::{Part, Role, Side};
use bodega_model::records::recipe::{Makes, RecipeLine, RecipeText};
use num_rational::BigRational;
use num_traits::Zero;

use super::compare::compare;
use super::role::role_by_name;
use crate::recipe::page::parts_of;

/// Which way an amount may be rounded.
fn rounded(role: Role, amount: &BigRational, step: &BigRational) -> BigRational {
    let steps = amount / step;
    let whole = match role.side() {
        // The tomatoes are as they are; everything is in proportion to them.
        _ if role == Role::Tomato => return amount.clone(),
        // Never less acid, never more of what is low in it.
        Side::Up => steps.ceil(),
        Side::Down | Side::Never => steps.floor(),
        Side::Any => steps.round(),
    };
    whole * step
}

/// US kitchen measures from large to small into which spoons grow; what is written in cups stays in cups.
const KITCHEN: [Unit; 3] = [Unit::Cup, Unit::Tablespoon, Unit::Teaspoon];

/// The measure in which a person would measure it out: 12 Tbsp are ¾ cup.
fn at_hand(amount: &BigRational, unit: Unit) -> (BigRational, Unit) {
    if unit.dimension() != Dimension::Volume
        || matches!(unit, Unit::Millilitre | Unit::Litre | Unit::FluidOunce)
    {
        return (amount.clone(), unit);
    }
    let size = amount * unit.size();
    let fits = |other: &Unit| {
        let least = match other {
            Unit::Cup => ratio(1, 4),
            _ => ratio(1, 1),
        };
        let of = &size / other.size();
        of >= least && (&of / other.step()).is_integer()
    };
    // What it was written in stays, as long as it comes out even.
    let is_even = (amount / unit.step()).is_integer() && !amount.is_zero();
    let largest = KITCHEN.into_iter().find(fits);
    match largest {
        Some(other) if !is_even || other.size() > unit.size() => (size / other.size(), other),
        _ => (amount.clone(), unit),
    }
}

/// The parts of a recipe made so many times, in whole kitchen measures: acid rounded up, what is low in acid rounded down,
/// packets rounded up, the tomatoes as they are, and a dose for each jar as it is printed.
#[must_use]
pub fn scaled(parts: &[Part], factor: &BigRational) -> Vec<Part> {
    let one = |part: &Part| {
        let role = role_by_name(part);
        // A dose for each jar does not grow with the batch.
        let Some((amount, unit)) = part.measured().filter(|_| part.per.is_batch()) else {
            return part.clone();
        };
        let amount = amount * factor;
        let amount = match unit {
            Unit::Packet => amount.ceil(),
            Unit::Piece if role == Role::Packet => amount.ceil(),
            _ => {
                // A quarter of a cup is coarse for a spoonful of leaves: then spoons are the step.
                let step = if amount < unit.step() && unit.dimension() == Dimension::Volume {
                    Unit::Teaspoon.step() * Unit::Teaspoon.size() / unit.size()
                } else {
                    unit.step()
                };
                rounded(role, &amount, &step)
            }
        };
        let (amount, unit) = at_hand(&amount, unit);
        Part { amount: Some(decimal(&amount)), unit: Some(unit), ..part.clone() }
    };
    parts.iter().map(one).collect()
}

/// A recipe made so many times, as a recipe of its own: its lines in whole kitchen measures, rounded to the safe side, so that
/// what was held against a copy still stands. Its process is the same; jars do not grow with it.
#[must_use]
pub fn copy(text: &RecipeText, factor: f64) -> RecipeText {
    let parts = scaled(&parts_of(text), &exact(factor));
    let lines = text.lines.iter().zip(parts).map(|(line, part)| RecipeLine { part, ..line.clone() });
    RecipeText {
        name: format!("{} × {}", text.name.trim(), short(factor)).chars().take(LONGEST_NAME).collect(),
        lines: lines.collect(),
        makes: text.makes.map(|makes| Makes { low: makes.low * factor, high: makes.high * factor, ..makes }),
        ..text.clone()
    }
}

/// How many times the recipe the tomatoes there are make; none when nobody can tell.
#[must_use]
pub fn by_tomatoes(base: &[Part], there: &[Part]) -> Option<f64> {
    compare(base, there).tomato_factor
}

/// A weight of tomatoes as a part.
#[must_use]
pub fn tomatoes_of(grams: f64) -> Part {
    Part::new("tomatoes", Some(decimal(&exact(grams))), Some(Unit::Gram), Role::Tomato)
}

/// How many times the recipe one part of it lasts.
fn lasts(base: &Part, there: &Part) -> Option<BigRational> {
    let (needed, needed_in) = base.measured()?;
    let (given, given_in) = there.measured()?;
    let (needed, given) = if needed_in.dimension() == given_in.dimension() {
        (needed * needed_in.size(), given * given_in.size())
    } else {
        (base.grams()?, there.grams()?)
    };
    (!needed.is_zero()).then(|| given / needed)
}

/// The scarcest of what is there: how many times the recipe it lasts, and its name. What nobody counted is no limit.
#[must_use]
pub fn by_scarcest(base: &[Part], there: &[Part]) -> Option<(f64, String)> {
    let each = base.iter().filter_map(|part| {
        let have = there.iter().find(|other| other.line() == part.line())?;
        Some((decimal(&lasts(part, have)?), part.name.clone()))
    });
    each.min_by(|a, b| a.0.total_cmp(&b.0))
}

/// Grams of tomatoes that parts ask for, about where they are measured by room; `None` when one of them cannot be weighed.
#[must_use]
pub fn tomato_grams(parts: &[Part]) -> Option<f64> {
    let tomatoes = parts.iter().filter(|part| part.role == Role::Tomato);
    tomatoes.map(|part| part.grams().map(|grams| decimal(&grams))).sum()
}

/// What is chopped beside the tomatoes weighs about: whatever is low in acid and comes by the cup, the piece or the pound. What
/// nobody can weigh is left out.
#[must_use]
pub fn chopped(parts: &[Part]) -> Mass {
    let is_chopped = |part: &&Part| {
        part.role == Role::LowAcid && !matches!(part.unit, Some(Unit::Teaspoon | Unit::Tablespoon))
    };
    about(parts.iter().filter(is_chopped))
}

/// What of these parts can be weighed, about.
fn about<'a>(parts: impl Iterator<Item = &'a Part>) -> Mass {
    let grams: f64 = parts.filter_map(Part::grams).map(|grams| decimal(&grams)).sum();
    kilograms(grams / 1000.0)
}

/// Raw cut fruit weighs about so much a quart. Common practice, no source.
const RAW_LB_A_QUART: f64 = 1.6;

/// Room that the raw parts take in the pots, about; what nobody can weigh is left out.
#[must_use]
pub fn raw_volume(parts: &[Part]) -> Volume {
    quarts(in_pounds(about(parts.iter())) / RAW_LB_A_QUART)
}
