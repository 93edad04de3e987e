//! What drives water off a kettle.

use bodega_model::kettle::contents::density;
use bodega_model::kitchen::altitude::Altitude;
use bodega_model::measures::units::{
    AvailableEnergy, MassRate, Power, Temperature, VolumeRate, litres_per_hour,
};
use uom::si::available_energy::kilojoule_per_kilogram;
use uom::si::thermodynamic_temperature::degree_celsius;

use super::vessel::Vessel;

/// Latent heat of water boiling at a temperature between 88 and 101 °C: a straight line, held by a test
/// against an independently computed table.
#[must_use]
pub fn latent_heat(boils_at: Temperature) -> AvailableEnergy {
    AvailableEnergy::new::<kilojoule_per_kilogram>(
        2256.5 + 2.609 * (99.974 - boils_at.get::<degree_celsius>()),
    )
}

/// Litres of water an hour that leave a square metre of an open pan in an oven: there the surface limits, not the
/// burner. Common practice, no source.
const OVEN_L_PER_H_M2: f64 = 6.0;

/// Water that an open pan of this width loses in an oven, until its own cook-downs say otherwise.
#[must_use]
pub fn oven_rate(vessel: &Vessel) -> VolumeRate {
    litres_per_hour(OVEN_L_PER_H_M2 * vessel.surface().get::<uom::si::area::square_meter>())
}

/// What drives the water off.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Heat {
    /// A burner: its power and the share of it that reaches the water.
    Burner {
        /// Power.
        power: Power,
        /// Share, 0 to 1: what boils thin juice away, beside what the kettle loses.
        efficiency: f64,
    },
    /// A known rate, from earlier cook-downs.
    Rate {
        /// Water that leaves an open kettle of thin juice at the boil.
        water: VolumeRate,
    },
    /// Nobody knows: the readings have to say it.
    Unknown,
}

impl Heat {
    /// Water that leaves thin juice at a full boil, as far as anything is known of it.
    #[must_use]
    pub fn rate(self, altitude: Altitude) -> Option<MassRate> {
        match self {
            Self::Burner { power, efficiency } => {
                Some(power * efficiency / latent_heat(altitude.boiling_point()))
            }
            Self::Rate { water } => Some(by_weight(water)),
            Self::Unknown => None,
        }
    }
}

/// Water that leaves as litres of 20 °C.
#[must_use]
pub fn by_volume(water: MassRate) -> VolumeRate {
    water / density(0.0)
}

/// Litres of water of 20 °C that leave, by weight.
#[must_use]
pub fn by_weight(water: VolumeRate) -> MassRate {
    water * density(0.0)
}

/// Water that a wide kettle boils away on a household burner, 2 litres an hour, until the household's own cook-downs say
/// otherwise. Common practice, no source.
#[must_use]
pub fn usual_rate() -> VolumeRate {
    litres_per_hour(2.0)
}
