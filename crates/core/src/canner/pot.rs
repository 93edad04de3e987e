//! What fits into a round canner, seen from above.
//!
//! One layer of like jars on a rack. Mixed loads are judged by shares of these counts (see [`crate::canner::loads`]).

use std::collections::BTreeMap;
use std::sync::LazyLock;

use serde::Deserialize;

use crate::jars::size::JarSize;
use crate::measures::moment::Minutes;
use crate::measures::units::{Length, Volume, litres, millimetres};
use crate::tables::reader::{TableError, rows};

/// Water over the lids that a process of more than 30 minutes asks for, inches; every process for plain tomatoes under
/// water is longer. Source: USDA Guide 1, 2015, from memory.
pub const COVER_IN: f64 = 2.0;

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
        JarSize::QuarterPint => (73.0, 62.0),
        JarSize::HalfPint => (73.0, 98.0),
        JarSize::ThreeQuarterPint => (78.0, 133.0),
        JarSize::Pint => (83.0, 130.0),
        JarSize::HalfLitre => (88.0, 137.0),
        JarSize::PintAndHalf => (89.0, 176.0),
        JarSize::Quart => (95.0, 178.0),
        JarSize::Litre => (100.0, 190.0),
        JarSize::HalfGallon => (117.0, 230.0),
    };
    JarOutside { diameter: millimetres(diameter), height: millimetres(height) }
}

/// Outer sizes of a household's jars: measured ones, and the usual ones for the rest.
#[derive(Debug, Clone, Default, PartialEq)]
pub struct Outsides(pub BTreeMap<JarSize, JarOutside>);

impl Outsides {
    /// Outside of one size.
    #[must_use]
    pub fn of(&self, jar: JarSize) -> JarOutside {
        self.0.get(&jar).copied().unwrap_or_else(|| usual_outside(jar))
    }
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
    let table: Vec<PackingRow> = rows(FILE, include_str!("../tables/data/circle_packing.csv"))?;
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

/// The pot, from inside.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Pot {
    /// Inner width.
    pub inner_diameter: Length,
    /// Inner height.
    pub inner_height: Length,
    /// Top of the rack over the bottom.
    pub rack_height: Length,
}

/// Something to mind about a filling.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Crowding {
    /// More jars than stand side by side.
    TooMany,
    /// The jars with their water stand higher than the pot.
    TooTall,
    /// Too little room for a rolling boil.
    BoilsOver,
    /// Less water over the lids than the two inches that a process of more than 30 minutes asks for.
    LowCover,
}

impl std::fmt::Display for Crowding {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.write_str(match self {
            Self::TooMany => {
                "These jars do not stand side by side. Take some out; never stack them against the wall."
            }
            Self::TooTall => "The pot is too low: the jars with the water over them stand above its rim.",
            Self::BoilsOver => {
                "There is less than an inch from the water to the rim: a rolling boil will spill."
            }
            Self::LowCover => "Less than 2 in of water over the lids. Fill to 2 in over them, and keep boiling water beside it.",
        })
    }
}

/// The canner with its jars and water.
#[derive(Debug, Clone, PartialEq)]
pub struct Filling {
    /// Whether the jars stand side by side and under water.
    pub fits: bool,
    /// Water that goes in.
    pub water: Volume,
    /// Level to fill to before the jars go in.
    pub level_before: Length,
    /// From the water to the rim once the jars are in.
    pub headroom: Length,
    /// What to mind.
    pub cautions: Vec<Crowding>,
}

/// Water that a closed jar pushes aside, beside what its name says it holds: the air under the lid and the glass.
/// Ours, from the weight of common jars; makers differ.
const PUSHES_ASIDE: f64 = 1.24;
/// Least water over the lids and least room above it. Source for the water: USDA Guide 1, from memory; for the room:
/// common practice, no source.
const INCH_MM: f64 = 25.4;

/// How much water to put in so that the tallest jar ends so far under it.
#[must_use]
pub fn fill(pot: &Pot, jars: &[(JarSize, u32)], cover: Length, outsides: &Outsides) -> Filling {
    let inch = millimetres(INCH_MM);
    let in_use = || jars.iter().filter(|(_, count)| *count > 0);
    let tallest = in_use().map(|(jar, _)| outsides.of(*jar).height).fold(Length::default(), Length::max);
    let after = pot.rack_height + tallest + cover;
    let floor = pot.inner_diameter * pot.inner_diameter * (std::f64::consts::PI / 4.0);
    let aside = in_use()
        .fold(Volume::default(), |sum, (jar, count)| sum + jar.volume() * (PUSHES_ASIDE * f64::from(*count)));
    let water = (floor * after - aside).max(Volume::default());
    let share: f64 = in_use()
        .map(|(jar, count)| {
            let most = jars_side_by_side(pot.inner_diameter, outsides.of(*jar));
            if most == 0 { f64::INFINITY } else { f64::from(*count) / f64::from(most) }
        })
        .sum();
    let headroom = pot.inner_height - after;
    let mut cautions = Vec::new();
    if share > 1.0 + 1e-9 {
        cautions.push(Crowding::TooMany);
    }
    if headroom < Length::default() {
        cautions.push(Crowding::TooTall);
    } else if headroom < inch {
        cautions.push(Crowding::BoilsOver);
    }
    if cover < inch * (COVER_IN * (1.0 - 1e-9)) {
        cautions.push(Crowding::LowCover);
    }
    let fits = !cautions.iter().any(|caution| matches!(caution, Crowding::TooMany | Crowding::TooTall));
    Filling { fits, water, level_before: water / floor, headroom, cautions }
}

/// Water that boils away under a lid in an hour at a rolling boil, in litres. Common practice, no source.
const BOILS_AWAY_COVERED_L_PER_H: f64 = 1.0;
/// Least to keep boiling for topping up, in litres: a splash is no help.
const LEAST_TOPPING_UP_L: f64 = 1.0;

/// How much water to keep boiling beside the canner for topping up over a process.
#[must_use]
pub fn topping_up(minutes: Minutes) -> Volume {
    litres((BOILS_AWAY_COVERED_L_PER_H * f64::from(minutes.0) / 60.0).max(LEAST_TOPPING_UP_L))
}

/// How far a canner may stand over its burner on each side. Common practice, no source.
const OVERHANG_MM: f64 = 50.8;

/// Whether a canner is wider than its burner can heat evenly: more than 2 in over on a side.
#[must_use]
pub fn overhangs(outer_diameter: Length, burner_diameter: Length) -> bool {
    outer_diameter - burner_diameter > millimetres(2.0 * OVERHANG_MM)
}

#[cfg(test)]
mod tests;
