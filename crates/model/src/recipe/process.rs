//! The process of a recipe: the minutes printed with it, by jar and altitude, and nothing else.

use serde::{Deserialize, Serialize};

use crate::jars::size::JarSize;
use crate::kitchen::altitude::Altitude;
use crate::measures::limits::{ALTITUDE, HEADSPACE, Limit, OutOfRange, POUNDS, RECIPE_MINUTES};
use crate::measures::moment::Minutes;
use crate::measures::vocabulary::vocabulary;
use crate::measures::words::capital;
use crate::published::source::Source;
use crate::tables::process::{
    Caution, Method, Pack, ProcessOption, Query, Refusal, RefusalCode, Tested, look_up,
};

vocabulary! {
    /// What the page says of altitude.
    "altitude of a page", AltitudePrinted {
        /// A time for each band.
        Bands = "bands", "a time for each band";
        /// Minutes are added by a table that the page names; they are written down as bands.
        Added = "added", "it says to add minutes";
        /// Nothing: its time holds where water boils as at sea level.
        Nothing = "nothing", "it says nothing";
    }
}

/// Up to so many feet a time holds of which its page says nothing. Source: USDA Guide 1, whose first band ends there, from memory.
const NOTHING_SAID_FT: f64 = 1000.0;

/// A line of the printed table.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct PrintedTime {
    /// Jar.
    pub jar: JarSize,
    /// How the jars are heated.
    pub method: Method,
    /// Altitude up to which it holds, in feet, that one included; `null` where the page gives none.
    #[serde(default)]
    pub up_to_ft: Option<f64>,
    /// Whether the page says that it holds at every altitude above its other bands.
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    pub above: bool,
    /// Minutes.
    pub minutes: Minutes,
    /// Pounds on the gauge; `null` in water or steam.
    #[serde(default)]
    pub psi: Option<u32>,
}

/// How a recipe's jars are filled and heated.
#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct RecipeProcess {
    /// Raw or hot.
    pub pack: Pack,
    /// Headspace in inches.
    pub headspace_in: f64,
    /// What the page says of altitude; left out while nobody said, as in recipes written down before that was asked.
    #[serde(default)]
    pub altitude: Option<AltitudePrinted>,
    /// The table as it is printed.
    pub times: Vec<PrintedTime>,
}

/// A time for a jar of a recipe.
#[derive(Debug, Clone, PartialEq)]
pub struct RecipeTime {
    /// Minutes and pounds.
    pub option: ProcessOption,
    /// The jar whose line it is.
    pub printed_for: JarSize,
    /// Whether that is a US jar for a slightly larger metric one.
    pub metric_as_us: bool,
}

/// Why a jar of a recipe has no time.
#[derive(Debug, Clone, Copy, PartialEq, thiserror::Error)]
pub enum NoRecipeTime {
    /// The jar is larger than any that is printed.
    #[error("{} is larger than any jar that the recipe was tested in", .0.label())]
    JarTooLarge(JarSize),
    /// Not printed for this method.
    #[error("the recipe has no time in {}", .0.label())]
    Method(Method),
    /// Not printed for this altitude.
    #[error("the recipe's table does not reach this altitude")]
    Altitude,
    /// The page says nothing of altitude, and the kitchen is higher than that holds.
    #[error(
        "the page says nothing of altitude, so its time holds up to {NOTHING_SAID_FT:.0} ft and nobody can tell for this kitchen"
    )]
    NothingSaid,
}

impl NoRecipeTime {
    /// Whether it stands for something that nobody said, and not for something that is known to be missing.
    #[must_use]
    pub const fn is_untold(self) -> bool {
        matches!(self, Self::NothingSaid)
    }
}

/// Something in a recipe's process that cannot be right, with its field.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[error("{error}")]
pub struct NoProcess {
    /// The field, as in `times[0].minutes`.
    pub field: String,
    /// What is wrong with it.
    pub error: WrongProcess,
}

/// What can be wrong with a recipe's process.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
pub enum WrongProcess {
    /// A number out of range.
    #[error(transparent)]
    Range(#[from] OutOfRange),
    /// A band without an end.
    #[error("say up to which altitude this time holds, or that it holds at every altitude above")]
    OpenBand,
}

impl RecipeProcess {
    /// Checks what a slip of the finger would break.
    ///
    /// # Errors
    /// [`NoProcess`].
    pub fn check(&self) -> Result<(), NoProcess> {
        let within = |limit: Limit, value: f64, field: String| {
            limit.check(value).map(drop).map_err(|error| NoProcess { field, error: error.into() })
        };
        let is_banded = matches!(self.altitude, Some(AltitudePrinted::Bands | AltitudePrinted::Added));
        within(HEADSPACE, self.headspace_in, "headspace_in".to_owned())?;
        for (place, line) in self.times.iter().enumerate() {
            within(RECIPE_MINUTES, f64::from(line.minutes.0), format!("times[{place}].minutes"))?;
            match line.up_to_ft {
                Some(feet) => within(ALTITUDE, feet, format!("times[{place}].up_to_ft"))?,
                None if is_banded && !line.above => {
                    let field = format!("times[{place}].up_to_ft");
                    return Err(NoProcess { field, error: WrongProcess::OpenBand });
                }
                None => {}
            }
            if let Some(psi) = line.psi {
                within(POUNDS, f64::from(psi), format!("times[{place}].psi"))?;
            }
        }
        Ok(())
    }

