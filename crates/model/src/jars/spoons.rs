//! A dose in the household's own spoons, and what somebody measured out in any measure.
//!
//! The published doses are US spoons. A spoon is not the same everywhere, so every label is made from the published volume
//! and rounded **up**; no household measures less than that. It does not decide what a dose is; that is
//! [`acid`]'s.

use num_rational::Ratio;
use serde::{Deserialize, Serialize};
use uom::si::volume::milliliter;

use crate::jars::acid;
use crate::jars::acid::{Agent, CITRIC_G_PER_TSP};
use crate::jars::size::PINT_NL;
use crate::measures::limits::{BOTTLE, DOSE_AMOUNT, OutOfRange, POT_DOSE};
use crate::measures::teaspoons::{ML_PER_TSP, Spoonfuls, Teaspoons};
use crate::measures::units::{Volume, millilitres};
use crate::measures::vocabulary::vocabulary;

vocabulary! {
    /// Whose spoons and cups the household measures with.
    "spoons", Spoons {
        /// Teaspoon 4.93 mL, tablespoon 14.8 mL, cup 237 mL (NIST Handbook 44, Appendix C, from memory).
        Us = "us", "US: tablespoon 14.8 mL";
        /// Teaspoon 5 mL, tablespoon 15 mL, cup 250 mL.
        Metric = "metric", "Metric: tablespoon 15 mL";
        /// Teaspoon 5 mL, tablespoon 20 mL, cup 250 mL.
        Australian = "australian", "Australian: tablespoon 20 mL";
    }
}

vocabulary! {
    /// What a dose was measured with.
    "measure", DoseMeasure {
        /// Level teaspoons.
        Tsp = "tsp", "tsp";
        /// Level tablespoons.
        Tbsp = "tbsp", "Tbsp";
        /// Cups.
        Cup = "cup", "cups";
        /// Millilitres.
        Millilitre = "ml", "mL";
        /// Grams, of citric acid alone.
        Gram = "g", "g";
        /// Whole bottles, of the liquids.
        Bottle = "bottle", "bottles";
    }
}

/// Nanolitres in a metric teaspoon, which Australia shares.
const METRIC_TSP_NL: i64 = 5_000_000;
/// US teaspoons in a US pint.
const TSP_PER_PINT: i64 = 96;

impl Spoons {
    /// Household teaspoons to a tablespoon.
    const fn to_tbsp(self) -> i64 {
        match self {
            Self::Us | Self::Metric => 3,
            Self::Australian => 4,
        }
    }

    /// Household teaspoons to a cup.
    const fn to_cup(self) -> i64 {
        match self {
            Self::Us => 48,
            Self::Metric | Self::Australian => 50,
        }
    }

    /// US teaspoons in one of the household's.
    fn us_tsp(self) -> f64 {
        match self {
            Self::Us => 1.0,
            Self::Metric | Self::Australian => 5.0 / ML_PER_TSP,
        }
    }

    /// The household's teaspoons that hold an amount, rounded up to the agent's spoon step.
    fn holding(self, agent: Agent, amount: Teaspoons) -> Spoonfuls {
        let tsp = match self {
            Self::Us => amount,
            Self::Metric | Self::Australian => amount
                .in_proportion(Ratio::new(PINT_NL, TSP_PER_PINT * METRIC_TSP_NL))
                .rounded_up_to(agent.spoon_step()),
        };
        Spoonfuls { tsp, to_tbsp: self.to_tbsp(), to_cup: self.to_cup() }
    }

    /// What a person measures out for one jar.
    ///
    /// ```
    /// use bodega_model::jars::acid::{Agent, per_jar};
    /// use bodega_model::jars::size::JarSize;
    /// use bodega_model::jars::spoons::Spoons;
    /// let quart = per_jar(Agent::BottledLemonJuice, JarSize::Quart);
    /// assert_eq!(Spoons::Us.dose(Agent::BottledLemonJuice, quart), "2 Tbsp");
    /// assert_eq!(Spoons::Australian.dose(Agent::BottledLemonJuice, quart), "1 Tbsp + 2 tsp");
    /// ```
    #[must_use]
    pub fn dose(self, agent: Agent, amount: Teaspoons) -> String {
        self.holding(agent, amount).label()
    }

