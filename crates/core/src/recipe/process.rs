//! The process of a recipe: the minutes printed with it, by jar and altitude, and nothing else.

use serde::{Deserialize, Serialize};

use crate::jars::size::JarSize;
use crate::kitchen::altitude::Altitude;
use crate::measures::limits::{ALTITUDE, HEADSPACE, Limit, OutOfRange, POUNDS, RECIPE_MINUTES};
use crate::measures::moment::Minutes;
use crate::measures::words::capital;
use crate::tables::process::{
    Caution, Method, Pack, ProcessOption, Query, Refusal, RefusalCode, Tested, look_up,
};
use crate::tables::source::Source;

/// A line of the printed table.
#[derive(Debug, Clone, Copy, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct PrintedTime {
    /// Jar.
    pub jar: JarSize,
    /// How the jars are heated.
    pub method: Method,
    /// Altitude up to which it holds, in feet, that one included; `null` for the highest band, "above".
    #[serde(default)]
    pub up_to_ft: Option<f64>,
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
}

/// A number of a recipe's process that cannot be right, with its field.
#[derive(Debug, Clone, PartialEq, thiserror::Error)]
#[error("{error}")]
pub struct NoProcess {
    /// The field, as in `times[0].minutes`.
    pub field: String,
    /// What is wrong with it.
    pub error: OutOfRange,
}

impl RecipeProcess {
    /// Checks what a slip of the finger would break.
    ///
    /// # Errors
    /// [`NoProcess`].
    pub fn check(&self) -> Result<(), NoProcess> {
        let within = |limit: Limit, value: f64, field: String| {
            limit.check(value).map(drop).map_err(|error| NoProcess { field, error })
        };
        within(HEADSPACE, self.headspace_in, "headspace_in".to_owned())?;
        for (place, line) in self.times.iter().enumerate() {
            within(RECIPE_MINUTES, f64::from(line.minutes.0), format!("times[{place}].minutes"))?;
            if let Some(feet) = line.up_to_ft {
                within(ALTITUDE, feet, format!("times[{place}].up_to_ft"))?;
            }
            if let Some(psi) = line.psi {
                within(POUNDS, f64::from(psi), format!("times[{place}].psi"))?;
            }
        }
        Ok(())
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
        let reach = |line: &PrintedTime| line.up_to_ft.unwrap_or(f64::INFINITY);
        lines.sort_by(|a, b| reach(a).total_cmp(&reach(b)));
        let line = lines.iter().find(|line| altitude.feet() <= reach(line)).ok_or(NoRecipeTime::Altitude)?;
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
