//! Quantities with their dimension in the type, so that a wrong unit does not compile.
//!
//! Conversions are `uom`'s; this module only names the quantities the job uses and the trade's own units.
//!
//! ```compile_fail
//! use crate::measures::units::{Mass, Volume};
//! use uom::si::{mass::kilogram, volume::liter};
//! let nonsense = Mass::new::<kilogram>(1.0) + Volume::new::<liter>(1.0);
//! ```

use uom::si::length::inch;
use uom::si::mass::kilogram;
use uom::si::thermodynamic_temperature::degree_celsius;
use uom::si::time::hour;
use uom::si::volume::liter;

pub use uom::si::f64::{
    Area, AvailableEnergy, Energy, Length, Mass, MassDensity, MassRate, Power, Pressure,
    ThermodynamicTemperature as Temperature, Time, Volume, VolumeRate,
};

/// Kilograms in a pound, exact (international pound). `uom` rounds it to seven digits, which costs the last full jar.
const KG_PER_LB: f64 = 0.453_592_37;
/// Litres in a US liquid quart, exact (231 cubic inches to the gallon); rounded in `uom` as well.
const L_PER_QUART: f64 = 0.946_352_946;

/// Cups in a quart.
const CUPS_PER_QUART: f64 = 4.0;

/// Pounds in a bushel of tomatoes. Source: USDA Guide 3, from memory. 56 lb is also quoted (common practice, no source).
pub const BUSHEL_LB: f64 = 53.0;

/// A weight in pounds.
#[must_use]
pub fn pounds(value: f64) -> Mass {
    kilograms(value * KG_PER_LB)
}

/// A weight, read in pounds.
#[must_use]
pub fn in_pounds(mass: Mass) -> f64 {
    mass.get::<kilogram>() / KG_PER_LB
}

/// A length in millimetres.
#[must_use]
pub fn millimetres(value: f64) -> Length {
    Length::new::<uom::si::length::millimeter>(value)
}

/// A weight in whole grams, as records keep it.
#[must_use]
pub fn grams(value: i64) -> Mass {
    #[allow(clippy::cast_precision_loss)] // fruit, far below 2^53
    kilograms(value as f64 / 1000.0)
}

/// A weight in kilograms.
#[must_use]
pub fn kilograms(value: f64) -> Mass {
    Mass::new::<kilogram>(value)
}

/// A volume in US liquid quarts.
#[must_use]
pub fn quarts(value: f64) -> Volume {
    litres(value * L_PER_QUART)
}

/// A volume, read in US liquid quarts.
#[must_use]
pub fn in_quarts(volume: Volume) -> f64 {
    volume.get::<liter>() / L_PER_QUART
}

/// A volume in US cups, sixteen of them to the gallon.
#[must_use]
pub fn cups(value: f64) -> Volume {
    quarts(value / CUPS_PER_QUART)
}

/// A volume, read in US cups.
#[must_use]
pub fn in_cups(volume: Volume) -> f64 {
    in_quarts(volume) * CUPS_PER_QUART
}

/// A volume in millilitres.
#[must_use]
pub fn millilitres(value: f64) -> Volume {
    litres(value / 1000.0)
}

/// A volume in litres.
#[must_use]
pub fn litres(value: f64) -> Volume {
    Volume::new::<liter>(value)
}

/// Degrees Celsius.
#[must_use]
pub fn celsius(value: f64) -> Temperature {
    Temperature::new::<degree_celsius>(value)
}

/// A temperature, read in degrees Celsius.
#[must_use]
pub fn in_celsius(temperature: Temperature) -> f64 {
    temperature.get::<degree_celsius>()
}

/// Litres an hour.
#[must_use]
pub fn litres_per_hour(value: f64) -> VolumeRate {
    litres(value) / Time::new::<hour>(1.0)
}

/// A flow in litres an hour.
#[must_use]
pub fn in_litres_per_hour(rate: VolumeRate) -> f64 {
    (rate * Time::new::<hour>(1.0)).get::<liter>()
}

/// A length in inches.
#[must_use]
pub fn inches(value: f64) -> Length {
    Length::new::<inch>(value)
}