    /// What a person measures out for many jars, in cups from a quarter cup upward.
    #[must_use]
    pub fn total(self, agent: Agent, amount: Teaspoons) -> String {
        self.holding(agent, amount).total_label()
    }

    /// The dose of one jar with its volume: `2 Tbsp (30 mL)`.
    #[must_use]
    pub fn dose_with_volume(self, agent: Agent, amount: Teaspoons) -> String {
        format!("{} ({})", self.dose(agent, amount), volume_of(agent, amount.as_f64()))
    }

    /// An amount that somebody gave or that is missing, in US teaspoons, with its volume: `1¼ cups (296 mL)`.
    #[must_use]
    pub fn amount_with_volume(self, agent: Agent, tsp: f64) -> String {
        let amount = acid::next_eighth(tsp);
        format!("{} ({})", self.total(agent, amount), volume_of(agent, tsp))
    }
}

/// The same amount where spoons are not trusted: millilitres rounded up, of citric acid the grams too.
#[must_use]
pub fn volume_of(agent: Agent, tsp: f64) -> String {
    let ml = up(tsp * ML_PER_TSP);
    match agent {
        Agent::CitricAcid => format!("{ml} mL, {} g", up(tsp * CITRIC_G_PER_TSP)),
        Agent::BottledLemonJuice | Agent::Vinegar5Pct => format!("{ml} mL"),
    }
}

/// Rounded up to a tenth below ten and to a whole above: what a small cylinder or a scale shows.
fn up(value: f64) -> f64 {
    let step = if value < 10.0 { 10.0 } else { 1.0 };
    // A decimal made from a fraction must not become the next step.
    (value * step - 1e-6).ceil().max(0.0) / step
}

/// Acid as somebody measured it out.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct Measured {
    /// How much, above 0 to 20,000 of the measure.
    pub amount: f64,
    /// Of what.
    pub measure: DoseMeasure,
    /// What one bottle holds in millilitres, 50 to 20,000; needed for bottles alone.
    #[serde(default)]
    pub bottle_ml: Option<f64>,
}

/// An amount that cannot be counted.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum NotMeasured {
    /// More than any pot takes, or not a number.
    #[error(transparent)]
    Amount(OutOfRange),
    /// No such bottle.
    #[error(transparent)]
    Bottle(OutOfRange),
    /// Nothing was measured out.
    #[error("say how much went in, or leave the line out")]
    Nothing,
    /// A liquid is not weighed.
    #[error("{0} is measured by volume; give spoons, millilitres or bottles")]
    Weighed(Agent),
    /// Crystals come in no bottle.
    #[error("citric acid comes in no bottle; give spoons or grams")]
    Bottled,
    /// A bottle of an unknown size.
    #[error("say what one bottle holds, in millilitres")]
    BottleSize,
}

impl NotMeasured {
    /// The field it is about.
    #[must_use]
    pub const fn field(&self) -> &'static str {
        match self {
            Self::BottleSize => "bottle_ml",
            Self::Weighed(_) | Self::Bottled => "measure",
            Self::Nothing => "amount",
            Self::Bottle(_) => "bottle_ml",
            Self::Amount(_) => "amount",
        }
    }
}

