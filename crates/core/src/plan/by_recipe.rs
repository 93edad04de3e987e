//! A batch that is made by a recipe: the jars it fills so many times, in which canner, from which fruit.

use bodega_model::jars::size::JarSize;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::ledger::keep::FRIDGE_DAYS;
use bodega_model::measures::range::Range;
use bodega_model::measures::units::{Volume, kilograms};
use bodega_model::recipe::acids::agent_of;
use bodega_model::recipe::part::{Part, Role};
use bodega_model::recipe::process::RecipeProcess;
use bodega_model::records::batch::Draw;
use bodega_model::records::canner::Canner;
use bodega_model::records::kitchen::Units;
use bodega_model::records::lot::Lot;
use bodega_model::records::recipe::RecipeText;
use bodega_model::tables::process::Product;

use crate::plan::batch::Wish;
use crate::recipe::page::parts_of;
use crate::recipe::scale::tomato_grams;

/// Jars of a recipe as somebody wants them.
#[derive(Debug, Clone, PartialEq)]
pub struct Wanted {
    /// How many times it is made.
    pub factor: f64,
    /// The jar most of it goes into; the recipe's own when nobody said.
    pub jar: Option<JarSize>,
    /// Jars by size, when the person has decided.
    pub mix: Option<Vec<(JarSize, u32)>>,
}

/// Why a recipe fills no jars.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
pub enum NoJars {
    /// It has no process.
    #[error("this recipe has no tested process: refrigerate it for {FRIDGE_DAYS} days or freeze it")]
    NoProcess,
    /// Its source does not say what it fills, and nobody said it either.
    #[error("the source does not say how many jars it fills; say how many of which size")]
    HowMany,
}

/// The recipe as a wish that a plan works out.
///
/// # Errors
/// [`NoJars`].
pub fn wish(text: &RecipeText, wanted: &Wanted, canner: &Canner, altitude: Altitude) -> Result<Wish, NoJars> {
    let process =
        text.process.as_ref().filter(|process| !process.times.is_empty()).ok_or(NoJars::NoProcess)?;
    let of_mix = |mix: &Vec<(JarSize, u32)>| {
        let all =
            mix.iter().fold(Volume::default(), |sum, (jar, count)| sum + jar.volume() * f64::from(*count));
        Range { low: all, expected: all, high: all }
    };
    let made = text.makes.map(|makes| {
        let jars = |count: f64| makes.jar.volume() * (count * wanted.factor);
        Range {
            low: jars(makes.low),
            expected: jars(f64::midpoint(makes.low, makes.high)),
            high: jars(makes.high),
        }
    });
    let volume = made.or_else(|| wanted.mix.as_ref().map(of_mix)).ok_or(NoJars::HowMany)?;
    let own = text.makes.map(|makes| makes.jar).or_else(|| process.jars().last().copied());
    Ok(Wish {
        product: Product::Recipe,
        medium: None,
        pack: process.pack,
        method: canner.method,
        altitude,
        volume,
        agent: agent_of(&parts_of(text)),
        jar: wanted.jar.or(own).unwrap_or(JarSize::Pint),
        mix: wanted.mix.clone(),
        recipe: Some(process.clone()),
    })
}

/// The canner for a recipe: the one in use when the recipe prints a time for it, else another of the household's that it
/// prints one for, else the one in use, where it is refused.
#[must_use]
pub fn canner<'a>(process: Option<&RecipeProcess>, in_use: &'a Canner, all: &'a [Canner]) -> &'a Canner {
    let is_printed = |canner: &&Canner| {
        process.is_some_and(|process| process.times.iter().any(|line| line.method == canner.method))
    };
    std::iter::once(in_use).chain(all).find(is_printed).unwrap_or(in_use)
}

/// The tomatoes of a recipe, and where they come from.
#[derive(Debug, Clone, PartialEq)]
pub struct Tomatoes {
    /// Grams that it takes, about; `None` when they cannot be weighed.
    pub needed_g: Option<f64>,
    /// What is drawn from each lot, in their order.
    pub draws: Vec<Draw>,
}

impl Tomatoes {
    /// Grams that the lots do not have.
    #[must_use]
    pub fn short_g(&self) -> Option<f64> {
        let drawn: i64 = self.draws.iter().map(|draw| draw.weight_g).sum();
        #[allow(clippy::cast_precision_loss)] // grams of a harvest
        let short = self.needed_g? - drawn as f64;
        (short > 0.5).then_some(short)
    }
}

/// Draws what a recipe's parts, scaled, take from lots, one after the other, until it has enough; all of them while its
/// tomatoes cannot be weighed.
#[must_use]
pub fn tomatoes(scaled: &[Part], lots: &[Lot]) -> Tomatoes {
    let needed_g = tomato_grams(scaled).filter(|grams| *grams > 0.0);
    #[allow(clippy::cast_possible_truncation)] // grams of a harvest
    let mut left = needed_g.map_or(i64::MAX, |grams| grams.ceil() as i64);
    let mut draws = Vec::new();
    for lot in lots {
        let weight_g = lot.left_g.min(left);
        if weight_g > 0 {
            draws.push(Draw { lot: lot.id, weight_g });
            left -= weight_g;
        }
    }
    Tomatoes { needed_g, draws }
}

/// What is to be bought or fetched for parts, scaled: every part but the tomatoes, and of those what the lots do not have.
#[must_use]
pub fn shopping(scaled: &[Part], tomatoes: &Tomatoes, units: Units) -> Vec<String> {
    let others = scaled.iter().filter(|part| part.role != Role::Tomato).map(Part::says);
    let missing = tomatoes
        .short_g()
        .map(|grams| format!("about {} of tomatoes more", units.weight(kilograms(grams / 1000.0))));
    missing.into_iter().chain(others).collect()
}
