//! What fits into a round canner, seen from above.
//!
//! One layer of like jars on a rack. Mixed loads are judged by shares of these counts (see [`crate::loads`]).

use std::sync::LazyLock;

use serde::Deserialize;
use uom::si::length::millimeter;

use crate::jar::JarSize;
use crate::table::{TableError, rows};
use crate::units::Length;

/// Outside of a jar with its lid and ring.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct JarOutside {
    /// Widest part.
    pub diameter: Length,
    /// From the base to the top of the lid.
    pub height: Length,
}

/// Usual outer sizes of preserving jars in millimetres; common practice, no source. Makers differ by a few millimetres.
#[must_use]
pub fn usual_outside(jar: JarSize) -> JarOutside {
    let (diameter, height) = match jar {
        JarSize::HalfPint => (73.0, 98.0),
        JarSize::Pint => (83.0, 130.0),
        JarSize::HalfLitre => (88.0, 137.0),
        JarSize::PintAndHalf => (89.0, 176.0),
        JarSize::Quart => (95.0, 178.0),
        JarSize::Litre => (100.0, 190.0),
        JarSize::HalfGallon => (117.0, 230.0),
    };
    JarOutside { diameter: Length::new::<millimeter>(diameter), height: Length::new::<millimeter>(height) }
}

#[derive(Debug, Clone, Copy, Deserialize)]
pub(crate) struct PackingRow {
    n: u32,
    ratio: f64,
}

static PACKING: LazyLock<Vec<PackingRow>> =
    LazyLock::new(|| parse_packing().expect("check_tables() is called at start and a test parses the table"));

pub(crate) fn parse_packing() -> Result<Vec<PackingRow>, TableError> {
    const FILE: &str = "circle_packing.csv";
    let table: Vec<PackingRow> = rows(FILE, include_str!("../data/circle_packing.csv"))?;
    if !table.iter().map(|row| row.n).eq(1..=u32::try_from(table.len()).unwrap_or(u32::MAX)) {
        return Err(TableError::new(FILE, "counts must run 1, 2, 3 and on"));
    }
    if !table.is_sorted_by(|a, b| a.ratio <= b.ratio) {
        return Err(TableError::new(FILE, "more discs cannot need a smaller circle"));
    }
    Ok(table)
}

/// How many like jars stand side by side in a round pot.
///
/// Best known packings of equal circles in a circle (from memory of the published tables); at most the table's last
/// count, so very wide pots are answered low.
#[must_use]
pub fn jars_side_by_side(inner_diameter: Length, jar: JarOutside) -> u32 {
    // Packing ratios are published to three decimals; half of the last one is the table's own error.
    const RATIO_ERROR: f64 = 0.0005;
    let ratio = (inner_diameter / jar.diameter).get::<uom::si::ratio::ratio>() + RATIO_ERROR;
    PACKING.iter().take_while(|row| row.ratio <= ratio).last().map_or(0, |row| row.n)
}