impl Measured {
    /// US teaspoons of an agent, measured with a household's spoons.
    ///
    /// # Errors
    /// [`NotMeasured`] for a number out of range, a liquid in grams, crystals in bottles, a bottle of unknown size.
    pub fn teaspoons(&self, agent: Agent, spoons: Spoons) -> Result<f64, NotMeasured> {
        let amount = DOSE_AMOUNT.check(self.amount).map_err(NotMeasured::Amount)?;
        if amount <= 0.0 {
            return Err(NotMeasured::Nothing);
        }
        let of = |volume: Volume| volume.get::<milliliter>() / ML_PER_TSP;
        #[allow(clippy::cast_precision_loss)] // 3 to 50
        let each = match self.measure {
            DoseMeasure::Tsp => spoons.us_tsp(),
            DoseMeasure::Tbsp => spoons.us_tsp() * spoons.to_tbsp() as f64,
            DoseMeasure::Cup => spoons.us_tsp() * spoons.to_cup() as f64,
            DoseMeasure::Millilitre => of(millilitres(1.0)),
            DoseMeasure::Gram if agent == Agent::CitricAcid => acid::teaspoons_of(agent, 1.0),
            DoseMeasure::Gram => return Err(NotMeasured::Weighed(agent)),
            DoseMeasure::Bottle if agent == Agent::CitricAcid => return Err(NotMeasured::Bottled),
            DoseMeasure::Bottle => {
                let held = self.bottle_ml.ok_or(NotMeasured::BottleSize)?;
                of(millilitres(BOTTLE.check(held).map_err(NotMeasured::Bottle)?))
            }
        };
        POT_DOSE.check(amount * each).map_err(NotMeasured::Amount)
    }
}

/// A line of a list that cannot be counted.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[error("{why}")]
pub struct NotCounted {
    /// Its place in the list, from 0.
    pub line: usize,
    /// Why.
    pub why: NotMeasured,
}

/// US teaspoons in all that was measured out; `None` for nothing.
///
/// # Errors
/// [`NotCounted`] for the first line that cannot be counted, or that makes more than any pot takes.
pub fn all_of(said: &[Measured], agent: Agent, spoons: Spoons) -> Result<Option<f64>, NotCounted> {
    let mut all = 0.0;
    for (line, part) in said.iter().enumerate() {
        let at = |why| NotCounted { line, why };
        all += part.teaspoons(agent, spoons).map_err(at)?;
        POT_DOSE.check(all).map_err(|out| at(NotMeasured::Amount(out)))?;
    }
    Ok((!said.is_empty()).then_some(all))
}

#[cfg(test)]
mod tests {
    use super::{DoseMeasure, Measured, NotMeasured, Spoons, volume_of};
    use crate::jars::acid::{Agent, per_jar, total};
    use crate::jars::size::JarSize;
    use crate::measures::teaspoons::ML_PER_TSP;

    const fn measured(amount: f64, measure: DoseMeasure) -> Measured {
        Measured { amount, measure, bottle_ml: None }
    }

    #[test]
    fn no_spoon_of_the_world_measures_less_than_the_published_volume() {
        for agent in Agent::ALL {
            for jar in JarSize::ALL {
                for count in [1, 7, 11, 40] {
                    let amount = total(*agent, &[(*jar, count)]);
                    for spoons in Spoons::ALL {
                        let held = spoons.holding(*agent, amount).tsp.as_f64() * spoons.us_tsp();
                        let wanted = amount.as_f64();
                        assert!(held >= wanted - 1e-9, "{count} {jar} {agent} {spoons}: {held} of {wanted}");
                        assert!(held < wanted + 0.52, "{count} {jar} {agent} {spoons}: {held} of {wanted}");
                    }
                }
            }
        }
    }

