//! Quantities with their dimension in the type, so that a wrong unit does not compile.
//!
//! Conversions are `uom`'s; this module only names the quantities the job uses and the trade's own units.
//!
//! ```compile_fail
//! use bodega_core::units::{Mass, Volume};
//! use uom::si::{mass::kilogram, volume::liter};
//! let nonsense = Mass::new::<kilogram>(1.0) + Volume::new::<liter>(1.0);
//! ```

pub use uom::si::f64::{Length, Mass, Power, Pressure, ThermodynamicTemperature as Temperature, Volume};
use uom::si::mass::{kilogram, pound};
use uom::si::volume::{liter, quart_liquid};

/// Pounds in a bushel of tomatoes. Source: USDA Guide 3, from memory. 56 lb is also quoted (common practice, no source).
pub const BUSHEL_LB: f64 = 53.0;

/// A weight in pounds.
#[must_use]
pub fn pounds(value: f64) -> Mass {
    Mass::new::<pound>(value)
}

/// A weight in kilograms.
#[must_use]
pub fn kilograms(value: f64) -> Mass {
    Mass::new::<kilogram>(value)
}

/// A volume in US liquid quarts.
#[must_use]
pub fn quarts(value: f64) -> Volume {
    Volume::new::<quart_liquid>(value)
}

/// A volume in litres.
#[must_use]
pub fn litres(value: f64) -> Volume {
    Volume::new::<liter>(value)
}
