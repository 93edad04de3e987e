//! What fits into a canner whose inside was measured, and the water over it: one layer of jars on a rack.

use bodega_model::canner::outline::{Outsides, Pot};
use bodega_model::jars::size::JarSize;
use bodega_model::measures::moment::Minutes;
use bodega_model::measures::units::{Length, Volume, litres, millimetres};

use crate::canner::standing::holds;

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
    /// Water over the tallest lid beyond what its process takes: what may boil away.
    pub spare: Length,
    /// What to mind.
    pub cautions: Vec<Crowding>,
}

/// Water that a closed jar pushes aside, beside what its name says it holds: the air under the lid and the glass.
/// Ours, from the weight of common jars; makers differ.
const PUSHES_ASIDE: f64 = 1.24;
/// Least water over the lids and least room above it. Source for the water: USDA Guide 1, from memory; for the room:
/// common practice, no source.
const INCH_MM: f64 = 25.4;

/// How far the tallest lid is under water.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Cover {
    /// When the jars are in.
    pub at_start: Length,
    /// What the process takes at the least.
    pub least: Length,
}

/// How much water to put in so that the tallest jar ends so far under it.
#[must_use]
pub fn fill(pot: &Pot, jars: &[(JarSize, u32)], cover: Cover, outsides: &Outsides) -> Filling {
    let Cover { at_start: cover, least } = cover;
    let inch = millimetres(INCH_MM);
    let in_use = || jars.iter().filter(|(_, count)| *count > 0);
    let tallest = in_use().map(|(jar, _)| outsides.of(*jar).height).fold(Length::default(), Length::max);
    let after = pot.rack_height + tallest + cover;
    let floor = pot.outline.floor();
    let aside = in_use()
        .fold(Volume::default(), |sum, (jar, count)| sum + jar.volume() * (PUSHES_ASIDE * f64::from(*count)));
    let water = (floor * after - aside).max(Volume::default());
    let headroom = pot.inner_height - after;
    let mut cautions = Vec::new();
    if !holds(pot.outline, jars, outsides) {
        cautions.push(Crowding::TooMany);
    }
    if headroom < Length::default() {
        cautions.push(Crowding::TooTall);
    } else if headroom < inch {
        cautions.push(Crowding::BoilsOver);
    }
    if cover < least * (1.0 - 1e-9) {
        cautions.push(Crowding::LowCover);
    }
    let fits = !cautions.iter().any(|caution| matches!(caution, Crowding::TooMany | Crowding::TooTall));
    let spare = (cover - least).max(Length::default());
    Filling { fits, water, level_before: water / floor, headroom, spare, cautions }
}

/// Water that boils away under a lid in an hour at a rolling boil, in litres. Common practice, no source.
const BOILS_AWAY_COVERED_L_PER_H: f64 = 1.0;
/// How much water boils away over a process.
#[must_use]
pub fn boils_away(minutes: Minutes) -> Volume {
    litres(BOILS_AWAY_COVERED_L_PER_H * f64::from(minutes.0) / 60.0)
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
