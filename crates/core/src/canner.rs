//! What fits into a round canner, seen from above.
//!
//! One layer of like jars on a rack. Mixed loads are judged by shares of these counts (see [`crate::loads`]).

use std::sync::LazyLock;

use serde::Deserialize;
use uom::si::length::millimeter;

use crate::jar::JarSize;
use crate::process::Pack;
use crate::table::{TableError, rows};
use crate::units::{Length, Volume};

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
    /// Less water over the lids than an inch.
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
            Self::LowCover => "Less than an inch of water over the lids. Fill to 1 to 2 in over them.",
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

/// How warm the water should be when the jars go in: about 140 °F for raw pack, 180 °F for hot. Source: USDA Guide 1,
/// from memory.
#[must_use]
pub const fn water_before_c(pack: Pack) -> f64 {
    match pack {
        Pack::Raw => 60.0,
        Pack::Hot => 82.0,
    }
}

/// How much water to put in so that the tallest jar ends so far under it.
#[must_use]
pub fn fill(pot: &Pot, jars: &[(JarSize, u32)], cover: Length) -> Filling {
    let inch = Length::new::<millimeter>(INCH_MM);
    let in_use = || jars.iter().filter(|(_, count)| *count > 0);
    let tallest = in_use().map(|(jar, _)| usual_outside(*jar).height).fold(Length::default(), Length::max);
    let after = pot.rack_height + tallest + cover;
    let floor = pot.inner_diameter * pot.inner_diameter * (std::f64::consts::PI / 4.0);
    let aside = in_use()
        .fold(Volume::default(), |sum, (jar, count)| sum + jar.volume() * (PUSHES_ASIDE * f64::from(*count)));
    let water = (floor * after - aside).max(Volume::default());
    let share: f64 = in_use()
        .map(|(jar, count)| {
            let most = jars_side_by_side(pot.inner_diameter, usual_outside(*jar));
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
    if cover < inch * (1.0 - 1e-9) {
        cautions.push(Crowding::LowCover);
    }
    let fits = !cautions.iter().any(|caution| matches!(caution, Crowding::TooMany | Crowding::TooTall));
    Filling { fits, water, level_before: water / floor, headroom, cautions }
}

#[cfg(test)]
mod tests {
    use uom::si::length::millimeter;
    use uom::si::volume::liter;

    use super::{Crowding, Pot, fill, jars_side_by_side, usual_outside};
    use crate::jar::JarSize;
    use crate::units::Length;

    fn mm(value: f64) -> Length {
        Length::new::<millimeter>(value)
    }

    fn standard() -> Pot {
        Pot { inner_diameter: mm(305.0), inner_height: mm(255.0), rack_height: mm(12.0) }
    }

    #[test]
    fn standard_canner_holds_what_is_published() {
        // USDA Guide 1, from memory: a usual canner holds 7 quarts or 9 pints.
        for (jar, most) in [(JarSize::Quart, 7), (JarSize::Pint, 9)] {
            assert_eq!(jars_side_by_side(mm(305.0), usual_outside(jar)), most, "{jar}");
        }
    }

    #[test]
    fn water_rises_by_what_the_jars_push_aside() {
        let filling = fill(&standard(), &[(JarSize::Quart, 7)], mm(38.0));
        assert!(filling.fits, "{filling:?}");
        // 228 mm of water over 730.6 cm² less seven quarts of 1.17 L.
        let expected = 0.228 * 730.62e-4 * 1000.0 - 7.0 * 0.946_353 * 1.24;
        assert!((filling.water.get::<liter>() - expected).abs() < 0.05, "{filling:?}");
        assert!((filling.headroom.get::<millimeter>() - 27.0).abs() < 1e-6);
        assert!(filling.level_before < mm(228.0 - 60.0), "the jars push the rest up");
    }

    #[test]
    fn too_many_too_tall_and_too_little_water_are_said() {
        let crowded = fill(&standard(), &[(JarSize::Quart, 5), (JarSize::Pint, 4)], mm(38.0));
        assert_eq!((crowded.fits, crowded.cautions), (false, vec![Crowding::TooMany]));
        let low = Pot { inner_height: mm(200.0), ..standard() };
        let tall = fill(&low, &[(JarSize::Quart, 7)], mm(38.0));
        assert_eq!((tall.fits, tall.cautions), (false, vec![Crowding::TooTall]));
        let thin = fill(&standard(), &[(JarSize::Pint, 9)], mm(10.0));
        assert_eq!((thin.fits, thin.cautions), (true, vec![Crowding::LowCover]));
    }
}
