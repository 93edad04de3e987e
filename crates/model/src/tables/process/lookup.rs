//! The look-up of the tested process.

use std::sync::LazyLock;

use serde::Serialize;

use super::refusal::Refusal;
use super::rows::{Gauge, Tables};
use super::words::{Method, Product, Query, STEAM_LIMIT};
use crate::jars::size::{JarSize, TableJar};
use crate::kitchen::altitude::{Altitude, WaterBand};
use crate::measures::moment::Minutes;
use crate::measures::units::{Length, inches};
use crate::published::source::Source;

/// One way to run a tested process.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ProcessOption {
    /// Minutes at the full boil or the stated pressure.
    pub minutes: Minutes,
    /// Pounds per square inch above the air outside; `null` in water or steam.
    pub psi: Option<u32>,
}

/// A tested process: one or more options of equal standing.
#[derive(Debug, Clone, PartialEq)]
pub struct Tested {
    /// At least one, the lowest pressure first.
    pub options: Vec<ProcessOption>,
    /// What to mind while using it.
    pub cautions: Vec<Caution>,
    /// Where the figures come from.
    pub source: Source,
}

/// Something to mind that does not forbid the process.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Caution {
    /// A litre or half-litre on a quart's or pint's time.
    MetricJar(JarSize),
    /// A small jar on the time of the next tested size up.
    SmallJar {
        /// The jar.
        jar: JarSize,
        /// The size it is timed as.
        timed_as: JarSize,
    },
    /// Acid is needed under pressure too.
    AcidUnderPressure,
    /// Steam canners cannot be topped up.
    NoToppingUp,
}

impl std::fmt::Display for Caution {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        match self {
            Self::MetricJar(jar) => {
                let other = if *jar == JarSize::Litre { "quart" } else { "pint" };
                write!(
                    f,
                    "A {jar} jar holds 6 % more than a {other}. People use the {other} time; no published process \
                     covers it. You decide, and your extension office knows best."
                )
            }
            Self::SmallJar { jar, timed_as } => write!(
                f,
                "A {jar} has no tested time of its own: it gets that of a {timed_as}, which is longer than it needs. \
                 Common practice, no source."
            ),
            Self::AcidUnderPressure => {
                f.write_str("Pressure does not replace the acid: every jar still gets its dose.")
            }
            Self::NoToppingUp => {
                f.write_str("A steam canner cannot be topped up: have its full water in before you start.")
            }
        }
    }
}

/// Headspace as published; `None` for a recipe, which has its own. Source: USDA Guide 3 and, for paste, NCHFP; from
/// memory.
#[must_use]
pub fn headspace(product: Product) -> Option<Length> {
    match product {
        Product::Whole | Product::Crushed | Product::Juice | Product::VegetableJuice => Some(inches(0.5)),
        Product::Sauce | Product::Paste => Some(inches(0.25)),
        Product::Recipe => None,
    }
}

/// The option that a gauge reading allows: the shortest at or below so many pounds. While nobody said the pounds, the
/// longest; in water and steam the only one. `None` when the pounds are below every tested pressure.
#[must_use]
pub fn at_pounds(options: &[ProcessOption], psi: Option<f64>) -> Option<ProcessOption> {
    let Some(psi) = psi else { return options.iter().copied().max_by_key(|option| option.minutes) };
    let reached = |option: &&ProcessOption| option.psi.is_none_or(|needed| f64::from(needed) <= psi + 1e-9);
    options.iter().filter(reached).copied().min_by_key(|option| option.minutes)
}

static TABLES: LazyLock<Tables> = LazyLock::new(|| {
    Tables::parse().expect("check_tables() is called at start and a test parses the tables")
});

/// The parsed tables, for drawing them.
#[must_use]
pub fn tables() -> &'static Tables {
    &TABLES
}