    /// What the page says of altitude. Of a process that was written down before that was asked, an open band above closed ones
    /// is "above", and one that stands alone says nothing.
    #[must_use]
    pub fn altitude_printed(&self) -> AltitudePrinted {
        let is_closed = |line: &PrintedTime| line.up_to_ft.is_some() || line.above;
        match self.altitude {
            Some(said) => said,
            None if self.times.iter().any(is_closed) => AltitudePrinted::Bands,
            None => AltitudePrinted::Nothing,
        }
    }

    /// The altitude in feet up to which a line holds: of several of one jar and method that were written down before altitude
    /// was asked for, an open one is the highest band.
    fn reach(&self, line: &PrintedTime) -> f64 {
        let is_highest = || {
            let alike = |other: &&PrintedTime| other.jar == line.jar && other.method == line.method;
            self.altitude.is_none() && self.times.iter().filter(alike).any(|other| other.up_to_ft.is_some())
        };
        match line.up_to_ft {
            Some(feet) => feet,
            None if line.above || is_highest() => f64::INFINITY,
            None => NOTHING_SAID_FT,
        }
    }

    /// The printed time for a jar. A smaller jar than the smallest that is printed takes that one's time; a half-litre takes
    /// a pint's and a litre a quart's, as with plain tomatoes.
    ///
    /// # Errors
    /// [`NoRecipeTime`].
    pub fn time(&self, jar: JarSize, method: Method, altitude: Altitude) -> Result<RecipeTime, NoRecipeTime> {
        let mut lines: Vec<&PrintedTime> = self.times.iter().filter(|line| line.method == method).collect();
        if lines.is_empty() {
            return Err(NoRecipeTime::Method(method));
        }
        let as_us = match jar {
            JarSize::HalfLitre => JarSize::Pint,
            JarSize::Litre => JarSize::Quart,
            other => other,
        };
        let holds = |line: &&PrintedTime| line.jar.pints() >= as_us.pints();
        let printed_for = lines
            .iter()
            .filter(|line| line.jar == jar)
            .chain(lines.iter().filter(|line| holds(line)))
            .map(|line| line.jar)
            .min_by(|a, b| (*a != jar).cmp(&(*b != jar)).then(a.pints().cmp(&b.pints())))
            .ok_or(NoRecipeTime::JarTooLarge(jar))?;
        lines.retain(|line| line.jar == printed_for);
        lines.sort_by(|a, b| self.reach(a).total_cmp(&self.reach(b)));
        let is_unsaid = lines.iter().any(|line| line.up_to_ft.is_none() && self.reach(line).is_finite());
        let beyond = if is_unsaid { NoRecipeTime::NothingSaid } else { NoRecipeTime::Altitude };
        let line = lines.iter().find(|line| altitude.feet() <= self.reach(line)).ok_or(beyond)?;
        Ok(RecipeTime {
            option: ProcessOption { minutes: line.minutes, psi: line.psi },
            printed_for,
            metric_as_us: printed_for == as_us && as_us != jar,
        })
    }

    /// The same as a tested process, or the refusal of a jar that has none.
    ///
    /// # Errors
    /// [`Refusal`].
    pub fn tested(&self, jar: JarSize, method: Method, altitude: Altitude) -> Result<Tested, Refusal> {
        let time = self.time(jar, method, altitude).map_err(|why| self.refusal(why))?;
        let caution = if time.metric_as_us {
            Some(Caution::MetricJar(jar))
        } else if time.printed_for != jar {
            Some(Caution::SmallJar { jar, timed_as: time.printed_for })
        } else {
            None
        };
        Ok(Tested {
            options: vec![time.option],
            cautions: caution.into_iter().collect(),
            source: Source::copy_of_recipe(),
        })
    }

    fn refusal(&self, why: NoRecipeTime) -> Refusal {
        let message = format!("{}.", capital(&why.to_string()));
        let cold = "Keep it in the refrigerator or freeze it.";
        match why {
            NoRecipeTime::JarTooLarge(_) => {
                Refusal::new(RefusalCode::JarNotTested, message, &[&self.or_smaller(), cold])
            }
            NoRecipeTime::Method(_) => {
                let printed = "Heat the jars as the recipe prints it, in another canner.";
                Refusal::new(RefusalCode::NoTestedProcess, message, &[printed, cold])
            }
            NoRecipeTime::NothingSaid => Refusal::new(
                RefusalCode::AltitudeNotSaid,
                message,
                &[
                    "Look on the page for a table of minutes to add, or ask your local extension office.",
                    cold,
                ],
            ),
            NoRecipeTime::Altitude => Refusal::new(
                RefusalCode::AltitudeOutOfRange,
                message,
                &["Ask your local extension office for a time at your altitude.", cold],
            ),
        }
    }

    /// What to fill instead of a jar that is too large: "Fill pints or smaller."
    #[must_use]
    pub fn or_smaller(&self) -> String {
        let largest =
            self.jars().last().map_or_else(|| "the jars of the recipe".to_owned(), |jar| jar.plural());
        format!("Fill {largest} or smaller.")
    }

    /// The jars that are printed, small ones first.
    #[must_use]
    pub fn jars(&self) -> Vec<JarSize> {
        let mut jars: Vec<JarSize> = self.times.iter().map(|line| line.jar).collect();
        jars.sort_by_key(|jar| jar.pints());
        jars.dedup();
        jars
    }
}

/// The tested process of a jar: the recipe's own when it is one, else that of plain tomatoes.
///
/// # Errors
/// [`Refusal`] when there is none.
pub fn tested(query: &Query, recipe: Option<&RecipeProcess>) -> Result<Tested, Refusal> {
    match recipe {
        Some(process) => process.tested(query.jar, query.method, query.altitude),
        None => look_up(query),
    }
}