    #[test]
    fn the_published_doses_in_other_spoons() {
        // Tablespoon and teaspoon sizes: Standards Australia AS 1325, from memory; metric spoons of 15 and 5 mL.
        for (agent, jar, us, metric, australian, volume) in [
            (Agent::BottledLemonJuice, JarSize::Quart, "2 Tbsp", "2 Tbsp", "1 Tbsp + 2 tsp", "30 mL"),
            (Agent::BottledLemonJuice, JarSize::Pint, "1 Tbsp", "1 Tbsp", "3 tsp", "15 mL"),
            (Agent::BottledLemonJuice, JarSize::HalfPint, "½ Tbsp", "½ Tbsp", "1½ tsp", "7.4 mL"),
            (Agent::Vinegar5Pct, JarSize::Quart, "4 Tbsp", "4 Tbsp", "3 Tbsp", "60 mL"),
            (Agent::CitricAcid, JarSize::Quart, "½ tsp", "½ tsp", "½ tsp", "2.5 mL, 2.5 g"),
            (Agent::CitricAcid, JarSize::HalfPint, "⅛ tsp", "⅛ tsp", "⅛ tsp", "0.7 mL, 0.7 g"),
        ] {
            let amount = per_jar(agent, jar);
            let said = Spoons::ALL.iter().map(|spoons| spoons.dose(agent, amount));
            assert_eq!(said.collect::<Vec<_>>(), [us, metric, australian], "{jar} {agent}");
            assert_eq!(volume_of(agent, amount.as_f64()), volume, "{jar} {agent}");
        }
        let eleven = total(Agent::BottledLemonJuice, &[(JarSize::Quart, 11)]);
        assert_eq!(Spoons::Us.total(Agent::BottledLemonJuice, eleven), "1¼ cups + 2 Tbsp");
        assert_eq!(
            Spoons::Metric.amount_with_volume(Agent::BottledLemonJuice, 66.0),
            "1¼ cups + 1 Tbsp (326 mL)"
        );
    }

    #[test]
    fn what_was_measured_out_in_any_measure() {
        let lemon = |said: Measured, spoons| said.teaspoons(Agent::BottledLemonJuice, spoons).unwrap();
        let near = |found: f64, ml: f64| {
            assert!((found * ML_PER_TSP - ml).abs() < 1e-6, "{found} tsp is not {ml} mL")
        };
        near(lemon(measured(3.0, DoseMeasure::Tbsp), Spoons::Australian), 60.0);
        near(lemon(measured(3.0, DoseMeasure::Tbsp), Spoons::Metric), 45.0);
        near(lemon(measured(1.0, DoseMeasure::Cup), Spoons::Us), 236.588_236_5);
        near(lemon(measured(1.5, DoseMeasure::Cup), Spoons::Metric), 375.0);
        near(lemon(measured(2.0, DoseMeasure::Tsp), Spoons::Australian), 10.0);
        near(lemon(measured(330.0, DoseMeasure::Millilitre), Spoons::Us), 330.0);
        let bottles = Measured { bottle_ml: Some(443.0), ..measured(2.0, DoseMeasure::Bottle) };
        near(lemon(bottles, Spoons::Us), 886.0);
        // Five grams a teaspoon: a weighed dose is never short.
        let citric = measured(2.5, DoseMeasure::Gram).teaspoons(Agent::CitricAcid, Spoons::Metric).unwrap();
        assert!((citric - 0.5).abs() < 1e-9, "{citric}");
    }

    #[test]
    fn what_cannot_be_counted_is_refused_with_its_field() {
        let of = |said: Measured, agent| said.teaspoons(agent, Spoons::Us).unwrap_err();
        let lemon = Agent::BottledLemonJuice;
        assert_eq!(of(measured(0.0, DoseMeasure::Tsp), lemon), NotMeasured::Nothing);
        assert_eq!(of(measured(30.0, DoseMeasure::Gram), lemon), NotMeasured::Weighed(lemon));
        assert_eq!(of(measured(1.0, DoseMeasure::Bottle), Agent::CitricAcid), NotMeasured::Bottled);
        assert_eq!(of(measured(1.0, DoseMeasure::Bottle), lemon).field(), "bottle_ml");
        let thimble = Measured { bottle_ml: Some(5.0), ..measured(1.0, DoseMeasure::Bottle) };
        assert_eq!(of(thimble, lemon).field(), "bottle_ml");
        for amount in [f64::NAN, -1.0, 1e9] {
            assert_eq!(of(measured(amount, DoseMeasure::Millilitre), lemon).field(), "amount", "{amount}");
        }
        assert_eq!(of(measured(19_000.0, DoseMeasure::Tsp), lemon).field(), "amount");
    }
}
