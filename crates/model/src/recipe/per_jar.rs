//! Acid that goes into the jars and not into the pot: "2 Tbsp bottled lemon juice in each quart".
//!
//! It is a dose, times the jars that are filled, and never scaled on the card. Another size takes it in proportion to its room,
//! rounded up to a spoon. Source: extension guidance, from memory; the proportion as for plain tomatoes.

use num_rational::BigRational;
use num_traits::Zero;

use crate::jars::size::JarSize;
use crate::measures::amounts::{Unit, decimal, exact, ratio};
use crate::recipe::acids::known_acid;
use crate::recipe::part::{Part, Per};

/// How much a jar holds, against another: exact.
fn share(jar: JarSize, of: JarSize) -> BigRational {
    let pints = |jar: JarSize| ratio(*jar.pints().numer(), *jar.pints().denom());
    pints(jar) / pints(of)
}

/// Spoons in which a dose is measured out, from large to small.
const SPOONS: [Unit; 2] = [Unit::Tablespoon, Unit::Teaspoon];

/// The dose for a jar: as it is printed for its own size, in proportion for another, rounded up to a quarter of a teaspoon or to
/// the step of its own measure. `None` of a part that goes into the pot, or that nobody measured.
#[must_use]
pub fn dose_in(part: &Part, jar: JarSize) -> Option<Part> {
    let Per::Jar(said) = part.per else { return None };
    let (amount, unit) = part.measured()?;
    let of_jar = |amount: BigRational, unit: Unit| Part {
        amount: Some(decimal(&amount)),
        unit: Some(unit),
        per: Per::Jar(jar),
        ..part.clone()
    };
    if said == jar {
        return Some(of_jar(amount, unit));
    }
    let exactly = amount * share(jar, said);
    if !unit.is_by_spoon() {
        // A scale and a syringe show single grams and millilitres.
        let step = match unit {
            Unit::Gram | Unit::Millilitre => ratio(1, 1),
            Unit::Kilogram | Unit::Litre => ratio(1, 1000),
            _ => unit.step(),
        };
        return Some(of_jar((exactly / &step).ceil() * step, unit));
    }
    let teaspoons = exactly * unit.size() / Unit::Teaspoon.size();
    let step = Unit::Teaspoon.step();
    let rounded = (teaspoons / &step).ceil() * step * Unit::Teaspoon.size();
    let is_even = |unit: &Unit| (&rounded / unit.size() / unit.step()).is_integer() && rounded >= unit.size();
    let spoon = SPOONS.into_iter().find(is_even).unwrap_or(Unit::Teaspoon);
    Some(of_jar(rounded / spoon.size(), spoon))
}

/// So much of it goes into these jars altogether: a part for the batch. One that goes into the pot stays as it is.
pub fn altogether(part: &Part, jars: &[(JarSize, u32)]) -> Part {
    let Per::Jar(said) = part.per else { return part.clone() };
    let quarts = |(jar, count): &(JarSize, u32)| share(*jar, said) * ratio(i64::from(*count), 1);
    let all = jars.iter().map(quarts).fold(BigRational::zero(), |sum, more| sum + more);
    let amount = part.amount.map(|amount| decimal(&(exact(amount) * all)));
    Part { amount, per: Per::Batch, ..part.clone() }
}

/// The acids that go into each jar: what the bench asks for before the food.
#[must_use]
pub fn acid_doses(parts: &[Part]) -> Vec<Part> {
    doses(parts).into_iter().filter(|part| known_acid(part).is_some()).collect()
}

/// The parts that go into each jar.
#[must_use]
pub fn doses(parts: &[Part]) -> Vec<Part> {
    parts.iter().filter(|part| !part.per.is_batch() && part.is_there()).cloned().collect()
}
