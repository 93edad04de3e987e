//! What fits into a round canner, seen from above.
//!
//! One layer of like jars on a rack. Mixed loads are judged by shares of these counts (see [`crate::canner::loads`]).

use std::collections::BTreeMap;
use std::sync::LazyLock;

use serde::Deserialize;
use uom::si::power::watt;
use uom::si::thermodynamic_temperature::degree_celsius;
use uom::si::time::second;
use uom::si::volume::liter;

use crate::jars::size::JarSize;
use crate::measures::moment::Minutes;
use crate::measures::units::{Length, Power, Temperature, Time, Volume, litres, millimetres};
use crate::tables::process::Pack;
use crate::tables::reader::{TableError, rows};

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

/// How warm the food goes into the jars, in degrees Celsius: fruit from the table, or just off the boil. Common practice,
/// no source.
#[must_use]
pub const fn food_at_c(pack: Pack) -> f64 {
    match pack {
        Pack::Raw => 20.0,
        Pack::Hot => 90.0,
    }
}

/// Power of a household burner in watts, and the share of it that reaches the water, until somebody says otherwise.
/// Common practice, no source.
pub const USUAL_POWER_W: f64 = 2400.0;
/// See [`USUAL_POWER_W`].
pub const USUAL_EFFICIENCY: f64 = 0.55;

/// Temperature of water from the tap, in degrees Celsius. Common practice, no source.
pub const TAP_C: f64 = 15.0;

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
    if cover < inch * (1.0 - 1e-9) {
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

/// Glass of an empty jar in kilograms for each litre it holds, and its specific heat; common practice, no source.
const GLASS_KG_PER_L: f64 = 0.48;
const GLASS_KJ_PER_KG_K: f64 = 0.84;
/// Specific heat of water, and of tomatoes which are nearly water.
const WATER_KJ_PER_KG_K: f64 = 4.19;
const FOOD_KJ_PER_KG_K: f64 = 4.0;
/// Share of its heat that a jar takes up by the time the water boils: its middle lags far behind. Ours; the come-up of
/// the household's own canner says more.
const JAR_SHARE: f64 = 0.5;

/// What has to be heated in a canner.
#[derive(Debug, Clone, Copy, PartialEq)]
pub struct Charge {
    /// Water around the jars.
    pub water: Volume,
    /// Its temperature.
    pub water_at: Temperature,
    /// What the jars hold together.
    pub food: Volume,
    /// Temperature of the jars and what is in them.
    pub food_at: Temperature,
}

/// Kilojoules to bring a charge to the boil.
#[must_use]
pub fn heat_to_boil_kj(charge: &Charge, boils_at: Temperature) -> f64 {
    let rise = |from: Temperature| (boils_at.get::<degree_celsius>() - from.get::<degree_celsius>()).max(0.0);
    let water = charge.water.get::<liter>() * WATER_KJ_PER_KG_K * rise(charge.water_at);
    let jars = charge.food.get::<liter>()
        * (FOOD_KJ_PER_KG_K + GLASS_KG_PER_L * GLASS_KJ_PER_KG_K)
        * JAR_SHARE
        * rise(charge.food_at);
    water + jars
}

/// Time until the canner boils on a burner of which a share of the power reaches the water.
#[must_use]
pub fn come_up(charge: &Charge, boils_at: Temperature, power: Power, efficiency: f64) -> Time {
    let watts = (power.get::<watt>() * efficiency).max(1.0);
    Time::new::<second>(heat_to_boil_kj(charge, boils_at) * 1000.0 / watts)
}

/// A jar as it stands in the canner, seen from above: middle and radius in units of the canner's inner radius.
#[derive(Debug, Clone, Copy, PartialEq, serde::Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Place {
    /// To the right of the middle.
    pub x: f64,
    /// Below the middle.
    pub y: f64,
    /// Radius of the jar.
    pub r: f64,
}

