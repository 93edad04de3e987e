//! How long a canner takes to boil: water, jars and food on a burner.

use bodega_model::measures::units::{Energy, Power, Temperature, Time, Volume, celsius};
use bodega_model::tables::process::Pack;
use uom::si::energy::kilojoule;
use uom::si::power::watt;
use uom::si::thermodynamic_temperature::degree_celsius;
use uom::si::volume::liter;

/// How warm the water should be when the jars go in: about 140 °F for raw pack, 180 °F for hot. Source: USDA Guide 1,
/// from memory.
#[must_use]
pub fn water_before(pack: Pack) -> Temperature {
    celsius(match pack {
        Pack::Raw => 60.0,
        Pack::Hot => 82.0,
    })
}

/// How warm the food goes into the jars: fruit from the table, or just off the boil. Common practice,
/// no source.
#[must_use]
pub fn food_at(pack: Pack) -> Temperature {
    celsius(match pack {
        Pack::Raw => 20.0,
        Pack::Hot => 90.0,
    })
}

/// Power of a household burner in watts, and the share of it that reaches the water, until somebody says otherwise.
/// Common practice, no source.
pub const USUAL_POWER_W: f64 = 2400.0;
/// See [`USUAL_POWER_W`].
pub const USUAL_EFFICIENCY: f64 = 0.55;

/// Temperature of water from the tap. Common practice, no source.
#[must_use]
pub fn tap_water() -> Temperature {
    celsius(15.0)
}

/// Glass of an empty jar in kilograms for each litre it holds, and its specific heat; common practice, no source.
const GLASS_KG_PER_L: f64 = 0.48;
const GLASS_KJ_PER_KG_K: f64 = 0.84;
/// Specific heat of water, and of tomatoes which are nearly water.
const WATER_KJ_PER_KG_K: f64 = 4.19;
const FOOD_KJ_PER_KG_K: f64 = 4.0;
/// Share of its heat that a jar takes up by the time the water boils: its middle lags behind. Ours: a balance of water and
/// jars by the heat that glass passes has 65 to 89 % of it; the household's own loads say more.
const JAR_SHARE: f64 = 0.8;

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

/// Heat to bring a charge to the boil.
#[must_use]
pub fn heat_to_boil(charge: &Charge, boils_at: Temperature) -> Energy {
    let rise = |from: Temperature| (boils_at.get::<degree_celsius>() - from.get::<degree_celsius>()).max(0.0);
    let water = charge.water.get::<liter>() * WATER_KJ_PER_KG_K * rise(charge.water_at);
    let jars = charge.food.get::<liter>()
        * (FOOD_KJ_PER_KG_K + GLASS_KG_PER_L * GLASS_KJ_PER_KG_K)
        * JAR_SHARE
        * rise(charge.food_at);
    Energy::new::<kilojoule>(water + jars)
}

/// Time until the canner boils on a burner of which a share of the power reaches the water.
#[must_use]
pub fn come_up(charge: &Charge, boils_at: Temperature, power: Power, efficiency: f64) -> Time {
    heat_to_boil(charge, boils_at) / (power * efficiency).max(Power::new::<watt>(1.0))
}
