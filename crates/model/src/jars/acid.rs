//! How much acid goes into each jar, into a whole batch, and whether a dose stirred into the pot is enough.
//!
//! It does not decide whether acid is needed: it always is, in every product and every method, pressure included
//! (USDA Guide 3, from memory).

use std::sync::LazyLock;

use num_rational::Ratio;
use serde::Deserialize;
use uom::si::volume::milliliter;

use crate::jars::size::JarSize;
use crate::measures::teaspoons::Teaspoons;
use crate::measures::units::Volume;
use crate::measures::vocabulary::vocabulary;
use crate::published::reader::{TableError, rows};

vocabulary! {
    /// What makes the jar acid enough.
    "agent", Agent {
        /// Bottled lemon juice; its strength is standardised, a fresh lemon's is not.
        BottledLemonJuice = "bottled_lemon_juice", "bottled lemon juice";
        /// Food-grade citric acid, level spoons.
        CitricAcid = "citric_acid", "citric acid";
        /// Vinegar of 5 % acidity; may change the taste.
        Vinegar5Pct = "vinegar_5pct", "vinegar (5 %)";
    }
}

impl Agent {
    /// The smallest spoon step that a dose is rounded **up** to when it does not come out on a spoon:
    /// ⅛ tsp for citric acid, ½ tsp for the liquids. Our rule; smaller steps are not on the spoon set.
    #[must_use]
    pub fn spoon_step(self) -> Teaspoons {
        match self {
            Self::CitricAcid => Teaspoons::new(1, 8),
            Self::BottledLemonJuice | Self::Vinegar5Pct => Teaspoons::new(1, 2),
        }
    }
}

#[derive(Debug, Deserialize)]
struct DoseRow {
    agent: Agent,
    quart_tsp: f64,
    pint_tsp: f64,
    #[serde(rename = "note")]
    _note: String,
}

pub(crate) struct Dose {
    agent: Agent,
    pint: Teaspoons,
}

static DOSES: LazyLock<Vec<Dose>> =
    LazyLock::new(|| parse_doses().expect("check_tables() is called at start and a test parses the table"));

pub(crate) fn parse_doses() -> Result<Vec<Dose>, TableError> {
    const FILE: &str = "acid.csv";
    let parsed: Vec<DoseRow> = rows(FILE, include_str!("../../data/acid.csv"))?;
    let mut doses = Vec::new();
    for row in parsed {
        let pint =
            eighths(row.pint_tsp).ok_or_else(|| TableError::new(FILE, "a pint dose is not in eighths"))?;
        let quart =
            eighths(row.quart_tsp).ok_or_else(|| TableError::new(FILE, "a quart dose is not in eighths"))?;
        if quart != pint.times(2) {
            return Err(TableError::new(FILE, format!("{}: a quart needs twice the pint's dose", row.agent)));
        }
        doses.push(Dose { agent: row.agent, pint });
    }
    for agent in Agent::ALL {
        if doses.iter().filter(|dose| dose.agent == *agent).count() != 1 {
            return Err(TableError::new(FILE, format!("{agent} needs exactly one row")));
        }
    }
    Ok(doses)
}

/// The table prints decimals; every published dose is a whole number of eighths of a teaspoon.
fn eighths(tsp: f64) -> Option<Teaspoons> {
    let count = tsp * 8.0;
    // Exact: eighths below 1000 are representable, so equality is meant.
    #[allow(clippy::float_cmp, clippy::cast_possible_truncation)]
    let whole = (count.trunc() == count && (0.0..1000.0).contains(&count)).then_some(count as i64);
    whole.map(|count| Teaspoons::new(count, 8))
}

/// The dose for one jar.
///
/// Pint and quart as published (USDA Guide 3, from memory); other sizes in proportion to volume and rounded up to the
/// agent's [spoon step](Agent::spoon_step), never down. Half-gallons get a dose in proportion too, though they have no
/// tested process.
///
/// ```
/// use bodega_model::jars::acid::{Agent, per_jar};
/// use bodega_model::jars::size::JarSize;
/// assert_eq!(per_jar(Agent::BottledLemonJuice, JarSize::Quart).label(), "2 Tbsp");
/// assert_eq!(per_jar(Agent::CitricAcid, JarSize::HalfPint).label(), "⅛ tsp");
/// ```
#[must_use]
pub fn per_jar(agent: Agent, jar: JarSize) -> Teaspoons {
    published_pint(agent).in_proportion(jar.pints()).rounded_up_to(agent.spoon_step())
}

/// The least dose the judge accepts: in proportion, but a half-litre as a pint and a litre as a quart.
#[must_use]
pub fn least_per_jar(agent: Agent, jar: JarSize) -> Teaspoons {
    let pints = match jar {
        JarSize::HalfLitre => Ratio::from(1),
        JarSize::Litre => Ratio::from(2),
        other => other.pints(),
    };
    published_pint(agent).in_proportion(pints)
}