/// Where jars stand in a canner. Like jars start in the rings of the best known packings; unlike ones are then pushed
/// apart until none overlaps, as far as they fit at all.
#[must_use]
pub fn standing(inner_diameter: Length, jars: &[JarSize], outsides: &Outsides) -> Vec<Place> {
    let radius = |jar: &JarSize| (outsides.of(*jar).diameter / inner_diameter).get::<uom::si::ratio::ratio>();
    let rings = rings(jars.len());
    let mut places = Vec::with_capacity(jars.len());
    let mut left = jars;
    for (count, reach) in rings {
        let (ring, rest) = left.split_at(count.min(left.len()));
        left = rest;
        for (jar, place) in ring.iter().zip(0_u32..) {
            #[allow(clippy::cast_precision_loss)] // at most a few dozen jars
            let turn = std::f64::consts::TAU * f64::from(place) / count as f64 - std::f64::consts::FRAC_PI_2;
            let r = radius(jar);
            let from_middle = if reach {
                1.0 - r
            } else if count == 1 {
                0.0
            } else {
                ring_radius(count, r)
            };
            places.push(Place { x: from_middle * turn.cos(), y: from_middle * turn.sin(), r });
        }
    }
    push_apart(&mut places);
    places
}

/// Radius of the smallest ring on which so many like discs do not overlap.
fn ring_radius(count: usize, r: f64) -> f64 {
    #[allow(clippy::cast_precision_loss)] // at most a few dozen jars
    let half_turn = std::f64::consts::PI / count as f64;
    r / half_turn.sin()
}

/// Jars on each ring, outermost first, and whether it lies at the wall: the arrangement of the best known packings for
/// up to 19 discs, from memory of the published drawings.
fn rings(count: usize) -> Vec<(usize, bool)> {
    let inner: &[usize] = match count {
        0..=6 => &[],
        7..=9 => &[1],
        10 => &[2],
        11 | 12 => &[3],
        13 | 14 => &[4],
        15 | 16 => &[5],
        17..=19 => &[5, 1],
        _ => &[7, 2],
    };
    let outer = count - inner.iter().sum::<usize>();
    std::iter::once((outer, count > 1)).chain(inner.iter().map(|ring| (*ring, false))).collect()
}