/// Place of the column, from 0, in the table of a method at an altitude.
///
/// # Errors
/// The [`Refusal`] that says where the table ends.
pub fn column(method: Method, altitude: Altitude) -> Result<usize, Refusal> {
    let place = match Gauge::of(method) {
        Some(gauge) => gauge.column(altitude),
        None => altitude.water_band().map(WaterBand::column),
    };
    place.ok_or_else(|| Refusal::altitude_out_of_range(method))
}

/// Looks up the tested process.
///
/// # Errors
/// A [`Refusal`] when there is no tested process for the pack, the jar, the method's limit or the altitude.
pub fn look_up(query: &Query) -> Result<Tested, Refusal> {
    if !tables().covers_pack(query.product, query.medium, query.pack, query.method) {
        return Err(Refusal::no_tested_process(query));
    }
    let (row_jar, caution) = match (query.product, query.jar.table_jar()) {
        // Paste was tested in half-pints only; no larger jar stands for one, and a smaller one is timed as one.
        (Product::Paste, _) if query.jar == JarSize::HalfPint => (JarSize::HalfPint, None),
        (Product::Paste, _) if query.jar == JarSize::QuarterPint => {
            (JarSize::HalfPint, Some(Caution::SmallJar { jar: query.jar, timed_as: JarSize::HalfPint }))
        }
        (Product::Paste, _) | (_, TableJar::Untested) => return Err(Refusal::jar_not_tested(query)),
        (_, TableJar::Published(jar)) => (jar, None),
        (_, TableJar::NextSizeUp(jar)) => {
            // Half-pints are timed as pints by a published rule, so they are the next size that a quarter has.
            let timed_as = if query.jar < JarSize::HalfPint { JarSize::HalfPint } else { jar };
            (jar, Some(Caution::SmallJar { jar: query.jar, timed_as }))
        }
        (_, TableJar::CommonPractice(jar)) => (jar, Some(Caution::MetricJar(query.jar))),
    };
    let mut cautions: Vec<Caution> = caution.into_iter().collect();
    match query.method {
        Method::BoilingWater => {
            let (minutes, source) = water_minutes(query, row_jar)?;
            Ok(Tested { options: vec![ProcessOption { minutes, psi: None }], cautions, source })
        }
        Method::AtmosphericSteam => {
            let (minutes, _) = water_minutes(query, row_jar)?;
            if minutes > STEAM_LIMIT {
                return Err(Refusal::time_over_steam_limit(minutes));
            }
            cautions.push(Caution::NoToppingUp);
            let options = vec![ProcessOption { minutes, psi: None }];
            Ok(Tested { options, cautions, source: Source::steam_guidance() })
        }
        Method::PressureDial | Method::PressureWeighted => {
            let options = pressure_options(query)?;
            cautions.push(Caution::AcidUnderPressure);
            Ok(Tested { options, cautions, source: Source::usda_guide_3() })
        }
    }
}

fn water_minutes(query: &Query, row_jar: JarSize) -> Result<(Minutes, Source), Refusal> {
    let column = column(query.method, query.altitude)?;
    let row = tables()
        .water
        .iter()
        .find(|row| row.matches(query.product, query.medium, query.pack) && row.jar == row_jar)
        .ok_or_else(|| Refusal::jar_not_tested(query))?;
    let minutes = row.minutes.get(column).ok_or_else(|| Refusal::altitude_out_of_range(query.method))?;
    Ok((*minutes, row.source.clone()))
}

fn pressure_options(query: &Query) -> Result<Vec<ProcessOption>, Refusal> {
    let column = column(query.method, query.altitude)?;
    let mut options: Vec<ProcessOption> = tables()
        .pressure
        .iter()
        .filter(|row| Some(row.gauge) == Gauge::of(query.method))
        .filter(|row| row.matches(query.product, query.medium, query.pack))
        .filter_map(|row| {
            let psi = row.psi.get(column).copied().flatten()?;
            Some(ProcessOption { minutes: row.minutes, psi: Some(psi) })
        })
        .collect();
    if options.is_empty() {
        return Err(Refusal::altitude_out_of_range(query.method));
    }
    options.sort_by_key(|option| option.psi);
    Ok(options)
}