fn published_pint(agent: Agent) -> Teaspoons {
    DOSES.iter().find(|dose| dose.agent == agent).expect("every agent has a row, checked when parsed").pint
}

/// A dose as it was given, held against what is needed.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct LeastDose {
    /// What is needed.
    pub needed: Teaspoons,
    /// What was given, in teaspoons.
    pub given_tsp: f64,
}

impl LeastDose {
    /// Slack for a decimal number typed for an exact fraction, in teaspoons: far below the smallest spoon.
    const TYPED_SLACK_TSP: f64 = 1e-6;

    /// How many teaspoons are missing; zero when the dose is enough.
    #[must_use]
    pub fn short_tsp(self) -> f64 {
        let short = self.needed.as_f64() - self.given_tsp;
        if short > Self::TYPED_SLACK_TSP { short } else { 0.0 }
    }

    /// Whether nothing is missing.
    #[must_use]
    pub fn enough(self) -> bool {
        self.short_tsp() <= 0.0
    }
}

/// The acid that a mix of jars needs together.
#[must_use]
pub fn total(agent: Agent, jars: &[(JarSize, u32)]) -> Teaspoons {
    jars.iter().map(|(jar, count)| per_jar(agent, *jar).times(*count)).sum()
}

/// What one jar gets of a dose stirred into the pot, in teaspoons: its share by volume.
#[must_use]
pub fn pot_share(pot_tsp: f64, jar: JarSize, jars: &[(JarSize, u32)]) -> f64 {
    let all: Volume = jars.iter().map(|(jar, count)| jar.volume() * f64::from(*count)).sum();
    if all > Volume::default() { pot_tsp * (jar.volume() / all).get::<uom::si::ratio::ratio>() } else { 0.0 }
}

/// A decimal number of teaspoons as a person can measure it: rounded up to the next eighth.
pub fn next_eighth(tsp: f64) -> Teaspoons {
    const EIGHTHS: f64 = 8.0;
    // A decimal typed for a whole eighth must not become the next one.
    let eighths = (tsp * EIGHTHS - 1e-6).ceil().clamp(0.0, 1e6);
    #[allow(clippy::cast_possible_truncation)] // clamped just above
    let eighths = eighths as i64;
    Teaspoons::new(eighths, 8)
}

/// An agent's amount in grams, for those that are weighed; liquids are measured.
#[must_use]
pub fn grams(agent: Agent, amount: Teaspoons) -> Option<f64> {
    match agent {
        Agent::CitricAcid => Some(amount.as_f64() * CITRIC_G_PER_TSP),
        Agent::BottledLemonJuice | Agent::Vinegar5Pct => None,
    }
}

/// An amount as stock is kept: grams of citric acid, millilitres of a liquid.
#[must_use]
pub fn measured(agent: Agent, amount: Teaspoons) -> f64 {
    grams(agent, amount).unwrap_or_else(|| amount.millilitres())
}

/// Teaspoons in an amount of stock; the inverse of [`measured`].
#[must_use]
pub fn teaspoons_of(agent: Agent, measured: f64) -> f64 {
    match agent {
        Agent::CitricAcid => measured / CITRIC_G_PER_TSP,
        Agent::BottledLemonJuice | Agent::Vinegar5Pct => measured / crate::measures::teaspoons::ML_PER_TSP,
    }
}

/// Bottles that hold an amount of a liquid agent; `None` for citric acid, which comes in bags.
#[must_use]
pub fn bottles(agent: Agent, amount: Teaspoons, bottle: Volume) -> Option<u32> {
    let count = (amount.millilitres() / bottle.get::<milliliter>() - 1e-9).ceil().clamp(0.0, 1e6);
    #[allow(clippy::cast_possible_truncation, clippy::cast_sign_loss)] // clamped just above
    let whole = count as u32;
    (agent != Agent::CitricAcid).then_some(whole)
}

/// Grams in a level teaspoon of citric acid. Fine crystals vary between 4.2 and 5.0; the most is taken, so that a weighed
/// dose is never short. Common practice, no source.
pub const CITRIC_G_PER_TSP: f64 = 5.0;

#[cfg(test)]
mod tests {
    use super::{Teaspoons, eighths};

    #[test]
    fn only_whole_eighths_of_a_table_are_doses() {
        assert_eq!(eighths(0.375), Some(Teaspoons::new(3, 8)));
        assert_eq!(eighths(0.0), Some(Teaspoons::ZERO));
        for tsp in [0.3, -1.0, -0.125, 125.0, 125.05, f64::NAN, f64::INFINITY] {
            assert_eq!(eighths(tsp), None, "{tsp}");
        }
    }
}