/// Moves overlapping jars apart and back inside the wall, a little at a time.
fn push_apart(places: &mut [Place]) {
    const ROUNDS: u32 = 400;
    for _ in 0..ROUNDS {
        for a in 0..places.len() {
            for b in a + 1..places.len() {
                let (dx, dy) = (places[b].x - places[a].x, places[b].y - places[a].y);
                let apart = dx.hypot(dy).max(1e-9);
                let overlap = places[a].r + places[b].r - apart;
                if overlap > 0.0 {
                    let (ux, uy) = (dx / apart * overlap / 2.0, dy / apart * overlap / 2.0);
                    (places[a].x, places[a].y) = (places[a].x - ux, places[a].y - uy);
                    (places[b].x, places[b].y) = (places[b].x + ux, places[b].y + uy);
                }
            }
        }
        for place in places.iter_mut() {
            let out = place.x.hypot(place.y);
            if out > 1.0 - place.r {
                let back = (1.0 - place.r) / out;
                (place.x, place.y) = (place.x * back, place.y * back);
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use uom::si::length::millimeter;
    use uom::si::power::watt;
    use uom::si::thermodynamic_temperature::degree_celsius;
    use uom::si::volume::liter;

    use super::{
        Charge, Crowding, JarOutside, Outsides, Pot, come_up, fill, jars_side_by_side, overhangs, standing,
        topping_up, usual_outside,
    };
    use crate::jars::size::JarSize;
    use crate::kitchen::altitude::Altitude;
    use crate::measures::moment::Minutes;
    use crate::measures::units::{Power, Temperature, litres, millimetres as mm};

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
        let filling = fill(&standard(), &[(JarSize::Quart, 7)], mm(38.0), &Outsides::default());
        assert!(filling.fits, "{filling:?}");
        // 228 mm of water over 730.6 cm² less seven quarts of 1.17 L.
        let expected = 0.228 * 730.62e-4 * 1000.0 - 7.0 * 0.946_353 * 1.24;
        assert!((filling.water.get::<liter>() - expected).abs() < 0.05, "{filling:?}");
        assert!((filling.headroom.get::<millimeter>() - 27.0).abs() < 1e-6);
        assert!(filling.level_before < mm(228.0 - 60.0), "the jars push the rest up");
    }

    #[test]
    fn too_many_too_tall_and_too_little_water_are_said() {
        let crowded =
            fill(&standard(), &[(JarSize::Quart, 5), (JarSize::Pint, 4)], mm(38.0), &Outsides::default());
        assert_eq!((crowded.fits, crowded.cautions), (false, vec![Crowding::TooMany]));
        let low = Pot { inner_height: mm(200.0), ..standard() };
        let tall = fill(&low, &[(JarSize::Quart, 7)], mm(38.0), &Outsides::default());
        assert_eq!((tall.fits, tall.cautions), (false, vec![Crowding::TooTall]));
        let thin = fill(&standard(), &[(JarSize::Pint, 9)], mm(10.0), &Outsides::default());
        assert_eq!((thin.fits, thin.cautions), (true, vec![Crowding::LowCover]));
    }

    #[test]
    fn jars_are_drawn_where_they_can_stand() {
        let overlap = |places: &[super::Place]| {
            let mut worst = 0.0_f64;
            for (i, a) in places.iter().enumerate() {
                worst = worst.max(a.x.hypot(a.y) + a.r - 1.0);
                for b in &places[i + 1..] {
                    worst = worst.max(a.r + b.r - (a.x - b.x).hypot(a.y - b.y));
                }
            }
            worst
        };
        for (jar, count) in
            [(JarSize::Quart, 7), (JarSize::Pint, 9), (JarSize::HalfPint, 12), (JarSize::Quart, 1)]
        {
            let places = standing(mm(305.0), &vec![jar; count], &Outsides::default());
            assert!(
                places.len() == count && overlap(&places) < 0.02,
                "{count} of {jar}: {}",
                overlap(&places)
            );
        }
        let mixed = [vec![JarSize::Quart; 3], vec![JarSize::Pint; 4]].concat();
        assert!(overlap(&standing(mm(305.0), &mixed, &Outsides::default())) < 0.02);
    }

    #[test]
    fn come_up_is_heat_over_power() {
        let celsius = Temperature::new::<degree_celsius>;
        // 10 L of water and 6.6 L of hot pack from 82 °C to 100 °C, by hand: 754 + 261 kJ.
        let charge = Charge {
            water: litres(10.0),
            water_at: celsius(82.0),
            food: litres(6.6),
            food_at: celsius(82.0),
        };
        let sea = Altitude::from_feet(0.0).unwrap().boiling_point();
        let minutes = come_up(&charge, sea, Power::new::<watt>(2000.0), 0.5).get::<uom::si::time::minute>();
        assert!((minutes - (753.0 + 261.0) / 60.0).abs() < 0.3, "{minutes}");
        let high = Altitude::from_feet(6000.0).unwrap().boiling_point();
        assert!(
            come_up(&charge, high, Power::new::<watt>(2000.0), 0.5).get::<uom::si::time::minute>() < minutes
        );
    }

    #[test]
    fn a_canner_stands_at_most_two_inches_over_its_burner_on_a_side() {
        assert!(!overhangs(mm(330.0), mm(230.0)) && overhangs(mm(332.0), mm(230.0)));
        assert!((topping_up(Minutes(90)).get::<liter>() - 1.5).abs() < 1e-9);
        assert!((topping_up(Minutes(35)).get::<liter>() - 1.0).abs() < 1e-9, "less is no help");
    }

    #[test]
    fn a_measured_jar_counts_as_it_was_measured() {
        let wide = JarOutside { diameter: mm(110.0), height: mm(178.0) };
        let outsides = Outsides([(JarSize::Quart, wide)].into());
        let filling = fill(&standard(), &[(JarSize::Quart, 7)], mm(38.0), &outsides);
        assert_eq!((filling.fits, filling.cautions), (false, vec![Crowding::TooMany]));
        assert_eq!(outsides.of(JarSize::Pint), usual_outside(JarSize::Pint));
    }
}
