//! A load's water and heat: how much to fill in before the jars go in, and how long it takes to boil.

use bodega_model::canner::events::BoilEvent;
use bodega_model::canner::outline::Outline;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::units::{Length, Power, Time, Volume, inches, litres, millimetres};
use bodega_model::records::canner::{Canner, PotSize};
use bodega_model::records::kitchen::Kitchen;
use bodega_model::records::load::CannerLoad;
use bodega_model::tables::process::Method;
use uom::si::power::watt;

use super::heat::{Charge, USUAL_EFFICIENCY, USUAL_POWER_W, come_up, food_at, tap_water, water_before};
use super::over::cover_of;
use super::pot::{Cover, Filling, boils_away, fill, overhangs};

/// Inner width of a usual canner, for the picture of one that nobody measured. Common practice, no source.
const USUAL_DIAMETER_MM: f64 = 305.0;
/// Walls and rim beside the inner width of a canner. Common practice, no source.
const WALLS_MM: f64 = 6.0;
/// Water of a usual canner that nobody measured, in litres. Common practice, no source.
const USUAL_WATER_L: f64 = 12.0;

/// What is said of a canner that is much wider than its burner.
pub const OVERHANG: &str = "The canner stands more than 2 in over its burner on a side: its edge will not boil. Take a \
    larger burner or a smaller pot.";

/// A canner from above; a usual one until somebody measured it.
#[must_use]
pub fn outline(canner: &Canner) -> Outline {
    canner.pot.map_or_else(|| Outline::round(millimetres(USUAL_DIAMETER_MM)), PotSize::outline)
}

/// Whether a measured canner stands too far over its burner.
#[must_use]
pub fn stands_over(canner: &Canner) -> bool {
    let (Some(pot), Some(burner)) = (canner.pot, canner.burner_mm) else { return false };
    overhangs(millimetres(pot.inner_diameter_mm + WALLS_MM), millimetres(burner))
}

/// The canner filled for a load, so that what boils away over its time still leaves the lids as far under water as the process
/// asks; as far as the pot has room for it. `None` in steam and under pressure, and while nobody has measured the pot.
#[must_use]
pub fn filling(load: &CannerLoad, kitchen: &Kitchen) -> Option<Filling> {
    let pot = load.canner.pot.filter(|_| load.batch.method == Method::BoilingWater)?.inside();
    let (stands, outsides) = (load.stands(), kitchen.outsides());
    let least = inches(cover_of(load));
    let (away, floor) = (boils_away(load.clock.required()), pot.outline.floor());
    let tight = fill(&pot, &stands, Cover { at_start: least, least }, &outsides);
    // An inch under the rim is left for the boil.
    let room = (tight.headroom - inches(1.0)).max(Length::default());
    let more = (away / floor).min(room);
    Some(fill(&pot, &stands, Cover { at_start: least + more, least }, &outsides))
}

/// Water to keep boiling beside a load for topping up: what boils away and does not stand in the pot from the start. Nothing in
/// steam and under pressure, and where it is all in.
#[must_use]
pub fn topping_up(load: &CannerLoad, filling: Option<&Filling>) -> Option<Volume> {
    if load.batch.method != Method::BoilingWater {
        return None;
    }
    let stands = match (filling, load.canner.pot) {
        (Some(filling), Some(pot)) => filling.spare * pot.outline().floor(),
        _ => Volume::default(),
    };
    let missing = boils_away(load.clock.required()) - stands;
    (missing > litres(SPLASH_L)).then(|| missing.max(litres(LEAST_TOPPING_UP_L)))
}

/// What is left over the lids when a load's time is over.
#[must_use]
pub fn at_the_end(load: &CannerLoad, filling: &Filling) -> String {
    let least = cover_of(load);
    match topping_up(load, Some(filling)) {
        None => format!("What boils away leaves {least} in over them."),
        Some(_) => format!("The pot takes no more than that: top up, so that {least} in stay over them."),
    }
}

/// Less than this is not worth a kettle, in litres.
const SPLASH_L: f64 = 0.05;
/// Least to keep boiling for topping up, in litres: a splash is no help.
const LEAST_TOPPING_UP_L: f64 = 1.0;

/// What is said of a load's water where nobody measured the pot.
#[must_use]
pub fn unmeasured(load: &CannerLoad) -> String {
    match load.batch.method {
        Method::BoilingWater => {
            format!("Water to {} in over the lids, a rack or towel under the jars.", cover_of(load))
        }
        Method::AtmosphericSteam | Method::PressureDial | Method::PressureWeighted => {
            "Water as the maker says, a rack under the jars; it must last the whole time.".to_owned()
        }
    }
}

/// What the canner has to heat once the jars are in; a usual canner's water when its own is not known.
#[must_use]
pub fn charge(load: &CannerLoad, filling: Option<&Filling>) -> Charge {
    Charge {
        water: filling.map_or_else(|| litres(USUAL_WATER_L), |filling| filling.water),
        water_at: water_before(load.batch.pack),
        food: load.stands().iter().map(|(size, count)| size.volume() * f64::from(*count)).sum(),
        food_at: food_at(load.batch.pack),
    }
}

/// Power of the burner under a load's canner; a usual one's until somebody said it.
#[must_use]
pub fn power(load: &CannerLoad) -> Power {
    Power::new::<watt>(load.canner.power_w.unwrap_or(USUAL_POWER_W))
}

/// Time from the jars going in to the boil, when the canner's inside and the altitude are known; `pace` is how much longer
/// this canner takes than its burner says.
#[must_use]
pub fn come_up_of(load: &CannerLoad, kitchen: &Kitchen, pace: f64) -> Option<Time> {
    let filling = filling(load, kitchen)?;
    let boils_at = kitchen.altitude().map(Altitude::boiling_point)?;
    Some(come_up(&charge(load, Some(&filling)), boils_at, power(load), USUAL_EFFICIENCY) * pace)
}

/// Loads that the usual pace counts as much as: one odd load is not a habit.
const USUAL_COUNTS: f64 = 1.0;
/// A come-up that took less than this share of what was said, or this many times as long, was told late or by mistake.
const BELIEVED: std::ops::RangeInclusive<f64> = 0.4..=2.5;

/// How much longer a canner takes to boil than its burner says, by its own past loads: the mean of their logarithms, with
/// the usual pace as one more load.
#[must_use]
pub fn pace_of(past: &[CannerLoad], kitchen: &Kitchen) -> f64 {
    let ratio = |load: &CannerLoad| {
        let said = come_up_of(load, kitchen, 1.0)?;
        let at =
            |event| load.clock.happened().iter().find(|happened| happened.event == event).map(|seen| seen.at);
        let took = at(BoilEvent::Boils)?.since(at(BoilEvent::JarsIn)?);
        Some((took / said).get::<uom::si::ratio::ratio>()).filter(|ratio| BELIEVED.contains(ratio))
    };
    let logs: Vec<f64> = past.iter().filter_map(ratio).map(f64::ln).collect();
    #[allow(clippy::cast_precision_loss)] // some loads
    let of = logs.len() as f64 + USUAL_COUNTS;
    (logs.iter().sum::<f64>() / of).exp()
}

/// Time to heat the canner's water from the tap until the jars may go in, when its inside is known.
#[must_use]
pub fn warm_up_of(load: &CannerLoad, kitchen: &Kitchen) -> Option<Time> {
    let cold = Charge {
        water: filling(load, kitchen)?.water,
        water_at: tap_water(),
        food: Volume::default(),
        food_at: tap_water(),
    };
    Some(come_up(&cold, water_before(load.batch.pack), power(load), USUAL_EFFICIENCY))
}
