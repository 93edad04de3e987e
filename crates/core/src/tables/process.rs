//! Which tested process covers a jar: how long, at what pressure, with what headspace, from which source.
//!
//! The lookup never invents a process. It answers with a tested one, or with a [`Refusal`] that says why there is none
//! and what to do instead.

use std::sync::LazyLock;

use serde::Serialize;

use crate::jars::size::{JarSize, TableJar};
use crate::kitchen::altitude::{Altitude, WaterBand};
use crate::measures::moment::Minutes;
use crate::measures::units::{Length, inches};
use crate::measures::vocabulary::vocabulary;
use crate::tables::source::Source;

mod refusal;
mod rows;

pub use refusal::{Refusal, RefusalCode};
pub use rows::{Gauge, PressureRow, Tables, WaterRow};

vocabulary! {
    /// What the tomatoes become.
    "product", Product {
        /// Whole or halved, peeled.
        Whole = "whole", "whole";
        /// Crushed, no water added.
        Crushed = "crushed", "crushed";
        /// Plain juice.
        Juice = "juice", "juice";
        /// Juice with at most 3 cups of vegetables to 22 lb of tomatoes.
        VegetableJuice = "vegetable_juice", "vegetable juice";
        /// Plain sauce, reduced juice.
        Sauce = "sauce", "sauce";
        /// Paste, reduced until it mounds on a spoon.
        Paste = "paste", "paste";
        /// A recipe with a process of its own; no table of plain tomatoes is ever read for it.
        Recipe = "recipe", "recipe";
    }
}

impl Product {
    /// What plain tomatoes become: everything that the tables of this module have.
    pub const PLAIN: [Self; 6] =
        [Self::Whole, Self::Crushed, Self::Juice, Self::VegetableJuice, Self::Sauce, Self::Paste];

    /// What it is called, by itself or with the name that a batch has: "sauce", "sauce, the yellow ones", "Chile salsa".
    #[must_use]
    pub fn called(self, named: Option<&str>) -> String {
        match named {
            Some(name) if self == Self::Recipe => name.to_owned(),
            Some(name) => format!("{self}, {name}"),
            None => self.label().to_owned(),
        }
    }

    /// Whether its acid is a part of it, so that no dose goes into the jar.
    #[must_use]
    pub const fn brings_its_acid(self) -> bool {
        matches!(self, Self::Recipe)
    }
}

vocabulary! {
    /// What whole tomatoes are packed in.
    "medium", Medium {
        /// Boiling water.
        Water = "water", "in water";
        /// Hot tomato juice.
        Juice = "juice", "in juice";
        /// No liquid added.
        None = "none", "no liquid";
    }
}

vocabulary! {
    /// Whether the fruit is heated before it goes into the jar.
    "pack", Pack {
        /// Boiled first, packed hot.
        Hot = "hot", "hot pack";
        /// Packed raw.
        Raw = "raw", "raw pack";
    }
}

vocabulary! {
    /// How the filled jars are heated.
    "method", Method {
        /// Jars under boiling water.
        BoilingWater = "boiling_water", "boiling water";
        /// Jars in steam without pressure.
        AtmosphericSteam = "atmospheric_steam", "steam, no pressure";
        /// Pressure canner with a dial gauge.
        PressureDial = "pressure_dial", "pressure, dial gauge";
        /// Pressure canner with a weighted gauge.
        PressureWeighted = "pressure_weighted", "pressure, weighted gauge";
    }
}

impl Method {
    /// Whether the jars stand under pressure.
    #[must_use]
    pub const fn is_pressure(self) -> bool {
        matches!(self, Self::PressureDial | Self::PressureWeighted)
    }
}

/// Longest process an atmospheric steam canner may run, after the altitude adjustment; its water cannot be topped up.
/// Source: university extension guidance, 2015, from memory.
pub const STEAM_LIMIT: Minutes = Minutes(45);

/// What is asked of the tables.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Query {
    /// What the tomatoes became.
    pub product: Product,
    /// What whole tomatoes are packed in; `None` for every other product.
    pub medium: Option<Medium>,
    /// Raw or hot.
    pub pack: Pack,
    /// How the jars are heated.
    pub method: Method,
    /// Size of the jar.
    pub jar: JarSize,
    /// Height of the kitchen.
    pub altitude: Altitude,
}

/// The packing liquid is missing for whole tomatoes, or was given for something else.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
pub enum MediumError {
    /// Whole tomatoes without a medium.
    #[error("whole tomatoes need a medium, because the time depends on it; use one of: water, juice, none")]
    Missing,
    /// A medium for a product that has none.
    #[error("a medium goes with whole tomatoes only; leave it out for this product")]
    NotForProduct,
}

/// Checks that a packing liquid is given for whole tomatoes and for nothing else.
///
/// # Errors
/// [`MediumError`] says which way round it is wrong.
pub fn check_medium(product: Product, medium: Option<Medium>) -> Result<(), MediumError> {
    match (product, medium) {
        (Product::Whole, None) => Err(MediumError::Missing),
        (Product::Whole, Some(_)) | (_, None) => Ok(()),
        (_, Some(_)) => Err(MediumError::NotForProduct),
    }
}

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
    Ok((row.minutes[column], row.source.clone()))
}

fn pressure_options(query: &Query) -> Result<Vec<ProcessOption>, Refusal> {
    let column = column(query.method, query.altitude)?;
    let mut options: Vec<ProcessOption> = tables()
        .pressure
        .iter()
        .filter(|row| Some(row.gauge) == Gauge::of(query.method))
        .filter(|row| row.matches(query.product, query.medium, query.pack))
        .filter_map(|row| row.psi[column].map(|psi| ProcessOption { minutes: row.minutes, psi: Some(psi) }))
        .collect();
    if options.is_empty() {
        return Err(Refusal::altitude_out_of_range(query.method));
    }
    options.sort_by_key(|option| option.psi);
    Ok(options)
}
