//! What somebody reads of a kettle, and how well it can be read.

use bodega_model::measures::units::{Length, Mass, Temperature, Volume, litres};
use uom::si::length::millimeter;
use uom::si::mass::kilogram;
use uom::si::thermodynamic_temperature::degree_celsius;
use uom::si::volume::liter;

use super::pot::{MASS, Pot, State, expansion};
use super::vessel::Vessel;

/// A stick is read to about so many millimetres, one standard deviation.
const STICK_MM: f64 = 2.5;
/// And to about this share of the depth.
const STICK_SHARE: f64 = 0.006;
/// A jug or the marks of a kettle are read to about this share of what went in.
const JUG_SHARE: f64 = 0.013;
/// A scale is read to about this share of what went in, and to so many kilograms.
const SCALE_SHARE: f64 = 0.0015;
const SCALE_KG: f64 = 0.01;
/// A refractometer is read to about so many °Brix, and this share of them.
const BRIX_ERROR: f64 = 0.2;
const BRIX_SHARE: f64 = 0.012;
/// A probe is read to about so many degrees: sauce is not equally hot everywhere.
const PROBE_C: f64 = 1.5;

/// What somebody read.
#[derive(Debug, Clone, Copy, PartialEq)]
pub enum Observation {
    /// Volume in the kettle.
    Volume(Volume),
    /// Depth on the stick.
    Depth(Length),
    /// Net mass on a scale.
    Mass(Mass),
    /// °Brix of a sample.
    Brix(f64),
    /// Temperature on a probe.
    Temperature(Temperature),
    /// Whether it boils.
    Boils(bool),
}

/// A number that was read, with its error.
#[derive(Debug, Clone, Copy)]
pub struct Figure {
    /// The number, in millimetres, litres, kilograms, °Brix or °C.
    pub value: f64,
    /// Its error, one standard deviation.
    pub error: f64,
}

impl Observation {
    /// The number of an observation; none for a word. `start_kg` is what went in.
    #[must_use]
    pub fn figure(self, start_kg: f64) -> Option<Figure> {
        let (value, error) = match self {
            Self::Depth(depth) => {
                let value = depth.get::<millimeter>();
                (value, STICK_MM.hypot(STICK_SHARE * value))
            }
            Self::Volume(volume) => (volume.get::<liter>(), JUG_SHARE * start_kg),
            Self::Mass(mass) => (mass.get::<kilogram>(), SCALE_KG.hypot(SCALE_SHARE * start_kg)),
            Self::Brix(brix) => (brix, BRIX_ERROR.hypot(BRIX_SHARE * brix)),
            Self::Temperature(at) => (at.get::<degree_celsius>(), PROBE_C),
            Self::Boils(_) => return None,
        };
        Some(Figure { value, error })
    }

    /// What would be read of a state; `hot` when a level is that of hot sauce and not the one at 20 °C.
    #[must_use]
    pub fn of(self, pot: &Pot, vessel: &Vessel, state: &State, hot: bool) -> f64 {
        let level = || {
            let grown = if hot { expansion(pot.temperature(state)) } else { 1.0 };
            litres((Pot::litres(state) * grown).max(0.0))
        };
        match self {
            Self::Depth(_) => vessel.depth_of(level()).get::<millimeter>(),
            Self::Volume(_) => level().get::<liter>(),
            Self::Mass(_) => state[MASS],
            Self::Brix(_) => Pot::brix(state),
            Self::Temperature(_) => pot.temperature(state),
            Self::Boils(_) => pot.since_boil(state, false),
        }
    }
}
